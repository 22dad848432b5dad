"""Station 1, Boat: hull, load, site and day, with the boat drawn as they are typed."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from flask import Blueprint, Response, abort, flash, json, redirect, render_template, url_for

from jolvek.core.errors import ValueRefused
from jolvek.core.hull import estimates
from jolvek.core.need import Need
from jolvek.core.sizing import size
from jolvek.core.units import QUANTITIES
from jolvek.formats import enquiry_file
from jolvek.store import enquiries, setups
from jolvek.store.db import transaction
from jolvek.web import conn, shown, workings
from jolvek.web.counter import now
from jolvek.web.forms import EnquiryForm, need_from, refuse_at_field, values_of

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
    return {"e": stored, "need": stored.need, "pinned": pinned, "card": workings.card(stored, pinned, here), "here": here}


def _speeds() -> tuple[float, ...]:
    unit = shown.current()["speed"]
    factor = QUANTITIES["speed"].typed[unit]
    return tuple(v * factor for v in ((2, 3, 4, 5, 6) if unit == "kn" else (4, 6, 8, 10, 12) if unit == "km/h" else (2, 3, 4, 5, 6)))


def _figures(need: Need) -> dict[str, Any]:
    return {"sizing": size(need, _speeds()), "assumed": estimates(need.hull, need.load), "need": need}


@bp.get("/boat")
def page(enquiry_id: int) -> Any:
    """The form as kept."""
    more = shared(enquiry_id, "boat")
    stored = more["e"]
    form = EnquiryForm(formdata=None, data={**values_of(stored.need), "title": stored.title, "customer": stored.customer,
                                            "note": stored.note, "changed": stored.changed_at})
    return render_template("boat/page.html", form=form, **{**more, **_figures(stored.need)})


@bp.post("/boat")
def save(enquiry_id: int) -> Any:
    """Keep the form, or give it back with what was typed and the message at its field."""
    more = shared(enquiry_id, "boat")
    form, before = EnquiryForm(), more["e"]
    need = _read(form, before.need)
    if need is None:
        return render_template("boat/page.html", form=form, **{**more, **_figures(before.need)}), 422
    if form.changed.data and form.changed.data != before.changed_at:
        form.changed.data = before.changed_at
        return render_template("boat/page.html", form=form, other=True, **{**more, **_figures(need), "need": before.need}), 422
    with transaction(conn()) as c:
        enquiries.save(c, enquiry_id, replace(before.enquiry, need=need, customer=form.customer.data or "", title=form.title.data or "",
                                              note=form.note.data or ""), now())
    flash("Kept.")
    return redirect(url_for("boat.page", enquiry_id=enquiry_id), 303)


@bp.post("/boat/figures")
def figures(enquiry_id: int) -> Any:
    """The drawing and the figures for what is typed, not kept."""
    stored = stored_or_404(enquiry_id)
    form = EnquiryForm()
    need = _read(form, stored.need)
    if need is None:
        return render_template("boat/_figures.html", form=form, e=stored, **_figures(stored.need), refused=form.errors), 422
    return render_template("boat/_figures.html", form=form, e=stored, **_figures(need), unsaved=need != stored.need)


@bp.get("/enquiry.json")
def export(enquiry_id: int) -> Response:
    """The enquiry as a jolvek-enquiry file."""
    s = stored_or_404(enquiry_id)
    data = enquiry_file.write(s.enquiry)
    return Response(json.dumps(data, indent=1, ensure_ascii=False), mimetype="application/json",
                    headers={"Content-Disposition": f'attachment; filename="enquiry-{enquiry_id}.json"'})


def _read(form: EnquiryForm, before: Need) -> Need | None:
    if not form.validate():
        return None
    try:
        return need_from(form, before)
    except ValueRefused as error:
        refuse_at_field(form, error)
        return None
