"""Who has a product, a batch or a serial number; recalls of them, and what was answered."""

from __future__ import annotations

from typing import Any

import segno
from flask import Blueprint, Response, abort, flash, redirect, render_template, request, url_for
from markupsafe import Markup

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.store import recalls
from jolvek.store import shelf as shelf_store
from jolvek.store.recalls import Asked, Holder, Recall
from jolvek.web import data
from jolvek.web.desk.care import letters as care_letters
from jolvek.web.kit import language, pages, pdf
from jolvek.web.kit.accounts import links, signing
from jolvek.web.kit.display import counted
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR
from jolvek.web.mailing import post_of
from jolvek.web.saving import by, now
from jolvek.web.shared import conn, form_id, show, spoken_to, table_file

bp = Blueprint("recalls", __name__, url_prefix="/care/recalls")
pages.add(
    bp,
    {
        "page": ADVISOR,
        "holders": ADVISOR,
        "begin": ADVISOR,
        "one": ADVISOR,
        "letters": ADVISOR,
        "answer": ADVISOR,
    },
)
SHOWN = 200


def _asked() -> tuple[Asked, str]:
    """What is asked, and why it is refused."""
    values = {
        k: request.values.get(k, "").strip()[:80] for k in ("product", "batch", "first", "last")
    }
    try:
        return Asked(**values), ""
    except JolvekError as error:
        return Asked(), str(error)


def _page(refused: str = "", code: int = 200) -> Any:
    asked, wrong = _asked()
    found = recalls.holders(conn(), asked)
    shelf = shelf_store.load(conn())
    more = {
        "asked": asked,
        "wrong": wrong,
        "found": found[:SHOWN],
        "count": len(found),
        "shown": SHOWN,
        "refused": refused,
        "typed": request.values,
        "recalls": recalls.recalls(conn()),
        "products": [x for kind in (shelf.motors, shelf.batteries, shelf.chargers) for x in kind],
    }
    return show("desk/care/recalls.html", **more), 422 if wrong else code


@bp.get("")
def page() -> Any:
    """Who has it, and the recalls so far."""
    return _page()


@bp.get("/holders.<form>")
def holders(form: str) -> Response:
    """Who has it, as a table."""
    head = ("boat", "customer", "telephone", "mail", "piece", "number", "batch")
    keys = ("title", "customer", "phone", "mail", "what", "number", "batch")
    found = recalls.holders(conn(), _asked()[0])
    rows = [head, *(tuple(getattr(h, k) for k in keys) for h in found)]
    return table_file(rows, "holders", form)


@bp.post("")
def begin() -> Any:
    """Write to all who have it: one letter a piece, mailed where there is an address."""
    asked, wrong = _asked()
    found = recalls.holders(conn(), asked)
    if wrong or not found:
        return _page(wrong or tr("Nobody has it: nothing is written."), 422)
    form = request.form
    try:
        title, words = form.get("title", "").strip(), form.get("words", "").strip()

        def write(letter: int, h: Holder) -> bytes:
            return care_letters.recall_mail(conn(), data.shop(), title, words, h, _way(letter))

        number, count, mails = shop.letters.recall(conn(), by(), title, words, asked, write)
    except JolvekError as error:
        return _page(str(error), 422)
    shop.letters.hand_on(conn(), post_of(data.settings()), now())
    signing.record_activity("recall", title)
    rest = count - mails
    flash(
        tr("%(text)s, %(mails)s mailed", text=counted(count, "letter"), mails=mails)
        + (tr("; print %(rest)s.", rest=rest) if rest else ".")
    )
    return redirect(url_for("recalls.one", number=number), 303)


def _way(letter: int) -> str:
    return care_letters.recall_way(links.token("recall", letter))


def _way_and_code(letter: int) -> tuple[str, Markup]:
    way = _way(letter)
    return way, Markup(segno.make(way).svg_inline(scale=2, border=1))


def _recall(number: int) -> Recall:
    found = next((r for r in recalls.recalls(conn()) if r.id == number), None)
    if found is None:
        abort(404)
    return found


@bp.get("/<int:number>")
def one(number: int) -> Any:
    """One recall: its letters, who has not answered first."""
    rows = [(x, care_letters.holder_of(conn(), x)) for x in recalls.letters(conn(), number)]
    return show("desk/care/recall.html", r=_recall(number), letters=rows, answers=recalls.ANSWERS)


@bp.get("/<int:number>/letters.<form>")
def letters(number: int, form: str) -> Response:
    """The letters to print (those without an answer), or the answers as a table."""
    r, found = _recall(number), recalls.letters(conn(), number)
    if form != "pdf":
        head = ("piece", "number", "mailed to", "answer", "on", "by")
        keys = ("piece", "number", "mailed", "answer_told", "answered_at", "answered_by")
        rows = [head, *(tuple(getattr(x, k) for k in keys) for x in found)]
        return table_file(rows, f"recall-{number}", form)
    open_ones = [x for x in found if not x.answer]
    texts = [(x, care_letters.holder_of(conn(), x), *_way_and_code(x.id)) for x in open_ones]
    if not texts:
        abort(404, tr("All have answered: there is nothing to print."))

    def speak(enquiry_id: int) -> str:
        return language.choose(spoken_to(enquiry_id))

    body = pdf.write(render_template("desk/care/letters.html", r=r, letters=texts, speak=speak))
    return Response(body, mimetype="application/pdf")


@bp.post("/<int:number>/answer")
def answer(number: int) -> Any:
    """An answer that came by telephone or letter."""
    _recall(number)
    try:
        what = request.form.get("answer", "").strip()
        shop.letters.answer_recall(conn(), by(), form_id("letter"), what)
    except JolvekError as error:
        flash(tr("Not kept: %(error)s", error=error))
    return redirect(url_for("recalls.one", number=number), 303)
