"""The shop's settings, for its owner, and its logo."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from flask import Blueprint, abort, flash, g, redirect, request, send_from_directory, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.store.shop import Shop
from jolvek.web import data, errors
from jolvek.web.desk.care import letters as care_letters
from jolvek.web.desk.settings import form as shop_form
from jolvek.web.kit import pages, photos
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.fields.merged import merged
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import OPEN, OWNER, PHOTO
from jolvek.web.mailing import post_of
from jolvek.web.shared import show
from jolvek.web.stations.offer import sending
from jolvek.web.stations.waters.form import SCHOOL_WORDS

bp = Blueprint("shop", __name__)
pages.add(
    bp,
    {
        "page": OWNER,
        "save": OWNER,
        "test_mail": OWNER,
        "logo": OWNER,
        "show_logo": OPEN,  # stands on what customers get
    },
    limits={"logo": PHOTO},
)


def _page(
    refused: dict[str, str],
    code: int = 200,
    logo_error: str = "",
    typed: Mapping[str, str] | None = None,
) -> Any:
    groups = shop_form.entries(data.shop(), typed or request.form, refused)
    more = {"school_words": SCHOOL_WORDS, "logo_error": logo_error, "refused": refused}
    more["values"] = shop_form.values(data.shop())
    return show("desk/settings/settings.html", groups=groups, **more), code


@bp.get("/settings")
def page() -> Any:
    """What the shop says of itself."""
    return _page({})


@bp.post("/settings")
def save() -> Any:
    """Keep what is right, and tell what is not at its entry."""

    def edited(before: Shop) -> tuple[Shop, tuple[Any, dict[str, str]]]:
        form = merged(request.form, shop_form.values(before), shop_form.labels())
        asked, refused = shop_form.read(form, before)
        return asked, (form, refused)

    usual = vars(data.usual_shop())
    changed, (form, refused) = shop.settings.change(data.conn(), usual, edited)
    if changed:
        signing.record_activity("settings changed", ", ".join(changed))
    g.pop("shop", None)  # read anew in this request
    if refused:
        return _page(refused, 422, typed=form)
    flash(tr("The settings are saved.") if changed else tr("Nothing was changed."))
    return redirect(url_for("shop.page"), 303)


@bp.post("/settings/test-mail")
def test_mail() -> Any:
    """Send a mail to an address, to see that mail gets out."""
    ours, to = data.shop(), request.form.get("to", "").strip()
    if not sending.ADDRESS.fullmatch(to):
        return _page({"test_mail": tr("read “%(to)s”; type an address", to=to[:120])}, 422)
    words = tr("This mail shows that mail from %(shop)s gets out.", shop=ours.name)
    letter = care_letters.mail(ours, to, tr("Test mail"), words)
    try:
        post_of(data.settings()).hand_on(0, to, letter)
    except OSError as error:
        return _page({"test_mail": tr("It was not sent: %(why)s", why=str(error)[:300])}, 422)
    signing.record_activity("test mail")
    flash(tr("The test mail is on its way to %(to)s.", to=to))
    return redirect(url_for("shop.page"), 303)


@bp.post("/settings/logo")
def logo() -> Any:
    """Put a logo on the papers, or take it off."""
    folder = data.settings().data_dir / "photos"
    try:
        upload = request.files.get("logo")
        name = "" if request.form.get("remove") else photos.keep(upload, folder)
    except JolvekError as error:
        return _page({}, 422, str(error))
    usual = vars(data.usual_shop())
    shop.settings.change(data.conn(), usual, lambda stands: (replace(stands, logo=name), None))
    signing.record_activity("logo changed")
    flash(tr("The logo is saved.") if name else tr("The logo is taken off."))
    return redirect(url_for("shop.page"), 303)


errors.refuses_large("shop.logo", lambda text: _page({}, 422, text))


@bp.get("/logo")
def show_logo() -> Any:
    """The logo itself."""
    name = data.shop().logo
    if not name:
        abort(404)
    return send_from_directory(data.settings().data_dir / "photos", name, mimetype="image/jpeg")
