"""Discharge at constant power, in ratios, so that one curve serves every pack of a chemistry."""

from __future__ import annotations

from dataclasses import dataclass
from functools import lru_cache
from typing import NamedTuple

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array, Mask
from jolvek.core.electric.chemistry import Chemistry, chemistry, end_soc

SOC_STEPS = 60


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
    s = _steps(chem, power_per_h, reserve, motor_min_ratio, capacity_factor, start_soc)
    last = int(np.argmax(s.ended)) if s.ended.any() else s.ended.size
    ended = (
        (
            "power"
            if not s.able[last]
            else "motor"
            if motor_min_ratio > chem.empty_ratio
            else "cut-off"
        )
        if s.ended.any()
        else ("reserve" if reserve >= 1 - chem.usable else "depth")
    )
    elapsed = np.concatenate(([0.0], np.cumsum(s.hours)))[: last + 1]
    return Discharge(s.soc[: last + 1], s.voltage_ratio, s.c_rate, elapsed, ended)


class _Steps(NamedTuple):
    """A discharge cut into small steps of charge: what holds in each, the hours it takes, whether
    the power can be given at all, and whether the discharge has ended before it.
    """

    soc: Array  # at both ends of each step; the rest at its middle, (…, steps)
    voltage_ratio: Array
    c_rate: Array
    hours: Array
    able: Mask
    ended: Mask


def _steps(
    chem: Chemistry,
    power_per_h: ArrayLike,
    reserve: float,
    motor_min_ratio: float,
    capacity_factor: float,
    start_soc: float,
) -> _Steps:
    """The steps of `discharge`; powers of shape (…, 1) give a row each."""
    soc = np.linspace(start_soc, min(end_soc(chem, reserve), start_soc), SOC_STEPS)
    ocv = _ocv(chem, 0.5 * (soc[1:] + soc[:-1]))
    r = chem.resistance_h / capacity_factor
    root = ocv * ocv - 4 * r * np.asarray(power_per_h)
    rate = (ocv - np.sqrt(np.maximum(root, 0))) / (2 * r)
    voltage = ocv - rate * r
    floor = max(chem.empty_ratio if chem.usable < 1 else 0.0, motor_min_ratio)
    able = root > 0
    loss = np.maximum(rate * chem.rated_h / capacity_factor, 1.0) ** (chem.peukert - 1.0)
    hours = capacity_factor * (soc[:-1] - soc[1:]) / (rate * loss)
    ended = np.logical_or.accumulate(~able | (voltage < floor), axis=-1)
    return _Steps(soc, voltage, rate, hours, able, ended)


_RATES = np.geomspace(0.002, 12.0, 72)


@lru_cache(maxsize=512)
def _runtime_table(
    chem_id: str, reserve: float, motor_min_ratio: float, capacity_factor: float, start: float
) -> Array:
    rates = _RATES[:, np.newaxis]
    s = _steps(chemistry(chem_id), rates, reserve, motor_min_ratio, capacity_factor, start)
    return np.asarray(np.where(s.ended, 0.0, s.hours).sum(axis=-1) * _RATES)


def delivered_share(
    chem_id: str,
    power_per_h: ArrayLike,
    reserve: float = 0.2,
    motor_min_ratio: float = 0.0,
    capacity_factor: float = 1.0,
    start: float = 1.0,
) -> Array:
    """Share of the rated energy that reaches the motor before the day must end; any shape.

    `power_per_h` is power over rated energy (1/h), `start` the charge at setting out. Interpolated
    from `discharge` on a table kept per chemistry, reserve, lowest voltage and start.

    >>> float(delivered_share("lfp", 0.1, 0.2).round(1))
    0.8
    >>> float(delivered_share("agm", 1.0, 0.2).round(2)) < 0.4
    True
    >>> float(delivered_share("lfp", 0.1, 0.2, start=0.6).round(1))
    0.4
    """
    values = _runtime_table(
        chem_id,
        round(reserve, 3),
        round(motor_min_ratio, 2),
        round(capacity_factor, 3),
        round(start, 3),
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
