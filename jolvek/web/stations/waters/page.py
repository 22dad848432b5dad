"""Station 2, Waters: the day in legs, rules of the place, energy, wishes and must-haves."""

from __future__ import annotations

import secrets
from dataclasses import replace
from typing import Any

from flask import Blueprint, flash, redirect, url_for

from jolvek.core.base.messages import msg
from jolvek.core.day.scenario import turn_index
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.enquiry.need import MOST_LEGS, Day, Leg
from jolvek.web import saving
from jolvek.web.kit import display, pages, stations
from jolvek.web.kit.fields.chosen import chosen
from jolvek.web.kit.fields.reading import read_form
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, READER
from jolvek.web.shared import frame, is_fragment, show, stored_or_404
from jolvek.web.stations.waters import legs as leg_rows
from jolvek.web.stations.waters.charging import charging_of
from jolvek.web.stations.waters.form import WISH_WORDS, DayForm, enquiry_from, values_of
from jolvek.web.stations.waters.view import waters_page

bp = Blueprint("waters", __name__, url_prefix="/enquiry/<int:enquiry_id>")
pages.add(
    bp,
    {
        "page": READER,
        "legs": ADVISOR,
        "answer": ADVISOR,
        "save": ADVISOR,
    },
    saves_itself="save",
    changes_job=True,
)
GESTURES = ("there", "back", "stay", "none")
LEAST_STREAM_M_S = 0.26  # half a knot, where no current is given
STAY_S = 3600.0  # that a place is held, until somebody says how long


def _state(s: stations.Standing) -> tuple[str, str]:
    if s.need.day_blocked:
        return "blocked", tr("a current as fast as the boat")
    legs = len(s.need.day.legs)
    return "done", tr("%(legs)s legs", legs=legs) if legs else tr("speed and distance are given")


STATION = stations.add(2, "waters", msg("Waters"), _state)


def _page(enquiry_id: int, form: DayForm | None = None, code: int = 200, **more: Any) -> Any:
    f = frame(enquiry_id, "waters")
    if form is None:
        page = secrets.token_hex(8)
        values = {**values_of(f.e.enquiry), "changed": f.e.changed_at, "page": page}
        form = DayForm(formdata=None, data=values)
    figures = waters_page(f.need, display.current())
    shown = leg_rows.shown_rows(form)
    return show(
        "stations/waters/page.html",
        f,
        figures,
        form=form,
        legs=shown,
        words=WISH_WORDS,
        charging=charging_of(f.card.in_hand),
        **more,
    ), code


@bp.get("/waters")
def page(enquiry_id: int) -> Any:
    """The form as kept."""
    return _page(enquiry_id)


@bp.post("/waters")
def save(enquiry_id: int) -> Any:
    """Keep what is valid of the form (a fragment for autosave), and say what is not."""
    stored_or_404(enquiry_id)
    kept, form = saving.keep_form(enquiry_id, _read)
    form.changed.data = kept.at
    if is_fragment():
        f = frame(enquiry_id, "waters")
        more = {"form": form, "kept": kept, "charging": charging_of(f.card.in_hand)}
        figures = waters_page(f.need, display.current())
        return show("stations/waters/_saved.html", f, figures, **more), kept.code
    if kept.code != 200 or kept.unfinished:
        return _page(enquiry_id, form, 422, kept=kept)
    flash(tr("Saved."))
    return redirect(url_for("waters.page", enquiry_id=enquiry_id), 303)


@bp.post("/waters/answer")
def answer(enquiry_id: int) -> Any:
    """The answer to what stands in the form; nothing of it is kept."""
    figures = waters_page(saving.answer_to(enquiry_id, _read), display.current())
    return show("stations/waters/_answered.html", figures)


def _read(base: Enquiry) -> tuple[Enquiry, DayForm]:
    form = DayForm(data=values_of(base))
    return read_form(form, lambda: enquiry_from(form, base), base), form


@bp.post("/waters/legs")
def legs(enquiry_id: int) -> Any:
    """Make legs: there and back out of the day, the way back added, or none."""
    stored_or_404(enquiry_id)
    how = chosen("make", GESTURES)

    def made(e: Enquiry) -> Enquiry:
        return replace(e, need=replace(e.need, day=legs_made(e.need.day, how)))

    saving.change(enquiry_id, made)
    return redirect(url_for("waters.page", enquiry_id=enquiry_id) + "#legs", 303)


def legs_made(day: Day, how: str) -> Day:
    """The day with legs made in one gesture: `there` (out and back as the day is), `back` (all legs
    reversed but places that are held), `stay` (a place held in the middle), `none`.
    """
    if how == "none":
        return replace(day, legs=())
    if how == "stay" and len(day.trip) < MOST_LEGS:
        trip, middle = day.trip, turn_index(day.trip)
        against = max(day.current_m_s, LEAST_STREAM_M_S)
        stay = Leg(tr("holding the place"), against, None, STAY_S, against)
        return day.with_legs((*trip[:middle], stay, *trip[middle:]))
    if how == "back" and day.legs and 2 * len(day.legs) <= MOST_LEGS:
        home = (leg.back for leg in reversed(day.legs) if not leg.stays)
        return day.with_legs((*day.legs, *home))
    return day.with_legs(day.trip) if how == "there" and not day.legs else day
