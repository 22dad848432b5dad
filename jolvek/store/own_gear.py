"""The customer's own gear, kept with one enquiry and never shown in another."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from typing import Any

from jolvek.core.base.errors import JolvekError
from jolvek.core.products.own import OwnGear, own_item
from jolvek.core.products.plain import product_from_plain, product_plain
from jolvek.core.products.shelf import Item
from jolvek.store.columns import from_json, to_json

MOST = 12


@dataclass(frozen=True)
class Kept:
    """One thing of the customer's with its row's number; `reason` where it cannot be read."""

    id: int
    gear: OwnGear | None
    reason: str = ""


def of_enquiry(conn: sqlite3.Connection, enquiry_id: int) -> list[Kept]:
    """All of an enquiry, in the order they were typed."""
    rows = conn.execute(
        "SELECT id, kind, since_year, health, count, data FROM own_gear WHERE enquiry_id = :id"
        " ORDER BY id",
        {"id": enquiry_id},
    ).fetchall()
    return [_read(row) for row in rows]


def items(conn: sqlite3.Connection, enquiry_id: int) -> dict[str, tuple[Item[Any], ...]]:
    """Those that can be read as products, by kind."""
    out: dict[str, tuple[Item[Any], ...]] = {}
    for kept in of_enquiry(conn, enquiry_id):
        if kept.gear is not None:
            item = own_item(kept.gear, kept.id)
            out[kept.gear.kind] = (*out.get(kept.gear.kind, ()), item)
    return out


def _read(row: sqlite3.Row) -> Kept:
    try:
        item = product_from_plain(row["kind"], from_json("jolvek-product", row["data"]))
        rows = (row["since_year"], row["health"], row["count"])
        return Kept(row["id"], OwnGear(row["kind"], item, *rows))
    except (JolvekError, TypeError, KeyError) as error:
        return Kept(row["id"], None, str(error))


def add(conn: sqlite3.Connection, enquiry_id: int, gear: OwnGear) -> int:
    """Keep one thing more; returns its number."""
    return int(
        conn.execute(
            "INSERT INTO own_gear (enquiry_id, kind, since_year, health, count, data) VALUES"
            " (:enquiry, :kind, :since, :health, :count, :data) RETURNING id",
            {
                "enquiry": enquiry_id,
                "kind": gear.kind,
                "since": gear.since_year,
                "health": gear.health,
                "count": gear.count,
                "data": to_json("jolvek-product", product_plain(gear.item)),
            },
        ).fetchone()["id"]
    )


def drop(conn: sqlite3.Connection, enquiry_id: int, gear_id: int) -> None:
    """Take one off; setups pinned with it keep their own record of it."""
    conn.execute(
        "DELETE FROM own_gear WHERE id = :id AND enquiry_id = :enquiry",
        {"id": gear_id, "enquiry": enquiry_id},
    )
