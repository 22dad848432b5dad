"""What a setup does on the water: power, time and range over speed, the knee, planing, and the
doubt.

Power at a speed is explicit (resistance is the thrust, thrust and speed give power); speed at a
power is read back from that curve. What a boat reaches from rest is bounded by the dearest speed on
the way, so the power needed is carried as a running maximum: a hump not climbed is not passed.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np
from numpy.typing import ArrayLike, NDArray

from jolvek.core.electric.bank import current_a, runtime_s
from jolvek.core.hydro.hull import float_at, hull_speed_m_s
from jolvek.core.hydro.propulsor import (
    Propulsor,
    pitch_limited_thrust_n,
    power_for_thrust_w,
    shaft_speed_rev_s,
    static_thrust_n,
    thrust_at_power_n,
)
from jolvek.core.hydro.resistance import Resistance, table, total_n
from jolvek.core.predict.hump import HUMP_MARGIN, PLANING_FROUDE, planing_power_w
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import limited_power_w

Array = NDArray[np.float64]
BAND = 0.12  # of speed, untried; from the residuals against speeds on the water
KNEE_EXPONENT = 4.0
_POINTS = 150


@dataclass(frozen=True)
class Point:
    """One way of running: SI; None where it cannot be, with the reason."""

    power_w: float | None
    speed_m_s: float | None
    current_a: float | None = None
    runtime_s: float | None = None
    range_m: float | None = None
    thrust_n: float | None = None
    reason: str = ""


@dataclass(frozen=True)
class Performance:
    """A setup worked out over a grid of speeds through the water (N,), all arrays of that shape."""

    setup: Setup
    resistance: Resistance
    propulsor: Propulsor
    speed_m_s: Array
    thrust_n: Array
    power_w: Array  # needed at that speed
    power_from_rest_w: Array  # running maximum of it
    power_limit_w: float
    top_speed_m_s: float
    limited_by: str  # power | pitch | controller
    hull_speed_m_s: float
    knee: Point
    planes: bool
    planing_power_w: float | None
    hump_margin: float | None  # thrust to spare over the hump, share of resistance
    static_thrust_n: float
    displacement_kg: float
    draught_m: float
    band: float = BAND

    def at_speed(self, speed_m_s: float) -> Point:
        """What a speed through the water (m/s) takes and how long and far it lasts."""
        if speed_m_s <= 0:
            return Point(None, speed_m_s, reason="a speed above zero is needed")
        if speed_m_s > self.top_speed_m_s * (1 + 1e-9):
            why = (
                "the propeller runs out of pitch"
                if self.limited_by == "pitch"
                else f"{self.power_limit_w:.0f} W is not enough"
            )
            return Point(
                None,
                speed_m_s,
                reason=f"beyond the top speed of {self.top_speed_m_s:.2f} m/s: {why}",
            )
        return self._point(
            float(self.power_at_w(speed_m_s)), speed_m_s, float(self._thrust(speed_m_s))
        )

    def power_at_w(self, speed_m_s: ArrayLike) -> Array:
        """Input power in W for speeds through the water in m/s (any shape); NaN beyond the top
        speed.
        """
        speed = np.asarray(speed_m_s, dtype=float)
        power = power_for_thrust_w(
            self._thrust(speed),
            speed,
            self.propulsor.diameter_m,
            self.propulsor.loss_factor,
            self.setup.water.density_kg_m3,
        )
        return np.where(
            speed <= self.top_speed_m_s * (1 + 1e-9), np.minimum(power, self.power_limit_w), np.nan
        )

    def at_power(self, power_w: float) -> Point:
        """What an input power (W) gives."""
        if not 0 < power_w:
            return Point(power_w, None, reason="a power above zero is needed")
        if power_w > self.power_limit_w * (1 + 1e-9):
            return Point(
                power_w,
                None,
                reason=f"more than the {self.power_limit_w:.0f} W that this setup can give",
            )
        speed = float(self.speed_at_w(power_w))
        if speed <= self.speed_m_s[0] * 1.001 and self.power_from_rest_w[0] > power_w:
            return (
                Point(power_w, 0.0, reason="not enough to make way against the wind")
                if self.setup.wind_m_s
                else self._point(power_w, speed, float(self._thrust(speed)))
            )
        point = self._point(power_w, speed, float(self._thrust(speed)))
        if speed >= self.top_speed_m_s * (1 - 1e-9) and self.limited_by == "pitch":
            return replace(
                point, reason="the propeller runs out of pitch before all this power is used"
            )
        return point

    def speed_at_w(self, power_w: ArrayLike) -> Array:
        """Speed in m/s reached from rest with an input power in W (any shape)."""
        p = np.asarray(power_w, dtype=float)
        safe = np.maximum(p, 1e-6)
        first = np.maximum(self.power_from_rest_w[0], 1e-9)
        low = self.speed_m_s[0] * np.cbrt(np.minimum(safe / first, 1.0))
        return np.asarray(
            np.where(
                p < first,
                low,
                np.minimum(
                    _inverse(self.power_from_rest_w, self.speed_m_s, safe), self.top_speed_m_s
                ),
            )
        )

    def curve(self, points: int = 60) -> dict[str, Array]:
        """Arrays over powers from 3 % to 100 %: power_w, speed_m_s, current_a, runtime_s,
        range_m.
        """
        power = np.linspace(0.03, 1.0, points) * self.power_limit_w
        speed = self.speed_at_w(power)
        out = {"power_w": power, "speed_m_s": speed}
        if self.setup.bank:
            out["current_a"] = current_a(self.setup.bank, power)
            out["runtime_s"] = self._runtime_s(power)
            out["range_m"] = np.maximum(speed - self.setup.current_m_s, 0.0) * out["runtime_s"]
        return out

    def shaft_rpm(self, speed_m_s: ArrayLike) -> Array:
        """Propeller speed in rev/min at steady speeds (any shape), on the B-series curve."""
        p = self.propulsor
        return 60 * shaft_speed_rev_s(
            self._thrust(speed_m_s),
            speed_m_s,
            p.diameter_m,
            p.pitch_m,
            self.setup.water.density_kg_m3,
        )

    def slip(self, speed_m_s: ArrayLike) -> Array:
        """Slip 1 − V/(p n) at steady speeds (any shape)."""
        n = self.shaft_rpm(speed_m_s) / 60
        return np.asarray(1 - np.asarray(speed_m_s) / (self.propulsor.pitch_m * n))

    def efficiency(self, speed_m_s: ArrayLike) -> Array:
        """Propulsive efficiency T V / P at steady speeds (any shape)."""
        v, t = np.asarray(speed_m_s, dtype=float), self._thrust(speed_m_s)
        return np.asarray(
            t
            * v
            / power_for_thrust_w(
                t,
                v,
                self.propulsor.diameter_m,
                self.propulsor.loss_factor,
                self.setup.water.density_kg_m3,
            )
        )

    def thrust_available_n(self, speed_m_s: ArrayLike) -> Array:
        """Thrust in N at the power limit, or less where pitch allows no more."""
        rho, p = self.setup.water.density_kg_m3, self.propulsor
        return np.asarray(
            np.minimum(
                thrust_at_power_n(self.power_limit_w, speed_m_s, p.diameter_m, p.loss_factor, rho),
                pitch_limited_thrust_n(speed_m_s, p.diameter_m, p.pitch_m, p.shaft_rev_s, rho),
            )
        )

    def _thrust(self, speed_m_s: ArrayLike) -> Array:
        return np.maximum(
            total_n(
                self.resistance,
                speed_m_s,
                self.displacement_kg,
                self.setup.wind_m_s,
                self.setup.motor.leg_area_m2,
            ),
            0.0,
        )

    def _runtime_s(self, power_w: ArrayLike) -> Array:
        assert self.setup.bank is not None
        seconds = runtime_s(self.setup.bank, power_w, self.setup.reserve, self._lowest_v())
        return np.maximum(seconds - self.setup.keep_s, 0.0)

    def _lowest_v(self) -> float:
        bank = self.setup.bank
        return (
            min(self.setup.motor.window_v(bank.nominal_v)[0], bank.nominal_v * 0.97)
            if bank
            else 0.0
        )

    def _point(self, power: float, speed: float, thrust: float) -> Point:
        bank, motor = self.setup.bank, self.setup.motor
        if bank is None:
            amps = power / motor.voltage_v if motor.voltage_v else None
            return Point(power, speed, amps, None, None, thrust)
        seconds = float(self._runtime_s(power))
        way = max(speed - self.setup.current_m_s, 0.0)
        reason = (
            "the current is as fast as the boat: no way made good"
            if way == 0 and self.setup.current_m_s > 0
            else ""
        )
        return Point(
            power, speed, float(current_a(bank, power)), seconds, way * seconds, thrust, reason
        )


def _inverse(power: Array, speed: Array, wanted: ArrayLike) -> Array:
    """Speed where a non-decreasing power curve first reaches `wanted`, interpolated on cube
    roots.
    """
    rising = np.concatenate(([True], power[1:] > np.maximum.accumulate(power)[:-1]))
    return np.asarray(np.interp(np.cbrt(wanted), np.cbrt(power[rising]), speed[rising]))


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
