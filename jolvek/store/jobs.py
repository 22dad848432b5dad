"""The boats of one job: enquiries of one customer that belong together."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass, replace

from jolvek.store import enquiries

MOST_BOATS = 8


@dataclass(frozen=True)
class Boat:
    """One boat of a job: its enquiry's number and title."""

    id: int
    title: str


def boats(conn: sqlite3.Connection, enquiry_id: int) -> list[Boat]:
    """All boats of the job that an enquiry belongs to, as they came; one alone is none."""
    rows = conn.execute(
        "SELECT e.id, e.title FROM (SELECT coalesce(job, id) AS lead FROM enquiry WHERE id = :id)"
        " JOIN enquiry e ON e.id = lead OR e.job = lead ORDER BY e.id",
        {"id": enquiry_id},
    ).fetchall()
    return [Boat(row["id"], row["title"]) for row in rows] if len(rows) > 1 else []


def add_boat(conn: sqlite3.Connection, enquiry_id: int, now: str, who: str = "") -> int:
    """One more boat like this one, in the same job; returns its number. Raises KeyError."""
    stored = enquiries.get(conn, enquiry_id)
    if stored is None:
        raise KeyError(enquiry_id)
    count = max(len(boats(conn, enquiry_id)), 1) + 1
    title = f"{stored.title[:180]}, boat {count}".strip(", ")
    number = enquiries.add(conn, replace(stored.enquiry, title=title), now, who)
    conn.execute(
        "UPDATE enquiry SET job = (SELECT coalesce(job, id) FROM enquiry WHERE id = :of)"
        " WHERE id = :new",
        {"of": enquiry_id, "new": number},
    )
    return number


def part(conn: sqlite3.Connection, enquiry_id: int) -> None:
    """Take one boat out of its job; where the first goes, the next one leads."""
    others = [b.id for b in boats(conn, enquiry_id) if b.id != enquiry_id]
    conn.execute("UPDATE enquiry SET job = NULL WHERE id = :id", {"id": enquiry_id})
    if others:
        conn.execute(
            "UPDATE enquiry SET job = iif(id = :first, NULL, :first) WHERE job = :id",
            {"first": others[0], "id": enquiry_id},
        )
