"""The legs of the Waters form."""

from __future__ import annotations

from typing import Any

from flask_wtf import FlaskForm

from jolvek.core.base.messages import msg
from jolvek.core.enquiry.need import MOST_LEGS, Leg
from jolvek.web.kit.fields.rows import Rows
from jolvek.web.kit.language import tr

ROWS = Rows(
    "leg",
    Leg,
    msg("Leg"),
    MOST_LEGS,
    (
        ("speed_m_s", "speed", msg("Speed"), "speed"),
        ("distance_m", "distance", msg("Distance"), "distance"),
        ("duration_s", "duration", msg("or time"), "duration"),
        ("current_m_s", "current", msg("Current against"), "speed"),
        ("wind_m_s", "wind", msg("Wind against"), "speed"),
        ("hold_s", "hold", msg("Then wait"), "duration"),
    ),
)


def add_leg_fields(form: type[FlaskForm]) -> None:
    """Put the fields leg1_name, leg1_speed and so on into a form."""
    ROWS.add(form)


def legs_from(form: FlaskForm, before: tuple[Leg, ...]) -> tuple[Leg, ...]:
    """The legs typed; a row without speed takes the day's, one of unchanged distance keeps its
    place, one that is begun without distance and time is unfinished and stays as it was.
    """
    out: list[Leg] = []
    for row in ROWS.read(form):
        old = before[row.number - 1] if row.number <= len(before) else None
        if row.values["distance_m"] is None and row.values["duration_s"] is None:
            if row.values["speed_m_s"] is not None:
                row.fields["distance_m"].unfinished = tr("a leg needs a distance or a time")
                out += [old] if old else []
            continue
        given: dict[str, Any] = row.given
        given["speed_m_s"] = row.values["speed_m_s"] or form.speed.si
        if old is not None and old.distance_m == row.values["distance_m"]:
            given |= {"latitude_deg": old.latitude_deg, "longitude_deg": old.longitude_deg}
        out.append(Leg(row.name or tr("leg %(out)s", out=len(out) + 1), **given))
    return tuple(out)


def leg_values(legs: tuple[Leg, ...]) -> dict[str, Any]:
    """The form's values for legs; nothing stands for no current, wind or wait."""
    out = ROWS.values(legs)
    may_be_nothing = tuple(f"_{name}" for name in ("current", "wind", "hold"))
    return {k: (v or None) if k.endswith(may_be_nothing) else v for k, v in out.items()}


def shown_rows(form: FlaskForm) -> int:
    """How many rows to show."""
    return ROWS.shown(form, ("distance", "duration", "speed"))
