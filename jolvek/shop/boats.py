"""Several boats in one job, and its last change taken back."""

from __future__ import annotations

import sqlite3

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.shop.acting import By
from jolvek.store import jobs, undo
from jolvek.store.db import transaction
from jolvek.store.undo import Last


def add_boat(conn: sqlite3.Connection, by: By, enquiry_id: int) -> int:
    """One more boat like this one in the same job; returns its number."""
    with transaction(conn) as c:
        if len(jobs.boats(c, enquiry_id)) >= jobs.MOST_BOATS:
            raise JolvekError(
                msg("A job holds at most %(most_boats)s boats.", most_boats=jobs.MOST_BOATS)
            )
        return jobs.add_boat(c, enquiry_id, by.at, by.who)


def part(conn: sqlite3.Connection, enquiry_id: int) -> None:
    """Take a boat out of its job; her enquiry stays."""
    with transaction(conn) as c:
        jobs.part(c, enquiry_id)


def undo_last(conn: sqlite3.Connection, by: By, enquiry_id: int) -> None:
    """The job as it was before its last change. Raises NotAsItWas."""
    with transaction(conn) as c:
        undo.take_back(c, enquiry_id, by.at, by.who)


def note_change(conn: sqlite3.Connection, enquiry_id: int, last: Last) -> None:
    """Keep what the last change of a job was, with the state before it."""
    with transaction(conn) as c:
        undo.keep(c, enquiry_id, last)
