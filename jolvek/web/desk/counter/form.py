"""The quick start's form: five entries, one answer."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from flask_wtf import FlaskForm

from jolvek.core.base import units
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.need import Day
from jolvek.core.hydro.families import FAMILIES
from jolvek.core.hydro.floating import hull_speed_m_s
from jolvek.core.hydro.hull import Hull, Load
from jolvek.web.kit import display
from jolvek.web.kit.fields.fields import FamilyField, QuantityField, allowed

ENTRIES = {"length": "length", "people": "count", "speed": "speed", "distance": "distance"}
OF_HULL_SPEED = 0.7  # what most ask for; common practice, no source


def kept_entries(kept: Any) -> dict[str, str]:
    """The entries of an earlier answer (SI, as the form gives them) in the units of now; none where
    they cannot be read.
    """
    u = display.current()
    try:
        figures = {name: u.entry(float(kept[name]), q) for name, q in ENTRIES.items()}
        return {"family": str(kept["family"]), **figures}
    except (TypeError, KeyError, ValueError):
        return {}


def usual_entries(asked: Mapping[str, str]) -> dict[str, str]:
    """The quick start's entries for another kind of boat: its usual length, crew and speed.

    >>> usual_entries({"family": "nonsense"})
    {'family': 'nonsense'}
    """
    fam = FAMILIES.get(asked.get("family", ""))
    if fam is None:
        return {"family": asked.get("family", "")}
    u = display.current()
    length = fam.typical_length_m
    speed = OF_HULL_SPEED * float(hull_speed_m_s(fam.waterline_length_ratio * length))
    people = 1 if fam.thrust_law else MANY if fam.id == "pontoon" else 2
    return {
        "family": fam.id,
        "length": u.entry(length, "length"),
        "people": str(people),
        "speed": u.entry(speed, "speed"),
        "distance": asked.get("distance") or u.entry(5 * units.NAUTICAL_MILE_M, "distance"),
    }


MANY = 6  # aboard a pontoon boat


class QuickForm(FlaskForm):
    """Quick start: five entries, one answer."""

    family = FamilyField(msg("Boat"), default="inflatable_air")
    length = QuantityField(msg("Length"), "length", *allowed(Hull, "length_m"), True, default=2.9)
    people = QuantityField(msg("People"), "count", *allowed(Load, "people"), True, default=2)
    speed = QuantityField(msg("Wanted speed"), "speed", 0.3, 20, True, default=3.5 * units.KNOT_M_S)
    distance = QuantityField(
        msg("Distance, there and back"),
        "distance",
        50,
        allowed(Day, "distance_m")[1],
        True,
        default=5 * units.NAUTICAL_MILE_M,
    )

    @property
    def as_typed(self) -> dict[str, str]:
        """The entries as an address or a form carries them."""
        return {"family": self.family.data, **{name: self[name]._value() for name in ENTRIES}}

    @property
    def si(self) -> dict[str, str | float]:
        """What is entered, to be kept: the kind of boat, and the figures in SI."""
        return {"family": self.family.data, **{name: self[name].data for name in ENTRIES}}
