"""Which boat is booked when, for the plan of their charging."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.store.columns import select

_BOOKING = ("id", "enquiry_id", "on_day", "from_h", "hours")


@dataclass(frozen=True)
class Booking:
    """One boat on one day: from which hour, how long under way."""

    RANGES: ClassVar[checked.Ranges] = {"from_h": (0, 24), "hours": (0.1, 24)}

    id: int
    enquiry_id: int
    on_day: str
    from_h: float
    hours: float

    def __post_init__(self) -> None:
        checked.check(self, "booking")
        checked.date("booking.on_day", self.on_day)


def add(conn: sqlite3.Connection, b: Booking, who: str) -> None:
    """Keep a booking; raises ValueRefused where the boat is out at that time already."""
    clash = conn.execute(
        "SELECT from_h, hours FROM booking WHERE enquiry_id = :id AND on_day = :on AND from_h <"
        " :to AND from_h + hours > :from",
        {"id": b.enquiry_id, "on": b.on_day, "from": b.from_h, "to": b.from_h + b.hours},
    ).fetchone()
    if clash:
        text = f"a time at which the boat is not out: it is from {clash['from_h']:.4g} h"
        raise ValueRefused("booking.from_h", b.from_h, f"{text} for {clash['hours']:.4g} h")
    conn.execute(
        "INSERT INTO booking (enquiry_id, on_day, from_h, hours, who) VALUES (:enquiry_id, :on_day,"
        " :from_h, :hours, :who)",
        {**vars(b), "who": who},
    )


def on(conn: sqlite3.Connection, day: str) -> list[Booking]:
    """All bookings of a day, the first first."""
    sql = select("booking", _BOOKING, "WHERE on_day = :on ORDER BY from_h, id")
    return [Booking(*row) for row in conn.execute(sql, {"on": day})]


def drop(conn: sqlite3.Connection, booking_id: int) -> None:
    """Take one off."""
    conn.execute("DELETE FROM booking WHERE id = :id", {"id": booking_id})
