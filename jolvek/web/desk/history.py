"""What became of an enquiry: its versions, who saved them, and the way back to each."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, flash, redirect, url_for

from jolvek.store import versions
from jolvek.web import saving, shared
from jolvek.web.view.language import tr

bp = Blueprint("history", __name__, url_prefix="/enquiry/<int:enquiry_id>/history")


@bp.get("")
def page(enquiry_id: int) -> Any:
    """The kept versions, the newest first, with what each changed."""
    told = versions.of_enquiry(shared.conn(), enquiry_id)
    return shared.show("history/page.html", shared.frame(enquiry_id, ""), versions=told)


@bp.post("")
def back(enquiry_id: int) -> Any:
    """What was at one version stands again, as a new version; nothing is lost."""
    shared.stored_or_404(enquiry_id)
    number = shared.form_id("version")
    then = versions.get(shared.conn(), enquiry_id, number)
    if then is None:
        abort(404)
    saving.change(enquiry_id, lambda _now: then)
    flash(tr("The enquiry stands as it did then. The version before is in the history."))
    return redirect(url_for("history.page", enquiry_id=enquiry_id), 303)
