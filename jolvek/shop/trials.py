"""Sea trials: begun, how she was, runs typed, from files and live, taken over for the boat; what
the trials of a family teach.
"""

from __future__ import annotations

import secrets
import sqlite3
from collections.abc import Callable, Iterable, Mapping, Sequence
from dataclasses import replace
from typing import Any

from jolvek.core.hydro.families import FAMILIES
from jolvek.core.hydro.hull import Hull
from jolvek.core.trial.runs import Run
from jolvek.core.trial.segments import Sample
from jolvek.shop.acting import By
from jolvek.store import enquiries, trials
from jolvek.store.db import transaction
from jolvek.store.trials import Trial


def begin(conn: sqlite3.Connection, by: By, enquiry_id: int, letter: str, family: str) -> Trial:
    """A new trial of a setup, after something was changed; the one before keeps its runs."""
    with transaction(conn) as c:
        return _begun(c, by, enquiry_id, letter, family)


def current(conn: sqlite3.Connection, by: By, enquiry_id: int, letter: str, family: str) -> Trial:
    """The last trial, begun where there is none."""
    found = trials.latest(conn, enquiry_id)
    if found is not None:
        return found
    with transaction(conn) as c:
        return trials.latest(c, enquiry_id) or _begun(c, by, enquiry_id, letter, family)


def _begun(c: sqlite3.Connection, by: By, enquiry_id: int, letter: str, family: str) -> Trial:
    trials.begin(c, enquiry_id, letter, family, by.who, by.at)
    made = trials.latest(c, enquiry_id)
    assert made is not None
    return made


def set_up(
    conn: sqlite3.Connection,
    enquiry_id: int,
    edit: Callable[[Mapping[str, Any]], Mapping[str, Any]],
) -> None:
    """Keep how she was and what was seen, as `edit` makes it of what stands."""
    with transaction(conn) as c:
        trial = trials.latest(c, enquiry_id)
        assert trial is not None
        trials.keep_data(c, trial.id, edit(trial.data))


def add_runs(
    conn: sqlite3.Connection,
    trial_id: int,
    runs: Iterable[Run],
    source: str,
    op: str = "",
    samples: Sequence[Sample] = (),
) -> None:
    """Keep runs, with the samples of a live trial before them; a run sent twice under one `op` is
    one.
    """
    with transaction(conn) as c:
        if samples:
            trials.add_samples(c, trial_id, samples)
        for run in runs:
            trials.add_run(c, trial_id, op or secrets.token_hex(12), run, source)


def drop_run(conn: sqlite3.Connection, trial_id: int, run_id: int) -> None:
    """Take a run away."""
    with transaction(conn) as c:
        trials.drop_run(c, trial_id, run_id)


def go_by(
    conn: sqlite3.Connection,
    by: By,
    trial: Trial,
    hull_of: Callable[[Hull], Hull],
    factors: Mapping[str, Any] | None,
) -> None:
    """Every page goes by the tried boat from now on, or by the untried one again: what was found
    stays with the boat, its factors (None: none) with the trial, for the family.
    """
    with transaction(conn) as c:
        enquiries.change_within(
            c,
            trial.enquiry_id,
            lambda e: replace(e, need=replace(e.need, hull=hull_of(e.need.hull))),
            by.at,
            who=by.who,
        )
        trials.keep_factors(c, trial.id, factors)


def use_family(conn: sqlite3.Connection, family: str, use: bool) -> None:
    """Untried boats of a family go by what its trials taught, or not."""
    if family in FAMILIES:
        with transaction(conn) as c:
            trials.use_family(c, family, use)


def leave_out(conn: sqlite3.Connection, key: str, out: bool) -> None:
    """Leave a trial out of what its family teaches, or take it in again."""
    with transaction(conn) as c:
        trials.leave_out(c, key, out)


def take_foreign(
    conn: sqlite3.Connection, by: By, rows: Iterable[tuple[str, str, dict[str, Any]]]
) -> int:
    """Trials of another shop (family, key, factors); returns how many are new."""
    with transaction(conn) as c:
        return sum(trials.add_foreign(c, *row, by.at) for row in rows)
