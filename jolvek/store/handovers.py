"""The handover of an enquiry's boat: acts on its steps (each kept once, whoever sends it again),
serial numbers, faults, and the signed record.
"""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.store.columns import select

STATES = ("done", "not_needed", "open")
FAULT_STATES = ("open", "closed", "accepted")
_SERIAL = ("id", "what", "title", "product_id", "number", "warranty_to", "who", "at", "batch")
_FAULT = ("id", "kind", "why", "state", "found_at", "found_by", "done_at", "done_by", "cure")


class SerialTaken(JolvekError):
    """Another boat, or another piece, has the number."""


@dataclass(frozen=True)
class Act:
    """One act on a step: `op` is made by who acts, so that it counts once however often it comes;
    `at` when it was done, by the phone's clock.
    """

    CHOICES: ClassVar[checked.Choices] = {"state": STATES}
    TEXTS: ClassVar[checked.Counts] = {
        "op": 60,
        "step": 60,
        "who": 120,
        "at": 40,
        "note": 500,
        "photo": 80,
    }

    op: str
    step: str
    state: str
    who: str
    at: str
    note: str = ""
    photo: str = ""

    def __post_init__(self) -> None:
        checked.check(self, "step")
        if len(self.op) < 8:
            raise ValueRefused("step.op", self.op, "a name of its own, of 8 letters and more")
        if self.state == "not_needed" and not self.note.strip():
            raise ValueRefused("step.note", self.note, "a word why it is not needed")


@dataclass(frozen=True)
class Serial:
    """One serial number with the day until which its warranty runs, and its batch where told."""

    id: int
    what: str
    title: str
    product_id: str
    number: str
    warranty_to: str
    who: str
    at: str
    batch: str = ""


@dataclass(frozen=True)
class FaultKept:
    """One fault that was found: open, closed, or accepted by name."""

    id: int
    kind: str
    why: str
    state: str
    found_at: str
    found_by: str
    done_at: str
    done_by: str
    cure: str


def check_open(conn: sqlite3.Connection, enquiry_id: int) -> None:
    """Raise ValueRefused where the handover is signed: nothing of it moves any more. In the
    transaction of what would move.
    """
    if signed(conn, enquiry_id) is not None:
        raise ValueRefused("handover", "signed", "a handover that is not signed yet")


def act(conn: sqlite3.Connection, enquiry_id: int, a: Act, kept_at: str) -> bool:
    """Keep an act; whether it is new. One that came before is the same act. Raises ValueRefused
    once it is signed.
    """
    check_open(conn, enquiry_id)
    done = conn.execute(
        "INSERT INTO handover_act (op, enquiry_id, step, state, who, at, kept_at, note, photo)"
        " VALUES (:op, :enquiry, :step, :state, :who, :at, :kept, :note, :photo)"
        " ON CONFLICT (op) DO NOTHING",
        {**vars(a), "enquiry": enquiry_id, "kept": kept_at},
    )
    return done.rowcount > 0


def acts(conn: sqlite3.Connection, enquiry_id: int) -> dict[str, Act]:
    """The last act on each step, by when it was done."""
    rows = conn.execute(
        "SELECT op, step, state, who, at, note, photo FROM handover_act WHERE enquiry_id = :id"
        " ORDER BY at, kept_at, rowid",
        {"id": enquiry_id},
    )
    return {row["step"]: Act(**dict(row)) for row in rows}


def add_serial(conn: sqlite3.Connection, enquiry_id: int, s: Serial) -> None:
    """Keep a serial number; the piece's earlier one gives way. Raises SerialTaken."""
    number = s.number.strip()
    checked.text("serial.number", number, 60)
    if not number:
        raise ValueRefused("serial.number", s.number, "a number")
    kind = s.what.split()[0]
    row = conn.execute(
        "SELECT s.what, e.title, s.enquiry_id FROM serial s JOIN enquiry e ON e.id = s.enquiry_id"
        " WHERE s.number = :number AND s.what LIKE :kind || '%' AND NOT (s.enquiry_id = :id AND"
        " s.what = :what)",
        {"number": number, "kind": kind, "id": enquiry_id, "what": s.what},
    ).fetchone()
    if row:
        where = "this boat" if row["enquiry_id"] == enquiry_id else f"“{row['title']}”"
        raise SerialTaken(f"{number} is the {row['what']} of {where} already")
    conn.execute(
        "DELETE FROM serial WHERE enquiry_id = :id AND what = :what",
        {"id": enquiry_id, "what": s.what},
    )
    conn.execute(
        "INSERT INTO serial (enquiry_id, what, title, product_id, number, warranty_to, who, at,"
        " batch) VALUES (:id, :what, :title, :product_id, :number, :warranty_to, :who, :at,"
        " :batch)",
        {**vars(s), "id": enquiry_id, "number": number},
    )


def serials(conn: sqlite3.Connection, enquiry_id: int) -> dict[str, Serial]:
    """The serial numbers of a boat, by piece."""
    sql = select("serial", _SERIAL, "WHERE enquiry_id = :id ORDER BY id")
    return {row["what"]: Serial(*row) for row in conn.execute(sql, {"id": enquiry_id})}


def add_fault(
    conn: sqlite3.Connection, enquiry_id: int, kind: str, why: str, who: str, at: str
) -> None:
    """Record a fault; one of its kind that is open already stands."""
    found = conn.execute(
        "SELECT 1 FROM fault WHERE enquiry_id = :id AND kind = :kind AND state = 'open'"
        " AND in_service = 0",
        {"id": enquiry_id, "kind": kind},
    ).fetchone()
    if found is None:
        conn.execute(
            "INSERT INTO fault (enquiry_id, kind, why, state, found_at, found_by) VALUES (:id,"
            " :kind, :why, 'open', :at, :who)",
            {"id": enquiry_id, "kind": kind, "why": why, "at": at, "who": who},
        )


def settle_fault(conn: sqlite3.Connection, enquiry_id: int, fault: FaultKept) -> None:
    """Close a fault, accept it by name, or open it again; raises ValueRefused."""
    if fault.state not in FAULT_STATES:
        raise ValueRefused("fault.state", fault.state, "one of " + ", ".join(FAULT_STATES))
    checked.text("fault.cure", fault.cure, 500)
    if fault.state != "open" and not fault.cure.strip():
        raise ValueRefused("fault.cure", fault.cure, "a word what was done, or why it may stay")
    conn.execute(
        "UPDATE fault SET state = :state, done_at = :done_at, done_by = :done_by, cure = :cure"
        " WHERE id = :id AND enquiry_id = :enquiry",
        {**vars(fault), "enquiry": enquiry_id},
    )


def fault(conn: sqlite3.Connection, enquiry_id: int, number: int) -> FaultKept | None:
    """One fault of a boat, seen at the handover or in service."""
    sql = select("fault", _FAULT, "WHERE enquiry_id = :id AND id = :number")
    row = conn.execute(sql, {"id": enquiry_id, "number": number}).fetchone()
    return FaultKept(*row) if row else None


def faults(conn: sqlite3.Connection, enquiry_id: int) -> list[FaultKept]:
    """All faults of a boat, open ones first."""
    sql = select(
        "fault", _FAULT, "WHERE enquiry_id = :id AND in_service = 0 ORDER BY state <> 'open', id"
    )
    return [FaultKept(*row) for row in conn.execute(sql, {"id": enquiry_id})]


def sign(
    conn: sqlite3.Connection, enquiry_id: int, at: str, data: Mapping[str, Any], pdf: bytes
) -> None:
    """Freeze the record; raises ValueRefused where it is signed already."""
    check_open(conn, enquiry_id)
    conn.execute(
        "INSERT INTO handover (enquiry_id, signed_at, data, pdf) VALUES (:id, :at, :data, :pdf)",
        {"id": enquiry_id, "at": at, "data": json.dumps(data, ensure_ascii=False), "pdf": pdf},
    )


def signed(conn: sqlite3.Connection, enquiry_id: int) -> dict[str, Any] | None:
    """The record as it was signed; None before."""
    row = conn.execute(
        "SELECT data FROM handover WHERE enquiry_id = :id", {"id": enquiry_id}
    ).fetchone()
    found: dict[str, Any] | None = json.loads(row["data"]) if row else None
    return found


def pdf(conn: sqlite3.Connection, enquiry_id: int) -> bytes:
    """The record's paper; empty before."""
    row = conn.execute(
        "SELECT pdf FROM handover WHERE enquiry_id = :id", {"id": enquiry_id}
    ).fetchone()
    return bytes(row["pdf"]) if row else b""
