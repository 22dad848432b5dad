"""Station 9, Aftercare: what is due on a boat, and the way to her owner."""

from __future__ import annotations

from datetime import date
from typing import Any

import segno
from flask import Blueprint, Response, abort, flash, redirect, render_template, request, url_for
from markupsafe import Markup

from jolvek import shop
from jolvek.core.base import checked
from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.care.faults import SERVICE_FAULTS
from jolvek.formats.contacts import ICALENDAR, Dated, calendar
from jolvek.web import data
from jolvek.web.kit import language, pages, pdf, stations
from jolvek.web.kit.accounts import links, signing
from jolvek.web.kit.dates import made
from jolvek.web.kit.fields.chosen import chosen
from jolvek.web.kit.fields.merged import merged
from jolvek.web.kit.language import tr
from jolvek.web.kit.matches import shelf_of
from jolvek.web.kit.pages import ADVISOR, READER, RIGGER
from jolvek.web.saving import by
from jolvek.web.shared import conn, frame, show, spoken_to, stored_or_404
from jolvek.web.stations.aftercare import view as care_page

bp = Blueprint("aftercare", __name__, url_prefix="/enquiry/<int:enquiry_id>/aftercare")
pages.add(
    bp,
    {
        "page": READER,
        "dates": READER,
        "done": RIGGER,
        "label": READER,
        "shut": ADVISOR,
        "speak": ADVISOR,
    },
)


def _state(s: stations.Standing) -> tuple[str, str]:
    return ("look", tr("what is due")) if s.pinned else ("empty", tr("pin a setup first"))


STATION = stations.add(9, "aftercare", msg("Aftercare"), _state)


def show_page(enquiry_id: int, refused: dict[str, str] | None = None, code: int = 200) -> Any:
    """The page, with what was refused at its fields."""
    f = frame(enquiry_id, "aftercare")
    hand, result = f.card.in_hand, None
    if hand is not None:
        result = care_page.page(conn(), enquiry_id, hand, data.shop(), date.today())
    more = {
        "hand": hand,
        "p": result,
        "refused": refused or {},
        "states": care_page.STATE_WORDS,
        "kinds": SERVICE_FAULTS,
        "spoken": spoken_to(enquiry_id),
        "typed": request.form if refused else {},
        "batteries": shelf_of(conn()).batteries,
    }
    return show("stations/aftercare/page.html", f, **more), code


def back(enquiry_id: int, part: str = "") -> Any:
    """To the page again."""
    return redirect(url_for("aftercare.page", enquiry_id=enquiry_id) + part, 303)


def past_day(text: str) -> str:
    """A day that has been, today where none is typed; raises JolvekError."""
    on = text.strip() or date.today().isoformat()
    checked.date("on_day", on)
    if date.fromisoformat(on) > date.today():
        raise JolvekError(f"on_day: read {on}, allowed is a day that has been")
    return on


@bp.get("")
def page(enquiry_id: int) -> Any:
    """What is due, the log, faults and parts, the battery, the owner."""
    return show_page(enquiry_id)


@bp.post("/done")
def done(enquiry_id: int) -> Any:
    """A step of care was done, today or on the day typed."""
    f = frame(enquiry_id, "aftercare")
    hand, step = f.card.in_hand, request.form.get("step", "")
    if hand is None or step not in {c.key for c in care_page.steps_of(conn(), hand)}:
        abort(404)
    try:
        on = date.fromisoformat(past_day(request.form.get("on_day", "")))
        note = request.form.get("note", "").strip()
        shop.care.done(conn(), by(), enquiry_id, step, on, note)
    except JolvekError as error:
        return show_page(enquiry_id, {f"done {step}": str(error)}, 422)
    flash(tr("Noted."))
    return back(enquiry_id)


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


@bp.get("/label.pdf")
def label(enquiry_id: int) -> Response:
    """A sticker for the boat: its code leads to her own page, which names nobody."""
    stored_or_404(enquiry_id)
    language.choose(spoken_to(enquiry_id))
    way = url_for("boat_page.page", token=links.token("boat", enquiry_id), _external=True)
    code = Markup(segno.make(way, error="q").svg_inline(scale=2, border=2))
    body = pdf.write(render_template("stations/aftercare/label.html", code=code, way=way))
    head = {"Content-Disposition": f'inline; filename="label-{enquiry_id}.pdf"'}
    return Response(body, mimetype="application/pdf", headers=head)


@bp.post("/language")
def speak(enquiry_id: int) -> Any:
    """The customer is written to in this language."""
    stored_or_404(enquiry_id)

    def edited() -> str:
        form = merged(request.form, {"language": spoken_to(enquiry_id)})
        return chosen("language", language.LANGUAGES, form)

    wanted = shop.owners.set_language(conn(), enquiry_id, edited)
    flash(
        tr(
            "The boat's page, sticker and letters are in %(wanted)s.",
            wanted=language.LANGUAGES[wanted],
        )
    )
    return back(enquiry_id, "#owner")


@bp.post("/shut")
def shut(enquiry_id: int) -> Any:
    """Stickers made so far lead nowhere any more."""
    stored_or_404(enquiry_id)
    shop.owners.shut_addresses(conn(), "boat", enquiry_id)
    signing.record_activity("stickers shut", str(enquiry_id))
    flash(tr("Stickers printed so far lead nowhere. Print a new one."))
    return back(enquiry_id, "#owner")
