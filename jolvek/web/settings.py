"""Settings: one frozen dataclass; unknown names stop the start; the secret has no default outside
the demo.
"""

from __future__ import annotations

import os
import tomllib
from collections.abc import Collection
from dataclasses import dataclass, field, fields
from pathlib import Path
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from babel.numbers import UnknownCurrencyError, validate_currency

from jolvek.core.base.errors import JolvekError, ValueRefused

SECURITIES = ("starttls", "tls", "none")  # of a mail server
LEAST_SECRET = 32  # characters: what signs cookies must not be guessed
PREFIX, FILE = "JOLVEK_", "jolvek.toml"


@dataclass(frozen=True)
class Settings:
    """What is set where the app runs; each by JOLVEK_ and its name in capitals or in jolvek.toml,
    but the data folder and the demo, which the command line sets. What the shop says of itself is
    set on its page.
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
    instruments: str = field(
        default="network",
        metadata={"help": "where instruments may be: network, or machine for this machine's too"},
    )
    smtp_host: str = field(
        default="", metadata={"help": "mail server; empty: mails are files in outbox, not sent"}
    )
    smtp_port: int = field(default=587, metadata={"help": "its port"})
    smtp_security: str = field(default="starttls", metadata={"help": "starttls, tls or none"})
    smtp_user: str = field(default="", metadata={"help": "name to sign in with there"})
    smtp_password: str = field(default="", metadata={"help": "its password, kept out of files"})
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
        if self.smtp_security not in SECURITIES:
            raise ValueRefused("smtp_security", self.smtp_security, ", ".join(SECURITIES))
        if not 1 <= self.smtp_port <= 65_535:
            raise ValueRefused("smtp_port", self.smtp_port, "1 to 65535")
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
    """Settings from jolvek.toml in the data folder, and over it from JOLVEK_… variables; raises for
    unknown names, unusable values and for a missing secret.
    """
    known = {f.name: f for f in fields(Settings) if f.metadata.get("env", True)}
    given: dict[str, object] = dict(_file(data_dir / FILE, known))
    for key, text in os.environ.items():
        if key.startswith(PREFIX):
            name = key.removeprefix(PREFIX).lower()
            if key != PREFIX + name.upper() or name not in known:
                names = ", ".join(PREFIX + name.upper() for name in known)
                raise ValueRefused(key, text, f"one of {names}")
            given[name] = text
    if not given.get("secret_key"):
        raise JolvekError(
            f"JOLVEK_SECRET_KEY is not set, nor secret_key in {FILE}: choose a long random text and"
            " keep it out of files that are shared"
        )
    if len(str(given["secret_key"])) < LEAST_SECRET:
        raise JolvekError(
            f"JOLVEK_SECRET_KEY: read {len(str(given['secret_key']))} characters, allowed are"
            f" {LEAST_SECRET} and more: python -c 'import secrets; print(secrets.token_hex(32))'"
        )
    values = {name: _read(name, value, str(known[name].type)) for name, value in given.items()}
    return Settings(data_dir, **values)  # type: ignore[arg-type]


def _file(path: Path, known: Collection[str]) -> dict[str, object]:
    """What the file says; nothing where there is none."""
    try:
        found = tomllib.loads(path.read_text(encoding="utf-8"))
    except FileNotFoundError:
        return {}
    except (OSError, ValueError) as error:
        raise JolvekError(f"{path}: cannot be read: {error}") from None
    for name in found:
        if name not in known:
            raise ValueRefused(f"{FILE}: {name}", found[name], "one of " + ", ".join(known))
    return found


def _read(key: str, value: object, kind: str) -> str | int:
    if kind != "int":
        if not isinstance(value, str):
            raise ValueRefused(key, value, "a text, in quotes")
        return value
    if isinstance(value, bool) or not str(value).strip().isdecimal():
        raise ValueRefused(key, value, "a whole number")
    return int(str(value))
