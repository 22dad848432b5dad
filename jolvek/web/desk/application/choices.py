"""Choosing units, kept in the session; look, in a cookie; the language of the screens, with the
person.
"""

from __future__ import annotations

from flask import Blueprint, redirect, request, session
from werkzeug.wrappers import Response

from jolvek import shop
from jolvek.web import shared
from jolvek.web.kit import display, language, pages
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.pages import READER
from jolvek.web.shared import own_address

bp = Blueprint("choices", __name__)
pages.add(
    bp,
    {
        "choose": READER,
    },
    quiet="choose",
)


@bp.post("/units")
def choose() -> Response:
    """Take the chosen units and go back to where one was."""
    session["units"] = {
        q: request.form[q]
        for q, options in display.CHOICES.items()
        if request.form.get(q) in options
    }
    wanted, here = request.form.get("language", ""), signing.person()
    if wanted in language.SCREENS and here is not None:
        shop.people.set_language(shared.conn(), here.id, wanted)
    target = own_address(request.form.get("back", "/"))
    # the counter keeps its entries in SI; those of its address were typed in the units before
    answer = redirect("/" if target.startswith("/?") else target, 303)
    if request.form.get("theme") in ("system", "light", "dark"):
        answer.set_cookie(
            "theme", request.form["theme"], max_age=400 * 86400, samesite="Lax", httponly=True
        )
    return answer
