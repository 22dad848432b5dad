"""The schools side by side: what each rule of thumb says for this boat, what Jolvek's model says,
and why they differ.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from jolvek.core.base.messages import msg, percent
from jolvek.core.base.units import HORSEPOWER_W, KNOT_M_S, POUND_FORCE_N, POUND_KG
from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.sizing import Sizing, power_at_w, size
from jolvek.core.hydro.floating import hull_speed_m_s
from jolvek.core.hydro.resistance import Resistance, total_n
from jolvek.core.predict.performance import Performance
from jolvek.core.products.motor import Motor
from jolvek.core.rules.rule import COMMON

KW_PER_TONNE = {"motor": 2.0, "sail": 1.5}  # to near hull speed; common practice, no source
THRUST_SHARE = 0.02  # 2 lbf per 100 lb of boat; from memory, no source
TO_WATER = 0.55  # from battery to water, for the schools of shaft power
CROUCH_C = 150.0  # kn, lb, hp, light planing boats; Crouch's formula, from memory
RESERVES = {
    "fifth": msg("a fifth kept"),
    "thirds": msg("a third out, a third back, a third kept"),
    "hours": msg("an hour kept"),
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


LENGTH_ALONE = msg(
    "Length alone: the wave as long as the waterline. A label, not a wall; the last tenth of it"
    " costs about as much as the rest."
)


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
    mass, table, wind = sizing.displacement_kg, sizing.resistance, need.day.wind_m_s
    hull_speed = float(hull_speed_m_s(hull.waterline_m))
    return [
        _per_tonne(need, sizing, hull_speed),
        _thrust_per_weight(need, mass),
        Says(
            "hull-speed",
            msg("hull speed"),
            not sizing.must_plane,
            power_at_w(table, hull_speed, mass, wind),
            hull_speed,
            None,
            why=LENGTH_ALONE,
            source=COMMON,
        ),
        _power_to_weight(need, sizing, mass),
        _modelled(need, sizing),
    ]


def _modelled(need: Need, sizing: Sizing) -> Says:
    spread = sizing.power_spread(need)
    why = msg(
        "Hull form, load, wind, propeller and battery worked out together; four such boats in five"
        " take %(less)s less to %(more)s more.",
        less=percent(1 - 1 / spread),
        more=percent(spread - 1),
    )
    source = "ITTC 1957, Michell 1898, Savitsky 1964, Rankine–Froude"
    speed, power = need.day.speed_m_s, sizing.power_w
    return Says(
        "jolvek",
        msg("Jolvek's model"),
        True,
        power,
        speed,
        None,
        why=why,
        source=source,
        preferred=True,
    )


def _per_tonne(need: Need, sizing: Sizing, hull_speed: float) -> Says:
    fam, mass = need.hull.fam, sizing.displacement_kg
    per_tonne = KW_PER_TONNE["sail" if fam.sails else "motor"]
    reached = _speed_at(sizing.resistance, per_tonne * mass, mass, need.day.wind_m_s) / hull_speed
    return Says(
        "kw-per-tonne",
        msg("%(per_tonne)s kW per tonne", per_tonne=f"{per_tonne:g}"),
        not (fam.thrust_law or sizing.must_plane),
        per_tonne * mass,
        hull_speed,
        None,
        why=msg(
            "Weight alone: it knows neither length nor wind. The model gives that power "
            "%(reached)s of hull speed.",
            reached=percent(reached),
        ),
        source=COMMON,
    )


def _thrust_per_weight(need: Need, mass: float) -> Says:
    return Says(
        "thrust-per-weight",
        msg("2 lbf for every 100 lb"),
        need.hull.fam.thrust_law,
        None,
        None,
        THRUST_SHARE * mass / POUND_KG * POUND_FORCE_N,
        why=msg(
            "Thrust at rest for light boats; says nothing of speed, and claims of thrust are often"
            " too high."
        ),
        source=msg("from memory, no source"),
    )


def _power_to_weight(need: Need, sizing: Sizing, mass: float) -> Says:
    speed = need.day.speed_m_s
    shaft_w = (speed / KNOT_M_S / CROUCH_C) ** 2 * mass / POUND_KG * HORSEPOWER_W
    return Says(
        "power-to-weight",
        msg("power to weight, Crouch C %(crouch_c)s", crouch_c=f"{CROUCH_C:.0f}"),
        sizing.must_plane,
        float(shaft_w) / TO_WATER,
        speed,
        None,
        why=msg(
            "Speed from weight and shaft power once planing; it does not see the hump that must be"
            " climbed first."
        ),
        source=msg(
            "Crouch's formula, from memory; %(to_water)s from battery to water",
            to_water=percent(TO_WATER),
        ),
    )


def _speed_at(table: Resistance, power_w: float, mass: float, wind: float) -> float:
    speeds = np.linspace(0.4, 1.6, 25) * float(hull_speed_m_s(table.hull.waterline_m))
    motor, rho = Motor(float(np.clip(power_w, 100.0, 60e3))), table.water.density_kg_m3
    thrust = np.maximum(total_n(table, speeds, mass, wind, motor.leg_area_m2), 0.0)
    prop = motor.propulsor(rho, table.hull.efficiency_factor)
    powers = prop.drive.power_w(thrust, speeds, rho)
    return float(np.interp(power_w, np.maximum.accumulate(powers), speeds))


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
            msg(
                "Usual: power is cut back there anyway, and the last of the charge cannot be "
                "trusted."
            )
        ),
        "thirds": msg("The cautious one: right for open water, streams and a first season."),
        "hours": msg("From petrol days; small for a slow boat, large for a fast one."),
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
