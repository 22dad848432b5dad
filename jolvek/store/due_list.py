"""What is due on every boat in service, kept by day so that a shop of many thousands reads its
list at once. Triggers mark a boat where her log, her setup or the shop's rules change; she is then
worked out anew before the list is read.
"""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Callable
from dataclasses import asdict, dataclass
from datetime import date
from typing import Any

from jolvek.core.care.due import Due, Logged, Season, Spare, due
from jolvek.core.care.steps import Edit, Profile, care_for
from jolvek.store import care, care_edits, spares

FAR = "9999-12-31"  # of what has no day yet
_LOG = "UPDATE care_stand SET state = 'log' WHERE state = 'good'"
_SETUP = "UPDATE care_stand SET state = 'setup'"


def _trigger(name: str, event: str, table: str, sets: str) -> str:
    return f"CREATE TRIGGER {name} AFTER {event} ON {table} BEGIN {sets}; END"


def _all() -> dict[str, str]:
    out = {}
    for table in ("trip", "care_act", "spare"):
        for event, row in (("INSERT", "NEW"), ("DELETE", "OLD"), ("UPDATE", "NEW")):
            name = f"due_{table}_{event.lower()}"
            out[name] = _trigger(name, event, table, f"{_LOG} AND enquiry_id = {row}.enquiry_id")
    for event, row in (("INSERT", "NEW"), ("DELETE", "OLD"), ("UPDATE", "NEW")):
        name = f"due_setup_{event.lower()}"
        out[name] = _trigger(name, event, "setup", f"{_SETUP} WHERE enquiry_id = {row}.enquiry_id")
        name = f"due_care_edit_{event.lower()}"
        out[name] = _trigger(name, event, "care_edit", _LOG)
        name = f"due_setting_{event.lower()}"
        when = f"setting WHEN {row}.key IN ('season_from', 'season_to')"
        out[name] = _trigger(name, event, when, _LOG)
    into = (
        "INSERT INTO care_stand (enquiry_id, state) SELECT NEW.id, 'setup' WHERE NEW.stage ="
        " 'delivered' ON CONFLICT (enquiry_id) DO UPDATE SET state = 'setup'"
    )
    of = "UPDATE OF stage, water, runs_per_day"
    out["due_enquiry_update"] = _trigger("due_enquiry_update", of, "enquiry", into)
    out["due_enquiry_insert"] = _trigger("due_enquiry_insert", "INSERT", "enquiry", into)
    return out


TRIGGERS = _all()


@dataclass(frozen=True)
class Line:
    """One step that is due on one boat."""

    enquiry_id: int
    title: str
    customer: str
    mail: str
    step: str
    on_day: str
    text: str
    hazard: str
    why: str
    reminded: str  # when the owner was written to about it; empty for not


def worked(
    conn: sqlite3.Connection, enquiry_id: int, profile: Profile, season: Season, today: date
) -> list[Due]:
    """What is due on one boat, from her log; nothing before she is in service."""
    began = care.began(conn, enquiry_id)
    if began is None:
        return []
    log = [Logged(t.day, t.hours) for t in care.trips(conn, enquiry_id)]
    steps = care_for(profile, edits(conn))
    kept = [Spare(s.id, s.what, s.day) for s in spares.of_enquiry(conn, enquiry_id)]
    return due(steps, began, log, care.acts(conn, enquiry_id), season, today, kept)


def edits(conn: sqlite3.Connection) -> list[Edit]:
    """The shop's own steps."""
    return care_edits.all_edits(conn)


def keep(
    conn: sqlite3.Connection, enquiry_id: int, profile: Profile, season: Season, today: date
) -> None:
    """Work one boat out and keep it; in a transaction."""
    found = worked(conn, enquiry_id, profile, season, today)
    conn.execute("DELETE FROM care_due WHERE enquiry_id = :id", {"id": enquiry_id})
    conn.executemany(
        "INSERT INTO care_due (enquiry_id, step, on_day, text, hazard, why) VALUES (?, ?, ?, ?, ?,"
        " ?)",
        [
            (
                enquiry_id,
                d.care.key,
                d.on.isoformat() if d.on else FAR,
                d.care.text,
                d.care.hazard,
                d.why,
            )
            for d in found
        ],
    )
    conn.execute(
        "INSERT INTO care_stand (enquiry_id, state, worked_on, profile) VALUES (:id, 'good', :on,"
        " :profile) ON CONFLICT (enquiry_id) DO UPDATE SET state = 'good', worked_on = :on,"
        " profile = :profile",
        {"id": enquiry_id, "on": today.isoformat(), "profile": json.dumps(asdict(profile))},
    )


def pass_by(conn: sqlite3.Connection, enquiry_id: int, today: date) -> None:
    """Nothing is due on a boat that has no setup, or none that can be read; asked again on the next
    day and when she changes.
    """
    conn.execute("DELETE FROM care_due WHERE enquiry_id = :id", {"id": enquiry_id})
    conn.execute(
        "UPDATE care_stand SET state = 'good', worked_on = :on, profile = '{}' WHERE enquiry_id ="
        " :id",
        {"on": today.isoformat(), "id": enquiry_id},
    )


def _profile(text: str) -> Profile:
    result: dict[str, Any] = json.loads(text)
    return Profile(result["salt"], result["lead"], result["hired"], tuple(result["products"]))


def refresh(
    conn: sqlite3.Connection,
    season: Season,
    today: date,
    profile_of: Callable[[int], Profile | None],
    most: int,
) -> int:
    """Work out up to `most` boats that changed, or were last looked at on another day; returns how
    many are left. `profile_of` works a boat's setup out (None: she has none). In a transaction.
    """
    rows = conn.execute(
        "SELECT enquiry_id, state, profile FROM care_stand WHERE state <> 'good' UNION ALL SELECT"
        " enquiry_id, state, profile FROM care_stand WHERE state = 'good' AND worked_on < :today"
        " LIMIT :most",
        {"today": today.isoformat(), "most": most},
    ).fetchall()
    for row in rows:
        anew = row["state"] == "setup" or row["profile"] == "{}"
        found = profile_of(row["enquiry_id"]) if anew else _profile(row["profile"])
        if found is None:
            pass_by(conn, row["enquiry_id"], today)
        else:
            keep(conn, row["enquiry_id"], found, season, today)
    return left(conn, today)


def left(conn: sqlite3.Connection, today: date) -> int:
    """How many boats are to be worked out anew."""
    row = conn.execute(
        "SELECT (SELECT count(*) FROM care_stand WHERE state <> 'good') + (SELECT count(*) FROM"
        " care_stand WHERE state = 'good' AND worked_on < :today) AS n",
        {"today": today.isoformat()},
    ).fetchone()
    return int(row["n"])


DUE_SQL = (
    "SELECT d.enquiry_id, e.title, e.customer, e.mail, d.step, d.on_day, d.text, d.hazard, d.why,"
    " coalesce(r.at, '') AS reminded FROM care_due d CROSS JOIN enquiry e ON e.id = d.enquiry_id"
    " LEFT JOIN reminder r ON r.enquiry_id = d.enquiry_id AND r.step = d.step AND r.due_on ="
    " d.on_day WHERE d.on_day <= :until AND e.archived = 0 AND e.stage = 'delivered'"
    " AND (:told OR r.at IS NULL)"
    " ORDER BY d.on_day, d.enquiry_id LIMIT :most OFFSET :skip"
)


def lines(
    conn: sqlite3.Connection, until: date, most: int = 100, skip: int = 0, told: bool = True
) -> list[Line]:
    """What is due up to a day, the longest due first; with `told` that too of which the owner was
    written to.
    """
    asked = {"until": until.isoformat(), "most": most, "skip": skip, "told": told}
    return [Line(*row) for row in conn.execute(DUE_SQL, asked)]


def count(conn: sqlite3.Connection, until: date) -> tuple[int, int]:
    """How many steps are due up to a day, on how many boats."""
    row = conn.execute(
        "SELECT coalesce(sum(d.n), 0) AS n, count(*) AS boats FROM (SELECT enquiry_id, count(*)"
        " AS n FROM care_due WHERE on_day <= :until GROUP BY enquiry_id) d WHERE d.enquiry_id IN"
        " (SELECT id FROM enquiry WHERE archived = 0 AND stage = 'delivered')",
        {"until": until.isoformat()},
    ).fetchone()
    return int(row["n"]), int(row["boats"])


def remind(conn: sqlite3.Connection, x: Line, at: str, who: str) -> bool:
    """Note that the owner is written to about a step on its day; whether that is new."""
    done = conn.execute(
        "INSERT INTO reminder (enquiry_id, step, due_on, at, who) VALUES (:id, :step, :on, :at,"
        " :who) ON CONFLICT DO NOTHING",
        {"id": x.enquiry_id, "step": x.step, "on": x.on_day, "at": at, "who": who},
    )
    return done.rowcount > 0
