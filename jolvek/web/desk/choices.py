"""Choosing units; kept in the session."""

from __future__ import annotations

from urllib.parse import urlsplit

from flask import Blueprint, redirect, request, session
from werkzeug.wrappers import Response

from jolvek.web.view import display

bp = Blueprint("choices", __name__)


@bp.post("/units")
def choose() -> Response:
    """Take the chosen units and go back to where one was."""
    session["units"] = {
        q: request.form[q]
        for q, options in display.CHOICES.items()
        if request.form.get(q) in options
    }
    back = urlsplit(request.form.get("back", "/"))
    target = back.path if back.path.startswith("/") and not back.path.startswith("//") else "/"
    answer = redirect(target + (f"?{back.query}" if back.query else ""), 303)
    if request.form.get("theme") in ("system", "light", "dark"):
        answer.set_cookie(
            "theme", request.form["theme"], max_age=400 * 86400, samesite="Lax", httponly=True
        )
    return answer
