"""Sea trials of an enquiry's boat: their runs (each kept once, whoever sends it again), the samples
of a live one, what they found, and the families they belong to.
"""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Iterable, Mapping
from dataclasses import asdict, dataclass
from typing import Any

from jolvek.core.trial.runs import Run
from jolvek.core.trial.segments import Sample
from jolvek.store.once import once


@dataclass(frozen=True)
class Trial:
    """One trial: of which setup, since when, by whom, how she was (`data`), what it found."""

    id: int
    enquiry_id: int
    letter: str
    began_at: str
    who: str
    data: dict[str, Any]
    factors: dict[str, float] | None
    left_out: bool


@dataclass(frozen=True)
class RunKept:
    """One run with its number and where it came from: typed, file, live."""

    id: int
    run: Run
    source: str


_COLUMNS = "id, enquiry_id, letter, began_at, who, data, factors, left_out"


def _trial(row: sqlite3.Row) -> Trial:
    found = json.loads(row["factors"]) if row["factors"] else None
    values = {k: row[k] for k in ("id", "enquiry_id", "letter", "began_at", "who")}
    return Trial(
        **values, data=json.loads(row["data"]), factors=found, left_out=bool(row["left_out"])
    )


def begin(
    conn: sqlite3.Connection, enquiry_id: int, letter: str, family: str, who: str, at: str
) -> int:
    """A new trial; returns its number."""
    row = conn.execute(
        "INSERT INTO trial (enquiry_id, letter, began_at, who, data, family) VALUES (:enquiry,"
        " :letter, :at, :who, '{}', :family) RETURNING id",
        {"enquiry": enquiry_id, "letter": letter, "at": at, "who": who, "family": family},
    ).fetchone()
    return int(row["id"])


def latest(conn: sqlite3.Connection, enquiry_id: int) -> Trial | None:
    """The trial begun last."""
    row = conn.execute(
        f"SELECT {_COLUMNS} FROM trial WHERE enquiry_id = :id ORDER BY id DESC LIMIT 1",
        {"id": enquiry_id},
    ).fetchone()
    return _trial(row) if row else None


def latest_of_all(conn: sqlite3.Connection, most: int) -> list[Trial]:
    """The last trial of each boat that has runs, the latest first."""
    rows = conn.execute(
        f"SELECT {_COLUMNS} FROM trial WHERE id IN (SELECT max(t.id) FROM trial t JOIN"
        " trial_run r ON r.trial_id = t.id GROUP BY t.enquiry_id) ORDER BY id DESC LIMIT :most",
        {"most": most},
    )
    return [_trial(row) for row in rows]


def keep_data(conn: sqlite3.Connection, trial_id: int, data: Mapping[str, Any]) -> None:
    """Keep how she was: people, gear, wind, depth, charge, what was seen."""
    conn.execute(
        "UPDATE trial SET data = :data WHERE id = :id",
        {"data": json.dumps(dict(data), ensure_ascii=False), "id": trial_id},
    )


def add_run(conn: sqlite3.Connection, trial_id: int, op: str, run: Run, source: str) -> bool:
    """Keep a run; whether it is new. One with the same `op` is the same run."""
    done = conn.execute(
        "INSERT INTO trial_run (trial_id, op, data, source) VALUES (:trial, :op, :data, :source)"
        " ON CONFLICT (op) DO NOTHING",
        {"trial": trial_id, "op": op, "data": json.dumps(asdict(run)), "source": source},
    )
    return done.rowcount > 0


def drop_run(conn: sqlite3.Connection, trial_id: int, run_id: int) -> None:
    """Take a run away."""
    conn.execute(
        "DELETE FROM trial_run WHERE id = :id AND trial_id = :trial",
        {"id": run_id, "trial": trial_id},
    )


def runs(conn: sqlite3.Connection, trial_id: int) -> list[RunKept]:
    """The runs of a trial in the order in which they came."""
    sql = "SELECT id, data, source FROM trial_run WHERE trial_id = :id ORDER BY id"
    return [
        RunKept(row["id"], Run(**json.loads(row["data"])), row["source"])
        for row in conn.execute(sql, {"id": trial_id})
    ]


def add_samples(conn: sqlite3.Connection, trial_id: int, samples: Iterable[Sample]) -> None:
    """Keep samples of a live trial."""
    conn.executemany(
        "INSERT OR IGNORE INTO live_sample (trial_id, at_s, speed_m_s, course_deg, power_w) VALUES"
        " (:trial, :t_s, :speed_m_s, :course_deg, :power_w)",
        [{"trial": trial_id, **asdict(s)} for s in samples],
    )


def samples(conn: sqlite3.Connection, trial_id: int, since_s: float = 0.0) -> list[Sample]:
    """The samples of a live trial, from a time on."""
    rows = conn.execute(
        "SELECT at_s, speed_m_s, course_deg, power_w FROM live_sample WHERE trial_id = :id AND"
        " at_s >= :since ORDER BY at_s",
        {"id": trial_id, "since": since_s},
    )
    return [Sample(*row) for row in rows]


def energy_wh(conn: sqlite3.Connection, trial_id: int) -> float | None:
    """Wh drawn over the samples of a live trial, gaps of more than 10 s left out; None without."""
    total, last, any_power = 0.0, None, False
    for s in samples(conn, trial_id):
        if last is not None and s.power_w is not None and 0 < s.t_s - last <= 10:
            total, any_power = total + s.power_w * (s.t_s - last) / 3600, True
        last = s.t_s
    return total if any_power else None


def keep_factors(
    conn: sqlite3.Connection, trial_id: int, factors: Mapping[str, Any] | None
) -> None:
    """What a trial found of its boat, for her family; None: nothing that is used."""
    result = json.dumps(dict(factors)) if factors else None
    conn.execute(
        "UPDATE trial SET factors = :factors WHERE id = :id", {"factors": result, "id": trial_id}
    )


@dataclass(frozen=True)
class OfFamily:
    """One trial of a family: `key` says whose it is: here by its number, or from another shop."""

    key: str
    family: str
    title: str
    factors: dict[str, Any]
    left_out: bool


def of_families(conn: sqlite3.Connection) -> list[OfFamily]:
    """The trials that found something, our own and those of other shops, by family; of each boat
    the last.
    """
    own = conn.execute(
        "SELECT t.id, t.family, e.title, t.factors, t.left_out FROM trial t JOIN enquiry e ON"
        " e.id = t.enquiry_id WHERE t.factors IS NOT NULL AND t.id = (SELECT max(id) FROM trial x"
        " WHERE x.enquiry_id = t.enquiry_id AND x.factors IS NOT NULL) ORDER BY t.family, t.id"
    )
    out = [
        OfFamily(f"own-{r[0]}", r[1], r[2], json.loads(r[3]), bool(r[4])) for r in own.fetchall()
    ]
    foreign = conn.execute(
        "SELECT id, family, key, factors, left_out FROM foreign_trial ORDER BY family, id"
    )
    out += [
        OfFamily(f"foreign-{r[0]}", r[1], "of another shop", json.loads(r[3]), bool(r[4]))
        for r in foreign.fetchall()
    ]
    return sorted(out, key=lambda x: x.family)


def leave_out(conn: sqlite3.Connection, key: str, out: bool) -> None:
    """Leave a trial out of its family, or take it in again."""
    whose, _, number = key.partition("-")
    table = {"own": "trial", "foreign": "foreign_trial"}.get(whose)
    if table and number.isdecimal():
        conn.execute(
            f"UPDATE {table} SET left_out = :out WHERE id = :id",
            {"out": int(out), "id": int(number)},
        )


def add_foreign(
    conn: sqlite3.Connection, family: str, key: str, factors: Mapping[str, Any], at: str
) -> bool:
    """Keep a trial of another shop; whether it is new."""
    done = conn.execute(
        "INSERT INTO foreign_trial (family, came_at, key, factors) VALUES (:family, :at, :key,"
        " :factors) ON CONFLICT (key) DO NOTHING",
        {"family": family, "at": at, "key": key, "factors": json.dumps(dict(factors))},
    )
    return done.rowcount > 0


def used_families(conn: sqlite3.Connection) -> set[str]:
    """The families whose trials the shop goes by."""
    asked = "SELECT family FROM family_used"

    def read() -> set[str]:
        return {row["family"] for row in conn.execute(asked)}

    return once(conn, "family used", read)


def use_family(conn: sqlite3.Connection, family: str, use: bool) -> None:
    """Go by the trials of a family, or not."""
    sql = "INSERT OR IGNORE INTO family_used (family) VALUES (:family)"
    if not use:
        sql = "DELETE FROM family_used WHERE family = :family"
    conn.execute(sql, {"family": family})
