"""The dealer at work: jobs past the shortlist, so that no station of the demo is empty."""

from __future__ import annotations

import sqlite3
from dataclasses import replace
from datetime import date
from typing import Any

from jolvek import demo, shop
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.fit.as_set import AsSet
from jolvek.core.fit.fitted import Fitted
from jolvek.core.match.matching import Match, match
from jolvek.core.match.picks import picks
from jolvek.core.match.whole import parts_of
from jolvek.core.products.shelf import Item
from jolvek.core.trial.runs import Run
from jolvek.demo import in_service
from jolvek.shop import By
from jolvek.store.shop import Shop

# of the demo's enquiries, title, customer, stage, how many setups are pinned
JOBS = (
    (1, "Harbour ferry's own tender", "Oddny Varrick", "open", 2),
    (2, "Second launch for Lake Ullmere", "Ullmere Boats", "offered", 3),
    (4, "Pontoon for the bird warden", "Merrel Sound Trust", "ordered", 2),
    (5, "Club safety boat", "Ferrowick Sailing", "delivered", 1),
)
TWO_BOATS, FOR_HIRE = "Harbour ferry's own tender", "Second launch for Lake Ullmere"
LAUNCHES = ("Hire launch Perle", "Hire launch Kite", "Hire launch Otter")
HIRE: dict[str, Any] = {"runs_per_day": 4, "charges_per_day": 2, "days_a_season": 120.0}


OWN = Shop(
    name=demo.DEALER,
    address="Quay Lane 4, Merrel Sound",
    phone="555 0140",
    mail="quay@ferrowick.example",
    tax_number="FX 204 118",
    bank="XX00 0000 0000 2041",
    fitting_rate=78.0,
    wiring_rate=86.0,
    cable_price=0.65,
    piece_price=14.0,
    deposit=30.0,
    tax_rates=(25.0, 12.0),
    intake=True,
    opening="Thank you for asking us. This is what we would put on your boat, and why.",
    closing="Come by and try one at our pontoon before you decide.",
    terms="Half a year to bring back what does not fit. Fitted by appointment.",
)


RUN_AT = (0.3, 0.6, 1.0)  # of the power, both ways, in a stream
SLOWER, STREAM_M_S = 0.96, 0.2


def _tried(conn: sqlite3.Connection, number: int, f: Fitted) -> None:
    """A sea trial: a little slower than promised."""
    by = By("Ivar Brekk", "2026-11-07T13:00:00+00:00")
    trial = shop.trials.begin(conn, by, number, "A", f.need.hull.family)
    for share in RUN_AT:
        power = share * f.performance.power_limit_w
        speed = SLOWER * float(f.performance.speed_at_w(power))
        for heading, sign in (("out", 1), ("back", -1)):
            run = Run(power, speed + sign * STREAM_M_S, heading, by.at)
            shop.trials.add_runs(conn, trial.id, (run,), "typed", f"demo-{share}-{heading}")


def _pin(conn: sqlite3.Connection, by: By, number: int, found: Match, index: int) -> None:
    motor, battery, mount, charger, series, parallel, shaft = parts_of(found, index)
    parts: dict[str, Item[Any]] = {"motor": motor, "battery": battery, "mount": mount}
    parts |= {"charger": charger} if charger else {}
    shop.setups.pin(conn, by, number, parts, (series, parallel, shaft), AsSet())


def add(conn: sqlite3.Connection) -> None:
    """Put the jobs into a database that holds the demo's shelf; the first setup is in hand."""
    shelf, known = demo.shelf(), demo.enquiries()
    shop.settings.change(conn, {}, lambda _: (OWN, None))
    for day, (which, title, customer, stage, pins) in enumerate(JOBS):
        made = replace(known[which], title=title, customer=customer)
        if title == FOR_HIRE:
            made = replace(made, need=replace(made.need, day=replace(made.need.day, **HIRE)))
        by = By("", f"2026-11-{14 - 2 * day:02d}T10:20:00")
        number = shop.enquiries.begin(conn, by, made)
        found = match(made.need, shelf)
        best = list(dict.fromkeys(p.index for p in picks(found)))
        for index in best[:pins]:
            _pin(conn, by, number, found, index)
        shop.setups.choose(conn, by, number, "A")
        if stage == "delivered":
            fitted = Fitted(made.need, *parts_of(found, best[0]))
            _tried(conn, number, fitted)
            in_service.sailed(conn, number, fitted)
            in_service.failed(conn, number, fitted, "vibrates", date(2026, 7, 12))
        shop.offers.set_stage(conn, By("", f"2026-11-{15 - 2 * day:02d}T16:40:00"), number, stage)
        if title == TWO_BOATS:
            shop.boats.add_boat(conn, By("", f"2026-11-{14 - 2 * day:02d}T10:50:00"), number)
        if title == FOR_HIRE:
            _fleet(conn, made, found, best[0])


def _fleet(conn: sqlite3.Connection, made: Enquiry, found: Match, index: int) -> None:
    """The hire launches that the same customer has already, in their second season."""
    fitted, numbers = Fitted(made.need, *parts_of(found, index)), []
    for i, name in enumerate(LAUNCHES):
        launch = replace(made, title=name, mail="hire@ullmere.example")
        by = By("", f"2026-10-{20 - i:02d}T09:00:00")
        number = shop.enquiries.begin(conn, by, launch)
        _pin(conn, by, number, found, index)
        shop.setups.choose(conn, by, number, "A")
        in_service.sailed(conn, number, fitted, 6 + i)
        delivered = By("", f"2026-10-{21 - i:02d}T09:00:00")
        shop.offers.set_stage(conn, delivered, number, "delivered")
        numbers.append(number)
    in_service.failed(conn, numbers[0], fitted, "wet", date(2026, 6, 3))
    in_service.failed(conn, numbers[2], fitted, "vibrates", date(2026, 8, 20))
    in_service.booked(conn, numbers)
