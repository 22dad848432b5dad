"""Keys for the dealer's own site, for the owner."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, flash, redirect, request, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.store import api_keys as store
from jolvek.web.kit import pages
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import OWNER
from jolvek.web.saving import now
from jolvek.web.shared import conn, show

bp = Blueprint("keys", __name__, url_prefix="/keys")
pages.add(
    bp,
    {
        "page": OWNER,
        "make": OWNER,
        "drop": OWNER,
    },
)
MOST_NAME = 80


def _page(key: str = "", wrong: str = "", code: int = 200) -> Any:
    return show("desk/settings/keys.html", keys=store.every(conn()), key=key, wrong=wrong), code


@bp.get("")
def page() -> Any:
    """The keys there are."""
    return _page()


@bp.post("/make")
def make() -> Any:
    """One more, shown once."""
    name = request.form.get("name", "").strip()[:MOST_NAME]
    if not name:
        return _page(wrong=tr("say what it is for, to know it again"), code=422)
    try:
        key = shop.people.make_key(conn(), now(), name)
    except JolvekError as error:
        return _page(wrong=str(error), code=422)
    signing.record_activity("key made", name)
    return _page(key)


@bp.post("/drop")
def drop() -> Any:
    """Take one away; it is refused at once."""
    shop.people.drop_key(conn(), request.form.get("token", "")[:64])
    signing.record_activity("key taken away")
    flash(tr("The key is taken away; who uses it is refused from now on."))
    return redirect(url_for("keys.page"), 303)
