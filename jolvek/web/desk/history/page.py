"""What became of an enquiry: its versions, who saved them, and the way back to each."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, abort, flash, redirect, request, url_for

from jolvek.core.job.changes import changes
from jolvek.store import versions
from jolvek.web import saving, shared
from jolvek.web.kit import display, pages
from jolvek.web.kit.followed import Strip, strip
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, READER
from jolvek.web.kit.worked import work_out

bp = Blueprint("history", __name__, url_prefix="/enquiry/<int:enquiry_id>/history")
pages.add(
    bp,
    {
        "page": READER,
        "back": ADVISOR,
    },
)


@bp.get("")
def page(enquiry_id: int) -> Any:
    """The kept versions, the newest first, with what each changed; of one that is asked for, what
    followed for the setup in hand.
    """
    kept, f = versions.of_enquiry(shared.conn(), enquiry_id), shared.frame(enquiry_id, "")
    asked = next((v for v in kept if str(v.id) == request.args.get("of")), None)
    followed = _followed(f, asked) if asked and asked.before else None
    return shared.show(
        "desk/history/page.html", f, versions=kept, asked=asked, followed_then=followed
    )


def _followed(f: shared.Frame, asked: versions.Version) -> Strip | None:
    both = [versions.get(shared.conn(), f.e.id, n) for n in (asked.before or 0, asked.id)]
    hand = f.card.in_hand
    if hand is None or None in both:
        return None
    was, now = (work_out(e.need, hand.pinned).job for e in both if e)
    return strip(changes(was, now), display.current())


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
