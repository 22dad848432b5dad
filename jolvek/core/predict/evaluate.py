"""A setup worked out: its curve, its top speed, its knee, whether it planes."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, lru_cache, partial

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.base.told import tell
from jolvek.core.hydro.floating import float_at, hull_speed_m_s
from jolvek.core.hydro.propulsor import Propulsor
from jolvek.core.hydro.resistance import Resistance, remembered_table
from jolvek.core.predict.drag import drag_n
from jolvek.core.predict.hump import HUMP_MARGIN, PLANING_FROUDE, planing_power_w
from jolvek.core.predict.performance import Performance, Point
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import limited_power_w

KNEE_EXPONENT = 4.0


_POINTS = 150


def _knee(speed: Array, power: Array, limit_w: float, top_m_s: float) -> Point:
    """First point where d ln P / d ln V ≥ 4, averaged over ±14 % of speed."""
    grid = np.linspace(np.log(speed[0]), np.log(speed[-1]), 160)
    log_p = np.interp(grid, np.log(speed), np.log(np.maximum(power, 1e-9)))
    reach = max(1, int(round(0.14 / (grid[1] - grid[0]))))
    slope = (log_p[2 * reach :] - log_p[: -2 * reach]) / (grid[2 * reach :] - grid[: -2 * reach])
    at = np.exp(grid[reach:-reach])
    p_at = np.exp(log_p[reach:-reach])
    steep = (slope >= KNEE_EXPONENT) & (p_at > 0.03 * limit_w)
    i = int(np.argmax(steep))
    if not steep[i] or at[i] > top_m_s:
        return Point(None, None, reason=tell("not reached with this power: speed is still cheap"))
    return Point(float(p_at[i]), float(at[i]))


def _with_hump(
    speed: Array, thrust: Array, power: Array, margin_power: Array, edge: float
) -> tuple[Array, Array]:
    """(thrust, power) needed where a hump must be climbed with 10 % to spare before what lies
    beyond it.
    """
    below = speed <= edge
    h = int(np.argmax(np.where(below, power, 0.0)))
    thrust, power = thrust.copy(), power.copy()
    if h + 1 < power.size and (power[h + 1 :] < power[h]).any():
        power[h + 1 :] = np.maximum(power[h + 1 :], margin_power[h])
        thrust[h + 1 :] = np.maximum(thrust[h + 1 :], (1 + HUMP_MARGIN) * thrust[h])
    return thrust, power


def _top(
    speed: Array, needed: Array, thrust: Array, room: Array, limit_w: float, lug_n: float
) -> tuple[float, str]:
    """Top speed from rest and what sets it: where power, pitch or torque runs out first."""
    by_power, by_pitch = needed / limit_w, thrust / np.maximum(room, 1e-9)
    over = np.maximum.accumulate(np.maximum(by_power, by_pitch))
    if over[-1] <= 1:
        return float(speed[-1]), "power"
    i = int(np.argmax(over > 1))
    by = "torque" if room[i] >= lug_n else "pitch"
    by = by if by_pitch[i] > by_power[i] else "power"
    if i == 0:
        return float(speed[0] * np.cbrt(1 / over[0])), by
    lo, hi = np.cbrt(over[i - 1]), np.cbrt(over[i])
    return float(speed[i - 1] + (1 - lo) / (hi - lo) * (speed[i] - speed[i - 1])), by


def evaluate(
    setup: Setup, resistance: Resistance | None = None, voltage_v: float | None = None
) -> Performance:
    """Work out a setup. A `resistance` table made for the same hull and water may be handed in.

    Valid in deep, calm water; `doubt` tells how far it may be off. Raises nothing for odd boats:
    findings say it.

    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.products.motor import Motor
    >>> p = evaluate(Setup(Hull("inflatable_soft", 2.9, 1.5, 32), Load(2, 160, 5), Motor(1100)))
    >>> 3.6 < p.top_speed_m_s / 0.514444 < 4.5
    True
    """
    mass, rho = setup.displacement_kg, setup.water.density_kg_m3
    if resistance is None:
        resistance = remembered_table(setup.hull, setup.water, float(mass), setup.load)
    d = _Drive(setup, resistance, setup.motor.propulsor(rho, setup.hull.efficiency_factor))
    speed = np.linspace(0.03, 1.0, _POINTS) * d.fastest_m_s
    thrust, power = d.needed(speed)
    climb, from_rest = thrust, power
    if resistance.planing_capable:
        margin_power = d.power_w((1 + HUMP_MARGIN) * thrust, speed)
        edge = resistance.planing_speed_m_s(mass, PLANING_FROUDE)
        climb, from_rest = _with_hump(speed, thrust, power, margin_power, edge)
    top, by = _top(speed, from_rest, climb, d.room_n(speed), d.limit_w, d.propulsor.lug_n)
    if by == "power" and d.limit_w < setup.motor.input_power_w:
        by = "controller"
    margin, planes = d.planing(top)
    return Performance(
        setup,
        resistance,
        d.propulsor,
        speed,
        thrust,
        power,
        np.maximum.accumulate(from_rest),
        d.limit_w,
        top,
        by,
        float(hull_speed_m_s(setup.hull.waterline_m)),
        _knee(speed, power, d.limit_w, top),
        planes,
        d.planing_power_w,
        margin,
        d.static_thrust_n,
        mass,
        float(float_at(setup.hull, mass, rho).draught_m),
    )


evaluated = lru_cache(maxsize=256)(evaluate)  # remembered by what the setup is made of


@dataclass(frozen=True)
class _Drive:
    """A setup's resistance against what its propulsor gives."""

    setup: Setup
    resistance: Resistance
    propulsor: Propulsor

    @cached_property
    def limit_w(self) -> float:
        """Most power that motor, controller and bank let through."""
        bank, motor = self.setup.bank, self.setup.motor
        return limited_power_w(motor, bank.nominal_v if bank else motor.voltage_v)

    @cached_property
    def fastest_m_s(self) -> float:
        """End of the grid of speeds: past what a third more than the power limit would reach."""
        fastest = float(np.exp(self.resistance.log_speed[-1]))
        coarse = np.linspace(0.05, 1.0, 60) * fastest
        over = np.maximum.accumulate(self.needed(coarse)[1]) > self.limit_w * 1.3
        return float(coarse[int(np.argmax(over))]) if over.any() else fastest

    @property
    def static_thrust_n(self) -> float:
        """Thrust at rest, or less where pitch allows no more."""
        p, rho = self.propulsor, self.setup.water.density_kg_m3
        at_rest = p.drive.thrust_n(self.limit_w, 0.0, rho)
        return float(min(at_rest, self.room_n(0.0)))

    @property
    def planing_power_w(self) -> float | None:
        """Power that gets her over the hump; None for hulls that do not plane."""
        s, r = self.setup, self.resistance
        return planing_power_w(r, s.displacement_kg, self.propulsor, partial(drag_n, s, r))

    def needed(self, v: Array) -> tuple[Array, Array]:
        """Thrust in N and power in W that speeds take."""
        thrust = np.maximum(drag_n(self.setup, self.resistance, v), 1e-6)
        return thrust, self.power_w(thrust, v)

    def power_w(self, thrust: Array, v: Array) -> Array:
        """Power in W for a thrust at a speed."""
        p = self.propulsor
        rho = self.setup.water.density_kg_m3
        return p.drive.power_w(thrust, v, rho)

    def room_n(self, v: ArrayLike) -> Array:
        """Thrust in N that pitch and torque allow."""
        return self.propulsor.room_n(v, self.setup.water.density_kg_m3)

    def available_n(self, v: Array) -> Array:
        """Thrust in N at the power limit, pitch or no pitch."""
        p = self.propulsor
        rho = self.setup.water.density_kg_m3
        return p.drive.thrust_n(self.limit_w, v, rho)

    def planing(self, top_m_s: float) -> tuple[float | None, bool]:
        """Thrust to spare over the hump as a share of resistance, and whether she planes."""
        if not self.resistance.planing_capable:
            return None, False
        edge = self.resistance.planing_speed_m_s(self.setup.displacement_kg, PLANING_FROUDE)
        v = np.linspace(0.45, 1.0, 60) * edge
        available = np.minimum(self.available_n(v), self.room_n(v))
        margin = float(np.min(available / self.needed(v)[0])) - 1
        return margin, margin >= HUMP_MARGIN and top_m_s >= edge
