"""How a hull floats: draught, wetted area, stability, and when it is awash."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.base.units import FOOT_M, KNOT_M_S
from jolvek.core.hydro.hull import Hull
from jolvek.core.hydro.shapes import SHAPES

TUBE_LENGTH = 0.93  # of a pontoon's tube, its cones counted as half; common practice, no source
TUBE_LCB = 0.465
KEEL_SHARE = 0.15  # draught of a keel boat over her length; common practice, no source
KEEL_CHORD = 0.22  # of keel and rudder over the waterline; common practice, no source


@dataclass(frozen=True)
class Floating:
    """How a hull floats level at a displacement; every field broadcasts over displacement (kg)."""

    displacement_kg: Array
    volume_m3: Array  # of all bodies
    draught_m: Array
    wetted_m2: Array  # of all bodies
    waterplane_m2: Array
    transom_m2: Array
    freeboard_m: Array
    kb_m: Array  # centre of buoyancy above the keel
    across_m4: Array  # moment of the waterplane about the centre line, all bodies
    along_m4: Array

    @property
    def immersion_kg_per_mm(self) -> Array:
        """Mass that sinks her by a millimetre, in fresh water about 2 % less."""
        return self.waterplane_m2 * self.displacement_kg / self.volume_m3 / 1000.0

    @property
    def metacentres_m(self) -> tuple[Array, Array]:
        """Heights above the keel of the transverse and the longitudinal metacentre."""
        return (
            self.kb_m + self.across_m4 / self.volume_m3,
            self.kb_m + self.along_m4 / self.volume_m3,
        )


@dataclass(frozen=True)
class _Body:
    """One body at a volume: T, S, A, KB, I about its own middle line, I along."""

    draught: Array
    wetted: Array
    waterplane: Array
    kb: Array
    across: Array
    along: Array


def float_at(hull: Hull, displacement_kg: ArrayLike, density_kg_m3: float = 1026.0) -> Floating:
    """Draught, wetted surface, waterplane and freeboard of `hull` at `displacement_kg` (any shape).

    By the family's `Shape`; pontoon tubes as segments of circles. Valid from half to twice a
    typical load and while the sheer is dry; past that the figures go on smoothly and `limits` says
    that the boat is awash.

    >>> f = float_at(Hull("kayak", 3.7, 0.78, 34), 130.0)
    >>> round(float(f.draught_m), 3), round(float(f.wetted_m2), 2)
    (0.088, 2.01)
    """
    mass, n = np.asarray(displacement_kg, dtype=float), hull.body_count
    volume = np.maximum(mass / density_kg_m3, 1e-6)
    kind = _tube if hull.family == "pontoon" else _shaped
    length, beam = _size(hull)
    bodies = [kind(hull, le * length, be * beam, vo * volume) for le, be, vo in hull.body_shares]
    main = bodies[n // 2]
    places = [(k - (n - 1) / 2) * hull.spacing_m for k in range(n)]
    across = [b.across + b.waterplane * y * y for b, y in zip(bodies, places, strict=True)]
    transom = hull.fam.transom_share * hull.body_waterline_beam_m * main.draught * n
    return Floating(
        mass,
        volume,
        main.draught,
        np.sum([b.wetted for b in bodies], axis=0),
        np.sum([b.waterplane for b in bodies], axis=0),
        transom,
        freeboard_m=hull.depth_m - main.draught,
        kb_m=main.kb,
        across_m4=np.sum(across, axis=0),
        along_m4=np.sum([b.along for b in bodies], axis=0),
    )


floating_once = lru_cache(maxsize=512)(float_at)  # at one displacement; the arrays are read only


def draws_m(hull: Hull, floating: Floating) -> Array:
    """Draught in m with the keel, where there is one: given, or usual for a keel boat.

    >>> h = Hull("keelboat", 7.5, 2.5, 2400)
    >>> float(draws_m(h, float_at(h, 2700.0))) > 2 * float(float_at(h, 2700.0).draught_m)
    True
    """
    usual = KEEL_SHARE * hull.length_m if hull.family == "keelboat" else 0.0
    return np.maximum(floating.draught_m, hull.keel_draught_m or usual)


def keel_wetted_m2(hull: Hull, floating: Floating) -> Array:
    """Both sides of keel and rudder below the hull; 0 where no keel is known.

    >>> h = Hull("rib", 3.6, 1.75, 110)
    >>> float(keel_wetted_m2(h, float_at(h, 300.0)))
    0.0
    """
    below = np.maximum(draws_m(hull, floating) - floating.draught_m, 0.0)
    return np.asarray(2 * KEEL_CHORD * hull.waterline_m * below)


def transom_draught_m(hull: Hull, draught_m: ArrayLike, draught_aft_m: ArrayLike) -> Array:
    """Water over the transom's lower edge in m; negative: it hangs over the water. Measured, or the
    family's share of the draught, with the trim.

    >>> keel = Hull("keelboat", 7.5, 2.5, 2400)
    >>> float(transom_draught_m(keel, 0.45, 0.45))
    0.0
    """
    if hull.transom_clearance_m is not None:
        return np.asarray(-hull.transom_clearance_m)
    lifted = (1 - min(hull.fam.transom_share, 1.0)) * np.asarray(draught_m)
    return np.asarray(np.asarray(draught_aft_m) - lifted)


def _size(hull: Hull) -> tuple[float, float]:
    """(L, B) overall of one body, as far as its waterline is known to be shorter or narrower."""
    fam = hull.fam
    length = hull.length_m * min(
        1.05, hull.waterline_m / (fam.waterline_length_ratio * hull.length_m)
    )
    if hull.body_count > 1:
        return length, hull.body_waterline_beam_m
    usual = hull.beam_m * (fam.waterline_beam_ratio if fam.bodies == 1 else 0.8)
    return length, hull.beam_m * min(1.0, hull.body_waterline_beam_m / usual)


def _shaped(hull: Hull, length: float, beam: float, volume: Array) -> _Body:
    """By the family's power laws."""
    s = SHAPES[hull.family]
    x = np.log(volume / (length * beam**2) / s.volume)
    held = np.clip(x, -1.2, 1.2)  # the bend means nothing far from what it was fitted to
    draught = beam * s.draught * np.exp(s.rise * x + s.bend * held**2)
    return _Body(
        draught,
        length * beam * s.wetted * np.exp(s.wetted_power * x),
        volume / (draught * (s.rise + 2 * s.bend * held)),
        s.kb * draught,
        s.across * length * beam**3 * np.exp(s.across_power * x),
        s.along * length**3 * beam * np.exp(s.along_power * x),
    )


def _tube(hull: Hull, length_m: float, beam_m: float, volume: Array) -> _Body:
    """A round tube: the segment under water, no more than just full."""
    r, length = beam_m / 2, TUBE_LENGTH * length_m
    angles = np.linspace(0.02, 2 * np.pi, 400)
    areas = r * r / 2 * (angles - np.sin(angles))
    area = volume / length
    angle = np.interp(area, areas, angles)
    over = np.maximum(area - np.pi * r * r, 0.0) / (2 * r)  # past full: the deck sinks in
    draught = r * (1 - np.cos(angle / 2)) + over
    wide = np.maximum(2 * r * np.sin(np.minimum(angle, np.pi * 1.9) / 2), 0.1 * r)
    down = 4 * r * np.sin(angle / 2) ** 3 / (3 * np.maximum(angle - np.sin(angle), 1e-6))
    return _Body(
        draught,
        r * angle * length + 2 * area,
        wide * length,
        np.maximum(r - down, 0.1 * draught),
        length * wide**3 / 12,
        wide * length**3 / 12,
    )


def level_m(hull: Hull) -> float:
    """Where the centre of all weights must be for level trim, m ahead of the transom.

    >>> round(level_m(Hull("rigid_dinghy", 3.2, 1.45, 65)), 2)
    1.25
    """
    share = TUBE_LCB if hull.family == "pontoon" else SHAPES[hull.family].lcb
    return share * hull.length_m - hull.fam.tube_overhang * hull.length_m


def awash_kg(hull: Hull, density_kg_m3: float = 1026.0) -> float:
    """Mass in kg at which the sheer amidships is about level with the water; Jolvek's own estimate.

    >>> round(awash_kg(Hull("kayak", 3.7, 0.78, 34)))
    618
    """
    top = 0.5 * (1.0 + hull.fam.block_coefficient)  # sections fill out towards the sheer
    per_body = hull.waterline_m * hull.body_waterline_beam_m * hull.depth_m * top
    return float(density_kg_m3 * hull.body_count * per_body)


def hull_speed_m_s(waterline_m: ArrayLike) -> Any:
    """Hull speed in m/s of a waterline length in m (any shape): 1.34 √(L in ft) knots, a label
    only.

    Source: common practice (wave as long as the waterline), no single source.

    >>> round(float(hull_speed_m_s(4.0)) / KNOT_M_S, 2)
    4.85
    """
    return 1.34 * np.sqrt(np.asarray(waterline_m, dtype=float) / FOOT_M) * KNOT_M_S
