"""A setup's resistance against what its propulsor gives: thrust, power limit, hump."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property, partial

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.propulsor import Propulsor
from jolvek.core.hydro.resistance import Resistance
from jolvek.core.predict.drag import drag_n
from jolvek.core.predict.hump import HUMP_MARGIN, PLANING_FROUDE, planing_power_w
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import limited_power_w


@dataclass(frozen=True)
class Driven:
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

    @cached_property
    def static_thrust_n(self) -> float:
        """Thrust at rest, or less where pitch allows no more."""
        p, rho = self.propulsor, self.setup.water.density_kg_m3
        at_rest = p.drive.thrust_n(self.limit_w, 0.0, rho)
        return float(min(at_rest, self.room_n(0.0)))

    @cached_property
    def planing_power_w(self) -> float | None:
        """Power that gets her over the hump; None for hulls that do not plane."""
        s, r = self.setup, self.resistance
        return planing_power_w(r, s.displacement_kg, self.propulsor, partial(drag_n, s, r))

    def drag_n(self, v: ArrayLike) -> Array:
        """Resistance in N at speeds through the water; negative where the wind drives her."""
        return drag_n(self.setup, self.resistance, v)

    def needed(self, v: Array) -> tuple[Array, Array]:
        """Thrust in N and power in W that speeds take."""
        thrust = np.maximum(self.drag_n(v), 1e-6)
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

    @cached_property
    def _edge_m_s(self) -> float:
        return float(self.resistance.planing_speed_m_s(self.setup.displacement_kg, PLANING_FROUDE))

    @cached_property
    def hump_margin(self) -> float | None:
        """Thrust to spare over the hump as a share of resistance; None for hulls that do not
        plane.
        """
        if not self.resistance.planing_capable:
            return None
        v = np.linspace(0.45, 1.0, 60) * self._edge_m_s
        available = np.minimum(self.available_n(v), self.room_n(v))
        return float(np.min(available / self.needed(v)[0])) - 1

    def planes(self, top_m_s: float) -> bool:
        """Whether she gets over the hump with some thrust to spare and on to where it lies behind
        her.
        """
        margin = self.hump_margin
        return margin is not None and margin >= HUMP_MARGIN and top_m_s >= self._edge_m_s
