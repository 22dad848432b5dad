"""Station 3, Shortlist: setups from the shelf that fit, ranked, and why the others fell out."""

from __future__ import annotations

from collections import defaultdict
from typing import Any

from flask import Blueprint, abort, flash, redirect, render_template, request, url_for

from jolvek.core.matching import Match
from jolvek.core.ranking import picks, ranked, steps
from jolvek.core.rulebook import RULES
from jolvek.core.shelf import Shelf
from jolvek.store import enquiries, setups
from jolvek.store.db import transaction
from jolvek.web import conn, workings
from jolvek.web.boat import shared, stored_or_404
from jolvek.web.keeping import now

bp = Blueprint("shortlist", __name__, url_prefix="/enquiry/<int:enquiry_id>")
GROUPS = {"day": "Does not do the day", "limits": "Plate and approvals", "fitting": "Does not fit", "electrics": "Volts and amps"}


def _rejected(match: Match) -> list[tuple[str, list[Any]]]:
    groups: dict[str, list[Any]] = defaultdict(list)
    shelf = match.shelf
    for items, reasons in ((shelf.motors, match.motor_reasons), (shelf.batteries, match.battery_reasons),
                           (shelf.mounts, match.mount_reasons), (shelf.chargers, match.charger_reasons)):
        for i, finding in reasons.items():
            groups[RULES[finding.rule].topic].append((items[i], finding))
    return [(GROUPS.get(topic, topic.capitalize()), groups[topic]) for topic in (*GROUPS, *(set(groups) - set(GROUPS)))
            if topic in groups]


@bp.get("/shortlist")
def page(enquiry_id: int) -> Any:
    """The picks, the ranked list, the rejected."""
    more = shared(enquiry_id, "shortlist")
    match = workings.matched(more["need"], workings.shelf_of(conn()))
    named = defaultdict(list)
    for pick in picks(match):
        named[pick.index].append(pick.title)
    order = list(named) + [i for i in ranked(match, 14) if i not in named]
    rows = [workings.row(match, i, "; ".join(named.get(i, []))) for i in order[:16]]
    return render_template("shortlist/page.html", rows=rows, rejected=_rejected(match), total=match.field.price.size,
                           doing=int(match.field.does_day.sum()), letters={p.key: p.letter for p in more["pinned"]},
                           steps=[(s, workings.row(match, s.index)) for s in steps(match)], **more)


def _items(shelf: Shelf, form: Any) -> dict[str, Any] | None:
    kinds = {"motor": shelf.motors, "battery": shelf.batteries, "mount": shelf.mounts, "charger": shelf.chargers}
    found = {kind: next((x for x in items if x.id == form.get(kind)), None) for kind, items in kinds.items()}
    if None in (found["motor"], found["battery"], found["mount"]):
        return None
    return {kind: item for kind, item in found.items() if item}


@bp.post("/pin")
def pin(enquiry_id: int) -> Any:
    """Pin a setup to Side by side."""
    stored_or_404(enquiry_id)
    items = _items(workings.shelf_of(conn()), request.form)
    series, parallel = (request.form.get(k, type=int) for k in ("series", "parallel"))
    if items is None or not series or not parallel or not (1 <= series <= 16 and 1 <= parallel <= 16):
        abort(422, "That setup is not on the shelf any more.")
    try:
        with transaction(conn()) as c:
            letter = setups.pin(c, enquiry_id, items, series, parallel, request.form.get("shaft_m", type=float))
            enquiries.touch(c, enquiry_id, now())
        flash(f"Pinned as {letter}.")
    except setups.TooManyPinned as error:
        flash(f"{str(error).capitalize()}.")
    return redirect(url_for("shortlist.page", enquiry_id=enquiry_id) + "#list", 303)


@bp.post("/unpin")
def unpin(enquiry_id: int) -> Any:
    """Take a setup off."""
    stored_or_404(enquiry_id)
    letter = request.form.get("letter", "")
    with transaction(conn()) as c:
        setups.unpin(c, enquiry_id, letter)
        enquiries.touch(c, enquiry_id, now())
    flash(f"{letter} taken off.")
    target = "side_by_side.page" if request.form.get("back") == "side_by_side" else "shortlist.page"
    return redirect(url_for(target, enquiry_id=enquiry_id), 303)
