"""Planing resistance: Savitsky 1964, steady trim from the balance of lift and moment, with the
whisker spray of Savitsky, DeLorme and Datla 2007 where it is asked for.
"""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array

G_M_S2 = 9.80665
ROUGHNESS = 0.0004  # added to C_f, as in the displacement range
TRIM_RANGE_DEG, MOST_WETTED = (2.0, 15.0), 4.0  # Savitsky 1964
_TRIMS = np.geomspace(0.6, 24.0, 16)  # degrees


@dataclass(frozen=True)
class Planing:
    """Steady planing; every field has the broadcast shape of the inputs."""

    resistance_n: Array
    trim_deg: Array
    wetted_length_ratio: Array  # λ, mean wetted length / beam
    keel_wetted_m: Array

    @property
    def within(self) -> Array:
        """Whether trim and wetted length lie where the formulas were fitted: 2 to 15°, λ to 4."""
        low, high = TRIM_RANGE_DEG
        ok = (self.trim_deg >= low) & (self.trim_deg <= high)
        return np.asarray(ok & (self.wetted_length_ratio <= MOST_WETTED))


def _lift_coefficient(c_beta: Any, deadrise_deg: float) -> Any:
    """C_L0 from C_Lβ = C_L0 − 0.0065 β C_L0^0.6 (Savitsky 1964 eq. 16) by Newton steps."""
    if deadrise_deg == 0:
        return c_beta
    c = c_beta + 0.0065 * deadrise_deg * c_beta**0.6
    for _ in range(3):
        c = c - (c - 0.0065 * deadrise_deg * c**0.6 - c_beta) / (
            1 - 0.0039 * deadrise_deg * c**-0.4
        )
        c = np.maximum(c, c_beta)
    return c


def _wetted_ratio(target: Any, cv2: Any) -> Any:
    """λ from target = 0.012 λ^½ + 0.0055 λ^2.5 / C_v² (Savitsky 1964 eq. 15): Newton steps on ln
    λ.
    """
    lam = np.minimum((target / 0.012) ** 2, (target * cv2 / 0.0055) ** 0.4)
    for _ in range(4):
        root = np.sqrt(lam)
        dynamic, buoyant = 0.012 * root, 0.0055 * root**5 / cv2
        lam = lam * np.exp(
            -np.log((dynamic + buoyant) / target)
            * (dynamic + buoyant)
            / (0.5 * dynamic + 2.5 * buoyant)
        )
    return lam


@dataclass(frozen=True)
class _Boat:
    beam: float
    deadrise: float
    lcg: Any
    vcg: float
    thrust_height: float
    thrust_angle_deg: float
    density: float
    viscosity: float
    roughness: float
    wet: bool  # friction at the mean bottom velocity, and the whisker spray


def spray_ratio(trim_deg: ArrayLike, deadrise_deg: float) -> Array:
    """Δλ: the whisker spray's area as drag, over the beam squared, as a mean wetted length.

    Source: Savitsky, DeLorme and Datla 2007, eq. 12 (from memory): Δλ = cos θ/(4 sin 2α cos β) with
    θ = 2α/cos β and tan α = (π/2) tan τ/tan β. Where the spray leaves forwards (θ past 90°: flat
    bottoms, high trim) it does not drag: 0.

    >>> spray_ratio([3.0, 8.0], 20.0).round(2).tolist(), float(spray_ratio(4.0, 0.0))
    ([0.55, 0.12], 0.0)
    """
    tau = np.radians(np.asarray(trim_deg, dtype=float))
    beta = np.radians(max(deadrise_deg, 1e-3))
    alpha = np.arctan(np.pi / 2 * np.tan(tau) / np.tan(beta))
    theta = 2 * alpha / np.cos(beta)
    back = np.maximum(np.cos(np.minimum(theta, np.pi)), 0.0)
    return np.asarray(back / (4 * np.maximum(np.sin(2 * alpha), 0.05) * np.cos(beta)))


def _balance(boat: _Boat, v: Any, weight: Any, trim: Any) -> tuple[Any, Any, Any, Any]:
    """(moment about the centre of gravity, drag, λ, wetted keel) at trims in degrees."""
    b, tau = boat.beam, np.radians(trim)
    sin, cos, tan = np.sin(tau), np.cos(tau), np.tan(tau)
    tan_beta, cos_beta = np.tan(np.radians(boat.deadrise)), np.cos(np.radians(boat.deadrise))
    q, cv2 = 0.5 * boat.density * v**2, v**2 / (G_M_S2 * b)
    spread = b / np.pi * tan_beta / tan  # wetted keel less wetted chine, Savitsky 1964 eq. 3
    angle = np.radians(boat.thrust_angle_deg) + tau
    lift = weight * np.ones_like(tau)
    trim_power = trim**1.1
    spray = spray_ratio(trim, boat.deadrise)
    for _ in range(2):
        c0 = _lift_coefficient(np.maximum(lift, 0.05 * weight) / (q * b * b), boat.deadrise)
        lam = _wetted_ratio(c0 / trim_power, cv2)
        wet = 2 * b * lam > spread
        keel = np.where(wet, b * lam + 0.5 * spread, 2 * b * lam)
        chine = np.where(wet, b * lam - 0.5 * spread, 0.0)
        dry = keel - chine
        wedge = np.where(wet, 1.0, dry / np.maximum(spread, 1e-9))
        s1, s2 = 0.5 * dry * b * wedge / cos_beta, b * chine / cos_beta
        c_d = 0.012 * np.sqrt(lam) * trim_power
        loss = (c_d - 0.0065 * boat.deadrise * c_d**0.6) / (lam * cos)
        v_bottom = v * np.sqrt(np.clip(1 - loss, 0.2, 1.0))
        reynolds = np.maximum(v_bottom * lam * b / boat.viscosity, 1e4)
        c_f = 0.075 / (np.log10(reynolds) - 2) ** 2 + boat.roughness
        area = s1 + s2 + (spray * b * b if boat.wet else 0.0)
        friction = c_f * q * area * ((v_bottom / v) ** 2 if boat.wet else 1.0)
        thrust = (lift * tan + friction * cos) / np.cos(angle)
        lift = weight + friction * sin - thrust * np.sin(angle)
    centre = lam * b * (0.75 - 1 / (5.21 * cv2 / lam**2 + 2.39))  # Savitsky 1964 eq. 21
    arm = (b / 4 * tan_beta * s2 + b / 6 * tan_beta * s1) / np.maximum(s1 + s2, 1e-9)
    e = np.radians(boat.thrust_angle_deg)
    push = thrust * (np.cos(e) * (boat.vcg - boat.thrust_height) - np.sin(e) * boat.lcg)
    moment = friction * (arm - boat.vcg) + push - lift / cos * (boat.lcg - centre)
    return moment, lift * tan + friction * cos, lam, keel


def savitsky(
    speed_m_s: ArrayLike,
    displacement_kg: ArrayLike,
    beam_m: float,
    deadrise_deg: float,
    lcg_m: ArrayLike,
    vcg_m: float = 0.3,
    thrust_height_m: float | None = None,
    thrust_angle_deg: float = 0.0,
    density_kg_m3: float = 1026.0,
    viscosity_m2_s: float = 1.19e-6,
    roughness: float = ROUGHNESS,
    spray: bool = False,
) -> Planing:
    """Resistance and trim of a prismatic planing hull; speed, displacement and lcg broadcast.

    Units: m/s, kg, m, degrees; `lcg_m` forward of the transom, heights above the keel; the thrust
    acts through the centre of gravity unless `thrust_height_m` is given, at `thrust_angle_deg` to
    the keel. With `spray` friction is taken at the mean bottom velocity and the whisker spray is
    added. Valid for C_v 0.6–13, trim 2–15°, λ ≤ 4; outside the formulas are carried on. Where no
    trim balances, the nearest end of 0.6–24° is taken. Source: Savitsky 1964, eqs. 3, 15, 16, 21.

    >>> p = savitsky(20.58, 27216, 4.27, 10, 8.84, vcg_m=0.61)
    >>> 1.9 < float(p.trim_deg) < 2.6
    True
    """
    v, mass, lcg = np.broadcast_arrays(
        *(np.asarray(x, dtype=float) for x in (speed_m_s, displacement_kg, lcg_m))
    )
    boat = _Boat(
        beam_m,
        deadrise_deg,
        lcg[..., None],
        vcg_m,
        vcg_m if thrust_height_m is None else thrust_height_m,
        thrust_angle_deg,
        density=density_kg_m3,
        viscosity=viscosity_m2_s,
        roughness=roughness,
        wet=spray,
    )
    weight = mass[..., None] * G_M_S2
    moment = _balance(boat, v[..., None], weight, np.broadcast_to(_TRIMS, (*v.shape, _TRIMS.size)))[
        0
    ]
    low = np.clip(np.argmax(moment < 0, axis=-1) - 1, 0, _TRIMS.size - 2)
    low = np.where(np.all(moment > 0, axis=-1), _TRIMS.size - 2, low)[..., None]
    t0, t1 = _TRIMS[low], _TRIMS[low + 1]
    m0, m1 = np.take_along_axis(moment, low, -1), np.take_along_axis(moment, low + 1, -1)
    for _ in range(3):
        trim = np.clip(t0 - m0 * (t1 - t0) / np.where(m1 == m0, 1.0, m1 - m0), t0, t1)
        m, drag, lam, keel = _balance(boat, v[..., None], weight, trim)
        above = m > 0
        t0, m0 = np.where(above, trim, t0), np.where(above, m, m0)
        t1, m1 = np.where(above, t1, trim), np.where(above, m1, m)
    return Planing(drag[..., 0], trim[..., 0], lam[..., 0], keel[..., 0])
