"""A boat on hire: what a charge carries, and what a season takes of motor and battery."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.day.summed import carries, run_day
from jolvek.core.electric.chemistry import cycle_life
from jolvek.core.fit.fitted import Fitted
from jolvek.core.rules.findings import Finding, find

SEALS_H = 2000.0  # propeller shaft's seals; common practice, no source


@dataclass(frozen=True)
class Season:
    """Runs that one charge carries and those asked of it; hours and kWh of a season, battery cycles
    of it, and years until the battery's cycles and the seals' hours are through.
    """

    carries: int
    asked: int
    hours: float
    energy_kwh: float
    cycles: float
    battery_years: float
    seal_years: float
    findings: tuple[Finding, ...]


def season(f: Fitted) -> Season | None:
    """The season of a hire boat with this setup; None where no days a season are given, or the day
    cannot be done at all.

    >>> from dataclasses import replace
    >>> from jolvek.core.enquiry.need import Day
    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> day = Day(1.5, 1500, runs_per_day=6, charges_per_day=2, days_a_season=100)
    >>> s = season(sample_fitted(day))
    >>> s.asked, s.carries >= 1, s.hours > 100
    (3, True, True)
    """
    day = f.need.day
    if day.days_a_season is None:
        return None
    one = run_day(f)
    run_wh, hours = one.energy_wh, one.hours
    if run_wh <= 0 or not one.makes_way:
        return None
    carried, asked = carries(f), one.runs
    runs = day.runs_per_day * day.days_a_season
    depth = min(asked * run_wh / f.bank.energy_wh, 1.0)
    cycles = day.charges_per_day * day.days_a_season
    found = [] if carried >= asked else [find("runs-a-charge", carried, asked)]
    return Season(
        carried,
        asked,
        runs * hours,
        runs * run_wh / 1000,
        cycles,
        float(cycle_life(f.bank.chem, depth)) / cycles,
        seal_years=SEALS_H / (runs * hours) if hours else float("inf"),
        findings=tuple(found),
    )
