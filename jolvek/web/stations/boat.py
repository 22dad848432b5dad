"""Station 1, Boat: hull, load, site and words, with the boat drawn as they are typed; earlier
boats; the photo.
"""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from flask import (
    Blueprint,
    Response,
    abort,
    current_app,
    flash,
    json,
    redirect,
    render_template,
    request,
    send_from_directory,
    url_for,
)

from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.core.base.units import QUANTITIES
from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.schools import power_schools
from jolvek.core.enquiry.sizing import size
from jolvek.core.hydro.hull import estimates
from jolvek.formats import enquiry_file
from jolvek.store import enquiries, setups
from jolvek.store.db import transaction
from jolvek.web import conn, is_fragment, saving
from jolvek.web.forms.boat_form import BoatForm, enquiry_from, values_of
from jolvek.web.forms.fields import refuse_at_field
from jolvek.web.view import display, photos
from jolvek.web.view.worked import card

bp = Blueprint("boat", __name__, url_prefix="/enquiry/<int:enquiry_id>")


def stored_or_404(enquiry_id: int) -> enquiries.Stored:
    """The enquiry, or a page that says there is none."""
    stored = enquiries.get(conn(), enquiry_id)
    if stored is None:
        abort(404)
    return stored


def shared(enquiry_id: int, here: str) -> dict[str, Any]:
    """What every station's page needs: enquiry, pinned setups, boat card."""
    stored = stored_or_404(enquiry_id)
    pinned = setups.of_enquiry(conn(), enquiry_id)
    return {
        "e": stored,
        "need": stored.need,
        "pinned": pinned,
        "card": card(stored, pinned, here),
        "here": here,
    }


def _speeds(wished_m_s: float) -> tuple[float, ...]:
    """Five round speeds about the wished one, so that a planing boat is not judged at a walk."""
    unit = display.current()["speed"]
    factor = QUANTITIES["speed"].typed[unit]
    usual, wished = (4, 6, 8, 10, 12) if unit == "km/h" else (2, 3, 4, 5, 6), wished_m_s / factor
    round_speeds = (
        usual
        if wished <= usual[-1]
        else tuple(round(wished * share) for share in (0.25, 0.5, 0.75, 1, 1.25))
    )
    return tuple(v * factor for v in round_speeds)


def _figures(need: Need) -> dict[str, Any]:
    return {
        "sizing": size(need, _speeds(need.day.speed_m_s)),
        "assumed": estimates(need.hull, need.load),
        "need": need,
    }


@bp.get("/boat")
def page(enquiry_id: int) -> Any:
    """The form as kept."""
    more = shared(enquiry_id, "boat")
    stored = more["e"]
    form = BoatForm(formdata=None, data={**values_of(stored.enquiry), "changed": stored.changed_at})
    earlier = (
        [s for s in enquiries.same_model(conn(), stored.enquiry.model) if s.id != enquiry_id]
        if stored.enquiry.model
        else []
    )
    return render_template(
        "boat/page.html",
        form=form,
        earlier=earlier,
        schools=power_schools(stored.need),
        **{**more, **_figures(stored.need)},
    )


@bp.post("/boat")
def save(enquiry_id: int) -> Any:
    """Keep the form (a fragment for autosave), or give it back with what was typed and the message
    at its field.
    """
    before = stored_or_404(enquiry_id)
    form = BoatForm(data=values_of(before.enquiry))
    enquiry = _read(form, before.enquiry)
    kept, clash = saving.keep(
        enquiry_id, before, enquiry, request.form.get("override") or form.changed.data
    )
    if kept:
        form.changed.data = kept
    if is_fragment():
        need = enquiry.need if enquiry else before.need
        return render_template(
            "boat/_figures.html",
            form=form,
            e=before,
            kept=kept,
            clash=clash,
            refused=form.errors,
            **_figures(need),
        ), (200 if kept else 422)
    if kept:
        flash("Kept.")
        return redirect(url_for("boat.page", enquiry_id=enquiry_id), 303)
    more = shared(enquiry_id, "boat")
    return (
        render_template(
            "boat/page.html",
            form=form,
            clash=clash,
            earlier=[],
            schools=[],
            **{**more, **_figures(before.need)},
        ),
        422,
    )


@bp.get("/enquiry.json")
def export(enquiry_id: int) -> Response:
    """The enquiry as a jolvek-enquiry file."""
    data = enquiry_file.write(stored_or_404(enquiry_id).enquiry)
    return Response(
        json.dumps(data, indent=1, ensure_ascii=False),
        mimetype="application/json",
        headers={"Content-Disposition": f'attachment; filename="enquiry-{enquiry_id}.json"'},
    )


@bp.post("/boat/from")
def start_from(enquiry_id: int) -> Any:
    """Take hull and site of an earlier boat of the same model; load, day and words stay."""
    stored, other = (
        stored_or_404(enquiry_id),
        stored_or_404(request.form.get("other", type=int) or 0),
    )
    need = replace(stored.need, hull=other.need.hull, site=other.need.site)
    with transaction(conn()) as c:
        enquiries.save(
            c,
            enquiry_id,
            replace(
                stored.enquiry, need=need, model=other.enquiry.model, storage=other.enquiry.storage
            ),
            saving.now(),
        )
    flash(f"Hull, transom and bays taken from “{other.title}”.")
    return redirect(url_for("boat.page", enquiry_id=enquiry_id), 303)


@bp.post("/boat/photo")
def photo(enquiry_id: int) -> Any:
    """Attach, replace or take off the boat's photo."""
    stored = stored_or_404(enquiry_id)
    folder = current_app.config["SETTINGS"].data_dir / "photos"
    upload = request.files.get("photo")
    try:
        name = "" if request.form.get("remove") else photos.keep(upload, folder)
    except JolvekError as error:
        more = shared(enquiry_id, "boat")
        form = BoatForm(
            formdata=None, data={**values_of(stored.enquiry), "changed": stored.changed_at}
        )
        return (
            render_template(
                "boat/page.html",
                form=form,
                photo_error=str(error),
                earlier=[],
                schools=[],
                **{**more, **_figures(stored.need)},
            ),
            422,
        )
    with transaction(conn()) as c:
        enquiries.set_photo(c, enquiry_id, name)
    if stored.photo:
        (folder / stored.photo).unlink(missing_ok=True)
    flash("Photo kept." if name else "Photo taken off.")
    return redirect(url_for("boat.page", enquiry_id=enquiry_id), 303)


@bp.get("/photo")
def show_photo(enquiry_id: int) -> Any:
    """The photo itself."""
    stored = stored_or_404(enquiry_id)
    if not stored.photo:
        abort(404)
    return send_from_directory(
        current_app.config["SETTINGS"].data_dir / "photos", stored.photo, mimetype="image/jpeg"
    )


def _read(form: BoatForm, before: enquiry_file.Enquiry) -> enquiry_file.Enquiry | None:
    if not form.validate():
        return None
    try:
        return enquiry_from(form, before)
    except ValueRefused as error:
        refuse_at_field(form, error)
    except ValueError as error:
        form.seats.errors = [str(error)]
    return None
