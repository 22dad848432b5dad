"""What holds a boat back: friction, waves, transom, wind, and the change to planing, tabled once
per boat.

The costly parts (waves, planing) depend on the boat and its displacement alone, so they are tabled
over speed and displacement and read off for every setup; the cheap parts are worked out where they
are asked.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.base.units import GRAVITY_M_S2
from jolvek.core.hydro import shape
from jolvek.core.hydro.floating import (
    TUBE_LENGTH,
    Floating,
    float_at,
    floating_once,
    keel_wetted_m2,
    level_m,
)
from jolvek.core.hydro.fouling import bottom_factor
from jolvek.core.hydro.friction import friction_coefficient
from jolvek.core.hydro.hull import UNTRIED, Hull, Load
from jolvek.core.hydro.keel_series import residuary_n
from jolvek.core.hydro.places import centre_m
from jolvek.core.hydro.planing import savitsky
from jolvek.core.hydro.water import AIR_KG_M3, Water
from jolvek.core.hydro.waves import smoothed, thin_ship_resistance_n
from jolvek.core.hydro.windage import drag_area_m2

TRANSOM_DRAG = 0.15  # Jolvek's own, tried against speeds on the water
LEG_OUT = 0.6  # of the leg's drag gone on the plane: gearcase and skeg stay in; common practice
FROUDE_DISPLACEMENT, FROUDE_PLANING = 1.0, 2.2  # volumetric; blended between, see docs/why.md
VCG_SHARE = 0.6  # height of the centre of gravity, share of the depth; common practice
TRIMS_MOST = 0.10  # slope by the stern past which people would move
SMOOTH_SLENDER, SMOOTH_BEAMY = (
    0.07,
    0.35,
)  # half width of the average over speed: the fuller the hull, the wider
SMOOTH_SERIES = 0.03  # over the corners between a series' Froude numbers
_GRID = 88


@dataclass(frozen=True)
class Parts:
    """Resistance in N by part, each of shape (D, V) or broadcastable; without the motor's leg."""

    friction_n: Array
    wave_n: Array
    transom_n: Array
    planing_n: Array
    air_n: Array
    planing_share: Array  # 0 displacement, 1 planing

    @property
    def total_n(self) -> Array:
        """All parts together."""
        return self.friction_n + self.wave_n + self.transom_n + self.planing_n + self.air_n


@dataclass(frozen=True)
class Resistance:
    """Tables of one hull in one water over displacement (D,) in kg and ln of speed (N,)."""

    hull: Hull
    water: Water
    displacement_kg: Array
    log_speed: Array
    log_wave: Array  # (D, N)
    log_planing: Array | None  # (D, N)
    drag_area_m2: float
    lcg_m: Array  # (D,) ahead of the transom
    planing_within: Array | None = None  # (D, N): whether planing stays where Savitsky holds

    @property
    def planing_capable(self) -> bool:
        """Whether this kind of hull can plane at all."""
        return self.log_planing is not None

    def planing_holds(self, speed_m_s: float) -> bool:
        """Whether the planing formulas are within their range at a speed, the lightest load."""
        if self.planing_within is None:
            return True
        i = int(np.searchsorted(self.log_speed, np.log(max(speed_m_s, 1e-3))))
        return bool(self.planing_within[0, min(i, self.log_speed.size - 1)])

    def planing_speed_m_s(self, displacement_kg: float, froude: float = 2.0) -> float:
        """Speed in m/s at which the volumetric Froude number reaches `froude`."""
        volume = displacement_kg / self.water.density_kg_m3
        return float(froude * np.sqrt(GRAVITY_M_S2 * volume ** (1 / 3)))


def table(
    hull: Hull,
    water: Water,
    displacement_kg: ArrayLike,
    load: Load | None = None,
    lcg_m: float | None = None,
    points: int = _GRID,
) -> Resistance:
    """Work out the wave and planing tables of `hull` for displacements in kg (scalar or (D,)).

    Speeds run from Fn 0.08 to Fn 2 (planing hulls: to volumetric Fn 7 at the lightest). `lcg_m` is
    the centre of gravity ahead of the transom, by the seats of `load` where not given; `points` is
    the number of speeds. Valid in deep, calm water.

    >>> t = table(Hull("kayak", 3.7, 0.78, 34), Water(), 130.0)
    >>> 15 < float(total_n(t, 2.0, 130.0)) < 40
    True
    """
    mass = np.atleast_1d(np.asarray(displacement_kg, dtype=float))
    length, beam, n = hull.waterline_m, hull.body_waterline_beam_m, hull.body_count
    top = 2.0 * np.sqrt(GRAVITY_M_S2 * length)
    if hull.fam.planes:
        top = max(
            top, 6.5 * np.sqrt(GRAVITY_M_S2 * float(mass.min() / water.density_kg_m3) ** (1 / 3))
        )
    log_speed = np.linspace(np.log(0.08 * np.sqrt(GRAVITY_M_S2 * length)), np.log(top), points)
    speed = np.exp(log_speed)
    froude = speed / np.sqrt(GRAVITY_M_S2 * length)
    floating = float_at(hull, mass, water.density_kg_m3)
    shares = hull.body_shares
    main = max(shares, key=lambda s: s[2])
    thin = 9.0 * main[2] * floating.volume_m3 / (4.0 * length * beam)
    offsets = tuple((i - (n - 1) / 2) * hull.spacing_m for i in range(n))
    unlike = tuple((le, be, vo / main[2] / (le * be)) for le, be, vo in shares)
    rho = water.density_kg_m3
    wave = thin_ship_resistance_n(speed, length, beam, thin, offsets, rho, unlike)
    width = SMOOTH_SLENDER + SMOOTH_BEAMY * beam / length
    if hull.family == "keelboat":  # towed as a series: better than any theory
        wave, width = residuary_n(length, beam, froude, floating, rho), SMOOTH_SERIES
    wave = np.maximum(smoothed(log_speed, wave, froude, width), 1e-9)
    load = load or Load()
    lcg = centre_m(hull, load, mass) if lcg_m is None else np.full(mass.shape, lcg_m)
    plane, within = _planing(hull, water, speed, mass, lcg) if hull.fam.planes else (None, None)
    area, drag = drag_area_m2(hull, load.people), (log_speed, np.log(wave), plane)
    rest = (area, lcg, within)
    return Resistance(hull, water, mass, *drag, *rest)


# the same boat is asked for many winds, batteries and days
_remembered = lru_cache(maxsize=256)(table)


forget_tables = _remembered.cache_clear


def remembered_table(
    hull: Hull,
    water: Water,
    displacement_kg: float,
    load: Load | None = None,
    lcg_m: float | None = None,
    points: int = _GRID,
) -> Resistance:
    """`table`, remembered for the last boats; what a trial found of a boat is no part of her table.

    >>> t = remembered_table(Hull("kayak", 3.7, 0.78, 34, wave_factor=1.1), Water(), 130.0)
    >>> t.hull.wave_factor, _remembered.cache_info().currsize > 0
    (1.1, True)
    """
    plain = replace(hull, **UNTRIED)
    found = _remembered(plain, water, displacement_kg, load, lcg_m, points)
    return replace(found, hull=hull)


def _planing(
    hull: Hull, water: Water, speed: Array, mass: Array, lcg_m: Array
) -> tuple[Array, Array]:
    """ln of the planing resistance (D, N), and whether it holds; nothing far below planing."""
    smallest = float((mass / water.density_kg_m3).min())
    start = FROUDE_DISPLACEMENT * 0.98 * np.sqrt(GRAVITY_M_S2 * smallest ** (1 / 3))
    from_i = max(0, int(np.searchsorted(speed, start)) - 1)
    plane = np.full((mass.size, speed.size), 1e-9)
    within = np.ones(plane.shape, dtype=bool)
    found = savitsky(
        speed[None, from_i:],
        mass[:, None],
        hull.chine_m,
        hull.deadrise,
        lcg_m[:, None],
        VCG_SHARE * hull.depth_m,
        density_kg_m3=water.density_kg_m3,
        viscosity_m2_s=water.viscosity_m2_s,
        spray=True,
    )
    plane[:, from_i:], within[:, from_i:] = found.resistance_n, found.within
    return np.asarray(np.log(np.maximum(plane, 1e-9))), within


def _read(grid: Array, log_speed: Array, log_value: Array, masses: Array, mass: Array) -> Array:
    """exp of `log_value` (D, N) read at ln speeds and displacements, linear in both, carried on
    outside.
    """
    step = grid[1] - grid[0]
    x = (log_speed - grid[0]) / step
    i = np.clip(x.astype(int), 0, grid.size - 2)
    fx = x - i
    if masses.size == 1:
        row = log_value[0]
        return np.asarray(np.exp(row[i] * (1 - fx) + row[i + 1] * fx))
    j = np.clip(np.searchsorted(masses, mass) - 1, 0, masses.size - 2)
    fy = (np.log(mass) - np.log(masses[j])) / (np.log(masses[j + 1]) - np.log(masses[j]))
    low = log_value[j, i] * (1 - fx) + log_value[j, i + 1] * fx
    high = log_value[j + 1, i] * (1 - fx) + log_value[j + 1, i + 1] * fx
    return np.asarray(np.exp(low * (1 - fy) + high * fy))


def parts(
    t: Resistance, speed_m_s: ArrayLike, displacement_kg: ArrayLike, wind_m_s: ArrayLike = 0.0
) -> Parts:
    """Resistance by part at speeds through the water, displacements and wind against (all
    broadcast).

    m/s, kg, m/s → N. Friction ½ρSV²(C_f(1+k)+ΔC_f), waves and planing from the table, transom
    ½ρ A_t V² 0.15 (trim by the stern counted in) with the blunt ends of tubes, air ½ρ_a C_dA
    (V+wind)|V+wind|. Planing hulls pass from one model to the other between volumetric Fn 1.0 and
    2.2; hulls that cannot plane keep the displacement model.

    >>> t = table(Hull("rib", 3.6, 1.75, 110), Water(), 300.0)
    >>> float(parts(t, 9.0, 300.0).planing_share)
    1.0
    """
    hull, water = t.hull, t.water
    v, mass = np.asarray(speed_m_s, dtype=float), np.asarray(displacement_kg, dtype=float)
    safe = np.maximum(v, 1e-3)
    rho = water.density_kg_m3
    floating = float_at(hull, mass, rho) if mass.ndim else floating_once(hull, float(mass), rho)
    q = 0.5 * water.density_kg_m3 * v**2
    reynolds = safe * hull.waterline_m / water.viscosity_m2_s
    c_f = friction_coefficient(reynolds) * (1 + hull.fam.form_factor) + hull.fam.roughness
    wetted = floating.wetted_m2 + keel_wetted_m2(hull, floating)
    dirty = bottom_factor(hull.bottom, hull.months_afloat, water.kind) * hull.friction_factor
    friction = q * wetted * c_f * dirty
    log_v = np.log(safe)
    wave = _read(t.log_speed, log_v, t.log_wave, t.displacement_kg, mass) * hull.wave_factor
    ends = _transom_m2(t, floating, mass) * TRANSOM_DRAG
    ends = ends + hull.fam.blunt_drag * floating.volume_m3 / (TUBE_LENGTH * hull.length_m)
    transom = q * ends * hull.wave_factor
    share = plane = np.zeros(np.broadcast(v, mass).shape)
    if t.log_planing is not None:
        froude = v / np.sqrt(GRAVITY_M_S2 * floating.volume_m3 ** (1 / 3))
        x = np.clip((froude - FROUDE_DISPLACEMENT) / (FROUDE_PLANING - FROUDE_DISPLACEMENT), 0, 1)
        share = x * x * (3 - 2 * x)
        read = _read(t.log_speed, log_v, t.log_planing, t.displacement_kg, mass)
        plane = np.where(share > 0, read, 0.0) * 0.5 * (1 + dirty)  # about half of it is friction
        plane = plane * hull.planing_factor
    relative = v + np.asarray(wind_m_s, dtype=float)
    air = 0.5 * AIR_KG_M3 * t.drag_area_m2 * relative * np.abs(relative)
    wet, planed = 1 - share, share
    if hull.trial_shape:
        own = shape.factor(hull.trial_shape, log_v - 0.5 * np.log(GRAVITY_M_S2 * hull.waterline_m))
        wet, planed = own * wet, own * share
    return Parts(friction * wet, wave * wet, transom * wet, plane * planed, air, share)


def _transom_m2(t: Resistance, floating: Floating, mass: Array) -> Array:
    """Immersed transom: level, and what the trim by the stern puts under water."""
    hull = t.hull
    lever = level_m(hull) - np.interp(mass, t.displacement_kg, t.lcg_m)
    along = floating.along_m4 / floating.volume_m3
    slope = np.clip(lever / np.maximum(along, 0.1), -TRIMS_MOST, TRIMS_MOST)
    wide = hull.body_waterline_beam_m * hull.body_count * hull.fam.transom_share
    return np.asarray(np.maximum(floating.transom_m2 + wide * slope * level_m(hull), 0.0))


def total_n(
    t: Resistance,
    speed_m_s: ArrayLike,
    displacement_kg: ArrayLike,
    wind_m_s: ArrayLike = 0.0,
    leg_area_m2: ArrayLike = 0.0,
) -> Array:
    """All resistance in N, the leg's drag area (m²) included; arguments broadcast as in `parts`.

    >>> t = table(Hull("cabin", 6.5, 2.3, 1400), Water(), 1700.0)
    >>> float(total_n(t, 2.0, 1700.0)) < float(total_n(t, 2.5, 1700.0))
    True
    """
    split = parts(t, speed_m_s, displacement_kg, wind_m_s)
    return np.asarray(split.total_n + leg_n(t.water, split, speed_m_s, leg_area_m2))


def leg_n(water: Water, split: Parts, speed_m_s: ArrayLike, leg_area_m2: ArrayLike) -> Array:
    """Drag in N of a motor's leg of a drag area (m²); on the plane most of it is out of the water.

    >>> t = table(Hull("cabin", 6.5, 2.3, 1400), Water(), 1700.0)
    >>> round(float(leg_n(t.water, parts(t, 2.0, 1700.0), 2.0, 0.005)), 1)
    10.3
    """
    under = 1 - LEG_OUT * split.planing_share
    v = np.asarray(speed_m_s, dtype=float)
    return np.asarray(0.5 * water.density_kg_m3 * np.asarray(leg_area_m2) * v**2 * under)
