"""Batteries: what each chemistry gives, how its voltage falls, and discharge at constant power in
time.

Defaults are common practice, no source, where no other source is named. A discharge is worked out
in ratios (power over rated energy, voltage over nominal), so that one curve serves every pack of a
chemistry.
"""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache

import numpy as np
from numpy.typing import ArrayLike, NDArray

from jolvek.core.base.errors import ValueRefused

Array = NDArray[np.float64]
SOC_STEPS = 60
REFERENCE_C = 20.0


@dataclass(frozen=True)
class Chemistry:
    """Ratios of one chemistry. Voltages are shares of nominal, `resistance_h` is R·Ah/V_nominal in
    hours.
    """

    id: str
    name: str
    usable: float  # share of the rated charge that may be drawn: lead stops at half, for its life
    advised_depth: float  # deepest discharge advised as a habit
    peukert: float
    rated_h: float  # discharge time at which the capacity is stated
    full_ratio: float  # straight off the charger
    empty_ratio: float  # under load at the end
    resistance_h: float
    ocv: tuple[float, ...]  # open-circuit voltage at SoC 0, 10, … 100 %, before scaling to mean 1
    cold_loss_per_k: float  # capacity lost per kelvin below 20 °C
    wh_per_kg: tuple[float, float]
    cycles: tuple[tuple[float, float], ...]  # (depth, cycles to 80 %)
    calendar_years: float
    max_c_rate: float  # continuous, where the maker says nothing
    charge_efficiency: float
    lithium: bool


# fmt: off
_LEAD_OCV = (.915, .935, .952, .967, .981, .994, 1.006, 1.018, 1.029, 1.040, 1.052)
CHEMISTRIES: dict[str, Chemistry] = {
    c.id: c for c in (
        Chemistry("lfp", "Lithium iron phosphate", 1.0, .9, 1.03, 1.0, 1.14, .875, .035,
                  (.80, .965, .985, .995, 1.0, 1.002, 1.005, 1.012, 1.018, 1.022, 1.06),
                  .007, (70, 180), ((.5, 6000), (.8, 3500), (1.0, 2500)), 12, 1.0, .97, True),
        Chemistry("nmc", "Lithium NMC or NCA", 1.0, .9, 1.05, 1.0, 1.135, .81, .030,
                  (.83, .925, .955, .972, .985, .997, 1.013, 1.035, 1.062, 1.092, 1.135),
                  .008, (90, 260), ((.5, 2000), (.8, 1000), (1.0, 600)), 10, 1.5, .97, True),
        Chemistry("agm", "Lead-acid, AGM", .5, .5, 1.12, 20.0, 1.075, .875, .050, _LEAD_OCV,
                  .010, (22, 42), ((.3, 1200), (.5, 600), (.8, 300)), 6, .5, .85, False),
        Chemistry("gel", "Lead-acid, gel", .5, .5, 1.12, 20.0, 1.075, .875, .060, _LEAD_OCV,
                  .010, (22, 42), ((.3, 1400), (.5, 750), (.8, 400)), 7, .4, .85, False),
        Chemistry("flooded", "Lead-acid, flooded", .5, .5, 1.25, 20.0, 1.06, .875, .060, _LEAD_OCV,
                  .012, (22, 42), ((.3, 1000), (.5, 500), (.8, 250)), 5, .33, .80, False),
    )
}
# fmt: on


def chemistry(chemistry_id: str) -> Chemistry:
    """The chemistry of that id; raises ValueRefused naming the known ids.

    >>> chemistry("agm").usable
    0.5
    """
    try:
        return CHEMISTRIES[chemistry_id]
    except KeyError:
        raise ValueRefused(
            "battery.chemistry", chemistry_id, "one of " + ", ".join(CHEMISTRIES)
        ) from None


@dataclass(frozen=True)
class Battery:
    """One pack: nominal V, rated Ah, mass kg; limits in A and V where the maker gives them."""

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
    monitor: bool = False  # shows its own charge
    name: str = ""

    def __post_init__(self) -> None:
        chemistry(self.chemistry)
        for key, low, high in (
            ("nominal_voltage_v", 3, 400),
            ("capacity_ah", 0.5, 5000),
            ("mass_kg", 0.05, 2000),
            ("max_continuous_a", 0.5, 5000),
            ("max_peak_a", 0.5, 20000),
            ("full_voltage_v", 3, 500),
            ("empty_voltage_v", 1, 400),
        ):
            value = getattr(self, key)
            if value is not None and not low <= value <= high:
                raise ValueRefused(f"battery.{key}", value, f"{low:g} to {high:g}")

    @property
    def chem(self) -> Chemistry:
        """The row of the chemistry table."""
        return chemistry(self.chemistry)

    @property
    def energy_wh(self) -> float:
        """Rated energy: nominal voltage times capacity."""
        return self.nominal_voltage_v * self.capacity_ah

    @property
    def full_v(self) -> float:
        """Voltage straight off the charger, given or by chemistry."""
        return self.full_voltage_v or self.nominal_voltage_v * self.chem.full_ratio

    @property
    def empty_v(self) -> float:
        """Voltage under load when empty, given or by chemistry."""
        return self.empty_voltage_v or self.nominal_voltage_v * self.chem.empty_ratio

    @property
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
        """Peak discharge limit, given or 1.5 times the continuous one; never above what the BMS
        lets through.
        """
        return min(self.max_peak_a or 1.5 * self.continuous_a, self.bms_max_a or np.inf)


def peukert_time_h(
    capacity_ah: ArrayLike, current_a: ArrayLike, exponent: ArrayLike, rated_h: ArrayLike = 20.0
) -> Array:
    """Time in h to empty at a steady current: t = H (C/(I H))^n; broadcasts.

    Source: Peukert 1897 in the rated-hour form of the textbooks.

    >>> round(float(peukert_time_h(100, 20, 1.2)), 2)
    3.79
    """
    h = np.asarray(rated_h, dtype=float)
    return np.asarray(
        h * (np.asarray(capacity_ah) / (np.asarray(current_a) * h)) ** np.asarray(exponent)
    )


def temperature_factor(chem: Chemistry, temperature_c: float) -> float:
    """Share of the rated capacity left at a battery temperature in °C (−20 to 50); never above 1.

    >>> round(temperature_factor(chemistry("agm"), 0.0), 2)
    0.8
    """
    return float(np.clip(1 - chem.cold_loss_per_k * (REFERENCE_C - temperature_c), 0.3, 1.0))


def end_soc(chem: Chemistry, reserve: float) -> float:
    """State of charge at which a day must end: the reserve, or what the chemistry forbids to draw.

    >>> end_soc(chemistry("lfp"), 0.2), end_soc(chemistry("agm"), 0.2)
    (0.2, 0.5)
    """
    return max(reserve, 1.0 - chem.usable)


def cycle_life(chem: Chemistry, depth: ArrayLike) -> Array:
    """Cycles to 80 % of capacity at a depth of discharge (0.05–1), on a log-log line through the
    table.

    >>> round(float(cycle_life(chemistry("agm"), 0.5)))
    600
    """
    table = np.array(chem.cycles)
    x, y = np.log(table[:, 0]), np.log(table[:, 1])
    d = np.log(np.clip(depth, 0.05, 1.0))
    low = y[0] + (d - x[0]) * (y[1] - y[0]) / (x[1] - x[0])
    return np.asarray(np.exp(np.where(d < x[0], low, np.interp(d, x, y))))


@dataclass(frozen=True)
class Discharge:
    """One discharge at constant power: SoC, pack voltage and current in ratios, and the time
    taken.
    """

    soc: Array
    voltage_ratio: Array
    c_rate: Array  # current / capacity, 1/h
    hours: Array  # elapsed at each soc
    ended_by: str  # reserve | depth | cut-off | motor | power


def _ocv(chem: Chemistry, soc: Array) -> Array:
    grid = np.array(chem.ocv)
    mean = float(np.mean((grid[1:] + grid[:-1]) / 2))
    return np.asarray(np.interp(soc, np.linspace(0, 1, grid.size), grid) / mean)


def discharge(
    chem: Chemistry,
    power_per_h: float,
    reserve: float = 0.0,
    motor_min_ratio: float = 0.0,
    capacity_factor: float = 1.0,
    start_soc: float = 1.0,
) -> Discharge:
    """Discharge at constant power, `power_per_h` = power / rated energy in 1/h (0.001–20).

    Current rises as the voltage falls (I = (E − √(E² − 4RP))/2R); lead pays Peukert on the current
    above its rated one. Ends at the reserve, the chemistry's depth, its cut-off or the motor's
    lowest voltage (`motor_min_ratio` of nominal), whichever comes first. `capacity_factor` shrinks
    the pack (cold, aged).

    >>> d = discharge(chemistry("nmc"), 1100 / 949)
    >>> round(float(d.hours[-1]) * 60)
    49
    """
    stop = end_soc(chem, reserve)
    soc = np.linspace(start_soc, min(stop, start_soc), SOC_STEPS)
    middle = 0.5 * (soc[1:] + soc[:-1])
    ocv, r, x = _ocv(chem, middle), chem.resistance_h / capacity_factor, power_per_h
    root = ocv * ocv - 4 * r * x
    able = root > 0
    rate = (ocv - np.sqrt(np.maximum(root, 0))) / (2 * r)
    voltage = ocv - rate * r
    floor = max(chem.empty_ratio if chem.usable < 1 else 0.0, motor_min_ratio)
    bad = ~able | (voltage < floor)
    last = int(np.argmax(bad)) if bad.any() else middle.size
    ended = (
        (
            "power"
            if not able[last]
            else "motor"
            if motor_min_ratio > chem.empty_ratio
            else "cut-off"
        )
        if bad.any()
        else ("reserve" if reserve >= 1 - chem.usable else "depth")
    )
    loss = np.maximum(rate * chem.rated_h / capacity_factor, 1.0) ** (chem.peukert - 1.0)
    step = capacity_factor * (soc[:-1] - soc[1:]) / (rate * loss)
    elapsed = np.concatenate(([0.0], np.cumsum(step)))[: last + 1]
    return Discharge(soc[: last + 1], voltage, rate, elapsed, ended)


_RATES = np.geomspace(0.002, 12.0, 72)


@lru_cache(maxsize=512)
def _runtime_table(
    chem_id: str, reserve: float, motor_min_ratio: float, capacity_factor: float
) -> Array:
    chem = chemistry(chem_id)
    return np.array(
        [
            discharge(chem, float(x), reserve, motor_min_ratio, capacity_factor).hours[-1] * x
            for x in _RATES
        ]
    )


def delivered_share(
    chem_id: str,
    power_per_h: ArrayLike,
    reserve: float = 0.2,
    motor_min_ratio: float = 0.0,
    capacity_factor: float = 1.0,
) -> Array:
    """Share of the rated energy that reaches the motor before the day must end; any shape.

    `power_per_h` is power over rated energy (1/h). Interpolated from `discharge` on a table kept
    per chemistry, reserve and lowest voltage.

    >>> float(delivered_share("lfp", 0.1, 0.2).round(1))
    0.8
    >>> float(delivered_share("agm", 1.0, 0.2).round(2)) < 0.4
    True
    """
    values = _runtime_table(
        chem_id, round(reserve, 3), round(motor_min_ratio, 2), round(capacity_factor, 3)
    )
    x = np.clip(np.asarray(power_per_h, dtype=float), _RATES[0], _RATES[-1])
    return np.asarray(np.interp(np.log(x), np.log(_RATES), values))


SOC_POINTS = 11  # of the open-circuit tables


@lru_cache(maxsize=16)
def _ocv_points(chem_id: str) -> tuple[float, ...]:
    return tuple(float(v) for v in _ocv(chemistry(chem_id), np.linspace(0, 1, SOC_POINTS)))


def ocv_ratio(chem_id: str, soc: float) -> float:
    """Open-circuit voltage over nominal at one state of charge (0–1); the scalar form of the table.

    >>> round(ocv_ratio("lfp", 0.5), 3)
    1.009
    """
    points = _ocv_points(chem_id)
    x = min(max(soc, 0.0), 1.0) * (SOC_POINTS - 1)
    i = min(int(x), SOC_POINTS - 2)
    return points[i] + (points[i + 1] - points[i]) * (x - i)
