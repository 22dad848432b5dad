"""The rule book as a page."""

from __future__ import annotations

from flask import Blueprint, request

from jolvek.core.rules.signals import SIGNAL_WORDS
from jolvek.store import shelf as store
from jolvek.web.desk.rules.view import TOPICS, Asked, rules_page
from jolvek.web.kit import display, pages
from jolvek.web.kit.pages import READER
from jolvek.web.shared import conn, show

MOST_WORDS = 120
bp = Blueprint("rules", __name__)
pages.add(
    bp,
    {
        "page": READER,
    },
)


@bp.get("/rules")
def page() -> str:
    """The rules that are looked for, by topic: level, a worked example, its cure, source, and
    whether it can speak on this shelf.
    """
    args = request.args
    signal, topic = args.get("signal", ""), args.get("topic", "")
    asked = Asked(
        args.get("q", "").strip()[:MOST_WORDS],
        signal if signal in SIGNAL_WORDS else "",
        topic if topic in TOPICS else "",
    )
    found = rules_page(store.load(conn()), asked, display.current())
    return show("desk/rules/page.html", found, signals=SIGNAL_WORDS)
