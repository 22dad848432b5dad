"""The years' cost of an electric setup against petrol: purchase, energy, service, what wears
out.
"""

from __future__ import annotations

from dataclasses import dataclass
from math import ceil, inf
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.electric.charging import CHARGER_EFFICIENCY

MOST_ALSO = 12


@dataclass(frozen=True)
class Electric:
    """The electric setup. Power in W, capacity in kWh; `usable` the depth of a cycle; money in the
    shop's currency.
    """

    RANGES: ClassVar[checked.Ranges] = {
        "purchase": (0, 1e7),
        "average_power_w": (0, 100_000),
        "price_per_kwh": (0, 100),
        "charger_efficiency": (0.3, 1),
        "battery_price": (0, 1e7),
        "battery_kwh": (0, 1000),
        "usable": (0.05, 1),
        "cycle_life": (1, 100_000),
        "calendar_life_years": (0.5, 100),
        "service_per_year": (0, 1e6),
        "resale": (0, 1e7),
    }

    purchase: float
    average_power_w: float
    price_per_kwh: float
    battery_price: float
    battery_kwh: float
    cycle_life: float
    calendar_life_years: float
    charger_efficiency: float = CHARGER_EFFICIENCY
    usable: float = 0.8
    service_per_year: float = 0.0
    resale: float = 0.0  # at the end of the last year

    def __post_init__(self) -> None:
        checked.check(self, "electric")

    def energy_kwh(self, hours: float) -> float:
        """kWh from the wall in so many hours."""
        return hours * self.average_power_w / 1000 / self.charger_efficiency

    def battery_life_years(self, hours: float) -> float:
        """The sooner of cycles, at so many hours a year, and age."""
        drawn, cycle = hours * self.average_power_w / 1000, self.battery_kwh * self.usable
        by_cycles = self.cycle_life * cycle / drawn if drawn > 0 and cycle > 0 else inf
        return min(by_cycles, self.calendar_life_years)


@dataclass(frozen=True)
class OtherAssets:
    """Something that petrol needs besides, and how many years it lasts."""

    RANGES: ClassVar[checked.Ranges] = {"price": (0, 1e7), "life_years": (0.5, 100)}
    TEXTS: ClassVar[checked.Counts] = {"name": 80}

    name: str
    price: float
    life_years: float

    def __post_init__(self) -> None:
        checked.check(self, "also")


@dataclass(frozen=True)
class Petrol:
    """The petrol alternative, with what it takes to match: a trolling motor, its battery."""

    RANGES: ClassVar[checked.Ranges] = {
        "purchase": (0, 1e7),
        "litres_per_hour": (0, 200),
        "price_per_litre": (0, 100),
        "service_per_year": (0, 1e6),
        "resale": (0, 1e7),
    }
    COUNTS: ClassVar[checked.Counts] = {"also": MOST_ALSO}

    purchase: float
    litres_per_hour: float
    price_per_litre: float
    service_per_year: float = 0.0
    also: tuple[OtherAssets, ...] = ()
    resale: float = 0.0

    def __post_init__(self) -> None:
        checked.check(self, "petrol")


@dataclass(frozen=True)
class Case:
    """Both over some years of so many hours; costs of later years count less by the rate."""

    RANGES: ClassVar[checked.Ranges] = {
        "years": (1, 40),
        "hours_per_year": (0, 8760),
        "discount_rate": (0, 1),
    }

    years: int
    hours_per_year: float
    electric: Electric
    petrol: Petrol
    discount_rate: float = 0.0

    def __post_init__(self) -> None:
        checked.check(self, "cost")


@dataclass(frozen=True)
class Cost:
    """Sums of both at the end of each year, from the purchase (year 0) on; the year from which
    electric is cheaper for good, or None; when the battery is bought again; money an hour.
    """

    electric: tuple[float, ...]
    petrol: tuple[float, ...]
    break_even_year: float | None
    battery_replaced_in: tuple[int, ...]
    electric_per_hour: float | None
    petrol_per_hour: float | None


def bought_again(life_years: float, years: int) -> tuple[int, ...]:
    """The years at whose end a part of that life is bought again, before the last year's end.

    >>> bought_again(3, 10), bought_again(3.4, 10), bought_again(12, 10)
    ((3, 6, 9), (4, 7), ())
    """
    out, k = [], 1
    while ceil(k * life_years - 1e-9) < years:
        out.append(ceil(k * life_years - 1e-9))
        k += 1
    return tuple(out)


def cost(case: Case) -> Cost:
    """Both ways year by year. A part of life n is bought again at the end of years n, 2n …

    >>> e = Electric(3000, 800, .3, 1000, 2.5, 2000, 10)
    >>> c = cost(Case(5, 100, e, Petrol(2000, 2.0, 2.0, 150)))
    >>> [round(x) for x in c.electric], [round(x) for x in c.petrol]
    ([3000, 3027, 3055, 3082, 3109, 3136], [2000, 2550, 3100, 3650, 4200, 4750])
    >>> round(c.break_even_year, 2)
    1.91
    """
    e, p, hours = case.electric, case.petrol, case.hours_per_year
    again = bought_again(e.battery_life_years(hours), case.years)
    ours = [e.purchase] + [e.energy_kwh(hours) * e.price_per_kwh + e.service_per_year] * case.years
    theirs = [p.purchase + sum(x.price for x in p.also)]
    theirs += [hours * p.litres_per_hour * p.price_per_litre + p.service_per_year] * case.years
    for year in again:
        ours[year] += e.battery_price
    for part in p.also:
        for year in bought_again(part.life_years, case.years):
            theirs[year] += part.price
    ours[-1] -= e.resale
    theirs[-1] -= p.resale
    electric, petrol = (_summed(x, case.discount_rate) for x in (ours, theirs))
    used = hours * case.years
    return Cost(
        electric,
        petrol,
        break_even(electric, petrol),
        again,
        electric[-1] / used if used else None,
        petrol[-1] / used if used else None,
    )


def _summed(yearly: list[float], rate: float) -> tuple[float, ...]:
    out, total = [], 0.0
    for year, money in enumerate(yearly):
        total += money / (1 + rate) ** year
        out.append(total)
    return tuple(out)


def break_even(electric: tuple[float, ...], petrol: tuple[float, ...]) -> float | None:
    """The year, between two by a line, from which electric is cheaper and stays so; 0 where it is
    from the purchase on; None where it is dearer at the end.

    >>> round(break_even((10, 11, 12), (6, 10, 14)), 2), break_even((1, 2), (2, 3))
    (1.33, 0.0)
    """
    over = [a - b for a, b in zip(electric, petrol, strict=True)]
    if over[-1] > 0:
        return None
    dearer = [year for year, x in enumerate(over) if x > 0]
    if not dearer:
        return 0.0
    last = dearer[-1]
    return last + over[last] / (over[last] - over[last + 1])
