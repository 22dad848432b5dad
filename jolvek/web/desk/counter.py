"""Counter: quick start first, open enquiries beside it, and opening an enquiry from a file."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from flask import Blueprint, abort, flash, redirect, render_template, request, session, url_for

from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.enquiry.site import Site, default_places
from jolvek.core.enquiry.sizing import size, typical_hull
from jolvek.core.hydro.hull import Load
from jolvek.core.match.ranking import ranked
from jolvek.formats import enquiry_file
from jolvek.store import enquiries
from jolvek.store.db import transaction
from jolvek.store.shelf import KINDS
from jolvek.web import conn, is_fragment
from jolvek.web.forms.fields import QuickForm, refuse_at_field
from jolvek.web.saving import now
from jolvek.web.view.worked import matched, row, shelf_of

bp = Blueprint("counter", __name__)


def _need(form: QuickForm) -> tuple[Need, list[Any]]:
    hull, assumed = typical_hull(form.family.data, form.length.data)
    return (
        Need(
            hull,
            Load(int(form.people.data)),
            Site(default_places(hull.family)),
            day=Day(speed_m_s=form.speed.data, distance_m=form.distance.data),
        ),
        assumed,
    )


def _answer(form: QuickForm) -> dict[str, Any]:
    """What the quick start answers; the form carries the refusal where there is one."""
    try:
        need, assumed = _need(form)
    except ValueRefused as error:
        refuse_at_field(form, error)
        return {}
    match = matched(need, shelf_of(conn()))
    doing = bool(match.field.does_day.any())
    return {
        "sizing": size(need),
        "need": need,
        "assumed": assumed,
        "pick": row(match, ranked(match, 1)[0]) if doing else None,
        "setups": int(match.field.does_day.sum()),
    }


def _page(form: QuickForm, code: int = 200, **more: Any) -> tuple[str, int]:
    answer = _answer(form) if not form.errors else {}
    if form.errors:
        code = 422
    template = "counter/_answer.html" if is_fragment() else "counter/page.html"
    groups = {key: (title, []) for key, title in enquiries.WAITS.items()}
    for line in enquiries.listed(conn()):
        groups[line.waits][1].append(line)
    return (
        render_template(
            template,
            form=form,
            groups=[g for g in groups.values() if g[1]],
            archived=enquiries.listed(conn(), archived=True),
            **answer,
            **more,
        ),
        code,
    )


@bp.get("/")
def page() -> Any:
    """The counter; quick start entries may come in the address, so that an answer can be shared."""
    form = QuickForm(request.args if request.args else None, meta={"csrf": False})
    if request.args:
        form.validate()
    return _page(form)


@bp.post("/keep")
def keep() -> Any:
    """Keep the quick start as an enquiry and go to its boat."""
    form = QuickForm()
    if not form.validate():
        return _page(form, 422)
    try:
        need, _ = _need(form)
    except ValueRefused as error:
        refuse_at_field(form, error)
        return _page(form, 422)
    with transaction(conn()) as c:
        number = enquiries.add(c, enquiry_file.Enquiry(need, title=need.hull.fam.name), now())
    return redirect(url_for("boat.page", enquiry_id=number), 303)


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
    ][:30]
    return render_template(
        "counter/find.html", q=text, lines=enquiries.found(conn(), text), products=products
    )


@bp.post("/enquiry/<int:enquiry_id>/copy")
def copy(enquiry_id: int) -> Any:
    """A copy of an enquiry with its boat and day, without customer and setups."""
    stored = enquiries.get(conn(), enquiry_id)
    if stored is None:
        abort(404)
    with transaction(conn()) as c:
        number = enquiries.add(
            c, replace(stored.enquiry, customer="", title=f"{stored.title} (copy)"), now()
        )
    flash("Copied: boat and day are taken over, customer and setups are not.")
    return redirect(url_for("boat.page", enquiry_id=number), 303)


@bp.post("/enquiry/<int:enquiry_id>/archive")
def archive(enquiry_id: int) -> Any:
    """Put an enquiry away, or take it out again."""
    stored = enquiries.get(conn(), enquiry_id)
    if stored is None:
        abort(404)
    put_away = request.form.get("undo") != "1"
    with transaction(conn()) as c:
        enquiries.archive(c, enquiry_id, put_away)
    session["undo_archive"] = enquiry_id if put_away else None
    flash(f"“{stored.title}” is {'put away' if put_away else 'on the counter again'}.")
    return redirect(url_for("counter.page"), 303)


@bp.post("/open")
def open_file() -> Any:
    """Open a jolvek-enquiry file."""
    upload = request.files.get("file")
    if upload is None or not upload.filename:
        return refuse_file("choose a file first: an enquiry in the format jolvek-enquiry")
    try:
        e = enquiry_file.read(upload.read())
    except JolvekError as error:
        return refuse_file(f"{upload.filename}: {error}")
    with transaction(conn()) as c:
        number = enquiries.add(c, replace(e, title=e.title or e.need.hull.fam.name), now())
    return redirect(url_for("boat.page", enquiry_id=number), 303)


def refuse_file(text: str) -> Any:
    """The counter with the refusal at the file field."""
    body, _ = _page(QuickForm(formdata=None), file_error=text)
    return body, 422
