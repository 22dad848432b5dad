"""A setup worked out: its curve, its top speed, its knee, whether it planes."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.floating import float_at, hull_speed_m_s
from jolvek.core.hydro.propulsor import (
    pitch_limited_thrust_n,
    power_for_thrust_w,
    static_thrust_n,
    thrust_at_power_n,
)
from jolvek.core.hydro.resistance import Resistance, table, total_n
from jolvek.core.predict.hump import HUMP_MARGIN, PLANING_FROUDE, planing_power_w
from jolvek.core.predict.performance import Performance, Point
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import limited_power_w

KNEE_EXPONENT = 4.0


_POINTS = 150


def _knee(speed: Array, power: Array, limit_w: float) -> Point:
    """First point where d ln P / d ln V ≥ 4, averaged over ±14 % of speed."""
    grid = np.linspace(np.log(speed[0]), np.log(speed[-1]), 160)
    log_p = np.interp(grid, np.log(speed), np.log(np.maximum(power, 1e-9)))
    reach = max(1, int(round(0.14 / (grid[1] - grid[0]))))
    slope = (log_p[2 * reach :] - log_p[: -2 * reach]) / (grid[2 * reach :] - grid[: -2 * reach])
    at = np.exp(grid[reach:-reach])
    p_at = np.exp(log_p[reach:-reach])
    steep = (slope >= KNEE_EXPONENT) & (p_at > 0.03 * limit_w)
    if not steep.any():
        return Point(None, None, reason="not reached with this power: speed is still cheap")
    i = int(np.argmax(steep))
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
    speed: Array, needed: Array, thrust: Array, room: Array, limit_w: float
) -> tuple[float, str]:
    """Top speed from rest and what sets it: the first speed where power or pitch runs out."""
    by_power, by_pitch = needed / limit_w, thrust / np.maximum(room, 1e-9)
    over = np.maximum.accumulate(np.maximum(by_power, by_pitch))
    if over[-1] <= 1:
        return float(speed[-1]), "power"
    i = int(np.argmax(over > 1))
    by = "pitch" if by_pitch[i] > by_power[i] else "power"
    if i == 0:
        return float(speed[0] * np.cbrt(1 / over[0])), by
    lo, hi = np.cbrt(over[i - 1]), np.cbrt(over[i])
    return float(speed[i - 1] + (1 - lo) / (hi - lo) * (speed[i] - speed[i - 1])), by


remembered_table = lru_cache(maxsize=64)(
    table
)  # the same boat is asked for many winds, batteries and days


def evaluate(
    setup: Setup, resistance: Resistance | None = None, voltage_v: float | None = None
) -> Performance:
    """Work out a setup. A `resistance` table made for the same hull and water may be handed in.

    Valid in deep, calm water; the doubt is `band` of speed. Raises nothing for odd boats: findings
    say it.

    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.products.motor import Motor
    >>> p = evaluate(Setup(Hull("inflatable_soft", 2.9, 1.5, 32), Load(2, 160, 5), Motor(1100)))
    >>> 3.6 < p.top_speed_m_s / 0.514444 < 4.5
    True
    """
    mass, rho = setup.displacement_kg, setup.water.density_kg_m3
    if resistance is None:
        resistance = remembered_table(setup.hull, setup.water, float(mass), setup.load.people)
    prop = setup.motor.propulsor(rho)
    volts = setup.bank.nominal_v if setup.bank else setup.motor.voltage_v
    limit = limited_power_w(setup.motor, volts)
    fastest = float(np.exp(resistance.log_speed[-1]))
    coarse = np.linspace(0.05, 1.0, 60) * fastest

    def needed(v: Array) -> tuple[Array, Array]:
        thrust = np.maximum(
            total_n(resistance, v, mass, setup.wind_m_s, setup.motor.leg_area_m2), 1e-6
        )
        return thrust, power_for_thrust_w(thrust, v, prop.diameter_m, prop.loss_factor, rho)

    over = np.maximum.accumulate(needed(coarse)[1]) > limit * 1.3
    end = float(coarse[int(np.argmax(over))]) if over.any() else fastest
    speed = np.linspace(0.03, 1.0, _POINTS) * end
    thrust, power = needed(speed)
    room = pitch_limited_thrust_n(speed, prop.diameter_m, prop.pitch_m, prop.shaft_rev_s, rho)
    climb, from_rest = thrust, power
    if resistance.planing_capable:
        margin_power = power_for_thrust_w(
            (1 + HUMP_MARGIN) * thrust, speed, prop.diameter_m, prop.loss_factor, rho
        )
        climb, from_rest = _with_hump(
            speed, thrust, power, margin_power, resistance.planing_speed_m_s(mass, PLANING_FROUDE)
        )
    top, by = _top(speed, from_rest, climb, room, limit)
    if by == "power" and limit < setup.motor.input_power_w:
        by = "controller"
    knee = _knee(speed, power, limit)
    if knee.speed_m_s is not None and knee.speed_m_s > top:
        knee = Point(None, None, reason="not reached with this power: speed is still cheap")
    margin = None
    planes = False
    if resistance.planing_capable:
        edge = resistance.planing_speed_m_s(mass, PLANING_FROUDE)
        v = np.linspace(0.45, 1.0, 60) * edge
        available = np.minimum(
            thrust_at_power_n(limit, v, prop.diameter_m, prop.loss_factor, rho),
            pitch_limited_thrust_n(v, prop.diameter_m, prop.pitch_m, prop.shaft_rev_s, rho),
        )
        margin = float(np.min(available / needed(v)[0])) - 1
        planes = margin >= HUMP_MARGIN and top >= edge
    floating = float_at(setup.hull, mass, rho)
    return Performance(
        setup,
        resistance,
        prop,
        speed,
        thrust,
        power,
        np.maximum.accumulate(from_rest),
        limit,
        top,
        by,
        float(hull_speed_m_s(setup.hull.waterline_m)),
        knee,
        planes,
        planing_power_w(resistance, mass, prop, setup.motor.leg_area_m2, setup.wind_m_s),
        margin,
        float(
            min(
                static_thrust_n(limit, prop.diameter_m, prop.loss_factor, rho),
                pitch_limited_thrust_n(0.0, prop.diameter_m, prop.pitch_m, prop.shaft_rev_s, rho),
            )
        ),
        mass,
        float(floating.draught_m),
    )
