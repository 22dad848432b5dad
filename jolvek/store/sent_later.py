"""What a device kept while it had no connection and sent later: each counts once."""

from __future__ import annotations

import sqlite3

MOST = 20_000  # kept to compare with; the oldest go


def is_known(conn: sqlite3.Connection, op: str) -> bool:
    """Whether this was received before."""
    found = conn.execute("SELECT 1 FROM sent_later WHERE op = :op", {"op": op}).fetchone()
    return found is not None


def add(conn: sqlite3.Connection, op: str, at: str) -> None:
    """Remember that it was received."""
    conn.execute(
        "INSERT OR IGNORE INTO sent_later (op, at) VALUES (:op, :at)", {"op": op, "at": at}
    )
    conn.execute(
        "DELETE FROM sent_later WHERE rowid <= (SELECT max(rowid) FROM sent_later) - :most",
        {"most": MOST},
    )
