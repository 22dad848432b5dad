"""The kept versions of an enquiry: when, by whom, and what each changed."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from itertools import pairwise

from jolvek.core.base.errors import JolvekError
from jolvek.core.enquiry.enquiry import Enquiry, from_plain
from jolvek.core.enquiry.merging import Clash, differences
from jolvek.store.columns import from_json


@dataclass(frozen=True)
class Version:
    """One version: its number, time and author, and what it changed: (field, before, after)."""

    id: int
    at: str
    who: str
    changed: tuple[Clash, ...]


def of_enquiry(conn: sqlite3.Connection, enquiry_id: int) -> list[Version]:
    """The versions that differ from the one before, the newest first."""
    rows = conn.execute(
        "SELECT id, at, who, data FROM enquiry_version WHERE enquiry_id = :id ORDER BY id",
        {"id": enquiry_id},
    ).fetchall()
    read = [(row, _read(row)) for row in rows]
    known = [(row, e) for row, e in read if e is not None]
    out = [Version(row["id"], row["at"], row["who"], ()) for row, _ in known[:1]]
    for (_, before), (row, after) in pairwise(known):
        if changed := differences(before, after):
            out.append(Version(row["id"], row["at"], row["who"], changed))
    return out[::-1]


def get(conn: sqlite3.Connection, enquiry_id: int, number: int) -> Enquiry | None:
    """The enquiry as one version had it; None where there is none or it cannot be read."""
    row = conn.execute(
        "SELECT data FROM enquiry_version WHERE id = :number AND enquiry_id = :id",
        {"number": number, "id": enquiry_id},
    ).fetchone()
    return _read(row) if row else None


def _read(row: sqlite3.Row) -> Enquiry | None:
    try:
        return from_plain(from_json("jolvek-enquiry", row["data"]))
    except (JolvekError, ValueError, KeyError, TypeError):
        return None
