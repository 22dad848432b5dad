"""What a setup does on the water: power, time and range over speed, the knee, planing, and the
doubt.

Power at a speed is explicit (resistance is the thrust, thrust and speed give power); speed at a
power is read back from that curve. What a boat reaches from rest is bounded by the dearest speed on
the way, so the power needed is carried as a running maximum: a hump not climbed is not passed.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.base.messages import msg
from jolvek.core.electric.bank import current_a, runtime_s
from jolvek.core.hydro.floating import float_at, hull_speed_m_s
from jolvek.core.hydro.propulsor import Propulsor, shaft_speed_rev_s
from jolvek.core.hydro.resistance import Resistance
from jolvek.core.predict.driven import Driven
from jolvek.core.predict.knee import knee
from jolvek.core.predict.setup import Setup

DRIFT_W = 1.0  # less than any controller gives: no power is used


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


@dataclass(frozen=True, eq=False)
class Performance:
    """A setup worked out over a grid of speeds through the water (N,), all arrays of that shape.

    Two are equal only where they are one and the same: what follows from it is remembered so.
    """

    driven: Driven
    speed_m_s: Array
    thrust_n: Array
    power_w: Array  # needed at that speed
    power_from_rest_w: Array  # running maximum of it
    power_limit_w: float
    top_speed_m_s: float
    limited_by: str  # power | pitch | torque | controller

    @property
    def setup(self) -> Setup:
        """What was worked out."""
        return self.driven.setup

    @property
    def resistance(self) -> Resistance:
        """The resistance of its hull."""
        return self.driven.resistance

    @property
    def propulsor(self) -> Propulsor:
        """Its motor and propeller."""
        return self.driven.propulsor

    @property
    def displacement_kg(self) -> float:
        """Boat, load and setup."""
        return float(self.setup.displacement_kg)

    @property
    def draught_m(self) -> float:
        """Draught, level, without a keel."""
        s = self.setup
        return float(float_at(s.hull, s.displacement_kg, s.water.density_kg_m3).draught_m)

    @property
    def hull_speed_m_s(self) -> float:
        """The speed of a wave as long as the waterline."""
        return float(hull_speed_m_s(self.setup.hull.waterline_m))

    @property
    def static_thrust_n(self) -> float:
        """Thrust at rest."""
        return self.driven.static_thrust_n

    @property
    def planing_power_w(self) -> float | None:
        """Power that gets her over the hump; None for hulls that do not plane."""
        return self.driven.planing_power_w

    @property
    def hump_margin(self) -> float | None:
        """Thrust to spare over the hump, a share of resistance; None for hulls that do not
        plane.
        """
        return self.driven.hump_margin

    @property
    def planes(self) -> bool:
        """Whether she gets on the plane and stays there."""
        return self.driven.planes(self.top_speed_m_s)

    @cached_property
    def knee(self) -> Point:
        """Where each further bit of speed starts to cost four times its share of power."""
        found = knee(self.speed_m_s, self.power_w, self.power_limit_w, self.top_speed_m_s)
        if found is None:
            why = msg("not reached with this power: speed is still cheap")
            return Point(None, None, reason=why)
        return Point(*found)

    def at_speed(self, speed_m_s: float) -> Point:
        """What a speed through the water (m/s) takes and how long and far it lasts."""
        if speed_m_s <= 0:
            return Point(None, speed_m_s, reason=msg("a speed above zero is needed"))
        if speed_m_s > self.top_speed_m_s * (1 + 1e-9):
            why = {
                "pitch": msg("the propeller’s pitch limits the speed"),
                "torque": msg("the motor cannot turn the propeller faster"),
            }.get(
                self.limited_by,
                msg("%(power)s W is not enough", power=f"{self.power_limit_w:.0f}"),
            )
            return Point(
                None,
                speed_m_s,
                reason=msg(
                    "beyond the top speed of %(top)s m/s: %(why)s",
                    top=f"{self.top_speed_m_s:.2f}",
                    why=why,
                ),
            )
        thrust = self.drag_at_n(speed_m_s)
        return self._point(float(self._takes_w(thrust, speed_m_s)), speed_m_s, float(thrust))

    def _takes_w(self, thrust_n: Array, speed_m_s: ArrayLike) -> Array:
        rho = self.setup.water.density_kg_m3
        power = self.propulsor.drive.power_w(thrust_n, speed_m_s, rho)
        return np.asarray(np.minimum(power, self.power_limit_w))

    def power_at_w(self, speed_m_s: ArrayLike) -> Array:
        """Input power in W for speeds through the water in m/s (any shape); NaN beyond the top
        speed.
        """
        speed = np.asarray(speed_m_s, dtype=float)
        power = self._takes_w(self.drag_at_n(speed), speed)
        return np.where(speed <= self.top_speed_m_s * (1 + 1e-9), power, np.nan)

    def at_power(self, power_w: float) -> Point:
        """What an input power (W) gives."""
        if not 0 < power_w:
            return Point(power_w, None, reason=msg("a power above zero is needed"))
        if power_w > self.power_limit_w * (1 + 1e-9):
            return Point(
                power_w,
                None,
                reason=msg(
                    "more than the %(power_limit)s W that this setup can give",
                    power_limit=f"{self.power_limit_w:.0f}",
                ),
            )
        speed = float(self.speed_at_w(power_w))
        if speed <= self.speed_m_s[0] * 1.001 and self.power_from_rest_w[0] > power_w:
            return (
                Point(power_w, 0.0, reason=msg("not enough to make way against the wind"))
                if self.setup.wind_m_s
                else self._point(power_w, speed, float(self.drag_at_n(speed)))
            )
        point = self._point(power_w, speed, float(self.drag_at_n(speed)))
        if speed >= self.top_speed_m_s * (1 - 1e-9) and self.limited_by == "pitch":
            return replace(
                point, reason="the propeller’s pitch limits the speed before all this power is used"
            )
        return point

    def speed_at_w(self, power_w: ArrayLike) -> Array:
        """Speed in m/s reached from rest with an input power in W (any shape)."""
        p = np.asarray(power_w, dtype=float)
        safe = np.maximum(p, 1e-6)
        first = np.maximum(self.power_from_rest_w[0], 1e-9)
        idle = min(self.propulsor.idle_w, 0.99 * float(first))
        low = self.speed_m_s[0] * np.cbrt(np.clip((safe - idle) / (first - idle), 0.0, 1.0))
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
            out["runtime_s"] = self.runtime_at_s(power)
            out["range_m"] = np.maximum(speed - self.setup.current_m_s, 0.0) * out["runtime_s"]
        return out

    def shaft_rpm(self, speed_m_s: ArrayLike) -> Array:
        """Propeller speed in rev/min at steady speeds (any shape), on the B-series curve."""
        p = self.propulsor
        return 60 * shaft_speed_rev_s(
            self.drag_at_n(speed_m_s),
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
        v, t = np.asarray(speed_m_s, dtype=float), self.drag_at_n(speed_m_s)
        power = self.propulsor.drive.power_w(t, v, self.setup.water.density_kg_m3)
        return np.asarray(t * v / np.maximum(power, 1e-9))

    def thrust_available_n(self, speed_m_s: ArrayLike) -> Array:
        """Thrust in N at the power limit, or less where pitch or torque allow no more."""
        rho, p = self.setup.water.density_kg_m3, self.propulsor
        return np.asarray(
            np.minimum(
                p.drive.thrust_n(self.power_limit_w, speed_m_s, rho), p.room_n(speed_m_s, rho)
            )
        )

    def drag_at_n(self, speed_m_s: ArrayLike) -> Array:
        """Resistance in N, no less than 0, at speeds through the water (any shape)."""
        return np.maximum(self.driven.drag_n(speed_m_s), 0.0)

    def runtime_at_s(self, power_w: ArrayLike) -> Array:
        """Seconds that the bank gives a power in W (any shape), with the reserve kept."""
        s = self.setup
        assert s.bank is not None
        seconds = runtime_s(s.bank, power_w, s.reserve, self._lowest_v(), s.start_charge)
        return np.maximum(seconds - s.keep_s, 0.0)

    def _lowest_v(self) -> float:
        bank = self.setup.bank
        return (
            min(self.setup.motor.window_v(bank.nominal_v)[0], bank.nominal_v * 0.97)
            if bank
            else 0.0
        )

    def _point(self, power: float, speed: float, thrust: float) -> Point:
        bank, motor = self.setup.bank, self.setup.motor
        if power < DRIFT_W and self.setup.wind_m_s < 0:
            return Point(0.0, speed, 0.0, None, None, 0.0, reason=msg("the wind alone drives it"))
        if bank is None:
            amps = power / motor.voltage_v if motor.voltage_v else None
            return Point(power, speed, amps, None, None, thrust)
        seconds = float(self.runtime_at_s(power))
        way = max(speed - self.setup.current_m_s, 0.0)
        reason = (
            msg("the current is as fast as the boat: no way made good")
            if way == 0 and self.setup.current_m_s > 0
            else ""
        )
        return Point(
            power,
            speed,
            float(current_a(bank, power)),
            seconds,
            way * seconds,
            thrust,
            reason=reason,
        )


def _inverse(power: Array, speed: Array, wanted: ArrayLike) -> Array:
    """Speed where a non-decreasing power curve first reaches `wanted`, interpolated on cube
    roots.
    """
    rising = np.concatenate(([True], power[1:] > np.maximum.accumulate(power)[:-1]))
    return np.asarray(np.interp(np.cbrt(wanted), np.cbrt(power[rising]), speed[rising]))
