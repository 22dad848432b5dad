"""How a mass with its centre somewhere lies: level, metacentres, trim and heel, over arrays."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.floating import WATERPLANE_COEFFICIENT, float_at
from jolvek.core.hydro.hull import Hull

LEVEL_AT = {
    "kayak": 0.47,
    "canoe": 0.48,
    "board": 0.48,
    "keelboat": 0.46,
    "pontoon": 0.46,
    "multihull": 0.46,
}  # CG for level trim
LEVEL_ELSE = 0.43  # share of the waterline from its after end; hulls with a transom


def level_m(hull: Hull) -> float:
    """Where the centre of all weights must be for level trim, m ahead of the stern.

    >>> round(level_m(Hull("rigid_dinghy", 3.2, 1.45, 65)), 2)
    1.27
    """
    stern = (
        0.5 * (hull.length_m - hull.waterline_m)
        if hull.family in ("kayak", "canoe", "board")
        else 0.0
    )
    return stern + LEVEL_AT.get(hull.family, LEVEL_ELSE) * hull.waterline_m


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
    [-0.0, 7.0]
    """
    floating = float_at(hull, mass_kg, density_kg_m3)
    above = np.asarray(above_m)
    gm, gm_long = (z - above for z in metacentres_m(hull, floating.draught_m, floating.volume_m3))
    lever, off = level_m(hull) - np.asarray(ahead_m), np.asarray(off_m)
    trim = np.degrees(np.arctan(lever / np.maximum(gm_long, 1e-3)))
    heel = np.degrees(np.arctan(off / np.maximum(gm, 1e-9))) if off.any() else 0.0
    fallen = np.where(off >= 0, 90.0, -90.0)
    return Lies(trim, np.where(gm > 0, heel, fallen), floating.draught_m, gm, gm_long)


def metacentres_m(hull: Hull, draught: Array, volume: Array) -> tuple[Array, Array]:
    """Heights above the keel of the transverse and the longitudinal metacentre (any shape).

    >>> h = Hull("rigid_dinghy", 3.2, 1.45, 65)
    >>> [round(float(z), 1) for z in metacentres_m(h, np.array(0.15), np.array(0.24))]
    [1.0, 4.5]
    """
    length, beam, n = hull.waterline_m, hull.body_waterline_beam_m, hull.body_count
    c = WATERPLANE_COEFFICIENT
    across = [(i - (n - 1) / 2) * hull.spacing_m for i in range(n)]
    i_t = sum((0.1216 * c - 0.0410) * length * beam**3 + c * length * beam * y * y for y in across)
    i_l = n * (0.350 * c * c - 0.405 * c + 0.146) * length**3 * beam
    kb = draught / 3 * (2.5 - hull.fam.block_coefficient / c)
    return kb + i_t / volume, kb + i_l / volume
