"""The day as asked: the legs with their speeds, simulated weather, and the sun by the hour."""

from __future__ import annotations

from dataclasses import replace
from functools import lru_cache

from jolvek.core.day.forecast import Forecast, with_weather
from jolvek.core.day.outing import Outing, outing, with_legs
from jolvek.core.day.scenario import Switches, turn_index
from jolvek.core.day.stepped import sail_out
from jolvek.core.day.voyage import Voyage
from jolvek.core.electric.bank import Bank
from jolvek.core.enquiry.need import Leg, Need
from jolvek.core.fit.fitted import Fitted
from jolvek.formats import gpx_file
from jolvek.web.kit.worked import Worked
from jolvek.web.stations.day_out.form import Asked

OUT_COURSE_DEG = 200.0  # where legs have no places


def planned(need: Need, asked: Asked, forecast: Forecast) -> Need:
    """The need with the legs as asked: their speeds, and simulated wind and stream where switched
    on.
    """
    day = need.day
    if not asked.speeds and not asked.simulated:
        return need
    legs = tuple(
        replace(leg, speed_m_s=asked.speeds.get(i, leg.speed_m_s))
        for i, leg in enumerate(day.trip, 1)
    )
    if asked.simulated:
        place = (day.latitude_deg, day.longitude_deg)
        legs = with_weather(legs, _courses(need, legs), forecast, *place, day.date, day.start_h)
    return replace(need, day=replace(day, legs=legs))


def _courses(need: Need, legs: tuple[Leg, ...]) -> tuple[float, ...]:
    """Course of each leg: by its places, else out on one course and home on its opposite."""
    turn, out = turn_index(legs), []
    here = (need.day.latitude_deg, need.day.longitude_deg)
    for i, leg in enumerate(legs):
        if leg.latitude_deg is not None and leg.longitude_deg is not None:
            there = (leg.latitude_deg, leg.longitude_deg)
            out.append(gpx_file.bearing_deg(here, there))
            here = there
        else:
            out.append(OUT_COURSE_DEG if i < turn else (OUT_COURSE_DEG + 180) % 360)
    return tuple(out)


def run_day(need: Need, worked: list[Worked], hand: Worked, asked: Asked) -> Outing:
    """The core's answer for the setups that go out, the one in hand worked out whole."""
    if as_planned(asked) and need == hand.job.need:
        return hand.job.day
    chosen = worked if asked.everyone else [hand]
    fitted = {w.letter: with_legs(w.fitted, need) for w in chosen}
    return outing(fitted, hand.letter, asked.switches, asked.spare, asked.arrive_h, sail=_sailed)


def as_planned(asked: Asked) -> bool:
    """Whether nothing is asked but the day as planned, of one setup."""
    s = asked.switches
    usual = Switches(wind_from_h=s.wind_from_h, wind_against=s.wind_against)
    more = asked.spare or asked.everyone or asked.arrive_h
    return s == usual and not more


@lru_cache(maxsize=64)
def _sailed(fitted: Fitted, switches: Switches, spare: Bank | None) -> Voyage:
    """Remembered: the day as planned stands beside every other while the wind is dragged."""
    return sail_out(fitted, switches, spare)
