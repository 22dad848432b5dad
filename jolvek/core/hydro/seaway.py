"""What waves, side wind and shallow water do to a boat.

Each formula with its source and where it holds; all are weak for small boats and widen the doubt.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.base.units import GRAVITY_M_S2
from jolvek.core.hydro.hull import Hull
from jolvek.core.hydro.water import AIR_KG_M3

# share of the added resistance of head seas, by degrees off the bow; common practice, no source
HEADINGS = ((0.0, 45.0, 90.0, 135.0, 180.0), (1.0, 0.9, 0.4, 0.15, 0.05))
SIDE_DRAG = 1.0  # C_d of side area in the wind; common practice, no source
GONE_AT = 1.5  # of the critical speed, where shallow water slows no more; from memory
CROSS_FLOW = 0.8  # of the underwater side at a large angle; common practice, no source
# most wind by length of boat: Beaufort 3 to 7; common practice, no source
LENGTHS_M, WINDS_M_S = (2.5, 4.0, 6.0, 9.0, 14.0), (5.4, 7.9, 10.7, 13.8, 17.1)
HOLDS_DEG = 20.0  # of drift: past this she is not steered but blown; common practice, no source


def most_wind_m_s(length_m: float) -> float:
    """Most wind in m/s that a boat of that length goes out in, Beaufort 3 to 7 by length; common
    practice, no source. The nearest end outside 2.5–14 m.

    >>> most_wind_m_s(4.0), most_wind_m_s(20.0)
    (7.9, 17.1)
    """
    return float(np.interp(length_m, LENGTHS_M, WINDS_M_S))


def wave_height_m(wind_m_s: ArrayLike, fetch_m: ArrayLike) -> Array:
    """Significant height in m that a steady wind raises over a fetch of open, deep water.

    gH/U² = 0.283 tanh(0.0125 (gF/U²)^0.42); source: Bretschneider's form of the Sverdrup–Munk
    method, US Shore Protection Manual 1973, from memory. Wind up to 30 m/s, fetch from 100 m.

    >>> wave_height_m([5.0, 10.0, 15.0], 2000.0).round(2).tolist()
    [0.15, 0.33, 0.53]
    """
    u2 = np.maximum(np.asarray(wind_m_s, dtype=float), 0.1) ** 2
    x = GRAVITY_M_S2 * np.asarray(fetch_m, dtype=float) / u2
    return np.asarray(0.283 * np.tanh(0.0125 * x**0.42) * u2 / GRAVITY_M_S2)


def added_in_waves_n(
    hull: Hull, height_m: ArrayLike, from_deg: ArrayLike, density_kg_m3: float = 1026.0
) -> Array:
    """Added resistance in N in waves of a significant height from degrees off the bow; broadcasts.

    Head seas: ρ g H² B √(B/L)/16, the STAWAVE-1 form of ISO 15016:2015 with the waterline for the
    length of the bow, from memory; made for ships, carried down to boats. By heading as `HEADINGS`.

    >>> h = Hull("inflatable_soft", 2.9, 1.5, 32)
    >>> added_in_waves_n(h, 0.3, [0.0, 90.0, 180.0]).round().tolist()
    [65.0, 26.0, 3.0]
    """
    off = np.abs((np.asarray(from_deg, dtype=float) + 180) % 360 - 180)
    share = np.interp(off, *HEADINGS)
    beam = hull.beam_m if hull.body_count == 1 else hull.body_waterline_beam_m * hull.body_count
    height = np.asarray(height_m, dtype=float)
    force = density_kg_m3 * GRAVITY_M_S2 * height**2 * beam / 16
    return np.asarray(force * np.sqrt(beam / hull.waterline_m) * share)


def shallow_loss(speed_m_s: ArrayLike, midship_m2: float, depth_m: float) -> Array:
    """Share of speed lost to shallow water at the same power; 0 in deep water, at most a half.

    ΔV/V = 0.1242 (A_M/h² − 0.05) + 1 − √tanh(gh/V²), A_M/h² ≥ 0.05; source: Lackenby 1963, as in
    ITTC 7.5-04-01-01. Below the critical speed √(gh); depth more than the draught. Past it the wave
    stays behind and the loss goes: nothing by half as much again.

    >>> shallow_loss([1.0, 2.0], 0.15, 1.0).round(3).tolist(), float(shallow_loss(2.0, 0.15, 20.0))
    ([0.012, 0.02], 0.0)
    >>> float(shallow_loss(5.0, 0.15, 1.0))
    0.0
    """
    v2 = np.maximum(np.asarray(speed_m_s, dtype=float), 1e-3) ** 2
    squat = np.maximum(0.1242 * (midship_m2 / depth_m**2 - 0.05), 0.0)
    slowed = 1 - np.sqrt(np.tanh(GRAVITY_M_S2 * depth_m / v2))
    past = np.clip((np.sqrt(v2 / (GRAVITY_M_S2 * depth_m)) - 1) / (GONE_AT - 1), 0.0, 1.0)
    left = 1 - past * past * (3 - 2 * past)
    return np.asarray(np.minimum(squat + slowed, 0.5) * left)


def side_force_n(hull: Hull, people: int, wind_m_s: ArrayLike) -> Array:
    """Force in N of wind from abeam on hull and people.

    Side area is length × half the depth above water and 0.5 m² a person; common practice.

    >>> round(float(side_force_n(Hull("kayak", 3.7, 0.78, 34), 1, 8.0)))
    44
    """
    area = 0.5 * hull.length_m * hull.depth_m + 0.5 * people
    wind = np.asarray(wind_m_s, dtype=float)
    return np.asarray(0.5 * AIR_KG_M3 * SIDE_DRAG * area * wind * np.abs(wind))


def drift_deg(
    hull: Hull,
    draught_m: float,
    side_n: ArrayLike,
    speed_m_s: ArrayLike,
    density_kg_m3: float = 1026.0,
) -> Array:
    """Leeway in degrees that answers a side force at a speed: the hull as a wing of low aspect
    ratio and its cross flow. 90 where it cannot.

    C_Y = (π/2) Λ sin β cos β + 0.8 sin² β, Λ = 2T/L; slender-body theory and cross-flow drag.

    >>> h = Hull("kayak", 3.7, 0.78, 34)
    >>> drift_deg(h, 0.1, 40.0, [0.8, 2.0]).round().tolist()
    [38.0, 12.0]
    """
    side = np.abs(np.asarray(side_n, dtype=float))
    beta = np.radians(np.linspace(0.0, 90.0, 181))
    aspect = 2 * draught_m / hull.waterline_m
    lift = np.pi / 2 * aspect * np.sin(beta) * np.cos(beta) + CROSS_FLOW * np.sin(beta) ** 2
    speed = np.asarray(speed_m_s, dtype=float)
    area = hull.waterline_m * draught_m * hull.body_count
    wanted = side / (0.5 * density_kg_m3 * np.maximum(speed, 0.05) ** 2 * area)
    rising = np.maximum.accumulate(lift)
    angle = np.degrees(np.interp(wanted, rising, beta))
    return np.asarray(np.where(wanted > rising[-1], 90.0, angle))
