"""Units at the edge: factors to SI, reading what people type, and showing SI in a chosen unit.

Nothing inside the core calculates in other than SI; this module is for entry and display.
Factors are exact by definition (NIST SP 811, 2008, Appendix B).
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field

from jolvek.core.base.errors import JolvekError

FOOT_M = 0.3048
INCH_M = 0.0254
MILE_M = 1609.344
NAUTICAL_MILE_M = 1852.0
KNOT_M_S = 1852.0 / 3600.0
MPH_M_S = 1609.344 / 3600.0
POUND_KG = 0.45359237
GRAVITY_M_S2 = 9.80665
POUND_FORCE_N = POUND_KG * GRAVITY_M_S2
HORSEPOWER_W = 550.0 * FOOT_M * POUND_FORCE_N
METRIC_HORSEPOWER_W = 75.0 * GRAVITY_M_S2


@dataclass(frozen=True)
class Quantity:
    """One kind of figure: its SI unit, the units it may be typed in, and those offered for
    display.
    """

    si: str
    typed: dict[str, float]
    shown: dict[str, int] = field(default_factory=dict)  # unit -> decimals


QUANTITIES: dict[str, Quantity] = {
    "length": Quantity(
        "m",
        {
            "m": 1.0,
            "metre": 1.0,
            "metres": 1.0,
            "meter": 1.0,
            "meters": 1.0,
            "cm": 0.01,
            "mm": 0.001,
            "ft": FOOT_M,
            "foot": FOOT_M,
            "feet": FOOT_M,
            "'": FOOT_M,
            "′": FOOT_M,
            "’": FOOT_M,
            "in": INCH_M,
            "inch": INCH_M,
            "inches": INCH_M,
            '"': INCH_M,
            "″": INCH_M,
            "”": INCH_M,
            "''": INCH_M,
        },
        {"m": 2, "ft": 0},
    ),
    "speed": Quantity(
        "m/s",
        {
            "m/s": 1.0,
            "kn": KNOT_M_S,
            "kt": KNOT_M_S,
            "kts": KNOT_M_S,
            "knot": KNOT_M_S,
            "knots": KNOT_M_S,
            "km/h": 1 / 3.6,
            "kmh": 1 / 3.6,
            "kph": 1 / 3.6,
            "mph": MPH_M_S,
        },
        {"kn": 1, "km/h": 1, "mph": 1, "m/s": 2},
    ),
    "mass": Quantity(
        "kg",
        {
            "kg": 1.0,
            "kilo": 1.0,
            "kilos": 1.0,
            "g": 0.001,
            "t": 1000.0,
            "lb": POUND_KG,
            "lbs": POUND_KG,
            "pound": POUND_KG,
            "pounds": POUND_KG,
            "st": 14 * POUND_KG,
        },
        {"kg": 0, "lb": 0},
    ),
    "power": Quantity(
        "W",
        {
            "w": 1.0,
            "watt": 1.0,
            "watts": 1.0,
            "kw": 1000.0,
            "hp": HORSEPOWER_W,
            "ps": METRIC_HORSEPOWER_W,
        },
        {"W": 0, "kW": 2, "hp": 1},
    ),
    "thrust": Quantity(
        "N",
        {
            "n": 1.0,
            "kn": 1000.0,
            "lbf": POUND_FORCE_N,
            "lb": POUND_FORCE_N,
            "lbs": POUND_FORCE_N,
            "kgf": GRAVITY_M_S2,
            "kp": GRAVITY_M_S2,
            "kg": GRAVITY_M_S2,
        },
        {"N": 0, "lbf": 0, "kgf": 1},
    ),
    "distance": Quantity(
        "m",
        {
            "m": 1.0,
            "km": 1000.0,
            "nm": NAUTICAL_MILE_M,
            "nmi": NAUTICAL_MILE_M,
            "mi": MILE_M,
            "mile": MILE_M,
            "miles": MILE_M,
            "sm": NAUTICAL_MILE_M,
        },
        {"nm": 1, "km": 1, "mi": 1},
    ),
    "duration": Quantity(
        "s", {"s": 1.0, "min": 60.0, "h": 3600.0, "hour": 3600.0, "hours": 3600.0}, {"h": 2}
    ),
    "energy": Quantity("Wh", {"wh": 1.0, "kwh": 1000.0}, {"Wh": 0, "kWh": 2}),
    "charge": Quantity("Ah", {"ah": 1.0}, {"Ah": 0}),
    "voltage": Quantity("V", {"v": 1.0, "volt": 1.0, "volts": 1.0}, {"V": 1}),
    "current": Quantity("A", {"a": 1.0, "amp": 1.0, "amps": 1.0}, {"A": 0}),
    "angle": Quantity("deg", {"deg": 1.0, "°": 1.0, "degrees": 1.0}, {"deg": 1}),
    "share": Quantity("1", {"%": 0.01}, {"%": 0}),
    "count": Quantity("1", {}, {"": 0}),
    "number": Quantity("1", {}, {"": 1}),
    "money": Quantity("1", {"€": 1.0, "eur": 1.0, "$": 1.0, "£": 1.0}, {"": 0}),
    "celsius": Quantity("°C", {"°c": 1.0, "c": 1.0}, {"°C": 0}),
    "clock": Quantity("h", {"h": 1.0, "min": 1 / 60, "o'clock": 1.0}, {"h": 2}),
}

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
    r"\s*([+-]?\d+(?:[.,]\d+)?(?:\s+\d+/\d+|/\d+)?|[+-]?[.,]\d+)\s*([^\d\s.,+-][^\d\s+-]*)?"
)


class NotAQuantity(JolvekError):
    """What was typed cannot be read as the quantity asked for."""

    def __init__(self, text: str, quantity: str, unit: str) -> None:
        self.text, self.quantity, self.unit = text, quantity, unit
        units = [u for u in QUANTITIES[quantity].shown if u] or [unit]
        hint = EXAMPLES.get(quantity, "3.5")
        where = f" in {', '.join(units)}" if units != [""] else ""
        name = _NAMES.get(quantity, quantity)
        super().__init__(f"read “{text}”; expected a {name}{where}, for example {hint}")


_NAMES = {  # where the quantity's own word is no word for what is asked
    "money": "sum of money",
    "celsius": "temperature",
    "clock": "time of day",
    "count": "whole number",
}


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
    """
    known = QUANTITIES[quantity].typed
    rest = re.sub(r"(?<=\d)[\s\u2009\u202f\u00a0](?=\d{3}(?!\d))", "", text.strip())
    if quantity == "money":
        rest = rest.lstrip("€$£ \u00a0")
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


def to_unit(value_si: float, quantity: str, unit: str) -> float:
    """The SI value as a number in `unit`.

    >>> round(to_unit(2.06, "speed", "kn"), 2)
    4.0
    """
    return value_si / QUANTITIES[quantity].typed.get(unit.lower(), 1.0)


def show(value_si: float | None, quantity: str, unit: str, decimals: int | None = None) -> str:
    """Text of an SI value in `unit`, without the unit; feet are shown as feet and inches.

    >>> show(3.5306, "length", "ft"), show(1234.5, "power", "W"), show(None, "mass", "kg")
    ('11 ft 7', '1\u202f234', '–')
    """
    if value_si is None or value_si != value_si:
        return "–"
    if quantity == "length" and unit == "ft":
        inches = round(value_si / INCH_M * (10 if abs(value_si) < FOOT_M else 1)) / (
            10 if abs(value_si) < FOOT_M else 1
        )
        feet = int(inches // 12)
        return f"{feet} ft {inches - 12 * feet:g}" if feet else f"{inches:g} in"
    places = QUANTITIES[quantity].shown.get(unit, 1) if decimals is None else decimals
    text = f"{to_unit(value_si, quantity, unit):,.{places}f}".replace(",", "\u202f")
    return "0" + text[2:] if re.fullmatch(r"-0(\.0+)?", text) else text


def hours(seconds: float | None) -> str:
    """Seconds as h:mm, rounded down so that nobody is promised a minute too many.

    >>> hours(6000), hours(59.0), hours(None)
    ('1:40', '0:00', '–')
    """
    if seconds is None or seconds != seconds:
        return "–"
    if seconds > 1000 * 3600:
        return "> 999 h"
    minutes = int(seconds // 60)
    return f"{minutes // 60}:{minutes % 60:02d}"
