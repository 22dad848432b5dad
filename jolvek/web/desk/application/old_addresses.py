"""Addresses of earlier versions lead to those of today."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, redirect, request

from jolvek.web.kit import pages
from jolvek.web.kit.pages import READER

bp = Blueprint("old_addresses", __name__)
pages.add(
    bp,
    {
        "shelf": READER,
    },
)


@bp.get("/shelf/")
@bp.get("/shelf/<path:rest>")
def shelf(rest: str = "") -> Any:
    """The catalogue stood at /shelf until version 0.6."""
    query = f"?{request.query_string.decode('latin-1')}" if request.query_string else ""
    return redirect(f"/catalogue/{rest}{query}", 301)
