"""How good the predictions are: points measured by others and the shop's own trials, by family,
beside what was predicted before.
"""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass

from flask import Blueprint

from jolvek.core.hydro.families import FAMILIES
from jolvek.core.predict.calibration import Held, held, outside
from jolvek.core.predict.doubt import doubt
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.measured import POINTS
from jolvek.core.predict.reported import REPORTED
from jolvek.core.trial.in_calm import calm_points
from jolvek.store import trials
from jolvek.store.trials import Trial
from jolvek.web.desk.care.fleet_view import hand_of
from jolvek.web.kit import pages
from jolvek.web.kit.pages import READER
from jolvek.web.shared import conn, show
from jolvek.web.stations.trial.view import setup_of

bp = Blueprint("predictions", __name__)
pages.add(bp, {"page": READER})
MOST_TRIALS = 60  # the latest; each is worked out anew


@dataclass(frozen=True)
class FamilyRow:
    """One family: what others measured, what owners report, what the shop tried, and how many
    trials it has from other shops.
    """

    name: str
    others: Held | None
    owners: Held | None
    own: Held | None
    exchanged: int


def _of_trial(c: sqlite3.Connection, trial: Trial) -> tuple[str, list[tuple[float, float]]]:
    """The family, and (error of speed, z) of each point of a trial against the untried boat."""
    hand = hand_of(c, trial.enquiry_id)
    kept = trials.runs(c, trial.id)
    if hand is None or not kept:
        return "", []
    setup, out = setup_of(hand[1], trial.data), []
    d = doubt(evaluate(setup))
    for p in calm_points(setup, [k.run for k in kept]).points:
        predicted = float(d.performance.speed_at_w(p.power_w))
        low, high = (float(v) for v in d.speed_band_m_s(p.power_w))
        sigma = max((high - low) / 2 / d.z, 1e-6)
        out.append((predicted / p.speed_m_s - 1, (predicted - p.speed_m_s) / sigma))
    return setup.hull.family, out


def rows(c: sqlite3.Connection) -> list[FamilyRow]:
    """A row for each family with any point."""
    own: dict[str, list[list[tuple[float, float]]]] = {}
    for trial in trials.latest_of_all(c, MOST_TRIALS):
        family, points = _of_trial(c, trial)
        if points:
            own.setdefault(family, []).append(points)
    foreign: dict[str, int] = {}
    for x in trials.of_families(c):
        if not x.key.startswith("own-") and not x.left_out:
            foreign[x.family] = foreign.get(x.family, 0) + 1
    others, owners = ({h.family: h for h in outside(x)} for x in (POINTS, REPORTED))
    known = [f for f in FAMILIES if any(f in x for x in (others, owners, own, foreign))]
    return [
        FamilyRow(
            FAMILIES[f].name,
            others.get(f),
            owners.get(f),
            held(f, own[f]) if f in own else None,
            foreign.get(f, 0),
        )
        for f in known
    ]


@bp.get("/rules/predictions")
def page() -> str:
    """The table, and the families without a measurement."""
    found = rows(conn())
    whole = [h for r in found for h in (r.others, r.own) if h]
    points = sum(h.points for h in whole)
    within = sum(h.points * h.within for h in whole) / points if points else None
    names = {r.name for r in found if r.others or r.own or r.exchanged}
    without = [f.name for f in FAMILIES.values() if f.name not in names]
    more = {"rows": found, "points": points, "within": within, "without": without}
    return show("desk/rules/predictions.html", **more)
