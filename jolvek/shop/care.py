"""A boat in service: care done, trips and charges, faults, parts replaced, spares, bookings."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Iterable
from datetime import date

from jolvek.core.care.due import Season
from jolvek.core.care.steps import Care, Edit, Profile
from jolvek.shop.acting import By
from jolvek.store import bookings, care, care_edits, due_list, service_faults, spares
from jolvek.store.bookings import Booking
from jolvek.store.care import Charge, Trip
from jolvek.store.db import transaction
from jolvek.store.service_faults import ServiceFault
from jolvek.store.spares import SpareKept, Swap


def done(conn: sqlite3.Connection, by: By, enquiry_id: int, step: str, on: date, note: str) -> None:
    """A step of care was done. Raises JolvekError."""
    with transaction(conn) as c:
        care.act(c, enquiry_id, step, on, by.who, note, by.at)


def log_trips(
    conn: sqlite3.Connection,
    by: By,
    enquiry_id: int,
    trips: Iterable[Trip],
    charges: Iterable[Charge] = (),
    known: Callable[[list[Trip]], Iterable[str]] = lambda _: (),
) -> int:
    """Keep trips and charges, each once; returns how many trips are new. `known` names the trips of
    a log that are there already.
    """
    with transaction(conn) as c:
        there = set(known(care.trips(c, enquiry_id)))
        new = sum(care.add_trip(c, enquiry_id, t, by.at) for t in trips if t.op not in there)
        plugged = {(x.on_day, x.wall_wh, x.charge_to) for x in care.charges(c, enquiry_id)}
        for x in charges:
            if (x.on_day, x.wall_wh, x.charge_to) not in plugged:
                care.add_charge(c, enquiry_id, x, by.at)
        return new


def add_charge(conn: sqlite3.Connection, by: By, enquiry_id: int, charge: Charge) -> None:
    """Keep a charge as typed."""
    with transaction(conn) as c:
        care.add_charge(c, enquiry_id, charge, by.at)


def drop_trip(conn: sqlite3.Connection, enquiry_id: int, trip_id: int) -> None:
    """Take a trip out of the log."""
    with transaction(conn) as c:
        care.drop_trip(c, enquiry_id, trip_id)


def report_fault(conn: sqlite3.Connection, enquiry_id: int, fault: ServiceFault) -> None:
    """A fault seen in service, by the shop or by the owner. Raises JolvekError."""
    with transaction(conn) as c:
        service_faults.add(c, enquiry_id, fault)


def replace_part(
    conn: sqlite3.Connection, by: By, enquiry_id: int, swap: Swap, warranty_to: str
) -> None:
    """A part is replaced, with the new number and until when its warranty runs."""
    with transaction(conn) as c:
        spares.swap(c, enquiry_id, swap, warranty_to, by.at)


def add_spare(conn: sqlite3.Connection, by: By, enquiry_id: int, what: str, good_to: str) -> None:
    """A spare with the day until which it is good."""
    with transaction(conn) as c:
        spares.add(c, enquiry_id, SpareKept(0, what, good_to), by.who, by.at)


def renew_spare(conn: sqlite3.Connection, enquiry_id: int, spare_id: int, good_to: str) -> None:
    """A new one lies aboard."""
    with transaction(conn) as c:
        spares.renew(c, enquiry_id, spare_id, good_to)


def drop_spare(conn: sqlite3.Connection, enquiry_id: int, spare_id: int) -> None:
    """It is aboard no more."""
    with transaction(conn) as c:
        spares.drop(c, enquiry_id, spare_id)


def keep_step(
    conn: sqlite3.Connection,
    by: By,
    product: str,
    edit: Callable[[list[Edit]], tuple[str, Care | None]],
) -> str:
    """The shop's word on a step of care, for all boats or those with a product: `edit` gives its
    key and what it is, None where the shop drops it. Returns the key.
    """
    with transaction(conn) as c:
        key, step = edit(care_edits.all_edits(c))
        if key:
            care_edits.keep(c, Edit(product, key, step), by.who, by.at)
        return key


def usual_step(conn: sqlite3.Connection, product: str, key: str) -> None:
    """Jolvek's own step again."""
    with transaction(conn) as c:
        care_edits.back(c, product, key)


def refresh_due(
    conn: sqlite3.Connection,
    season: Season,
    today: date,
    profile_of: Callable[[int], Profile | None],
    most: int,
) -> int:
    """Work out anew what is due on the boats that changed, up to so many; returns how many are
    left.
    """
    if not due_list.left(conn, today):
        return 0
    with transaction(conn) as c:
        return due_list.refresh(c, season, today, profile_of, most)


def book(conn: sqlite3.Connection, by: By, booking: Booking) -> None:
    """Book a boat for a day. Raises JolvekError where she is booked by then."""
    with transaction(conn) as c:
        bookings.add(c, booking, by.who)


def drop_booking(conn: sqlite3.Connection, booking_id: int) -> None:
    """The boat is free again."""
    with transaction(conn) as c:
        bookings.drop(c, booking_id)
