"""The propeller of a motor: what is known of it and what is usual, the limit that pitch and shaft
speed set (Wageningen B-series), and what a static-thrust claim tells.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.base.messages import msg
from jolvek.core.hydro.drive import REFERENCE, USUAL_PITCH_RATIO, Drive, idle_for_power_w
from jolvek.core.hydro.hull import Assumed
from jolvek.core.hydro.open_water import DRIVE_EFFICIENCY, coefficients, run, thrust_coefficient

LOSS_FACTOR_BELIEVED = 0.62  # a static-thrust claim that needs more of the peak is not believed
CLAIM_USUAL = 0.54  # what usual claims need; with the power and the ends below Jolvek's own
CLAIM_POWER, LOSS_FACTORS = 0.3, (0.55, 0.68)
LUG_TORQUE = 2.5  # most torque over that at full shaft speed and power; common practice, no source


@dataclass(frozen=True)
class Propulsor:
    """One propeller on its motor: m, m, rev/s, and the loss factor; `assumed` names what was
    estimated.
    """

    diameter_m: float
    pitch_m: float
    shaft_rev_s: float
    loss_factor: float = REFERENCE  # of the rated input
    claimed_factor: float | None = None  # what the catalogue's static thrust would need
    rated_w: float = 1000.0
    idle_w: float = 7.0
    assumed: tuple[Assumed, ...] = ()

    @property
    def drive(self) -> Drive:
        """What turns its watts into thrust."""
        ratio = self.pitch_m / self.diameter_m
        return Drive(self.diameter_m, ratio, self.loss_factor, self.rated_w, self.idle_w)

    @property
    def pitch_speed_m_s(self) -> float:
        """Speed at zero slip, p·n."""
        return self.pitch_m * self.shaft_rev_s

    @property
    def lug_n(self) -> float:
        """Thrust in N at the motor's highest torque; inf where its propeller is not stated."""
        if any(a.name.startswith("motor.propeller_") for a in self.assumed):
            return float("inf")
        return lug_thrust_n(self.diameter_m, self.pitch_m, self.shaft_rev_s, self.rated_w)

    def room_n(self, speed_m_s: ArrayLike, density_kg_m3: float = 1026.0) -> Array:
        """Thrust in N that the propeller can give at speeds (any shape), power or no power: no more
        than its pitch at full shaft speed, and the motor's highest torque, allow.
        """
        sizes = (self.diameter_m, self.pitch_m, self.shaft_rev_s)
        by_pitch = pitch_limited_thrust_n(speed_m_s, *sizes, density_kg_m3)
        return np.asarray(np.minimum(by_pitch, self.lug_n))


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
    peak_w: float | None = None,
    idle_w: float | None = None,
) -> Propulsor:
    """The propulsor of a motor of input `power_w`, missing data estimated and listed as assumed.

    The loss factor follows a static claim by a small power of what it needs of the peak input,
    0.62 (claimed/0.54)^0.3 within 0.55–0.68; 0.62 without one. Jolvek's own.

    >>> p = fit(1000)
    >>> len(p.assumed), p.loss_factor
    (4, 0.62)
    """
    known = []
    speed_m_s = float(pitch_speed_for_power_m_s(power_w))
    if diameter_m is None:
        diameter_m = round(float(diameter_for_power_m(power_w)), 3)
        known.append(Assumed("motor.propeller_diameter_m", diameter_m, msg("usual for this power")))
    if pitch_m is None:
        why = msg(
            "%(usual_pitch_ratio)s of the diameter", usual_pitch_ratio=f"{USUAL_PITCH_RATIO:g}"
        )
        pitch_m = USUAL_PITCH_RATIO * diameter_m
        if rpm is not None:
            why = msg("pitch speed usual for this power")
            pitch_m = float(np.clip(speed_m_s / (rpm / 60), 0.3 * diameter_m, 1.2 * diameter_m))
        pitch_m = round(pitch_m, 3)
        known.append(Assumed("motor.propeller_pitch_m", pitch_m, why))
    if rpm is None:
        rpm = round(60 * speed_m_s / pitch_m, 0)
        known.append(Assumed("motor.propeller_rpm", rpm, msg("pitch speed usual for this power")))
    if idle_w is None:
        idle_w = round(float(idle_for_power_w(power_w)), 1)
        known.append(Assumed("motor.idle_w", idle_w, msg("usual for this power")))
    factor, claimed, most = REFERENCE, None, peak_w or power_w
    if static_thrust_n is not None:
        claimed = float(loss_factor_from_static(static_thrust_n, diameter_m, most, density_kg_m3))
        by_claim = REFERENCE * (claimed / CLAIM_USUAL) ** CLAIM_POWER
        factor = float(np.clip(by_claim, *LOSS_FACTORS))
        if claimed > LOSS_FACTOR_BELIEVED:
            why = msg("the static thrust claimed is more than is believed")
            known.append(Assumed("motor.loss_factor", round(factor, 3), why))
    screw = (diameter_m, pitch_m, rpm / 60.0)
    return Propulsor(*screw, factor, claimed, power_w, idle_w=idle_w, assumed=tuple(known))


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


def lug_thrust_n(diameter_m: float, pitch_m: float, rev_s: float, input_w: float) -> float:
    """Most thrust in N of a propeller (m, m) that the torque of a motor can turn, which gives its
    input (W) at a full shaft speed (rev/s): K_T Q/(K_Q D) at rest, and hardly less at the hump.

    Source: Wageningen B-series; that the torque is bounded at 2.5 times: common practice, no
    source. Pitch ratio 0.4–1.4, the nearest end outside.

    >>> usual, long = (lug_thrust_n(0.29, p, 20.0, 3000.0) for p in (0.18, 0.36))
    >>> round(usual), long < 0.7 * usual
    (1786, True)
    """
    torque = LUG_TORQUE * DRIVE_EFFICIENCY * input_w / (2 * np.pi * rev_s)
    k_t, k_q = coefficients(0.0, float(np.clip(pitch_m / diameter_m, 0.4, 1.4)))
    return float(k_t / k_q * torque / diameter_m)


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
