"""Enquiries that customers filled in themselves: when, what was estimated, who has looked; and
their photos.
"""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from jolvek.store.columns import UnreadableColumn, from_json, to_json

MOST_PHOTOS = 6
FORMAT = "jolvek-list"


@dataclass(frozen=True)
class CameIn:
    """How an enquiry came in, and the numbers of its photos."""

    at: str
    estimated: tuple[str, ...]
    looked_at: str
    looked_by: str
    photos: tuple[int, ...]


def add(conn: sqlite3.Connection, enquiry_id: int, at: str, estimated: tuple[str, ...]) -> None:
    """Mark an enquiry as waiting for a look."""
    conn.execute(
        "INSERT INTO intake (enquiry_id, at, estimated) VALUES (:id, :at, :estimated)",
        {"id": enquiry_id, "at": at, "estimated": to_json(FORMAT, list(estimated))},
    )


def get(conn: sqlite3.Connection, enquiry_id: int) -> CameIn | None:
    """How it came in; None where the shop made it."""
    row = conn.execute(
        "SELECT at, estimated, looked_at, looked_by FROM intake WHERE enquiry_id = :id",
        {"id": enquiry_id},
    ).fetchone()
    if row is None:
        return None
    try:
        estimated = tuple(str(x) for x in from_json(FORMAT, row["estimated"]))
    except (UnreadableColumn, TypeError):
        estimated = ()
    photos = tuple(number for number, _ in photos_of(conn, enquiry_id))
    return CameIn(row["at"], estimated, row["looked_at"], row["looked_by"], photos)


def looked(conn: sqlite3.Connection, enquiry_id: int, at: str, who: str) -> None:
    """Somebody has looked at it."""
    conn.execute(
        "UPDATE intake SET looked_at = :at, looked_by = :who WHERE enquiry_id = :id",
        {"at": at, "who": who, "id": enquiry_id},
    )


def add_photo(conn: sqlite3.Connection, enquiry_id: int, name: str) -> None:
    """One more photo, by its file name."""
    conn.execute(
        "INSERT INTO photo (enquiry_id, name) VALUES (:id, :name)",
        {"id": enquiry_id, "name": name},
    )


def photos_of(conn: sqlite3.Connection, enquiry_id: int) -> list[tuple[int, str]]:
    """Its photos: number and file name."""
    rows = conn.execute(
        "SELECT id, name FROM photo WHERE enquiry_id = :id ORDER BY id", {"id": enquiry_id}
    )
    return [(row["id"], row["name"]) for row in rows]
