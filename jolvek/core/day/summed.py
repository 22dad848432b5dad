"""A fitted setup over the day's legs, each at its wanted speed or the most it can: energy, time,
what is left.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from jolvek.core.electric.bank import runtime_s
from jolvek.core.enquiry.need import Leg
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.in_wind import in_wind
from jolvek.core.predict.likelihood import day_chance

MOST_RUNS = 999  # told of a charge


@dataclass(frozen=True)
class DayRun:
    """One run: hours under way, Wh used; after all runs of a charge the share of it left; and
    whether every leg is run as wished.
    """

    hours: float
    energy_wh: float
    left: float
    as_wished: bool
    home: bool  # back with the reserve kept
    chance: float  # of that, with what is not known of the boat
    runs: int = 1  # asked of a charge
    carries: int = 0  # runs that a charge gives, the reserve kept
    makes_way: bool = True  # on every leg


def run_day(fitted: Fitted) -> DayRun:
    """Add up the legs of the need's day for one setup, as often as a charge must serve; steady
    speeds, the bank's Peukert at the day's mean power.

    Validity as `performance.evaluate`. A leg on which no way is made takes the whole bank.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> from jolvek.core.enquiry.need import Day
    >>> r = run_day(sample_fitted(Day(1.5, 4000)))
    >>> r.home, r.as_wished, 0.5 < r.left < 0.9
    (True, True, True)
    """
    day, bank = fitted.need.day, fitted.bank
    runs = [_run(fitted, leg) for leg in day.trip]
    one_s, used = sum(r.seconds for r in runs), sum(r.motor_wh + r.other_wh for r in runs)
    if not all(r.makes_way for r in runs):
        none = (0.0, False, False, 0.0, day.runs_a_charge, 0, False)
        return DayRun(one_s / 3600, bank.energy_wh, *none)
    mean, seconds = used / max(one_s / 3600, 1e-6), day.runs_a_charge * one_s
    usable = float(runtime_s(bank, mean, day.kept_share, 0.0, day.start_charge)) - day.keep_s
    doubted = sum(r.motor_wh * float(fitted.doubt.sigma_at(r.speed_m_s)) for r in runs)
    top = fitted.doubt.sigma_at(fitted.performance.top_speed_m_s)
    lasting = max(usable, 1e-3) / max(seconds, 1e-3)
    hardest = max(r.of_top for r in runs)
    return DayRun(
        one_s / 3600,
        used,
        _left(fitted, mean, seconds),
        hardest <= 1 + 1e-6,
        usable >= seconds,
        float(day_chance(lasting, doubted / max(used, 1e-9), hardest, top)),
        day.runs_a_charge,
        int(min(max(usable, 0.0) / max(one_s, 1e-3) + 1e-9, MOST_RUNS)),
    )


def sets_out_with(fitted: Fitted) -> float:
    """Share of the rated charge at the start of the last run before a charge: what the earlier
    ones leave, never below nothing.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> from jolvek.core.enquiry.need import Day
    >>> sets_out_with(sample_fitted(Day(1.5, 1000)))
    1.0
    >>> 0.5 < sets_out_with(sample_fitted(Day(1.5, 1000, runs_per_day=3))) < 0.95
    True
    """
    day = fitted.need.day
    if day.runs_a_charge == 1:
        return day.start_charge
    earlier = replace(day, runs_per_day=day.runs_a_charge - 1, charges_per_day=1)
    return run_day(replace(fitted, need=replace(fitted.need, day=earlier))).left


def _left(fitted: Fitted, mean_w: float, seconds: float) -> float:
    """Share of the rated charge left of a steady power: in proportion down to what stays (the
    reserve, or the half that lead stops at) and on from there.
    """
    bank, start, kept = fitted.bank, fitted.need.day.start_charge, fitted.kept
    above = float(runtime_s(bank, mean_w, kept, 0.0, start)) if mean_w > 0 else float("inf")
    if seconds <= above:
        return start - max(start - kept, 0.0) * seconds / above
    below = float(runtime_s(bank, mean_w, 0.0, 0.0, start)) - above
    return kept * (1 - min((seconds - above) / below, 1.0)) if below > 0 else 0.0


@dataclass(frozen=True)
class _Run:
    """One leg: its speed through the water, that speed asked over the top speed, time, energy."""

    speed_m_s: float
    of_top: float
    seconds: float = 0.0
    motor_wh: float = 0.0
    other_wh: float = 0.0
    makes_way: bool = False


def _run(fitted: Fitted, leg: Leg) -> _Run:
    day, p = fitted.need.day, in_wind(fitted, leg.wind_m_s)
    speed = min(leg.speed_m_s, p.top_speed_m_s)
    power, way = p.at_speed(speed).power_w, speed - leg.current_m_s
    of_top = leg.speed_m_s / max(p.top_speed_m_s, 1e-6)
    if power is None or way <= 0.02:
        return _Run(speed, of_top)
    time = leg.duration_s if leg.duration_s is not None else (leg.distance_m or 0.0) / way
    other = day.hotel_w * (time + leg.hold_s) / 3600
    return _Run(speed, of_top, time, power * time / 3600, other, True)
