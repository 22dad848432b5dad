"""The quick start's form: five entries, one answer."""

from __future__ import annotations

from flask_wtf import FlaskForm

from jolvek.core.base import units
from jolvek.core.enquiry.need import Day
from jolvek.core.hydro.hull import Hull, Load
from jolvek.web.forms.fields import FamilyField, QuantityField, allowed


class QuickForm(FlaskForm):
    """Quick start: five entries, one answer."""

    family = FamilyField("Boat", default="inflatable_air")
    length = QuantityField("Length", "length", *allowed(Hull, "length_m"), True, default=2.9)
    people = QuantityField("People", "count", *allowed(Load, "people"), True, default=2)
    speed = QuantityField("Wanted speed", "speed", 0.3, 20, True, default=3.5 * units.KNOT_M_S)
    distance = QuantityField(
        "Distance, there and back",
        "distance",
        50,
        allowed(Day, "distance_m")[1],
        True,
        default=5 * units.NAUTICAL_MILE_M,
    )
