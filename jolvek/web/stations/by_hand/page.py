"""A setup put together by hand: any parts, judged as they are."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, request

from jolvek.core.base.errors import ValueRefused
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fitted import Fitted
from jolvek.core.products.shelf import Shelf
from jolvek.web.kit import display, pages
from jolvek.web.kit.matches import shelf_for
from jolvek.web.kit.pages import READER
from jolvek.web.shared import conn, frame, is_fragment, show, stored_or_404
from jolvek.web.stations.by_hand.view import by_hand_page, choices, split_bank
from jolvek.web.stations.shortlist.page import items_from, layout_from

bp = Blueprint("by_hand", __name__, url_prefix="/enquiry/<int:enquiry_id>")
pages.add(
    bp,
    {
        "page": READER,
    },
    changes_job=True,
)


def _fitted(shelf: Shelf, need: Need, asked: dict[str, str]) -> tuple[Fitted | None, str]:
    """The setup that is asked for, or why there is none."""
    items = items_from(shelf, asked)
    if items is None:
        return None, ""
    try:
        layout = layout_from(asked, items["motor"])
    except ValueRefused as error:
        return None, str(error)
    charger = items.get("charger")
    parts = (items["motor"], items["battery"], items["mount"], charger)
    return Fitted(need, *parts, *layout), ""


@bp.get("/by-hand")
def page(enquiry_id: int) -> Any:
    """Parts to choose, those that go first, and what the rule book says of them together."""
    e, u = stored_or_404(enquiry_id), display.current()
    shelf, asked = shelf_for(conn(), enquiry_id), split_bank(request.args.to_dict())
    fitted, refused = _fitted(shelf, e.need, asked)
    judged = by_hand_page(fitted, u) if fitted else None
    more = {"refused": refused, "judged": judged, "asked": asked}
    chosen, code = choices(e.need, shelf, asked, u), (422 if refused else 200)
    if is_fragment():
        return show("stations/by_hand/_judged.html", chosen, e=e, **more), code
    return show("stations/by_hand/page.html", frame(enquiry_id, "shortlist"), chosen, **more), code
