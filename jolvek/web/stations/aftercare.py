"""Station 9, Aftercare: what is due on a boat, her log, her battery."""

from __future__ import annotations

from datetime import date
from typing import Any

from flask import Blueprint, Response, abort, flash, redirect, request, url_for

from jolvek.core.base import checked
from jolvek.core.base.errors import JolvekError
from jolvek.core.care.steps import care_of
from jolvek.formats.contacts import ICALENDAR, Dated, calendar
from jolvek.store import care
from jolvek.store.care import Trip
from jolvek.store.db import transaction
from jolvek.web import data
from jolvek.web.forms.reader import Reader
from jolvek.web.pages import care_page
from jolvek.web.pages.exchange import made
from jolvek.web.saving import now
from jolvek.web.shared import conn, form_id, frame, show, stored_or_404, who
from jolvek.web.view import display, stations

bp = Blueprint("aftercare", __name__, url_prefix="/enquiry/<int:enquiry_id>/aftercare")


def _state(s: stations.Standing) -> tuple[str, str]:
    return ("look", "what is due") if s.pinned else ("empty", "pin a setup first")


STATION = stations.add(9, "aftercare", "Aftercare", _state)


def _page(enquiry_id: int, refused: dict[str, str] | None = None, code: int = 200) -> Any:
    f, u = frame(enquiry_id, "aftercare"), display.current()
    hand, told = f.card.in_hand, None
    if hand is not None:
        told = care_page.page(conn(), enquiry_id, hand, data.shop(), u, date.today())
    more = {"hand": hand, "p": told, "refused": refused or {}, "states": care_page.STATE_WORDS}
    return show("aftercare/page.html", f, typed=request.form if refused else {}, **more), code


@bp.get("")
def page(enquiry_id: int) -> Any:
    """What is due, the log, the battery."""
    return _page(enquiry_id)


@bp.post("/trip")
def trip(enquiry_id: int) -> Any:
    """Keep a trip."""
    stored_or_404(enquiry_id)
    read = Reader(request.form, display.current())
    hours = read.figure("hours", "duration", 0, 240 * 3600)
    wh = read.figure("energy_wh", "energy", 0, 1e7)
    before, after = (read.figure(k, "share", 0, 1) for k in ("charge_from", "charge_to"))
    if hours is None and "hours" not in read.refused:
        read.refused["hours"] = "needed"
    on = request.form.get("on_day", "").strip() or date.today().isoformat()
    if not read.refused:
        try:
            note = request.form.get("note", "").strip()
            told = Trip(0, on, (hours or 0.0) / 3600, wh, before, after, note, who())
            if told.day > date.today():
                raise JolvekError(f"read {on}, allowed is a day that has been")
            with transaction(conn()) as c:
                care.add_trip(c, enquiry_id, told, now())
        except JolvekError as error:
            read.refused["on_day" if "on_day" in str(error) else "trip"] = str(error)
    if read.refused:
        return _page(enquiry_id, read.refused, 422)
    return redirect(url_for("aftercare.page", enquiry_id=enquiry_id) + "#log", 303)


@bp.post("/drop")
def drop(enquiry_id: int) -> Any:
    """Take a trip out of the log."""
    stored_or_404(enquiry_id)
    with transaction(conn()) as c:
        care.drop_trip(c, enquiry_id, form_id("trip"))
    return redirect(url_for("aftercare.page", enquiry_id=enquiry_id) + "#log", 303)


@bp.post("/done")
def done(enquiry_id: int) -> Any:
    """A step of care was done, today or on the day typed."""
    f = frame(enquiry_id, "aftercare")
    hand, step = f.card.in_hand, request.form.get("step", "")
    if hand is None or step not in {c.key for c in care_of(hand.fitted)}:
        abort(404)
    text = request.form.get("on_day", "").strip() or date.today().isoformat()
    try:
        checked.date("day", text)
        on = date.fromisoformat(text)
        if on > date.today():
            raise JolvekError(f"read {text}, allowed is a day that has been")
        with transaction(conn()) as c:
            note = request.form.get("note", "").strip()
            care.act(c, enquiry_id, step, on, who(), note, now())
    except JolvekError as error:
        return _page(enquiry_id, {f"done {step}": str(error)}, 422)
    flash("Noted.")
    return redirect(url_for("aftercare.page", enquiry_id=enquiry_id), 303)


@bp.get("/due.ics")
def dates(enquiry_id: int) -> Response:
    """What is due as iCalendar."""
    f = frame(enquiry_id, "aftercare")
    if f.card.in_hand is None:
        abort(404)
    found = care_page.due_of(conn(), enquiry_id, f.card.in_hand, data.shop(), date.today())
    days = [
        Dated(enquiry_id, d.on, f"{f.e.title}: {d.care.text}", d.care.hazard, f"{d.care.key}-")
        for d in found
        if d.on
    ]
    return Response(calendar(days, data.shop().name, made()), mimetype=ICALENDAR)
