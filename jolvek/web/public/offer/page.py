"""The customer's page of one offer: by a signed link, without sign-in, of that offer and nothing
else.
"""

from __future__ import annotations

from datetime import UTC, datetime
from typing import Any

import segno
from flask import Blueprint, Response, abort, flash, redirect, request, url_for
from markupsafe import Markup

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.store import offers
from jolvek.store.offers import Event, Sent
from jolvek.web import data
from jolvek.web.kit import language, pages
from jolvek.web.kit.accounts import limits
from jolvek.web.kit.drawings import signature
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import OPEN
from jolvek.web.saving import now
from jolvek.web.shared import conn, form_id, show
from jolvek.web.stations.offer.customers_page import shown
from jolvek.web.stations.offer.lines import with_add_ons

bp = Blueprint("customer", __name__, url_prefix="/o/<token>")
pages.add(
    bp,
    {
        "page": OPEN,  # by a link to one offer
        "answer": OPEN,
        "paper": OPEN,
        "total": OPEN,
    },
)
ANSWERED = {
    "accepted": msg("You have accepted this offer."),
    "declined": msg("You have declined this offer."),
}
OFTEN, MOST_TEXT, MOST_NAME = "60 per minute; 600 per hour", 2000, 120


def _sent(token: str) -> Sent:
    found = shop.answers.opened(conn(), token, datetime.now(UTC), data.optional)
    if found is None:
        ours = data.shop()
        names = ", ".join(x for x in (ours.name, ours.phone) if x)
        abort(
            404, tr("This link is no longer valid. Please ask %(shop)s for a new one.", shop=names)
        )
    language.choose(offers.content(conn(), found.id).get("language", "en"))
    return found


def _page(token: str, refused: dict[str, str], code: int = 200) -> Any:
    sent = _sent(token)
    way = url_for("customer.page", token=token, _external=True)
    more = {
        "token": token,
        "refused": refused,
        "typed": request.form,
        "answered": ANSWERED.get(offers.answered(conn(), sent.id), ""),
        "offer_id": sent.id,
        "revised": _revised(token, sent),
        "events": offers.events(conn(), sent.id),
        "qr": Markup(segno.make(way).svg_inline(scale=3, border=2)),
    }
    body = shown(offers.content(conn(), sent.id), **more)
    head = {"X-Robots-Tag": "noindex, nofollow", "Referrer-Policy": "no-referrer"}
    return Response(body, code, head)


@bp.get("")
@limits.limiter.limit(OFTEN)
def page(token: str) -> Any:
    """The answer first, then drawing, figures, day, alternatives, cautions, and what to answer."""
    return _page(token, {})


@bp.get("/offer.pdf")
@limits.limiter.limit(OFTEN)
def paper(token: str) -> Response:
    """The paper as it was sent."""
    body = offers.pdf(conn(), _sent(token).id)
    return Response(body, mimetype="application/pdf", headers={"X-Robots-Tag": "noindex"})


@bp.post("")
@limits.limiter.limit("20 per hour")
@limits.of_one()
def answer(token: str) -> Any:
    """Ask, accept or decline; it stands in the enquiry at once."""
    sent, form = _sent(token), request.form
    result = offers.content(conn(), sent.id)
    kind, text = form.get("do", ""), form.get("text", "").strip()[:MOST_TEXT]
    name, letter = form.get("name", "").strip()[:MOST_NAME], form.get("letter", "")
    letters = [x["letter"] for x in result["alternatives"]]
    offered = {y["text"] for x in result["alternatives"] for y in x["lines"] if y["optional"]}
    ticked = (
        tuple(sorted(offered & set(form.getlist(f"addon-{letter}")))) if kind == "accepted" else ()
    )
    refused, drawn = _signed(form.get("signature", "") if kind == "accepted" else "")
    letter = letter if kind == "accepted" else ""
    event = Event(0, now(), kind, name, text, letter, ticked=ticked, seen_by="", signature=drawn)

    def check(done: str) -> dict[str, str]:
        out = refused | _refused(kind, text, name, form.get("agree", ""), done)
        if kind == "accepted" and letter not in letters:
            out["letter"] = tr("choose which of the setups you accept")
        return out

    refused = shop.answers.answer(conn(), sent, token, form_id("offer"), event, check)
    if refused:
        return _page(token, refused, 422)
    thanks = {
        "asked": tr("Your question is with the shop."),
        "accepted": tr("Thank you: the shop has your order."),
        "declined": tr("Thank you for telling us."),
    }
    flash(thanks[kind])
    return redirect(url_for("customer.page", token=token), 303)


def _revised(token: str, sent: Sent) -> str:
    """What tells a customer whose link is of an earlier revision."""
    linked = offers.linked(conn(), token)
    if linked is None or linked.id == sent.id:
        return ""
    names = {"old": linked.number, "new": sent.number}
    return tr("Offer %(old)s was revised. This is its latest revision, %(new)s.", **names)


def _signed(strokes: str) -> tuple[dict[str, str], str]:
    """What is refused of a drawn signature, and the signature."""
    try:
        return {}, signature.checked(strokes)
    except JolvekError:
        return {"signature": tr("draw it again, or leave it empty: your name is enough")}, ""


@bp.post("/total/<letter>")
@limits.limiter.limit(OFTEN)
def total(token: str, letter: str) -> Any:
    """The total of one alternative with the add-ons that are ticked."""
    result = offers.content(conn(), _sent(token).id)
    found = [x for x in result["alternatives"] if x["letter"] == letter]
    if not found:
        abort(404)
    ticked = request.form.getlist(f"addon-{letter}")
    summed = with_add_ons(result, letter, ticked)
    return show("public/offer/_total.html", o=result, x=found[0], summed=summed)


def _refused(kind: str, text: str, name: str, agree: str, answered: str) -> dict[str, str]:
    if kind not in offers.KINDS:
        return {"do": tr("choose what to do")}
    if kind != "asked" and answered:
        return {"do": tr(ANSWERED[answered]) + " " + tr("Please call the shop to change that.")}
    if kind == "asked" and not text:
        return {"text": tr("write your question")}
    if kind == "declined" and not text:
        return {"text": tr("a word why helps the shop")}
    if kind == "accepted" and not name:
        return {"name": tr("your name, as your signature")}
    if kind == "accepted" and not agree:
        return {"agree": tr("tick that you have read the cautions")}
    return {}
