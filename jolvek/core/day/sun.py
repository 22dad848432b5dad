"""The sun of an enquiry's day: what the panels aboard give, counted once."""

from __future__ import annotations

from functools import lru_cache

from jolvek.core.enquiry.need import Day
from jolvek.core.predict.solar import Panels, Sunshine, sunshine

_sunshine = lru_cache(maxsize=64)(sunshine)


def panels_w(day: Day, added_w: float = 0.0) -> float:
    """Rated watts aboard: the panels that the day asks for are those that a setup adds, so the
    larger of both counts.

    >>> panels_w(Day(solar_w=300.0), 200.0), panels_w(Day(), 200.0)
    (300.0, 200.0)
    """
    return max(day.solar_w, added_w)


def sun_of(day: Day, added_w: float = 0.0) -> Sunshine | None:
    """What the panels give on the day, at its place and sky; None without any.

    >>> round(sun_of(Day(solar_w=300.0)).energy_wh, -2), sun_of(Day())
    (1500.0, None)
    """
    rated = panels_w(day, added_w)
    if rated <= 0:
        return None
    hours = float(round(day.longitude_deg / 15))
    place = (day.latitude_deg, day.longitude_deg)
    return _sunshine(Panels(rated, day.sky), *place, day.date, hours)
