"""Backups, for the owner: the last, the next, a new one now, and each to be taken away."""

from __future__ import annotations

from datetime import datetime
from typing import Any

from flask import Blueprint, abort, flash, redirect, send_from_directory, url_for

from jolvek.core.base.errors import JolvekError
from jolvek.store import backups as store
from jolvek.web import data
from jolvek.web.kit import pages
from jolvek.web.kit.accounts import limits, signing
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import OWNER
from jolvek.web.shared import show

bp = Blueprint("backups", __name__, url_prefix="/backups")
pages.add(
    bp,
    {
        "page": OWNER,
        "make": OWNER,
        "download": OWNER,
    },
)


@bp.get("")
def page() -> Any:
    """What is kept, and how the data stand."""
    folder, now = data.settings().data_dir, datetime.now()
    kept = store.kept(folder)
    soon = not kept or store.due(folder, now)
    at = "soon" if soon else f"{kept[0].made_at + store.EVERY:%Y-%m-%d %H:%M}"
    if data.settings().demo:
        at = tr("never: this is the demo")
    return show("desk/settings/backups.html", kept=kept, next=at, report=store.check(folder))


@bp.post("/make")
@limits.limiter.limit("6 per hour")
def make() -> Any:
    """One more, now."""
    try:
        path = store.make(data.settings().data_dir, datetime.now())
    except JolvekError as error:
        abort(507, str(error))
    signing.record_activity("backup made", path.name)
    flash(
        tr(
            "%(name)s is made, %(st_size)s MB.",
            name=path.name,
            st_size=f"{path.stat().st_size / 1000000.0:.1f}",
        )
    )
    return redirect(url_for("backups.page"), 303)


@bp.get("/<name>")
def download(name: str) -> Any:
    """One to be taken away: it holds everything, so it is noted."""
    if name not in {b.path.name for b in store.kept(data.settings().data_dir)}:
        abort(404)
    signing.record_activity("backup downloaded", name)
    folder = store.folder_of(data.settings().data_dir)
    return send_from_directory(folder, name, as_attachment=True)
