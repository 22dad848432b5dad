"""What the shop has of each product, from whom and at what price, and what is reserved for accepted
offers.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Iterable
from dataclasses import dataclass
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.base.money import MOST_MINOR


@dataclass(frozen=True)
class Stock:
    """Of one product: how many are there, how many of them are spoken for; the price in minor
    units, None where it is not known.
    """

    TEXTS: ClassVar[checked.Counts] = {"supplier": 80}
    RANGES: ClassVar[checked.Ranges] = {"in_stock": (0, 100_000), "buying_minor": (0, MOST_MINOR)}

    supplier: str = ""
    in_stock: int = 0
    buying_minor: int | None = None
    reserved: int = 0

    def __post_init__(self) -> None:
        checked.check(self, "stock")

    @property
    def free(self) -> int:
        """How many nobody has spoken for."""
        return max(self.in_stock - self.reserved, 0)


@dataclass(frozen=True)
class Wanted:
    """So many of one product."""

    kind: str
    product_id: str
    quantity: int


_GET = (
    "SELECT supplier, in_stock, buying_minor, (SELECT coalesce(sum(quantity), 0) FROM reservation r"
    " WHERE r.kind = :kind AND r.product_id = :id AND r.offer_id <> :but) AS reserved"
    " FROM stock WHERE kind = :kind AND product_id = :id"
)


def get(conn: sqlite3.Connection, kind: str, product_id: str, but: int = 0) -> Stock:
    """Of one product; nothing where nobody said. What is reserved for the offer `but` counts as
    free.
    """
    row = conn.execute(_GET, {"kind": kind, "id": product_id, "but": but}).fetchone()
    return Stock(*row) if row else Stock()


def buying(conn: sqlite3.Connection) -> dict[str, int]:
    """What one costs the shop, in minor units, by product id; those it told."""
    rows = conn.execute("SELECT product_id, buying_minor FROM stock WHERE buying_minor IS NOT NULL")
    return {row["product_id"]: int(row["buying_minor"]) for row in rows}


def keep(conn: sqlite3.Connection, kind: str, product_id: str, s: Stock) -> None:
    """Keep what the shop has of a product."""
    conn.execute(
        "INSERT INTO stock (kind, product_id, supplier, in_stock, buying_minor) VALUES (:kind, :id,"
        " :supplier, :in_stock, :buying) ON CONFLICT (kind, product_id) DO UPDATE SET supplier ="
        " excluded.supplier, in_stock = excluded.in_stock, buying_minor = excluded.buying_minor",
        {
            "kind": kind,
            "id": product_id,
            "supplier": s.supplier,
            "in_stock": s.in_stock,
            "buying": s.buying_minor,
        },
    )


def reserved(conn: sqlite3.Connection, offer_id: int) -> dict[tuple[str, str], int]:
    """What is reserved for an offer, by kind and id."""
    sql = "SELECT kind, product_id, quantity FROM reservation WHERE offer_id = :id"
    return {(row[0], row[1]): row[2] for row in conn.execute(sql, {"id": offer_id})}


def reserve(conn: sqlite3.Connection, offer_id: int, items: Iterable[Wanted], at: str) -> int:
    """Reserve what is free of what an offer wants, anew; returns how many pieces. Within the
    transaction of the caller, so that nothing is promised twice.
    """
    release(conn, offer_id)
    pieces = 0
    for x in items:
        many = min(x.quantity, get(conn, x.kind, x.product_id).free)
        if many:
            conn.execute(
                "INSERT INTO reservation (offer_id, kind, product_id, quantity, at) VALUES (:offer,"
                " :kind, :id, :many, :at)",
                {"offer": offer_id, "kind": x.kind, "id": x.product_id, "many": many, "at": at},
            )
        pieces += many
    return pieces


def release(conn: sqlite3.Connection, offer_id: int) -> None:
    """Give back what was reserved for an offer."""
    conn.execute("DELETE FROM reservation WHERE offer_id = :id", {"id": offer_id})


def take(conn: sqlite3.Connection, enquiry_id: int) -> None:
    """What was reserved for an enquiry's offers leaves the stock: the boat is handed over."""
    of = "(SELECT id FROM offer WHERE enquiry_id = :id)"
    conn.execute(
        "UPDATE stock SET in_stock = max(in_stock - (SELECT coalesce(sum(quantity), 0) FROM"
        " reservation r WHERE r.kind = stock.kind AND r.product_id = stock.product_id AND"
        f" r.offer_id IN {of}), 0) WHERE EXISTS (SELECT 1 FROM reservation r WHERE r.kind ="
        f" stock.kind AND r.product_id = stock.product_id AND r.offer_id IN {of})",
        {"id": enquiry_id},
    )
    conn.execute(f"DELETE FROM reservation WHERE offer_id IN {of}", {"id": enquiry_id})
