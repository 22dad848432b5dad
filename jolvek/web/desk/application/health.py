"""Whether the shop answers, for whoever watches over it; says nothing of what is in it."""

from __future__ import annotations

import sqlite3
from typing import Any

from flask import Blueprint, g

from jolvek.web import errors, shared
from jolvek.web.kit import pages
from jolvek.web.kit.pages import OPEN
from jolvek.web.saving import now

bp = Blueprint("health", __name__)
pages.add(
    bp,
    {
        "page": OPEN,
    },
)


@bp.get("/health")
def page() -> Any:
    """200 where the database can be read and written; 503 with what is wrong where it can only be
    read, or the page of a fault.
    """
    conn = shared.conn()
    conn.execute("SELECT count(*) FROM enquiry").fetchone()
    why = g.get("cannot_write", "")
    if not why:
        try:
            conn.execute("BEGIN IMMEDIATE")
            conn.execute("UPDATE health SET at = :now", {"now": now()})
            conn.execute("COMMIT")
        except sqlite3.OperationalError as error:
            why = str(error)
            if conn.in_transaction:
                conn.execute("ROLLBACK")
    if why and "locked" not in why:
        return {"status": "read only", "why": errors.why_not_written(why)}, 503
    return {"status": "well"}
