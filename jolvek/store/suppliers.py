"""How suppliers' columns are read, remembered by the supplier's name and the kind of product."""

from __future__ import annotations

import sqlite3
from collections.abc import Mapping
from typing import Any

from jolvek.store.columns import UnreadableColumn, from_json, to_json

FORMAT = "jolvek-supplier-columns"


def names(conn: sqlite3.Connection) -> list[str]:
    """All suppliers that are remembered."""
    rows = conn.execute("SELECT DISTINCT supplier FROM supplier_columns ORDER BY supplier")
    return [row["supplier"] for row in rows]


def columns(conn: sqlite3.Connection, supplier: str, kind: str) -> dict[str, dict[str, Any]]:
    """What each of its columns is, as plain data; empty where it is not known or not readable."""
    row = conn.execute(
        "SELECT columns FROM supplier_columns WHERE supplier = :supplier AND kind = :kind",
        {"supplier": supplier, "kind": kind},
    ).fetchone()
    try:
        return dict(from_json(FORMAT, row["columns"])) if row else {}
    except (UnreadableColumn, TypeError, ValueError):
        return {}


def keep(
    conn: sqlite3.Connection, supplier: str, kind: str, columns: Mapping[str, Mapping[str, Any]]
) -> None:
    """Remember what a supplier's columns are."""
    conn.execute(
        "INSERT OR REPLACE INTO supplier_columns (supplier, kind, columns) VALUES (:supplier,"
        " :kind, :columns)",
        {"supplier": supplier, "kind": kind, "columns": to_json(FORMAT, dict(columns))},
    )
