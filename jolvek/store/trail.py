"""The audit trail: who did what to what, from where. Each row is chained to the one before by a
hash, so that one that was changed or taken out shows.
"""

from __future__ import annotations

import hashlib
import json
import sqlite3
from collections.abc import Iterator, Mapping
from dataclasses import dataclass

from jolvek.store.columns import insert, select

COLUMNS = ("at", "who", "role", "address", "action", "path", "detail", "chain")
ERASED = "erased"
MERGED_S = 600  # one's own autosaves of one page within it are one row
# append only, held by the database
TRIGGERS = {
    f"trail_{verb}": f"CREATE TRIGGER trail_{verb} BEFORE {verb.upper()} ON trail"
    " BEGIN SELECT RAISE(ABORT, 'the trail is only added to'); END"
    for verb in ("update", "delete")
}


@dataclass(frozen=True)
class Step:
    """One thing that was done."""

    at: str
    who: str
    role: str
    address: str
    action: str
    path: str
    detail: str = ""
    chain: str = ""


def _chain(before: str, step: Step) -> str:
    rows = [step.at, step.who, step.role, step.address, step.action, step.path, step.detail]
    return hashlib.sha256((before + json.dumps(rows)).encode("utf-8", "surrogatepass")).hexdigest()


def add(conn: sqlite3.Connection, step: Step, merged_after: str = "") -> None:
    """Add a step, inside a transaction. With `merged_after` a time, nothing is added where the
    same person did the same to the same since.
    """
    row = conn.execute("SELECT chain FROM trail ORDER BY id DESC LIMIT 1").fetchone()
    if merged_after:
        key = {"path": step.path, "who": step.who, "action": step.action, "after": merged_after}
        sql = (
            "SELECT 1 FROM trail WHERE path = :path AND at > :after AND who = :who"
            " AND action = :action LIMIT 1"
        )
        if conn.execute(sql, key).fetchone():
            return
    chain = _chain(row["chain"] if row else "", step)
    conn.execute(insert("trail", COLUMNS), {**vars(step), "chain": chain})


def blank(conn: sqlite3.Connection, where: str, values: Mapping[str, object]) -> int:
    """Take the details out of steps that name a customer, and chain what follows anew; returns how
    many. In a transaction; the database's own guard is lifted for it.
    """
    found = conn.execute(
        f"SELECT id FROM trail WHERE detail NOT IN ('', :erased) AND ({where}) ORDER BY id",
        {**values, "erased": ERASED},
    ).fetchall()
    if not found:
        return 0
    guards = conn.execute(
        "SELECT name FROM sqlite_master WHERE type = 'trigger' AND tbl_name = 'trail'"
    ).fetchall()
    for guard in guards:
        conn.execute(f"DROP TRIGGER {guard['name']}")
    numbers = [(ERASED, row["id"]) for row in found]
    conn.executemany("UPDATE trail SET detail = ? WHERE id = ?", numbers)
    _chain_from(conn, found[0]["id"])
    for guard in guards:
        conn.execute(TRIGGERS[guard["name"]])
    return len(found)


def _chain_from(conn: sqlite3.Connection, first: int) -> None:
    before = conn.execute("SELECT chain FROM trail WHERE id = ?", (first - 1,)).fetchone()
    last = before["chain"] if before else ""
    rows = conn.execute(
        select("trail", ("id", *COLUMNS), "WHERE id >= :first ORDER BY id"), {"first": first}
    ).fetchall()
    for row in rows:
        last = _chain(last, Step(*row[1:]))
        conn.execute("UPDATE trail SET chain = ? WHERE id = ?", (last, row[0]))


def latest(conn: sqlite3.Connection, most: int, before: int = 0) -> list[tuple[int, Step]]:
    """The last steps with their numbers, the newest first; `before` a number, or from the end."""
    where = "WHERE id < :before" if before else ""
    sql = select("trail", ("id", *COLUMNS), f"{where} ORDER BY id DESC LIMIT :most")
    return [(row[0], Step(*row[1:])) for row in conn.execute(sql, {"before": before, "most": most})]


def all_of(conn: sqlite3.Connection) -> Iterator[Step]:
    """Every step, the oldest first."""
    for row in conn.execute(select("trail", COLUMNS, "ORDER BY id")):
        yield Step(*row)


def broken_at(conn: sqlite3.Connection) -> int | None:
    """The number of the first step that does not follow from the one before; None: all do."""
    before, last = "", 0
    for row in conn.execute(select("trail", ("id", *COLUMNS), "ORDER BY id")):
        step = Step(*row[1:])
        if step.chain != _chain(before, step) or row[0] != last + 1:
            return int(row[0])
        before, last = step.chain, row[0]
    return None
