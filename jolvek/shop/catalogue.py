"""The catalogue: products changed by hand and by price lists, each as a batch that can be undone;
suppliers' columns; stock.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Mapping, Sequence
from typing import Any, TypeVar

from jolvek.core.products.shelf import Item, Shelf
from jolvek.shop.acting import By
from jolvek.store import shelf, stock, suppliers
from jolvek.store.db import transaction
from jolvek.store.stock import Stock

R = TypeVar("R")
Items = Sequence[tuple[str, Item[Any]]]  # (kind, product)


def save(
    conn: sqlite3.Connection,
    by: By,
    kind: str,
    product_id: str,
    edit: Callable[[dict[str, Any]], tuple[R, Item[Any] | None, str]],
) -> R:
    """Keep the product that `edit` makes of the row that stands (empty for a new one), with a word
    what was done; None where it is refused. Returns what else `edit` gives.
    """
    with transaction(conn) as c:
        result, item, what = edit(shelf.stored_row(c, kind, product_id) or {})
        if item is not None:
            shelf.change(c, [(kind, item)], what, by.at)
        return result


def take_in(
    conn: sqlite3.Connection,
    by: By,
    edit: Callable[[Shelf], tuple[R, Items, str]],
) -> R:
    """Products of a price list as one batch: `edit` is given the catalogue as it stands, and gives
    what to answer, the products (none: nothing is written) and the batch's name.
    """
    with transaction(conn) as c:
        result, items, what = edit(shelf.load(c))
        if items:
            shelf.change(c, list(items), what, by.at)
        return result


def undo(conn: sqlite3.Connection, batch_id: int) -> int:
    """Take a batch back; returns how many products are as they were."""
    with transaction(conn) as c:
        return shelf.undo(c, batch_id)


def remember_columns(
    conn: sqlite3.Connection, supplier: str, kind: str, columns: Mapping[str, Mapping[str, Any]]
) -> None:
    """What the columns of a supplier's files are."""
    with transaction(conn) as c:
        suppliers.keep(c, supplier, kind, {k: dict(v) for k, v in columns.items()})


def keep_stock(
    conn: sqlite3.Connection, kind: str, product_id: str, edit: Callable[[Stock], Stock]
) -> None:
    """Supplier, number in stock and buying price of a product. Raises JolvekError."""
    with transaction(conn) as c:
        stock.keep(c, kind, product_id, edit(stock.get(c, kind, product_id)))
