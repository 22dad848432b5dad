"""The parts of a draft's setups at today's prices."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, flash, redirect, request, url_for

from jolvek import shop
from jolvek.web.kit import pages
from jolvek.web.kit.language import tr
from jolvek.web.kit.matches import shelf_of
from jolvek.web.kit.moved import moved
from jolvek.web.kit.pages import ADVISOR
from jolvek.web.saving import by
from jolvek.web.shared import conn, frame, own_address

bp = Blueprint("repriced", __name__, url_prefix="/enquiry/<int:enquiry_id>/offer")
pages.add(
    bp,
    {
        "today": ADVISOR,
    },
    changes_job=True,
)


@bp.post("/today")
def today(enquiry_id: int) -> Any:
    """Take every part that is still offered, or the one that is named, as the catalogue has it
    today.
    """
    f, offered = frame(enquiry_id, "offer"), shelf_of(conn())
    one = request.form.get("part", "")
    parts = [
        (pinned.id, x.part, x.now)
        for pinned in f.pinned
        for x in moved(pinned, offered)
        if x.now is not None and one in ("", x.key)
    ]
    shop.setups.renew(conn(), by(), enquiry_id, parts)
    flash(tr("The setups now use today’s prices and figures."))
    back = request.form.get("back")
    target = own_address(back) if back else url_for("offer.page", enquiry_id=enquiry_id) + "#send"
    return redirect(target, 303)
