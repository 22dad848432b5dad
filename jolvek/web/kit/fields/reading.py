"""Reading a station's form: what is valid is taken, what is refused stays as it was and is told."""

from __future__ import annotations

from collections.abc import Callable
from typing import TypeVar

from flask_wtf import FlaskForm

from jolvek.core.base.errors import ValueRefused
from jolvek.web.kit.fields.fields import QuantityField
from jolvek.web.kit.language import tr

Record = TypeVar("Record")
_KEY_FIELDS = {
    "transom_height_m": "transom_height",
    "people_kg": "people_kg",
    "gear_kg": "gear",
    "seat_kg": "seats",
    "body_spacing_m": "body_spacing",
    "hotel_w": "hotel",
    "solar_w": "solar",
    "weights": "wish_price",
}


def read_form(form: FlaskForm, make: Callable[[], Record], before: Record) -> Record:
    """The record in a form that `make` builds. A refused field falls back to what it was filled
    with, its message kept in place; where nothing helps, the record before.
    """
    form.validate()
    for field in form:
        if field.errors:
            field.data = field.object_data
    for _ in range(len(list(form))):
        try:
            return make()
        except ValueRefused as error:
            field = refuse_at_field(form, error)
            if field.data == field.object_data:
                break
            field.data = field.object_data
    return before


def refuse_at_field(form: FlaskForm, error: ValueRefused) -> QuantityField:
    """Put a refusal of the core at the field it speaks of, in the words of that field."""
    key = error.key.split(".")[-1]
    short = key.rsplit("_", 1)[0] if key not in form else key
    short = short.removesuffix("_m") if short not in form else short
    name = _KEY_FIELDS.get(key) or (short if short in form else "")
    field = form[name] if name in form else next(f for f in form if isinstance(f, QuantityField))
    typed = getattr(field, "typed", None)
    read = typed if typed is not None else error.read
    unit = " m" if getattr(field, "quantity", "") == "length" else ""
    first, _, rest = error.allowed.partition(" for ")
    allowed = (
        tr("%(first)s%(unit)s for %(rest)s", first=first, unit=unit, rest=rest)
        if rest
        else f"{first}{unit}"
    )
    text = (
        tr("read “%(read)s”; allowed is %(allowed)s", read=read, allowed=allowed)
        if read is not None
        else tr("needed: %(allowed)s", allowed=allowed)
    )
    field.errors = [*field.errors, text]
    return field
