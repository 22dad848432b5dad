"""The kept versions of an enquiry: when, by whom, and what each changed."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from itertools import pairwise

from jolvek.core.base.errors import JolvekError
from jolvek.core.enquiry.enquiry import Enquiry, as_plain, from_plain
from jolvek.core.enquiry.merging import Clash, differences
from jolvek.store.columns import from_json, to_json

MOST = 60  # of one enquiry, to merge with and to look back at


@dataclass(frozen=True)
class Version:
    """One version: its number, time and author, what it changed, and the number of the version
    before it.
    """

    id: int
    at: str
    who: str
    changed: tuple[Clash, ...] = ()
    before: int | None = None


def of_enquiry(conn: sqlite3.Connection, enquiry_id: int) -> list[Version]:
    """The versions that differ from the one before, the newest first."""
    rows = conn.execute(
        "SELECT id, at, who, data FROM enquiry_version WHERE enquiry_id = :id ORDER BY id",
        {"id": enquiry_id},
    ).fetchall()
    read = [(row, _read(row)) for row in rows]
    known = [(row, e) for row, e in read if e is not None]
    out = [Version(row["id"], row["at"], row["who"]) for row, _ in known[:1]]
    for (last, before), (row, after) in pairwise(known):
        if changed := differences(before, after):
            out.append(Version(row["id"], row["at"], row["who"], changed, last["id"]))
    return out[::-1]


def get(conn: sqlite3.Connection, enquiry_id: int, number: int) -> Enquiry | None:
    """The enquiry as one version had it; None where there is none or it cannot be read."""
    row = conn.execute(
        "SELECT data FROM enquiry_version WHERE id = :number AND enquiry_id = :id",
        {"number": number, "id": enquiry_id},
    ).fetchone()
    return _read(row) if row else None


def keep_first(conn: sqlite3.Connection, enquiry_id: int, enquiry: Enquiry, at: str) -> None:
    """Keep what stands as a version, where nothing that was seen of it is kept yet."""
    key = {"id": enquiry_id, "at": at}
    there = conn.execute(
        "SELECT 1 FROM enquiry_version WHERE enquiry_id = :id AND at = :at LIMIT 1", key
    ).fetchone()
    if there is None:
        keep(conn, enquiry_id, enquiry, at)


def base(conn: sqlite3.Connection, enquiry_id: int, seen: str, page: str) -> Enquiry | None:
    """What a form was last known to hold: what its page sent last, unless the page has seen a later
    version since; None where nothing is kept yet.
    """
    row = conn.execute(
        "SELECT iif(mine, form, data) AS data FROM (SELECT *, page = :page AND page <> '' AND id >="
        " coalesce((SELECT min(id) FROM enquiry_version WHERE enquiry_id = :id AND at = :seen), 0)"
        " AS mine FROM enquiry_version WHERE enquiry_id = :id)"
        " ORDER BY mine DESC, at = :seen DESC, iif(mine, -id, id) LIMIT 1",
        {"id": enquiry_id, "page": page, "seen": seen},
    ).fetchone()
    return from_plain(from_json("jolvek-enquiry", row["data"])) if row else None


def is_late(conn: sqlite3.Connection, enquiry_id: int, page: str, turn: int) -> bool:
    """Whether a page's save comes after a later save of the same page was kept."""
    row = conn.execute(
        "SELECT max(turn) AS last FROM enquiry_version WHERE enquiry_id = :id AND page = :page",
        {"id": enquiry_id, "page": page},
    ).fetchone()
    return bool(page and turn and row["last"] and turn <= row["last"])


def keep(
    conn: sqlite3.Connection,
    enquiry_id: int,
    enquiry: Enquiry,
    now: str,
    form: Enquiry | None = None,
    page: str = "",
    who: str = "",
    turn: int = 0,
) -> None:
    """Keep a version with what the form of a page then held, which was the page's save number
    `turn`; the oldest past the most go.
    """
    key = {"id": enquiry_id, "at": now, "page": page, "most": MOST}
    data = to_json("jolvek-enquiry", as_plain(enquiry))
    typed = to_json("jolvek-enquiry", as_plain(form)) if form else data
    conn.execute(
        "INSERT INTO enquiry_version (enquiry_id, at, page, data, form, who, turn) VALUES (:id,"
        " :at, :page, :data, :form, :who, :turn)",
        {**key, "data": data, "form": typed, "who": who, "turn": turn},
    )
    conn.execute(
        "DELETE FROM enquiry_version WHERE enquiry_id = :id AND id <= (SELECT id FROM"
        " enquiry_version WHERE enquiry_id = :id ORDER BY id DESC LIMIT 1 OFFSET :most)",
        key,
    )


def _read(row: sqlite3.Row) -> Enquiry | None:
    try:
        return from_plain(from_json("jolvek-enquiry", row["data"]))
    except (JolvekError, ValueError, KeyError, TypeError):
        return None
