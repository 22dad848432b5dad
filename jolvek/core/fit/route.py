"""The way of the motor's cable through the boat, from where the packs lie to the motor."""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.fit.fit import Fit
from jolvek.core.fit.trim import Weight

SLACK, ENDS_M = 1.1, 0.3  # bends and clips, and what both ends take; common practice, no source
SHORTEST_M, LONGEST_M = 0.5, 30.0
STEP_M = 0.1  # cable is cut to that
CARRIED_KG = 25.0  # the heaviest pack that is carried aboard; common practice, no source


def way_m(ahead_m: ArrayLike, off_m: ArrayLike, above_m: ArrayLike) -> Array:
    """Cable in m, one way, for so much along, across and up (any shape), laid along the hull and
    not through the air.

    >>> float(way_m(1.0, 0.0, 0.2))
    1.7
    """
    along = SLACK * (np.abs(ahead_m) + np.abs(off_m) + np.abs(above_m)) + ENDS_M
    cut = np.clip(np.ceil(along / STEP_M - 1e-9) * STEP_M, SHORTEST_M, LONGEST_M)
    return np.asarray(np.round(cut, 1))


def route_m(weights: Sequence[Weight]) -> float:
    """The longest way in m from a pack to the motor, among the weights aboard.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> route_m(sample_fitted().weights)
    1.7
    """
    motor = next(w for w in weights if w.name == "motor")
    packs = [w for w in weights if w.name.startswith("battery")]
    ways = [
        float(way_m(p.ahead_m - motor.ahead_m, p.off_m - motor.off_m, p.above_m - motor.above_m))
        for p in packs
    ]
    return max(ways, default=SHORTEST_M)


def carried(f: Fit) -> bool:
    """Whether the kit is carried aboard and ashore again: one pack that a person lifts, joined by a
    plug and charged at home, and nothing wired in.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> carried(sample_fitted())
    True
    """
    if f.clips_on:
        return True
    wired = f.solar_w or f.plan.loads.current_a or f.fitting.throttle or f.fitting.engine_space
    built_in = f.mount.spec.fixed or bool(f.need.site.bays)
    light = f.bank.packs == 1 and f.battery.spec.weight_kg <= CARRIED_KG
    return light and not wired and not built_in
