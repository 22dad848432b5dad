"""Station 7, Offer: the draft of up to three setups, sending it, and what was sent."""

from __future__ import annotations

from dataclasses import asdict, replace
from datetime import date
from typing import Any

from flask import Blueprint, Response, abort, flash, redirect, request, url_for

from jolvek.core.base.errors import JolvekError
from jolvek.core.deal.lines import sums
from jolvek.standins.post import FolderPost
from jolvek.store import enquiries, offers, setups
from jolvek.store.db import transaction
from jolvek.web import data
from jolvek.web.accounts import signing
from jolvek.web.forms import draft_form
from jolvek.web.forms.draft_form import Draft
from jolvek.web.pages import offer_content, sending
from jolvek.web.saving import now
from jolvek.web.shared import Frame, conn, form_id, frame, show, stored_or_404, table_file, who
from jolvek.web.view import display, stations
from jolvek.web.view.worked import Worked, work_out

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


def _draft(f: Frame) -> tuple[Draft, list[Worked]]:
    """The draft with its setups; the chosen one where none was named."""
    draft = draft_form.draft_of(offers.draft(conn(), f.e.id), data.shop())
    known = {p.letter: p for p in f.pinned}
    letters = [x for x in draft.letters if x in known]
    letters = letters or [p.letter for p in f.pinned if p.chosen]
    draft.letters = letters
    return draft, [work_out(f.need, known[x]) for x in letters]


def _page(enquiry_id: int, refused: dict[str, str] | None = None, code: int = 200) -> Any:
    f, u = frame(enquiry_id, "offer"), display.current()
    chosen = f.card.in_hand if any(p.chosen for p in f.pinned) else None
    draft, worked = _draft(f)
    made: dict[str, Any] | None = None
    if chosen is not None and not chosen.blocked:
        made = offer_content.content(f.e, worked, draft, data.shop(), u, date.today())
    sent = offers.of_enquiry(conn(), enquiry_id)
    more = {
        "draft": draft,
        "o": made,
        "cautions": offer_content.cautions(worked),
        "figures": draft_form.FIGURES,
        "rows": draft_form.FREE_ROWS,
        "margins": _margins(worked, draft) if made and signing.may("offer.send") else {},
        "sent": [(x, offers.link(conn(), x.id), offers.events(conn(), x.id)) for x in sent],
        "open": _open(f, draft, worked) if made else [],
        "way": request.args.get("way", ""),
    }
    claimed = chosen is not None and chosen.fitted.fitting.claims
    stages = {"chosen": chosen, "claims": claimed, "stages": STAGE_WORDS, "refused": refused or {}}
    return show("offer/page.html", f, **stages, **more), code


def _margins(worked: list[Worked], draft: Draft) -> dict[str, int | None]:
    """What stays with the shop, where buying prices are known."""
    shop = data.shop()
    terms = draft.terms(shop)
    return {w.letter: sums(offer_content.lines(w, draft, shop), terms).margin for w in worked}


def _open(f: Frame, draft: Draft, worked: list[Worked]) -> list[str]:
    """What keeps it from being sent."""
    out = [f"Setup {w.letter} cannot be offered for this boat." for w in worked if w.blocked]
    if not f.e.customer:
        out.append("The customer has no name yet: it stands on the Boat station.")
    unread = [k for k, _, _ in offer_content.cautions(worked) if k not in draft.acknowledged]
    if unread:
        out.append(f"{display.counted(len(unread), 'caution')} to be ticked first.")
    return out


@bp.get("/offer")
def page(enquiry_id: int) -> Any:
    """The draft and what was sent; a blocked setup is shown with its reason."""
    return _page(enquiry_id)


@bp.post("/offer")
def save(enquiry_id: int) -> Any:
    """Keep the draft."""
    f = frame(enquiry_id, "offer")
    before, _ = _draft(f)
    letters = [p.letter for p in f.pinned]
    draft, refused = draft_form.read(
        request.form, letters, before, data.shop(), offer_content.DIGITS
    )
    with transaction(conn()) as c:
        draft.acknowledged = offers.draft(c, enquiry_id).get("acknowledged", {})
        offers.keep_draft(c, enquiry_id, asdict(draft))
    if refused:
        return _page(enquiry_id, refused, 422)
    flash("The draft is saved.")
    return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)


@bp.post("/offer/acknowledge")
def acknowledge(enquiry_id: int) -> Any:
    """Tick the cautions that were read, under one's own name."""
    draft, worked = _draft(frame(enquiry_id, "offer"))
    known = {key for key, _, _ in offer_content.cautions(worked)}
    ticked = known & set(request.form.getlist("caution"))
    with transaction(conn()) as c:
        before = {**asdict(draft), **offers.draft(c, enquiry_id)}
        done = {k: v for k, v in before["acknowledged"].items() if k in known}
        mine = {key: {"who": who(), "at": now()} for key in ticked - set(done)}
        offers.keep_draft(c, enquiry_id, {**before, "acknowledged": {**done, **mine}})
    return redirect(url_for("offer.page", enquiry_id=enquiry_id) + "#send", 303)


@bp.post("/offer/send")
def send(enquiry_id: int) -> Any:
    """Send it, where nothing stands against it."""
    f, u, shop = frame(enquiry_id, "offer"), display.current(), data.shop()
    draft, worked = _draft(f)
    against = _open(f, draft, worked) if worked else ["No setup is chosen yet."]
    if against:
        return _page(enquiry_id, {"send": " ".join(against)}, 422)
    made = offer_content.content(f.e, worked, draft, shop, u, date.today(), whole=True)
    inner = {"margins": _margins(worked, draft), "note": f.e.note}
    to = f.e.enquiry.mail if request.form.get("mail") else ""
    job = sending.Sending(enquiry_id, made, inner, now(), who(), to, form_id("after"), _way)
    try:
        sent = sending.send(conn(), job)
    except JolvekError as error:
        return _page(enquiry_id, {"send": str(error)}, 422)
    signing.told("offer sent", sent.number)
    _post()
    flash(f"Offer {sent.number} is sent{f' to {to}' if to else ''}.")
    return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)


def _way(token: str) -> str:
    return url_for("customer.page", token=token, _external=True)


def _post() -> None:
    sending.hand_on(conn(), FolderPost(data.settings().data_dir / "outbox"), now())


def _sent(enquiry_id: int, offer_id: int) -> offers.Sent:
    found = offers.get(conn(), offer_id)
    if found is None or found.enquiry_id != enquiry_id:
        abort(404)
    return found


@bp.post("/offer/link")
def link(enquiry_id: int) -> Any:
    """A new link for the customer, or shut the one there is."""
    sent, shut = _sent(enquiry_id, form_id("offer")), request.form.get("shut")
    with transaction(conn()) as c:
        offers.revoke(c, sent.id)
        token = "" if shut else offers.make_link(c, sent.id, f"{sent.valid_to}T23:59:59")
    signing.told("link shut" if shut else "link made", sent.number)
    flash(
        "The customer’s link is shut."
        if shut
        else f"The customer’s link, shown only now: {_way(token)}"
    )
    return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)


@bp.post("/offer/seen")
def seen(enquiry_id: int) -> Any:
    """What the customer did was read."""
    stored_or_404(enquiry_id)
    offers.seen(conn(), enquiry_id, who())
    return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)


@bp.get("/offer/<int:offer_id>.<form>")
def copy(enquiry_id: int, offer_id: int, form: str) -> Any:
    """What was sent, as PDF, jolvek-offer, or its lines as CSV and spreadsheet."""
    sent = _sent(enquiry_id, offer_id)
    if form == "pdf":
        head = {"Content-Disposition": f'inline; filename="offer-{sent.id}.pdf"'}
        return Response(offers.pdf(conn(), sent.id), mimetype="application/pdf", headers=head)
    told = offers.content(conn(), sent.id)
    if form == "json":
        return told
    rows = [("setup", "line", "quantity", "unit", "each", "discount %", "tax %", "amount")]
    for x in told["alternatives"]:
        for y in x["lines"]:
            keys = ("text", "quantity", "unit", "each", "discount", "tax", "amount")
            rows.append((x["letter"], *(str(y[k]) for k in keys)))
    return table_file(rows, f"offer-{sent.id}", form)


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
