"""Keys, rules and values in plain words."""

from __future__ import annotations

from jolvek.core.base.messages import msg
from jolvek.web.kit.language import tr

_NAMES = {
    "hull.waterline_length_m": "waterline length",
    "hull.waterline_beam_m": "waterline beam",
    "hull.bodies": msg("hulls or tubes"),
    "hull.body_beam_m": msg("beam of one hull or tube"),
    "hull.body_spacing_m": msg("hulls apart, centre to centre"),
    "hull.chine_beam_m": msg("beam over the chines"),
    "hull.deadrise_deg": msg("deadrise, degrees"),
    "load.people_kg": msg("people together"),
    "motor.idle_w": msg("what it takes with the propeller still"),
    "motor.leg_area_m2": msg("the drag of its leg"),
    "motor.voltage_window": msg("the volts it takes"),
    "motor.mass_kg": msg("what it weighs"),
    "motor.propeller_rpm": msg("the propeller's rpm"),
}


def plain_name(name: str) -> str:
    """A key in plain words."""
    return _NAMES.get(name, name.split(".")[-1].replace("_", " "))


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
    return tr(bare.replace("_", " "))


def field_change(change: tuple[str, str, str]) -> str:
    """What a field of a product was and is, in words with its unit.

    >>> field_change(("mass_kg", "12", ""))
    'mass, kg: 12 → –'
    """
    key, was, now = change
    unit = key_unit(key)
    name = f"{key_words(key)}, {unit}" if unit else key_words(key)
    return f"{name}: {was or '–'} → {now or '–'}"


def plain_value(value: object) -> str:
    """A product's figure or word for a table."""
    if value is None or value == "" or value == ():
        return "–"
    if isinstance(value, bool):
        return tr("yes") if value else tr("no")
    if isinstance(value, list | tuple):
        return ", ".join(plain_value(x) for x in value)
    return f"{value:,g}".replace(",", "\u202f") if isinstance(value, int | float) else str(value)
