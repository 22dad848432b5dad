"""The state of a job before its last change, to say what followed and to take it back."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import dataclass
from typing import Any

from jolvek.core.base.errors import JolvekError
from jolvek.core.enquiry.enquiry import Enquiry, as_plain, from_plain
from jolvek.store import enquiries, setups
from jolvek.store.setups import PART_TABLES, Pinned


class NotAsItWas(JolvekError):
    """Somebody changed the job since."""


@dataclass(frozen=True)
class State:
    """A job as its rows have it: the enquiry as plain data, and the rows of its setups."""

    enquiry: str
    setups: str

    @property
    def read(self) -> Enquiry:
        """The enquiry. Raises JolvekError where this version cannot read it."""
        return from_plain(json.loads(self.enquiry))


@dataclass(frozen=True)
class Last:
    """The last change of a job: when, by whom, at which page, and the state on both sides."""

    at: str
    who: str
    act: str
    before: State
    after: State


def state(conn: sqlite3.Connection, enquiry_id: int) -> State | None:
    """The job as it stands; None where there is none."""
    stored = enquiries.get(conn, enquiry_id)
    if stored is None:
        return None
    plain = json.dumps(as_plain(stored.enquiry), sort_keys=True)
    return State(plain, json.dumps(setups.rows(conn, enquiry_id), sort_keys=True))


def keep(conn: sqlite3.Connection, enquiry_id: int, last: Last) -> None:
    """Keep the last change; the one before it is forgotten."""
    conn.execute(
        "INSERT INTO undo (enquiry_id, at, who, act, before, after) VALUES (:id, :at, :who, :act,"
        " :before, :after) ON CONFLICT (enquiry_id) DO UPDATE SET at = :at, who = :who, act = :act,"
        " before = :before, after = :after",
        {
            "id": enquiry_id,
            "at": last.at,
            "who": last.who,
            "act": last.act,
            "before": json.dumps([last.before.enquiry, last.before.setups]),
            "after": json.dumps([last.after.enquiry, last.after.setups]),
        },
    )


def last(conn: sqlite3.Connection, enquiry_id: int) -> Last | None:
    """The last change of a job, where one is kept."""
    row = conn.execute("SELECT * FROM undo WHERE enquiry_id = :id", {"id": enquiry_id}).fetchone()
    if row is None:
        return None
    before, after = (State(*json.loads(row[key])) for key in ("before", "after"))
    return Last(row["at"], row["who"], row["act"], before, after)


def forget(conn: sqlite3.Connection, enquiry_id: int) -> None:
    """Forget it: it was taken back, or its customer is erased."""
    conn.execute("DELETE FROM undo WHERE enquiry_id = :id", {"id": enquiry_id})


def take_back(conn: sqlite3.Connection, enquiry_id: int, now: str, who: str) -> None:
    """The job as it was before its last change, within the caller's transaction. Raises NotAsItWas
    where there is none, or where anything was changed since.
    """
    found = last(conn, enquiry_id)
    if found is None or state(conn, enquiry_id) != found.after:
        raise NotAsItWas("nothing was undone: the job has been changed since")
    was = found.before.read
    enquiries.change_within(conn, enquiry_id, lambda _: was, now, who=who)
    conn.execute("DELETE FROM setup WHERE enquiry_id = :id", {"id": enquiry_id})
    for row in json.loads(found.before.setups):
        parts = {table: row.pop(table) for table in PART_TABLES}
        _insert(conn, "setup", row)
        for table, rows in parts.items():
            for part in rows:
                _insert(conn, table, part)
    enquiries.touch(conn, enquiry_id, now)
    forget(conn, enquiry_id)


def _insert(conn: sqlite3.Connection, table: str, row: dict[str, Any]) -> None:
    names = ", ".join(row)
    conn.execute(f"INSERT INTO {table} ({names}) VALUES ({', '.join(':' + k for k in row)})", row)


def pinned_of(found: State) -> list[Pinned]:
    """The setups of a state that can be read, by letter."""
    read = (setups.of_row(row) for row in json.loads(found.setups))
    return [x for x in read if isinstance(x, Pinned)]
