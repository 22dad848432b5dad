"""Rows of a form: as many fields bay1_length … as a record may hold rows, shown as far as used."""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from flask_wtf import FlaskForm
from wtforms import StringField, validators

from jolvek.web.kit.fields.fields import QuantityField, allowed

Quantity = tuple[str, str, Any, str]  # the record's key, the field's name, its label, its quantity


@dataclass(frozen=True)
class Row:
    """One row as typed: its number, its fields by their record's key, its name."""

    number: int
    values: dict[str, float | None]
    name: str
    fields: dict[str, Any]

    @property
    def given(self) -> dict[str, float]:
        """What was typed."""
        return {key: value for key, value in self.values.items() if value is not None}


@dataclass(frozen=True)
class Rows:
    """Rows of one kind: how its fields begin, its record, its label, how many, their quantities."""

    prefix: str
    record: Any
    label: Any
    most: int
    quantities: Sequence[Quantity]

    def add(self, form: type[FlaskForm], more: Callable[[], dict[str, Any]] = dict) -> None:
        """Put the fields of all rows into a form; `more` makes a row's other fields."""
        longest = self.record.TEXTS["name"]
        for i in range(1, self.most + 1):
            fields = {"name": StringField(self.label, [validators.Length(max=longest)])}
            for key, name, label, quantity in self.quantities:
                fields[name] = QuantityField(label, quantity, *allowed(self.record, key))
            for name, field in (fields | more()).items():
                setattr(form, f"{self.prefix}{i}_{name}", field)

    def read(self, form: FlaskForm) -> list[Row]:
        """Each row of a form."""
        out = []
        for i in range(1, self.most + 1):
            fields = {k: form[f"{self.prefix}{i}_{name}"] for k, name, *_ in self.quantities}
            values = {key: field.data for key, field in fields.items()}
            out.append(Row(i, values, form[f"{self.prefix}{i}_name"].data, fields))
        return out

    def values(self, records: Sequence[Any]) -> dict[str, Any]:
        """The form's values for records."""
        out: dict[str, Any] = {}
        for i, record in enumerate(records[: self.most], 1):
            out |= {
                f"{self.prefix}{i}_{name}": getattr(record, k) for k, name, *_ in self.quantities
            }
            out[f"{self.prefix}{i}_name"] = record.name
        return out

    def shown(self, form: FlaskForm, used: Sequence[str]) -> int:
        """How many rows to show: those where one of the `used` fields is filled, and one more."""
        filled = [
            i
            for i in range(1, self.most + 1)
            if any(form[f"{self.prefix}{i}_{name}"]._value() for name in used)
        ]
        return min(max(filled, default=0) + 1, self.most)
