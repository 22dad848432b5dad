"""Cases of core/rules/limit_rules.py."""

from dataclasses import replace

from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.predict.capacity import without_plate
from jolvek.core.products.motor import Motor
from tests.core.rules.cases.made import AWASH, DEAD, HULL, TOP, at, fit, ids, run

PRAM = Hull("rigid_dinghy", 2.5, 1.25, 40, transom_height_m=0.36)


def run_without_plate(load):
    hull = Hull("rigid_dinghy", 3.2, 1.45, 65)
    return ids(without_plate(hull, load, 2000, load.total_kg + 30))


CASES = {
    "plate-power": (lambda w: fit(at(hull={"max_power_w": w})), (1201, 1200), (1199,)),
    "formula-power": (
        lambda w: fit(at({"transom_width_m": 0.95}), motor=Motor(w, voltage_v=24, mass_kg=14)),
        (2200, 2237),
        (2240, 2400),
    ),
    "formula-load": (
        lambda kg: run_without_plate(Load(2, 150, kg)),
        (0, 50),
        (90, 200),
    ),
    "formula-people": (lambda n: run_without_plate(Load(n)), (1, 3), (4, 6)),
    "approval-power": (lambda w: fit(at({"approval_power_w": w})), (1201, 1200), (1199,)),
    "approval-thrust": (lambda n: fit(at({"approval_thrust_n": n})), (500, None), (300,)),
    "approval-year": (
        lambda y: fit(at({"approval_from_year": 2018, "approval_to_year": 2022, "model_year": y})),
        (2018, 2022, None),
        (2017, 2023),
    ),
    "plate-load": (lambda kg: fit(at({"max_load_kg": kg})), (185.7, 185.6), (185.5,)),
    "plate-people": (lambda n: fit(at({"max_people": n})), (3, 2), (1,)),
    "motor-mass": (lambda kg: fit(at({"max_motor_kg": kg})), (15, 14), (13.9,)),
    "awash": (lambda kg: run(load=Load(2, 150, kg)), (DEAD - 1,), (DEAD + 0.001, DEAD + 1)),
    "low-freeboard": (
        lambda kg: run(load=Load(2, 150, kg)),
        (AWASH / 2 - HULL.mass_kg - 165,),
        (AWASH / 2 - HULL.mass_kg - 163,),
    ),
    "people-light": (lambda kg: run(load=Load(2, kg)), (81, 80), (79,)),
    "one-at-the-side": (
        lambda n: fit(replace(at(), hull=PRAM, load=Load(n, 80 * n))),
        (1,),
        (3,),
    ),
    "plate-above": (
        lambda m: fit(at(hull={"transom_height_m": m}), shaft_m=0.381),
        (0.36, 0.381, 0.42, 0.5),  # too short is a stop, and no caution beside it
        (0.395, 0.404),
    ),
    "overpowered": (
        lambda w: run(Motor(w, mass_kg=20), Hull("cabin", 6.5, 2.3, 1400)),
        (1000, 60000),  # that planes her
        (12000,),
    ),
    "weak-in-wind": (lambda v: run(Motor(150, mass_kg=5), wind_m_s=v), (0, 2), (20,)),
    "current-beats-boat": (lambda share: run(current_m_s=share * TOP), (0.99,), (1.0, 1.01)),
}
