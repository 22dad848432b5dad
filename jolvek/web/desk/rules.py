"""The rule book as a page."""

from __future__ import annotations

from itertools import groupby

from flask import Blueprint, render_template

from jolvek.core.rules.rulebook import RULES

bp = Blueprint("rules", __name__)


@bp.get("/rules")
def page() -> str:
    """Every rule with level, sentence, cure and source, by topic."""
    rules = sorted(RULES.values(), key=lambda r: r.topic)
    return render_template(
        "rules/page.html",
        topics=[(t, list(rows)) for t, rows in groupby(rules, key=lambda r: r.topic)],
    )
