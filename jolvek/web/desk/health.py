"""Whether the shop answers, for whoever watches over it; says nothing of what is in it."""

from __future__ import annotations

from typing import Any

from flask import Blueprint

from jolvek.web import shared

bp = Blueprint("health", __name__)


@bp.get("/health")
def page() -> Any:
    """200 where the database reads, else the page of a fault."""
    shared.conn().execute("SELECT count(*) FROM enquiry").fetchone()
    return {"status": "well"}
