"""Batteries: what each chemistry gives, how its voltage falls, and discharge at constant power in
time.

Defaults are common practice, no source, where no other source is named. A discharge is worked out
in ratios (power over rated energy, voltage over nominal), so that one curve serves every pack of a
chemistry.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.electric.chemistry import CHEMISTRIES, Chemistry, chemistry

# fmt: on


@dataclass(frozen=True)
class Battery:
    """One pack: nominal V, rated Ah, mass kg; limits in A and V where the maker gives them."""

    RANGES: ClassVar[checked.Ranges] = {
        "nominal_voltage_v": (3, 400),
        "capacity_ah": (0.5, 5000),
        "mass_kg": (0.05, 2000),
        "max_continuous_a": (0.5, 5000),
        "max_peak_a": (0.5, 20000),
        "full_voltage_v": (3, 500),
        "empty_voltage_v": (1, 400),
        "length_m": (0.02, 3),
        "width_m": (0.02, 3),
        "height_m": (0.02, 3),
        "bms_max_a": (0.5, 5000),
        "connector_max_a": (0.5, 5000),
        "max_series": (1, 16),
        "max_parallel": (1, 16),
    }
    CHOICES: ClassVar[checked.Choices] = {"chemistry": tuple(CHEMISTRIES)}

    chemistry: str
    nominal_voltage_v: float
    capacity_ah: float
    mass_kg: float | None = None
    max_continuous_a: float | None = None
    max_peak_a: float | None = None
    full_voltage_v: float | None = None
    empty_voltage_v: float | None = None
    length_m: float | None = None
    width_m: float | None = None
    height_m: float | None = None
    bms_max_a: float | None = None
    connector_max_a: float | None = None
    max_series: int | None = None  # that the maker allows to be joined
    max_parallel: int | None = None
    monitor: bool = False  # shows its own charge
    name: str = ""

    def __post_init__(self) -> None:
        checked.check(self, "battery")

    @cached_property
    def chem(self) -> Chemistry:
        """The row of the chemistry table."""
        return chemistry(self.chemistry)

    @property
    def energy_wh(self) -> float:
        """Rated energy: nominal voltage times capacity."""
        return self.nominal_voltage_v * self.capacity_ah

    @cached_property
    def full_v(self) -> float:
        """Voltage straight off the charger: given, by cells for lithium, resting for lead."""
        if self.full_voltage_v is not None:
            return self.full_voltage_v
        if self.chem.lithium:
            return self.cells * self.chem.cell_full_v
        return self.nominal_voltage_v * self.chem.full_ratio

    @cached_property
    def cells(self) -> int:
        """Cells in series, inferred from the label: a "24 V" LFP pack has 8, a "48 V" one 16, lead
        6 a 12 V block.
        """
        label, chem = self.nominal_voltage_v, self.chem
        if chem.id == "lfp" and abs(label / 12 - round(label / 12)) < 1e-6:
            return 4 * round(label / 12)
        return max(round(label / chem.cell_v), 1)

    @cached_property
    def rested_v(self) -> float:
        """Nominal voltage of its cells: what a rounded label stands for."""
        return max(self.nominal_voltage_v, self.cells * self.chem.cell_v)

    @cached_property
    def charge_v(self) -> float:
        """The highest voltage it is charged with, which a motor left joined must stand."""
        return self.full_v if self.chem.lithium else self.cells * self.chem.cell_full_v

    @property
    def empty_v(self) -> float:
        """Voltage under load when empty, given or by chemistry."""
        return self.empty_voltage_v or self.nominal_voltage_v * self.chem.empty_ratio

    @cached_property
    def weight_kg(self) -> float:
        """Mass, given or estimated from the middle of the chemistry's Wh per kg."""
        return (
            self.mass_kg
            if self.mass_kg is not None
            else self.energy_wh / (sum(self.chem.wh_per_kg) / 2)
        )

    @property
    def continuous_a(self) -> float:
        """Continuous discharge limit: the smallest of cells (or the chemistry's usual C-rate), BMS
        and connector.
        """
        cells = self.max_continuous_a or self.chem.max_c_rate * self.capacity_ah
        return min(x for x in (cells, self.bms_max_a, self.connector_max_a) if x is not None)

    @property
    def limited_by(self) -> str:
        """What sets the continuous limit: cells, BMS or connector."""
        names = {"connector": self.connector_max_a, "BMS": self.bms_max_a}
        return next(
            (k for k, v in names.items() if v is not None and v <= self.continuous_a), "cells"
        )

    @property
    def peak_a(self) -> float:
        """Peak discharge limit: the smallest of cells, BMS and connector; cells whose peak is not
        stated give no more than their continuous current.
        """
        cells = (
            self.max_peak_a
            or self.max_continuous_a
            or 1.5 * self.chem.max_c_rate * self.capacity_ah
        )
        return min(x for x in (cells, self.bms_max_a, self.connector_max_a) if x is not None)
