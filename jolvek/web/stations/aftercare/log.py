"""The log of Aftercare: trips and charges, typed or from files, out as jolvek-log."""

from __future__ import annotations

from datetime import date
from typing import Any

from flask import Blueprint, flash, request

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.formats import care_log
from jolvek.store import care
from jolvek.store.care import Charge, Trip
from jolvek.web import errors
from jolvek.web.kit import display, pages
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import PRICE_LIST, READER, RIGGER
from jolvek.web.saving import by
from jolvek.web.shared import conn, flash_left_out, form_id, stored_or_404, who
from jolvek.web.stations.aftercare.page import back, past_day, show_page

bp = Blueprint("after_log", __name__, url_prefix="/enquiry/<int:enquiry_id>/aftercare/log")
pages.add(
    bp,
    {
        "trip": RIGGER,
        "drop": RIGGER,
        "charge": RIGGER,
        "from_file": RIGGER,
        "export": READER,
    },
    limits={"from_file": PRICE_LIST},
)
FIELDS = ("on_day", "charge_from", "charge_to", "hours", "energy_wh", "wall_wh", "temperature_c")


def read_trip(form: Any, refused: dict[str, str], by: str) -> Trip | None:
    """A trip as typed; what cannot be read is told by field."""
    read = Reader(form, display.current(), refused)
    hours = read.figure("hours", "duration", 0, 240 * 3600)
    wh = read.figure("energy_wh", "energy", 0, 1e7)
    before, after = (read.figure(k, "share", 0, 1) for k in ("charge_from", "charge_to"))
    warm = read.figure("temperature_c", "celsius", -20, 50)
    if hours is None and "hours" not in refused:
        refused["hours"] = tr("needed: how long the boat was under way, as 2 h 30 min")
    if refused:
        return None
    try:
        on, note = past_day(form.get("on_day", "")), form.get("note", "").strip()
        op = form.get("op", "").strip()
        return Trip(
            0,
            on,
            (hours or 0.0) / 3600,
            wh,
            before,
            after,
            note=note,
            who=by,
            temperature_c=warm,
            op=op,
        )
    except JolvekError as error:
        refused[_field(error)] = str(error)
        return None


def _field(error: JolvekError) -> str:
    return next((k for k in FIELDS if k in str(error).split(":")[0]), "trip")


@bp.post("/trip")
def trip(enquiry_id: int) -> Any:
    """Keep a trip."""
    stored_or_404(enquiry_id)
    refused: dict[str, str] = {}
    result = read_trip(request.form, refused, who())
    if result is None:
        return show_page(enquiry_id, refused, 422)
    shop.care.log_trips(conn(), by(), enquiry_id, (result,))
    return back(enquiry_id, "#log")


@bp.post("/drop")
def drop(enquiry_id: int) -> Any:
    """Take a trip out of the log."""
    stored_or_404(enquiry_id)
    shop.care.drop_trip(conn(), enquiry_id, form_id("trip"))
    return back(enquiry_id, "#log")


@bp.post("/charge")
def charge(enquiry_id: int) -> Any:
    """Keep a charge."""
    stored_or_404(enquiry_id)
    refused: dict[str, str] = {}
    read = Reader(request.form, display.current(), refused)
    wall = read.figure("wall_wh", "energy", 0, 1e7)
    before, after = (read.figure(f"plug_{k}", "share", 0, 1) for k in ("from", "to"))
    if after is None and "plug_to" not in refused:
        refused["plug_to"] = tr("needed: the charge after")
    if refused or after is None:
        return show_page(enquiry_id, refused, 422)
    try:
        on = past_day(request.form.get("plug_day", ""))
        record = Charge(0, on, wall, before, after, "", who=who())
    except JolvekError as error:
        return show_page(enquiry_id, {"charge": str(error)}, 422)
    shop.care.add_charge(conn(), by(), enquiry_id, record)
    return back(enquiry_id, "#log")


@bp.post("/file")
def from_file(enquiry_id: int) -> Any:
    """Trips and charges of a file: all of it or nothing; what is known already counts once."""
    stored_or_404(enquiry_id)
    upload = request.files.get("file")
    if upload is None or not upload.filename:
        return show_page(
            enquiry_id, {"file": tr("choose a CSV, GPX or jolvek-log file first")}, 422
        )
    try:
        on = past_day(request.form.get("file_day", ""))
        trips, charges = care_log.read(upload.read(), upload.filename, on)
        rows = [_trip(t) for t in trips]
        plugged = [
            Charge(
                0, x["on_day"], x.get("wall_wh"), x.get("charge_from"), x["charge_to"], "", who=""
            )
            for x in charges
        ]
    except JolvekError as error:
        return show_page(enquiry_id, {"file": f"{upload.filename}: {error}"}, 422)
    new = shop.care.log_trips(conn(), by(), enquiry_id, rows, plugged, care_log.names)
    before = tr(", %(new)s were known", new=len(rows) - new) if new < len(rows) else ""
    flash_left_out(trips.left_out)
    flash(
        tr(
            "%(new)s read from %(filename)s%(before)s.",
            new=display.counted(new, "trip"),
            filename=upload.filename,
            before=before,
        )
    )
    return back(enquiry_id, "#log")


errors.refuses_large("after_log.from_file", lambda text: (text, 413))


def _trip(t: dict[str, Any]) -> Trip:
    if str(t["on_day"]) > date.today().isoformat():
        raise JolvekError(tr("read %(t)s, allowed is a day that has been", t=t["on_day"]))
    keys = ("energy_wh", "charge_from", "charge_to", "temperature_c", "distance_m")
    more: dict[str, Any] = {k: t.get(k) for k in keys} | {"note": str(t.get("note", ""))}
    return Trip(id=0, on_day=t["on_day"], hours=t["hours"], who=who(), op=t["op"], **more)


@bp.get("/log.json")
def export(enquiry_id: int) -> Any:
    """The log as jolvek-log."""
    stored = stored_or_404(enquiry_id)
    trips, charges = care.trips(conn(), enquiry_id), care.charges(conn(), enquiry_id)
    return care_log.write(stored.title, trips[::-1], charges[::-1])
