"""The rule book as a page."""

from __future__ import annotations

from flask import Blueprint

from jolvek.store import shelf as store
from jolvek.web.desk.rules.view import rules_page
from jolvek.web.kit import pages
from jolvek.web.kit.pages import READER
from jolvek.web.shared import conn, show

bp = Blueprint("rules", __name__)
pages.add(
    bp,
    {
        "page": READER,
    },
)


@bp.get("/rules")
def page() -> str:
    """Every rule by topic: level, a worked example, its cure, source, and whether it can speak on
    this shelf.
    """
    return show("desk/rules/page.html", rules_page(store.load(conn())))
