"""Spares and gear aboard with the day until which they are good; parts that were replaced."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from datetime import date
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.store import handovers, lenient
from jolvek.store.columns import select
from jolvek.store.handovers import Serial
from jolvek.store.once import each

_SWAP = (
    "id",
    "on_day",
    "what",
    "title",
    "product_id",
    "old_number",
    "new_number",
    "why",
    "verdict",
    "cost",
    "who",
)


@dataclass(frozen=True)
class SpareKept:
    """One spare: what it is, until when it is good."""

    TEXTS: ClassVar[checked.Counts] = {"what": 80}

    id: int
    what: str
    good_to: str

    def __post_init__(self) -> None:
        checked.check(self, "spare")
        checked.date("spare.good_to", self.good_to)
        if not self.what.strip():
            raise ValueRefused("spare.what", self.what, "what it is")

    @property
    def day(self) -> date:
        """The last day it is good."""
        return date.fromisoformat(self.good_to)


def of_enquiry(conn: sqlite3.Connection, enquiry_id: int) -> list[SpareKept]:
    """What is aboard of a boat, the first to go off first."""
    sql = "SELECT id, what, good_to FROM spare WHERE enquiry_id = :id ORDER BY good_to, id"
    rows = each(conn, sql, enquiry_id)
    return lenient.rows_of(SpareKept, ("id", "what", "good_to"), rows)


def add(conn: sqlite3.Connection, enquiry_id: int, s: SpareKept, who: str, at: str) -> None:
    """Keep a spare."""
    conn.execute(
        "INSERT INTO spare (enquiry_id, what, good_to, who, typed_at) VALUES (:enquiry, :what, :to,"
        " :who, :at)",
        {"enquiry": enquiry_id, "what": s.what, "to": s.good_to, "who": who, "at": at},
    )


def renew(conn: sqlite3.Connection, enquiry_id: int, spare_id: int, good_to: str) -> None:
    """It was replaced: good to another day."""
    checked.date("spare.good_to", good_to)
    conn.execute(
        "UPDATE spare SET good_to = :to WHERE id = :id AND enquiry_id = :enquiry",
        {"id": spare_id, "enquiry": enquiry_id, "to": good_to},
    )


def drop(conn: sqlite3.Connection, enquiry_id: int, spare_id: int) -> None:
    """Take one off."""
    conn.execute(
        "DELETE FROM spare WHERE id = :id AND enquiry_id = :enquiry",
        {"id": spare_id, "enquiry": enquiry_id},
    )


@dataclass(frozen=True)
class Swap:
    """A part that was replaced: old and new number, why, what the warranty says, money paid."""

    RANGES: ClassVar[checked.Ranges] = {"cost": (0, 1e6)}
    TEXTS: ClassVar[checked.Counts] = {
        "what": 60,
        "old_number": 60,
        "new_number": 60,
        "why": 300,
        "verdict": 300,
    }

    id: int
    on_day: str
    what: str
    title: str
    product_id: str
    old_number: str
    new_number: str
    why: str
    verdict: str
    cost: float
    who: str

    def __post_init__(self) -> None:
        checked.check(self, "part")
        checked.date("part.on_day", self.on_day)
        if not self.why.strip():
            raise ValueRefused("part.why", self.why, "a word why")


def swap(conn: sqlite3.Connection, enquiry_id: int, s: Swap, new_to: str, at: str) -> None:
    """Keep it; the new number takes the old one's place. Raises SerialTaken."""
    conn.execute(
        "INSERT INTO part_swap (enquiry_id, on_day, what, title, product_id, old_number,"
        " new_number, why, verdict, cost, who, typed_at) VALUES (:enquiry, :on_day, :what, :title,"
        " :product_id, :old_number, :new_number, :why, :verdict, :cost, :who, :at)",
        {**vars(s), "enquiry": enquiry_id, "at": at},
    )
    if s.new_number:
        record = Serial(0, s.what, s.title, s.product_id, s.new_number, new_to, who=s.who, at=at)
        handovers.add_serial(conn, enquiry_id, record)


def swaps(conn: sqlite3.Connection, enquiry_id: int) -> list[Swap]:
    """What was replaced on a boat, the latest first."""
    sql = select("part_swap", _SWAP, "WHERE enquiry_id = :id ORDER BY on_day DESC, id DESC")
    return lenient.rows_of(Swap, _SWAP, each(conn, sql, enquiry_id))
