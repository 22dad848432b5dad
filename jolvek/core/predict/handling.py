"""Getting going, getting over the hump and stopping: thrust against resistance, over time."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np

from jolvek.core.predict.hump import PLANING_FROUDE
from jolvek.core.predict.performance import Performance

ADDED_MASS = 0.08  # of the displacement, moving with her; common practice, no source
NEAR_TOP = 0.9
SLOW_M_S = 0.3  # as good as stopped
LEAST_SPARE = 0.01  # of the resistance: slower than this is not getting going


@dataclass(frozen=True)
class Handling:
    """Seconds from rest to 90 % of the top speed, and onto the plane (None: she does not); metres
    that she runs on from the top speed with the motor off.
    """

    to_speed_s: float
    to_plane_s: float | None
    coasts_m: float


@lru_cache(maxsize=64)
def handling(p: Performance) -> Handling:
    """How a setup gets going and stops, in its own wind. Validity as `evaluate`; steady propeller
    at each speed, no reverse.

    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.products.motor import Motor
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.setup import Setup
    >>> h = handling(evaluate(Setup(Hull("rigid_dinghy", 3.2, 1.45, 65), Load(2), Motor(2000))))
    >>> 1 < h.to_speed_s < 20, h.to_plane_s, 3 < h.coasts_m < 30
    (True, None, True)
    """
    mass = p.displacement_kg * (1 + ADDED_MASS)
    speed = np.linspace(0.0, p.top_speed_m_s, 200)[1:]
    drag = np.maximum(p.drag_at_n(speed), 1e-6)
    spare = np.maximum(p.thrust_available_n(speed) - drag, LEAST_SPARE * drag)
    steps = np.diff(speed, prepend=0.0)
    seconds = np.cumsum(mass * steps / spare)
    edge = p.resistance.planing_speed_m_s(p.displacement_kg, PLANING_FROUDE)
    plane = float(np.interp(edge, speed, seconds)) if p.planes else None
    running = speed > SLOW_M_S
    coasts = float(np.sum((mass * speed * steps / drag)[running]))
    to_speed = float(np.interp(NEAR_TOP * p.top_speed_m_s, speed, seconds))
    return Handling(to_speed, plane, coasts)
