"""How a mass with its centre somewhere lies: level, metacentres, trim and heel, over arrays."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.floating import float_at, level_m
from jolvek.core.hydro.hull import Hull

BOW_OUT, BOW_HIGH = 0.25, 0.45
OPEN: tuple[str, ...] = ("rigid_dinghy", "sailing_dinghy", "skiff", "flat_bottom")
OPEN += ("inflatable_soft", "inflatable_air", "rib")


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
    [-0.0, 5.0]
    """
    floating = float_at(hull, mass_kg, density_kg_m3)
    above = np.asarray(above_m)
    gm, gm_long = (z - above for z in floating.metacentres_m)
    slope = (level_m(hull) - np.asarray(ahead_m)) / np.maximum(gm_long, 1e-3)
    trim = np.degrees(np.arctan(slope * _bow_out(hull, slope, floating.draught_m)))
    bm = floating.across_m4 / floating.volume_m3
    heel = np.degrees(np.arctan(_wall_sided(np.asarray(off_m), gm, bm)))
    fallen = np.where(np.asarray(off_m) >= 0, 90.0, -90.0)
    return Lies(trim, np.where(gm > 0, heel, fallen), floating.draught_m, gm, gm_long)


def water_aboard_deg(hull: Hull, mass_kg: float, density_kg_m3: float) -> float | None:
    """Heel in degrees at which water comes over the side amidships; None for decked boats and
    those on which people sit on top.

    >>> h = Hull("rigid_dinghy", 3.2, 1.45, 65)
    >>> round(water_aboard_deg(h, 250.0, 1026.0) or 0), water_aboard_deg(
    ...     Hull("cabin", 6.5, 2.3, 1400), 1800.0, 1026.0)
    (29, None)
    """
    if hull.family not in OPEN:
        return None
    freeboard = float(float_at(hull, mass_kg, density_kg_m3).freeboard_m)
    return float(np.degrees(np.arctan2(max(freeboard, 0.0), hull.beam_m / 2)))


def _bow_out(hull: Hull, slope: Array, draught_m: Array) -> Array:
    """How much more a boat trims by the stern than a small angle says, as the bow leaves the
    water: the more, the wider the stern. Fitted to meshes of invented boats.
    """
    lifted = np.maximum(slope, 0.0) * hull.waterline_m / 2 / draught_m
    wide = BOW_OUT * hull.fam.transom_share
    return np.asarray(1 + wide * lifted + BOW_HIGH * np.maximum(lifted - 1, 0.0))


def slope_m(hull: Hull, trim_deg: float, draught_m: float) -> float:
    """The slope that a small angle would say for a trim in degrees: what `lies` adds is taken off.

    >>> h = Hull("rigid_dinghy", 3.2, 1.45, 65)
    >>> slope = slope_m(h, 4.0, 0.12)
    >>> trim = np.degrees(np.arctan(slope * _bow_out(h, np.array(slope), np.array(0.12))))
    >>> round(float(trim), 6)
    4.0
    """
    tangent = float(np.tan(np.radians(trim_deg)))
    if tangent <= 0:
        return tangent
    per, wide = hull.waterline_m / 2 / draught_m, BOW_OUT * hull.fam.transom_share
    root = np.sqrt(1 + 4 * wide * per * tangent)
    low = tangent if wide == 0 else (root - 1) / (2 * wide * per)
    if low * per <= 1:
        return float(low)
    a, b = (wide + BOW_HIGH) * per, 1 - BOW_HIGH
    return float((np.sqrt(b * b + 4 * a * tangent) - b) / (2 * a))


def _wall_sided(off_m: Array, gm_m: Array, bm_m: Array) -> Array:
    """Tangent of the heel under a weight's shift: t (GM + BM t²/2) = off, for wall-sided hulls.

    Source: the wall-sided formula of naval architecture, GZ = sin φ (GM + BM tan²φ/2).
    """
    off, gm, bm = np.broadcast_arrays(off_m, np.maximum(gm_m, 1e-9), np.maximum(bm_m, 1e-9))
    p, q = 2 * gm / bm, -2 * off / bm
    root = np.sqrt(q * q / 4 + p**3 / 27)
    return np.asarray(np.cbrt(-q / 2 + root) + np.cbrt(-q / 2 - root))
