"""How a battery ages: its capacity from trips whose energy and charge at both ends are known,
against what its chemistry loses by cycles and by years; and when it will be at its end.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from typing import ClassVar

import numpy as np

from jolvek.core.base import checked
from jolvek.core.base.arrays import Array
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.charging import CHARGER_EFFICIENCY
from jolvek.core.electric.chemistry import cycle_life, temperature_factor
from jolvek.core.predict.likelihood import CONFIDENCE, z_of

END = 0.8  # of the rated capacity: the end of its life as makers count it; common practice
CHARGE_SIGMA = 0.025  # 1σ of a charge as shown, of the whole; common practice, no source
ENERGY_SIGMA = 0.01  # of the energy counted
NEW_SIGMA, FADE_SIGMA = 0.05, 0.6  # against its label; how fast it ages; Jolvek's own
LEAST_DEPTH = 0.1  # of a use below which it says too little
DEPTH_STEP = 0.2
LEAST_YEARS, LEAST_FADE = 0.25, 0.05  # a battery younger or wearing less says no rate
LONGEST_YEARS, STEP_YEARS = 40.0, 0.05  # looked ahead
HUBER, TUKEY, ROUNDS = 1.5, 4.0, 16


@dataclass(frozen=True)
class Used:
    """One trip between two known charges: year (as a fraction) since new, Wh drawn, charge before
    and after (shares), battery in °C.
    """

    RANGES: ClassVar[checked.Ranges] = {
        "years": (0, 60),
        "energy_wh": (0.1, 1e7),
        "charge_from": (0, 1),
        "charge_to": (0, 1),
        "temperature_c": (-20, 50),
    }

    years: float
    energy_wh: float
    charge_from: float
    charge_to: float
    temperature_c: float = 20.0

    def __post_init__(self) -> None:
        checked.check(self, "used")

    @property
    def depth(self) -> float:
        """Share of the charge that was drawn."""
        return self.charge_from - self.charge_to


@dataclass(frozen=True)
class Trend:
    """How a capacity (a share of the rated) goes on, wearing at the rate so far, share a year; and
    the variance of both, as (of the capacity, of both together, of the rate).
    """

    capacity: float
    rate: float
    doubt: tuple[float, float, float]

    def at(self, years: float) -> tuple[float, float, float]:
        """(low, likely, high) so many years from now."""
        now, both, rate = self.doubt
        likely = self.capacity - self.rate * years
        wide = z_of(CONFIDENCE) * (now + 2 * both * years + rate * years**2) ** 0.5
        low, mean, high = (max(x, 0.0) for x in (likely - wide, likely, likely + wide))
        return low, mean, high

    def ends(self) -> tuple[float, float, float]:
        """Years until the low, the likely and the high capacity are at their end; at most
        LONGEST_YEARS.
        """
        years = np.linspace(0.0, LONGEST_YEARS, round(LONGEST_YEARS / STEP_YEARS) + 1)
        over = np.array([self.at(float(t)) for t in years]) > END
        low, mean, high = (
            LONGEST_YEARS if column.all() else float(years[np.argmin(column)]) for column in over.T
        )
        return low, mean, high


@dataclass(frozen=True)
class Health:
    """Capacity as a share of the rated, now, with its band; how much of the life is used by cycles
    and by years; years until its end with the band's sooner and later; the uses that count.
    """

    capacity: float
    low: float
    high: float
    by_cycles: float
    by_years: float
    years_left: float
    sooner: float
    later: float
    count: int
    fade: float  # of what is usual
    fresh: float  # capacity when new
    trend: Trend

    def capacity_in(self, years: float) -> float:
        """Capacity so many years from now, if the boat is used as before."""
        return self.in_years(years)[1]

    def in_years(self, years: float) -> tuple[float, float, float]:
        """Capacity then with its band: (low, likely, high)."""
        return self.trend.at(years)


def worn(bank: Bank, cycles: float, depth: float, years: float) -> tuple[float, float]:
    """Shares of its life used by full cycles of a depth, and by years.

    >>> from jolvek.core.electric.battery import Battery
    >>> a, b = worn(Bank(Battery("lfp", 25.6, 100)), 350, 0.8, 3)
    >>> round(a, 2), b
    (0.1, 0.25)
    """
    chem = bank.battery.chem
    return cycles / float(cycle_life(chem, max(depth, 0.05))), years / chem.calendar_years


def of_charge(bank: Bank, years: float, wall_wh: float, low: float, high: float) -> Used:
    """A charge between two known states as a use: what came into the battery of what was counted at
    the wall, by the charger's and the chemistry's efficiency.

    >>> from jolvek.core.electric.battery import Battery
    >>> bank = Bank(Battery("agm", 12, 100))
    >>> round(of_charge(bank, 1.0, 1000, 0.2, 0.9).energy_wh)
    748
    """
    inside = wall_wh * CHARGER_EFFICIENCY * bank.chem.charge_efficiency
    return Used(years, inside, high, low)


def by_depth(uses: Sequence[Used]) -> tuple[int, ...]:
    """How many uses drew up to 20, 40, 60, 80 and 100 % of the charge.

    >>> by_depth([Used(0, 100, 0.9, 0.8), Used(0, 100, 1.0, 0.1)])
    (1, 0, 0, 0, 1)
    """
    at = [min(int((u.depth - 1e-9) / DEPTH_STEP), 4) for u in uses if u.depth > 0]
    return tuple(at.count(i) for i in range(5))


def health(bank: Bank, uses: Sequence[Used], age_years: float, cycles: float) -> Health:
    """The battery's health now, at an age and after so many equivalent cycles of the uses' depth.

    Capacity is rated × q (1 − k · 0.2 · wear); q and k as the likeliest with their priors, uses far
    off weigh little. Uses shallower than a tenth say nothing. Raises nothing: without uses the
    priors stand.

    >>> from jolvek.core.electric.battery import Battery
    >>> bank = Bank(Battery("lfp", 25.6, 100))
    >>> uses = [Used(0.1 * i, 0.9 * 0.5 * bank.energy_wh, 0.9, 0.4) for i in range(12)]
    >>> h = health(bank, uses, 1.2, 60)
    >>> round(h.capacity, 2), h.low < 0.9 < h.high
    (0.9, True)
    """
    good = [u for u in uses if u.depth >= LEAST_DEPTH]
    depth = float(np.mean([u.depth for u in good])) if good else 0.5
    by_cycles, by_years = worn(bank, cycles, depth, age_years)
    wear_now = by_cycles + by_years
    share = np.array([u.years / max(age_years, 1e-6) for u in good])
    wear = wear_now * np.clip(share, 0, 1)
    result = np.array([_capacity(bank, u) for u in good])
    noise = np.array([_noise(u) for u in good]) * np.maximum(result, 0.1)
    mean, spread = _fitted(wear, result, noise)
    row = np.array([1.0, -(1 - END) * wear_now])
    capacity = float(row @ mean)
    sigma = float(np.sqrt(row @ spread @ row))
    z = z_of(CONFIDENCE)
    yearly = (1 - END) * wear_now / max(age_years, LEAST_YEARS)
    ahead = np.array([0.0, -yearly])
    doubt = (float(row @ spread @ row), float(row @ spread @ ahead), float(ahead @ spread @ ahead))
    trend = Trend(capacity, yearly * max(float(mean[1]), LEAST_FADE), doubt)
    sooner, left, later = trend.ends()
    return Health(
        capacity,
        capacity - z * sigma,
        capacity + z * sigma,
        by_cycles,
        by_years,
        left,
        sooner=sooner,
        later=later,
        count=len(good),
        fade=float(mean[1] / mean[0]),
        fresh=float(mean[0]),
        trend=trend,
    )


def _capacity(bank: Bank, u: Used) -> float:
    warm = temperature_factor(bank.battery.chem, u.temperature_c)
    return u.energy_wh / u.depth / bank.energy_wh / warm


def _noise(u: Used) -> float:
    return float(np.hypot(np.sqrt(2) * CHARGE_SIGMA / u.depth, ENERGY_SIGMA))


def _fitted(wear: Array, told: Array, noise: Array) -> tuple[Array, Array]:
    """(q, q k) and their covariance."""
    prior = np.diag([1 / NEW_SIGMA**2, 1 / FADE_SIGMA**2])
    start = np.array([1.0, 1.0])
    if not told.size:
        return start, np.linalg.inv(prior)
    rows = np.stack([np.ones_like(wear), -(1 - END) * wear], axis=-1)
    weight = np.ones_like(told)
    mean, hessian = start, prior
    for i in range(ROUNDS):
        w = weight / noise**2
        hessian = rows.T @ (w[:, None] * rows) + prior
        mean = np.linalg.solve(hessian, rows.T @ (w * told) + prior @ start)
        z = np.abs(told - rows @ mean) / noise
        huber = np.minimum(1.0, HUBER / np.maximum(z, 1e-9))
        weight = huber if i < ROUNDS // 2 else np.maximum(1 - (z / TUKEY) ** 2, 0.0) ** 2
    return mean, np.asarray(np.linalg.inv(hessian))
