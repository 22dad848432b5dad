"""How figures are shown: the user's unit per quantity, kept in the session, and the template
filters.
"""

from __future__ import annotations

import re
from dataclasses import dataclass

from babel.numbers import format_currency
from flask import current_app, session
from markupsafe import Markup, escape

from jolvek.core.base import units
from jolvek.core.rules.findings import Finding, say

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
        return units.show(value, quantity, self[quantity], decimals)

    def full(self, value: float | None, quantity: str, decimals: int | None = None) -> Markup:
        """Figure and unit, kept on one line."""
        text = self.number(value, quantity, decimals)
        if value is None:
            return Markup("–")
        if text.endswith(".0") and quantity == "mass":
            text = text[:-2]
        unit = "" if quantity == "length" and self["length"] == "ft" else self[quantity]
        return Markup("{}{}{}").format(text.replace(" ", "\u00a0"), "\u00a0" if unit else "", unit)

    def entry(self, value: float | None, quantity: str) -> str:
        """The figure as it stands in an input: enough digits to come back unchanged to the eye."""
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

    def said(self, finding: Finding) -> Finding:
        """A finding with its sentences in these units."""
        return say(finding, self.chosen)

    @property
    def summary(self) -> str:
        """Short text for the header."""
        return " · ".join(self[q] for q in ("speed", "length", "mass", "power"))


def current() -> Units:
    """The units of this session, defaults where nothing was chosen."""
    kept = session.get("units", {})
    return Units(
        {q: kept.get(q) if kept.get(q) in options else options[0] for q, options in CHOICES.items()}
    )


def money(value: float) -> str:
    """A price in the shop's currency, whole units where there are no cents."""
    text = format_currency(
        value,
        current_app.config["SETTINGS"].currency,
        locale="en_IE",
        format="¤#,##0" if float(value).is_integer() else None,
        currency_digits=False,
    )
    return text.replace(",", "\u202f")


def strong(text: str) -> Markup:
    """`*word*` becomes bold; everything else is escaped."""
    parts = text.split("*")
    return Markup("").join(
        Markup("<strong>{}</strong>").format(p) if i % 2 else escape(p) for i, p in enumerate(parts)
    )


def about(value: float) -> float:
    """Rounded to two figures: no more is known."""
    return float(f"{value:.2g}") if value < 1000 else float(round(value, -2))


def long_hours(seconds: float | None) -> str:
    """Hours and minutes in words, for answer lines: 1 h 40 min."""
    if seconds is None:
        return "no time"
    minutes = int(seconds // 60)
    if minutes >= 100 * 60:
        return f"{minutes // 60} h"
    return (
        f"{minutes // 60}\u00a0h {minutes % 60}\u00a0min"
        if minutes >= 60
        else f"{minutes}\u00a0min"
    )


_NAMES = {
    "hull.waterline_length_m": "waterline length",
    "hull.waterline_beam_m": "waterline beam",
    "hull.bodies": "hulls or tubes",
    "hull.body_beam_m": "beam of one hull or tube",
    "hull.body_spacing_m": "hulls apart, centre to centre",
    "hull.chine_beam_m": "beam over the chines",
    "hull.deadrise_deg": "deadrise, degrees",
    "load.people_kg": "people together",
}


def plain_name(name: str) -> str:
    """A key in plain words."""
    return _NAMES.get(name, name.split(".")[-1].replace("_", " "))


def plain_rule(template: str) -> str:
    """A rule's sentence with its figures in plain braces."""
    return re.sub(
        r"\{(\w+)(?::[^}]*)?\}",
        lambda m: "{" + {"figure": "boat\u2019s figure"}.get(m[1], m[1]) + "}",
        template,
    )


_UNITS = {
    "m_s": "m/s",
    "w": "W",
    "kg": "kg",
    "v": "V",
    "a": "A",
    "ah": "Ah",
    "wh": "Wh",
    "m": "m",
    "n": "N",
    "db": "dB(A)",
    "h": "h",
    "deg": "°",
    "s": "s",
    "hp": "hp",
}


def key_unit(key: str) -> str:
    """The unit that a key carries.

    >>> key_unit("speed_m_s"), key_unit("input_power_w"), key_unit("id")
    ('m/s', 'W', '')
    """
    if key.endswith("_m_s"):
        return "m/s"
    return (
        _UNITS.get(key.rsplit("_", 1)[-1], "")
        if "_" in key
        else "h"
        if key == "hours"
        else "rpm"
        if key == "rpm"
        else ""
    )


def key_words(key: str) -> str:
    """A key in words, without its unit.

    >>> key_words("max_continuous_a"), key_words("propeller_rpm")
    ('max continuous', 'propeller rpm')
    """
    unit = key_unit(key)
    bare = key[:-4] if unit == "m/s" else key.rsplit("_", 1)[0] if unit and "_" in key else key
    return bare.replace("_", " ")


def plain_value(value: object) -> str:
    """A product's figure or word for a table."""
    if value is None or value == "" or value == ():
        return "–"
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list | tuple):
        return ", ".join(plain_value(x) for x in value)
    return f"{value:,g}".replace(",", "\u202f") if isinstance(value, int | float) else str(value)
