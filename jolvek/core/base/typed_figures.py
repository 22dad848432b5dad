"""Reads figures as people type them, with or without a unit, into SI."""

from __future__ import annotations

import re

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.base.units import QUANTITIES

# What a unit stands for while typing when no unit is given and the user thinks in it.
_SMALLER = {
    "ft": ("in", 12.0),
    "foot": ("in", 12.0),
    "feet": ("in", 12.0),
    "'": ("in", 12.0),
    "′": ("in", 12.0),
    "’": ("in", 12.0),
    "m": ("cm", 100.0),
    "st": ("lb", 14.0),
    "h": ("min", 60.0),
}
_TOKEN = re.compile(
    r"\s*([+-]?\d+(?:[.,]\d+)?(?![.,]?\d)(?:\s+\d+/\d+|/\d+)?|[+-]?[.,]\d+)"
    r"\s*([^\d\s.,+-][^\d\s+-]*)?"
)


class NotAQuantity(JolvekError):
    """What was typed cannot be read as the quantity asked for."""

    def __init__(self, text: str, quantity: str, unit: str) -> None:
        self.text, self.quantity, self.unit = text, quantity, unit
        units = [u for u in QUANTITIES[quantity].shown if u] or [unit]
        hint = EXAMPLES.get(quantity, "3.5")
        where = f" in {', '.join(units)}" if units != [""] else ""
        asked = {"quantity": name(quantity), "where": where, "hint": hint}
        message = (
            msg("expected an %(quantity)s%(where)s, for example %(hint)s", **asked)
            if asked["quantity"][0] in "aeiou"
            else msg("expected a %(quantity)s%(where)s, for example %(hint)s", **asked)
        )
        super().__init__(msg("read “%(text)s”; %(why)s", text=text, why=message))


_NAMES = {  # where the quantity's own word is no word for what is asked
    "money": "sum of money",
    "celsius": "temperature",
    "clock": "time of day",
    "count": "whole number",
}


def name(quantity: str) -> str:
    """What is asked, in words.

    >>> name("clock"), name("mass")
    ('time of day', 'mass')
    """
    return _NAMES.get(quantity, quantity)


EXAMPLES = {
    "length": "3.55 m or 11 ft 7",
    "speed": "4 kn or 7.5 km/h",
    "mass": "68 kg or 150 lb",
    "power": "1100 W or 1.5 hp",
    "thrust": "310 N or 70 lbf",
    "distance": "6 nm or 10 km",
    "duration": "2 h 30 min",
    "energy": "1280 Wh",
    "share": "20 %",
    "count": "2",
    "charge": "60 Ah",
    "voltage": "24 V",
    "current": "100 A",
    "angle": "12 deg",
    "number": "3",
    "money": "2500",
    "celsius": "12 °C",
    "clock": "9:30",
}


_THOUSANDS = re.compile(r"[1-9]\d{0,2}(?:[.,]\d{3})+(?!\d)")  # nobody writes thousandths of money


def _number(text: str) -> float:
    """Read "3.55", "3,55", "7 1/2" or "1/2" as a float."""
    total = 0.0
    for part in text.replace(",", ".").split():
        if "/" in part:
            top, bottom = part.split("/")
            total += float(top) / float(bottom)
        else:
            total += float(part)
    return total


def parse(text: str, quantity: str, unit: str) -> float:
    """Read what a person typed, as SI. `unit` is taken where none is typed.

    Accepts decimal comma or point, fractions of an inch, and compound lengths. A thousands space is
    read as such when it stands before exactly three digits, of money a point or comma too. Raises
    NotAQuantity with a sentence.

    >>> round(parse("11 ft 7", "length", "m"), 4), round(parse("3,55 m", "length", "ft"), 4)
    (3.5306, 3.55)
    >>> round(parse("30 lb", "mass", "kg"), 3), parse("1 200", "power", "W")
    (13.608, 1200.0)
    >>> parse("1,500", "money", ""), parse("1.500,50", "money", ""), parse("2,5", "money", "")
    (1500.0, 1500.5, 2.5)
    >>> parse("1.899,00 €", "money", ""), parse("799,-", "money", ""), parse("1'899.–", "money", "")
    (1899.0, 799.0, 1899.0)
    """
    known = QUANTITIES[quantity].typed
    rest = re.sub(r"(?<=\d)[\s\u2009\u202f\u00a0](?=\d{3}(?!\d))", "", text.strip())
    if quantity == "money":
        rest = re.sub(r"(?i)^\s*(?:€|\$|£|eur|usd|gbp|chf)\s*", "", rest)
        rest = re.sub(r"(?i)\s*(?:€|\$|£|eur|usd|gbp|chf)\s*$", "", rest)
        rest = re.sub(r"[.,][-–—]{1,2}$", "", rest.replace("'", "").replace("’", ""))
        if thousands := _THOUSANDS.match(rest):
            rest = re.sub("[.,]", "", thousands[0]) + rest[thousands.end() :]
    if quantity == "clock":
        rest = re.sub(r"^(\d{1,2}):(\d{2})$", r"\1 h \2 min", rest)
    total, last, seen = 0.0, "", False
    while rest:
        found = _TOKEN.match(rest)
        if not found:
            raise NotAQuantity(text, quantity, unit)
        try:
            value = _number(found[1])
        except (ValueError, ZeroDivisionError):
            raise NotAQuantity(text, quantity, unit) from None
        word = (found[2] or "").lower().rstrip(".")
        if not word:
            word = _SMALLER[last][0] if last in _SMALLER else (unit.lower() if not seen else "?")
        if word and word not in known or seen and (last not in _SMALLER or value < 0):
            raise NotAQuantity(text, quantity, unit)
        total += value * known.get(word, 1.0)
        last, seen, rest = word, True, rest[found.end() :].strip()
    if not seen or total != total or abs(total) == float("inf"):
        raise NotAQuantity(text, quantity, unit)
    return total
