"""Settings: one frozen dataclass; unknown names stop the start; the secret has no default outside
the demo.
"""

from __future__ import annotations

import os
from dataclasses import dataclass, fields
from pathlib import Path

from jolvek.core.base.errors import JolvekError, ValueRefused


@dataclass(frozen=True)
class Settings:
    """data_dir: where the database lies. secret_key: signs cookies. dealer: printed on offers."""

    data_dir: Path
    secret_key: str
    dealer: str = "Your shop"
    currency: str = "EUR"
    demo: bool = False
    max_upload_bytes: int = 1_000_000

    @property
    def database(self) -> Path:
        """Path of the database file."""
        return self.data_dir / "jolvek.db"


def from_environment(data_dir: Path) -> Settings:
    """Settings from JOLVEK_… variables; raises for unknown names and for a missing secret."""
    known = {f"JOLVEK_{f.name.upper()}": f for f in fields(Settings)}
    given = {key: value for key, value in os.environ.items() if key.startswith("JOLVEK_")}
    for key in given:
        if key not in known:
            raise ValueRefused(key, given[key], "one of " + ", ".join(known))
    if "JOLVEK_SECRET_KEY" not in given:
        raise JolvekError(
            "JOLVEK_SECRET_KEY is not set: choose a long random text and keep it out of files that"
            " are shared"
        )
    return Settings(
        data_dir=data_dir,
        secret_key=given["JOLVEK_SECRET_KEY"],
        dealer=given.get("JOLVEK_DEALER", "Your shop"),
        currency=given.get("JOLVEK_CURRENCY", "EUR"),
    )
