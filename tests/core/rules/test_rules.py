"""The rule book: every rule is said above its limit and held back below; what stands at the limit
is right.
"""

from dataclasses import replace

import numpy as np
import pytest

from jolvek import demo
from jolvek.cli.bench import launch, made_shelf
from jolvek.core.electric import bank as banks
from jolvek.core.electric import charging, wire_sizes
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.electric.netlist import Loads12V, Plan
from jolvek.core.electric.network import check_wiring
from jolvek.core.electric.wiring import install
from jolvek.core.enquiry.need import Day, Leg, Need
from jolvek.core.enquiry.site import Bay, Site
from jolvek.core.fit.fitted import Fitted
from jolvek.core.hydro.floating import awash_kg
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.water import Water
from jolvek.core.match.matching import match
from jolvek.core.predict import solar
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.limits import check_performance, electrical
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from jolvek.core.products.shelf import Item, Shelf
from jolvek.core.rules.findings import LEVELS, find
from jolvek.core.rules.rulebook import RULES

HULL = Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=0.36)
LFP = Battery(
    "lfp", 25.6, 100, 11.6, 100, 200, length_m=0.33, width_m=0.17, height_m=0.22, monitor=True
)
NEED = Need(
    HULL,
    Load(2, 150, 10),
    Site(("transom",), (Bay("locker", 0.8, 0.4, 0.3, 60, 1.2),)),
    Water("fresh"),
    Day(1.6, 4000, 0.2, charge_h=24),
)


def ids(findings):
    return {f.rule for f in findings}


QUAY = Charger(24, 20, ("lfp", "agm"))


def fit(
    need=NEED,
    battery=LFP,
    motor=None,
    mount=None,
    charger=QUAY,
    style="outboard",
    noise=None,
    **more,
):
    motor, mount = (
        motor or Motor(1200, voltage_v=24, mass_kg=14),
        mount or Mount("transom_clamp", 60, 2000),
    )
    c = Item("c", "M", "c", 100, charger) if charger else None
    return ids(
        Fitted(
            need,
            Item("m", "M", "m", 900, motor, style, noise_db=noise),
            Item("b", "M", "b", 800, battery),
            Item("k", "M", "k", 50, mount),
            c,
            **{"shaft_m": 0.381, **more},
        ).findings
    )


def at(site=None, day=None, hull=None, load=None, water=None):
    return replace(
        NEED,
        site=replace(NEED.site, **site or {}),
        day=replace(NEED.day, **day or {}),
        hull=replace(NEED.hull, **hull or {}),
        load=replace(NEED.load, **load or {}),
        water=water or NEED.water,
    )


def matched(need=NEED, motors=((1200, 24, 900),), batteries=((25.6, 100, 800),), mounts=True):
    shelf = Shelf(
        tuple(
            Item(
                f"m{i}",
                "M",
                f"m{i}",
                price,
                Motor(w, voltage_v=v, mass_kg=14),
                "outboard",
                (0.381,),
                noise_db=60,
            )
            for i, (w, v, price) in enumerate(motors)
        ),
        tuple(
            Item(f"b{i}", "M", f"b{i}", price, Battery("lfp", v, ah, 12, 100))
            for i, (v, ah, price) in enumerate(batteries)
        ),
        (Item("k", "M", "k", 50, Mount("transom_clamp", 60, 2000)),) if mounts else (),
        (Item("c", "M", "c", 100, Charger(24, 20, ("lfp",))),),
    )
    m = match(need, shelf)
    return ids([*m.motor_reasons.values(), *m.battery_reasons.values()])


def thinned(most):
    shelf = made_shelf(6, 12)
    with pytest.MonkeyPatch.context() as patch:
        patch.setattr("jolvek.core.match.matching.MOST", most)
        m = match(launch(), shelf)
    return ids([*m.motor_reasons.values(), *m.battery_reasons.values()])


def elec(motor, battery, s=1, p=1, gauge="monitor"):
    return ids(electrical(motor, Bank(battery, s, p), gauge))


def run(motor=None, hull=HULL, load=None, bank=None, **more):
    return ids(
        check_performance(
            evaluate(
                Setup(
                    hull,
                    load or Load(2, 150),
                    motor or Motor(1200, mass_kg=14),
                    bank,
                    Water("fresh"),
                    **more,
                )
            )
        )
    )


TOP = evaluate(
    Setup(HULL, Load(2, 150), Motor(1200, mass_kg=14), None, Water("fresh"))
).top_speed_m_s
KAYAK = Need(
    Hull("kayak", 3.75, 0.84, 36),
    Load(1, 85),
    Site(("rail",)),
    Water("fresh"),
    Day(1.2, 4000, charge_h=24),
)
POLE = Motor(500, voltage_v=24, mass_kg=8)
SIDE = Mount("side_bar", 15, 400, offset_m=0.42)
AWASH = awash_kg(HULL, Water("fresh").density_kg_m3)
DEAD = AWASH - HULL.mass_kg - 150 - 14
SAIL = Need(
    Hull("sailing_dinghy", 4.8, 1.8, 180, transom_height_m=0.42),
    Load(2, 150),
    Site(("transom",)),
    Water("fresh"),
    Day(1.5, 4000, charge_h=24),
)
BESIDE = Mount("offset_bracket", 40, 900, offset_m=0.32, drop_m=0.1)
NO_BAY = {"bays": ()}

# rule → (what it says at a figure, figures that are silent, figures that speak);
# the limit itself stands among them
CASES = {
    "voltage-high": (
        lambda v: elec(Motor(1000, voltage_v=24, voltage_min_v=18, voltage_max_v=v), LFP),
        (29.21, 29.2),
        (29.1,),
    ),
    "voltage-low": (
        lambda v: elec(Motor(1000, voltage_v=24, voltage_min_v=v), LFP),
        (24, 25.4),
        (26.5,),
    ),
    "voltage-ends-early": (
        lambda v: elec(Motor(1000, voltage_v=24, voltage_min_v=v), LFP),
        (22.3, 24.7),
        (25.1,),
    ),
    "series-most": (
        lambda s: elec(Motor(500, voltage_v=48), replace(LFP, max_series=2), s),
        (1, 2),
        (3,),
    ),
    "parallel-most": (
        lambda p: elec(Motor(500, voltage_v=24), replace(LFP, max_parallel=2), 1, p),
        (1, 2),
        (3,),
    ),
    "charge-voltage-unknown": (
        lambda v: ids(
            charging.check_charging(Bank(LFP), [Charger(24, 20, ("lfp",), charge_voltage_v=v)], 24)
        ),
        (29.2, 28.4),
        (None,),
    ),
    "packs-in-turn": (
        lambda n: ids(
            charging.check_charging(
                Bank(replace(LFP, nominal_voltage_v=12.8), 2),
                [Charger(12, 20, ("lfp",), outputs=n)],
                24,
            )
        ),
        (2, 3),
        (1,),
    ),
    "fuse-most": (
        lambda a: elec(Motor(48 * a, voltage_v=48), replace(LFP, max_continuous_a=900), 2),
        (300, 340),
        (405,),
    ),
    "voltage-none": (lambda v: matched(batteries=((v, 100, 800),)), (25.6,), (51.2,)),
    "pack-own": (
        lambda v: ids(
            match(
                NEED,
                Shelf(
                    (Item("m", "M", "m", 1, Motor(600, voltage_v=24), "outboard", (0.381,), v),),
                    (Item("b", "M", "b", 1, LFP),),
                    (Item("k", "M", "k", 1, Mount("transom_clamp", 60, 2000)),),
                ),
            ).motor_reasons.values()
        ),
        ((), ("b",)),
        (("other",),),
    ),
    "no-bank": (lambda kg: matched(at({"max_load_kg": kg})), (400.0,), (150.0,)),
    "current-continuous": (
        lambda w: elec(Motor(w, voltage_v=24), replace(LFP, nominal_voltage_v=24.0)),
        (2399, 2400),
        (2401,),
    ),
    "current-unknown": (
        lambda w: elec(Motor(w, voltage_v=24), Battery("lfp", 24, 100)),
        (2399, 2400),
        (2401,),
    ),
    "connector-limit": (
        lambda a: elec(Motor(1200, voltage_v=24), replace(LFP, connector_max_a=a)),
        (51, 50),
        (49,),
    ),
    "bms-limit": (
        lambda a: elec(Motor(1200, voltage_v=24), replace(LFP, bms_max_a=a)),
        (51, 50),
        (49,),
    ),
    "current-peak": (
        lambda w: elec(Motor(1000, w, 24), replace(LFP, max_peak_a=105)),
        (2519, 2520),
        (2521,),
    ),
    "controller-limits": (
        lambda a: elec(Motor(1280, voltage_v=24, controller_max_a=a), LFP),
        (55, 52),
        (51,),
    ),
    "voltage-dangerous": (
        lambda v: elec(
            Motor(1000, voltage_v=48, voltage_max_v=70),
            replace(LFP, nominal_voltage_v=51.2, full_voltage_v=v),
        ),
        (59.9, 60.0),
        (60.1,),
    ),
    "high-current": (lambda w: elec(Motor(w, voltage_v=24), LFP), (1199,), (1200, 1201)),
    "gauge-lithium": (lambda g: elec(Motor(500), LFP, gauge=g), ("monitor", ""), ("voltage",)),
    "gauge-missing": (lambda g: elec(Motor(500), LFP, gauge=g), ("monitor", "voltage"), ("",)),
    "lead-ventilation": (
        lambda c: elec(Motor(500), Battery(c, 24, 100)),
        ("lfp", "nmc"),
        ("agm", "gel", "flooded"),
    ),
    "lithium-charging": (
        lambda c: elec(Motor(500), Battery(c, 24, 100)),
        ("agm", "gel", "flooded"),
        ("lfp", "nmc"),
    ),
    "no-battery": (lambda b: run(bank=b), (Bank(LFP),), (None,)),
    "mixed-bank": (
        lambda ah: ids(filter(None, [banks.mixed([LFP, replace(LFP, capacity_ah=ah)])])),
        (100,),
        (99, 101),
    ),
    "bank-hot": (lambda c: ids(banks.weather(Bank(LFP, temperature_c=c))), (44, 45), (46,)),
    "bank-cold": (lambda c: ids(banks.weather(Bank(LFP, temperature_c=c))), (6, 5), (4,)),
    "too-slow": (
        lambda v: matched(
            at(day={"speed_m_s": v}), ((400, 24, 500), (1900, 24, 1500)), ((25.6, 300, 800),)
        ),
        (1.2,),
        (1.95,),
    ),
    "too-slow-all": (lambda v: matched(at(day={"speed_m_s": v})), (1.6,), (6.0,)),
    "too-short": (lambda d: matched(at(day={"distance_m": d})), (4000,), (4e5,)),
    "short-of-day": (lambda d: fit(at(day={"distance_m": d})), (4000,), (4e5,)),
    "day-energy": (
        lambda m: matched(
            replace(NEED, day=NEED.day.with_legs((Leg("out", 1.6, m), Leg("back", 1.6, m))))
        ),
        (2000,),
        (2e5,),
    ),
    "beaten": (lambda most: thinned(most), (10**6,), (10,)),
    "too-dear": (lambda b: matched(at(day={"budget": b})), (2000.0, 1850.0), (1849.0,)),
    "plate-power": (lambda w: fit(at(hull={"max_power_w": w})), (1201, 1200), (1199,)),
    "formula-power": (
        lambda w: fit(at({"transom_width_m": 0.95}), motor=Motor(w, voltage_v=24, mass_kg=14)),
        (2200, 2237),
        (2240, 2400),
    ),
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
    "overpowered": (
        lambda w: run(Motor(w, mass_kg=20), Hull("cabin", 6.5, 2.3, 1400)),
        (1000,),
        (12000,),
    ),
    "weak-in-wind": (lambda v: run(Motor(150, mass_kg=5), wind_m_s=v), (0, 2), (20,)),
    "current-beats-boat": (lambda share: run(current_m_s=share * TOP), (0.99,), (1.0, 1.01)),
    "hull-does-not-plane": (
        lambda w: run(Motor(w, mass_kg=20), Hull("keelboat", 6, 2.2, 600)),
        (2000,),
        (60000,),
    ),
    "does-not-plane": (lambda w: run(Motor(w, mass_kg=20)), (600, 9000), (2000,)),
    "beyond-tried": (
        lambda w: run(Motor(w, mass_kg=20), Hull("canoe", 4.8, 0.9, 32), Load(1)),
        (1000,),
        (12000,),
    ),
    "pitch-bound": (
        lambda rpm: run(
            Motor(
                1200,
                mass_kg=14,
                propeller_diameter_m=0.26,
                propeller_pitch_m=0.15,
                propeller_rpm=rpm,
            )
        ),
        (2500,),
        (700,),
    ),
    "thrust-claim": (
        lambda n: run(Motor(2400, propeller_diameter_m=0.27, static_thrust_n=n)),
        (680, 690),
        (711,),
    ),
    "thrust-impossible": (
        lambda n: run(Motor(2400, propeller_diameter_m=0.27, static_thrust_n=n)),
        (711, 870),
        (900,),
    ),
    "life-jacket": (lambda w: run(Motor(w)), (), (500,)),
    "salt-anode": (lambda kind: fit(at(water=Water(kind))), ("fresh",), ("salt",)),
    "shaft-short": (lambda m: fit(at(hull={"transom_height_m": m})), (0.36, 0.381), (0.382, 0.45)),
    "shaft-shallow": (
        lambda m: fit(
            at({"bays": (Bay("b", 0.8, 0.4, 0.3, 200, m),)}, hull={"transom_height_m": 0.38}),
            replace(LFP, mass_kg=120.0),
            motor=Motor(1200, voltage_v=24, mass_kg=14, propeller_diameter_m=0.4),
        ),
        (1.2,),
        (2.9,),
    ),
    "shaft-long": (
        lambda m: fit(at(hull={"transom_height_m": m}), shaft_m=0.508),
        (0.36, 0.3581),
        (0.357,),
    ),
    "bay-size": (lambda m: fit(at({"bays": (Bay("b", m, 0.4, 0.3),)})), (0.34, 0.33), (0.16,)),
    "bay-lid": (
        lambda m: fit(at({"bays": (Bay("b", 0.8, 0.4, 0.3, lid_length_m=0.3, lid_width_m=m),)})),
        (0.23, 0.22),
        (0.16,),
    ),
    "bay-mass": (
        lambda kg: fit(at({"bays": (Bay("b", 0.8, 0.4, 0.3, kg),)})),
        (11.7, 11.6),
        (11.5,),
    ),
    "bay-ventilation": (
        lambda yes: fit(
            at({"bays": (Bay("b", 0.8, 0.4, 0.3, ventilated=yes),)}), replace(LFP, chemistry="agm")
        ),
        (True,),
        (False,),
    ),
    "rudder-strikes": (
        lambda m: fit(
            replace(SAIL, site=replace(SAIL.site, rudder_chord_m=m)), mount=BESIDE, shaft_m=0.508
        ),
        (None, 0.15),
        (0.45,),
    ),
    "tilt-short": (lambda m: fit(at({"room_ahead_m": m})), (None, 0.3), (0.2,)),
    "lift-mass": (lambda kg: fit(at(day={"max_lift_kg": kg})), (15, 14), (13.9,)),
    "mount-motor-mass": (lambda kg: fit(mount=Mount("transom_clamp", kg, 2000)), (15, 14), (13.9,)),
    "mount-thrust": (lambda n: fit(mount=Mount("transom_clamp", 60, n)), (500,), (300,)),
    "mount-place": (lambda place: fit(at({"places": (place,)})), ("transom",), ("rail",)),
    "mount-style": (lambda style: fit(style=style), ("outboard", "pole"), ("fin",)),
    "mount-transom": (
        lambda m: fit(
            at({"transom_thickness_m": m}),
            mount=Mount("transom_clamp", 60, 2000, transom_min_m=0.02, transom_max_m=0.05),
        ),
        (0.02, 0.05, None),
        (0.019, 0.051),
    ),
    "no-mount": (lambda there: matched(mounts=there), (True,), (False,)),
    "side-mount-yaw": (
        lambda v: fit(
            replace(KAYAK, day=replace(KAYAK.day, speed_m_s=v, wind_m_s=14.0 if v < 0.8 else 0.0)),
            mount=SIDE,
            style="pole",
            shaft_m=None,
            motor=POLE,
        ),
        (1.4,),
        (0.5,),
    ),
    "side-mount-heel": (
        lambda kg: fit(
            KAYAK,
            motor=Motor(300, voltage_v=24, mass_kg=kg),
            mount=SIDE,
            style="pole",
            shaft_m=None,
        ),
        (4,),
        (14,),
    ),
    "trim-angle": (
        lambda m: fit(
            at({"bays": (Bay("b", 0.8, 0.4, 0.3, 60, m),)}, load={"people": 1, "people_kg": 75.0}),
            battery=replace(LFP, mass_kg=40.0),
        ),
        (1.6,),
        (0.1,),
    ),
    "noise": (lambda db: fit(at(day={"max_noise_db": 55.0}), noise=db), (None, 54, 55), (56,)),
    "hands-free": (
        lambda yes: fit(
            at(day={"hands_free": True}), mount=Mount("transom_clamp", 60, 2000, hands_free=yes)
        ),
        (True,),
        (False,),
    ),
    "charger-voltage": (lambda v: fit(charger=Charger(v, 10, ("lfp",))), (24,), (48,)),
    "charger-chemistry": (lambda c: fit(charger=Charger(24, 10, (c,))), ("lfp",), ("agm",)),
    "charge-current": (lambda a: fit(charger=Charger(24, a, ("lfp",))), (49, 50), (51,)),
    "not-full-by-morning": (lambda h: fit(at(day={"charge_h": h})), (24.0,), (1.0,)),
    "first-charge": (lambda c: fit(charger=c), (None,), (Charger(24, 10, ("lfp",)),)),
    "charge-freezing": (
        lambda c: ids(charging.check_charging(Bank(LFP), [], 10, temperature_c=c)),
        (1, 0),
        (-1,),
    ),
    "solar-none": (
        lambda w: ids(solar.check_sun(solar.Sunshine(np.array([0.0, 24.0]), np.array([w, w])))),
        (1.0, 1 / 24),
        (0.04, 0.0),
    ),
    "ampacity": (lambda a: ids(wire_sizes.check_cable(16, a, 1.0, 48)), (129, 130), (131,)),
    "voltage-drop": (
        lambda m: ids(check_wiring(install(Bank(Battery("agm", 12, 100)), 3000.0, Plan(run_m=m)))),
        (2.0, 6.0),
        (29.0,),
    ),
    "fuse-cable": (
        lambda share: {"fuse-cable"} if not wire_sizes.fuse(100, share * 100).fits_cable else set(),
        (1.26, 1.25),
        (1.249,),
    ),
    "strings-uneven": (
        lambda how: ids(
            check_wiring(
                install(Bank(Battery("lfp", 12.8, 300, 30), 1, 4), 2500.0, Plan(take_off=how))
            )
        ),
        ("bars", "diagonal"),
        ("one end",),
    ),
    "string-current": (
        lambda a: ids(check_wiring(install(Bank(replace(LFP, max_continuous_a=a), 1, 2), 2560.0))),
        (51, 50.01),
        (49,),
    ),
    "twelve-volt-tap": (
        lambda s: ids(
            check_wiring(
                install(Bank(Battery("agm", 12, 100), 2), 600.0, Plan(loads=Loads12V(2, 4, s)))
            )
        ),
        ("converter", "own battery"),
        ("end taps",),
    ),
}


def test_every_rule_of_the_book_has_its_case():
    assert set(CASES) == set(RULES)


@pytest.mark.parametrize(
    ("rule", "figure"),
    [(rule, x) for rule, (_, silent, _s) in CASES.items() for x in silent],
    ids=str,
)
def test_silent_within_the_limit(rule, figure):
    assert rule not in CASES[rule][0](figure)


@pytest.mark.parametrize(
    ("rule", "figure"),
    [(rule, x) for rule, (_, _s, speaks) in CASES.items() for x in speaks],
    ids=str,
)
def test_spoken_past_the_limit(rule, figure):
    assert rule in CASES[rule][0](figure)


@pytest.mark.parametrize("rule", RULES.values(), ids=lambda r: r.id)
def test_every_rule_has_a_level_a_cure_and_a_source(rule):
    assert (
        rule.level in LEVELS
        and rule.cure.endswith((".", "{how}"))
        and rule.source
        and rule.sentence.endswith(".")
        and rule.school
    )


def test_a_finding_says_figure_and_limit():
    text = find("plate-power", 3000.0, 2200.0).text
    assert "3\u202f000" in text and "2\u202f200" in text


def test_the_demo_boats_are_judged_without_a_slip():
    shelf = demo.shelf()
    for e in demo.enquiries():
        m = match(e.need, shelf)
        for i in range(0, m.field.price.size, max(1, m.field.price.size // 7)):
            d, s = int(m.field.drive[i]), int(m.field.supply[i])
            charger = int(m.supplies.charger[s])
            shaft = float(m.drives.shaft_m[d])
            f = Fitted(
                e.need,
                shelf.motors[m.drives.motor[d]],
                shelf.batteries[m.supplies.battery[s]],
                shelf.mounts[m.drives.mount[d]],
                shelf.chargers[charger] if charger >= 0 else None,
                int(m.supplies.series[s]),
                int(m.supplies.parallel[s]),
                None if np.isnan(shaft) else shaft,
            )
            assert "block" not in {x.level for x in f.findings}, [
                x.text for x in f.findings if x.level == "block"
            ]
