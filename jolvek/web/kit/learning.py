"""What the shop's trials teach of each family, and boats as their family has them where it goes
by it.
"""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from jolvek.core.base.errors import ValueRefused
from jolvek.core.hydro.families import FAMILIES
from jolvek.core.hydro.hull import FACTORS, TRIED
from jolvek.core.trial.family import LEAST_TRIALS, Learned, learn, taught
from jolvek.formats import schema
from jolvek.store import trials
from jolvek.store.enquiries import Stored
from jolvek.store.trials import OfFamily
from jolvek.web.kit.language import tr

FORMAT, VERSION = "jolvek-trials", 1
SIGMA = (0.005, 1.0)


@dataclass(frozen=True)
class FamilyRow:
    """One family: what was learned, whether the shop goes by it, its trials."""

    name: str
    learned: Learned
    used: bool
    trials: tuple[OfFamily, ...]

    @property
    def enough(self) -> bool:
        """Whether there are trials enough to go by."""
        return self.learned.count >= LEAST_TRIALS


def learned_of(family: str, found: list[OfFamily]) -> Learned:
    """What the trials that count teach of a family."""
    rows = [
        (
            [float(np.log(x.factors[name])) for name in FACTORS],
            [float(x.factors["sigma"][name]) for name in TRIED],
        )
        for x in found
        if x.family == family and not x.left_out
    ]
    return learn(family, rows)


def families(conn: sqlite3.Connection) -> list[FamilyRow]:
    """All families that were tried."""
    found, used = trials.of_families(conn), trials.used_families(conn)
    return [
        FamilyRow(
            FAMILIES[name].name,
            learned_of(name, found),
            name in used,
            tuple(x for x in found if x.family == name),
        )
        for name in dict.fromkeys(x.family for x in found)
        if name in FAMILIES
    ]


def with_fleet_fit(conn: sqlite3.Connection, stored: Stored) -> Stored:
    """The enquiry with its untried boat as her family has her, where the shop goes by that."""
    family = stored.need.hull.family
    if family not in trials.used_families(conn):
        return stored
    hull = taught(stored.need.hull, learned_of(family, trials.of_families(conn)))
    e = stored.enquiry
    return replace(stored, enquiry=replace(e, need=replace(e.need, hull=hull)))


def export(conn: sqlite3.Connection) -> dict[str, Any]:
    """The shop's own trials without names, for other shops."""
    own = [x for x in trials.of_families(conn) if x.key.startswith("own-") and not x.left_out]
    rows = [{"family": x.family, **x.factors} for x in own]
    return {"format": FORMAT, "version": VERSION, "trials": rows}


def foreign(text: bytes) -> list[tuple[str, str, dict[str, Any]]]:
    """The trials of another shop's file: family, key, factors. Raises JolvekError."""
    data = schema.loads(text)
    if not isinstance(data, dict) or data.get("format") != FORMAT:
        raise ValueRefused("format", str(data)[:40], FORMAT)
    rows, out = data.get("trials"), []
    if not isinstance(rows, list) or len(rows) > 5000:
        raise ValueRefused("trials", str(rows)[:40], tr("a list of at most 5000"))
    for row in rows:
        family, factors = _checked(row)
        key = f"{family} " + " ".join(f"{factors[name]:.6g}" for name in FACTORS)
        out.append((family, key, factors))
    return out


def _checked(row: Any) -> tuple[str, dict[str, Any]]:
    if not isinstance(row, dict) or row.get("family") not in FAMILIES:
        raise ValueRefused("trials.family", str(row)[:40], tr("one of ") + ", ".join(FAMILIES))
    out: dict[str, Any] = {"sigma": {}}
    for name in FACTORS:
        out[name] = _between(name, row.get(name), 0.2, 5.0)
    result = row.get("sigma")
    for name in TRIED:
        value = result.get(name) if isinstance(result, dict) else None
        out["sigma"][name] = _between(f"sigma.{name}", value, *SIGMA)
    return row["family"], out


def _between(key: str, value: Any, low: float, high: float) -> float:
    if isinstance(value, bool) or not isinstance(value, int | float) or not low <= value <= high:
        raise ValueRefused(f"trials.{key}", value, f"{low:g} to {high:g}")
    return float(value)
