"""The bays of the Boat form."""

from __future__ import annotations

from typing import Any

from flask_wtf import FlaskForm
from wtforms import BooleanField

from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.site import MOST_BAYS, Bay
from jolvek.web.kit.fields.rows import Rows
from jolvek.web.kit.language import tr

_SIZES = ("length_m", "width_m", "height_m")  # a bay needs all three
ROWS = Rows(
    "bay",
    Bay,
    msg("Bay"),
    MOST_BAYS,
    (
        ("length_m", "length", msg("Length"), "length"),
        ("width_m", "width", msg("Width"), "length"),
        ("height_m", "height", msg("Height"), "length"),
        ("max_kg", "max", msg("Carries"), "mass"),
        ("ahead_m", "ahead", msg("Ahead of stern"), "length"),
        ("off_m", "off", msg("To starboard"), "length"),
        ("above_m", "above", msg("Floor above keel"), "length"),
        ("lid_length_m", "lid_length", msg("Lid length"), "length"),
        ("lid_width_m", "lid_width", msg("Lid width"), "length"),
    ),
)


def add_bay_fields(form: type[FlaskForm]) -> None:
    """Put the fields bay1_name, bay1_length and so on into a form."""
    ROWS.add(form, lambda: {"closed": BooleanField(msg("closed, no ventilation"))})


def bays_from(form: FlaskForm, before: tuple[Bay, ...]) -> tuple[Bay, ...]:
    """The bays in a form; a row that is begun and lacks a size is unfinished: it stays as it was
    until it has them.
    """
    out: list[Bay] = []
    for row in ROWS.read(form):
        missing = [key for key in _SIZES if row.values[key] is None]
        if len(missing) == len(_SIZES):
            continue
        if missing:
            row.fields[missing[0]].unfinished = tr("a bay needs length, width and height")
            out += before[row.number - 1 : row.number]
            continue
        name = row.name or tr("bay %(i)s", i=row.number)
        closed = form[f"bay{row.number}_closed"].data
        try:
            out.append(Bay(name=name, ventilated=not closed, **row.given))
        except ValueRefused as error:
            key = f"bay{row.number}_{error.key.split('.')[-1]}"
            raise ValueRefused(key, error.read, error.allowed) from None
    return tuple(out)


def bay_values(bays: tuple[Bay, ...]) -> dict[str, Any]:
    """The form's values for bays."""
    closed = {f"bay{i}_closed": not bay.ventilated for i, bay in enumerate(bays[:MOST_BAYS], 1)}
    return ROWS.values(bays) | closed


def shown_rows(form: FlaskForm) -> int:
    """How many rows to show."""
    return ROWS.shown(form, ("length", "name"))
