"""A boat's own page, by the code on her sticker: care, a trip logged, a fault told, a recall
answered. Anybody at the quay may scan it, so it names nobody.
"""

from __future__ import annotations

import secrets
from datetime import date
from typing import Any

from flask import Blueprint, Response, abort, flash, redirect, request, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.care.faults import SERVICE_FAULTS
from jolvek.core.fit.handover import steps
from jolvek.core.fit.handover_owner import FOR_OWNER
from jolvek.formats.contacts import ICALENDAR, Dated, calendar
from jolvek.shop import By
from jolvek.store import recalls, service_faults
from jolvek.web import data, errors
from jolvek.web.kit import display, language, pages
from jolvek.web.kit.accounts import limits, links
from jolvek.web.kit.dates import made
from jolvek.web.kit.fields.chosen import chosen
from jolvek.web.kit.pages import OPEN, PHOTO
from jolvek.web.saving import now
from jolvek.web.shared import Frame, conn, frame, show, spoken_to
from jolvek.web.stations.aftercare import view as care_page
from jolvek.web.stations.aftercare.log import read_trip
from jolvek.web.stations.aftercare.parts import pieces_of, read_fault
from jolvek.web.stations.offer.for_customer import two_speeds

bp = Blueprint("boat_page", __name__, url_prefix="/b/<token>")
pages.add(
    bp,
    {
        "page": OPEN,  # by the signed code on a boat's sticker
        "trip": OPEN,
        "fault": OPEN,
        "dates": OPEN,
        "recalled": OPEN,  # by a signed address of one letter
        "answer": OPEN,
    },
    limits={"fault": PHOTO},
)
MENDED = 3  # of those that the owner reported: as many are shown
OFTEN, WRITES, BY = "60 per minute; 600 per hour", "30 per hour", service_faults.OWNER
HEADERS = {"X-Robots-Tag": "noindex, nofollow", "Referrer-Policy": "no-referrer"}


def _frame(token: str) -> Frame:
    f = frame(links.of_token("boat", token), "aftercare")
    language.choose(request.args.get("lang") or spoken_to(f.e.id))
    if f.card.in_hand is None:
        abort(404, links.LOST)
    return f


def _page(token: str, refused: dict[str, str], code: int = 200) -> Any:
    f = _frame(token)
    assert f.card.in_hand is not None
    result = care_page.page(conn(), f.e.id, f.card.in_hand, data.shop(), date.today())
    more = {
        "token": token,
        "hand": f.card.in_hand,
        "p": result,
        "refused": refused,
        "typed": request.form,
        "kinds": SERVICE_FAULTS,
        "pieces": pieces_of(f),
        "manual": [s for s in steps(f.card.in_hand.fitted) if s.group in FOR_OWNER],
        "states": care_page.STATE_WORDS,
        "reported": [x for x in result.faults if x.state == "open" and x.found_by == BY],
        "mended": [x for x in result.faults if x.state != "open" and x.found_by == BY][:MENDED],
        "speeds": two_speeds(f.card.in_hand, display.current()),
        "due_now": sum(d.state == "overdue" for d in result.due),
        "op": secrets.token_hex(12),
        "answers": recalls.ANSWERS,
    }
    return Response(show("public/boat/page.html", **more), code, HEADERS)


def _back(token: str, part: str = "") -> Any:
    lang = request.args.get("lang")
    return redirect(url_for("boat_page.page", token=token, lang=lang) + part, 303)


@bp.get("")
@limits.limiter.limit(OFTEN)
def page(token: str) -> Any:
    """What is due first; then a trip, a fault, her care, her battery."""
    return _page(token, {})


@bp.post("/trip")
@limits.limiter.limit(WRITES)
@limits.of_one()
def trip(token: str) -> Any:
    """Log a trip; sent twice it counts once."""
    f = _frame(token)
    refused: dict[str, str] = {}
    result = read_trip(request.form, refused, BY)
    if result is None:
        return _page(token, refused, 422)
    shop.care.log_trips(conn(), By(BY, now()), f.e.id, (result,))
    flash(language.tr("Logged."))
    return _back(token)


@bp.post("/fault")
@limits.limiter.limit(WRITES)
@limits.of_one()
def fault(token: str) -> Any:
    """Tell the shop of a fault."""
    f = _frame(token)
    try:
        result = read_fault(f.e.id, pieces_of(f), request.form, BY)
        shop.care.report_fault(conn(), f.e.id, result)
    except JolvekError as error:
        return _page(token, {"fault": str(error)}, 422)
    flash(language.tr("The shop has it. If the boat is not safe, do not use it."))
    return _back(token)


errors.refuses_large("boat_page.fault", lambda text: (text, 413))


@bp.get("/care.ics")
@limits.limiter.limit(OFTEN)
def dates(token: str) -> Response:
    """What is due on her, as a calendar that may be subscribed to."""
    f = _frame(token)
    assert f.card.in_hand is not None
    found = care_page.due_of(conn(), f.e.id, f.card.in_hand, data.shop(), date.today())
    days = [
        Dated(f.e.id, d.on, d.care.text, d.care.hazard, f"{d.care.key}-") for d in found if d.on
    ]
    return Response(calendar(days, data.shop().name, made()), mimetype=ICALENDAR, headers=HEADERS)


@bp.get("/recall")
@limits.limiter.limit(OFTEN)
def recalled(token: str) -> Any:
    """The answer to a recall's letter, by its own address."""
    letter = links.of_token("recall", token)
    found = recalls.letter(conn(), letter)
    if found is None:
        abort(404, links.LOST)
    language.choose(spoken_to(found.enquiry_id))
    more = {"token": token, "x": found, "answers": recalls.ANSWERS}
    return Response(show("public/boat/recall.html", **more), 200, HEADERS)


@bp.post("/recall")
@limits.limiter.limit(WRITES)
@limits.of_one()
def answer(token: str) -> Any:
    """Keep the answer."""
    letter = links.of_token("recall", token)
    result = chosen("answer", recalls.ANSWERS)
    shop.letters.answer_recall(conn(), By(BY, now()), letter, result)
    found = recalls.letter(conn(), letter)
    language.choose(spoken_to(found.enquiry_id) if found else "en")
    flash(language.tr("Thank you: the shop has your answer."))
    return redirect(url_for("boat_page.recalled", token=token), 303)
