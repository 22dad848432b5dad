"""The motor: input power, the voltage it may be given, its leg in the water, and its propulsor."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import ClassVar

import numpy as np

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.hydro.hull import Assumed
from jolvek.core.hydro.open_water import DRIVE_EFFICIENCY
from jolvek.core.hydro.propulsor import Propulsor, fit

STYLES = ("", "outboard", "pole", "fin", "pod")  # not told: an outboard
# C_d A in the water by style at a power in W, and the power of power it follows: small outboards
# hang on round tubes, large ones on faired legs; common practice, no source
LEGS: Mapping[str, tuple[float, float, float]] = {
    "outboard": (0.0060, 1000.0, -0.4),
    "pole": (0.0075, 500.0, 0.1),
    "fin": (0.0020, 400.0, 0.2),
    "pod": (0.0020, 2000.0, 0.3),
}
HORSEPOWER_W = 745.7
LEG_ENDS_M2 = (0.0012, 0.0085)
WINDOW = (0.85, 1.22)  # of nominal, where the maker gives none; common practice, no source


@dataclass(frozen=True)
class Motor:
    """One motor in SI; only the input power is needed. `rpm` is of the propeller at full power."""

    RANGES: ClassVar[checked.Ranges] = {
        "input_power_w": (20, 100000),
        "peak_power_w": (20, 200000),
        "voltage_v": (6, 400),
        "voltage_min_v": (3, 400),
        "voltage_max_v": (6, 500),
        "mass_kg": (0.5, 500),
        "shaft_length_m": (0.1, 2),
        "propeller_diameter_m": (0.08, 1),
        "propeller_pitch_m": (0.03, 1),
        "propeller_rpm": (100, 8000),
        "static_thrust_n": (1, 20000),
        "controller_max_a": (1, 3000),
        "idle_w": (0, 1000),
    }

    CHOICES: ClassVar[checked.Choices] = {"style": STYLES}

    input_power_w: float
    peak_power_w: float | None = None
    voltage_v: float | None = None
    voltage_min_v: float | None = None
    voltage_max_v: float | None = None
    mass_kg: float | None = None
    shaft_length_m: float | None = None
    propeller_diameter_m: float | None = None
    propeller_pitch_m: float | None = None
    propeller_rpm: float | None = None
    static_thrust_n: float | None = None
    controller_max_a: float | None = None
    idle_w: float | None = None  # taken while on, without turning the propeller
    style: str = ""
    ignition_protected: bool | None = None  # makes no spark that lights petrol vapour
    name: str = ""

    def __post_init__(self) -> None:
        checked.check(self, "motor")
        if self.peak_power_w is not None and self.peak_power_w < self.input_power_w:
            raise ValueRefused(
                "motor.peak_power_w",
                self.peak_power_w,
                msg(
                    "at least the input power, %(input_power)s",
                    input_power=f"{self.input_power_w:g}",
                ),
            )
        least, most = self.voltage_min_v, self.voltage_max_v
        if least is not None and most is not None and least >= most:
            raise ValueRefused("motor.voltage_max_v", most, f"more than voltage_min_v, {least:g}")

    @property
    def peak_w(self) -> float:
        """Highest input power, the continuous one where no peak is given."""
        return self.peak_power_w or self.input_power_w

    @property
    def shaft_hp(self) -> float:
        """What it gives at the shaft, in hp of 745.7 W.

        >>> round(Motor(1000).shaft_hp, 2)
        1.14
        """
        return DRIVE_EFFICIENCY * self.input_power_w / HORSEPOWER_W

    @property
    def weight_kg(self) -> float:
        """Mass, given or estimated: 5 kg + 6.5 kg per kW^0.9; common practice, no source."""
        return (
            self.mass_kg
            if self.mass_kg is not None
            else 5.0 + 6.5 * (self.input_power_w / 1000) ** 0.9
        )

    @property
    def leg_area_m2(self) -> float:
        """Drag area C_dA of the leg in the water, by style and power, without a step."""
        area, at_w, power = LEGS[self.style or "outboard"]
        return float(np.clip(area * (self.input_power_w / at_w) ** power, *LEG_ENDS_M2))

    def window_v(self, bank_nominal_v: float | None = None) -> tuple[float, float]:
        """Lowest and highest voltage allowed: given, or 0.85 to 1.22 of nominal (of the bank's, if
        unknown).
        """
        nominal = self.voltage_v or bank_nominal_v or 12.0
        return (
            self.voltage_min_v or WINDOW[0] * nominal,
            self.voltage_max_v or WINDOW[1] * nominal,
        )

    def propulsor(self, density_kg_m3: float = 1026.0, efficiency: float = 1.0) -> Propulsor:
        """Its propeller with missing data estimated; behind a hull that was tried, as good as that
        says.
        """
        made = fit(
            self.input_power_w,
            self.propeller_diameter_m,
            self.propeller_pitch_m,
            self.propeller_rpm,
            self.static_thrust_n,
            density_kg_m3,
            self.peak_w,
            self.idle_w,
        )
        return replace(made, loss_factor=made.loss_factor * efficiency)


def estimates(motor: Motor, bank_nominal_v: float | None = None) -> list[Assumed]:
    """What was taken for motor data that nobody gave.

    >>> [a.name for a in estimates(Motor(1000, voltage_v=24))]
    ['motor.mass_kg', 'motor.leg_area_m2', 'motor.voltage_window']
    """
    out = []
    if motor.mass_kg is None:
        out.append(Assumed("motor.mass_kg", round(motor.weight_kg, 1), msg("usual for this power")))
    why = msg("%(style)s, usual for this power", style=motor.style or "outboard")
    out.append(Assumed("motor.leg_area_m2", round(motor.leg_area_m2, 5), why))
    if (motor.voltage_v or bank_nominal_v) and None in (motor.voltage_min_v, motor.voltage_max_v):
        low, high = motor.window_v(bank_nominal_v)
        whose = msg("its nominal voltage") if motor.voltage_v else msg("the bank's nominal voltage")
        out.append(
            Assumed("motor.voltage_window", f"{low:.1f}–{high:.1f} V", f"0.85 to 1.22 of {whose}")
        )
    return out


def limited_power_w(
    motor: Motor, voltage_v: float | None, current_limit_a: float | None = None
) -> float:
    """Input power in W that controller and bank let through at a voltage; the smallest limit rules.

    >>> limited_power_w(Motor(2400, controller_max_a=80), 24.0, 100.0)
    1920.0
    """
    limits = [a for a in (motor.controller_max_a, current_limit_a) if a]
    return (
        float(np.min([motor.input_power_w, *(a * voltage_v for a in limits)]))
        if voltage_v
        else motor.input_power_w
    )
