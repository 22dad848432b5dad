"""What is due on every boat the shop has in service, and who has a product or a serial number."""

from __future__ import annotations

from datetime import date
from typing import Any

from flask import Blueprint, request

from jolvek.store import care, enquiries, setups
from jolvek.web import data
from jolvek.web.pages import care_page, learning
from jolvek.web.shared import conn, show, table_file
from jolvek.web.view.card import card_of

bp = Blueprint("care_list", __name__, url_prefix="/care")


@bp.get("")
def page() -> Any:
    """All boats in service with what is due or soon."""
    rows = []
    for number, title in care.in_service(conn()):
        stored = enquiries.get(conn(), number)
        if stored is None:
            continue
        card = card_of(learning.as_taught(conn(), stored), setups.of_enquiry(conn(), number))
        if card.in_hand is None:
            continue
        found = care_page.due_of(conn(), number, card.in_hand, data.shop(), date.today())
        pressing = [d for d in found if d.state != "later"]
        rows.append((number, title, stored.enquiry.customer, pressing))
    rows.sort(key=lambda r: min((d.on for d in r[3] if d.on), default=date.max))
    return show("care/page.html", rows=rows, states=care_page.STATE_WORDS)


@bp.get("/holders")
def holders() -> Any:
    """Who has a product, by its id, or a serial number that begins so; also as a table."""
    text, form = request.args.get("q", "").strip()[:80], request.args.get("form", "")
    found = care.holders(conn(), text) if text else []
    if form:
        head = ("boat", "customer", "telephone", "mail", "piece", "number")
        keys = ("title", "customer", "phone", "mail", "what", "number")
        told = [head, *(tuple(getattr(h, k) for k in keys) for h in found)]
        return table_file(told, "holders", form)
    return show("care/holders.html", q=text, found=found)
