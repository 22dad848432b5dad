"""What trials teach of each kind of boat: the shop sees it, chooses to go by it, leaves a trial
out, and exchanges trials without names with other shops.
"""

from __future__ import annotations

from typing import Any

from flask import Blueprint, Response, flash, json, redirect, request, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.hydro.families import FAMILIES
from jolvek.web.kit import learning, pages
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, OWNER
from jolvek.web.saving import by
from jolvek.web.shared import conn, show
from jolvek.web.stations.trial.view import FACTOR_WORDS

bp = Blueprint("families", __name__, url_prefix="/families")
pages.add(
    bp,
    {
        "page": ADVISOR,
        "choose": OWNER,
        "export": OWNER,
        "take": OWNER,
    },
)


@bp.get("")
def page() -> Any:
    """All families that were tried."""
    return show("desk/families/page.html", rows=learning.families(conn()), words=FACTOR_WORDS)


@bp.post("")
def choose() -> Any:
    """Go by a family, or not; leave a trial out, or take it in again."""
    form, do, done = request.form, request.form.get("do", ""), ""
    if form.get("family") in FAMILIES:
        shop.trials.use_family(conn(), form["family"], do == "use")
        done = f"{form['family']}: {do}"
    elif form.get("trial"):
        shop.trials.leave_out(conn(), form["trial"], do == "leave")
        done = f"{form['trial'][:40]}: {do}"
    if done:
        signing.record_activity("trials of a family", done)
    return redirect(url_for("families.page"), 303)


@bp.get("/trials.json")
def export() -> Response:
    """The shop's own trials, without names."""
    head = {"Content-Disposition": 'attachment; filename="trials.json"'}
    text = json.dumps(learning.export(conn()), indent=1)
    return Response(text, mimetype="application/json", headers=head)


@bp.post("/take")
def take() -> Any:
    """Trials of another shop."""
    upload = request.files.get("file")
    try:
        if upload is None or not upload.filename:
            raise JolvekError(tr("choose a file of trials first"))
        rows = learning.foreign(upload.read())
        new = shop.trials.take_foreign(conn(), by(), rows)
    except JolvekError as error:
        flash(tr("Not taken: %(error)s", error=error))
    else:
        signing.record_activity("trials taken in", str(new))
        flash(tr("%(new)s new trials are taken in.", new=new))
    return redirect(url_for("families.page"), 303)
