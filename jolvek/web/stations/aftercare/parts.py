"""Faults, parts and spares of a boat in service."""

from __future__ import annotations

from datetime import date
from typing import Any

from flask import Blueprint, abort, flash, request, send_from_directory

from jolvek import shop
from jolvek.core.base import checked
from jolvek.core.base.errors import JolvekError
from jolvek.core.care.faults import SERVICE_FAULTS
from jolvek.core.care.warranty import HEED, verdict
from jolvek.core.fit.handover import Piece, pieces
from jolvek.store import care, handovers, service_faults
from jolvek.store.service_faults import ServiceFault
from jolvek.store.spares import Swap
from jolvek.web import data, errors
from jolvek.web.kit import display, language, pages, photos
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import PHOTO, READER, RIGGER
from jolvek.web.saving import by, now
from jolvek.web.shared import Frame, conn, form_id, frame, stored_or_404, who
from jolvek.web.stations.aftercare.page import back, past_day, show_page
from jolvek.web.stations.trial.form import CURED

bp = Blueprint("after_parts", __name__, url_prefix="/enquiry/<int:enquiry_id>/aftercare/parts")
pages.add(
    bp,
    {
        "fault": RIGGER,
        "photo": READER,
        "part": RIGGER,
        "spare": RIGGER,
    },
    limits={"fault": PHOTO},
)


def pieces_of(f: Frame) -> dict[str, Piece]:
    """What of the boat has a number, by what it is; 404 without a setup."""
    if f.card.in_hand is None:
        abort(404)
    return {p.what: p for p in pieces(f.card.in_hand.fitted)}


def read_fault(enquiry_id: int, known: dict[str, Piece], form: Any, by: str) -> ServiceFault:
    """A fault as typed, with the boat's hours now. Raises JolvekError."""
    kind, why = form.get("kind", ""), form.get("why", "").strip()
    if kind not in SERVICE_FAULTS:
        raise JolvekError(tr("choose what is seen"))
    if kind == "other" and not why:
        raise JolvekError(tr("a word what is wrong"))
    piece = known.get(form.get("part", ""))
    upload = request.files.get("photo")
    photo = ""
    if upload is not None and upload.filename:
        photo = photos.keep(upload, data.settings().data_dir / "photos")
    hours = sum(t.hours for t in care.trips(conn(), enquiry_id))
    what, product = (piece.what, piece.product_id) if piece else ("", "")
    return ServiceFault(
        0,
        kind,
        why,
        "open",
        now(),
        by,
        done_at="",
        done_by="",
        cure="",
        part=what,
        product_id=product,
        hours=hours,
        photo=photo,
    )


@bp.post("/fault")
def fault(enquiry_id: int) -> Any:
    """Record a fault in service, or settle one by name."""
    f, form, number = frame(enquiry_id, "aftercare"), request.form, form_id("fault")
    known = pieces_of(f)
    try:
        if number:
            state, cure = form.get("state", ""), form.get("cure", "").strip()
            if shop.handovers.settle_fault(conn(), by(), enquiry_id, number, state, cure, True):
                flash(tr(CURED))
        else:
            new = read_fault(enquiry_id, known, form, who())
            shop.care.report_fault(conn(), enquiry_id, new)
    except JolvekError as error:
        return show_page(enquiry_id, {f"fault {number}": str(error)}, 422)
    return back(enquiry_id, "#faults")


errors.refuses_large("after_parts.fault", lambda text: (text, 413))


@bp.get("/photo/<name>")
def photo(enquiry_id: int, name: str) -> Any:
    """The photo of a fault."""
    stored_or_404(enquiry_id)
    if name not in {x.photo for x in service_faults.of_enquiry(conn(), enquiry_id) if x.photo}:
        abort(404)
    return send_from_directory(data.settings().data_dir / "photos", name, mimetype="image/jpeg")


@bp.post("/part")
def part(enquiry_id: int) -> Any:
    """A part is replaced: numbers, why, the warranty's verdict, what it cost."""
    f, form = frame(enquiry_id, "aftercare"), request.form
    known = pieces_of(f)
    piece = known.get(form.get("what", ""))
    if piece is None:
        return show_page(enquiry_id, {"part": tr("choose which part")}, 422)
    read = Reader(form, display.current())
    cost = read.figure("cost", "money", 0, 1e6)
    if read.refused:
        return show_page(enquiry_id, read.refused, 422)
    old = handovers.serials(conn(), enquiry_id).get(piece.what)
    try:
        on = past_day(form.get("part_day", ""))
        to = date.fromisoformat(old.warranty_to) if old and old.warranty_to else None
        damage = bool(form.get("damage"))
        v = verdict(date.fromisoformat(on), to, damage, data.shop().warranty_months)
        record = Swap(
            0,
            on,
            piece.what,
            piece.title,
            piece.product_id,
            old.number if old else "",
            new_number=form.get("new_number", "").strip(),
            why=form.get("part_why", "").strip(),
            verdict=str(language.shown(v.text)),
            cost=0.0 if cost is None else cost,
            who=who(),
        )
        until = v.new_to.isoformat() if v.new_to else ""
        shop.care.replace_part(conn(), by(), enquiry_id, record, until)
    except JolvekError as error:
        return show_page(enquiry_id, {"part": str(error)}, 422)
    flash(f"{language.shown(v.text)} {tr(HEED)}")
    return back(enquiry_id, "#parts")


@bp.post("/spare")
def spare(enquiry_id: int) -> Any:
    """A spare with the day until which it is good: a new one, its new day, or taken off."""
    stored_or_404(enquiry_id)
    form, number = request.form, form_id("spare")
    try:
        if form.get("off"):
            shop.care.drop_spare(conn(), enquiry_id, number)
        else:
            checked.date("spare.good_to", form.get("good_to", ""))
            if not form.get("good_to"):
                raise JolvekError(tr("the day that stands on it is needed"))
            if number:
                shop.care.renew_spare(conn(), enquiry_id, number, form["good_to"])
            else:
                what = form.get("what", "").strip()
                shop.care.add_spare(conn(), by(), enquiry_id, what, form["good_to"])
    except JolvekError as error:
        return show_page(enquiry_id, {"spare": str(error)}, 422)
    return back(enquiry_id, "#parts")
