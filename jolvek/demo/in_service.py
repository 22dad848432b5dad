"""Invented boats in their second season: trips, charges, care done, spares, parts and faults."""

from __future__ import annotations

import sqlite3
from datetime import date, timedelta

from jolvek import shop
from jolvek.core.day.summed import run_day
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.handover import pieces
from jolvek.shop import By
from jolvek.store import care, service_faults
from jolvek.store.bookings import Booking
from jolvek.store.care import Charge, Trip
from jolvek.store.handovers import Serial
from jolvek.store.service_faults import ServiceFault

WHO = "Ivar Brekk"
SEASONS = ((2025, 0.99), (2026, 0.95))  # capacity of the battery then
FIRST_DAY = (4, 20)
BATCH = "K25"
DONE = (
    ("lay-up", date(2025, 11, 2)),
    ("charge-check", date(2026, 1, 31)),
    ("start", date(2026, 4, 12)),
    ("cord", date(2026, 4, 12)),
    ("pins", date(2026, 4, 12)),
    ("anode", date(2026, 4, 12)),
    ("shaft", date(2026, 7, 5)),
    ("terminals", date(2026, 7, 5)),
)


def _by(day: date) -> By:
    return By(WHO, f"{day.isoformat()}T18:00:00+00:00")


def sailed(conn: sqlite3.Connection, number: int, f: Fitted, every_days: int = 14) -> None:
    """Two seasons of trips with energy and charge, the first season's care done, her numbers. She
    takes the power of her day as worked out, a few per cent more or less.
    """
    full, day_run = f.bank.energy_wh, run_day(f)
    usual_w = day_run.energy_wh / day_run.hours
    trips = []
    for year, capacity in SEASONS:
        day, n = date(year, *FIRST_DAY), 0
        while day <= date(year, 10, 10):
            depth = 0.35 + 0.05 * (n % 4)
            wh = round(depth * capacity * full * (1 + 0.01 * ((7 * n) % 5 - 2)))
            hours = round(wh / usual_w / (1.04 + 0.02 * (n % 3)), 2)
            went = (day.isoformat(), hours, wh, 0.95, 0.95 - depth, "", WHO, 16.0)
            trips.append(Trip(0, *went))
            day, n = day + timedelta(days=every_days), n + 1
    plugged = Charge(0, "2026-10-09", round(0.6 * full), 0.45, 0.95, "", who=WHO)
    left = 0.46 - 0.1 * (number % 3)
    wh = round((0.9 - left) * 0.95 * full)
    last = Trip(0, "2026-10-18", round(wh / usual_w, 2), wh, 0.9, left, note="", who=WHO)
    shop.care.log_trips(conn, _by(last.day), number, [*trips, last], [plugged])
    for step, on in DONE:
        shop.care.done(conn, _by(on), number, step, on, "")
    for i, piece in enumerate(pieces(f)):
        if piece.product_id:
            code = f"{piece.what[:2].upper()}-{number}{i:02d}"
            about = (piece.what, piece.title, piece.product_id, code, "2027-04-20", WHO, "2025")
            serial = Serial(0, *about, BATCH)

            def as_read(_: Serial | None, serial: Serial = serial) -> Serial:
                return serial

            shop.handovers.set_serial(conn, number, piece.what, as_read)
    soon = (date.today() + timedelta(days=20)).isoformat()
    shop.care.add_spare(conn, _by(date.today()), number, "Life jacket cartridge", soon)


def failed(conn: sqlite3.Connection, number: int, f: Fitted, kind: str, on: date) -> None:
    """A fault in service of her motor, closed a week later."""
    hours = sum(t.hours for t in care.trips(conn, number) if t.day <= on)
    seen = (0, kind, "", "open", _by(on).at, WHO, "", "", "", "motor", f.motor.id, hours, "")
    shop.care.report_fault(conn, number, ServiceFault(*seen))
    found, by = service_faults.of_enquiry(conn, number)[-1], _by(on + timedelta(days=7))
    cure = "line cleared, seal replaced"
    shop.handovers.settle_fault(conn, by, number, found.id, "closed", cure, True)


def booked(conn: sqlite3.Connection, numbers: list[int]) -> None:
    """Tomorrow's bookings of the hire boats."""
    on = (date.today() + timedelta(days=1)).isoformat()
    for i, number in enumerate(numbers):
        shop.care.book(conn, _by(date.today()), Booking(0, number, on, 8.0 + i, 3.0))
