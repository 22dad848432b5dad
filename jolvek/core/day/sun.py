"""The sun of an enquiry's day: what the panels aboard give, counted once."""

from __future__ import annotations

from functools import lru_cache

from jolvek.core.enquiry.need import Day
from jolvek.core.predict.solar import Panels, Sunshine, sunshine

_sunshine = lru_cache(maxsize=64)(sunshine)


def sun_of(day: Day, rated_w: float | None = None) -> Sunshine | None:
    """What the panels give on the day, at its place and sky: those that the day asks for, or rated
    W that a setup really has; None without any.

    >>> round(sun_of(Day(solar_w=300.0)).energy_wh, -2), sun_of(Day())
    (1500.0, None)
    """
    rated = day.solar_w if rated_w is None else rated_w
    if rated <= 0:
        return None
    hours = float(round(day.longitude_deg / 15))
    place = (day.latitude_deg, day.longitude_deg)
    return _sunshine(Panels(rated, day.sky), *place, day.date, hours)
