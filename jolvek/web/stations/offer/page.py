"""Station 7, Offer: the draft of up to three setups, sending it, and what was sent."""

from __future__ import annotations

from dataclasses import asdict, replace
from typing import Any

from flask import Blueprint, abort, flash, redirect, request, session, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.fit.as_set import AsSet
from jolvek.shop.offers import Written
from jolvek.store import enquiries, offers, outbox
from jolvek.store.offers import Sent
from jolvek.store.setups import Pinned
from jolvek.web import data
from jolvek.web.kit import display, language, pages, photos, stations
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.fields.chosen import chosen
from jolvek.web.kit.fields.merged import merged
from jolvek.web.kit.language import tr
from jolvek.web.kit.moved import Moved
from jolvek.web.kit.pages import ADVISOR, READER
from jolvek.web.kit.rates import digits_of
from jolvek.web.kit.worked import Worked
from jolvek.web.mailing import post_of
from jolvek.web.saving import by, now
from jolvek.web.shared import Frame, conn, form_id, frame, show, spoken_to, stored_or_404, who
from jolvek.web.stations.offer import content as offer_content
from jolvek.web.stations.offer import form as draft_form
from jolvek.web.stations.offer import sending
from jolvek.web.stations.offer import years as offer_years
from jolvek.web.stations.offer.drafted import Sheet, drafted, own_words, sheet
from jolvek.web.stations.offer.form import LINE, Draft
from jolvek.web.stations.offer.lines import SERVICES, lines, priced_services, totals
from jolvek.web.stations.offer.revision import changed
from jolvek.web.stations.offer.sending import customer_way
from jolvek.web.stations.offer.shop_data import margins, shop_data

bp = Blueprint("offer", __name__, url_prefix="/enquiry/<int:enquiry_id>")
pages.add(
    bp,
    {
        "page": READER,
        "acknowledge": ADVISOR,
        "claims": ADVISOR,
        "save": ADVISOR,
        "send": ADVISOR,
        "stage": ADVISOR,
    },
)
STAGE_WORDS = {
    "open": msg("not sent"),
    "offered": msg("sent"),
    "ordered": msg("ordered"),
    "delivered": msg("handed over"),
}


def _state(s: stations.Standing) -> tuple[str, str]:
    if not s.chosen:
        return "empty", tr("choose a setup first")
    if s.level == "block":
        return "blocked", tr("cannot be offered")
    return ("look", tr("read the cautions")) if s.level == "caution" else ("done", tr("ready"))


STATION = stations.add(7, "offer", msg("Offer"), _state)


def _sent_context(x: offers.Sent) -> dict[str, Any]:
    events = offers.events(conn(), x.id)
    return {
        "s": x,
        "link": offers.link(conn(), x.id),
        "events": events,
        "totals": totals(offers.content(conn(), x.id), events),
        "waits": outbox.waiting(conn(), x.id),
        "follow_up": ""
        if offers.answered(conn(), x.id)
        else offers.shop_data(conn(), x.id).get("follow_up", ""),
    }


def _form_context(worked: list[Worked], draft: Draft, spoken: str) -> dict[str, Any]:
    """What the draft's form may change: services, lines that may be discounted, assumptions."""
    shop = data.shop()
    plain = replace(draft, free=[])
    texts = [x.text for w in worked for x in lines(w, plain, shop) if x.price_minor]
    first = offer_years.assumed_of(worked[0], shop, {})
    line_texts = list(dict.fromkeys(texts))
    return {
        "services": [(k, SERVICES[k]) for k in priced_services(shop)],
        "line_texts": line_texts,
        "values": draft_form.values(draft, line_texts, spoken),
        "years_labels": offer_years.LABELS,
        "usual": {k: f"{getattr(first, k):g}" for k in offer_years.LABELS},
    }


def _page(enquiry_id: int, refused: dict[str, str] | None = None, code: int = 200) -> Any:
    f = frame(enquiry_id, "offer")
    chosen = f.card.in_hand if any(p.chosen for p in f.pinned) else None
    draft, worked = drafted(f)
    spoken = spoken_to(enquiry_id)
    paper = sheet(f, draft, worked, spoken) if chosen is not None and not chosen.blocked else None
    made = paper.content if paper else None
    sent = offers.of_enquiry(conn(), enquiry_id)
    more = {
        "draft": draft,
        "o": made,
        "sheet": paper,
        "cautions": offer_content.cautions(worked),
        "figures": draft_form.FIGURES,
        "off_refused": any(k.startswith(draft_form.LINE) for k in refused or {}),
        "years_refused": any(k.startswith(draft_form.YEARS) for k in refused or {}),
        "rows": draft_form.FREE_ROWS,
        "margins": margins(worked, draft) if made and signing.may("offer.send") else [],
        "sent": [_sent_context(x) for x in sent],
        "since_sent": changed(offers.content(conn(), sent[0].id), made) if sent and made else [],
        **(_form_context(worked, draft, spoken) if made else {}),
        "open": _open(f, draft, worked, paper) if paper else [],
        "repriced": any(x.now for x in _moved(f, worked)),
        "spoken": spoken,
        "own_words": own_words(spoken),
        "customer_link": _new_link(enquiry_id),
    }
    claimed = chosen is not None and chosen.fitted.fitting.claims
    stages = {"chosen": chosen, "claims": claimed, "stages": STAGE_WORDS, "refused": refused or {}}
    return show("stations/offer/page.html", f, **stages, **more), code


def _moved(f: Frame, worked: list[Worked]) -> list[Moved]:
    """The parts of the draft's setups that today's catalogue has otherwise, or no more."""
    return [x for x in f.moves if x.letter in {w.letter for w in worked}]


def _new_link(enquiry_id: int) -> str:
    """The link that was made just now: its token is not kept, so it is shown once."""
    made = session.get("customer_link") or {}
    if made.get("enquiry") != enquiry_id:
        return ""
    session.pop("customer_link")
    return str(made["way"])


def _open(f: Frame, draft: Draft, worked: list[Worked], paper: Sheet) -> list[str]:
    """What keeps it from being sent."""
    out = [
        tr("Setup %(letter)s cannot be offered for this boat.", letter=w.letter)
        for w in worked
        if w.blocked
    ]
    out += [x.text for x in _moved(f, worked)]
    if not f.e.customer:
        out.append(tr("The customer has no name yet: it stands on the Boat station."))
    unread = [k for k, _, _ in offer_content.cautions(worked) if k not in draft.acknowledged]
    if unread:
        out.append(
            tr("%(unread)s to be confirmed first.", unread=display.counted(len(unread), "caution"))
        )
    if (own := own_words(paper.spoken)) and own.key not in draft.acknowledged:
        out.append(own.text)
    if paper.english:
        out.append(
            tr(
                "The offer in %(language)s is incomplete: “%(first)s” has no translation. Choose"
                " another language.",
                language=language.LANGUAGES[paper.spoken],
                first=paper.english[0],
            )
        )
    return out


@bp.get("/offer")
def page(enquiry_id: int) -> Any:
    """The draft and what was sent; a blocked setup is shown with its reason."""
    return _page(enquiry_id)


@bp.post("/offer")
def save(enquiry_id: int) -> Any:
    """Keep the draft."""
    f = frame(enquiry_id, "offer")
    letters, digits = [p.letter for p in f.pinned], digits_of(data.shop().currency)
    refused: dict[str, str] = {}

    def edited(kept: dict[str, Any]) -> tuple[dict[str, Any], str]:
        before, _ = drafted(f)
        lines_off = [
            *before.line_discounts,
            *(x.removeprefix(LINE) for x in request.form if x.startswith(LINE)),
        ]
        as_is = draft_form.values(before, lines_off, spoken_to(enquiry_id))
        form = merged(request.form, as_is, draft_form.LABELS)
        draft, wrong = draft_form.read(form, letters, before, data.shop(), digits)
        refused.update(wrong)
        draft.acknowledged = kept.get("acknowledged", {})
        speak = chosen("language", language.LANGUAGES, form) if "language" in form else ""
        return asdict(draft), speak

    shop.offers.keep_draft(conn(), enquiry_id, edited)
    if refused:
        return _page(enquiry_id, refused, 422)
    flash(tr("The draft is saved."))
    return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)


@bp.post("/offer/acknowledge")
def acknowledge(enquiry_id: int) -> Any:
    """Tick the cautions that were read, under one's own name."""
    draft, worked = drafted(frame(enquiry_id, "offer"))
    known = {key for key, _, _ in offer_content.cautions(worked)}
    known |= {own.key} if (own := own_words(spoken_to(enquiry_id))) else set()
    ticked = known & set(request.form.getlist("caution"))

    def edited(kept: dict[str, Any]) -> tuple[dict[str, Any], str]:
        before = {**asdict(draft), **kept}
        done = {k: v for k, v in before["acknowledged"].items() if k in known}
        mine = {key: {"who": who(), "at": now()} for key in ticked - set(done)}
        return {**before, "acknowledged": {**done, **mine}}, ""

    shop.offers.keep_draft(conn(), enquiry_id, edited)
    return redirect(url_for("offer.page", enquiry_id=enquiry_id) + "#send", 303)


@bp.post("/offer/send")
def send(enquiry_id: int) -> Any:
    """Send it, where nothing stands against it."""
    f, ours = frame(enquiry_id, "offer"), data.shop()
    draft, worked = drafted(f)
    if not worked:
        return _page(enquiry_id, {"send": tr("No setup is chosen yet.")}, 422)
    paper = sheet(f, draft, worked, spoken_to(enquiry_id), whole=True)
    if against := _open(f, draft, worked, paper):
        return _page(enquiry_id, {"send": " ".join(against)}, 422)
    made = paper.content
    to = f.e.enquiry.mail if request.form.get("mail") else ""
    logo = photos.as_data(data.settings().data_dir, ours.logo)
    job = sending.Sending(made, shop_data(f.e, worked, draft), to, ours.letter, logo)

    def write(sent: Sent, before: Sent | None, token: str) -> Written:
        return sending.written(conn(), job, sent, before, customer_way(token))

    try:
        valid_to, after = made["valid_to"], form_id("after")
        sent, token = shop.offers.send(conn(), by(), enquiry_id, after, valid_to, write)
    except JolvekError as error:
        return _page(enquiry_id, {"send": str(error)}, 422)
    signing.record_activity("offer sent", sent.number)
    _post()
    session["customer_link"] = {"enquiry": enquiry_id, "way": customer_way(token)}
    flash(_sent_how(sent.number, to))
    return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)


def _sent_how(number: str, to: str) -> str:
    if to:
        return tr("Offer %(sent)s is sent by mail to %(to)s.", sent=number, to=to)
    return tr(
        "Offer %(sent)s is sent, but nothing was mailed: give the customer the link below.",
        sent=number,
    )


def _post() -> None:
    shop.letters.hand_on(conn(), post_of(data.settings()), now())


@bp.post("/offer/claims")
def claims(enquiry_id: int) -> Any:
    """Put what the makers claim on the offer of the setup in hand, or leave it out again."""
    hand = frame(enquiry_id, "offer").card.in_hand
    if hand is None:
        abort(404)
    claims = not hand.fitted.fitting.claims

    def with_claims(p: Pinned) -> tuple[float | None, AsSet]:
        return p.shaft_m, replace(p.fitting, claims=claims)

    shop.setups.fit(conn(), by(), enquiry_id, hand.pinned.id, with_claims)
    return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)


@bp.post("/stage")
def stage(enquiry_id: int) -> Any:
    """How far the enquiry has come: sent, ordered, handed over."""
    stored_or_404(enquiry_id)
    wanted = chosen("stage", enquiries.STAGES)
    shop.offers.set_stage(conn(), by(), enquiry_id, wanted)
    flash(tr("Saved."))
    return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)
