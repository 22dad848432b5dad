"""Station 8, Handover: the list made for this setup, serial numbers, faults, the signed record."""

from __future__ import annotations

import secrets
from datetime import UTC, date, datetime, timedelta
from typing import Any

from flask import Blueprint, Response, abort, flash, redirect, render_template, request, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.trial.diagnosis import FAULTS
from jolvek.formats.contacts import ICALENDAR, Dated, calendar
from jolvek.store import handovers
from jolvek.store.handovers import Act, Serial
from jolvek.web import data, errors
from jolvek.web.kit import display, language, pages, pdf, photos, stations
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.dates import made
from jolvek.web.kit.drawings import signature
from jolvek.web.kit.fields.merged import merged
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, PHOTO, READER, RIGGER
from jolvek.web.kit.worked import Worked
from jolvek.web.saving import by, now
from jolvek.web.shared import Frame, conn, form_id, frame, gone, show, spoken_to, stored_or_404, who
from jolvek.web.stations.handover import record as handover_record
from jolvek.web.stations.trial import view as trial_page
from jolvek.web.stations.trial.form import CURED

bp = Blueprint("handover", __name__, url_prefix="/enquiry/<int:enquiry_id>/handover")
pages.add(
    bp,
    {
        "page": READER,
        "copy": READER,
        "show_photo": READER,
        "step": RIGGER,
        "serial": RIGGER,
        "fault": RIGGER,
        "sign": ADVISOR,
    },
    limits={"step": PHOTO},
)
KEEP = "application/json"


def _state(s: stations.Standing) -> tuple[str, str]:
    if not s.pinned:
        return "empty", tr("pin a setup first")
    if s.level == "block":
        return "blocked", tr("cannot be handed over")
    return "look", tr("list, serial numbers, trial")


STATION = stations.add(8, "handover", msg("Handover"), _state)


def _hand(f: Frame) -> Worked:
    hand = f.card.in_hand
    if hand is None:
        abort(404)
    return hand


def _page(enquiry_id: int, refused: dict[str, str] | None = None, code: int = 200) -> Any:
    f = frame(enquiry_id, "handover")
    hand = f.card.in_hand
    more: dict[str, Any] = {"hand": hand, "refused": refused or {}, "sheet": None}
    if hand is not None:
        found = handover_record.sheet(conn(), enquiry_id, hand)
        more |= {
            "sheet": found,
            "next": next((row for row in found.rows if row.state == "open"), None),
            "signed": handovers.signed(conn(), enquiry_id),
            "kinds": FAULTS,
            "warranty_to": handover_record.warranty_end(data.shop(), date.today()),
            "register_by": (date.today() + timedelta(days=data.shop().register_days)).isoformat(),
            "typed": request.form,
            "serial_values": serial_values,
        }
    return show("stations/handover/page.html", f, **more), code


@bp.get("")
def page(enquiry_id: int) -> Any:
    """The list, numbers, faults, and signing."""
    return _page(enquiry_id)


@bp.post("/step")
def step(enquiry_id: int) -> Any:
    """One act on a step; the same act sent again is the same act. A phone that was away sends what
    it kept, and is answered in JSON.
    """
    f = frame(enquiry_id, "handover")
    form, afar = request.form, request.headers.get("Accept", "").startswith(KEEP)
    at = _at(form.get("at", ""))
    try:
        found = _open_sheet(f)
        known = {row.step.key for row in found.rows}
        if form.get("step") not in known:
            raise ValueRefused("step", form.get("step", ""), "a step of this list")
        photo = _photo()
        op = form.get("op") or secrets.token_hex(12)
        record = Act(
            op,
            form.get("step", ""),
            form.get("state", "done"),
            who(),
            at,
            form.get("note", "").strip(),
            photo=photo,
        )
        shop.handovers.act(conn(), by(), enquiry_id, record)
    except JolvekError as error:
        if afar:
            return {"kept": False, "why": str(error)}, 422
        return _page(enquiry_id, {"step": form.get("step", ""), "why": str(error)}, 422)
    if afar:
        return {"kept": True, "op": record.op, "who": record.who, "at": record.at}
    return redirect(url_for("handover.page", enquiry_id=enquiry_id) + f"#step-{record.step}", 303)


def _open_sheet(f: Frame) -> handover_record.Sheet:
    """The list of the setup to hand over. Raises JolvekError where another was accepted."""
    if handovers.signed(conn(), f.e.id) is not None:
        raise JolvekError(tr("The handover is signed: nothing of it can be changed any more."))
    found = handover_record.sheet(conn(), f.e.id, _hand(f))
    if found.not_agreed:
        raise JolvekError(found.not_agreed)
    return found


errors.refuses_large("handover.step", lambda text: (text, 413))


def _at(text: str) -> str:
    """When it was done by the phone's clock; now where that cannot be."""
    try:
        result = datetime.fromisoformat(text)
    except ValueError:
        return now()
    if result.tzinfo is None or result > datetime.now(UTC) + timedelta(minutes=5):
        return now()
    return result.astimezone(UTC).isoformat(timespec="microseconds")


def _photo() -> str:
    upload = request.files.get("photo")
    if upload is None or not upload.filename:
        return ""
    return photos.keep(upload, data.settings().data_dir / "photos")


def _photos(found: handover_record.Sheet) -> dict[str, str]:
    """The photos of the steps as data within the paper, by name."""
    names = {row.act.photo for row in found.rows if row.act and row.act.photo}
    return {name: photos.as_data(data.settings().data_dir, name) for name in names}


@bp.get("/photo/<name>")
def show_photo(enquiry_id: int, name: str) -> Any:
    """The photo of a step."""
    from flask import send_from_directory

    stored_or_404(enquiry_id)
    known = {a.photo for a in handovers.acts(conn(), enquiry_id).values() if a.photo}
    if name not in known:
        abort(404)
    return send_from_directory(data.settings().data_dir / "photos", name, mimetype="image/jpeg")


SERIAL_WORDS = {"number": msg("Serial number"), "batch": msg("Batch")}


def serial_values(kept: Serial | None) -> dict[str, str]:
    """What the form of a serial number is filled with."""
    return {"number": kept.number if kept else "", "batch": kept.batch if kept else ""}


@bp.post("/serial")
def serial(enquiry_id: int) -> Any:
    """Keep a serial number."""
    f, form = frame(enquiry_id, "handover"), request.form
    try:
        pieces = {p.what: p for p, _ in _open_sheet(f).pieces}
    except JolvekError as error:
        return _page(enquiry_id, {"sign": str(error)}, 422)
    piece = pieces.get(form.get("what", ""))
    if piece is None:
        abort(404)
    until = handover_record.warranty_end(data.shop(), date.today())

    def typed(stands: Serial | None) -> Serial:
        kept = merged(form, serial_values(stands), SERIAL_WORDS)
        number, batch = kept.get("number", ""), kept.get("batch", "").strip()[:60]
        about = (piece.what, piece.title, piece.product_id, number, until, who(), now(), batch)
        return Serial(0, *about)

    try:
        shop.handovers.set_serial(conn(), enquiry_id, piece.what, typed)
    except JolvekError as error:
        return _page(enquiry_id, {f"serial {piece.what}": str(error)}, 422)
    return redirect(url_for("handover.page", enquiry_id=enquiry_id) + "#serials", 303)


@bp.post("/fault")
def fault(enquiry_id: int) -> Any:
    """Record a fault, or settle one by name."""
    stored_or_404(enquiry_id)
    form, number = request.form, form_id("fault")
    try:
        if number:
            state, cure = form.get("state", ""), form.get("cure", "").strip()
            if shop.handovers.settle_fault(conn(), by(), enquiry_id, number, state, cure):
                flash(tr(CURED))
        else:
            why = form.get("why", "").strip() or tr("seen on the water")
            shop.handovers.add_fault(conn(), by(), enquiry_id, form.get("kind", ""), why)
    except JolvekError as error:
        return _page(enquiry_id, {f"fault {number}": str(error)}, 422)
    return redirect(url_for("handover.page", enquiry_id=enquiry_id) + "#faults", 303)


@bp.post("/sign")
def sign(enquiry_id: int) -> Any:
    """Sign it: frozen as record and paper; the boat is handed over and leaves the stock."""
    f, form, u = frame(enquiry_id, "handover"), request.form, display.current()
    hand = _hand(f)
    found = handover_record.sheet(conn(), enquiry_id, hand)
    customer = form.get("name", "").strip()[:120]
    if found.against or not customer:
        why = " ".join(found.against) or tr("The customer’s name is missing, as the signature.")
        return _page(enquiry_id, {"sign": why}, 422)
    try:
        drawn = signature.checked(form.get("signature", ""))
        signed = {"customer": {"name": customer, "drawn": drawn}, "shop": {"name": who()}}
        logo = photos.as_data(data.settings().data_dir, data.shop().logo)
        with language.speaking(spoken_to(enquiry_id)):
            trial = trial_page.on_paper(conn(), f.e, hand, u)
            result = handover_record.record(f.e, hand, found, data.shop(), u, signed, trial, now())
            paper = pdf.write(
                render_template(
                    "stations/handover/paper.html", o=result, logo=logo, photos=_photos(found)
                )
            )

        def against() -> list[str]:
            return handover_record.sheet(conn(), enquiry_id, hand).against

        shop.handovers.sign(conn(), by(), enquiry_id, result, paper, against)
    except JolvekError as error:
        return _page(enquiry_id, {"sign": str(error)}, 422)
    signing.record_activity("handover signed", str(enquiry_id))
    flash(tr("The boat is handed over."))
    return redirect(url_for("handover.page", enquiry_id=enquiry_id), 303)


@bp.get("/record.<form>")
def copy(enquiry_id: int, form: str) -> Any:
    """The signed record as PDF or jolvek-handover; the day of the registration as iCalendar."""
    stored = stored_or_404(enquiry_id)
    if form == "ics":
        last = date.today() + timedelta(days=data.shop().register_days)
        note = ", ".join(
            f"{s.what} {s.number}" for s in handovers.serials(conn(), enquiry_id).values()
        )
        what = tr("Register the warranty: %(title)s", title=stored.title)
        body = calendar([Dated(enquiry_id, last, what, note, "warranty")], data.shop().name, made())
        return Response(body, mimetype=ICALENDAR)
    result = handovers.signed(conn(), enquiry_id)
    if result is None or form not in ("pdf", "json"):
        abort(404)
    if form == "json":
        return result
    head = {"Content-Disposition": f'inline; filename="handover-{enquiry_id}.pdf"'}
    body = handovers.pdf(conn(), enquiry_id)
    if not body:
        gone(enquiry_id)
    return Response(body, mimetype="application/pdf", headers=head)
