"""From watts to thrust: what motor and controller lose by load, what the propeller loses by its
loading, and momentum theory between them.

At its rated input P_r a drive is as good as its loss factor says. Below that its input is
P = P_r (a x + i + f x^⅓ + c x^(4/3)) of the useful share x: idle draw i, losses with the shaft
speed (x^⅓) and with the torque squared (x^(4/3)), a + i + f + c = 1.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.open_water import DRIVE_EFFICIENCY, coefficients

SCALE = 0.97  # small propellers against the tank's Reynolds number; common practice, no source
SPEED_LOSS = 0.03  # of the rated input: iron, bearings, water; common practice, no source
LEAST_TORQUE_LOSS = 0.02
USUAL_PITCH_RATIO = 0.65  # common practice, no source
REFERENCE = 0.62  # the loss factor that a usual propeller has; others are taken against it
OFF_N = 1e-5  # less thrust than this: the motor is off
_LOADINGS = np.linspace(np.log(0.03), np.log(1000.0), 48)  # ln of T/(ρV²D²)
_RATIOS = np.linspace(0.4, 1.4, 21)


def idle_for_power_w(power_w: ArrayLike) -> Array:
    """Idle draw in W to expect of a motor of that rated input in W: 2 W and 0.5 %.

    Common practice, no source.

    >>> float(idle_for_power_w(1000.0))
    7.0
    """
    return np.asarray(2.0 + 0.005 * np.asarray(power_w, dtype=float))


@lru_cache(maxsize=1)
def _series() -> Array:
    """Momentum power over shaft power of the B-series, by pitch ratio and ln loading."""
    out = np.empty((_RATIOS.size, _LOADINGS.size))
    for row, ratio in enumerate(_RATIOS):
        j = np.linspace(0.01, 1.2 * ratio, 400)
        k_t, k_q = coefficients(j, ratio)
        j, k_t, k_q = (x[: int(np.argmax(k_t < 0.004)) or None] for x in (j, k_t, k_q))
        power = k_t * (j + np.sqrt(j * j + 8 * k_t / np.pi)) / 2
        out[row] = np.interp(-_LOADINGS, -np.log(k_t / j**2), power / (2 * np.pi * k_q))
    return out


def blade_share(loading: ArrayLike, pitch_ratio: ArrayLike) -> Array:
    """Momentum power over shaft power at a loading T/(ρV²D²) and a pitch ratio; broadcasts.

    Wageningen B3-45 less 3 % for scale; loading 0.03–1000, pitch ratio 0.4–1.4, the nearest end
    outside (past it the propeller runs near its zero-thrust speed or stands still).

    >>> round(float(blade_share(1.0, 0.65)), 2), round(float(blade_share(500.0, 0.65)), 2)
    (0.73, 0.62)
    """
    at = np.clip(np.log(np.maximum(loading, 1e-6)), _LOADINGS[0], _LOADINGS[-1])
    x = (at - _LOADINGS[0]) / (_LOADINGS[1] - _LOADINGS[0])
    y = (np.clip(pitch_ratio, _RATIOS[0], _RATIOS[-1]) - _RATIOS[0]) / (_RATIOS[1] - _RATIOS[0])
    i = np.minimum(x.astype(int), _LOADINGS.size - 2)
    j = np.minimum(np.asarray(y).astype(int), _RATIOS.size - 2)
    fx, fy, t = x - i, y - j, _series()
    low = t[j, i] * (1 - fx) + t[j, i + 1] * fx
    high = t[j + 1, i] * (1 - fx) + t[j + 1, i + 1] * fx
    return np.asarray(SCALE * (low * (1 - fy) + high * fy))


def momentum_power_w(
    thrust_n: ArrayLike, speed_m_s: ArrayLike, diameter_m: ArrayLike, density_kg_m3: float = 1026.0
) -> Array:
    """Power in W that a thrust ≥ 0 at a speed takes without any loss: T (V + √(V² + 2T/(ρA)))/2.

    Broadcasts. Source: Rankine–Froude momentum theory.

    >>> round(float(momentum_power_w(100.0, 2.0, 0.26)))
    238
    """
    t = np.maximum(np.asarray(thrust_n, dtype=float), 0.0)
    v = np.asarray(speed_m_s, dtype=float)
    jet = 8.0 / (np.pi * density_kg_m3 * np.asarray(diameter_m, dtype=float) ** 2)
    return np.asarray(t * (v + np.sqrt(v * v + jet * t)) / 2.0)


def momentum_thrust_n(
    power_w: ArrayLike, speed_m_s: ArrayLike, diameter_m: ArrayLike, density_kg_m3: float = 1026.0
) -> Array:
    """Thrust in N of a power without loss, the inverse of `momentum_power_w`; broadcasts.

    Solves u³ − V u² = P/(2ρA) for the speed u through the disc; T = 2ρA u (u − V). Speed ≥ 0.

    >>> round(float(momentum_thrust_n(238.8, 2.0, 0.26)))
    100
    """
    v = np.asarray(speed_m_s, dtype=float)
    area = np.pi * np.asarray(diameter_m, dtype=float) ** 2 / 4
    c = np.maximum(np.asarray(power_w, dtype=float), 0) / (2 * density_kg_m3 * area)
    u = v + np.cbrt(c) + 1e-12
    for _ in range(7):
        u = u - (u**3 - v * u * u - c) / (3 * u * u - 2 * v * u)
    return np.asarray(2 * density_kg_m3 * area * u * (u - v))


@dataclass(frozen=True)
class Drive:
    """Motor and propeller, each field a figure or an array that broadcasts with thrust and speed:
    diameter in m, pitch ratio, loss factor at the rated input in W, idle draw in W.
    """

    diameter_m: ArrayLike
    pitch_ratio: ArrayLike = USUAL_PITCH_RATIO
    loss_factor: ArrayLike = REFERENCE
    rated_w: ArrayLike = 1000.0
    idle_w: ArrayLike = 7.0

    def power_w(
        self, thrust_n: ArrayLike, speed_m_s: ArrayLike, density_kg_m3: float = 1026.0
    ) -> Array:
        """Electrical input in W for a thrust at a speed; 0 where no thrust is asked (off).

        >>> d = Drive(0.26)
        >>> round(float(d.power_w(100.0, 2.0))), float(d.power_w(0.0, 2.0))
        (393, 0.0)
        """
        t = np.asarray(thrust_n, dtype=float)
        ideal = momentum_power_w(t, speed_m_s, self.diameter_m, density_kg_m3)
        x = ideal / (self._running(t, speed_m_s, density_kg_m3) * np.asarray(self.rated_w))
        a, i, c = self._shares()
        root = np.cbrt(x)
        power = np.asarray(self.rated_w) * (a * x + i + SPEED_LOSS * root + c * x * root)
        return np.asarray(np.where(t > OFF_N, power, 0.0))

    def thrust_n(
        self, power_w: ArrayLike, speed_m_s: ArrayLike, density_kg_m3: float = 1026.0
    ) -> Array:
        """Thrust in N of an electrical input at a speed, the inverse of `power_w`; 0 below the idle
        draw.

        >>> d = Drive(0.26)
        >>> abs(float(d.power_w(d.thrust_n(407.0, 2.0), 2.0)) - 407.0) < 0.01
        True
        """
        useful = self._useful(np.asarray(power_w, dtype=float) / np.asarray(self.rated_w))
        useful = useful * np.asarray(self.rated_w)
        t = momentum_thrust_n(REFERENCE * useful, speed_m_s, self.diameter_m, density_kg_m3)
        for _ in range(7):
            ideal = useful * self._running(t, speed_m_s, density_kg_m3)
            t = momentum_thrust_n(ideal, speed_m_s, self.diameter_m, density_kg_m3)
        return t

    def _running(self, thrust: Array, speed: ArrayLike, rho: float) -> Array:
        """Momentum power over the useful electrical input."""
        v2 = np.maximum(np.asarray(speed, dtype=float), 1e-3) ** 2
        loading = thrust / (rho * v2 * np.asarray(self.diameter_m) ** 2)
        claimed = np.asarray(self.loss_factor) / REFERENCE
        return np.asarray(claimed * DRIVE_EFFICIENCY * blade_share(loading, self.pitch_ratio))

    def _shares(self) -> tuple[Array, Array, Array]:
        """a, i and c of the module's formula."""
        i = np.minimum(np.asarray(self.idle_w) / np.asarray(self.rated_w), 0.5)
        c = np.maximum(1 - DRIVE_EFFICIENCY - SPEED_LOSS - i, LEAST_TORQUE_LOSS)
        return np.asarray(1 - i - SPEED_LOSS - c), i, c

    def _useful(self, share: Array) -> Array:
        """x of a share of the rated input, by Newton on its cube root."""
        a, i, c = self._shares()
        y = np.cbrt(np.maximum(share - i, 0.0) / a)
        for _ in range(8):
            value = ((c * y + a) * y * y + SPEED_LOSS) * y + i - share
            y = np.maximum(y - value / ((4 * c * y + 3 * a) * y * y + SPEED_LOSS), 0.0)
        return np.asarray(np.where(share > i, y**3, 0.0))
