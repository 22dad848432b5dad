"""What the columns of a supplier's file are, as the form tells it."""

from __future__ import annotations

from collections.abc import Mapping, Sequence

from jolvek.core.base.errors import JolvekError
from jolvek.formats.shelf_csv import figure
from jolvek.formats.supplier_columns import Column


def columns_from(
    form: Mapping[str, str], head: Sequence[str]
) -> tuple[dict[str, Column], dict[str, str]]:
    """Each column of the file as told, and what is refused of it, by column."""
    result, refused = {}, {}
    for i, name in enumerate(head):
        if not name:
            continue  # without a name nobody can say what it is
        key, unit = form.get(f"key{i}", ""), form.get(f"unit{i}", "").strip()
        rate = form.get(f"rate{i}", "").strip()
        try:
            result[name] = Column(key, unit, figure(rate, "rate", False) if rate else 1.0)
        except JolvekError as error:
            result[name] = Column(key)
            refused[name] = str(error)
    return result, refused
