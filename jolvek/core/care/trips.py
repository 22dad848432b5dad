"""A trip out of a log: hours under way, distance, energy."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from jolvek.core.trial.segments import Sample

UNDER_WAY_M_S, GAP_S = 0.3, 300.0  # slower is not under way; longer without a reading is away


@dataclass(frozen=True)
class Summed:
    """Hours under way, metres, and Wh where power is known of nine tenths of them (else None)."""

    hours: float
    distance_m: float
    energy_wh: float | None


def summed(samples: Sequence[Sample]) -> Summed:
    """What a log of time, speed and power comes to; gaps of more than five minutes count nothing.

    >>> log = [Sample(10.0 * i, 2.0, None, 400.0) for i in range(361)]
    >>> summed(log)
    Summed(hours=1.0, distance_m=7200.0, energy_wh=400.0)
    """
    if len(samples) < 2:
        return Summed(0.0, 0.0, None)
    t = np.array([s.t_s for s in samples])
    v = np.array([s.speed_m_s for s in samples])
    p = np.array([np.nan if s.power_w is None else s.power_w for s in samples])
    dt = np.diff(t)
    dt = np.where(dt > GAP_S, 0.0, dt)
    mid = (v[1:] + v[:-1]) / 2
    moving = mid >= UNDER_WAY_M_S
    seconds = float(dt[moving].sum())
    power = np.where(
        np.isnan(p[1:]), p[:-1], np.where(np.isnan(p[:-1]), p[1:], (p[1:] + p[:-1]) / 2)
    )
    known = ~np.isnan(power)
    enough = seconds > 0 and float(dt[moving & known].sum()) >= 0.9 * seconds
    energy = float((power[known] * dt[known]).sum()) / 3600 if enough else None
    return Summed(seconds / 3600, float((mid * dt)[moving].sum()), energy)
