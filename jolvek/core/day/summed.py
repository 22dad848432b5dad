"""A fitted setup over the day's legs, each at its wanted speed or the most it can: energy, time,
what is left. The quick form of `stepped`, with a few steps a leg.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace

from jolvek.core.electric.pack_state import PackState
from jolvek.core.enquiry.need import STILL_M_S, Leg
from jolvek.core.enquiry.sun import dark, sun_at
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.in_wind import in_wind

MOST_RUNS = 40  # counted of a charge, which is as many as a day may have
STEPS = 6  # of a leg, and of a wait


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
    runs: int = 1  # asked of a charge
    makes_way: bool = True  # on every leg


def run_day(fitted: Fitted) -> DayRun:
    """Add up the legs of the need's day for one setup, as often as a charge must serve, with its
    panels' sun; steady speeds.

    Validity as `performance.evaluate`. A leg on which no way is made takes the whole bank.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> from jolvek.core.enquiry.need import Day
    >>> r = run_day(sample_fitted(Day(1.5, 4000)))
    >>> r.home, r.as_wished, 0.5 < r.left < 0.9
    (True, True, True)
    """
    day, runs = fitted.need.day, _runs(fitted)
    one_s, used = sum(r.seconds for r in runs), sum(r.motor_wh + r.other_wh for r in runs)
    if not all(r.makes_way for r in runs):
        none = (0.0, False, False, day.runs_a_charge, False)
        return DayRun(one_s / 3600, used, *none)
    pack, kept = _charged(fitted), kept_at_end(fitted)
    for _ in range(day.runs_a_charge):
        _draw(pack, runs, fitted)
    hardest = max(r.of_top for r in runs)
    return DayRun(
        one_s / 3600,
        used,
        pack.soc,
        hardest <= 1 + 1e-6,
        pack.soc >= kept - 1e-9,
        day.runs_a_charge,
    )


def kept_at_end(fitted: Fitted, mean_w: float | None = None) -> float:
    """Share of the rated charge that must be left at the end: the reserve or an hour's running at
    the day's mean power (as planned, where none is given), and the half that lead stops at.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> kept_at_end(sample_fitted())
    0.2
    """
    day = fitted.need.day
    if not day.keep_s:
        return max(day.kept_share, fitted.kept)
    if mean_w is None:
        runs = _runs(fitted)
        used = sum(r.motor_wh + r.other_wh for r in runs)
        mean_w = 3600 * used / max(sum(r.seconds for r in runs), 1.0)
    return max(day.kept_share + day.keep_s / 3600 * mean_w / fitted.bank.energy_wh, fitted.kept)


def carries(fitted: Fitted) -> int:
    """How many runs of the day a charge carries with the reserve kept, at most MOST_RUNS.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> from jolvek.core.enquiry.need import Day
    >>> 3 < carries(sample_fitted(Day(1.5, 1000))) < 40
    True
    """
    runs, pack, kept = _runs(fitted), _charged(fitted), kept_at_end(fitted)
    if not all(r.makes_way for r in runs):
        return 0
    for n in range(MOST_RUNS):
        _draw(pack, runs, fitted)
        if pack.soc < kept - 1e-9:
            return n
    return MOST_RUNS


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


def _charged(fitted: Fitted) -> PackState:
    return PackState(fitted.bank, soc=fitted.need.day.start_charge)


def _draw(pack: PackState, runs: Sequence[_Run], fitted: Fitted) -> float:
    """One run drawn from a pack, its sun put in; Wh asked of the pack."""
    day, asked = fitted.need.day, 0.0
    hotel, hours, sun = day.hotel_w, day.start_h, sun_at(day, fitted.solar_w) or dark
    for r in runs:
        power = 3600 * r.motor_wh / max(r.seconds, 1e-9) + hotel
        for seconds, watts in ((r.seconds, power), (r.hold_s, hotel)):
            step_h = seconds / STEPS / 3600
            for i in range(STEPS if seconds else 0):
                net = watts - sun(hours + (i + 0.5) * step_h)
                pack.step(net, step_h)
                asked += max(net, 0.0) * step_h
            hours += seconds / 3600
    return asked


@dataclass(frozen=True)
class _Run:
    """One leg: its speed through the water, that speed asked over the top speed, time, energy."""

    speed_m_s: float
    of_top: float
    seconds: float = 0.0  # under way; waiting does not count
    hold_s: float = 0.0
    motor_wh: float = 0.0
    other_wh: float = 0.0
    makes_way: bool = False


def _runs(fitted: Fitted) -> list[_Run]:
    return [_run(fitted, leg) for leg in fitted.need.day.trip]


def _run(fitted: Fitted, leg: Leg) -> _Run:
    day, p = fitted.need.day, in_wind(fitted, leg.wind_m_s)
    speed = min(leg.speed_m_s, p.top_speed_m_s)
    power, way = p.at_speed(speed).power_w, speed - leg.current_m_s
    of_top = leg.speed_m_s / max(p.top_speed_m_s, 1e-6)
    stands = leg.stays and way >= -STILL_M_S
    if power is None or (way <= STILL_M_S and not stands):
        return _Run(speed, of_top)
    time = leg.duration_s if leg.duration_s is not None else (leg.distance_m or 0.0) / way
    other = day.hotel_w * (time + leg.hold_s) / 3600
    return _Run(speed, of_top, time, leg.hold_s, power * time / 3600, other, makes_way=True)
