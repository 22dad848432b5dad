"""The schools side by side: what each rule of thumb says for this boat, what Jolvek's model says,
and why they differ.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from jolvek.core.base.units import HORSEPOWER_W, KNOT_M_S, POUND_FORCE_N, POUND_KG
from jolvek.core.electric.chemistry import chemistry
from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.sizing import power_at_w, size
from jolvek.core.hydro.floating import hull_speed_m_s
from jolvek.core.hydro.resistance import Resistance
from jolvek.core.predict.performance import Performance

KW_PER_TONNE = {"motor": 2.0, "sail": 1.5}  # to near hull speed; common practice, no source
THRUST_SHARE = 0.02  # 2 lbf per 100 lb of boat; from memory, no source
CROUCH_C = 150.0  # kn, lb, hp, light planing boats; Crouch's formula, from memory
RESERVES = {
    "fifth": "a fifth kept",
    "thirds": "a third out, a third back, a third kept",
    "hours": "an hour kept",
}


@dataclass(frozen=True)
class Says:
    """One school's word: power in W for a speed in m/s, either empty where it does not apply, and
    why it differs.
    """

    id: str
    name: str
    applies: bool
    power_w: float | None
    speed_m_s: float | None
    thrust_n: float | None
    why: str
    source: str
    preferred: bool = False


def power_schools(need: Need) -> list[Says]:
    """What each school says of power and speed for this boat and load; Jolvek's own model is the
    preferred one.

    Rows in the order kW per tonne, thrust per weight, hull speed, power to weight for planing,
    Jolvek.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> rows = power_schools(Need(Hull("cabin", 6.5, 2.3, 1400), Load(2, 160)))
    >>> [r.id for r in rows if r.applies]
    ['kw-per-tonne', 'hull-speed', 'jolvek']
    """
    sizing, hull = size(need), need.hull
    mass, table = sizing.displacement_kg, sizing.resistance
    hull_speed = float(hull_speed_m_s(hull.waterline_m))
    kind = "sail" if hull.fam.sails else "motor"
    by_weight = KW_PER_TONNE[kind] * mass
    reached = _speed_at(table, by_weight, mass, need.day.wind_m_s)
    thrust = THRUST_SHARE * mass / POUND_KG * POUND_FORCE_N
    crouch = ((need.day.speed_m_s / KNOT_M_S) / CROUCH_C) ** 2 * mass / POUND_KG * HORSEPOWER_W
    at_hull = power_at_w(table, hull_speed, mass, need.day.wind_m_s)
    floats = not (hull.fam.thrust_law or sizing.must_plane)
    return [
        Says(
            "kw-per-tonne",
            f"{KW_PER_TONNE[kind]:g} kW per tonne",
            floats,
            by_weight,
            hull_speed,
            None,
            "Weight alone: it knows neither length nor wind. The model gives that power"
            f" {reached / hull_speed:.0%} of hull speed.",
            "common practice, no source",
        ),
        Says(
            "thrust-per-weight",
            "2 lbf for every 100 lb",
            hull.fam.thrust_law,
            None,
            None,
            thrust,
            "Thrust at rest for light boats; says nothing of speed, and claims of thrust are often"
            " too high.",
            "from memory, no source",
        ),
        Says(
            "hull-speed",
            "hull speed",
            not sizing.must_plane,
            at_hull,
            hull_speed,
            None,
            "Length alone: the wave as long as the waterline. A label, not a wall; the last tenth"
            " of it costs about as much as the rest.",
            "common practice, no source",
        ),
        Says(
            "power-to-weight",
            f"power to weight, Crouch C {CROUCH_C:.0f}",
            sizing.must_plane,
            float(crouch) / 0.55,
            need.day.speed_m_s,
            None,
            "Speed from weight and shaft power once planing; it does not see the hump that must be"
            " climbed first.",
            "Crouch's formula, from memory; 55 % from battery to water",
        ),
        Says(
            "jolvek",
            "Jolvek's model",
            True,
            sizing.power_w,
            need.day.speed_m_s,
            None,
            "Hull form, load, wind, propeller and battery worked out together; ± 12 % of speed"
            " until tried on the water.",
            "ITTC 1957, Michell 1898, Savitsky 1964, Rankine–Froude",
            True,
        ),
    ]


def _speed_at(table: Resistance, power_w: float, mass: float, wind: float) -> float:
    speeds = np.linspace(0.4, 1.6, 25) * float(hull_speed_m_s(table.hull.waterline_m))
    powers = np.maximum.accumulate([power_at_w(table, float(v), mass, wind) for v in speeds])
    return float(np.interp(power_w, powers, speeds))


@dataclass(frozen=True)
class Reserve:
    """One school of reserve: the share of the charge it keeps here, and the range it leaves at a
    speed.
    """

    id: str
    name: str
    kept: float
    range_m: float
    preferred: bool
    why: str


def reserve_schools(performance: Performance, speed_m_s: float) -> list[Reserve]:
    """A fifth, thirds, and an hour kept, for one setup at a speed; empty where there is no bank or
    no way is made.

    >>> from jolvek.core.electric.bank import Bank
    >>> from jolvek.core.electric.battery import Battery
    >>> from jolvek.core.predict.setup import Setup
    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.products.motor import Motor
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> motor, bank = Motor(600, voltage_v=24), Bank(Battery("lfp", 25.6, 50))
    >>> p = evaluate(Setup(Hull("canoe", 4.8, .9, 32), Load(2), motor, bank))
    >>> [r.id for r in reserve_schools(p, 1.5)], reserve_schools(p, 1.5)[0].preferred
    (['fifth', 'thirds', 'hours'], True)
    """
    from jolvek.core.electric.bank import runtime_s

    at, setup = performance.at_speed(min(speed_m_s, performance.top_speed_m_s)), performance.setup
    if setup.bank is None or at.power_w is None or at.speed_m_s is None:
        return []
    way = max(at.speed_m_s - setup.current_m_s, 0.0)
    hour = min(at.power_w / setup.bank.energy_wh, 0.9)
    whys = {
        "fifth": (
            "Usual: power is cut back there anyway, and the last of the charge cannot be trusted."
        ),
        "thirds": "The cautious one: right for open water, streams and a first season.",
        "hours": "From petrol days; small for a slow boat, large for a fast one.",
    }
    kept = {"fifth": 0.2, "thirds": 1 / 3, "hours": hour}
    return [
        Reserve(
            key,
            RESERVES[key],
            share,
            way * float(runtime_s(setup.bank, at.power_w, share)),
            key == "fifth",
            whys[key],
        )
        for key, share in kept.items()
    ]


@dataclass(frozen=True)
class Choice:
    """One of two or three ways to do a thing, with what speaks for it; one is preferred and says
    why.
    """

    question: str
    name: str
    figure: str
    speaks_for: str
    preferred: bool
    why: str = ""


def battery_schools(need: Need) -> list[Choice]:
    """Lead or lithium, on the motor or apart, one size up or just enough: for this day, none
    hidden.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> rows = battery_schools(Need(Hull("kayak", 3.7, .78, 34), Load(1)))
    >>> [r.name for r in rows if r.preferred]
    ['lithium', 'integrated', 'just enough']
    """
    s, hull = size(need), need.hull
    kilos = {
        k: wh / (sum(chemistry(k).wh_per_kg) / 2)
        for k, wh in (("lfp", s.energy_wh), ("agm", s.lead_wh))
    }
    light_boat = kilos["agm"] > 0.08 * (hull.mass_kg + need.load.total_kg)
    small = s.energy_wh < 1600 and s.power_w < 1200
    margin = (
        need.day.wind_m_s > 6
        or need.day.current_m_s > 0.7
        or need.site.max_load_kg is not None
        and hull.mass_kg > 800
    )
    return [
        Choice(
            "chemistry",
            "lithium",
            f"{s.energy_wh / 1000:.1f} kWh, about {kilos['lfp']:.0f} kg",
            "Most of the charge usable, a third of the weight, thousands of cycles; dear.",
            light_boat or s.energy_wh > 3000,
            (
                "The lead for this day would weigh too much for the boat."
                if light_boat
                else (
                    "So much lead would be hard to place and to lift." if s.energy_wh > 3000 else ""
                )
            ),
        ),
        Choice(
            "chemistry",
            "lead-acid, AGM",
            f"{s.lead_wh / 1000:.1f} kWh, about {kilos['agm']:.0f} kg",
            "Cheap and forgiving to charge; half the charge usable, heavy, fewer cycles.",
            not (light_boat or s.energy_wh > 3000),
            (
                ""
                if light_boat or s.energy_wh > 3000
                else "The day is short and the boat carries the weight: the cheaper one does."
            ),
        ),
        Choice(
            "place",
            "integrated",
            "one clip-on pack",
            "Nothing to wire, charge shown, lifts off in two parts; one voltage, one maker.",
            small,
            "The day fits into one clip-on pack." if small else "",
        ),
        Choice(
            "place",
            "separate",
            "bank in a bay",
            "Any size, weight where the boat wants it, cheaper per kWh; cable, fuse and monitor to"
            " fit.",
            not small,
            "" if small else "More energy or power than clip-on packs give.",
        ),
        Choice(
            "size",
            "just enough",
            f"{s.motor_w:.0f} W",
            "Least weight and money; a quarter of the power in hand.",
            not margin,
            (
                ""
                if margin
                else "Sheltered water and little stream: more power would only be carried about."
            ),
        ),
        Choice(
            "size",
            "one size up",
            f"{s.motor_w * 1.5:.0f} W",
            "Push against wind and tide, and a longer life at low load; more than the hull can use"
            " is wasted.",
            margin,
            "Wind, stream or windage ask for power in hand." if margin else "",
        ),
    ]
