"""A fitted setup over the day's legs, each at its wanted speed or the most it can: energy, time,
what is left.
"""

from __future__ import annotations

from dataclasses import dataclass, replace

from jolvek.core.electric.bank import runtime_s
from jolvek.core.fit.fitted import Fitted
from jolvek.core.predict.evaluate import evaluate


@dataclass(frozen=True)
class DayRun:
    """The whole day: hours under way, Wh used, share of the rated charge left, and whether every
    leg is run as wished.
    """

    hours: float
    energy_wh: float
    left: float
    as_wished: bool
    home: bool  # back with the reserve kept


def run_day(fitted: Fitted) -> DayRun:
    """Add up the legs of the need's day for one setup; steady speeds, the bank's Peukert at the
    day's mean power.

    Validity as `performance.evaluate`. A leg on which no way is made takes the whole bank.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> from jolvek.core.enquiry.need import Day
    >>> r = run_day(sample_fitted(Day(1.5, 4000)))
    >>> r.home, r.as_wished, 0.5 < r.left < 0.9
    (True, True, True)
    """
    day, bank, seconds, used, wished = fitted.need.day, fitted.bank, 0.0, 0.0, True
    for leg in day.trip:
        p = (
            fitted.performance
            if leg.wind_m_s == day.wind_m_s
            else evaluate(
                replace(fitted.setup, wind_m_s=leg.wind_m_s), fitted.performance.resistance
            )
        )
        speed = min(leg.speed_m_s, p.top_speed_m_s)
        wished &= speed >= leg.speed_m_s * (1 - 1e-6)
        at = p.at_speed(speed)
        way = speed - leg.current_m_s
        if at.power_w is None or way <= 0.02:
            return DayRun(seconds / 3600, bank.energy_wh, 0.0, False, False)
        time = leg.duration_s if leg.duration_s is not None else (leg.distance_m or 0.0) / way
        seconds += time
        used += at.power_w * time / 3600 + day.hotel_w * (time + leg.hold_s) / 3600
    mean = used / max(seconds / 3600, 1e-6)
    lasts = float(runtime_s(bank, mean, 0.0)) if mean > 0 else float("inf")
    left = max(0.0, 1 - seconds / lasts) if lasts > 0 else 0.0
    kept = day.kept_share + (day.keep_s * mean / 3600 / bank.energy_wh)
    floor = max(kept, 1 - bank.chem.usable)
    usable = float(runtime_s(bank, mean, day.kept_share))
    return DayRun(
        seconds / 3600,
        used,
        left,
        wished,
        usable - day.keep_s >= seconds and left >= min(floor, 1) - 0.02,
    )
