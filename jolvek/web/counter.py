"""Counter: quick start first, open enquiries beside it, and opening an enquiry from a file."""

from __future__ import annotations

from dataclasses import replace
from datetime import UTC, datetime
from typing import Any

from flask import Blueprint, redirect, render_template, request, url_for

from jolvek.core.errors import JolvekError, ValueRefused
from jolvek.core.hull import Load
from jolvek.core.mounting import Site, default_places
from jolvek.core.need import Day, Need
from jolvek.core.ranking import ranked
from jolvek.core.sizing import size, typical_hull
from jolvek.formats import enquiry_file
from jolvek.store import enquiries
from jolvek.store.db import transaction
from jolvek.web import conn, is_fragment, workings
from jolvek.web.forms import QuickForm, refuse_at_field

bp = Blueprint("counter", __name__)


def now() -> str:
    """The time as kept."""
    return datetime.now(UTC).isoformat(timespec="milliseconds")


def _need(form: QuickForm) -> tuple[Need, list[Any]]:
    hull, assumed = typical_hull(form.family.data, form.length.data)
    return Need(hull, Load(int(form.people.data)), Site(default_places(hull.family)),
                day=Day(speed_m_s=form.speed.data, distance_m=form.distance.data)), assumed


def _answer(form: QuickForm) -> dict[str, Any]:
    """What the quick start answers; the form carries the refusal where there is one."""
    try:
        need, assumed = _need(form)
    except ValueRefused as error:
        refuse_at_field(form, error)
        return {}
    match = workings.matched(need, workings.shelf_of(conn()))
    doing = bool(match.field.does_day.any())
    return {"sizing": size(need), "need": need, "assumed": assumed,
            "pick": workings.row(match, ranked(match, 1)[0]) if doing else None, "setups": int(match.field.does_day.sum())}


def _page(form: QuickForm, code: int = 200, **more: Any) -> tuple[str, int]:
    answer = _answer(form) if not form.errors else {}
    if form.errors:
        code = 422
    template = "counter/_answer.html" if is_fragment() else "counter/page.html"
    return render_template(template, form=form, lines=enquiries.listed(conn()), **answer, **more), code


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
