"""Rows that an older version or another program stored past today's limits: they are read for ever,
cut to what is allowed, and never keep a page from opening.
"""

from __future__ import annotations

from collections.abc import Iterable
from typing import Any, TypeVar

from jolvek.core.base.errors import JolvekError

Record = TypeVar("Record")


def rows_of(record: type[Record], names: Iterable[str], rows: Iterable[Any]) -> list[Record]:
    """The records of rows; one that cannot be mended is left out.

    >>> from jolvek.store.spares import SpareKept
    >>> rows_of(SpareKept, ("id", "what", "good_to"), [(1, "x" * 99, "2027-01-01")])[0].what[-1]
    '…'
    """
    out = []
    keys = tuple(names)
    for row in rows:
        values = dict(zip(keys, tuple(row), strict=False))
        made = _made(record, values) or _made(record, _cut(record, values))
        if made is not None:
            out.append(made)
    return out


def _made(record: type[Record], values: dict[str, Any]) -> Record | None:
    try:
        return record(**values)
    except (JolvekError, TypeError, ValueError):
        return None


def _cut(record: type[Any], values: dict[str, Any]) -> dict[str, Any]:
    out = dict(values)
    for key, most in getattr(record, "TEXTS", {}).items():
        text = out.get(key)
        if isinstance(text, str):
            plain = text.replace("\x00", "").encode("utf-8", "replace").decode()
            out[key] = plain if len(plain) <= most else plain[: most - 1] + "…"
    for key, (low, high) in getattr(record, "RANGES", {}).items():
        if isinstance(out.get(key), int | float):
            out[key] = min(max(out[key], low), high)
    return out
