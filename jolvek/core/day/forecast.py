"""What a tide and wind service gives: the Protocol behind which a real one or the simulated
stand-in serves.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from math import cos, radians
from typing import Protocol

from jolvek.core.enquiry.need import Leg


@dataclass(frozen=True)
class Weather:
    """Wind and stream at one place and hour: m/s, the wind's direction from where, the stream's to
    where it sets, degrees.
    """

    wind_m_s: float
    wind_from_deg: float
    stream_m_s: float
    stream_to_deg: float
    simulated: bool = False


class Forecast(Protocol):
    """A service that tells wind and stream for a place, a date (ISO) and a clock hour."""

    def at(self, latitude_deg: float, longitude_deg: float, date: str, hour: float) -> Weather:
        """Wind and stream then and there."""
        ...


def against(weather: Weather, course_deg: float) -> tuple[float, float]:
    """(wind, stream) in m/s against a boat on a course; negative from behind.

    >>> tuple(round(x, 2) for x in against(Weather(5.0, 90.0, 0.5, 90.0), 90.0))
    (5.0, -0.5)
    """
    wind = weather.wind_m_s * cos(radians(weather.wind_from_deg - course_deg))
    return wind, -weather.stream_m_s * cos(radians(weather.stream_to_deg - course_deg))


def with_weather(
    legs: tuple[Leg, ...],
    courses_deg: tuple[float, ...],
    forecast: Forecast,
    latitude_deg: float,
    longitude_deg: float,
    date: str,
    start_h: float,
) -> tuple[Leg, ...]:
    """The legs with wind and stream of the hour at which each is half run; courses in degrees, one
    a leg.

    >>> class Still:
    ...     def at(self, *place_and_time): return Weather(0.0, 0.0, 0.5, 180.0)
    >>> leg = Leg("north", 1.5, 1000.0)
    >>> with_weather((leg,), (0.0,), Still(), 55, 10, "2026-07-01", 9.0)[0].current_m_s
    0.5
    """
    out, hour = [], start_h
    for leg, course in zip(legs, courses_deg, strict=True):
        wind, stream = against(
            forecast.at(latitude_deg, longitude_deg, date, hour + leg.seconds / 7200), course
        )
        out.append(replace(leg, wind_m_s=round(wind, 2), current_m_s=round(stream, 2)))
        hour += (out[-1].seconds + leg.hold_s) / 3600
    return tuple(out)
