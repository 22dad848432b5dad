"""jolvek-shelf: a shop's products as JSON, read into core items and written back unchanged."""

from __future__ import annotations

from typing import Any

from jolvek.core.base.errors import ValueRefused
from jolvek.core.products.plain import KINDS, product_from_plain, product_plain
from jolvek.core.products.shelf import Shelf
from jolvek.formats import schema


def read(text: str | bytes) -> Shelf:
    """A shelf from JSON text; raises ValueRefused or UnreadableFile with one sentence."""
    data = schema.loads(text)
    schema.check_schema(data, "shelf")
    seen: set[str] = set()
    for kind in KINDS:
        for i, row in enumerate(data.get(kind, [])):
            if row["id"] in seen:
                raise ValueRefused(f"{kind}.{i}.id", row["id"], "an id used once only")
            seen.add(row["id"])
    return Shelf(
        **{
            kind: tuple(product_from_plain(kind, row) for row in data.get(kind, []))
            for kind in KINDS
        }
    )


def write(shelf: Shelf, currency: str = "EUR") -> dict[str, Any]:
    """A shelf as the plain data of the format."""
    return {
        "format": "jolvek-shelf",
        "version": 1,
        "currency": currency,
        **{kind: [product_plain(x) for x in getattr(shelf, kind)] for kind in KINDS},
    }
