"""The legs of the Waters form: as many rows as a day may have, shown as far as they are used."""

from __future__ import annotations

from typing import Any

from flask_wtf import FlaskForm
from wtforms import StringField, validators

from jolvek.core.base.messages import msg
from jolvek.core.enquiry.need import MOST_LEGS, Leg
from jolvek.web.kit.fields.fields import QuantityField, allowed
from jolvek.web.kit.language import tr

ROWS = range(1, MOST_LEGS + 1)
_FIELDS = (  # the record's key, the field's name, label, quantity
    ("speed_m_s", "speed", msg("Speed"), "speed"),
    ("distance_m", "distance", msg("Distance"), "distance"),
    ("duration_s", "duration", msg("or time"), "duration"),
    ("current_m_s", "current", msg("Current against"), "speed"),
    ("wind_m_s", "wind", msg("Wind against"), "speed"),
    ("hold_s", "hold", msg("Then wait"), "duration"),
)
NAMES = tuple(name for _, name, *_ in _FIELDS)


def add_leg_fields(form: type[FlaskForm]) -> None:
    """Put the fields leg1_name, leg1_speed and so on into a form."""
    for i in ROWS:
        name = StringField(msg("Leg"), [validators.Length(max=Leg.TEXTS["name"])])
        setattr(form, f"leg{i}_name", name)
        for key, short, label, quantity in _FIELDS:
            field = QuantityField(label, quantity, *allowed(Leg, key))
            setattr(form, f"leg{i}_{short}", field)


def legs_from(form: FlaskForm, before: tuple[Leg, ...]) -> tuple[Leg, ...]:
    """The legs typed; a row without speed takes the day's, one of unchanged distance keeps its
    place, one that is begun without distance and time is unfinished and stays as it was.
    """
    out: list[Leg] = []
    for i in ROWS:
        values = {key: form[f"leg{i}_{name}"].data for key, name, *_ in _FIELDS}
        old = before[i - 1] if i <= len(before) else None
        if values["distance_m"] is None and values["duration_s"] is None:
            if values["speed_m_s"] is not None:
                field = form[f"leg{i}_distance"]
                field.unfinished = tr("a leg needs a distance or a time")
                out += [old] if old else []
            continue
        values["speed_m_s"] = values["speed_m_s"] or form.speed.si
        given = {k: v for k, v in values.items() if v is not None}
        if old is not None and old.distance_m == values["distance_m"]:
            given |= {"latitude_deg": old.latitude_deg, "longitude_deg": old.longitude_deg}
        out.append(Leg(form[f"leg{i}_name"].data or tr("leg %(out)s", out=len(out) + 1), **given))
    return tuple(out)


def leg_values(legs: tuple[Leg, ...]) -> dict[str, Any]:
    """The form's values for legs; nothing stands for no current, wind or wait."""
    out: dict[str, Any] = {}
    for i, leg in zip(ROWS, legs, strict=False):
        out |= {f"leg{i}_{name}": getattr(leg, key) for key, name, *_ in _FIELDS}
        out[f"leg{i}_name"] = leg.name
        for name in ("current", "wind", "hold"):
            out[f"leg{i}_{name}"] = out[f"leg{i}_{name}"] or None
    return out


def shown_rows(form: FlaskForm) -> int:
    """How many rows to show: those filled and one more."""
    used = ("distance", "duration", "speed")
    filled = [i for i in ROWS if any(form[f"leg{i}_{k}"]._value() for k in used)]
    return min(max(filled, default=0) + 1, MOST_LEGS)
