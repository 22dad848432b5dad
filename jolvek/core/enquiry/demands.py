"""The day's legs as demands: power and energy of each, which one decides, and why."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.enquiry.need import Day, Leg, Need
from jolvek.core.enquiry.sizing import Sizing, power_at_w, size


@dataclass(frozen=True)
class Demand:
    """What one leg asks for: W, s under way, Wh, and what makes it hard: speed, current, wind or
    length.
    """

    leg: Leg
    power_w: float
    seconds: float
    energy_wh: float
    hard_by: str
    possible: bool  # the current leaves some way to make


def demands(need: Need, sizing: Sizing | None = None) -> list[Demand]:
    """Power and energy of every leg of the day at its wanted speed, with the motor and battery
    usual for the day.

    Validity as `sizing.size`. A leg whose current is as fast as the boat is marked as not possible.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> legs = (Leg("out", 1.5, 3000.0, None, -0.3), Leg("home", 1.5, 3000.0, None, 0.6))
    >>> rows = demands(Need(Hull("canoe", 4.8, .9, 32), Load(2), day=Day().with_legs(legs)))
    >>> [r.hard_by for r in rows], rows[1].energy_wh > 1.9 * rows[0].energy_wh
    (['speed', 'current'], True)
    """
    sizing = sizing or size(need)
    mass, table = sizing.displacement_kg, sizing.resistance
    out = []
    for leg in need.day.trip:
        power = power_at_w(table, leg.speed_m_s, mass, leg.wind_m_s)
        calm = power_at_w(table, leg.speed_m_s, mass, 0.0)
        seconds = leg.seconds
        lost = {
            "current": (
                seconds * power - (leg.metres / leg.speed_m_s) * power
                if leg.current_m_s > 0
                else 0.0
            ),
            "wind": (power - calm) * seconds if leg.wind_m_s > 0 else 0.0,
        }
        worst = max(lost, key=lambda k: lost[k])
        hard = (
            worst
            if lost[worst] > 0.15 * power * seconds
            else "length"
            if seconds > 3 * 3600
            else "speed"
        )
        energy = power * seconds / 3600 + need.day.hotel_w * (seconds + leg.hold_s) / 3600
        out.append(Demand(leg, power, seconds, energy, hard, not leg.blocked))
    return out


def hardest(rows: list[Demand]) -> Demand:
    """The leg that decides: one that cannot be run at all, else the one that takes the most energy.

    >>> a, b = (Demand(Leg("x", 1.0, 100.0), 100.0, 100.0, e, "speed", True) for e in (5.0, 9.0))
    >>> hardest([a, b]).energy_wh
    9.0
    """
    return min(rows, key=lambda r: (r.possible, -r.energy_wh))


def over_limit(day: Day) -> list[Leg]:
    """Legs whose wanted speed over ground is above the place's speed limit.

    >>> [leg.name for leg in over_limit(Day(speed_m_s=3.0, speed_limit_m_s=2.6))]
    ['out', 'home']
    """
    if day.speed_limit_m_s is None:
        return []
    return [
        leg
        for leg in day.trip
        if leg.speed_m_s - leg.current_m_s > day.speed_limit_m_s * (1 + 1e-9)
    ]
