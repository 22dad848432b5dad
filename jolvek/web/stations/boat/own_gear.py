"""The customer's own gear on the Boat station: typed, listed, taken off."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, flash, redirect, request, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.electric.chemistry import CHEMISTRIES
from jolvek.store import own_gear
from jolvek.web import saving
from jolvek.web.kit import display, pages
from jolvek.web.kit.fields.chosen import chosen
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, READER
from jolvek.web.shared import conn, form_id, frame, show, stored_or_404
from jolvek.web.stations.boat.own_form import FIELDS, STYLES, own_from

bp = Blueprint("own_gear", __name__, url_prefix="/enquiry/<int:enquiry_id>/own")
pages.add(
    bp,
    {
        "page": READER,
        "add": ADVISOR,
        "off": ADVISOR,
    },
    changes_job=True,
)
NAMES = {"motors": "motor", "batteries": "battery", "chargers": "charger"}


def _page(enquiry_id: int, kind: str, read: Reader, code: int = 200) -> Any:
    kept = own_gear.of_enquiry(conn(), enquiry_id)
    more = {"fields": FIELDS, "chemistries": CHEMISTRIES, "styles": STYLES, "names": NAMES}
    shown = {"kept": kept, "kind": kind, "typed": read.args, "refused": read.refused}
    return show("stations/boat/own.html", frame(enquiry_id, "boat"), **shown, **more), code


@bp.get("")
def page(enquiry_id: int) -> Any:
    """What the customer has, and the forms for more."""
    stored_or_404(enquiry_id)
    return _page(enquiry_id, "", Reader({}, display.current()))


@bp.post("")
def add(enquiry_id: int) -> Any:
    """Keep one thing more, or give the form back with what is wrong of it."""
    stored_or_404(enquiry_id)
    kind = chosen("kind", FIELDS)
    read = Reader(request.form, display.current())
    gear = own_from(kind, read)
    if gear is None:
        return _page(enquiry_id, kind, read, 422)
    try:
        shop.setups.add_own_gear(conn(), saving.by(), enquiry_id, gear)
    except JolvekError as error:
        read.refused["name"] = str(error)
        return _page(enquiry_id, kind, read, 422)
    flash(tr("%(text)s is saved.", text=gear.text))
    return redirect(url_for("own_gear.page", enquiry_id=enquiry_id), 303)


@bp.post("/off")
def off(enquiry_id: int) -> Any:
    """Take one thing off."""
    stored_or_404(enquiry_id)
    shop.setups.drop_own_gear(conn(), saving.by(), enquiry_id, form_id("gear"))
    flash(tr("Taken off."))
    return redirect(url_for("own_gear.page", enquiry_id=enquiry_id), 303)
