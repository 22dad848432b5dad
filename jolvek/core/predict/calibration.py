"""How good predictions are, family by family: points from outside beside what was predicted before
any trial of the boat.
"""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np

from jolvek.core.predict.measured import POINTS, Residual, residuals
from jolvek.core.predict.setup import Setup

BAND_Z = 1.2816  # of a normal law, either side of which 10 % lie


@dataclass(frozen=True)
class Held:
    """Points of one family: how many, of how many boats, mean and largest error of speed (predicted
    over measured, less one), and the share within the band of 80 %.
    """

    family: str
    points: int
    boats: int
    mean: float
    worst: float
    within: float


def held(family: str, boats: Sequence[Iterable[tuple[float, float]]]) -> Held:
    """What (error, z) of the points of each boat of a family say.

    >>> held("kayak", [[(0.02, 0.3), (-0.06, -1.5)]])
    Held(family='kayak', points=2, boats=1, mean=-0.02, worst=-0.06, within=0.5)
    """
    rows = [row for boat in boats for row in boat]
    errors = [error for error, _ in rows]
    inside = [abs(z) <= BAND_Z for _, z in rows]
    mean, worst = float(np.mean(errors)), max(errors, key=abs)
    return Held(family, len(rows), len(boats), round(mean, 6), worst, within=float(np.mean(inside)))


def outside(points: Sequence[tuple[str, Setup, float, float]] = POINTS) -> list[Held]:
    """Points measured on the water by others (`measured`), or those that owners report, by family.

    >>> [h.family for h in outside()], sum(h.points for h in outside())
    (['inflatable_soft', 'multihull', 'skiff'], 6)
    """
    found: dict[str, dict[str, list[Residual]]] = {}
    for (what, setup, *_), r in zip(points, residuals(points), strict=True):
        found.setdefault(setup.hull.family, {}).setdefault(what, []).append(r)
    return [
        held(family, [[(r.error, r.z) for r in rows] for rows in boats.values()])
        for family, boats in sorted(found.items())
    ]
