"""Records as plain data, and plain data as records, mended where a field cannot be read."""

from __future__ import annotations

from collections.abc import Callable, Mapping
from dataclasses import fields, is_dataclass
from typing import Any, TypeVar

from jolvek.core.base.errors import ValueRefused

Record = TypeVar("Record")


def plain(record: Any, without: tuple[str, ...] = ()) -> dict[str, Any]:
    """The fields of a record as JSON would hold them; None and empty tuples are left out.

    >>> from jolvek.core.products.accessories import Panel
    >>> plain(Panel(100.0), without=("name",))
    {'rated_w': 100.0}
    """
    out = {}
    for f in fields(record):
        value = getattr(record, f.name)
        if f.name not in without and value is not None and value != ():
            out[f.name] = _plain(value)
    return out


def _plain(value: Any) -> Any:
    if isinstance(value, tuple):
        return [_plain(x) for x in value]
    return plain(value) if is_dataclass(value) else value


def mended(
    make: Callable[..., Record],
    values: Mapping[str, Any],
    fallback: Mapping[str, Any] | None = None,
) -> tuple[Record, tuple[str, ...]]:
    """The record of plain values, each that it refuses replaced by its fallback or its default, and
    what was said against them. Raises ValueRefused where no fallback helps.

    >>> from jolvek.core.products.accessories import Panel
    >>> panel, told = mended(Panel, {"rated_w": 100.0, "mass_kg": 9e9})
    >>> panel == Panel(100.0), told
    (True, ('panel.mass_kg: read 9000000000.0, allowed is 0.1 to 100',))
    """
    left, fallback = dict(values), fallback or {}
    rows: list[str] = []
    while True:
        try:
            return make(**left), tuple(rows)
        except ValueRefused as error:
            key = error.key.split(".")[-1]
            if key in fallback and left.get(key) != fallback[key]:
                left[key] = fallback[key]
            elif key in left and key not in fallback:
                del left[key]
            else:
                raise
            rows.append(str(error))
