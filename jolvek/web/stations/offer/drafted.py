"""The draft of an offer with its setups, what it would look like to its customer, and whether all
of that is in the customer's language.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from datetime import date
from typing import Any

from flask import Blueprint, Response, redirect, render_template, url_for
from markupsafe import Markup

from jolvek.core.base.messages import msg
from jolvek.store import offers
from jolvek.web import data
from jolvek.web.kit import display, language, pages, pdf, photos
from jolvek.web.kit.language import listed, tr
from jolvek.web.kit.pages import READER
from jolvek.web.kit.worked import Worked, work_out
from jolvek.web.shared import Frame, conn, frame, spoken_to
from jolvek.web.stations.offer import content, sending
from jolvek.web.stations.offer import form as draft_form
from jolvek.web.stations.offer.customers_page import shown
from jolvek.web.stations.offer.form import Draft
from jolvek.web.stations.offer.lines import seen

bp = Blueprint("drafted", __name__, url_prefix="/enquiry/<int:enquiry_id>/offer")
pages.add(bp, {"as_page": READER, "as_paper": READER})


def drafted(f: Frame) -> tuple[Draft, list[Worked]]:
    """The draft with its setups; the chosen one where none was named."""
    draft = draft_form.draft_of(offers.draft(conn(), f.e.id), data.shop())
    known = {p.letter: p for p in f.pinned}
    letters = [x for x in draft.letters if x in known]
    letters = letters or [p.letter for p in f.pinned if p.chosen]
    draft.letters = letters
    return draft, [work_out(f.need, known[x]) for x in letters]


@dataclass(frozen=True)
class OwnWords:
    """The shop's own words in another language than the customer's: to be ticked as meant so."""

    key: str
    text: str


WORDS = {"opening": msg("opening"), "closing": msg("closing"), "terms": msg("terms")}


def own_words(spoken: str) -> OwnWords | None:
    """What of the shop's own words a customer of that language would read in another one."""
    ours, mine = data.shop(), display.language_of_shop()
    names = [tr(name) for key, name in WORDS.items() if getattr(ours, key)]
    if mine == spoken or not names:
        return None
    text = tr(
        "Your own texts are in %(language)s: %(names)s.",
        names=listed(names),
        language=language.LANGUAGES[mine],
    )
    return OwnWords(f"own words: {mine} for {spoken}", text)


@dataclass(frozen=True)
class Sheet:
    """The draft's paper as its customer will read it: its content, the page of it, and what of it
    has no words in their language and would stay English.
    """

    spoken: str
    content: dict[str, Any]
    html: Markup
    english: list[str]


def sheet(f: Frame, draft: Draft, worked: list[Worked], spoken: str, whole: bool = False) -> Sheet:
    """The paper of the draft; `whole` with what the customer's page turns about besides."""
    with language.speaking(spoken), language.watched() as english:
        made = _content(f, draft, worked, whole)
        page = render_template("stations/offer/_paper.html", o=made, seen=seen(made))
        if whole:
            shown(made)
    return Sheet(spoken, made, Markup(page), sorted(english))  # noqa: S704


def _content(f: Frame, draft: Draft, worked: list[Worked], whole: bool) -> dict[str, Any]:
    u = display.current()
    return content.content(f.e, worked, draft, data.shop(), u, date.today(), whole)


def _in_their_language(enquiry_id: int, show: Callable[[dict[str, Any]], Any]) -> Any:
    f = frame(enquiry_id, "offer")
    draft, worked = drafted(f)
    if not worked or any(w.blocked for w in worked):
        return redirect(url_for("offer.page", enquiry_id=enquiry_id), 303)
    with language.speaking(spoken_to(enquiry_id)):
        return show({**_content(f, draft, worked, True), "number": ""})


@bp.get("/page")
def as_page(enquiry_id: int) -> Any:
    """The customer's page of the draft, sent now; nothing of it can be answered."""
    return _in_their_language(enquiry_id, shown)


@bp.get("/draft.pdf")
def as_paper(enquiry_id: int) -> Any:
    """The paper of the draft, sent now."""
    logo = photos.as_data(data.settings().data_dir, data.shop().logo)

    def paper(told: dict[str, Any]) -> Response:
        body = pdf.write(sending.paper_page(told, logo=logo))
        return Response(body, mimetype="application/pdf")

    return _in_their_language(enquiry_id, paper)
