"""What was read by a connection is read once while nothing changed."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Hashable
from typing import Any, TypeVar

T = TypeVar("T")


class Connection(sqlite3.Connection):
    """A connection that remembers what was read by it."""

    def __init__(self, *args: Any, **more: Any) -> None:
        super().__init__(*args, **more)
        self.remembered: dict[Hashable, Any] = {}
        self.mark: tuple[int, int] = (-1, -1)


def once(conn: sqlite3.Connection, key: Hashable, read: Callable[[], T]) -> T:
    """What `read` gives, remembered until the database is changed, by whatever connection. Within a
    transaction it is read again each time: what is written there may be rolled back.

    >>> c = sqlite3.connect(":memory:", factory=Connection)
    >>> once(c, "a", lambda: [1]) is once(c, "a", lambda: [2])
    True
    """
    if not isinstance(conn, Connection) or conn.in_transaction:
        return read()
    mark = (conn.total_changes, int(conn.execute("PRAGMA data_version").fetchone()[0]))
    if mark != conn.mark:
        conn.remembered.clear()
        conn.mark = mark
    if key not in conn.remembered:
        conn.remembered[key] = read()
    found: T = conn.remembered[key]
    return found
