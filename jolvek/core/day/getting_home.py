"""Does she get home? Point of no return, slowest and fastest speed, speed for an arrival, against a
stream, and under sail.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from jolvek.core.base.arrays import Array, Mask
from jolvek.core.day.aboard import MOST_SUN_S, Aboard
from jolvek.core.day.scenario import turn_index
from jolvek.core.enquiry.need import STILL_M_S, Leg
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.in_wind import in_wind
from jolvek.core.hydro.resistance import total_n
from jolvek.core.predict.performance import Performance

SPEEDS = 40
SUN_ROUNDS = 4  # of longer running in the sun
STEERAGE_M_S = 0.8  # over ground; slower she does not steer; common practice, no source
# C_P, C_T of a propeller made to push that the water turns, and what motor and controller keep of
# it; common practice, no source
TURBINE, TURBINE_DRAG, TURBINE_DRIVE = 0.16, 0.35, 0.70


@dataclass(frozen=True)
class NoReturn:
    """The furthest point from which she still comes home with the reserve: m from home, s after
    setting out; the turn as planned.
    """

    distance_m: float
    after_s: float
    planned_m: float

    @property
    def safe(self) -> bool:
        """Whether the planned turn lies before it."""
        return self.planned_m <= self.distance_m


def _side(fitted: Fitted, legs: tuple[Leg, ...]) -> tuple[float, float]:
    """(W, m/s over ground) of one side of the day at its wanted speeds, weighted by distance;
    ground speed 0: no way.
    """
    if not legs:
        return 0.0, 0.0
    metres = sum(leg.metres for leg in legs) or 1.0
    power = ground = 0.0
    for leg in legs:
        p = in_wind(fitted, leg.wind_m_s)
        speed = min(leg.speed_m_s, p.top_speed_m_s)
        share = leg.metres / metres
        power += share * ((p.at_speed(speed).power_w or p.power_limit_w) + fitted.need.day.hotel_w)
        ground += share * max(speed - leg.current_m_s, 0.0)
    return power, ground


def _staying_wh(fitted: Fitted, legs: tuple[Leg, ...]) -> float:
    """What the day takes in places that are held and while waiting, however far out they lie."""
    hotel, out = fitted.need.day.hotel_w, 0.0
    for leg in legs:
        out += hotel * leg.hold_s / 3600
        if leg.stays:
            power = in_wind(fitted, leg.wind_m_s).at_speed(leg.speed_m_s).power_w or 0.0
            out += (power + hotel) * leg.seconds / 3600
    return out


def _in_winds(fitted: Fitted, legs: tuple[Leg, ...]) -> dict[float, Performance]:
    """Her performance in each wind of the legs, worked out once."""
    return {wind: in_wind(fitted, wind) for wind in {leg.wind_m_s for leg in legs}}


def no_return(fitted: Fitted, legs: tuple[Leg, ...] = (), aboard: Aboard | None = None) -> NoReturn:
    """How far out she may go and still come home with the reserve, on the day's legs or others,
    with what is aboard.

    The way out at its mean power, home at its own; the bank's Peukert at the mean of both. Where no
    way is made homeward the point is the quay.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> from jolvek.core.enquiry.need import Day
    >>> n = no_return(sample_fitted(Day(1.5, 4000)))
    >>> n.safe, n.distance_m > 4000
    (True, True)
    """
    legs = legs or fitted.need.day.trip
    turn = turn_index(legs)
    out, home = legs[:turn] or legs, legs[turn:] or tuple(leg.back for leg in legs)
    planned = sum(leg.metres for leg in out)
    (p_out, v_out), (p_home, v_home) = _side(fitted, out), _side(fitted, home)
    if v_out <= STILL_M_S or v_home <= STILL_M_S:
        return NoReturn(0.0, 0.0, planned)
    slow = 1 / v_out + 1 / v_home  # s per metre out and home again
    mean = (p_out / v_out + p_home / v_home) / slow
    aboard = aboard or Aboard()
    seconds = float(aboard.lasts_s(fitted, mean))
    for _ in range(SUN_ROUNDS if aboard.sun_at else 0):  # the longer she runs, the more sun
        net = max(mean - float(aboard.sun_w(fitted, seconds, mean)), 1.0)
        seconds = min(float(aboard.lasts_s(fitted, net)), MOST_SUN_S)
    stays_s = 3600 * _staying_wh(fitted, legs) / max(mean, 1.0)
    reach = max(seconds - stays_s, 0.0) / slow
    return NoReturn(reach, reach / v_out, planned)


@dataclass(frozen=True)
class Homing:
    """Speeds through the water, m/s, that bring her home with the reserve; None where none does."""

    slowest_m_s: float | None
    fastest_m_s: float | None
    cheapest_m_s: float | None  # least energy for the way


def _day_energy(
    fitted: Fitted, legs: tuple[Leg, ...], winds: dict[float, Performance], speeds: Array
) -> tuple[Array, Array, Mask]:
    """(Wh, s, whether) for all legs at each of the speeds through the water; not where no way is
    made or she does not reach it.
    """
    energy, seconds, can = (
        np.zeros(speeds.size),
        np.zeros(speeds.size),
        np.ones(speeds.size, dtype=bool),
    )
    powers = {wind: p.power_at_w(speeds) for wind, p in winds.items()}
    for leg in legs:
        power, way = powers[leg.wind_m_s], speeds - leg.current_m_s
        if leg.stays:
            held = winds[leg.wind_m_s].at_speed(leg.speed_m_s).power_w
            power, way = np.full(speeds.size, np.nan if held is None else held), speeds
        can &= (way > STILL_M_S) & ~np.isnan(power)
        time = leg.seconds if leg.stays else leg.metres / np.maximum(way, STILL_M_S)
        seconds += time + leg.hold_s
        energy += (
            np.nan_to_num(power) * time / 3600
            + fitted.need.day.hotel_w * (time + leg.hold_s) / 3600
        )
    return energy, seconds, can & (seconds > 0)


def homing(fitted: Fitted, legs: tuple[Leg, ...] = (), aboard: Aboard | None = None) -> Homing:
    """The slowest and fastest single speed for all legs with which she comes home with the reserve,
    and the cheapest; with what is aboard.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> from jolvek.core.enquiry.need import Day
    >>> h = homing(sample_fitted(Day(1.5, 12000, current_m_s=.4)))
    >>> 0.8 < h.slowest_m_s <= h.cheapest_m_s <= h.fastest_m_s < 2.5
    True
    """
    day, aboard = fitted.need.day, aboard or Aboard()
    legs = legs or day.trip
    winds = _in_winds(fitted, legs)
    top = min(p.top_speed_m_s for p in winds.values())
    steer = STEERAGE_M_S + max(0.0, *(0.0 if leg.stays else leg.current_m_s for leg in legs))
    speeds = np.linspace(min(steer, top), top, SPEEDS)
    energy, seconds, can = _day_energy(fitted, legs, winds, speeds)
    if not can.any():
        return Homing(None, None, None)
    speeds, energy, seconds = speeds[can], energy[can], seconds[can]
    mean_w = 3600 * energy / seconds
    net_w = np.maximum(mean_w - aboard.sun_w(fitted, seconds, mean_w), 1.0)
    enough = aboard.lasts_s(fitted, net_w) >= seconds
    if not enough.any():
        return Homing(None, None, None)
    good = speeds[enough]
    return Homing(float(good[0]), float(good[-1]), float(good[np.argmin(energy[enough])]))


def speed_for_arrival_m_s(fitted: Fitted, hours: float, legs: tuple[Leg, ...] = ()) -> float | None:
    """The one speed through the water that brings her round all legs in so many hours; None where
    she cannot.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> from jolvek.core.enquiry.need import Day
    >>> round(speed_for_arrival_m_s(sample_fitted(Day(1.5, 5400)), 1.0), 2)
    1.5
    """
    legs = legs or fitted.need.day.trip
    top = min(p.top_speed_m_s for p in _in_winds(fitted, legs).values())

    def time(speed: float) -> float:
        ways = [float("inf") if leg.stays else speed - leg.current_m_s for leg in legs]
        stays = sum(leg.hold_s + (leg.seconds if leg.stays else 0.0) for leg in legs)
        if min(ways) <= STILL_M_S:
            return float("inf")
        return stays + sum(leg.metres / way for leg, way in zip(legs, ways, strict=True))

    if time(top) > 3600 * hours:
        return None
    low, high = 0.05, top
    for _ in range(50):
        middle = 0.5 * (low + high)
        low, high = (low, middle) if time(middle) <= 3600 * hours else (middle, high)
    return high


def best_against_m_s(performance: Performance, stream_m_s: float) -> float | None:
    """The speed through the water that takes least energy per metre over ground against a stream;
    None where none makes way.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.products.motor import Motor
    >>> from jolvek.core.predict.setup import Setup
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> p = evaluate(Setup(Hull("canoe", 4.8, .9, 32), Load(2), Motor(600)))
    >>> best_against_m_s(p, 0.8) > best_against_m_s(p, 0.3) > 0.3
    True
    """
    speed = np.linspace(max(stream_m_s + 0.05, 0.25), performance.top_speed_m_s, 120)
    if speed[0] >= performance.top_speed_m_s:
        return None
    cost = np.array(
        [(performance.at_speed(float(v)).power_w or np.inf) / (v - stream_m_s) for v in speed]
    )
    return float(speed[int(np.argmin(cost))])


@dataclass(frozen=True)
class Regeneration:
    """What the propeller gives back under sail: W into the bank, and the speed it costs, m/s."""

    power_w: float
    lost_m_s: float


def regeneration(performance: Performance, sail_speed_m_s: float) -> Regeneration:
    """An estimate of regeneration under sail: what a propeller worked backwards takes from the
    water as a turbine, less the motor's losses and its idling, and what its drag costs.

    ½ρAV³ C_P, drag ½ρAV² C_T; blades curved the wrong way give a quarter of what a turbine of that
    size would. C_P and C_T are common practice (100 to 150 W from 0.32 m at 6 kn), no source; the
    drag is held to 0.4 of the boat's own.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.products.motor import Motor
    >>> from jolvek.core.predict.setup import Setup
    >>> boat = Hull("keelboat", 8, 2.6, 3000)
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> r = regeneration(evaluate(Setup(boat, Load(3), Motor(6000, mass_kg=60))), 3.1)
    >>> 30 < r.power_w < 500, 0 < r.lost_m_s < 0.6
    (True, True)
    """
    prop, setup = performance.propulsor, performance.setup
    rho = setup.water.density_kg_m3
    disc = np.pi / 4 * prop.diameter_m**2
    push = TURBINE_DRAG * 0.5 * rho * disc * sail_speed_m_s**2
    own = float(total_n(performance.resistance, sail_speed_m_s, performance.displacement_kg))
    drag = min(push, 0.4 * own)
    slower = np.linspace(0.5, 1.0, 60) * sail_speed_m_s
    with_drag = (
        total_n(performance.resistance, slower, performance.displacement_kg)
        + drag * (slower / sail_speed_m_s) ** 2
    )
    now = float(np.interp(own, with_drag, slower))
    power = TURBINE * TURBINE_DRIVE * 0.5 * rho * disc * now**3
    return Regeneration(max(power, 0.0), sail_speed_m_s - now)
