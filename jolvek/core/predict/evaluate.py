"""A setup worked out: its curve and its top speed."""

from __future__ import annotations

from functools import lru_cache

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.resistance import Resistance, remembered_table
from jolvek.core.predict.driven import Driven
from jolvek.core.predict.hump import HUMP_MARGIN, PLANING_FROUDE
from jolvek.core.predict.performance import Performance
from jolvek.core.predict.setup import Setup

_POINTS = 150


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
    d = Driven(setup, resistance, setup.motor.propulsor(rho, setup.hull.efficiency_factor))
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
    return Performance(
        d,
        speed,
        thrust,
        power,
        np.maximum.accumulate(from_rest),
        d.limit_w,
        top_speed_m_s=top,
        limited_by=by,
    )


evaluated = lru_cache(maxsize=256)(evaluate)  # remembered by what the setup is made of
