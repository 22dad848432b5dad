"""What the shop says of itself: typed settings, one row each, checked as they are written."""

from __future__ import annotations

import re
import sqlite3
from collections.abc import Mapping
from dataclasses import dataclass, field, fields
from datetime import date
from typing import Any, ClassVar
from zoneinfo import ZoneInfo, ZoneInfoNotFoundError

from babel.numbers import UnknownCurrencyError, validate_currency

from jolvek.core.base import checked
from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.core.enquiry.need import RESERVE_SCHOOLS, Day
from jolvek.store.columns import UnreadableColumn, from_json, to_json

PRICES = ("fitted", "parts only")
UNIT_SETS = ("sea: kn, m, kg", "land: km/h, m, kg", "mph, ft, lb")
LANGUAGES = ("English", "German", "French", "Dutch", "Spanish")
FORMAT = "jolvek-setting"
NAMES = tuple("greeting number title customer valid_to link shop opening closing".split())
MAIL_SUBJECT = "Offer {number}: {title}"
MAIL_WORDS = """{greeting}

{opening}

Your offer {number}, valid to {valid_to}:

{link}

{closing}

{shop}"""
_NAMES_TOLD = "may hold " + ", ".join(f"{{{name}}}" for name in NAMES)
_NAMED = re.compile(r"\{([^{}]*)\}")


def _of(label: str, group: str, default: Any, hint: str = "") -> Any:
    return field(default=default, metadata={"label": label, "group": group, "hint": hint})


@dataclass(frozen=True)
class Shop:
    """The shop's own settings. Rates are money per hour; `tax_rates` and `deposit` in %; the season
    is its first and last month.
    """

    TEXTS: ClassVar[checked.Counts] = {
        "name": 120,
        "address": 400,
        "phone": 60,
        "mail": 120,
        "tax_number": 60,
        "bank": 120,
        "currency": 3,
        "time_zone": 60,
        "terms": 4000,
        "opening": 1000,
        "closing": 1000,
        "thanks": 1000,
        "mail_subject": 200,
        "mail_words": 2000,
        "logo": 80,
    }
    RANGES: ClassVar[checked.Ranges] = {
        "fitting_rate": (0, 10_000),
        "wiring_rate": (0, 10_000),
        "cable_price": (0, 1000),
        "piece_price": (0, 10_000),
        "deposit": (0, 100),
        "tax_rates": (0, 50),
        "delivery": (0, 1e6),
        "commissioning": (0, 1e6),
        "training": (0, 1e6),
        "kwh_price": (0, 100),
        "litre_price": (0, 100),
        "follow_days": (0, 365),
        "warranty_months": (0, 240),
        "register_days": (0, 365),
        "season_from": (1, 12),
        "season_to": (1, 12),
    }
    COUNTS: ClassVar[checked.Counts] = {"tax_rates": 6}
    CHOICES: ClassVar[checked.Choices] = {
        "language": LANGUAGES,
        "units": UNIT_SETS,
        "ranks_by": PRICES,
        "reserve_school": tuple(RESERVE_SCHOOLS),
    }

    name: str = _of("Name", "Shop", "Your shop", "on every page and paper")
    address: str = _of("Address", "Shop", "")
    phone: str = _of("Telephone", "Shop", "")
    mail: str = _of("Mail", "Shop", "")
    tax_number: str = _of("Tax number", "Shop", "")
    currency: str = _of("Currency", "Money", "EUR", "as EUR, NOK or USD")
    fitting_rate: float = _of("Mounting, an hour", "Money", 0.0, "0: priced after a look")
    wiring_rate: float = _of("Wiring, an hour", "Money", 0.0, "0: priced after a look")
    cable_price: float = _of("Cable, a metre and mm²", "Money", 0.0, "0: priced after a look")
    piece_price: float = _of("Fuse or switch, each", "Money", 0.0, "lugs a quarter of it")
    delivery: float = _of("Delivery", "Money", 0.0, "0: not offered as a line")
    commissioning: float = _of("Commissioning on the water", "Money", 0.0, "0: not offered")
    training: float = _of("Training of the customer", "Money", 0.0, "0: not offered")
    kwh_price: float = _of("Electricity, a kWh", "Money", 0.30, "for the years’ cost")
    litre_price: float = _of("Petrol, a litre", "Money", 1.90, "for the years’ cost")
    ranks_by: str = _of(
        "Price that ranks and counts against a budget",
        "Money",
        PRICES[0],
        "as the offer, or parts only",
    )
    deposit: float = _of("Deposit, %", "Money", 0.0)
    bank: str = _of("Bank account", "Money", "", "on offers")
    tax_rates: tuple[float, ...] = _of("Tax rates, %", "Money", (), "as 25; 12")
    tax_included: bool = _of("prices include the first tax rate", "Money", True)
    language: str = _of("Dates and money as in", "Ways", "English")
    time_zone: str = _of("Time zone", "Ways", "", "as Europe/Oslo; empty: this machine’s")
    units: str = _of("Units to begin with", "Ways", UNIT_SETS[0])
    reserve_school: str = _of("Reserve of new enquiries", "Ways", "fifth")
    season_from: int = _of("Season from month", "Ways", 4)
    season_to: int = _of("to month", "Ways", 10, "new enquiries take a day of it")
    intake: bool = _of("customers may fill in an enquiry themselves", "Ways", False)
    follow_days: int = _of("Follow an offer up after, days", "Ways", 7, "0: never")
    warranty_months: int = _of("Warranty, months from the handover", "Ways", 24, "0: none told")
    register_days: int = _of("Register the warranty within, days", "Ways", 14)
    opening: str = _of("Opening of an offer", "Words", "")
    closing: str = _of("Closing of an offer", "Words", "")
    terms: str = _of("Terms", "Words", "")
    mail_subject: str = _of("Subject of an offer’s mail", "Words", MAIL_SUBJECT, _NAMES_TOLD)
    mail_words: str = _of("Words of an offer’s mail", "Words", MAIL_WORDS, _NAMES_TOLD)
    thanks: str = _of(
        "Thanks to a customer for asking", "Words", "Thank you. We look at it and call you."
    )
    logo: str = ""  # file name in the photos of the data folder

    def __post_init__(self) -> None:
        checked.check(self, "shop")
        if not self.name.strip():
            raise ValueRefused("shop.name", self.name, "a name")
        for key in ("mail_subject", "mail_words"):
            for name in _NAMED.findall(getattr(self, key)):
                if name not in NAMES:
                    raise ValueRefused(f"shop.{key}", f"{{{name}}}", _NAMES_TOLD)
        if self.mail_words and "{link}" not in self.mail_words:
            raise ValueRefused("shop.mail_words", self.mail_words[:40], "words with {link} in them")
        try:
            validate_currency(self.currency)
        except UnknownCurrencyError:
            raise ValueRefused("shop.currency", self.currency, "as EUR, NOK or USD") from None
        try:
            if self.time_zone:
                ZoneInfo(self.time_zone)
        except (ZoneInfoNotFoundError, ValueError, OSError):
            raise ValueRefused("shop.time_zone", self.time_zone, "a name as Europe/Oslo") from None

    @property
    def letter(self) -> tuple[str, str]:
        """Subject and words of an offer's mail; empty ones are the usual ones."""
        return self.mail_subject or MAIL_SUBJECT, self.mail_words or MAIL_WORDS

    def day_of_season(self, today: date) -> str:
        """Today where it is in the season, else the first day of the next one.

        >>> shop = Shop(season_from=4, season_to=10)
        >>> shop.day_of_season(date(2026, 7, 3)), shop.day_of_season(date(2026, 11, 26))
        ('2026-07-03', '2027-04-01')
        >>> Shop(season_from=11, season_to=2).day_of_season(date(2027, 1, 5))
        '2027-01-05'
        """
        first, last, now = self.season_from, self.season_to, today.month
        within = first <= now <= last if first <= last else now >= first or now <= last
        if within:
            return today.isoformat()
        return date(today.year + (now > first), first, 1).isoformat()

    def first_day(self, today: date) -> Day:
        """The day of a new enquiry: the shop's school of reserve, on a day of its season.

        >>> Shop(reserve_school="hour").first_day(date(2026, 7, 3)).keep_s
        3600.0
        """
        kept, on = RESERVE_SCHOOLS[self.reserve_school], self.day_of_season(today)
        return Day(reserve=kept, reserve_school=self.reserve_school, date=on)


def filled(template: str, names: Mapping[str, str]) -> str:
    """A template with what its names stand for; empty paragraphs fall away.

    >>> filled("{opening}\\n\\nOffer {number}", {"opening": "", "number": "2026-0001"})
    'Offer 2026-0001'
    """
    text = _NAMED.sub(lambda m: names.get(m[1], m[0]), template)
    return "\n\n".join(x.strip("\n") for x in re.split(r"\n\s*\n", text) if x.strip())


KEYS = tuple(f.name for f in fields(Shop))


def load(conn: sqlite3.Connection, usual: Mapping[str, Any]) -> Shop:
    """The shop's settings over what is usual; one that cannot be used falls back to that."""
    found = dict(usual)
    for row in conn.execute("SELECT key, value FROM setting").fetchall():
        try:
            value = from_json(FORMAT, row["value"])
            value = tuple(value) if isinstance(value, list) else value
            Shop(**{**usual, row["key"]: value})
        except (UnreadableColumn, JolvekError, TypeError):
            continue
        found[row["key"]] = value
    return Shop(**found)


def save(conn: sqlite3.Connection, shop: Shop, before: Shop) -> list[str]:
    """Keep the settings that differ; gives their names."""
    changed = [key for key in KEYS if getattr(shop, key) != getattr(before, key)]
    for key in changed:
        value = getattr(shop, key)
        value = list(value) if isinstance(value, tuple) else value
        conn.execute(
            "INSERT INTO setting (key, value) VALUES (:key, :value)"
            " ON CONFLICT (key) DO UPDATE SET value = excluded.value",
            {"key": key, "value": to_json(FORMAT, value)},
        )
    return changed
