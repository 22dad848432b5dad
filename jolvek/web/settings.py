"""Settings: one frozen dataclass; unknown names stop the start; the secret has no default outside
the demo.
"""

from __future__ import annotations

import os
from dataclasses import dataclass, field, fields
from pathlib import Path
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from babel.numbers import UnknownCurrencyError, validate_currency

from jolvek.core.base.errors import JolvekError, ValueRefused

PREFIX = "JOLVEK_"


@dataclass(frozen=True)
class Settings:
    """What a shop can set; each by JOLVEK_ and its name in capitals, but the data folder and the
    demo, which the command line sets.
    """

    data_dir: Path = field(metadata={"help": "folder of the database and photos", "env": False})
    secret_key: str = field(metadata={"help": "signs cookies; long and random"})
    dealer: str = field(default="Your shop", metadata={"help": "the shop's name, on offers"})
    currency: str = field(default="EUR", metadata={"help": "ISO 4217 code of all prices"})
    time_zone: str = field(
        default="", metadata={"help": "IANA name, as Europe/Oslo; empty: the machine's own"}
    )
    hosts: str = field(
        default="",
        metadata={"help": "names it is reached by, with commas; those of this machine are known"},
    )
    proxies: int = field(
        default=0, metadata={"help": "how many proxies stand before it, whose headers are believed"}
    )
    max_form_bytes: int = field(
        default=1_000_000, metadata={"help": "largest form and enquiry file"}
    )
    max_price_list_bytes: int = field(
        default=4_000_000, metadata={"help": "largest price list and way"}
    )
    max_photo_bytes: int = field(default=20_000_000, metadata={"help": "largest photo"})
    demo: bool = field(default=False, metadata={"help": "an invented shop", "env": False})

    def __post_init__(self) -> None:
        try:
            validate_currency(self.currency)
        except UnknownCurrencyError:
            raise ValueRefused("currency", self.currency, "a currency as EUR or NOK") from None
        try:
            if self.time_zone:
                ZoneInfo(self.time_zone)
        except (ZoneInfoNotFoundError, ValueError):
            raise ValueRefused("time_zone", self.time_zone, "a name as Europe/Oslo") from None
        for key in ("max_form_bytes", "max_price_list_bytes", "max_photo_bytes"):
            if not 10_000 <= getattr(self, key) <= 100_000_000:
                raise ValueRefused(key, getattr(self, key), "10000 to 100000000")
        if not 0 <= self.proxies <= 10:
            raise ValueRefused("proxies", self.proxies, "0 to 10")

    @property
    def host_list(self) -> list[str]:
        """The names in `hosts`."""
        return [name for part in self.hosts.split(",") if (name := part.strip())]

    @property
    def database(self) -> Path:
        """Path of the database file."""
        return self.data_dir / "jolvek.db"


def from_environment(data_dir: Path) -> Settings:
    """Settings from JOLVEK_… variables; raises for unknown names, unusable values and for a missing
    secret.
    """
    known = {PREFIX + f.name.upper(): f for f in fields(Settings) if f.metadata.get("env", True)}
    given = {key: value for key, value in os.environ.items() if key.startswith(PREFIX)}
    values: dict[str, str | int] = {}
    for key, text in given.items():
        if key not in known:
            raise ValueRefused(key, text, "one of " + ", ".join(known))
        values[known[key].name] = _read(key, text, str(known[key].type))
    if not values.get("secret_key"):
        raise JolvekError(
            "JOLVEK_SECRET_KEY is not set: choose a long random text and keep it out of files that"
            " are shared"
        )
    return Settings(data_dir, **values)  # type: ignore[arg-type]


def _read(key: str, text: str, kind: str) -> str | int:
    if kind != "int":
        return text
    if not text.strip().isdigit():
        raise ValueRefused(key, text, "a whole number")
    return int(text)
