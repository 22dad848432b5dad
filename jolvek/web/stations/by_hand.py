"""A setup put together by hand from any parts, judged as one goes, and pinned."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, request

from jolvek.core.base.errors import ValueRefused
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fitted import Fitted
from jolvek.web.pages.by_hand_page import by_hand_page
from jolvek.web.shared import conn, frame, is_fragment, show, stored_or_404
from jolvek.web.stations.shortlist import items_from, layout_from
from jolvek.web.view import display
from jolvek.web.view.matches import shelf_for
from jolvek.web.view.what_if import SHAFTS_M

bp = Blueprint("by_hand", __name__, url_prefix="/enquiry/<int:enquiry_id>")


def _fitted(enquiry_id: int, need: Need) -> tuple[Fitted | None, str]:
    """The setup that the address names, or why there is none."""
    items = items_from(shelf_for(conn(), enquiry_id), request.args)
    if items is None:
        return None, ""
    try:
        layout = layout_from(request.args, items["motor"])
    except ValueRefused as error:
        return None, str(error)
    charger = items.get("charger")
    parts = (items["motor"], items["battery"], items["mount"], charger)
    return Fitted(need, *parts, *layout), ""


@bp.get("/by-hand")
def page(enquiry_id: int) -> Any:
    """Parts to choose and what the rule book says of them together."""
    e = stored_or_404(enquiry_id)
    fitted, refused = _fitted(enquiry_id, e.need)
    judged = by_hand_page(fitted, display.current()) if fitted else None
    code, more = (422 if refused else 200), {"refused": refused, "judged": judged}
    if is_fragment():
        return show("by_hand/_judged.html", e=e, **more), code
    shelf = shelf_for(conn(), enquiry_id)
    f = frame(enquiry_id, "shortlist")
    return show("by_hand/page.html", f, shelf=shelf, shafts=SHAFTS_M, **more), code
