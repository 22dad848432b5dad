"""A simulated tide and wind service: seeded by place and date, plausible in shape, true nowhere.

Stream: two tides a day (12.42 h) with springs and neaps over 14.77 days, setting to and fro on one
axis of the place. Wind: a breeze of the day that gets up after noon and dies at night, on a base
that changes from day to day. A real service would implement `core.forecast.Forecast` in its place.
"""

from __future__ import annotations

import datetime
import hashlib
from math import cos, exp, pi

import numpy as np

from jolvek.core.day.forecast import Weather

M2_H, SPRING_DAYS = 12.42, 14.77


class SimulatedForecast:
    """The stand-in; the same seed, place and date always give the same weather."""

    def __init__(self, seed: int = 1) -> None:
        self.seed = seed

    def _random(self, *words: object) -> np.random.Generator:
        digest = hashlib.sha256("|".join(map(str, (self.seed, *words))).encode()).digest()
        return np.random.default_rng(int.from_bytes(digest[:8], "little"))

    def at(self, latitude_deg: float, longitude_deg: float, date: str, hour: float) -> Weather:
        """Wind and stream then and there, simulated."""
        place = (round(latitude_deg, 1), round(longitude_deg, 1))
        here, today = self._random("place", *place), self._random("day", *place, date)
        strongest, axis, phase = here.uniform(0.3, 1.1), here.uniform(0, 360), here.uniform(0, M2_H)
        day = datetime.date.fromisoformat(date).toordinal()
        spring = 1.0 + 0.35 * cos(2 * pi * day / SPRING_DAYS)
        tide = cos(2 * pi * (24 * day + hour - phase) / M2_H)
        stream = strongest * spring / 1.35 * tide
        base, breeze, wind_from = (
            today.uniform(0.5, 4.5),
            today.uniform(1.0, 5.0),
            today.uniform(0, 360),
        )
        wind = base + breeze * exp(-((((hour % 24) - 15.0) / 3.2) ** 2))
        return Weather(
            float(wind),
            float(wind_from + 3 * (hour - 12)) % 360,
            abs(stream),
            float(axis if stream >= 0 else (axis + 180) % 360),
            True,
        )
