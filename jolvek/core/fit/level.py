"""How a mass with its centre somewhere lies: level, metacentres, trim and heel, over arrays."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.floating import float_at, level_m
from jolvek.core.hydro.hull import Hull


@dataclass(frozen=True)
class Lies:
    """Angles as the sums give them, degrees, and what they come from; arrays of any one shape."""

    trim_deg: Array
    heel_deg: Array
    draught_m: Array
    gm_m: Array
    gm_long_m: Array


def lies(
    hull: Hull,
    mass_kg: ArrayLike,
    ahead_m: ArrayLike,
    off_m: ArrayLike,
    above_m: ArrayLike,
    density_kg_m3: float,
) -> Lies:
    """How a mass with its centre there lies (any shape), not held to small angles; without
    stability she heels 90°.

    >>> h = Hull("rigid_dinghy", 3.2, 1.45, 65)
    >>> lies(h, 200.0, [1.3, 0.6], [0.0, 0.1], 0.4, 1026.0).trim_deg.round(0).tolist()
    [-0.0, 4.0]
    """
    floating = float_at(hull, mass_kg, density_kg_m3)
    above = np.asarray(above_m)
    gm, gm_long = (z - above for z in floating.metacentres_m)
    lever, off = level_m(hull) - np.asarray(ahead_m), np.asarray(off_m)
    trim = np.degrees(np.arctan(lever / np.maximum(gm_long, 1e-3)))
    heel = np.degrees(np.arctan(off / np.maximum(gm, 1e-9))) if off.any() else 0.0
    fallen = np.where(off >= 0, 90.0, -90.0)
    return Lies(trim, np.where(gm > 0, heel, fallen), floating.draught_m, gm, gm_long)
