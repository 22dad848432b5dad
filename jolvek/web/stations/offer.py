"""Station 7, Offer: the chosen setup as a printable page with what it will do and the cautions."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from typing import Any

from flask import Blueprint, abort, flash, redirect, request, url_for

from jolvek.store import enquiries, setups
from jolvek.store.db import transaction
from jolvek.web.pages.offer_page import offer_page
from jolvek.web.saving import now
from jolvek.web.shared import conn, frame, show, stored_or_404
from jolvek.web.view import display, stations

bp = Blueprint("offer", __name__, url_prefix="/enquiry/<int:enquiry_id>")
STAGE_WORDS = {
    "open": "not sent",
    "offered": "sent",
    "ordered": "ordered",
    "delivered": "handed over",
}


def _state(s: stations.Standing) -> tuple[str, str]:
    if not s.chosen:
        return "empty", "choose a setup first"
    if s.level == "block":
        return "blocked", "cannot be offered"
    return ("look", "read the cautions") if s.level == "caution" else ("done", "ready")


STATION = stations.add(7, "offer", "Offer", _state)


@bp.get("/offer")
def page(enquiry_id: int) -> Any:
    """The offer of the chosen setup; a blocked one is shown with its reason and cannot be printed
    as an offer.
    """
    f = frame(enquiry_id, "offer")
    chosen = f.card.in_hand if any(p.chosen for p in f.pinned) else None
    offer = None
    if chosen is not None and not chosen.blocked:
        offer = offer_page(chosen, date.today(), display.current())
    return show("offer/page.html", f, offer, chosen=chosen, stages=STAGE_WORDS)


@bp.post("/offer/claims")
def claims(enquiry_id: int) -> Any:
    """Put what the makers claim on the offer of the setup in hand, or leave it out again."""
    hand = frame(enquiry_id, "offer").card.in_hand
    if hand is None:
        abort(404)
    fitting = replace(hand.fitted.fitting, claims=not hand.fitted.fitting.claims)
    with transaction(conn()) as c:
        setups.fit(c, hand.pinned.id, hand.pinned.shaft_m, fitting)
        enquiries.touch(c, enquiry_id, now())
    return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)


@bp.post("/stage")
def stage(enquiry_id: int) -> Any:
    """How far the enquiry has come: sent, ordered, handed over."""
    stored_or_404(enquiry_id)
    wanted = request.form.get("stage", "")
    if wanted not in enquiries.STAGES:
        abort(422, f"Read “{wanted}”; allowed is one of {', '.join(enquiries.STAGES)}.")
    with transaction(conn()) as c:
        enquiries.set_stage(c, enquiry_id, wanted, now())
    flash("Saved.")
    return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)
