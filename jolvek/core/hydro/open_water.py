"""Open-water propeller curves: the Wageningen B-series polynomials, and propellers compared on one
boat.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg

BLADES, AREA_RATIO = 3, 0.45  # usual on small outboards; common practice, no source
DRIVE_EFFICIENCY = (
    0.85  # motor, controller and gear, electrical input to shaft; common practice, no source
)
_PITCH_RATIO = (0.4, 1.4)

# (coefficient, power of J, of P/D, of A_E/A_0, of Z); Oosterveld and van Oossanen 1975, typed
# from memory and tested for the limits that momentum theory and the tank charts set
# (tests/reference/test_open_water.py).
# fmt: off
_K_T = np.array([
    (0.00880496, 0, 0, 0, 0), (-0.204554, 1, 0, 0, 0), (0.166351, 0, 1, 0, 0),
    (0.158114, 0, 2, 0, 0), (-0.147581, 2, 0, 1, 0), (-0.481497, 1, 1, 1, 0),
    (0.415437, 0, 2, 1, 0), (0.0144043, 0, 0, 0, 1), (-0.0530054, 2, 0, 0, 1),
    (0.0143481, 0, 1, 0, 1), (0.0606826, 1, 1, 0, 1), (-0.0125894, 0, 0, 1, 1),
    (0.0109689, 1, 0, 1, 1), (-0.133698, 0, 3, 0, 0), (0.00638407, 0, 6, 0, 0),
    (-0.00132718, 2, 6, 0, 0), (0.168496, 3, 0, 1, 0), (-0.0507214, 0, 0, 2, 0),
    (0.0854559, 2, 0, 2, 0), (-0.0504475, 3, 0, 2, 0), (0.010465, 1, 6, 2, 0),
    (-0.00648272, 2, 6, 2, 0), (-0.00841728, 0, 3, 0, 1), (0.0168424, 1, 3, 0, 1),
    (-0.00102296, 3, 3, 0, 1), (-0.0317791, 0, 3, 1, 1), (0.018604, 1, 0, 2, 1),
    (-0.00410798, 0, 2, 2, 1), (-0.000606848, 0, 0, 0, 2), (-0.0049819, 1, 0, 0, 2),
    (0.0025983, 2, 0, 0, 2), (-0.000560528, 3, 0, 0, 2), (-0.00163652, 1, 2, 0, 2),
    (-0.000328787, 1, 6, 0, 2), (0.000116502, 2, 6, 0, 2), (0.000690904, 0, 0, 1, 2),
    (0.00421749, 0, 3, 1, 2), (0.0000565229, 3, 6, 1, 2), (-0.00146564, 0, 3, 2, 2),
])
_K_Q = np.array([
    (0.00379368, 0, 0, 0, 0), (0.00886523, 2, 0, 0, 0), (-0.032241, 1, 1, 0, 0),
    (0.00344778, 0, 2, 0, 0), (-0.0408811, 0, 1, 1, 0), (-0.108009, 1, 1, 1, 0),
    (-0.0885381, 2, 1, 1, 0), (0.188561, 0, 2, 1, 0), (-0.00370871, 1, 0, 0, 1),
    (0.00513696, 0, 1, 0, 1), (0.0209449, 1, 1, 0, 1), (0.00474319, 2, 1, 0, 1),
    (-0.00723408, 2, 0, 1, 1), (0.00438388, 1, 1, 1, 1), (-0.0269403, 0, 2, 1, 1),
    (0.0558082, 3, 0, 1, 0), (0.0161886, 0, 3, 1, 0), (0.00318086, 1, 3, 1, 0),
    (0.015896, 0, 0, 2, 0), (0.0471729, 1, 0, 2, 0), (0.0196283, 3, 0, 2, 0),
    (-0.0502782, 0, 1, 2, 0), (-0.030055, 3, 1, 2, 0), (0.0417122, 2, 2, 2, 0),
    (-0.0397722, 0, 3, 2, 0), (-0.00350024, 0, 6, 2, 0), (-0.0106854, 3, 0, 0, 1),
    (0.00110903, 3, 3, 0, 1), (-0.000313912, 0, 6, 0, 1), (0.0035985, 3, 0, 1, 1),
    (-0.00142121, 0, 6, 1, 1), (-0.00383637, 1, 0, 2, 1), (0.0126803, 0, 2, 2, 1),
    (-0.00318278, 2, 3, 2, 1), (0.00334268, 0, 6, 2, 1), (-0.00183491, 1, 1, 0, 2),
    (0.000112451, 3, 2, 0, 2), (-0.0000297228, 3, 6, 0, 2), (0.000269551, 1, 0, 1, 2),
    (0.00083265, 2, 0, 1, 2), (0.00155334, 0, 2, 1, 2), (0.000302683, 0, 6, 1, 2),
    (-0.0001843, 0, 0, 2, 2), (-0.000425399, 0, 3, 2, 2), (0.0000869243, 3, 3, 2, 2),
    (-0.0004659, 0, 6, 2, 2), (0.0000554194, 1, 6, 2, 2),
])
# fmt: on


def _polynomial(rows: Array, j: Array, pitch_ratio: Array, area_ratio: float, blades: int) -> Array:
    c, s, t, u, v = rows.T
    fixed = c * area_ratio**u * float(blades) ** v
    return np.asarray(np.sum(fixed * j[..., None] ** s * pitch_ratio[..., None] ** t, axis=-1))


def coefficients(
    advance: ArrayLike, pitch_ratio: ArrayLike, area_ratio: float = AREA_RATIO, blades: int = BLADES
) -> tuple[Array, Array]:
    """(K_T, K_Q) of a B-series propeller at advance ratios J = V/(nD) and pitch ratios P/D;
    broadcasts.

    Valid for P/D 0.4–1.4 (0.5–1.4 in the tank, carried on a little), A_E/A_0 0.3–1.05, 2–7 blades,
    Re 2e6 (smaller ones lose a few per cent). Source: Oosterveld and van Oossanen 1975. Raises
    ValueRefused outside.

    >>> k_t, k_q = coefficients(0.5, 1.0, 0.55, 4)
    >>> round(float(k_t), 2), round(float(10 * k_q), 2)
    (0.27, 0.42)
    """
    j, p = np.broadcast_arrays(
        np.asarray(advance, dtype=float), np.asarray(pitch_ratio, dtype=float)
    )
    if p.size and (p.min() < _PITCH_RATIO[0] or p.max() > _PITCH_RATIO[1]):
        raise ValueRefused(
            msg("pitch ratio"),
            float(p.min() if p.min() < _PITCH_RATIO[0] else p.max()),
            "0.4 to 1.4",
        )
    if not (0.3 <= area_ratio <= 1.05 and 2 <= blades <= 7):
        raise ValueRefused(
            "propeller", (area_ratio, blades), msg("area ratio 0.3 to 1.05 and 2 to 7 blades")
        )
    return _polynomial(_K_T, j, p, area_ratio, blades), _polynomial(_K_Q, j, p, area_ratio, blades)


def thrust_coefficient(advance: ArrayLike, pitch_ratio: ArrayLike) -> Array:
    """K_T of the usual three-bladed propeller, never below 0; J and P/D broadcast, P/D of any size.

    Outside P/D 0.4–1.4 the nearest curve is taken with both axes scaled by the pitch. Source as
    `coefficients`.

    >>> round(float(thrust_coefficient(0.0, 0.7)), 2), float(thrust_coefficient(0.9, 0.7))
    (0.27, 0.0)
    """
    j, p = np.broadcast_arrays(
        np.asarray(advance, dtype=float), np.asarray(pitch_ratio, dtype=float)
    )
    inside = np.clip(p, *_PITCH_RATIO)
    j = np.minimum(j * inside / p, 1.5 * inside)  # past the zero the polynomial means nothing
    return np.asarray(
        np.maximum(_polynomial(_K_T, j, inside, AREA_RATIO, BLADES), 0.0) * p / inside
    )


@dataclass(frozen=True)
class Running:
    """A propeller at work; every field has the broadcast shape of thrust and speed."""

    rev_s: Array
    shaft_power_w: Array
    efficiency: Array  # T V / shaft power


def run(
    thrust_n: ArrayLike,
    speed_m_s: ArrayLike,
    diameter_m: float,
    pitch_m: float,
    density_kg_m3: float = 1026.0,
    area_ratio: float = AREA_RATIO,
    blades: int = BLADES,
) -> Running:
    """Shaft speed and power of a propeller that gives a thrust (N) at a speed (m/s); broadcasts.

    K_T/J² is known from thrust and speed; J follows from a table of the curve. Thrust and speed
    above 0. Errors and validity as `coefficients`.

    >>> r = run(120.0, 1.8, 0.26, 0.17)
    >>> 600 < 60 * float(r.rev_s) < 1100, 0.4 < float(r.efficiency) < 0.65
    (True, True)
    """
    t, v = np.broadcast_arrays(np.maximum(thrust_n, 1e-6), np.maximum(speed_m_s, 1e-3))
    j = np.linspace(1e-3, 1.45 * pitch_m / diameter_m, 400)
    k_t, k_q = coefficients(j, np.clip(pitch_m / diameter_m, *_PITCH_RATIO), area_ratio, blades)
    last = int(np.argmax(k_t <= 1e-4)) if (k_t <= 1e-4).any() else k_t.size
    j, k_t, k_q = j[:last], k_t[:last], k_q[:last]
    wanted = t / (density_kg_m3 * v * v * diameter_m**2)  # K_T / J²
    advance = np.exp(np.interp(-np.log(wanted), -np.log(k_t / j**2), np.log(j)))
    rev = v / (advance * diameter_m)
    power = 2 * np.pi * density_kg_m3 * rev**3 * diameter_m**5 * np.interp(advance, j, k_q)
    return Running(rev, power, t * v / power)


def rev_at_power(
    shaft_power_w: float,
    speed_m_s: float,
    diameter_m: float,
    pitch_m: float,
    density_kg_m3: float = 1026.0,
) -> float:
    """Shaft speed in rev/s of a propeller that takes a shaft power (W) at a speed (m/s).

    K_Q/J³ is known from power and speed; J follows from a table of the curve. Power and speed
    above 0. Errors and validity as `coefficients`.

    >>> r = run(120.0, 1.8, 0.26, 0.17)
    >>> round(rev_at_power(float(r.shaft_power_w), 1.8, 0.26, 0.17) / float(r.rev_s), 3)
    1.0
    """
    j = np.linspace(1e-3, 1.45 * pitch_m / diameter_m, 400)
    k_t, k_q = coefficients(j, np.clip(pitch_m / diameter_m, *_PITCH_RATIO))
    able = (k_t > 1e-4) & (k_q > 1e-5)
    j, k_q = j[able], k_q[able]
    v = max(speed_m_s, 1e-3)
    wanted = shaft_power_w / (2 * np.pi * density_kg_m3 * v**3 * diameter_m**2)  # K_Q / J³
    advance = np.exp(np.interp(-np.log(wanted), -np.log(k_q / j**3), np.log(j)))
    return float(v / (advance * diameter_m))


def static(
    diameter_m: float,
    pitch_m: float,
    shaft_power_w: float,
    density_kg_m3: float = 1026.0,
    area_ratio: float = AREA_RATIO,
    blades: int = BLADES,
) -> tuple[float, float]:
    """(thrust N, rev/s) at rest with a shaft power in W. Errors and validity as `coefficients`.

    >>> thrust, rev = static(0.27, 0.171, 2400 * 0.85)
    >>> 500 < thrust < 650, 20 < rev < 32
    (True, True)
    """
    k_t, k_q = (float(k) for k in coefficients(0.0, pitch_m / diameter_m, area_ratio, blades))
    rev = (shaft_power_w / (2 * np.pi * density_kg_m3 * diameter_m**5 * k_q)) ** (1 / 3)
    return k_t * density_kg_m3 * rev**2 * diameter_m**4, float(rev)


@dataclass(frozen=True)
class Fit:
    """One propeller on one boat: what it reaches with a motor's power and shaft speed, and what it
    takes on the way.
    """

    diameter_m: float
    pitch_m: float
    top_speed_m_s: float
    limited_by: str  # power | shaft speed
    power_at_wish_w: float | None  # electrical input; None where the wanted speed is out of reach
    rpm_at_top: float


def compare(
    speed_m_s: Array,
    thrust_n: Array,
    propellers: list[tuple[float, float]],
    input_power_w: float,
    max_rev_s: float,
    wish_m_s: float,
    density_kg_m3: float = 1026.0,
) -> list[Fit]:
    """Propellers (diameter m, pitch m) on a boat whose thrust (N) is known over speeds (m/s,
    rising, (N,)).

    Each reaches the speed where it asks for more than the motor's shaft power (0.85 of the input)
    or more than its highest shaft speed. Errors and validity as `coefficients`.

    >>> v = np.linspace(0.5, 3.0, 40)
    >>> small, large = compare(v, 60 * v**2, [(0.22, 0.15), (0.30, 0.15)], 1000.0, 30.0, 1.8)
    >>> large.power_at_wish_w < small.power_at_wish_w
    True
    """
    out = []
    for diameter, pitch in propellers:
        r = run(thrust_n, speed_m_s, diameter, pitch, density_kg_m3)
        by_power, by_rev = r.shaft_power_w / (DRIVE_EFFICIENCY * input_power_w), r.rev_s / max_rev_s
        over = np.maximum.accumulate(np.maximum(by_power, by_rev))
        top = float(np.interp(1.0, over, speed_m_s))
        by = (
            msg("shaft speed")
            if np.interp(top, speed_m_s, by_rev) >= np.interp(top, speed_m_s, by_power)
            else "power"
        )
        wish = (
            float(np.interp(wish_m_s, speed_m_s, r.shaft_power_w)) / DRIVE_EFFICIENCY
            if wish_m_s <= top
            else None
        )
        out.append(
            Fit(diameter, pitch, top, by, wish, 60 * float(np.interp(top, speed_m_s, r.rev_s)))
        )
    return out
