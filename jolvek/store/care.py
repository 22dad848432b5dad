"""The log of a boat that is in service: her trips, and what was done of her care."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from datetime import date
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.store.columns import select

_TRIP = ("id", "on_day", "hours", "energy_wh", "charge_from", "charge_to", "note", "who")


@dataclass(frozen=True)
class Trip:
    """One trip: its day, hours under way, and where known Wh drawn and charge before and after."""

    RANGES: ClassVar[checked.Ranges] = {
        "hours": (0, 240),
        "energy_wh": (0, 1e7),
        "charge_from": (0, 1),
        "charge_to": (0, 1),
    }
    TEXTS: ClassVar[checked.Counts] = {"note": 300}

    id: int
    on_day: str
    hours: float
    energy_wh: float | None
    charge_from: float | None
    charge_to: float | None
    note: str
    who: str

    def __post_init__(self) -> None:
        checked.check(self, "trip")
        checked.date("trip.on_day", self.on_day)
        a, b = self.charge_from, self.charge_to
        if a is not None and b is not None and b > a:
            raise ValueRefused("trip.charge_to", b, f"at most the {100 * a:.0f} % before")

    @property
    def day(self) -> date:
        """Its day."""
        return date.fromisoformat(self.on_day)


def add_trip(conn: sqlite3.Connection, enquiry_id: int, t: Trip, at: str) -> None:
    """Keep a trip."""
    conn.execute(
        "INSERT INTO trip (enquiry_id, on_day, hours, energy_wh, charge_from, charge_to, note, who,"
        " typed_at) VALUES (:enquiry, :on_day, :hours, :energy_wh, :charge_from, :charge_to, :note,"
        " :who, :at)",
        {**vars(t), "enquiry": enquiry_id, "at": at},
    )


def drop_trip(conn: sqlite3.Connection, enquiry_id: int, trip_id: int) -> None:
    """Take a trip out of the log."""
    conn.execute(
        "DELETE FROM trip WHERE id = :id AND enquiry_id = :enquiry",
        {"id": trip_id, "enquiry": enquiry_id},
    )


def trips(conn: sqlite3.Connection, enquiry_id: int) -> list[Trip]:
    """The trips of a boat, the latest first."""
    sql = select("trip", _TRIP, "WHERE enquiry_id = :id ORDER BY on_day DESC, id DESC")
    return [Trip(*row) for row in conn.execute(sql, {"id": enquiry_id})]


def act(
    conn: sqlite3.Connection, enquiry_id: int, step: str, on: date, who: str, note: str, at: str
) -> None:
    """A step of care was done on a day."""
    checked.text("care.note", note, 300)
    conn.execute(
        "INSERT INTO care_act (enquiry_id, step, on_day, who, note, typed_at) VALUES (:enquiry,"
        " :step, :on, :who, :note, :at)",
        {
            "enquiry": enquiry_id,
            "step": step,
            "on": on.isoformat(),
            "who": who,
            "note": note,
            "at": at,
        },
    )


def acts(conn: sqlite3.Connection, enquiry_id: int) -> dict[str, list[date]]:
    """The days on which each step was done."""
    out: dict[str, list[date]] = {}
    sql = "SELECT step, on_day FROM care_act WHERE enquiry_id = :id ORDER BY on_day"
    for row in conn.execute(sql, {"id": enquiry_id}):
        out.setdefault(row["step"], []).append(date.fromisoformat(row["on_day"]))
    return out


def in_service(conn: sqlite3.Connection) -> list[tuple[int, str]]:
    """(number, title) of every boat that is handed over and not put away."""
    sql = "SELECT id, title FROM enquiry WHERE stage = 'delivered' AND archived = 0 ORDER BY id"
    return [(row["id"], row["title"]) for row in conn.execute(sql)]


def began(conn: sqlite3.Connection, enquiry_id: int) -> date | None:
    """The day of the handover; the first trip where it was not signed here."""
    row = conn.execute(
        "SELECT (SELECT substr(signed_at, 1, 10) FROM handover WHERE enquiry_id = :id) AS signed,"
        " (SELECT min(on_day) FROM trip WHERE enquiry_id = :id) AS first",
        {"id": enquiry_id},
    ).fetchone()
    told = row["signed"] or row["first"]
    return date.fromisoformat(told) if told else None


@dataclass(frozen=True)
class Holder:
    """A boat that has a piece: whose, how they are reached, which number."""

    enquiry_id: int
    title: str
    customer: str
    phone: str
    mail: str
    what: str
    number: str


def holders(conn: sqlite3.Connection, text: str, most: int = 500) -> list[Holder]:
    """Who has a product (by its id) or a serial number that begins so; by number."""
    rows = conn.execute(
        "SELECT e.id, e.title, e.customer, e.phone, e.mail, s.what, s.number FROM serial s JOIN"
        " enquiry e ON e.id = s.enquiry_id WHERE s.product_id = :text OR (s.number >= :text AND"
        " s.number < :end) ORDER BY s.number, s.id LIMIT :most",
        {"text": text, "end": text + "\U0010ffff", "most": most},
    )
    return [Holder(*row) for row in rows]
