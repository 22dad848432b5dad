"""Station 3, Shortlist: the field of all setups, narrowed and ranked; why the others fell out."""

from __future__ import annotations

import json
from collections.abc import Mapping
from dataclasses import replace
from typing import Any
from urllib.parse import urlencode

from flask import (
    Blueprint,
    abort,
    flash,
    redirect,
    render_template,
    request,
    session,
    url_for,
)
from werkzeug.datastructures import MultiDict

from jolvek import shop
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.as_set import AsSet, as_set_from, as_set_plain
from jolvek.core.products.shelf import Item, Shelf
from jolvek.formats.schema import loads
from jolvek.store import setups
from jolvek.web import saving
from jolvek.web.kit import display, matches, pages, stations
from jolvek.web.kit.fields.merged import FILLED, merged
from jolvek.web.kit.language import capital, tr
from jolvek.web.kit.matches import answered, shelf_for
from jolvek.web.kit.pages import ADVISOR, READER
from jolvek.web.kit.quick import quick_answer
from jolvek.web.kit.what_if import WHAT_IFS, changed
from jolvek.web.kit.worked import work_out
from jolvek.web.shared import conn, frame, is_fragment, show, stored_or_404
from jolvek.web.stations.by_hand.view import split_bank
from jolvek.web.stations.shortlist.narrowing import filters_from, known_args
from jolvek.web.stations.shortlist.view import results, shortlist_page
from jolvek.web.stations.waters.form import WISH_WORDS

bp = Blueprint("shortlist", __name__, url_prefix="/enquiry/<int:enquiry_id>")
pages.add(
    bp,
    {
        "page": READER,
        "what_if": READER,
        "keep_weights": ADVISOR,
        "pin": ADVISOR,
        "take_first": ADVISOR,
        "unpin": ADVISOR,
    },
    saves_itself="keep_weights",
    changes_job=True,
)


def _state(s: stations.Standing) -> tuple[str, str]:
    return ("done", tr("setups pinned")) if s.pinned else ("empty", tr("nothing pinned yet"))


STATION = stations.add(3, "shortlist", msg("Shortlist"), _state)


@bp.get("/shortlist")
def page(enquiry_id: int) -> Any:
    """The field, the picks, the ranked list, the rejected; a fragment with the list alone when
    filters or weights move.
    """
    u, e = display.current(), stored_or_404(enquiry_id)
    pinned = setups.of_enquiry(conn(), enquiry_id)
    filters = filters_from(request.args, e.need, u)
    shelf = shelf_for(conn(), enquiry_id)
    if not matches.is_ready(e.need, shelf):
        matches.begin(e.need, shelf)
        products = sum(len(getattr(shelf, kind)) for kind in setups.ESSENTIALS.values())
        values = {"answer": quick_answer(e.need, u).answer, "products": products}
        template = (
            "stations/shortlist/_waiting.html"
            if is_fragment()
            else "stations/shortlist/waiting.html"
        )
        return show(template, frame(enquiry_id, "shortlist"), **values), 200
    match = answered(e.need, shelf)
    jobs = {p.key: work_out(e.need, p).job for p in pinned}
    first = results(e.need, match, filters, jobs, u)
    code = 422 if filters.refused else 200
    if is_fragment():
        return show("stations/shortlist/_list.html", first, e=e, alone=True), code
    whole = shortlist_page(e.need, match, first, u)
    f = frame(enquiry_id, "shortlist")
    values = {"words": WISH_WORDS, "as_kept": weight_values(e.need)}
    return show("stations/shortlist/page.html", f, first, whole, **values), code


WEIGHT_LABELS = {f"w_{key}": word for key, word in WISH_WORDS.items()}


def weight_values(need: Need) -> dict[str, str]:
    """What the sliders of the wishes are filled with, as kept."""
    return {f"w_{wish}": f"{weight:g}" for wish, weight in need.weights}


@bp.post("/shortlist/weights")
def keep_weights(enquiry_id: int) -> Any:
    """Keep the weights on trial with the enquiry."""
    filters = filters_from(request.form, stored_or_404(enquiry_id).need, display.current())
    refused = [why for key, why in filters.refused.items() if key.startswith("w_")]
    if refused:
        abort(422, refused[0])

    form = MultiDict({FILLED: request.args.get(FILLED, ""), **request.form})

    def weighed(e: Enquiry) -> Enquiry:
        kept_form = merged(form, weight_values(e.need), WEIGHT_LABELS)
        kept = filters_from(kept_form, e.need, display.current())
        return replace(e, need=replace(e.need, weights=tuple(kept.weights.items())))

    saving.change(enquiry_id, weighed)
    flash(tr("Weights kept."))
    return redirect(url_for("shortlist.page", enquiry_id=enquiry_id), 303)


@bp.get("/shortlist/what-if")
def what_if(enquiry_id: int) -> Any:
    """What a rejected product would do with one thing changed, as a sentence."""
    need, shelf = stored_or_404(enquiry_id).need, shelf_for(conn(), enquiry_id)
    kind, product, how = (request.args.get(k, "") for k in ("kind", "id", "how"))
    known = getattr(shelf, kind) if kind in setups.ESSENTIALS.values() else ()
    item = next((x for x in known if x.id == product), None)
    if item is None or how not in WHAT_IFS:
        abort(404)
    text = changed(need, shelf, kind, item, how, display.current())
    return render_template("stations/shortlist/_what_if.html", text=text)


def items_from(shelf: Shelf, form: Mapping[str, str]) -> dict[str, Item[Any]] | None:
    """The products named in a form, by kind; None where one that is needed is not on the shelf."""
    found = {
        kind: next((x for x in getattr(shelf, kinds) if x.id == form.get(kind)), None)
        for kind, kinds in setups.ESSENTIALS.items()
    }
    if None in (found["motor"], found["battery"], found["mount"]):
        return None
    return {kind: item for kind, item in found.items() if item}


def layout_from(form: Mapping[str, str], motor: Item[Any]) -> tuple[int, int, float | None]:
    """(series, parallel, shaft) in a form; raises ValueRefused for a bank there cannot be, and for
    a shaft that the motor does not come with.
    """
    packs = []
    for key in ("series", "parallel"):
        text = form.get(key, "1") or "1"
        if not text.isdecimal() or len(text) > 2:
            raise ValueRefused(f"setup.{key}", text, f"1 to {setups.MOST_PACKS_A_SIDE}")
        packs.append(int(text))
    shaft = _shaft(form.get("shaft_m", ""), motor)
    setups.check_layout(packs[0], packs[1], shaft)
    return packs[0], packs[1], shaft


def _shaft(text: str, motor: Item[Any]) -> float | None:
    """The shaft named, or the first that the motor comes with."""
    offered = motor.shafts_m
    if not text:
        return offered[0] if offered else None
    found = next((s for s in offered if text in (str(s), f"{s:g}")), None)
    if found is None:
        names = ", ".join(f"{s:g}" for s in offered) or tr("none: it is adjustable")
        raise ValueRefused("setup.shaft_m", text, names)
    return found


def fitting_in(form: Any) -> AsSet:
    """How a setup that comes back was fitted; raises JolvekError."""
    return as_set_from(loads(form.get("fitting") or "{}"))


@bp.post("/pin")
def pin(enquiry_id: int) -> Any:
    """Pin a setup to Side by side."""
    stored_or_404(enquiry_id)
    form = split_bank(request.form.to_dict())
    items = items_from(shelf_for(conn(), enquiry_id), form)
    if items is None:
        abort(422, tr("That setup is not in the catalogue any more."))
    layout = layout_from(form, items["motor"])
    try:
        fitting = fitting_in(request.form)
        letter = shop.setups.pin(conn(), saving.by(), enquiry_id, items, layout, fitting)
        session.pop("undo_unpin", None)
        flash(tr("Pinned as %(letter)s.", letter=letter))
    except setups.TooManyPinned as error:
        flash(f"{capital(str(error))}.")
    return redirect(_list(enquiry_id), 303)


@bp.post("/take-first")
def take_first(enquiry_id: int) -> Any:
    """Pin the first of the list, make it the current setup, and go on where one was."""
    need, shelf = stored_or_404(enquiry_id).need, shelf_for(conn(), enquiry_id)
    u = display.current()
    first = results(need, answered(need, shelf), filters_from({}, need, u), {}, u).rows
    items = items_from(shelf, first[0].pin) if first else None
    if items is None:
        flash(tr("No setup can be fitted to this boat: the shortlist says why."))
        return redirect(_list(enquiry_id), 303)
    layout = layout_from(first[0].pin, items["motor"])
    letter = shop.setups.pin(conn(), saving.by(), enquiry_id, items, layout, AsSet())
    shop.setups.choose(conn(), saving.by(), enquiry_id, letter)
    flash(tr("%(letter)s is the first pick and now the current setup.", letter=letter))
    then = request.form.get("then", "")
    there = then if then in stations.blueprints() else "side_by_side"
    return redirect(url_for(f"{there}.page", enquiry_id=enquiry_id), 303)


def _list(enquiry_id: int) -> str:
    """The list as it was narrowed where a form was sent from."""
    query = urlencode(known_args(request.form.get("filters", "")))
    way = url_for("shortlist.page", enquiry_id=enquiry_id)
    return f"{way}?{query}#list" if query else f"{way}#list"


@bp.post("/unpin")
def unpin(enquiry_id: int) -> Any:
    """Take a setup off."""
    stored_or_404(enquiry_id)
    letter = request.form.get("letter", "")
    gone = shop.setups.unpin(conn(), saving.by(), enquiry_id, letter)
    if gone is not None:
        parts = {p.kind: p.item.id for p in gone.parts}
        parts |= {"series": str(gone.series), "parallel": str(gone.parallel)}
        parts |= {"shaft_m": str(gone.shaft_m or "")}
        parts |= {"fitting": json.dumps(as_set_plain(gone.fitting))}
        session["undo_unpin"] = {"enquiry": enquiry_id, "letter": letter, "parts": parts}
        flash(tr("%(letter)s taken off.", letter=letter))
    back = request.form.get("back") == "side_by_side"
    there = url_for("side_by_side.page", enquiry_id=enquiry_id)
    return redirect(there if back else _list(enquiry_id), 303)
