"""How figures are shown: the unit per quantity kept in the session, and the template filters."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal
from math import isinf

from babel.numbers import format_currency, get_currency_precision, get_group_symbol
from flask import session
from markupsafe import Markup, escape

from jolvek.core.base import units
from jolvek.core.base.money import major
from jolvek.core.rules.findings import Finding, say
from jolvek.store.shop import LANGUAGES, UNIT_SETS
from jolvek.web import data
from jolvek.web.kit import language
from jolvek.web.kit.language import tr

CHOICES = {
    "speed": ("kn", "km/h", "mph"),
    "length": ("m", "ft"),
    "mass": ("kg", "lb"),
    "power": ("W", "kW", "hp"),
    "thrust": ("N", "lbf", "kgf"),
    "distance": ("nm", "km", "mi"),
}
FIXED = {
    "energy": "Wh",
    "voltage": "V",
    "current": "A",
    "charge": "Ah",
    "duration": "h",
    "share": "%",
    "count": "",
    "angle": "deg",
    "number": "",
    "money": "",
    "celsius": "°C",
    "clock": "h",
}


@dataclass(frozen=True)
class Units:
    """The chosen unit per quantity."""

    chosen: dict[str, str]

    def __getitem__(self, quantity: str) -> str:
        return self.chosen.get(quantity) or FIXED[quantity]

    def number(self, value: float | None, quantity: str, decimals: int | None = None) -> str:
        """The figure alone, for tables with the unit in the head."""
        if quantity == "mass" and decimals is None and value is not None and abs(value) < 30:
            decimals = 1
        return language.decimal(units.show(value, quantity, self[quantity], decimals))

    def full(self, value: float | None, quantity: str, decimals: int | None = None) -> Markup:
        """Figure and unit, kept on one line."""
        text = self.number(value, quantity, decimals)
        if value is None:
            return Markup("–")
        if isinf(value):
            return Markup("no limit")
        if text.endswith((".0", ",0")) and quantity == "mass":
            text = text[:-2]
        unit = "" if quantity == "length" and self["length"] == "ft" else self[quantity]
        return Markup("{}{}{}").format(text.replace(" ", "\u00a0"), "\u00a0" if unit else "", unit)

    def entry(self, value: float | None, quantity: str) -> str:
        """The figure as it stands in an input: enough digits to come back unchanged to the eye."""
        return language.decimal(self.plain(value, quantity))

    def plain(self, value: float | None, quantity: str) -> str:
        """The same with a point in every language, as a slider wants it."""
        if value is None:
            return ""
        unit = self[quantity]
        if quantity == "length" and unit == "ft":
            inches = round(value / units.INCH_M, 2)
            return (
                f"{int(inches // 12)} ft {round(inches % 12, 2):g}"
                if inches >= 12
                else f"{inches:g} in"
            )
        places = {
            "length": 3,
            "speed": 1,
            "mass": 1,
            "distance": 2,
            "power": 0 if unit == "W" else 2,
            "angle": 3,
            "clock": 2,
            "duration": 2,
            "money": 2,
            "number": 2,
        }.get(quantity, 1)
        return (
            f"{units.to_unit(value, quantity, unit):.{places}f}".rstrip("0").rstrip(".")
            if places
            else f"{units.to_unit(value, quantity, unit):.0f}"
        )

    def rendered(self, finding: Finding) -> Finding:
        """A finding with its sentences in these units."""
        return say(finding, self.chosen, language.tr, language.decimal("."))

    @property
    def summary(self) -> str:
        """Short text for the header."""
        return " · ".join(self[q] for q in ("speed", "length", "mass", "power"))


LOCALES = dict(zip(LANGUAGES, ("en_IE", "de_DE", "fr_FR", "nl_NL", "es_ES"), strict=True))
DATES = {"en": "en_GB", "de": "de_DE", "fr": "fr_FR", "nl": "nl_NL", "es": "es_ES"}


def language_of_shop() -> str:
    """The language that the shop writes in, and so to customers where nobody chose another."""
    return LOCALES[data.shop().language][:2]


def locale_of_page() -> str:
    """How money and days are written: as the page's language does; English ones as the shop set."""
    result = language.current()
    return LOCALES[data.shop().language] if result == "en" else DATES[result]


BEFORE = ("en_IE", "nl_NL")  # the sign of the currency stands before the amount


def _whole() -> str:
    return "¤#,##0" if locale_of_page() in BEFORE else "#,##0\u00a0¤"


USUAL: dict[str, dict[str, str]] = {
    UNIT_SETS[0]: {},
    UNIT_SETS[1]: {"speed": "km/h", "distance": "km"},
    UNIT_SETS[2]: {"speed": "mph", "length": "ft", "mass": "lb", "distance": "mi"},
}


def current() -> Units:
    """The units of this session, defaults where nothing was chosen."""
    kept, usual = session.get("units", {}), USUAL[data.shop().units]
    return Units(
        {
            q: kept.get(q) if kept.get(q) in options else usual.get(q, options[0])
            for q, options in CHOICES.items()
        }
    )


def money(value: float) -> str:
    """A price in the shop's currency, whole units where there are no cents."""
    return money_of(value, data.shop().currency)


def money_of(value: float | Decimal, currency: str) -> str:
    """An amount of a currency, whole units where there are no cents."""
    whole = value == int(value)
    return _money(value, currency, _whole() if whole else None, not whole)


def amount_of(value: Decimal, currency: str) -> str:
    """An amount as it stands on an offer: with its cents, whatever they are."""
    return _money(value, currency, None, True)


def minor_plain(amount: int) -> str:
    """Minor units of the shop's currency as they are typed."""
    return str(major(amount, get_currency_precision(data.shop().currency)))


def minor_money(amount: int) -> str:
    """Minor units of the shop's currency as an amount with its cents."""
    currency = data.shop().currency
    return amount_of(major(amount, get_currency_precision(currency)), currency)


def _money(value: float | Decimal, currency: str, pattern: str | None, cents: bool) -> str:
    locale = locale_of_page()
    text = format_currency(value, currency, locale=locale, format=pattern, currency_digits=cents)
    return text.replace(get_group_symbol(locale), "\u202f")


def strong(text: str) -> Markup:
    """`*word*` becomes bold; everything else is escaped."""
    parts = str(language.shown(text)).split("*")
    return Markup("").join(
        Markup("<strong>{}</strong>").format(p) if i % 2 else escape(p) for i, p in enumerate(parts)
    )


def about(value: float) -> float:
    """Rounded to two figures: no more is known."""
    return float(f"{value:.2g}") if value < 1000 else float(round(value, -2))


def long_hours(seconds: float | None) -> str:
    """Hours and minutes in words, for answer lines: 1 h 40 min."""
    if seconds is None:
        return tr("no time")
    minutes = int(seconds // 60)
    if minutes >= 100 * 60:
        return f"{minutes // 60} h"
    if minutes < 60:
        return f"{minutes}\u00a0min"
    return f"{minutes // 60}\u00a0h {minutes % 60}\u00a0min"


def counted(n: int, word: str) -> str:
    """So many things.

    >>> counted(1, "setup"), counted(0, "setup")
    ('1 setup', '0 setups')
    """
    return language.counted_text(f"%(n)s {word}", f"%(n)s {word}s", n)


# what `counted` counts: its messages, collected by scripts/messages.py
COUNTED = (
    *("boat", "caution", "day", "enquiry", "letter", "line", "owner", "pack", "part", "piece"),
    *("point", "product", "run", "sentence", "setup", "step", "trial", "trip", "year"),
)


def kwh(energy_wh: float, decimals: int = 1) -> str:
    """An energy in kWh."""
    return language.decimal(f"{energy_wh / 1000:.{decimals}f}")


def energy(energy_wh: float, decimals: int = 1) -> str:
    """An energy in kWh, a small one in Wh.

    >>> energy(1234.0), energy(23.4)
    ('1.2 kWh', '23 Wh')
    """
    small = energy_wh < SMALL_WH
    return f"{energy_wh:.0f} Wh" if small else f"{kwh(energy_wh, decimals)} kWh"


SMALL_WH = 100.0  # less is told in Wh


def band(share: float) -> str:
    """A relative doubt, as the model has it.

    >>> band(0.12)
    '± 12\xa0%'
    """
    return f"±\u00a0{100 * share:.0f}\u00a0%".replace("±\u00a0", "± ")
