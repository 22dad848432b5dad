"""Aftercare of one boat: what is due, what she did against what was worked out, her faults and
parts, and how her battery ages.
"""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from datetime import date

from markupsafe import Markup

from jolvek.core.base.messages import msg
from jolvek.core.care.due import Due, Season
from jolvek.core.care.faults import suspect_from_log
from jolvek.core.care.health import END
from jolvek.core.care.steps import Care, care_for, profile_of
from jolvek.core.fit.handover import pieces
from jolvek.core.trial.diagnosis import Suspected
from jolvek.store import care, due_list, handovers, owners, recalls, service_faults, spares
from jolvek.store.care import Charge, Trip
from jolvek.store.handovers import Serial
from jolvek.store.recalls import Letter
from jolvek.store.service_faults import ServiceFault
from jolvek.store.shop import Shop
from jolvek.store.spares import SpareKept, Swap
from jolvek.web.kit.dates import day
from jolvek.web.kit.display import counted, long_hours
from jolvek.web.kit.drawings import trips_chart
from jolvek.web.kit.language import tr
from jolvek.web.kit.worked import Worked
from jolvek.web.stations.aftercare.battery import Battery, battery

STATE_WORDS = {"overdue": msg("due"), "soon": msg("soon"), "later": msg("later")}


@dataclass(frozen=True)
class CarePage:
    """All that stands on the page."""

    answer: str
    due: tuple[Due, ...]
    each_trip: tuple[Care, ...]
    trips: tuple[tuple[Trip, str], ...]
    charges: tuple[Charge, ...]
    hours: float
    bars: Markup | None
    battery: Battery | None
    suspected: tuple[Suspected, ...]
    faults: tuple[ServiceFault, ...]
    serials: tuple[Serial, ...]
    swaps: tuple[Swap, ...]
    spares: tuple[SpareKept, ...]
    recalls: tuple[tuple[Letter, str], ...]
    owners: tuple[tuple[str, str, str], ...]
    parts: tuple[str, ...]


def season_of(shop: Shop) -> Season:
    """The shop's season."""
    return Season(shop.season_from, shop.season_to)


def due_of(
    conn: sqlite3.Connection, enquiry_id: int, hand: Worked, shop: Shop, today: date
) -> list[Due]:
    """What is due on a boat; nothing before she is in service."""
    return due_list.worked(conn, enquiry_id, profile_of(hand.fitted), season_of(shop), today)


def steps_of(conn: sqlite3.Connection, hand: Worked) -> tuple[Care, ...]:
    """All steps of a boat's care, with the shop's own words."""
    return care_for(profile_of(hand.fitted), due_list.edits(conn))


def page(
    conn: sqlite3.Connection, enquiry_id: int, hand: Worked, shop: Shop, today: date
) -> CarePage:
    """The page of one boat."""
    found = due_of(conn, enquiry_id, hand, shop, today)
    trips, charges = care.trips(conn, enquiry_id), care.charges(conn, enquiry_id)
    swaps = spares.swaps(conn, enquiry_id)
    began = care.began(conn, enquiry_id)
    packs = hand.fitted.bank.packs
    b = battery(hand, trips, charges, new_since(began, swaps, packs), today) if began else None
    usual_w = power_of_day(hand)
    shares = [s for s in (more_power(t, usual_w) for t in trips) if s is not None]
    aged = bool(b and b.health.high < END)
    return CarePage(
        _answer(found, began, b),
        tuple(found),
        tuple(c for c in steps_of(conn, hand) if c.kind == "trip"),
        tuple((t, against(t, usual_w)) for t in trips),
        tuple(charges),
        sum(t.hours for t in trips),
        bars=_bars(trips),
        battery=b,
        suspected=tuple(suspect_from_log(shares, aged)),
        faults=tuple(service_faults.of_enquiry(conn, enquiry_id)),
        serials=tuple(handovers.serials(conn, enquiry_id).values()),
        swaps=tuple(swaps),
        spares=tuple(spares.of_enquiry(conn, enquiry_id)),
        recalls=tuple(recalls.open_letters(conn, enquiry_id)),
        owners=tuple(owners.changes(conn, enquiry_id)),
        parts=tuple(x.what for x in pieces(hand.fitted)),
    )


def new_since(began: date, swaps: list[Swap], packs: int) -> date:
    """The day since which no pack of the bank is older: the handover, until every pack has been
    replaced.
    """
    latest = {}
    for s in reversed(swaps):
        latest[s.what] = date.fromisoformat(s.on_day)
    return min(latest.get(f"pack {i}", began) for i in range(1, packs + 1))


def _bars(trips: list[Trip]) -> Markup | None:
    """The hours of the last trips; nothing for fewer than three."""
    if len(trips) < 3:
        return None
    figures = [
        (day(t.on_day), f"{day(t.on_day)}, {long_hours(3600 * t.hours)}", t.hours)
        for t in reversed(trips)
    ]
    return trips_chart.trips_chart(figures, tr("Hours a trip"))


def _answer(found: list[Due], began: date | None, b: Battery | None) -> str:
    pressing = [d for d in found if d.state == "overdue"]
    if began is None:
        return tr("The boat is not in service yet: *hand it over*, or log its first trip.")
    if pressing:
        due = tr("*%(pressing)s* of care due.", pressing=counted(len(pressing), "step"))
    else:
        soonest = min((d.on for d in found if d.on), default=None)
        due = tr("Nothing is due before *%(day)s*.", day=day(soonest)) if soonest else ""
        due = due or tr("Nothing is due.")
    if b is None or not b.health.count:
        return due
    held = tr("The battery holds *%(share)s %%*.", share=f"{100 * b.health.capacity:.0f}")
    return f"{due} {held}"


def power_of_day(hand: Worked) -> float:
    """Mean W of the customer's day as worked out; 0 where no way is made."""
    run = hand.job.run
    return run.energy_wh / run.hours if run.hours else 0.0


def more_power(t: Trip, usual_w: float) -> float | None:
    """A trip's power by the hour over the one worked out, less one; None where it is not known."""
    if not t.energy_wh or not t.hours or not usual_w:
        return None
    return t.energy_wh / t.hours / usual_w - 1


def against(t: Trip, usual_w: float) -> str:
    """What a trip took against what the customer's day was worked out to take, by the hour."""
    share = more_power(t, usual_w)
    if share is None:
        return ""
    percent = round(100 * share)
    if not percent:
        return tr("as planned")
    return f"{percent:+d}\u00a0%"
