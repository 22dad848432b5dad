"""The leg of a fitted setup in the water: of a given shaft, of one that is set by hand, or fixed
under the hull.
"""

from __future__ import annotations

import math

from jolvek.core.fit.fit import Fit
from jolvek.core.fit.hanging import seat_m
from jolvek.core.fit.leg import TIP_GAP, Leg, leg, under_hull
from jolvek.core.hydro.floating import transom_draught_m
from jolvek.core.products.mounting import HUB_BELOW_PLATE, TRANSOM_PLACES

COVER_M, STEP_M, LEAST_M = 0.25, 0.025, 0.2  # water over the hub; a pole's clamp; common practice


def hung_leg(f: Fit) -> tuple[Leg, float]:
    """The leg and its shaft in m; an adjustable shaft is as set, or in steps of 25 mm covers the
    hub with a quarter of a metre of water. Fixed under the hull, the shaft is what stands between
    its bottom and the hub.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> x, shaft = hung_leg(sample_fitted())
    >>> shaft, x.air
    (0.381, 'none')
    """
    d, aft = f.performance.propulsor.diameter_m, f.transom_draught_m
    if f.mount.spec.fixed:
        return under_hull(aft, d), (0.5 + TIP_GAP) * d
    seat = seat_m(f.need, f.mount.spec)
    wanted = max(seat - aft + COVER_M - HUB_BELOW_PLATE * d, LEAST_M)
    shaft = f.shaft_m or f.fitting.pole_m or STEP_M * math.ceil(wanted / STEP_M - 1e-9)
    return leg(shaft, seat, aft, d), shaft


def under_m(f: Fit) -> float:
    """Water in m over the lower edge of the transom, or over the bottom aft for other mounts.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> 0 < under_m(f) < f.attitude.draught_aft_m
    True
    """
    a = f.attitude
    if f.mount.spec.general.place not in TRANSOM_PLACES:
        return a.draught_aft_m
    return float(transom_draught_m(f.need.hull, a.draught_m, a.draught_aft_m))


def hub_below_m(f: Fit) -> float:
    """How far the hub lies below the hull's bottom, m.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> round(hub_below_m(sample_fitted()), 3)
    0.193
    """
    return hung_leg(f)[0].hub_m - f.transom_draught_m


def on_transom(f: Fit) -> Leg | None:
    """The leg of a shaft of given length on a transom; None elsewhere, and for adjustable ones.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> on_transom(sample_fitted()).air
    'none'
    """
    if f.shaft_m is None or f.mount.spec.general.place not in TRANSOM_PLACES:
        return None
    return hung_leg(f)[0]
