"""The shop's public page: a customer asks, on a phone and without sign-in; and what came in so."""

from __future__ import annotations

from datetime import date
from typing import Any

from flask import Blueprint, abort, flash, redirect, request, send_from_directory, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.core.enquiry.first_word import FirstWord, enquiry_of
from jolvek.core.hydro.families import FAMILIES
from jolvek.shop import By
from jolvek.store import intake
from jolvek.web import data, errors
from jolvek.web.kit import display, pages, photos
from jolvek.web.kit.accounts import limits
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, OPEN, READER, TWO_PHOTOS
from jolvek.web.public.ask import form as first_word_form
from jolvek.web.saving import by, now
from jolvek.web.shared import conn, show, stored_or_404

bp = Blueprint("ask", __name__)
pages.add(
    bp,
    {
        "page": OPEN,
        "send": OPEN,
        "thanks": OPEN,
        "photo": READER,
        "looked": ADVISOR,
    },
    limits={"send": TWO_PHOTOS},
)
# from one address: what is laid on the counter, and every try
SENT, TRIED = "10 per hour; 30 per day", "60 per hour"


def _page(refused: dict[str, str], code: int = 200) -> Any:
    if not data.shop().intake:
        abort(404)
    words = {"paces": first_word_form.PACE_WORDS, "waters": first_word_form.WATER_WORDS}
    more = {"families": FAMILIES.values(), "most": intake.MOST_PHOTOS, "typed": request.form}
    return show("public/ask/page.html", refused=refused, **words, **more), code


@bp.get("/ask")
def page() -> Any:
    """The form."""
    return _page({})


@bp.post("/ask")
@limits.limiter.limit(TRIED)
@limits.limiter.limit(SENT, deduct_when=lambda answer: answer.status_code == 303)
@limits.of_shop()
def send() -> Any:
    """Lay what was said on the counter, with its photos."""
    if not data.shop().intake:
        abort(404)
    if request.form.get("website"):  # no person sees this entry
        return redirect(url_for("ask.thanks"), 303)
    result, refused = first_word_form.read(request.form, display.current())
    files = [f for f in request.files.getlist("photos") if f.filename]
    if len(files) > intake.MOST_PHOTOS:
        refused["photos"] = tr("at most %(most_photos)s photos", most_photos=intake.MOST_PHOTOS)
    if result is None or refused:
        if files:  # a browser does not keep them
            refused.setdefault("photos", "choose your photos once more")
        return _page(refused, 422)
    return _kept(result, files)


def _kept(said: FirstWord, files: list[Any]) -> Any:
    folder, names = data.settings().data_dir / "photos", list[str]()
    try:
        enquiry, estimated = enquiry_of(said, data.shop().first_day(date.today()))
        for f in files:
            names.append(photos.keep(f, folder))
    except ValueRefused as error:
        return _page(first_word_form.refusal(error), 422)
    except JolvekError as error:
        for name in names:
            (folder / name).unlink()
        return _page({"photos": str(error)}, 422)
    customer = By(tr("the customer"), now())
    shop.enquiries.ask(conn(), customer, enquiry, estimated, names)
    return redirect(url_for("ask.thanks"), 303)


errors.refuses_large("ask.send", lambda text: _page({"photos": text}, 422))


@bp.get("/ask/thanks")
def thanks() -> Any:
    """What the shop says to who asked."""
    if not data.shop().intake:
        abort(404)
    return show("public/ask/thanks.html")


@bp.post("/enquiry/<int:enquiry_id>/looked")
def looked(enquiry_id: int) -> Any:
    """Somebody has looked at what came in."""
    stored_or_404(enquiry_id)
    shop.enquiries.looked(conn(), by(), enquiry_id)
    flash(tr("It waits for a look no more."))
    return redirect(url_for("boat.page", enquiry_id=enquiry_id), 303)


@bp.get("/enquiry/<int:enquiry_id>/photos/<int:photo_id>")
def photo(enquiry_id: int, photo_id: int) -> Any:
    """One of the customer's photos."""
    names = dict(intake.photos_of(conn(), enquiry_id))
    if photo_id not in names:
        abort(404)
    folder = data.settings().data_dir / "photos"
    return send_from_directory(folder, names[photo_id], mimetype="image/jpeg")
