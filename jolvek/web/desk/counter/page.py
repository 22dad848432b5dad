"""Counter: quick start first, open enquiries beside it, and opening an enquiry from a file."""

from __future__ import annotations

from dataclasses import replace
from datetime import date
from typing import Any

from flask import Blueprint, flash, redirect, render_template, request, session, url_for
from werkzeug.datastructures import MultiDict

from jolvek import shop
from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.enquiry.need import Need
from jolvek.formats import enquiry_file
from jolvek.store import finding
from jolvek.store.shelf import KINDS
from jolvek.web import data, errors, shared
from jolvek.web.desk.counter.form import QuickForm, kept_entries, usual_entries
from jolvek.web.kit import display, matches, pages
from jolvek.web.kit.fields.reading import refuse_at_field
from jolvek.web.kit.language import tr
from jolvek.web.kit.matches import shelf_of
from jolvek.web.kit.pages import ADVISOR, READER
from jolvek.web.kit.quick import from_catalogue, open_enquiries, quick_answer, quick_need
from jolvek.web.saving import by
from jolvek.web.shared import conn, is_fragment, show, stored_or_404

bp = Blueprint("counter", __name__)
pages.add(
    bp,
    {
        "page": READER,
        "catalogue": READER,
        "find": READER,
        "archive": ADVISOR,
        "copy": ADVISOR,
        "keep": ADVISOR,
        "open_file": ADVISOR,
    },
)
MOST_PRODUCTS, LONGEST_TITLE = 30, 190


def _need(form: QuickForm) -> Need | None:
    """The need of the quick start; None where an entry is refused, which its field then says."""
    if form.errors:
        return None
    try:
        usual = data.shop().first_day(date.today())
        day = replace(usual, speed_m_s=form.speed.si, distance_m=form.distance.si)
        people = int(form.people.si)
        return quick_need(form.family.data, form.length.si, people, day)
    except ValueRefused as error:
        refuse_at_field(form, error)
        return None


def _page(form: QuickForm, code: int = 200, **more: Any) -> tuple[str, int]:
    need = _need(form)
    answer = quick_answer(need, display.current()) if need else None
    code = code if need else 422
    if is_fragment():  # what the catalogue has is asked for once no more is typed
        return show("desk/counter/_answer.html", answer, form=form, alone=True, **more), code
    lines = open_enquiries(conn(), shared.skipped())
    shelf = shelf_of(conn())
    quick = need is not None and matches.is_ready(need, shelf)  # else it follows by itself
    has = from_catalogue(need, shelf, display.current()) if need and quick else ""
    return show(
        "desk/counter/page.html", answer, lines, form=form, from_catalogue=has, **more
    ), code


@bp.get("/")
def page() -> Any:
    """The counter; quick start entries may come in the address, so that an answer can be shared,
    and are found again when one comes back. Another kind of boat brings its usual figures.
    """
    typed = {k: v for k, v in request.args.items() if k != "skip"}
    asked = typed or kept_entries(session.get("quick"))
    other = asked.get("was", "") not in ("", asked.get("family", ""))
    asked = usual_entries(asked) if other else asked
    form = QuickForm(MultiDict(asked) if asked else None, meta={"csrf": False})
    if asked and form.validate():
        session["quick"] = form.si
    elif not typed:
        form = QuickForm(None, meta={"csrf": False})
    return _page(form, filled=other)


@bp.get("/from-catalogue")
def catalogue() -> Any:
    """What the catalogue has for the quick start's entries, which stand in the address."""
    form = QuickForm(request.args, meta={"csrf": False})
    need = _need(form) if form.validate() else None
    if need is None:
        return _page(form)
    shelf, has = shelf_of(conn()), ""
    if matches.is_ready(need, shelf):
        has = from_catalogue(need, shelf, display.current())
    else:
        matches.begin(need, shelf)  # the line asks again by itself
    return render_template("desk/counter/_from_catalogue.html", from_catalogue=has, form=form)


@bp.post("/keep")
def keep() -> Any:
    """Keep the quick start as an enquiry and go straight on to what does the job."""
    form = QuickForm()
    need = _need(form) if form.validate() else None
    if need is None:
        return _page(form, 422)
    number = shop.enquiries.begin(conn(), by(), Enquiry(need, title=need.hull.fam.name))
    return redirect(url_for("shortlist.page", enquiry_id=number), 303)


@bp.get("/find")
def find() -> Any:
    """Enquiries and products in which every typed word begins a word."""
    text = request.args.get("q", "")
    words = text.lower().split()
    shelf = shelf_of(conn())
    products = [
        (kind, item)
        for kind in KINDS
        for item in getattr(shelf, kind)
        if words and all(word in f"{item.title} {item.id}".lower() for word in words)
    ]
    lines = finding.found(conn(), text)
    return render_template(
        "desk/counter/find.html", q=text, lines=lines, products=products[:MOST_PRODUCTS]
    )


@bp.post("/enquiry/<int:enquiry_id>/copy")
def copy(enquiry_id: int) -> Any:
    """A copy of an enquiry with its boat and day, without customer and setups."""
    stored = stored_or_404(enquiry_id)
    title = tr("%(title)s (copy)", title=stored.title[:LONGEST_TITLE])
    number = shop.enquiries.copy(conn(), by(), stored, title)
    flash(tr("Copied: boat and day are taken over, customer and setups are not."))
    return redirect(url_for("boat.page", enquiry_id=number), 303)


@bp.post("/enquiry/<int:enquiry_id>/archive")
def archive(enquiry_id: int) -> Any:
    """Put an enquiry away, or take it out again."""
    stored = stored_or_404(enquiry_id)
    put_away = request.form.get("undo") != "1"
    shop.enquiries.archive(conn(), enquiry_id, put_away)
    session["undo_archive"] = enquiry_id if put_away else None
    flash(
        tr("“%(title)s” is in the archive.", title=stored.title)
        if put_away
        else tr("“%(title)s” is on the counter again.", title=stored.title)
    )
    return redirect(url_for("counter.page"), 303)


@bp.post("/open")
def open_file() -> Any:
    """Open a jolvek-enquiry file."""
    upload = request.files.get("file")
    if upload is None or not upload.filename:
        return _refuse_file(tr("choose a file first: an enquiry in the format jolvek-enquiry"))
    try:
        e, rest = enquiry_file.read_whole(upload.read())
        number = shop.enquiries.open_file(conn(), by(), e, rest)
    except JolvekError as error:
        return _refuse_file(f"{upload.filename}: {error}")
    return redirect(url_for("boat.page", enquiry_id=number), 303)


def _refuse_file(text: str) -> Any:
    """The counter with the refusal at the file field."""
    return _page(QuickForm(formdata=None), 422, file_error=text)


errors.refuses_large("counter.open_file", _refuse_file)
