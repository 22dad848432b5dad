"""The propeller: momentum theory with one loss factor, the limit that pitch sets, and claims
tested.

Power and thrust come from momentum theory; what pitch and shaft speed allow from the Wageningen
B-series.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.hull import Assumed
from jolvek.core.hydro.open_water import run, thrust_coefficient

LOSS_FACTOR = 0.62  # electrical input to momentum power; motor, electronics, blade drag and swirl
LOSS_FACTOR_BELIEVED = 0.72  # a static-thrust claim that needs more is not believed
LOSS_FACTOR_LOWEST = 0.30


@dataclass(frozen=True)
class Propulsor:
    """One propeller on its motor: m, m, rev/s, and the loss factor; `assumed` names what was
    estimated.
    """

    diameter_m: float
    pitch_m: float
    shaft_rev_s: float
    loss_factor: float = LOSS_FACTOR
    claimed_factor: float | None = None  # what the catalogue's static thrust would need
    assumed: tuple[Assumed, ...] = ()

    @property
    def pitch_speed_m_s(self) -> float:
        """Speed at zero slip, p·n."""
        return self.pitch_m * self.shaft_rev_s


def diameter_for_power_m(power_w: ArrayLike) -> Array:
    """Propeller diameter in m to expect on an electric outboard of that input power in W.

    Common practice, no source; 0.2–12 kW.

    >>> round(float(diameter_for_power_m(1000)), 2)
    0.26
    """
    return np.clip(0.26 * (np.asarray(power_w, dtype=float) / 1000.0) ** 0.11, 0.18, 0.38)


def pitch_speed_for_power_m_s(power_w: ArrayLike) -> Array:
    """Zero-slip speed p·n in m/s to expect at that input power in W; common practice, no source.

    >>> round(float(pitch_speed_for_power_m_s(1000)), 1)
    5.0
    """
    return np.clip(5.0 * (np.asarray(power_w, dtype=float) / 1000.0) ** 0.35, 2.6, 14.0)


def loss_factor_from_static(
    thrust_n: ArrayLike, diameter_m: ArrayLike, power_w: ArrayLike, density_kg_m3: float = 1026.0
) -> Array:
    """Loss factor that a static thrust claim needs: η = T^1.5 / (√(2ρA) P). N, m, W → 1.

    Source: Rankine–Froude momentum theory at rest. Above 1 the claim breaks physics.

    >>> round(float(loss_factor_from_static(711, 0.27, 2400)), 2)
    0.73
    """
    area = np.pi * np.asarray(diameter_m, dtype=float) ** 2 / 4
    return np.asarray(
        np.asarray(thrust_n, dtype=float) ** 1.5 / (np.sqrt(2 * density_kg_m3 * area) * power_w)
    )


def fit(
    power_w: float,
    diameter_m: float | None = None,
    pitch_m: float | None = None,
    rpm: float | None = None,
    static_thrust_n: float | None = None,
    density_kg_m3: float = 1026.0,
) -> Propulsor:
    """The propulsor of a motor of input `power_w`, missing data estimated and listed as assumed.

    Source of the loss factor: the static claim where it is believable (0.30–0.72), else 0.62.

    >>> p = fit(1000)
    >>> len(p.assumed), p.loss_factor
    (3, 0.62)
    """
    known = []
    speed_m_s = float(pitch_speed_for_power_m_s(power_w))
    if diameter_m is None:
        diameter_m = round(float(diameter_for_power_m(power_w)), 3)
        known.append(Assumed("motor.propeller_diameter_m", diameter_m, "usual for this power"))
    if pitch_m is None:
        why, pitch_m = "0.65 of the diameter", 0.65 * diameter_m
        if rpm is not None:
            why = "pitch speed usual for this power"
            pitch_m = float(np.clip(speed_m_s / (rpm / 60), 0.3 * diameter_m, 1.2 * diameter_m))
        pitch_m = round(pitch_m, 3)
        known.append(Assumed("motor.propeller_pitch_m", pitch_m, why))
    if rpm is None:
        rpm = round(60 * speed_m_s / pitch_m, 0)
        known.append(Assumed("motor.propeller_rpm", rpm, "pitch speed usual for this power"))
    factor, claimed = LOSS_FACTOR, None
    if static_thrust_n is not None:
        from_claim = loss_factor_from_static(static_thrust_n, diameter_m, power_w, density_kg_m3)
        claimed = float(from_claim)
        if LOSS_FACTOR_LOWEST <= claimed <= LOSS_FACTOR_BELIEVED:
            factor = claimed
        if factor == LOSS_FACTOR:
            why = "no believable static thrust to take it from"
            known.append(Assumed("motor.loss_factor", LOSS_FACTOR, why))
    return Propulsor(diameter_m, pitch_m, rpm / 60.0, factor, claimed, tuple(known))


def power_for_thrust_w(
    thrust_n: ArrayLike,
    speed_m_s: ArrayLike,
    diameter_m: ArrayLike,
    loss_factor: ArrayLike,
    density_kg_m3: float = 1026.0,
) -> Array:
    """Electrical input in W for a thrust at a speed: ηP = T (V + √(V² + 2T/(ρA)))/2; broadcasts.

    Thrust ≥ 0 (less is taken as none). Source: Rankine–Froude momentum theory.

    >>> round(float(power_for_thrust_w(100.0, 2.0, 0.26, 0.62)))
    385
    """
    t = np.maximum(np.asarray(thrust_n, dtype=float), 0.0)
    v = np.asarray(speed_m_s, dtype=float)
    jet = 8.0 / (np.pi * density_kg_m3 * np.asarray(diameter_m, dtype=float) ** 2)
    return np.asarray(t * (v + np.sqrt(v * v + jet * t)) / (2.0 * np.asarray(loss_factor)))


def thrust_at_power_n(
    power_w: ArrayLike,
    speed_m_s: ArrayLike,
    diameter_m: ArrayLike,
    loss_factor: ArrayLike,
    density_kg_m3: float = 1026.0,
) -> Array:
    """Thrust in N of an electrical input at a speed, the inverse of `power_for_thrust_w`;
    broadcasts.

    Solves u³ − V u² = ηP/(2ρA) for the speed u through the disc; T = 2ρA u (u − V). Speed ≥ 0.

    >>> t = thrust_at_power_n(407.0, 2.0, 0.26, 0.62)
    >>> abs(float(power_for_thrust_w(t, 2.0, 0.26, 0.62)) - 407.0) < 1e-6
    True
    """
    v = np.asarray(speed_m_s, dtype=float)
    area = np.pi * np.asarray(diameter_m, dtype=float) ** 2 / 4
    c = np.maximum(np.asarray(loss_factor) * np.asarray(power_w, dtype=float), 0) / (
        2 * density_kg_m3 * area
    )
    u = v + np.cbrt(c) + 1e-12
    for _ in range(9):
        u = u - (u**3 - v * u * u - c) / (3 * u * u - 2 * v * u)
    return np.asarray(2 * density_kg_m3 * area * u * (u - v))


def pitch_limited_thrust_n(
    speed_m_s: ArrayLike,
    diameter_m: ArrayLike,
    pitch_m: ArrayLike,
    shaft_rev_s: ArrayLike,
    density_kg_m3: float = 1026.0,
) -> Array:
    """Most thrust in N at the full shaft speed, K_T(V/(nD), p/D) ρn²D⁴, never below 0; broadcasts.

    Source: Wageningen B-series, three blades, area ratio 0.45 (`open_water`).

    >>> float(pitch_limited_thrust_n(7.8, 0.27, 0.171, 2300 / 60))
    0.0
    """
    v, d, p, n = (np.asarray(x, dtype=float) for x in (speed_m_s, diameter_m, pitch_m, shaft_rev_s))
    return np.asarray(thrust_coefficient(v / (n * d), p / d) * density_kg_m3 * n * n * d**4)


def shaft_speed_rev_s(
    thrust_n: ArrayLike,
    speed_m_s: ArrayLike,
    diameter_m: float,
    pitch_m: float,
    density_kg_m3: float = 1026.0,
) -> Array:
    """Shaft speed in rev/s for a thrust at a speed on the same curve; thrust and speed broadcast.

    >>> n = shaft_speed_rev_s(200.0, 2.0, 0.27, 0.171)
    >>> round(float(pitch_limited_thrust_n(2.0, 0.27, 0.171, n)))
    200
    """
    return run(thrust_n, speed_m_s, diameter_m, pitch_m, density_kg_m3).rev_s


def static_thrust_n(
    power_w: ArrayLike,
    diameter_m: ArrayLike,
    loss_factor: ArrayLike = LOSS_FACTOR,
    density_kg_m3: float = 1026.0,
) -> Array:
    """Bollard thrust T0 = (2ρA)^⅓ (ηP)^⅔ in N; broadcasts. Source: momentum theory at rest.

    >>> round(float(static_thrust_n(1000, 0.26)))
    347
    """
    area = np.pi * np.asarray(diameter_m, dtype=float) ** 2 / 4
    return np.asarray(
        np.cbrt(2 * density_kg_m3 * area)
        * (np.asarray(loss_factor) * np.asarray(power_w)) ** (2 / 3)
    )
