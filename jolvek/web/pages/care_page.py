"""Aftercare of one boat: what is due, what she did against what was worked out, how her battery
ages, and what that does to the customer's day.
"""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass, replace
from datetime import date

from jolvek.core.care.due import Due, Logged, Season, due
from jolvek.core.care.health import END, Health, Used, health
from jolvek.core.care.steps import Care, care_of
from jolvek.core.day.summed import run_day
from jolvek.store import care
from jolvek.store.care import Trip
from jolvek.store.shop import Shop
from jolvek.web.view.display import Units, counted, energy
from jolvek.web.view.worked import Worked

YEAR_DAYS = 365.25
STATE_WORDS = {"overdue": "due", "soon": "soon", "later": "later"}


@dataclass(frozen=True)
class CarePage:
    """All that stands on the page."""

    answer: str
    due: tuple[Due, ...]
    each_trip: tuple[Care, ...]
    trips: tuple[tuple[Trip, str], ...]
    hours: float
    health: Health | None
    health_told: tuple[str, ...]


def due_of(
    conn: sqlite3.Connection, enquiry_id: int, hand: Worked, shop: Shop, today: date
) -> list[Due]:
    """What is due on a boat; nothing before she is in service."""
    began = care.began(conn, enquiry_id)
    if began is None:
        return []
    log = [Logged(t.day, t.hours) for t in care.trips(conn, enquiry_id)]
    season = Season(shop.season_from, shop.season_to)
    steps = care_of(hand.fitted)
    return due(steps, began, log, care.acts(conn, enquiry_id), season, today)


def page(
    conn: sqlite3.Connection, enquiry_id: int, hand: Worked, shop: Shop, u: Units, today: date
) -> CarePage:
    """The page of one boat."""
    found = due_of(conn, enquiry_id, hand, shop, today)
    trips = care.trips(conn, enquiry_id)
    began = care.began(conn, enquiry_id)
    h = _health(hand, trips, began, today) if began else None
    pressing = [d for d in found if d.state == "overdue"]
    if began is None:
        answer = "She is not in service yet: *hand her over*, or log her first trip."
    elif pressing:
        answer = f"*{counted(len(pressing), 'step')}* of care due."
    else:
        soonest = min((d.on for d in found if d.on), default=None)
        answer = "Nothing is due." + (f" Next on *{soonest.isoformat()}*." if soonest else "")
    return CarePage(
        answer,
        tuple(found),
        tuple(c for c in care_of(hand.fitted) if c.kind == "trip"),
        tuple((t, against(t, hand)) for t in trips),
        sum(t.hours for t in trips),
        h,
        told(h, hand, today) if h else (),
    )


def against(t: Trip, hand: Worked) -> str:
    """What a trip took against what the customer's day was worked out to take, by the hour."""
    if not t.energy_wh or not t.hours:
        return ""
    run = run_day(hand.fitted)
    if not run.hours or not run.energy_wh:
        return ""
    share = t.energy_wh / t.hours / (run.energy_wh / run.hours) - 1
    return f"{100 * share:+.0f} % of power against the day as worked out"


def _health(hand: Worked, trips: list[Trip], began: date, today: date) -> Health:
    uses, cycles = [], 0.0
    rated = hand.fitted.bank.energy_wh
    for t in trips:
        years = max((t.day - began).days, 0) / YEAR_DAYS
        if t.energy_wh:
            cycles += t.energy_wh / rated
        if t.energy_wh and t.charge_from is not None and t.charge_to is not None:
            uses.append(Used(years, t.energy_wh, t.charge_from, t.charge_to))
    age = max((today - began).days, 1) / YEAR_DAYS
    depths = [u.depth for u in uses if u.depth > 0]
    depth = sum(depths) / len(depths) if depths else 0.5
    return health(hand.fitted.bank, uses, age, cycles / max(depth, 0.1))


def told(h: Health, hand: Worked, today: date) -> tuple[str, ...]:
    """The battery in words: capacity, what wore it, its end, and the customer's day then."""
    between = f"between {100 * h.low:.0f} and {100 * h.high:.0f} %"
    basis = counted(h.count, "trip") + " with charge and energy known"
    out = [
        f"Capacity about *{100 * h.capacity:.0f} %* of the rated"
        f" {energy(hand.fitted.bank.energy_wh)}, {between}; from {basis}.",
        f"Of its life {100 * h.by_cycles:.0f} % is used by cycles,"
        f" {100 * h.by_years:.0f} % by age.",
    ]
    if h.years_left < 30:
        sooner, later = today.year + int(h.sooner), today.year + int(h.later)
        end = today.year + int(h.years_left)
        out.append(f"At {100 * END:.0f} % about {end}, between {sooner} and {later}.")
    out.append(_day_then(h, hand, today))
    return tuple(x for x in out if x)


def _day_then(h: Health, hand: Worked, today: date) -> str:
    """What the day leaves now and in some years."""
    years = int(min(max(h.years_left, 1.0), 5.0))
    now = run_day(hand.fitted).left
    aged = replace(hand.fitted, ageing=min(max(1 - h.capacity_in(years), 0.0), 0.5))
    then = run_day(aged)
    if not then.makes_way:
        return ""
    return (
        f"In {today.year + years} the day leaves {100 * then.left:.0f} % of the charge,"
        f" not {100 * now:.0f} %{'' if then.home else ': no longer home with the reserve'}."
    )
