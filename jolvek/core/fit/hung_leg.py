"""The leg of a fitted setup in the water, of a given shaft or of one that is set by hand."""

from __future__ import annotations

import math

from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.hanging import seat_m
from jolvek.core.fit.leg import Leg, leg
from jolvek.core.products.mounting import HUB_BELOW_PLATE

COVER_M, STEP_M, LEAST_M = 0.25, 0.025, 0.2  # water over the hub; a pole's clamp; common practice


def hung_leg(f: Fitted) -> tuple[Leg, float]:
    """The leg and its shaft in m; an adjustable shaft is set, in steps of 25 mm, to cover the hub
    with a quarter of a metre of water.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> x, shaft = hung_leg(sample_fitted())
    >>> shaft, x.air
    (0.381, 'none')
    """
    d, aft = f.performance.propulsor.diameter_m, f.attitude.draught_aft_m
    seat = seat_m(f.need.hull, f.mount.spec)
    wanted = max(seat - aft + COVER_M - HUB_BELOW_PLATE * d, LEAST_M)
    shaft = f.shaft_m or STEP_M * math.ceil(wanted / STEP_M - 1e-9)
    return leg(shaft, seat, aft, d, 0.0), shaft
