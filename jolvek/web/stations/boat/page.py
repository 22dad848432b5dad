"""Station 1, Boat: hull, load, site and words, with the boat drawn as they are typed; earlier
boats; the photo.
"""

from __future__ import annotations

import secrets
from dataclasses import replace
from typing import Any

from flask import (
    Blueprint,
    Response,
    abort,
    flash,
    json,
    redirect,
    request,
    send_from_directory,
    url_for,
)

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.enquiry.modelled import differs
from jolvek.core.products.boat_model import of_year
from jolvek.formats import enquiry_file
from jolvek.store import enquiries, finding, intake, whole
from jolvek.web import errors, saving
from jolvek.web.kit import display, matches, pages, photos, stations
from jolvek.web.kit.fields.reading import read_form
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, PHOTO, READER, RIGGER
from jolvek.web.shared import conn, form_id, frame, is_fragment, settings, show, stored_or_404
from jolvek.web.stations.boat import bays as bay_rows
from jolvek.web.stations.boat.form import BoatForm, enquiry_from, values_of
from jolvek.web.stations.boat.view import boat_page, move_text, schools

bp = Blueprint("boat", __name__, url_prefix="/enquiry/<int:enquiry_id>")
pages.add(
    bp,
    {
        "page": READER,
        "show_photo": READER,
        "photo": RIGGER,
        "export": ADVISOR,
        "answer": ADVISOR,
        "save": ADVISOR,
        "start_from": ADVISOR,
    },
    limits={"photo": PHOTO},
    saves_itself="save",
    changes_job=True,
)


def _state(s: stations.Standing) -> tuple[str, str]:
    lacks = "transom" in s.need.site.places and s.need.hull.transom_height_m is None
    return (
        ("look", tr("transom height is estimated"))
        if lacks
        else ("done", tr("sizes and load are given"))
    )


STATION = stations.add(1, "boat", msg("Boat"), _state)


def _page(enquiry_id: int, form: BoatForm | None = None, code: int = 200, **more: Any) -> Any:
    f, u = frame(enquiry_id, "boat"), display.current()
    if form is None:
        form = BoatForm(formdata=None, data=_values(f.e))
    hand = f.card.in_hand
    earlier = finding.same_model(conn(), f.e.enquiry.model)
    return show(
        "stations/boat/page.html",
        f,
        boat_page(f.need, u),
        form=form,
        **_models(f.e.enquiry),
        bays=bay_rows.shown_rows(form),
        schools=schools(f.need, u),
        moves=move_text(hand.fitted, hand.letter, u) if hand else "",
        intake=intake.get(conn(), enquiry_id),
        earlier=[enquiries.get(conn(), n) for n in earlier if n != enquiry_id],
        **more,
    ), code


def _models(enquiry: Enquiry) -> dict[str, Any]:
    """The titles of the catalogue's boats, and the one that was typed where she is not yet so."""
    boats = matches.whole_shelf(conn()).boats
    mine = [x.spec for x in boats if x.title == enquiry.model]
    found = of_year(mine, enquiry.need.site.model_year)
    offered = found is not None and differs(enquiry.need, found)
    return {"models": sorted({x.title for x in boats}), "model_offered": offered}


def _values(e: enquiries.Stored) -> dict[str, Any]:
    page = secrets.token_hex(8)
    return {**values_of(e.enquiry), "changed": e.changed_at, "page": page}


@bp.get("/boat")
def page(enquiry_id: int) -> Any:
    """The form as kept."""
    return _page(enquiry_id)


@bp.post("/boat")
def save(enquiry_id: int) -> Any:
    """Keep what is valid of the form (a fragment for autosave), and say what is not."""
    stored_or_404(enquiry_id)
    kept, form = saving.keep_form(enquiry_id, _read)
    form.changed.data = kept.at
    if is_fragment():
        f = frame(enquiry_id, "boat")
        figures = boat_page(f.need, display.current())
        offer = _models(kept.enquiry)
        return show(
            "stations/boat/_figures.html", f, figures, form=form, kept=kept, **offer
        ), kept.code
    if kept.code != 200 or kept.unfinished:
        return _page(enquiry_id, form, 422, kept=kept)
    flash(tr("Saved."))
    return redirect(url_for("boat.page", enquiry_id=enquiry_id), 303)


@bp.post("/boat/answer")
def answer(enquiry_id: int) -> Any:
    """The answer to what stands in the form; nothing of it is kept."""
    figures = boat_page(saving.answer_to(enquiry_id, _read), display.current())
    return show("stations/boat/_answered.html", figures)


def _read(base: Enquiry) -> tuple[Enquiry, BoatForm]:
    form = BoatForm(data=values_of(base))
    return read_form(form, lambda: enquiry_from(form, base), base), form


@bp.get("/enquiry.json")
def export(enquiry_id: int) -> Response:
    """The enquiry as a jolvek-enquiry file."""
    stored = stored_or_404(enquiry_id)
    rest = {k: v for k, v in whole.rest_of(conn(), stored).items() if k != "photos"}
    data = enquiry_file.write(stored.enquiry, rest)
    name = f'attachment; filename="enquiry-{enquiry_id}.json"'
    return Response(
        json.dumps(data, indent=1, ensure_ascii=False),
        mimetype="application/json",
        headers={"Content-Disposition": name},
    )


@bp.post("/boat/from")
def start_from(enquiry_id: int) -> Any:
    """Take hull and site of an earlier boat of the same model; load, day and words stay."""
    stored_or_404(enquiry_id)
    other = stored_or_404(form_id("other"))

    def taken(e: Enquiry) -> Enquiry:
        need = replace(e.need, hull=other.need.hull, site=other.need.site)
        return replace(e, need=need, model=other.enquiry.model, storage=other.enquiry.storage)

    saving.change(enquiry_id, taken)
    flash(tr("Hull, transom and bays taken from “%(title)s”.", title=other.title))
    return redirect(url_for("boat.page", enquiry_id=enquiry_id), 303)


@bp.post("/boat/photo")
def photo(enquiry_id: int) -> Any:
    """Attach, replace or take off the boat's photo."""
    stored = stored_or_404(enquiry_id)
    folder = settings().data_dir / "photos"
    try:
        upload = request.files.get("photo")
        name = "" if request.form.get("remove") else photos.keep(upload, folder)
    except JolvekError as error:
        return _page(enquiry_id, code=422, photo_error=str(error))
    shop.enquiries.set_photo(conn(), enquiry_id, name)
    if stored.photo:
        (folder / stored.photo).unlink(missing_ok=True)
    flash(tr("Photo kept.") if name else tr("Photo taken off."))
    return redirect(url_for("boat.page", enquiry_id=enquiry_id), 303)


def _too_large(text: str) -> Any:
    return _page((request.view_args or {})["enquiry_id"], code=422, photo_error=text)


errors.refuses_large("boat.photo", _too_large)


@bp.get("/photo")
def show_photo(enquiry_id: int) -> Any:
    """The photo itself."""
    stored = stored_or_404(enquiry_id)
    if not stored.photo:
        abort(404)
    folder = settings().data_dir / "photos"
    return send_from_directory(folder, stored.photo, mimetype="image/jpeg")
