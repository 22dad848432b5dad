"""Faults of boats in service: found by the shop or told by the owner, settled, and counted."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.care.faults import SERVICE_FAULTS, signal_of_fault
from jolvek.core.rules.signals import RANKS
from jolvek.core.trial.diagnosis import Fault
from jolvek.store import lenient
from jolvek.store.columns import select
from jolvek.store.once import each

OWNER = "owner"  # who told of it by the boat's own page
_FAULT = (
    "id",
    "kind",
    "why",
    "state",
    "found_at",
    "found_by",
    "done_at",
    "done_by",
    "cure",
    "part",
    "product_id",
    "hours",
    "photo",
)


@dataclass(frozen=True)
class ServiceFault:
    """One fault in service: its kind, what was seen, of which piece and product, the boat's hours
    then, a photo; open, closed or accepted.
    """

    CHOICES: ClassVar[checked.Choices] = {"kind": tuple(SERVICE_FAULTS)}
    TEXTS: ClassVar[checked.Counts] = {"why": 500, "part": 60, "found_by": 120}

    id: int
    kind: str
    why: str
    state: str
    found_at: str
    found_by: str
    done_at: str
    done_by: str
    cure: str
    part: str
    product_id: str
    hours: float
    photo: str

    def __post_init__(self) -> None:
        checked.check(self, "fault")

    @property
    def seen(self) -> str:
        """What is seen, in words."""
        return SERVICE_FAULTS[self.kind].seen

    @property
    def signal(self) -> str:
        """What it can do: one of the signals."""
        return signal_of_fault(self.kind)


def add(conn: sqlite3.Connection, enquiry_id: int, f: ServiceFault) -> None:
    """Record a fault in service; the same one told again while it is open stands once."""
    same = (
        "SELECT 1 FROM fault WHERE enquiry_id = :enquiry AND in_service = 1 AND state = 'open' AND"
        " kind = :kind AND part = :part AND why = :why"
    )
    values = {"enquiry": enquiry_id, "kind": f.kind, "part": f.part, "why": f.why}
    if conn.execute(same, values).fetchone() and not f.photo:
        return
    conn.execute(
        "INSERT INTO fault (enquiry_id, kind, why, state, found_at, found_by, in_service, part,"
        " product_id, hours, photo) VALUES (:enquiry, :kind, :why, 'open', :found_at, :found_by, 1,"
        " :part, :product_id, :hours, :photo)",
        {**vars(f), "enquiry": enquiry_id},
    )


def of_enquiry(conn: sqlite3.Connection, enquiry_id: int) -> list[ServiceFault]:
    """The faults of a boat in service, open ones first."""
    sql = select(
        "fault", _FAULT, "WHERE enquiry_id = :id AND in_service = 1 ORDER BY state <> 'open', id"
    )
    return lenient.rows_of(ServiceFault, _FAULT, each(conn, sql, enquiry_id))


@dataclass(frozen=True)
class Reported:
    """A fault that an owner told the shop of and nobody has closed yet."""

    id: int
    enquiry_id: int
    title: str
    customer: str
    kind: str
    why: str
    part: str
    at: str

    @property
    def fault(self) -> Fault:
        """What is seen, and the hazard."""
        return SERVICE_FAULTS[self.kind]

    @property
    def signal(self) -> str:
        """What it can do: one of the signals."""
        return signal_of_fault(self.kind)


def reported(conn: sqlite3.Connection, by: str) -> list[Reported]:
    """What owners told the shop of and nobody has closed, what can hurt somebody first."""
    rows = conn.execute(
        "SELECT f.id, f.enquiry_id, e.title, e.customer, f.kind, f.why, f.part, f.found_at AS at"
        " FROM fault f JOIN enquiry e ON e.id = f.enquiry_id WHERE f.in_service = 1 AND f.state ="
        " 'open' AND f.found_by = :by ORDER BY f.found_at DESC, f.id DESC",
        {"by": by},
    )
    found = [Reported(**dict(row)) for row in rows if row["kind"] in SERVICE_FAULTS]
    return sorted(found, key=lambda x: RANKS.index(x.signal))


def by_product(conn: sqlite3.Connection) -> list[tuple[str, str, int, int]]:
    """(product id, kind, faults, open ones) of all boats in service."""
    rows = conn.execute(
        "SELECT product_id, kind, count(*), sum(state = 'open') FROM fault WHERE in_service = 1"
        " GROUP BY product_id, kind ORDER BY count(*) DESC, product_id, kind"
    )
    return [tuple(row) for row in rows]


def first_hours(conn: sqlite3.Connection) -> dict[str, list[tuple[float, bool]]]:
    """For each product that stands on a boat in service: the boat's hours at its first fault, or
    now, and whether there was one.
    """
    rows = conn.execute(
        "WITH h AS (SELECT enquiry_id, sum(hours) AS hours FROM trip GROUP BY enquiry_id), f AS"
        " (SELECT enquiry_id, product_id, min(hours) AS hours FROM fault WHERE in_service = 1 AND"
        " product_id <> '' GROUP BY enquiry_id, product_id) SELECT i.product_id,"
        " coalesce(f.hours, h.hours) AS hours, f.hours IS NOT NULL AS had FROM setup s JOIN"
        " setup_item i ON i.setup_id = s.id AND s.chosen = 1 JOIN h ON h.enquiry_id = s.enquiry_id"
        " LEFT JOIN f ON f.enquiry_id = s.enquiry_id AND f.product_id = i.product_id"
    )
    out: dict[str, list[tuple[float, bool]]] = {}
    for row in rows:
        out.setdefault(row["product_id"], []).append((float(row["hours"]), bool(row["had"])))
    return out
