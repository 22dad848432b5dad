"""Station 2, Waters: the day in legs, rules of the place, energy, wishes and must-haves; which
demand decides.
"""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from flask import Blueprint, flash, redirect, render_template, request, url_for

from jolvek.core.base.errors import ValueRefused
from jolvek.core.enquiry.battery_schools import battery_schools
from jolvek.core.enquiry.demands import demands, hardest, over_limit
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.enquiry.sizing import size
from jolvek.core.predict.solar import Panels, sunshine
from jolvek.store import enquiries
from jolvek.store.db import transaction
from jolvek.web import conn, is_fragment, saving
from jolvek.web.forms.day_form import MOST_LEGS, WISH_WORDS, DayForm, need_from, values_of
from jolvek.web.forms.fields import refuse_at_field
from jolvek.web.stations.boat import shared, stored_or_404

bp = Blueprint("waters", __name__, url_prefix="/enquiry/<int:enquiry_id>")


def _figures(need: Need) -> dict[str, Any]:
    sizing = size(need)
    rows = demands(need, sizing)
    day = need.day
    sun = (
        sunshine(
            Panels(day.solar_w, day.sky),
            day.latitude_deg,
            day.longitude_deg,
            day.date,
            round(day.longitude_deg / 15),
        )
        if day.solar_w
        else None
    )
    return {
        "sizing": sizing,
        "demands": rows,
        "hardest": hardest(rows),
        "too_fast": over_limit(day),
        "sun": sun,
        "need": need,
        "choices_made": battery_schools(need),
    }


def _shown_legs(form: DayForm) -> int:
    """How many rows of legs to show: those filled and one more."""
    filled = [
        i
        for i in range(1, MOST_LEGS + 1)
        if any(form[f"leg{i}_{k}"]._value() for k in ("distance", "duration", "speed"))
    ]
    return min(max(filled, default=0) + 1, MOST_LEGS)


@bp.get("/waters")
def page(enquiry_id: int) -> Any:
    """The form as kept."""
    more = shared(enquiry_id, "waters")
    stored = more["e"]
    form = DayForm(formdata=None, data={**values_of(stored.need), "changed": stored.changed_at})
    return render_template(
        "waters/page.html",
        form=form,
        rows=_shown_legs(form),
        words=WISH_WORDS,
        **{**more, **_figures(stored.need)},
    )


@bp.post("/waters")
def save(enquiry_id: int) -> Any:
    """Keep the form (a fragment for autosave), or give it back with what was typed."""
    before = stored_or_404(enquiry_id)
    form = DayForm(data=values_of(before.need))
    need = _read(form, before.need)
    kept, clash = saving.keep(
        enquiry_id,
        before,
        replace(before.enquiry, need=need) if need else None,
        request.form.get("override") or form.changed.data,
    )
    if kept:
        form.changed.data = kept
    if is_fragment():
        return render_template(
            "waters/_figures.html",
            form=form,
            e=before,
            kept=kept,
            clash=clash,
            refused=form.errors,
            **_figures(need or before.need),
        ), (200 if kept else 422)
    if kept:
        flash("Kept.")
        return redirect(url_for("waters.page", enquiry_id=enquiry_id), 303)
    more = shared(enquiry_id, "waters")
    return (
        render_template(
            "waters/page.html",
            form=form,
            rows=_shown_legs(form),
            words=WISH_WORDS,
            clash=clash,
            **{**more, **_figures(before.need)},
        ),
        422,
    )


@bp.post("/waters/legs")
def legs(enquiry_id: int) -> Any:
    """Make legs: there and back out of the day, the way back added, or none."""
    stored = stored_or_404(enquiry_id)
    day = legs_made(stored.need.day, request.form.get("make", ""))
    with transaction(conn()) as c:
        enquiries.save(
            c,
            enquiry_id,
            replace(stored.enquiry, need=replace(stored.need, day=day)),
            saving.now(),
        )
    return redirect(url_for("waters.page", enquiry_id=enquiry_id) + "#legs", 303)


def legs_made(day: Day, how: str) -> Day:
    """The day with legs made in one gesture: `there` (out and back of the day's distance), `back`
    (all legs reversed), `none`.
    """
    if how == "none":
        return replace(day, legs=())
    if how == "back" and day.legs and 2 * len(day.legs) <= MOST_LEGS:
        return day.with_legs((*day.legs, *(leg.back for leg in reversed(day.legs))))
    if how == "there" and not day.legs:
        out = replace(day.trip[0], name="out", distance_m=day.distance_m / 2)
        return day.with_legs((out, replace(out.back, name="home")))
    return day


def _read(form: DayForm, before: Need) -> Need | None:
    if not form.validate():
        return None
    try:
        return need_from(form, before)
    except ValueRefused as error:
        name = error.key if error.key in form else None
        if name:
            form[name].errors = [*form[name].errors, "type a distance or a time"]
        else:
            refuse_at_field(form, error)
        return None
