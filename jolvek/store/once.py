"""What was read by a connection is read once while nothing changed."""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Callable, Hashable, Iterable
from typing import Any, TypeVar

OF = "of_enquiry"  # the column that says whose a row of several enquiries is
T = TypeVar("T")


class Connection(sqlite3.Connection):
    """A connection that remembers what was read by it."""

    def __init__(self, *args: Any, **more: Any) -> None:
        super().__init__(*args, **more)
        self.remembered: dict[Hashable, Any] = {}
        self.mark: tuple[int, int] = (-1, -1)
        self.together: frozenset[int] = frozenset()


def once(conn: sqlite3.Connection, key: Hashable, read: Callable[[], T]) -> T:
    """What `read` gives, remembered until the database is changed, by whatever connection. Within a
    transaction it is read again each time: what is written there may be rolled back.

    >>> c = sqlite3.connect(":memory:", factory=Connection)
    >>> once(c, "a", lambda: [1]) is once(c, "a", lambda: [2])
    True
    >>> c.close()
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


def together(conn: sqlite3.Connection, enquiries: Iterable[int]) -> None:
    """Enquiries whose rows are going to be asked for one after the other: `each` then reads those
    of all by one statement.
    """
    if isinstance(conn, Connection):
        conn.together = frozenset(enquiries)


def each(
    conn: sqlite3.Connection, sql: str, enquiry_id: int, of: str = "enquiry_id"
) -> list[sqlite3.Row]:
    """The rows of a statement for one enquiry, which `sql` names as `{of} = :id`. A row ends with a
    column more, OF.
    """
    several = sql.replace(" FROM ", f", {of} AS {OF} FROM ", 1).replace(
        f"{of} = :id", f"{of} IN (SELECT value FROM json_each(:ids))"
    )

    def read(ids: Iterable[int]) -> dict[int, list[sqlite3.Row]]:
        out: dict[int, list[sqlite3.Row]] = {x: [] for x in ids}
        for row in conn.execute(several, {"ids": json.dumps(list(out))}):
            out[row[OF]].append(row)
        return out

    group = conn.together if isinstance(conn, Connection) else frozenset()
    if enquiry_id not in group:
        return read([enquiry_id])[enquiry_id]
    return once(conn, (sql, group), lambda: read(group))[enquiry_id]
