"""A setup put together by hand from any parts, judged as one goes, and pinned."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, render_template, request

from jolvek.core.fit.fitted import Fitted
from jolvek.web import conn, is_fragment
from jolvek.web.stations.boat import shared, stored_or_404
from jolvek.web.stations.shortlist import items_from
from jolvek.web.view.matches import shelf_of

bp = Blueprint("by_hand", __name__, url_prefix="/enquiry/<int:enquiry_id>")


def _fitted(need: Any, args: Any) -> Fitted | None:
    shelf = shelf_of(conn())
    items = items_from(shelf, args)
    if items is None:
        return None
    series, parallel = (
        min(max(args.get(k, 1, type=int) or 1, 1), 16) for k in ("series", "parallel")
    )
    shaft = args.get("shaft_m", type=float)
    shafts = items["motor"].shafts_m
    if shaft not in shafts:
        shaft = shafts[0] if shafts else None
    return Fitted(
        need,
        items["motor"],
        items["battery"],
        items["mount"],
        items.get("charger"),
        series,
        parallel,
        shaft,
    )


@bp.get("/by-hand")
def page(enquiry_id: int) -> Any:
    """Parts to choose and what the rule book says of them together."""
    if is_fragment():
        need = stored_or_404(enquiry_id).need
        return render_template(
            "by_hand/_judged.html",
            fitted=_fitted(need, request.args),
            need=need,
            e={"id": enquiry_id},
        )
    more = shared(enquiry_id, "shortlist")
    return render_template(
        "by_hand/page.html",
        shelf=shelf_of(conn()),
        fitted=_fitted(more["need"], request.args),
        **more,
    )
