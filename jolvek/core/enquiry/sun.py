"""The sun of an enquiry's day: what the panels aboard give, counted once."""

from __future__ import annotations

from collections.abc import Callable
from functools import lru_cache

from jolvek.core.enquiry.need import Day
from jolvek.core.enquiry.time_zone import offset_h
from jolvek.core.predict.solar import Panels, Sunshine, sunshine

SunAt = Callable[[float], float]  # W by clock hour
POINTS = 8  # of a leg, for its mean
_sunshine = lru_cache(maxsize=64)(sunshine)


def dark(_hour: float) -> float:
    """No sun at any hour.

    >>> dark(12.0)
    0.0
    """
    return 0.0


def sun_of(day: Day, rated_w: float | None = None) -> Sunshine | None:
    """What the panels give on the day, at its place and sky: those that the day asks for, or rated
    W that a setup really has; None without any.

    >>> round(sun_of(Day(solar_w=300.0)).energy_wh, -2), sun_of(Day())
    (1500.0, None)
    """
    rated = day.solar_w if rated_w is None else rated_w
    if rated <= 0:
        return None
    hours = offset_h(day.latitude_deg, day.longitude_deg, day.date)
    place = (day.latitude_deg, day.longitude_deg)
    return _sunshine(Panels(rated, day.sky), *place, day.date, hours)


def sun_at(day: Day, rated_w: float | None = None) -> SunAt | None:
    """The same by clock hour; None without any.

    >>> sun_at(Day(solar_w=300.0))(13.0) > 150 > sun_at(Day(solar_w=300.0))(6.0)
    True
    """
    sun = sun_of(day, rated_w)
    return sun.at_w if sun else None


def mean_w(at: SunAt, from_h: float, hours: float) -> float:
    """Mean W between two clock hours.

    >>> mean_w(lambda hour: 100.0 if hour < 12 else 0.0, 11.0, 2.0)
    50.0
    """
    return sum(at((from_h + (i + 0.5) / POINTS * hours) % 24.0) for i in range(POINTS)) / POINTS
