"""The shop's own steps of care, for all boats or those with a product."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import asdict

from jolvek.core.care.steps import Care, Edit
from jolvek.store.once import once


def all_edits(conn: sqlite3.Connection) -> list[Edit]:
    """All of them, by product and step."""
    return once(conn, "care edits", lambda: _read(conn))


def _read(conn: sqlite3.Connection) -> list[Edit]:
    rows = conn.execute(
        "SELECT product_id, step, dropped, data FROM care_edit ORDER BY product_id, step"
    )
    return [
        Edit(
            row["product_id"],
            row["step"],
            None if row["dropped"] else Care(**json.loads(row["data"])),
        )
        for row in rows
    ]


def keep(conn: sqlite3.Connection, e: Edit, who: str, at: str) -> None:
    """Keep the shop's word on a step."""
    conn.execute(
        "INSERT INTO care_edit (product_id, step, dropped, data, who, at) VALUES (:product, :step,"
        " :dropped, :data, :who, :at) ON CONFLICT (product_id, step) DO UPDATE SET dropped ="
        " excluded.dropped, data = excluded.data, who = excluded.who, at = excluded.at",
        {
            "product": e.product_id,
            "step": e.key,
            "dropped": int(e.care is None),
            "data": json.dumps(asdict(e.care) if e.care else {}, ensure_ascii=False),
            "who": who,
            "at": at,
        },
    )


def back(conn: sqlite3.Connection, product_id: str, key: str) -> None:
    """Jolvek's own step again."""
    conn.execute(
        "DELETE FROM care_edit WHERE product_id = :product AND step = :step",
        {"product": product_id, "step": key},
    )
