"""The log of a boat that is in service: her trips, and what was done of her care."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from datetime import date
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.store import lenient
from jolvek.store.columns import select
from jolvek.store.once import each

_TRIP = (
    "id",
    "on_day",
    "hours",
    "energy_wh",
    "charge_from",
    "charge_to",
    "note",
    "who",
    "temperature_c",
    "distance_m",
    "op",
)
_CHARGE = ("id", "on_day", "wall_wh", "charge_from", "charge_to", "note", "who")


@dataclass(frozen=True)
class Trip:
    """One trip: its day, hours under way, and where known Wh drawn, charge before and after, °C of
    the battery, metres. `op` is a name that it has of its own, so that it is kept once however
    often it comes (empty: none).
    """

    RANGES: ClassVar[checked.Ranges] = {
        "hours": (0, 240),
        "energy_wh": (0, 1e7),
        "charge_from": (0, 1),
        "charge_to": (0, 1),
        "temperature_c": (-20, 50),
        "distance_m": (0, 2e6),
    }
    TEXTS: ClassVar[checked.Counts] = {"note": 300, "op": 80}

    id: int
    on_day: str
    hours: float
    energy_wh: float | None
    charge_from: float | None
    charge_to: float | None
    note: str
    who: str
    temperature_c: float | None = None
    distance_m: float | None = None
    op: str = ""

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


@dataclass(frozen=True)
class Charge:
    """One charge: its day, Wh at the wall and charge before where known, charge after."""

    RANGES: ClassVar[checked.Ranges] = {
        "wall_wh": (0, 1e7),
        "charge_from": (0, 1),
        "charge_to": (0, 1),
    }
    TEXTS: ClassVar[checked.Counts] = {"note": 300}

    id: int
    on_day: str
    wall_wh: float | None
    charge_from: float | None
    charge_to: float
    note: str
    who: str

    def __post_init__(self) -> None:
        checked.check(self, "charge")
        checked.date("charge.on_day", self.on_day)
        if self.charge_from is not None and self.charge_from > self.charge_to:
            text = f"at least the {100 * self.charge_from:.0f} % before"
            raise ValueRefused("charge.charge_to", self.charge_to, text)

    @property
    def day(self) -> date:
        """Its day."""
        return date.fromisoformat(self.on_day)


def add_trip(conn: sqlite3.Connection, enquiry_id: int, t: Trip, at: str) -> bool:
    """Keep a trip; whether it is new: one whose name is known is the same trip."""
    done = conn.execute(
        "INSERT INTO trip (enquiry_id, on_day, hours, energy_wh, charge_from, charge_to, note, who,"
        " temperature_c, distance_m, op, typed_at) VALUES (:enquiry, :on_day, :hours, :energy_wh,"
        " :charge_from, :charge_to, :note, :who, :temperature_c, :distance_m, :op, :at)"
        " ON CONFLICT (enquiry_id, op) WHERE op <> '' DO NOTHING",
        {**vars(t), "enquiry": enquiry_id, "at": at},
    )
    return done.rowcount > 0


def add_charge(conn: sqlite3.Connection, enquiry_id: int, c: Charge, at: str) -> None:
    """Keep a charge."""
    conn.execute(
        "INSERT INTO charge (enquiry_id, on_day, wall_wh, charge_from, charge_to, note, who,"
        " typed_at) VALUES (:enquiry, :on_day, :wall_wh, :charge_from, :charge_to, :note, :who,"
        " :at)",
        {**vars(c), "enquiry": enquiry_id, "at": at},
    )


def charges(conn: sqlite3.Connection, enquiry_id: int) -> list[Charge]:
    """The charges of a boat, the latest first."""
    sql = select("charge", _CHARGE, "WHERE enquiry_id = :id ORDER BY on_day DESC, id DESC")
    return lenient.rows_of(Charge, _CHARGE, each(conn, sql, enquiry_id))


def charge_now(conn: sqlite3.Connection, enquiry_id: int) -> float | None:
    """Her charge as it was told last, by a trip or a charge; None where nothing was."""
    sql = (
        "SELECT soc FROM (SELECT enquiry_id, charge_to AS soc, on_day, typed_at FROM trip WHERE"
        " charge_to IS NOT NULL UNION ALL SELECT enquiry_id, charge_to, on_day, typed_at FROM"
        " charge) WHERE enquiry_id = :id ORDER BY on_day DESC, typed_at DESC"
    )
    found = each(conn, sql, enquiry_id)
    return float(found[0]["soc"]) if found else None


def drop_trip(conn: sqlite3.Connection, enquiry_id: int, trip_id: int) -> None:
    """Take a trip out of the log."""
    conn.execute(
        "DELETE FROM trip WHERE id = :id AND enquiry_id = :enquiry",
        {"id": trip_id, "enquiry": enquiry_id},
    )


def trips(conn: sqlite3.Connection, enquiry_id: int) -> list[Trip]:
    """The trips of a boat, the latest first."""
    sql = select("trip", _TRIP, "WHERE enquiry_id = :id ORDER BY on_day DESC, id DESC")
    return lenient.rows_of(Trip, _TRIP, each(conn, sql, enquiry_id))


def act(
    conn: sqlite3.Connection, enquiry_id: int, step: str, on: date, who: str, note: str, at: str
) -> None:
    """A step of care was done on a day; told twice, as from two tabs, it was done once."""
    checked.text("care.note", note, 300)
    conn.execute(
        "INSERT INTO care_act (enquiry_id, step, on_day, who, note, typed_at) SELECT :enquiry,"
        " :step, :on, :who, :note, :at WHERE NOT EXISTS (SELECT 1 FROM care_act WHERE enquiry_id ="
        " :enquiry AND step = :step AND on_day = :on)",
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
    for row in each(conn, sql, enquiry_id):
        out.setdefault(row["step"], []).append(date.fromisoformat(row["on_day"]))
    return out


def in_service(conn: sqlite3.Connection, most: int, whose: str = "") -> list[tuple[int, str]]:
    """(number, title) of boats that are handed over and not put away, of one customer or all."""
    sql = (
        "SELECT id, title FROM enquiry WHERE stage = 'delivered' AND archived = 0 AND (:whose = ''"
        " OR customer = :whose) ORDER BY id LIMIT :most"
    )
    rows = conn.execute(sql, {"most": most, "whose": whose})
    return [(row["id"], row["title"]) for row in rows]


def customers_in_service(conn: sqlite3.Connection, most: int = 200) -> list[tuple[str, int]]:
    """(name, boats) of customers with boats in service, those with most first."""
    sql = (
        "SELECT customer, count(*) AS n FROM enquiry WHERE stage = 'delivered' AND archived = 0"
        " AND customer <> '' GROUP BY customer ORDER BY n DESC, customer LIMIT :most"
    )
    return [(row["customer"], row["n"]) for row in conn.execute(sql, {"most": most})]


def began(conn: sqlite3.Connection, enquiry_id: int) -> date | None:
    """The day of the handover; the first trip where it was not signed here."""
    sql = (
        "SELECT day FROM (SELECT enquiry_id, substr(signed_at, 1, 10) AS day, 0 AS later FROM"
        " handover UNION ALL SELECT enquiry_id, on_day, 1 FROM trip) WHERE enquiry_id = :id ORDER"
        " BY later, day"
    )
    found = each(conn, sql, enquiry_id)
    return date.fromisoformat(found[0]["day"]) if found else None
