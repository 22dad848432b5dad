"""What was sent of an enquiry: the customer's link, copies, what the customer did, and the parts to
order once it is accepted.
"""

from __future__ import annotations

from datetime import date
from typing import Any

from flask import (
    Blueprint,
    Response,
    abort,
    flash,
    redirect,
    request,
    session,
    url_for,
)

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.formats.contacts import ICALENDAR, Dated, calendar
from jolvek.store import offers
from jolvek.web.kit import language, pages
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.dates import made
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, READER
from jolvek.web.saving import by
from jolvek.web.shared import conn, form_id, frame, gone, show, stored_or_404, table_file
from jolvek.web.stations.offer import order_list, sending
from jolvek.web.stations.offer.customers_page import shown
from jolvek.web.stations.offer.sending import customer_way

bp = Blueprint("sent", __name__, url_prefix="/enquiry/<int:enquiry_id>")
pages.add(
    bp,
    {
        "copy": READER,
        "newest": READER,
        "link": ADVISOR,
        "order": READER,
        "order_file": READER,
        "keep_order": ADVISOR,
        "seen": ADVISOR,
    },
)


def _sent(enquiry_id: int, offer_id: int) -> offers.Sent:
    found = offers.get(conn(), offer_id)
    if found is None or found.enquiry_id != enquiry_id:
        abort(404)
    return found


@bp.post("/offer/link")
def link(enquiry_id: int) -> Any:
    """A new link for the customer, or shut the one there is."""
    sent, shut = _sent(enquiry_id, form_id("offer")), request.form.get("shut")
    if shut:
        shop.offers.shut_link(conn(), sent)
        signing.record_activity("link shut", sent.number)
        flash(tr("The customer’s link is shut."))
    else:
        try:
            token = shop.offers.new_link(conn(), sent)
        except JolvekError as error:
            abort(422, str(error))
        signing.record_activity("link made", sent.number)
        session["customer_link"] = {"enquiry": enquiry_id, "way": customer_way(token)}
    return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)


@bp.post("/offer/seen")
def seen(enquiry_id: int) -> Any:
    """What the customer did was read."""
    stored_or_404(enquiry_id)
    shop.offers.mark_read(conn(), by(), enquiry_id)
    return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)


@bp.get("/offer/<int:offer_id>.<form>")
def copy(enquiry_id: int, offer_id: int, form: str) -> Any:
    """What was sent, as PDF, paper, the customer's page, jolvek-offer, its lines as CSV and
    spreadsheet; the day to ask again as iCalendar.
    """
    sent = _sent(enquiry_id, offer_id)
    if form == "pdf":
        if not offers.pdf(conn(), sent.id):
            gone(enquiry_id)
        head = {"Content-Disposition": f'inline; filename="offer-{sent.id}.pdf"'}
        return Response(offers.pdf(conn(), sent.id), mimetype="application/pdf", headers=head)
    result = offers.content(conn(), sent.id)
    if form == "json":
        return result
    if form == "page":
        with language.speaking(result.get("language", "en")):
            return shown(result)
    if form == "html":
        return sending.paper_page(result)
    if form == "ics":
        return _follow_up(sent, result)
    rows = [("setup", "line", "quantity", "unit", "each", tr("discount %"), tr("tax %"), "amount")]
    for x in result["alternatives"]:
        for y in x["lines"]:
            keys = ("text", "quantity", "unit", "each", "discount", "tax", "amount")
            rows.append((x["letter"], *(str(y[k]) for k in keys)))
    return table_file(rows, f"offer-{sent.id}", form)


@bp.get("/offer/sent")
def newest(enquiry_id: int) -> Any:
    """The customer's page of what was sent last."""
    stored_or_404(enquiry_id)
    found = next(iter(offers.of_enquiry(conn(), enquiry_id)), None)
    if found is None:
        abort(404)
    return redirect(url_for("sent.copy", enquiry_id=enquiry_id, offer_id=found.id, form="page"))


def _follow_up(sent: offers.Sent, told: dict[str, Any]) -> Response:
    day = offers.shop_data(conn(), sent.id).get("follow_up")
    if not day or offers.answered(conn(), sent.id):
        abort(404)
    c = told["customer"]
    note = "\n".join(x for x in (told["title"], c["phone"], c["mail"]) if x)
    what = tr("Ask about offer %(sent)s: %(x)s", sent=sent.number, x=c["customer"])
    dated = Dated(sent.id, date.fromisoformat(day), what, note, "offer")
    body = calendar([dated], told["shop"]["name"], made())
    head = {"Content-Disposition": f'attachment; filename="offer-{sent.id}.ics"'}
    return Response(body, mimetype=ICALENDAR, headers=head)


@bp.get("/order")
def order(enquiry_id: int) -> Any:
    """The parts of the accepted offer: by supplier, what is there, what is to be ordered."""
    f = frame(enquiry_id, "offer")
    return show("stations/offer/order.html", f, o=order_list.of_enquiry(conn(), enquiry_id))


@bp.get("/order.<form>")
def order_file(enquiry_id: int, form: str) -> Response:
    """What is to be ordered, as a table."""
    stored_or_404(enquiry_id)
    found = order_list.of_enquiry(conn(), enquiry_id)
    if found is None:
        abort(404)
    return table_file(order_list.rows(found), f"order-{enquiry_id}", form)


@bp.post("/order")
def keep_order(enquiry_id: int) -> Any:
    """Reserve what is there, give it back, or say that the rest is ordered."""
    stored_or_404(enquiry_id)
    found, do = order_list.of_enquiry(conn(), enquiry_id), request.form.get("do", "")
    if found is None or do not in ("reserve", "release", "ordered"):
        abort(422, tr("Read nothing that can be done; allowed is to reserve, release or order."))
    shop.offers.order_parts(conn(), by(), found.sent, found.wanted, do)
    signing.record_activity(f"parts: {do}", found.sent.number)
    values = {
        "reserve": tr("Reserved."),
        "release": tr("Given back."),
        "ordered": tr("Marked as ordered."),
    }
    flash(values[do])
    return redirect(url_for("sent.order", enquiry_id=enquiry_id), 303)
