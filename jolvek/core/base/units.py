"""Units at the edge: factors to SI, and showing SI in a chosen unit; `typed_figures` reads what
people type.

Nothing inside the core calculates in other than SI; this module is for entry and display.
Factors are exact by definition (NIST SP 811, 2008, Appendix B).
"""

from __future__ import annotations

import re
from dataclasses import dataclass, field

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
