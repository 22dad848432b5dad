"""The bays of the Boat form: as many rows as an enquiry may hold, shown as far as they are used."""

from __future__ import annotations

from typing import Any

from flask_wtf import FlaskForm
from wtforms import BooleanField, StringField, validators

from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.site import MOST_BAYS, Bay
from jolvek.web.kit.fields.fields import QuantityField, allowed
from jolvek.web.kit.language import tr

ROWS = range(1, MOST_BAYS + 1)
_FIELDS = (  # the record's key, the field's name, label, quantity
    ("length_m", "length", msg("Length"), "length"),
    ("width_m", "width", msg("Width"), "length"),
    ("height_m", "height", msg("Height"), "length"),
    ("max_kg", "max", msg("Carries"), "mass"),
    ("ahead_m", "ahead", msg("Ahead of stern"), "length"),
    ("off_m", "off", msg("To starboard"), "length"),
    ("above_m", "above", msg("Floor above keel"), "length"),
    ("lid_length_m", "lid_length", msg("Lid length"), "length"),
    ("lid_width_m", "lid_width", msg("Lid width"), "length"),
)
NAMES = tuple(name for _, name, *_ in _FIELDS)
_NEEDED = ("length", "width", "height")


def add_bay_fields(form: type[FlaskForm]) -> None:
    """Put the fields bay1_name, bay1_length and so on into a form."""
    for i in ROWS:
        name = StringField(msg("Bay"), [validators.Length(max=Bay.TEXTS["name"])])
        setattr(form, f"bay{i}_name", name)
        for key, short, label, quantity in _FIELDS:
            field = QuantityField(label, quantity, *allowed(Bay, key))
            setattr(form, f"bay{i}_{short}", field)
        setattr(form, f"bay{i}_closed", BooleanField(msg("closed, no ventilation")))


def bays_from(form: FlaskForm, before: tuple[Bay, ...]) -> tuple[Bay, ...]:
    """The bays in a form; a row that is begun and lacks a size is unfinished: it stays as it was
    until it has them.
    """
    out: list[Bay] = []
    for i in ROWS:
        values = {key: form[f"bay{i}_{name}"].data for key, name, *_ in _FIELDS}
        missing = [name for name in _NEEDED if form[f"bay{i}_{name}"].data is None]
        if len(missing) == len(_NEEDED):
            continue
        if missing:
            field = form[f"bay{i}_{missing[0]}"]
            field.unfinished = tr("a bay needs length, width and height")
            out += before[i - 1 : i]
            continue
        given = {k: v for k, v in values.items() if v is not None}
        name = form[f"bay{i}_name"].data or tr("bay %(i)s", i=i)
        try:
            out.append(Bay(name=name, ventilated=not form[f"bay{i}_closed"].data, **given))
        except ValueRefused as error:
            key = f"bay{i}_{error.key.split('.')[-1]}"
            raise ValueRefused(key, error.read, error.allowed) from None
    return tuple(out)


def bay_values(bays: tuple[Bay, ...]) -> dict[str, Any]:
    """The form's values for bays."""
    out: dict[str, Any] = {}
    for i, bay in zip(ROWS, bays, strict=False):
        out |= {f"bay{i}_{name}": getattr(bay, key) for key, name, *_ in _FIELDS}
        out |= {f"bay{i}_name": bay.name, f"bay{i}_closed": not bay.ventilated}
    return out


def shown_rows(form: FlaskForm) -> int:
    """How many rows to show: those filled and one more."""
    filled = [i for i in ROWS if form[f"bay{i}_length"]._value() or form[f"bay{i}_name"].data]
    return min(max(filled, default=0) + 1, MOST_BAYS)
