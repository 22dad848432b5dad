"""Several boats in one job: added as copies, compared, and one setup tried on each."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from flask import Blueprint, abort, flash, redirect, request, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.enquiry.modelled import as_model
from jolvek.core.fit.as_set import AsSet
from jolvek.core.products.boat_model import of_year
from jolvek.store import setups, undo
from jolvek.web import saving
from jolvek.web.kit import display, matches, pages
from jolvek.web.kit.language import capital, tr
from jolvek.web.kit.pages import ADVISOR, READER
from jolvek.web.shared import conn, form_id, frame, own_address, show, stored_or_404
from jolvek.web.stations.boat.job_view import JobPage, job_boat

bp = Blueprint("job", __name__, url_prefix="/enquiry/<int:enquiry_id>")
pages.add(
    bp,
    {
        "page": READER,
        "add": ADVISOR,
        "model": ADVISOR,
        "part": ADVISOR,
        "take": ADVISOR,
        "undo_last": ADVISOR,
    },
    changes_job=True,
)


@bp.get("/boats")
def page(enquiry_id: int) -> Any:
    """All boats of the job beside each other."""
    f, u = frame(enquiry_id, "boat"), display.current()
    numbers = [b.id for b in f.boats] or [enquiry_id]
    frames = [f if n == enquiry_id else frame(n, "boat") for n in numbers]
    cells = [job_boat(x.e.id, x.e.title, x.e.id == enquiry_id, x.card.in_hand, u) for x in frames]
    return show("stations/boat/job.html", f, job=JobPage(tuple(cells)))


@bp.post("/boats/add")
def add(enquiry_id: int) -> Any:
    """One more boat like this one in the same job."""
    stored_or_404(enquiry_id)
    try:
        number = shop.boats.add_boat(conn(), saving.by(), enquiry_id)
    except JolvekError as error:
        abort(422, str(error))
    flash(tr("One more boat in this job, a copy to be changed."))
    return redirect(url_for("boat.page", enquiry_id=number), 303)


@bp.post("/boats/take")
def take(enquiry_id: int) -> Any:
    """Pin the setup in hand of another boat of the job on this one: an adjustable motor is set for
    her, a shaft stays as it was bought.
    """
    stored_or_404(enquiry_id)
    other = form_id("other")
    f = frame(enquiry_id, "boat")
    if other not in {b.id for b in f.boats}:
        abort(404)
    hand = frame(other, "boat").card.in_hand
    if hand is None:
        abort(422, tr("That boat has no current setup."))
    p = hand.pinned
    parts = {x.kind: x.item for x in p.parts}
    try:
        layout = (p.series, p.parallel, p.shaft_m)
        letter = shop.setups.pin(conn(), saving.by(), enquiry_id, parts, layout, AsSet())
        flash(tr("Pinned here as %(letter)s.", letter=letter))
    except setups.TooManyPinned as error:
        flash(f"{capital(str(error))}.")
    return redirect(url_for("job.page", enquiry_id=enquiry_id), 303)


@bp.post("/boats/part")
def part(enquiry_id: int) -> Any:
    """Take this boat out of the job; her enquiry stays."""
    stored_or_404(enquiry_id)
    shop.boats.part(conn(), enquiry_id)
    flash(tr("This boat is an enquiry of its own now."))
    return redirect(url_for("boat.page", enquiry_id=enquiry_id), 303)


@bp.post("/undo")
def undo_last(enquiry_id: int) -> Any:
    """The job as it was before its last change."""
    stored_or_404(enquiry_id)
    try:
        shop.boats.undo_last(conn(), saving.by(), enquiry_id)
        flash(tr("Undone."))
    except undo.NotAsItWas:
        flash(tr("Nothing was undone: the job has been changed since."))
    return redirect(own_address(request.form.get("back", "")), 303)


@bp.post("/boat/model")
def model(enquiry_id: int) -> Any:
    """Take sizes, plate and approval from the boat's model in the catalogue."""
    stored = stored_or_404(enquiry_id)
    title = request.form.get("model", "")
    models = [x.spec for x in matches.whole_shelf(conn()).boats if x.title == title]
    found = of_year(models, stored.need.site.model_year)
    if found is None:
        abort(422, tr("Read “%(title)s”; there is no such boat in the catalogue.", title=title))
    try:
        saving.change(enquiry_id, lambda e: replace(e, need=as_model(e.need, found), model=title))
    except JolvekError as error:
        abort(422, str(error))
    flash(tr("Sizes, plate and approval as the catalogue says of %(title)s.", title=title))
    return redirect(url_for("boat.page", enquiry_id=enquiry_id), 303)
