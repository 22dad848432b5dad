"""A point of a trial as it would be in calm, deep water: each run has its own wind and depth."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from jolvek.core.hydro.resistance import Resistance, remembered_table
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.trial.runs import Run, Sorted, TrialPoint, sort

LEAST_M_S = 1e-3
UNSURE = 0.5  # of a correction, 1σ; Jolvek's own
BESIDE = 0.5  # of a headwind's loss that a lone run may have, its course being unknown


def in_calm(setup: Setup, table: Resistance, runs: Sequence[Run], point: TrialPoint) -> TrialPoint:
    """The point with what wind along the course and the depth took from it given back, as the
    boat's curve says, and with the doubt that this brings. `setup` is in calm, deep water.

    A pair runs once against the wind and once before it, whichever is which: what it loses is more
    than what it gains. Of a lone run the course is not known: it only counts less.

    >>> from jolvek.core.hydro.resistance import remembered_table
    >>> from jolvek.core.predict.measured import SOFT
    >>> table = remembered_table(SOFT.hull, SOFT.water, SOFT.displacement_kg, SOFT.load)
    >>> runs = [Run(500, 1.6, "out", wind_m_s=5.0), Run(500, 2.0, "back", wind_m_s=5.0)]
    >>> calm = in_calm(SOFT, table, runs, TrialPoint(500, 1.8, 0.015, (0, 1)))
    >>> 1.0 < calm.speed_m_s / 1.8 < 1.1, calm.noise > 0.015
    (True, True)
    """
    mine = [runs[i] for i in point.runs]
    if not any(r.wind_m_s or r.depth_m for r in mine):
        return point
    free = _speed(setup, table, point.power_w)
    wind = float(np.mean([r.wind_m_s or 0.0 for r in mine]))
    depth = min((r.depth_m for r in mine if r.depth_m), default=None)
    ways = (wind, -wind) if len(mine) > 1 else (0.0,)
    seen = [_speed(replace(setup, wind_m_s=w, depth_m=depth), table, point.power_w) for w in ways]
    factor = free / max(float(np.mean(seen)), LEAST_M_S)
    doubt = UNSURE * np.log(factor)
    if len(mine) == 1 and wind:
        against = _speed(replace(setup, wind_m_s=wind), table, point.power_w)
        doubt = np.hypot(doubt, BESIDE * np.log(free / max(against, LEAST_M_S)))
    noise = float(np.hypot(point.noise, doubt))
    return replace(point, speed_m_s=factor * point.speed_m_s, noise=noise)


def calm_points(setup: Setup, runs: Sequence[Run]) -> Sorted:
    """The points of a trial in calm, deep water, with what was left out, for a boat untried.

    >>> from jolvek.core.predict.measured import SOFT
    >>> calm_points(SOFT, [Run(500, 1.8)]).points[0].speed_m_s
    1.8
    """
    table = remembered_table(setup.hull, setup.water, setup.displacement_kg, setup.load)
    found = sort(runs)
    return replace(found, points=tuple(in_calm(setup, table, runs, p) for p in found.points))


def _speed(setup: Setup, table: Resistance, power_w: float) -> float:
    return float(evaluate(setup, table).speed_at_w(power_w))
