"""Setups pinned to an enquiry, with their parts as they were when pinned."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import dataclass
from typing import Any

from jolvek.core.base.errors import JolvekError
from jolvek.core.products.shelf import Item
from jolvek.formats import shelf_file

LETTERS = "ABCDE"
MOST = 5
_EXTRAS = {"panel": "panels", "propeller": "propellers", "accessory": "accessories"}
_KINDS = {"motor": "motors", "battery": "batteries", "mount": "mounts", "charger": "chargers"}


class TooManyPinned(JolvekError):
    """No letter is free."""


@dataclass(frozen=True)
class Part:
    """One part: the product as it was, how many, and its price then."""

    kind: str
    item: Item[Any]
    quantity: int
    price: float


@dataclass(frozen=True)
class Pinned:
    """One setup with its letter."""

    id: int
    enquiry_id: int
    letter: str
    series: int
    parallel: int
    shaft_m: float | None
    chosen: bool
    parts: tuple[Part, ...]
    extras: tuple[Part, ...] = ()

    def part(self, kind: str) -> Part | None:
        """The part of that kind, or None."""
        return next((p for p in self.parts if p.kind == kind), None)

    @property
    def extras_price(self) -> float:
        """All add-ons."""
        return sum(p.quantity * p.price for p in self.extras)

    @property
    def price(self) -> float:
        """All essential parts."""
        return sum(p.quantity * p.price for p in self.parts)

    @property
    def key(self) -> str:
        """What it is made of, as one text: the same parts have the same key."""
        ids = [f"{p.kind}:{p.item.id}" for p in self.parts]
        return "|".join(
            [*sorted(ids), f"{self.series}s{self.parallel}p", f"{self.shaft_m or 0:.3f}"]
        )


def of_enquiry(conn: sqlite3.Connection, enquiry_id: int) -> list[Pinned]:
    """The pinned setups by letter."""
    rows = conn.execute(
        "SELECT id, enquiry_id, letter, series, parallel, shaft_m, chosen FROM setup WHERE"
        " enquiry_id = :id ORDER BY letter",
        {"id": enquiry_id},
    ).fetchall()
    return [
        Pinned(
            **{**dict(row), "chosen": bool(row["chosen"])},
            parts=_parts(conn, row["id"]),
            extras=_extras(conn, row["id"]),
        )
        for row in rows
    ]


def _parts(conn: sqlite3.Connection, setup_id: int) -> tuple[Part, ...]:
    rows = conn.execute(
        "SELECT kind, product_id, title, quantity, price, data FROM setup_item WHERE setup_id = :id"
        " ORDER BY CASE kind WHEN 'motor' THEN 0 WHEN 'battery' THEN 1 WHEN 'mount' THEN 2 ELSE"
        " 3 END",
        {"id": setup_id},
    )
    return tuple(
        Part(
            row["kind"],
            shelf_file.item(_KINDS[row["kind"]], json.loads(row["data"])),
            row["quantity"],
            row["price"],
        )
        for row in rows
    )


def _extras(conn: sqlite3.Connection, setup_id: int) -> tuple[Part, ...]:
    rows = conn.execute(
        "SELECT kind, product_id, title, quantity, price, data FROM setup_extra WHERE setup_id ="
        " :id ORDER BY kind, title",
        {"id": setup_id},
    )
    return tuple(
        Part(
            row["kind"],
            shelf_file.item(_EXTRAS[row["kind"]], json.loads(row["data"])),
            row["quantity"],
            row["price"],
        )
        for row in rows
    )


def add_extra(
    conn: sqlite3.Connection, setup_id: int, kind: str, item: Item[Any], quantity: int = 1
) -> None:
    """Put an add-on to a setup; once more of it raises the number."""
    conn.execute(
        "INSERT INTO setup_extra (setup_id, product_id, kind, title, quantity, price, data) VALUES"
        " (:setup, :product, :kind, :title, :quantity, :price, :data) ON CONFLICT (setup_id,"
        " product_id) DO UPDATE SET quantity = quantity + 1",
        {
            "setup": setup_id,
            "product": item.id,
            "kind": kind,
            "title": item.title,
            "quantity": quantity,
            "price": item.price,
            "data": json.dumps(shelf_file.plain(item)),
        },
    )


def drop_extra(conn: sqlite3.Connection, setup_id: int, product_id: str) -> None:
    """Take an add-on off."""
    conn.execute(
        "DELETE FROM setup_extra WHERE setup_id = :setup AND product_id = :product",
        {"setup": setup_id, "product": product_id},
    )


def pin(
    conn: sqlite3.Connection,
    enquiry_id: int,
    items: dict[str, Item[Any]],
    series: int,
    parallel: int,
    shaft_m: float | None,
) -> str:
    """Pin a setup under the next free letter; returns the letter. Raises TooManyPinned."""
    used = {
        row["letter"]
        for row in conn.execute(
            "SELECT letter FROM setup WHERE enquiry_id = :id", {"id": enquiry_id}
        )
    }
    if len(used) >= MOST:
        raise TooManyPinned(f"{MOST} setups are pinned already; take one off first")
    letter = next(x for x in LETTERS if x not in used)
    row = conn.execute(
        "INSERT INTO setup (enquiry_id, letter, series, parallel, shaft_m) VALUES (:enquiry,"
        " :letter, :series, :parallel, :shaft) RETURNING id",
        {
            "enquiry": enquiry_id,
            "letter": letter,
            "series": series,
            "parallel": parallel,
            "shaft": shaft_m,
        },
    ).fetchone()
    conn.executemany(
        "INSERT INTO setup_item (setup_id, kind, product_id, title, quantity, price, data) VALUES"
        " (:setup, :kind, :product, :title, :quantity, :price, :data)",
        [
            {
                "setup": row["id"],
                "kind": kind,
                "product": item.id,
                "title": item.title,
                "quantity": series * parallel if kind == "battery" else 1,
                "price": item.price,
                "data": json.dumps(shelf_file.plain(item)),
            }
            for kind, item in items.items()
        ],
    )
    return letter


def unpin(conn: sqlite3.Connection, enquiry_id: int, letter: str) -> None:
    """Take a setup off."""
    conn.execute(
        "DELETE FROM setup WHERE enquiry_id = :id AND letter = :letter",
        {"id": enquiry_id, "letter": letter},
    )


def choose(conn: sqlite3.Connection, enquiry_id: int, letter: str) -> None:
    """Make one setup the chosen one."""
    conn.execute(
        "UPDATE setup SET chosen = (letter = :letter) WHERE enquiry_id = :id",
        {"id": enquiry_id, "letter": letter},
    )
