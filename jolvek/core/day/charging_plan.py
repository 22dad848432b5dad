"""Charging as a plan: from shore with its limit and hours, from panels aboard, from a dock station
by month.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

from jolvek.core.electric.charging import Charger, at_once, soc_after, together_h
from jolvek.core.electric.chemistry import end_soc
from jolvek.core.enquiry.need import Day
from jolvek.core.enquiry.sun import sun_of
from jolvek.core.fit.fitted import Fitted
from jolvek.core.predict.solar import Panels, check_sun, sun_neutral_speed_m_s, sunshine
from jolvek.core.rules.findings import Finding, find

STATION_USABLE = 0.8  # of a dock station's battery; common practice, no source
STATION_EFFICIENCY = 0.85  # its battery and the way to the boat; common practice, no source
MOST_CHARGERS, QUICKER = 3, 0.99
MONTHS = "January February March April May June July August September October November December"


@dataclass(frozen=True)
class FromShore:
    """So many of the charger at once: watts drawn from shore, whether its limit holds them back,
    hours from the reserve to full, and the charge reached in the hours given.
    """

    chargers: int
    shore_w: float
    held_back: bool
    hours: float
    reached: float
    in_time: bool


@dataclass(frozen=True)
class Month:
    """A month of a dock station: what a day gives, Wh, and how many charges that is."""

    name: str
    day_wh: float
    charges: float


@dataclass(frozen=True)
class ChargingPlan:
    """How the bank is filled between outings; `charge_wh` is what one charge takes. Where the bank
    must not be charged (`Bank.takes_charge`) nothing aboard fills it.
    """

    charge_wh: float
    hours_each: float  # that each charge of the day may take
    shore: tuple[FromShore, ...]
    aboard_wh: float  # that panels aboard give into the bank on the day
    sun_speed_m_s: float | None  # that the noon sun alone holds
    months: tuple[Month, ...]
    station_holds: float  # charges that a full dock station gives without sun
    findings: tuple[Finding, ...]


def charging_plan(f: Fitted, solar_w: float | None = None) -> ChargingPlan:
    """The plan of a setup; `solar_w` are the panels that it really has.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> p = charging_plan(sample_fitted())
    >>> [s.chargers for s in p.shore], p.shore[0].in_time, p.aboard_wh
    ([1], True, 0.0)
    """
    day, bank = f.need.day, f.bank
    start = end_soc(bank.chem, day.reserve)
    charge_wh = (1 - start) * bank.energy_wh / bank.chem.charge_efficiency
    each = day.charge_h / day.charges_per_day
    shore = _from_shore(f, start, each) if day.shore_power else ()
    sun = sun_of(day, solar_w)
    noon = sun.noon_w if sun else 0.0
    speed = sun_neutral_speed_m_s(f.performance, noon, day.hotel_w) if sun else None
    aboard = sun.energy_wh if sun and bank.takes_charge else 0.0
    months = _months(day, charge_wh) if day.dock_solar_w else ()
    holds = STATION_USABLE * day.dock_battery_wh * STATION_EFFICIENCY / charge_wh
    found = _found(f, charge_wh, shore, aboard, months) + (check_sun(sun) if sun else [])
    return ChargingPlan(
        charge_wh, each, shore, aboard, speed, months, station_holds=holds, findings=tuple(found)
    )


def _from_shore(f: Fitted, start: float, each_h: float) -> tuple[FromShore, ...]:
    if f.charger is None or f.charge_h is None:
        return ()
    out: list[FromShore] = []
    one, limit = f.charger.spec, f.need.day.shore_limit_w
    for count in range(1, at_once(f.bank, one, MOST_CHARGERS) + 1):
        draws = count * one.mains_w
        share = min(1.0, limit / draws) if limit else 1.0
        held: list[Charger] = [replace(one, current_a=share * one.current_a)] * count
        hours = together_h(f.bank, held, start)
        if out and hours > QUICKER * out[-1].hours:
            break  # the quay, or the packs, let one more do nothing
        able = f.bank.takes_charge
        reached = float(soc_after(f.bank, held, each_h, start)) if able else start
        in_time = able and hours <= each_h
        out.append(FromShore(count, share * draws, share < 1, hours, reached, in_time))
    return tuple(out)


@lru_cache(maxsize=64)
def _yields_wh(rated_w: float, sky: str, latitude: float, longitude: float) -> tuple[float, ...]:
    """What a day in the middle of each month gives."""
    panels, year = Panels(rated_w, sky), 2026
    days = (f"{year}-{month:02d}-15" for month in range(1, 13))
    hours = float(round(longitude / 15))
    return tuple(sunshine(panels, latitude, longitude, day, hours).energy_wh for day in days)


def _months(day: Day, charge_wh: float) -> tuple[Month, ...]:
    """The dock station through the year, under the sky that is given."""
    yields = _yields_wh(day.dock_solar_w, day.sky, day.latitude_deg, day.longitude_deg)
    return tuple(
        Month(name, wh, STATION_EFFICIENCY * wh / charge_wh)
        for name, wh in zip(MONTHS.split(), yields, strict=True)
    )


def _found(
    f: Fitted,
    charge_wh: float,
    shore: tuple[FromShore, ...],
    aboard_wh: float,
    months: tuple[Month, ...],
) -> list[Finding]:
    """No shore and too little sun; more charges than the hours hold."""
    day, out = f.need.day, []
    month = months[int(day.date[5:7]) - 1] if months else None
    given = aboard_wh + (month.charges * charge_wh if month else 0.0)
    wanted = day.charges_per_day * charge_wh
    if not day.shore_power and given < wanted:
        out.append(find("no-shore", wanted, given))
    if shore and day.charges_per_day > 1 and not shore[0].in_time:
        out.append(find("charges-a-day", day.charges_per_day, day.charge_h / shore[0].hours))
    return out
