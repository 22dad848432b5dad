"""The first answer before any product is chosen: which power and how much battery a boat and a day
take.
"""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import lru_cache

import numpy as np

from jolvek.core.base.messages import msg
from jolvek.core.electric.chemistry import chemistry, temperature_factor
from jolvek.core.electric.discharge import delivered_share
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.hydro.families import family, typical_beam_m, typical_mass_kg
from jolvek.core.hydro.hull import ADULT_KG, Assumed, Hull
from jolvek.core.hydro.resistance import Resistance, leg_n, parts, table, total_n
from jolvek.core.predict.doubt import Doubt, doubt
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.hump import HUMP_MARGIN, PLANING_FROUDE, planing_power_w
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor

MOTOR_MARGIN = 1.25  # power in hand over what the wanted speed takes; common practice, no source
OUT_OF_REACH_W = 60_000.0  # more than any electric outboard of these boats gives


@dataclass(frozen=True)
class Sizing:
    """Power and energy for the wished day, SI; `motor_w` has power in hand for wind and tide."""

    power_w: float
    motor_w: float
    energy_wh: float  # rated lithium energy, the reserve on top
    lead_wh: float  # rated lead-acid energy for the same day
    hours: float
    displacement_kg: float
    speeds_m_s: tuple[float, ...]
    powers_w: tuple[float, ...]
    planing_power_w: float | None
    must_plane: bool
    resistance: Resistance
    no_way: bool  # the current is as fast as the wanted speed
    setup: Setup  # the boat with the motor taken as usual, for the doubt

    @property
    def doubt(self) -> Doubt:
        """How far power and energy may be off, whichever motor it becomes."""
        return _doubt_of(self.setup)

    def power_band_w(self, need: Need) -> tuple[float, float]:
        """Power in W that the wanted speed may take."""
        spread = self.power_spread(need)
        return self.power_w / spread, self.power_w * spread

    def power_spread(self, need: Need) -> float:
        """The upper end of that band over the figure itself."""
        return self.spread_at(need.day.speed_m_s)

    def spread_at(self, speed_m_s: float) -> float:
        """The same at any speed in m/s."""
        return float(np.exp(self.doubt.z * self.doubt.sigma_at(speed_m_s)))

    def one_more_share(self, need: Need) -> float:
        """What one person more takes of power at the wanted speed, as a share of it.

        >>> from jolvek.core.hydro.hull import Load
        >>> need = Need(typical_hull("kayak", 3.7)[0], Load(1))
        >>> 0.1 < size(need).one_more_share(need) < 1
        True
        """
        day, heavier = need.day, self.displacement_kg + ADULT_KG
        more = power_at_w(self.resistance, day.speed_m_s, heavier, day.wind_m_s)
        return more / max(self.power_w, 1e-6) - 1


@lru_cache(maxsize=64)
def _doubt_of(setup: Setup) -> Doubt:
    return doubt(evaluate(setup))


def typical_hull(family_id: str, length_m: float) -> tuple[Hull, list[Assumed]]:
    """A hull of that family and length (m) with beam and mass as usual, and what was assumed.

    >>> hull, assumed = typical_hull("inflatable_air", 2.9)
    >>> round(hull.mass_kg), [a.name for a in assumed]
    (38, ['hull.beam_m', 'hull.mass_kg'])
    """
    fam = family(family_id)
    length = min(max(length_m, 0.5), 30.0)
    beam, mass = round(typical_beam_m(fam, length), 2), round(typical_mass_kg(fam, length), 1)
    hull = Hull(family_id, length_m, beam, mass)
    why = msg("usual for a %(lower)s of that length", lower=fam.name.lower())
    return hull, [Assumed("hull.beam_m", beam, why), Assumed("hull.mass_kg", mass, why)]


def power_at_w(
    resistance: Resistance, speed_m_s: float, displacement_kg: float, wind_m_s: float = 0.0
) -> float:
    """Input power in W for a speed with the propeller usual for that power; hump included for
    planing.

    >>> from jolvek.core.hydro.water import Water
    >>> hull, _ = typical_hull("inflatable_air", 2.9)
    >>> 400 < power_at_w(table(hull, Water(), 220.0), 1.8, 220.0) < 700
    True
    """
    power, water = 1000.0, resistance.water
    rho, good = water.density_kg_m3, resistance.hull.efficiency_factor
    split = parts(resistance, speed_m_s, displacement_kg, wind_m_s)
    for _ in range(4):
        motor = Motor(float(np.clip(power * MOTOR_MARGIN, 100.0, 60e3)))
        prop = motor.propulsor(rho, good)
        thrust = split.total_n + leg_n(water, split, speed_m_s, motor.leg_area_m2)
        power = float(prop.drive.power_w(thrust, speed_m_s, rho))
        if resistance.planing_capable and speed_m_s > resistance.planing_speed_m_s(
            displacement_kg, PLANING_FROUDE * 0.8
        ):
            power = max(power, _hump_w(resistance, displacement_kg, motor, wind_m_s) or 0.0)
    return power


def _hump_w(r: Resistance, mass_kg: float, motor: Motor, wind_m_s: float) -> float | None:
    prop = motor.propulsor(r.water.density_kg_m3, r.hull.efficiency_factor)
    leg = motor.leg_area_m2
    return planing_power_w(r, mass_kg, prop, lambda v: total_n(r, v, mass_kg, wind_m_s, leg))


def size(need: Need, speeds_m_s: tuple[float, ...] = ()) -> Sizing:
    """Size motor and battery for a need; the masses of both are estimated and carried along.

    Lithium at about 110 Wh/kg, motors as estimated by power. Valid as `performance`.

    >>> from jolvek.core.hydro.hull import Load
    >>> hull, _ = typical_hull("kayak", 3.7)
    >>> s = size(Need(hull, Load(1, 85)))
    >>> 80 < s.power_w < 260
    True
    """
    s = _size(need)
    return (
        replace(
            s,
            speeds_m_s=speeds_m_s,
            powers_w=tuple(
                power_at_w(s.resistance, v, s.displacement_kg, need.day.wind_m_s)
                for v in speeds_m_s
            ),
        )
        if speeds_m_s
        else s
    )


@lru_cache(maxsize=64)
def _size(need: Need) -> Sizing:
    """Remembered: card, schools and waters of one page ask for the same need."""
    day, hull = need.day, need.hull
    trip, base = day.trip, hull.mass_kg + need.load.total_kg
    at = np.geomspace(base * 1.01, base * 1.6 + 120, 5)
    resistance = table(hull, need.water, at, need.load)
    hours = sum(leg.seconds for leg in trip) / 3600
    hotel_wh = day.hotel_w * (hours + sum(leg.hold_s for leg in trip) / 3600)
    mass, most, used = base + 25.0, 500.0, 1000.0
    ways = [(leg.speed_m_s, leg.wind_m_s) for leg in trip]
    wanted = (day.speed_m_s, day.wind_m_s)
    for _ in range(4):
        at_w = {way: power_at_w(resistance, way[0], mass, way[1]) for way in {*ways, wanted}}
        powers, power = [at_w[way] for way in ways], at_w[wanted]
        most = max(powers)
        used = sum(p * leg.seconds / 3600 for p, leg in zip(powers, trip, strict=True)) + hotel_wh
        energy = _rated(used, hours, "lfp", day)
        mass = base + min(energy, 40_000.0) / 110.0 + _motor_for(most).weight_kg
    edge = resistance.planing_speed_m_s(mass, 0.9 * PLANING_FROUDE)
    must = resistance.planing_capable and max(leg.speed_m_s for leg in trip) >= edge
    return Sizing(
        power,
        most * (1 + HUMP_MARGIN if must else MOTOR_MARGIN),
        energy,
        _rated(used, hours, "agm", day),
        hours,
        mass,
        speeds_m_s=(),
        powers_w=(),
        planing_power_w=_hump_w(resistance, mass, _motor_for(most), day.wind_m_s),
        must_plane=bool(must),
        resistance=resistance,
        no_way=need.day_blocked,
        setup=_usual(need, mass, most),
    )


def _usual(need: Need, mass_kg: float, power_w: float) -> Setup:
    """The boat at a displacement with a motor usual for a power; the battery counts as gear."""
    motor = Motor(float(np.clip(power_w * MOTOR_MARGIN, 100.0, 60e3)))
    more = max(mass_kg - need.hull.mass_kg - need.load.total_kg - motor.weight_kg, 0.0)
    load = replace(need.load, gear_kg=min(need.load.gear_kg + more, 20_000.0))
    return Setup(need.hull, load, motor, None, need.water, need.day.wind_m_s)


def _motor_for(power_w: float) -> Motor:
    """A motor with the usual margin over a steady power, for its weight and propeller."""
    return Motor(float(np.clip(power_w * MOTOR_MARGIN, 20, 1e5)))


def _rated(used_wh: float, hours: float, chem_id: str, day: Day) -> float:
    """Rated energy in Wh that gives `used_wh` over some hours in each run of a charge and keeps
    the reserve, by the chemistry's discharge.
    """
    chem = chemistry(chem_id)
    used_wh, hours = day.runs_a_charge * used_wh, day.runs_a_charge * max(hours, 1e-3)
    used_wh += used_wh / hours * day.keep_s / 3600
    energy = used_wh / max(min(day.start_charge - day.kept_share, chem.usable), 0.05)
    for _ in range(3):
        share = float(
            delivered_share(
                chem_id,
                used_wh / hours / max(energy, 1.0),
                day.kept_share,
                0.0,
                temperature_factor(chem, day.temperature_c),
                day.start_charge,
            )
        )
        energy = used_wh / max(share, 0.05)
    return energy
