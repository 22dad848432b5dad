"""A day otherwise than planned: wind, stream, load, cold, foul bottom, an old battery."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from jolvek.core.enquiry.need import STILL_M_S, Day, Leg
from jolvek.core.fit.fitted import Fitted


@dataclass(frozen=True)
class Switches:
    """A day otherwise than planned: more wind from an hour on (against on the way home, or out),
    stream, load, cold, foul, age.
    """

    wind_m_s: float | None = None  # that blows from `wind_from_h` on; None: as planned
    wind_from_h: float = 13.0
    wind_against: str = "home"  # home | out
    stream_m_s: float = 0.0  # more against on the way home, as much less on the way out
    heavier: float = 0.0
    months: float | None = None  # afloat since the bottom was cleaned
    aged: float = 0.0
    temperature_c: float | None = None
    start_charge: float | None = None  # at setting out; None: as planned
    drag_factor: float = 1.0  # of all resistance: the ends of what is not known of the boat
    fetch_m: float = 0.0  # open water upwind; 0: sheltered, no waves
    depth_m: float | None = None
    tow_length_m: float | None = None  # of a dinghy in tow


def turn_index(legs: tuple[Leg, ...]) -> int:
    """The first leg of the way home: from where less than half the distance is left.

    >>> turn_index((Leg("a", 1.0, 500.0), Leg("b", 1.0, 500.0), Leg("c", 1.0, 1000.0)))
    2
    """
    total, gone = sum(leg.metres for leg in legs), 0.0
    for i, leg in enumerate(legs):
        if gone >= 0.5 * total - 1.0:
            return i
        gone += leg.metres
    return len(legs)


def legs_otherwise(day: Day, switches: Switches) -> tuple[Leg, ...]:
    """The day's legs as they come: each with the wind that blows on it and the stream as switched.

    A wind that gets up on a leg counts for the whole of it where it is against, and from the next
    one on where it helps.

    >>> legs = legs_otherwise(Day(1.5, 4000, start_h=9), Switches(8.0, 9.5, stream_m_s=0.2))
    >>> [(leg.wind_m_s, leg.current_m_s) for leg in legs]
    [(-0.0, -0.2), (8.0, 0.2)]
    >>> [leg.wind_m_s for leg in legs_otherwise(Day(1.5, 4000, start_h=9), Switches(8.0, 13.0))]
    [-0.0, 0.0]
    """
    legs, s, clock_h, out = day.trip, switches, day.start_h, []
    turn = turn_index(legs)
    low, high = Leg.RANGES["current_m_s"]
    for i, leg in enumerate(legs):
        home, wind = i >= turn, leg.wind_m_s
        current = min(max(leg.current_m_s + (s.stream_m_s if home else -s.stream_m_s), low), high)
        way = max(leg.speed_m_s - current, STILL_M_S)
        under_way = leg.duration_s if leg.duration_s is not None else leg.metres / way
        ends_h = clock_h + (under_way + leg.hold_s) / 3600
        against = home == (s.wind_against == "home")
        if s.wind_m_s is not None and s.wind_from_h < (ends_h if against else clock_h + 1e-9):
            wind = s.wind_m_s if against else -s.wind_m_s
        out.append(replace(leg, wind_m_s=wind, current_m_s=current))
        clock_h = ends_h
    return tuple(out)


_OUTSIDE: dict[str, Any] = {
    "wind_m_s": None,
    "wind_from_h": Switches().wind_from_h,
    "wind_against": Switches().wind_against,
    "stream_m_s": 0.0,
}


def switched(fitted: Fitted, switches: Switches) -> Fitted:
    """The setup with load, bottom, age and temperature as switched.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> heavy = switched(f, Switches(heavier=.1))
    >>> round(heavy.performance.displacement_kg / f.performance.displacement_kg, 2)
    1.1
    """
    if replace(switches, **_OUTSIDE) == Switches():
        return fitted  # wind and stream alone: the boat is the same
    need = fitted.need
    if switches.heavier:
        more = switches.heavier * fitted.performance.displacement_kg
        need = replace(need, load=replace(need.load, gear_kg=need.load.gear_kg + more))
    if switches.months is not None:
        need = replace(need, hull=replace(need.hull, months_afloat=switches.months))
    if switches.temperature_c is not None:
        need = replace(need, day=replace(need.day, temperature_c=switches.temperature_c))
    if switches.start_charge is not None:
        need = replace(need, day=replace(need.day, start_charge=switches.start_charge))
    drag = fitted.drag_factor * switches.drag_factor
    return replace(
        fitted,
        need=need,
        ageing=switches.aged,
        table=None,
        drag_factor=drag,
        fetch_m=switches.fetch_m,
        depth_m=switches.depth_m,
        tow_length_m=switches.tow_length_m,
    )
