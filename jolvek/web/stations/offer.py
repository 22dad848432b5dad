"""Station 7, Offer: the chosen setup as a printable page with what it will do and the cautions."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from flask import Blueprint, abort, flash, redirect, render_template, request, url_for

from jolvek.store import enquiries
from jolvek.store.db import transaction
from jolvek.web import conn
from jolvek.web.saving import now
from jolvek.web.stations.boat import shared, stored_or_404

bp = Blueprint("offer", __name__, url_prefix="/enquiry/<int:enquiry_id>")
VALID_DAYS = 30


@bp.get("/offer")
def page(enquiry_id: int) -> Any:
    """The offer of the setup in hand; a blocked setup is shown with its reason and cannot be
    printed as an offer.
    """
    more = shared(enquiry_id, "offer")
    worked = more["card"].in_hand if any(p.chosen for p in more["pinned"]) else None
    if worked is None:
        return render_template("offer/page.html", worked=None, **more)
    p, need = worked.performance, more["need"]
    speed = min(need.day.speed_m_s, p.top_speed_m_s)
    at = p.at_speed(speed)
    low, high = (
        1 - p.band,
        1 + p.band,
    )  # of speed at that power, and so of range; the time hangs on the battery alone
    today = date.today()
    return render_template(
        "offer/page.html",
        worked=worked,
        at=at,
        speed=speed,
        low=low,
        high=high,
        today=today,
        until=today + timedelta(days=VALID_DAYS),
        full=p.at_speed(p.top_speed_m_s),
        half=p.at_speed(float(p.speed_at_w(0.5 * p.power_limit_w))),
        **more,
    )


@bp.post("/stage")
def stage(enquiry_id: int) -> Any:
    """How far the enquiry has come: sent, ordered, handed over."""
    stored_or_404(enquiry_id)
    wanted = request.form.get("stage", "")
    if wanted not in enquiries.STAGES:
        abort(422, f"Read “{wanted}”; allowed is one of {', '.join(enquiries.STAGES)}.")
    with transaction(conn()) as c:
        enquiries.set_stage(c, enquiry_id, wanted, now())
    flash("Kept.")
    return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)
