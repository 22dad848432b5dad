"""Station 3, Shortlist: the field of all setups, narrowed and ranked; why the others fell out, and
what if.
"""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass, replace
from typing import Any

import numpy as np
from flask import Blueprint, abort, flash, redirect, render_template, request, session, url_for

from jolvek.core.base import units
from jolvek.core.enquiry.need import WISHES, Need
from jolvek.core.match.matching import Match
from jolvek.core.match.matching import match as run_match
from jolvek.core.match.ranking import ranked
from jolvek.core.products.shelf import Item, Shelf
from jolvek.core.rules.rulebook import RULES
from jolvek.store import enquiries, setups
from jolvek.store.db import transaction
from jolvek.web import conn, is_fragment
from jolvek.web.drawings.field_chart import field_chart
from jolvek.web.forms.day_form import WISH_WORDS
from jolvek.web.saving import now
from jolvek.web.stations.boat import shared, stored_or_404
from jolvek.web.view import display
from jolvek.web.view.worked import answered, row, shelf_of

bp = Blueprint("shortlist", __name__, url_prefix="/enquiry/<int:enquiry_id>")
GROUPS = {
    "day": "Does not do the day",
    "limits": "Plate and approvals",
    "fitting": "Does not fit",
    "electrics": "Volts and amps",
}
FACETS = {
    "volt": "Volts",
    "place": "Battery",
    "chem": "Chemistry",
    "mount": "Mount",
    "maker": "Maker of the motor",
}
TRIALS = {
    "too-slow": "slower",
    "too-slow-all": "slower",
    "too-short": "nearer",
    "day-energy": "nearer",
    "shaft-short": "shaft",
}
WHAT_IFS = {"slower": "10 % less speed", "shaft": "a longer shaft", "nearer": "10 % less distance"}


@dataclass(frozen=True)
class Filters:
    """What the address asks to narrow to, and the weights on trial."""

    facets: dict[str, str]
    price_max: float | None
    price_min: float | None
    range_min_m: float | None
    range_max_m: float | None
    weights: dict[str, float]

    @property
    def any(self) -> bool:
        """Whether anything is narrowed."""
        return bool(self.facets) or any(
            x is not None
            for x in (self.price_max, self.price_min, self.range_min_m, self.range_max_m)
        )


def filters_from(args: Any, need: Need) -> Filters:
    """Read the filters; what cannot be read is left out."""

    def number(key: str) -> float | None:
        try:
            value = float(args.get(key, "").replace(",", ".").replace(" ", ""))
        except ValueError:
            return None
        return value if 0 <= value < 1e9 else None

    metres = 1 / units.to_unit(1.0, "distance", display.current()["distance"])
    low, high = number("range_min"), number("range_max")
    weights = {
        w: min(value, 10.0) if (value := number(f"w_{w}")) is not None else need.weight(w)
        for w in WISHES
    }
    return Filters(
        {k: args[k] for k in FACETS if args.get(k)},
        number("price_max"),
        number("price_min"),
        None if low is None else low * metres,
        None if high is None else high * metres,
        weights,
    )


def facet_values(match: Match) -> dict[str, tuple[np.ndarray, list[str]]]:
    """Facet → (value index of each candidate (N,), names)."""
    f, d, s, shelf = match.field, match.drives, match.supplies, match.shelf
    motor, battery = d.motor[f.drive], s.battery[f.supply]

    def named(per_item: list[str], index: np.ndarray) -> tuple[np.ndarray, list[str]]:
        names = sorted(set(per_item))
        return (
            np.array([names.index(x) for x in per_item], dtype=int)[index] if per_item else index
        ), names

    return {
        "volt": named([f"{item.spec.voltage_v or 0:g} V" for item in shelf.motors], motor),
        "place": named(
            ["clips on" if item.pack_ids else "separate" for item in shelf.motors], motor
        ),
        "chem": named([item.spec.chem.name for item in shelf.batteries], battery),
        "mount": named([item.spec.general.name for item in shelf.mounts], d.mount[f.drive]),
        "maker": named([item.maker for item in shelf.motors], motor),
    }


def narrowed(match: Match, filters: Filters) -> np.ndarray:
    """Which candidates (N,) the filters leave."""
    f = match.field
    keep = np.ones(f.price.size, dtype=bool)
    if filters.facets:
        values = facet_values(match)
        for key, wanted in filters.facets.items():
            index, names = values[key]
            keep &= index == (names.index(wanted) if wanted in names else -1)
    for limit, values_, above in (
        (filters.price_max, f.price, False),
        (filters.price_min, f.price, True),
        (filters.range_min_m, f.range_m, True),
        (filters.range_max_m, f.range_m, False),
    ):
        if limit is not None:
            keep &= values_ >= limit if above else values_ <= limit
    return keep


def _results(need: Need, filters: Filters) -> dict[str, Any]:
    answer = answered(need, shelf_of(conn()))
    match = replace(answer.match, need=replace(need, weights=tuple(filters.weights.items())))
    keep = narrowed(match, filters)
    named, numbers = defaultdict(list), {}
    for pick in answer.picks:
        numbers.setdefault(pick.index, len(numbers) + 1)
        if keep[pick.index]:
            named[pick.index].append(pick.title)
    best = ranked(match, 14, keep=keep, values=answer.measures)
    order = list(named) + [i for i in best if i not in named]
    rows = [row(match, i, "; ".join(named.get(i, []))) for i in order[:16]]
    return {
        "rows": rows,
        "numbers": numbers,
        "left": int((keep & match.field.does_day).sum()),
        "filters": filters,
        "answer": answer,
        "because": {r.index: _because(answer.measures, filters.weights, r.index) for r in rows},
        "match": match,
        "keep": keep,
    }


def _because(values: dict[str, np.ndarray], weights: dict[str, float], i: int) -> str:
    """Why a setup stands where it stands: the wishes that lift it most and the one that holds it
    back.
    """
    marks = sorted(
        ((weights[w] * float(values[w][i]), w) for w in WISHES if weights[w]), reverse=True
    )
    if not marks:
        return ""
    words = ", ".join(f"{WISH_WORDS[w]} {100 * values[w][i]:.0f}" for _, w in marks[:3])
    return f"{words} of 100"


def _rejected(match: Match) -> list[tuple[str, list[Any]]]:
    groups: dict[str, list[Any]] = defaultdict(list)
    shelf = match.shelf
    for kind, reasons in (
        ("motors", match.motor_reasons),
        ("batteries", match.battery_reasons),
        ("mounts", match.mount_reasons),
        ("chargers", match.charger_reasons),
    ):
        for i, finding in reasons.items():
            groups[RULES[finding.rule].topic].append(
                (kind, getattr(shelf, kind)[i], finding, TRIALS.get(finding.rule, ""))
            )
    return [
        (GROUPS.get(topic, topic.capitalize()), groups[topic])
        for topic in (*GROUPS, *(set(groups) - set(GROUPS)))
        if topic in groups
    ]


@bp.get("/shortlist")
def page(enquiry_id: int) -> Any:
    """The field, the picks, the ranked list, the rejected; a fragment with the list alone when
    filters or weights move.
    """
    if is_fragment():
        need = stored_or_404(enquiry_id).need
        more: dict[str, Any] = {
            "e": {"id": enquiry_id},
            "need": need,
            "pinned": setups.of_enquiry(conn(), enquiry_id),
        }
    else:
        more = shared(enquiry_id, "shortlist")
        need = more["need"]
    results = _results(need, filters_from(request.args, need))
    more |= {**results, "letters": {p.key: p.letter for p in more["pinned"]}}
    if is_fragment():
        return render_template("shortlist/_list.html", **more)
    match, answer = results["match"], results["answer"]
    chart = (
        field_chart(match, answer.front, answer.picks, results["keep"], display.current())
        if match.field.price.size
        else ""
    )
    facets = {k: (FACETS[k], names) for k, (_, names) in facet_values(match).items()}
    return render_template(
        "shortlist/page.html",
        rejected=_rejected(match),
        total=match.field.price.size,
        chart=chart,
        words=WISH_WORDS,
        doing=int(match.field.does_day.sum()),
        facets=facets,
        what_ifs=WHAT_IFS,
        steps=[(s, row(match, s.index)) for s in answer.steps],
        **more,
    )


@bp.post("/shortlist/weights")
def keep_weights(enquiry_id: int) -> Any:
    """Keep the weights on trial with the enquiry."""
    stored = stored_or_404(enquiry_id)
    weights = filters_from(request.form, stored.need).weights
    with transaction(conn()) as c:
        enquiries.save(
            c,
            enquiry_id,
            replace(stored.enquiry, need=replace(stored.need, weights=tuple(weights.items()))),
            now(),
        )
    flash("Weights kept.")
    return redirect(url_for("shortlist.page", enquiry_id=enquiry_id), 303)


@bp.get("/shortlist/what-if")
def what_if(enquiry_id: int) -> Any:
    """What a rejected product would do with one thing changed, as a sentence."""
    need, shelf = stored_or_404(enquiry_id).need, shelf_of(conn())
    kind, product, how = (
        request.args.get("kind", ""),
        request.args.get("id", ""),
        request.args.get("how", ""),
    )
    known = getattr(shelf, kind) if kind in ("motors", "batteries", "mounts", "chargers") else ()
    item = next((x for x in known if x.id == product), None)
    if item is None or how not in WHAT_IFS:
        abort(404)
    return render_template(
        "shortlist/_what_if.html", text=changed(need, shelf, kind, item, how), product=product
    )


def changed(need: Need, shelf: Shelf, kind: str, item: Item[Any], how: str) -> str:
    """The sentence for one what-if, worked out by matching the product alone against the changed
    enquiry.
    """
    u, day = display.current(), need.day
    if how == "shaft":
        longest = max((*item.shafts_m, item.spec.shaft_length_m or 0), default=0.0)
        tried = next((s for s in (0.381, 0.508, 0.635, 0.762) if s > longest), longest + 0.127)
        item = replace(item, shafts_m=(tried,))
        told = f"With a shaft of {1000 * tried:.0f} mm"
    elif how == "slower":
        legs = tuple(replace(leg, speed_m_s=0.9 * leg.speed_m_s) for leg in day.legs)
        day = replace(day, speed_m_s=0.9 * day.speed_m_s, legs=legs)
        told = f"At {u.full(day.speed_m_s, 'speed')}"
    else:
        legs = tuple(
            replace(leg, distance_m=None if leg.distance_m is None else 0.9 * leg.distance_m)
            for leg in day.legs
        )
        day = replace(day, distance_m=0.9 * day.distance_m, legs=legs)
        told = f"For {u.full(day.distance_m, 'distance')}"
    alone = replace(shelf, **{kind: (item,)})
    if kind == "motors" and item.pack_ids:
        alone = replace(alone, batteries=tuple(b for b in shelf.batteries if b.id in item.pack_ids))
    match = run_match(replace(need, day=day), alone)
    if match.field.does_day.any():
        r = row(match, ranked(match, 1)[0])
        return (
            f"{told} it does the day: {r.motor.title} with {r.bank_text},"
            f" {u.full(r.range_m, 'distance')}, {display.money(r.price)}."
        )
    reasons = match.motor_reasons if kind == "motors" else match.battery_reasons
    return f"{told} still not. " + (u.said(next(iter(reasons.values()))).text if reasons else "")


def items_from(shelf: Shelf, form: Any) -> dict[str, Item[Any]] | None:
    """The products named in a form, by kind; None where one that is needed is not on the shelf."""
    kinds = {
        "motor": shelf.motors,
        "battery": shelf.batteries,
        "mount": shelf.mounts,
        "charger": shelf.chargers,
    }
    found = {
        kind: next((x for x in items if x.id == form.get(kind)), None)
        for kind, items in kinds.items()
    }
    if None in (found["motor"], found["battery"], found["mount"]):
        return None
    return {kind: item for kind, item in found.items() if item}


@bp.post("/pin")
def pin(enquiry_id: int) -> Any:
    """Pin a setup to Side by side."""
    stored_or_404(enquiry_id)
    items = items_from(shelf_of(conn()), request.form)
    series, parallel = (request.form.get(k, type=int) for k in ("series", "parallel"))
    if (
        items is None
        or not series
        or not parallel
        or not (1 <= series <= 16 and 1 <= parallel <= 16)
    ):
        abort(422, "That setup is not on the shelf any more.")
    try:
        with transaction(conn()) as c:
            letter = setups.pin(
                c, enquiry_id, items, series, parallel, request.form.get("shaft_m", type=float)
            )
            enquiries.touch(c, enquiry_id, now())
        session.pop("undo_unpin", None)
        flash(f"Pinned as {letter}.")
    except setups.TooManyPinned as error:
        flash(f"{str(error).capitalize()}.")
    return redirect(url_for("shortlist.page", enquiry_id=enquiry_id) + "#list", 303)


@bp.post("/unpin")
def unpin(enquiry_id: int) -> Any:
    """Take a setup off."""
    stored_or_404(enquiry_id)
    letter = request.form.get("letter", "")
    gone = next((p for p in setups.of_enquiry(conn(), enquiry_id) if p.letter == letter), None)
    with transaction(conn()) as c:
        setups.unpin(c, enquiry_id, letter)
        enquiries.touch(c, enquiry_id, now())
    if gone is not None:
        session["undo_unpin"] = {
            "enquiry": enquiry_id,
            "letter": letter,
            "series": gone.series,
            "parallel": gone.parallel,
            "shaft_m": gone.shaft_m or "",
            **{p.kind: p.item.id for p in gone.parts},
        }
        flash(f"{letter} taken off.")
    target = "side_by_side.page" if request.form.get("back") == "side_by_side" else "shortlist.page"
    return redirect(url_for(target, enquiry_id=enquiry_id), 303)
