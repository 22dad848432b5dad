"""Speeds that owners report, from memory and good to about a tenth: wider evidence than the few
points that were measured, and no proof of any one boat. Petrol outboards stand with the input an
electric motor of their shaft power would take.
"""

from __future__ import annotations

from jolvek.core.base.units import HORSEPOWER_W
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.open_water import DRIVE_EFFICIENCY
from jolvek.core.hydro.water import Water
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor

# petrol outboards by hp: mass kg, propeller diameter m, its rev/min; common practice, no source
_PETROL = {
    2.5: (17, 0.19, 2600),
    5: (27, 0.20, 2500),
    6: (26, 0.20, 2600),
    8: (28, 0.215, 2600),
    9.9: (39, 0.235, 2700),
    15: (46, 0.24, 2900),
    25: (64, 0.255, 2700),
    30: (76, 0.26, 2900),
}


def _petrol(hp: float, pitch_m: float) -> Motor:
    mass, diameter, rpm = _PETROL[hp]
    return Motor(
        hp * HORSEPOWER_W / DRIVE_EFFICIENCY,
        mass_kg=mass,
        propeller_diameter_m=diameter,
        propeller_pitch_m=pitch_m,
        propeller_rpm=rpm,
    )


def _case(hull: Hull, people: int, gear_kg: float, motor: Motor, water: str = "salt") -> Setup:
    return Setup(hull, Load(people, 78.0 * people, gear_kg), motor, water=Water(water))


_SOFT, _AIR = Hull("inflatable_soft", 2.6, 1.5, 30), Hull("inflatable_air", 3.1, 1.55, 45)
_SMALL, _RIB = Hull("rib", 3.1, 1.6, 60), Hull("rib", 3.4, 1.7, 80)
_LARGE = Hull("rib", 4.2, 1.95, 190)
_JON, _TIN = Hull("flat_bottom", 4.3, 1.55, 120), Hull("rigid_dinghy", 3.6, 1.45, 75)
_PONTOON, _KEEL = Hull("pontoon", 6.1, 2.5, 850), Hull("keelboat", 7.5, 2.5, 2400)
_ONE_UP = _case(Hull("rib", 3.3, 1.65, 75), 1, 10, Motor(6000, mass_kg=33))
REPORTED: tuple[tuple[str, Setup, float, float], ...] = tuple(  # what, boat, W (0: all), kn
    (what, setup, watts or setup.motor.input_power_w, knots)
    for what, setup, watts, knots in (
        ("2.6 m soft floor, 2.5 hp, one", _case(_SOFT, 1, 10, _petrol(2.5, 0.12)), 0, 5.2),
        ("2.6 m soft floor, 2.5 hp, two", _case(_SOFT, 2, 10, _petrol(2.5, 0.12)), 0, 4.7),
        ("3.1 m air floor, 6 hp, one", _case(_AIR, 1, 15, _petrol(6, 0.18)), 0, 12.5),
        ("3.1 m air floor, 8 hp, two", _case(_AIR, 2, 15, _petrol(8, 0.2)), 0, 12.0),
        ("3.1 m RIB, 9.9 hp, two", _case(_SMALL, 2, 20, _petrol(9.9, 0.23)), 0, 16.5),
        ("3.4 m RIB, 15 hp, two", _case(_RIB, 2, 30, _petrol(15, 0.25)), 0, 21.0),
        ("3.4 m RIB, 15 hp, one", _case(_RIB, 1, 30, _petrol(15, 0.27)), 0, 23.5),
        ("4.2 m RIB, 30 hp, two", _case(_LARGE, 2, 60, _petrol(30, 0.33)), 0, 27.0),
        ("3.3 m RIB, 6 kW electric, one", _ONE_UP, 5500, 11.4),
        ("3.3 m RIB, 6 kW electric, one", _ONE_UP, 2000, 4.9),
        ("3.6 m aluminium, 9.9 hp, one", _case(_TIN, 1, 25, _petrol(9.9, 0.24)), 0, 18.0),
        ("3.6 m aluminium, 9.9 hp, two", _case(_TIN, 2, 25, _petrol(9.9, 0.24)), 0, 15.5),
        ("4.3 m flat bottom, 9.9 hp, two", _case(_JON, 2, 40, _petrol(9.9, 0.23)), 0, 15.5),
        ("4.3 m flat bottom, 25 hp, two", _case(_JON, 2, 50, _petrol(25, 0.31)), 0, 23.5),
        ("6.1 m pontoon, 9.9 hp, four", _case(_PONTOON, 4, 50, _petrol(9.9, 0.2), "fresh"), 0, 5.7),
        ("6.1 m pontoon, 25 hp, four", _case(_PONTOON, 4, 60, _petrol(25, 0.26), "fresh"), 0, 9.3),
        ("7.5 m keel boat, 1 kW electric", _case(_KEEL, 2, 100, Motor(1000, mass_kg=18)), 0, 4.0),
        ("7.5 m keel boat, 5 hp", _case(_KEEL, 2, 100, _petrol(5, 0.17)), 0, 5.4),
        ("7.5 m keel boat, 9.9 hp", _case(_KEEL, 2, 100, _petrol(9.9, 0.2)), 0, 6.1),
    )
)
