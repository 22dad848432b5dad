"""The people behind a boat: a new owner, a copy of all that is kept of somebody, its erasure; and a
new battery quoted.
"""

from __future__ import annotations

import json
from dataclasses import replace
from datetime import date
from typing import Any

from flask import Blueprint, Response, abort, flash, redirect, render_template, request, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.care.renewal import against_joining
from jolvek.core.products.own import OwnGear
from jolvek.store import erasing, owners
from jolvek.store.owners import Former, Owner
from jolvek.web import data
from jolvek.web.kit import pages, pdf
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.language import tr
from jolvek.web.kit.matches import shelf_of
from jolvek.web.kit.pages import ADVISOR, OWNER
from jolvek.web.saving import by, now
from jolvek.web.shared import Frame, conn, form_id, frame, show, stored_or_404
from jolvek.web.stations.aftercare import view as care_page
from jolvek.web.stations.aftercare.page import back, past_day, show_page

bp = Blueprint("ownership", __name__, url_prefix="/enquiry/<int:enquiry_id>/aftercare/owner")
pages.add(
    bp,
    {
        "page": ADVISOR,
        "copy": ADVISOR,
        "pass_on": ADVISOR,
        "new_battery": ADVISOR,
        "erase": OWNER,
        "erase_former": OWNER,
    },
)
FORMAT, VERSION = "jolvek-customer", 1


@bp.post("")
def pass_on(enquiry_id: int) -> Any:
    """The boat has a new owner."""
    stored_or_404(enquiry_id)
    form = request.form
    try:
        values = {k: form.get(f"new_{k}", "").strip() for k in owners.REACHED}
        on = past_day(form.get("owner_day", ""))
        seen = form.get("after", "")
        shop.owners.pass_on(conn(), by(), enquiry_id, Owner(**values), on, seen)
    except JolvekError as error:
        return show_page(enquiry_id, {"owner": str(error)}, 422)
    signing.record_activity("boat passed on", str(enquiry_id))
    flash(tr("The boat has a new owner. The old stickers lead nowhere: print a new one."))
    return back(enquiry_id, "#owner")


@bp.post("/battery")
def new_battery(enquiry_id: int) -> Any:
    """A new battery quoted: an enquiry with this boat and day, motor and charger as her own. Packs
    joined to the old ones are refused where they do not belong together.
    """
    f = frame(enquiry_id, "aftercare")
    hand = f.card.in_hand
    if hand is None:
        abort(404)
    battery = next(
        (b for b in shelf_of(conn()).batteries if b.id == request.form.get("battery")), None
    )
    if request.form.get("how") == "join":
        result = care_page.page(conn(), enquiry_id, hand, data.shop(), date.today()).battery
        capacity, years = (result.health.capacity, result.years) if result else (1.0, 0.0)
        new = battery.spec if battery else hand.fitted.battery.spec
        why = against_joining(hand.fitted.bank, capacity, years, new)
        if why:
            told_why = (
                tr("Not joined to the old packs: ") + "; ".join(why) + tr(". Quote all packs new.")
            )
            return show_page(enquiry_id, {"battery": told_why}, 422)
    number = _quoted(f)
    flash(tr("A new enquiry: its motor and charger count as its own, the battery is to be chosen."))
    return redirect(url_for("shortlist.page", enquiry_id=number), 303)


def _quoted(f: Frame) -> int:
    hand = f.card.in_hand
    assert hand is not None
    title = tr("%(title)s: new battery", title=f.e.title[:180])
    gear = [OwnGear("motors", hand.fitted.motor)]
    if hand.fitted.charger is not None:
        gear.append(OwnGear("chargers", hand.fitted.charger))
    enquiry = replace(f.e.enquiry, title=title)
    return shop.owners.quote_battery(conn(), by(), f.e.id, enquiry, gear)


def _of_customer(enquiry_id: int) -> list[tuple[int, str, str]]:
    e = stored_or_404(enquiry_id).enquiry
    found = owners.enquiries_of(conn(), e.customer, e.mail)
    return found or [(enquiry_id, e.title, e.customer)]


@bp.get("")
def page(enquiry_id: int) -> Any:
    """All that is kept of this customer: which enquiries, a copy, erasure."""
    return _page(enquiry_id)


def _page(enquiry_id: int, refused: str = "", code: int = 200) -> Any:
    more = {
        "found": _of_customer(enquiry_id),
        "former": owners.former(conn(), enquiry_id),
        "refused": refused,
        "erasures": erasing.erasures(conn()),
        "typed": request.form,
    }
    return show("stations/aftercare/owner.html", frame(enquiry_id, "aftercare"), **more), code


def _copy_of_former(f: Former) -> dict[str, Any]:
    values = {"format": FORMAT, "version": VERSION, "made": now(), "customer": f.customer}
    return {**values, "shop": data.shop().name, "enquiries": [owners.of_former(conn(), f)]}


def _copy(enquiry_id: int) -> dict[str, Any]:
    found = _of_customer(enquiry_id)
    rows = [owners.everything(conn(), number) for number, _, _ in found]
    values = {"format": FORMAT, "version": VERSION, "made": now(), "customer": found[0][2]}
    return {**values, "shop": data.shop().name, "enquiries": rows}


def _remove(files: list[str]) -> None:
    """Remove files of somebody who was erased, and what the database still holds of them."""
    for file in files:
        (data.settings().data_dir / file).unlink(missing_ok=True)
    shop.owners.sweep(conn())


def _former(enquiry_id: int, number: int) -> Former:
    found = next((x for x in owners.former(conn(), enquiry_id) if x.id == number), None)
    return found or abort(404)


@bp.get("/copy.<form>")
def copy(enquiry_id: int, form: str) -> Response:
    """All that is kept of this customer, or of a former owner of the boat, as JSON or PDF."""
    if form not in ("json", "pdf"):
        abort(404)
    number = request.args.get("former", type=int)
    result = _copy_of_former(_former(enquiry_id, number)) if number else _copy(enquiry_id)
    name = f'attachment; filename="customer-{enquiry_id}.{form}"'
    signing.record_activity("customer's data copied", str(enquiry_id))
    if form == "json":
        body: str | bytes = json.dumps(result, ensure_ascii=False, indent=1)
        return Response(body, mimetype="application/json", headers={"Content-Disposition": name})
    body = pdf.write(render_template("stations/aftercare/copy.html", o=result))
    return Response(body, mimetype="application/pdf", headers={"Content-Disposition": name})


@bp.post("/erase-former")
def erase_former(enquiry_id: int) -> Any:
    """Erase a former owner of the boat; the name typed says it is meant."""
    form = request.form
    found = _former(enquiry_id, form_id("former"))
    if form.get("name", "").strip().lower() != found.customer.lower() or not form.get("law"):
        why = tr("type the former owner’s name, and tick that local law was asked")
        return _page(enquiry_id, why, 422)
    files = shop.owners.erase_former(conn(), by(), found, form.get("told", "").strip())
    _remove(files)
    signing.record_activity("former owner erased", str(enquiry_id))
    flash(tr("Erased. Backups made before still hold it until they go."))
    return redirect(url_for("ownership.page", enquiry_id=enquiry_id), 303)


@bp.post("/erase")
def erase(enquiry_id: int) -> Any:
    """Erase a customer from the enquiries that are ticked; the name typed says it is meant."""
    stored, form = stored_or_404(enquiry_id), request.form
    known = {n for n, _, _ in _of_customer(enquiry_id)}
    ticked = [n for n in map(int, filter(str.isdecimal, form.getlist("enquiry"))) if n in known]
    name = stored.enquiry.customer
    if form.get("name", "").strip().lower() != name.strip().lower() or not name.strip():
        return _page(
            enquiry_id,
            tr("type the customer’s name, “%(name)s”, to say it is meant", name=name),
            422,
        )
    if not ticked or not form.get("law"):
        why = tr("tick what is to be erased, and that local law was asked")
        return _page(enquiry_id, why, 422)
    files = shop.owners.erase(conn(), by(), ticked, form.get("told", "").strip())
    _remove(files)
    signing.record_activity("customer erased", ", ".join(map(str, ticked)))
    flash(
        tr(
            "Erased from %(ticked)s enquiries. Backups made before still hold it until they go.",
            ticked=len(ticked),
        )
    )
    return redirect(url_for("counter.page"), 303)
