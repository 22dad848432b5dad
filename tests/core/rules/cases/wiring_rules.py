"""Cases of core/rules/wiring_rules.py."""

from dataclasses import replace

import numpy as np

from jolvek.core.day.charging_plan import charging_plan
from jolvek.core.electric import charging
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.electric.netlist import Loads12V, Plan
from jolvek.core.electric.network import check_wiring
from jolvek.core.electric.wiring import install
from jolvek.core.fit.as_set import AsSet
from jolvek.core.fit.fitted import Fitted, sample_fitted
from jolvek.core.job.job_setup import of_fitted
from jolvek.core.job.parts import Bought
from jolvek.core.predict import solar
from jolvek.core.products.accessories import Accessory
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from jolvek.core.products.shelf import Item
from tests.core.rules.cases.made import LFP, QUAY, at, elec, fit, ids


def planned(**day):
    need = at(day={"charge_h": 24.0, **day})
    parts = (
        Item("m", "M", "m", 900, Motor(1200, voltage_v=24, mass_kg=14)),
        Item("b", "M", "b", 800, LFP),
        Item("k", "M", "k", 50, Mount("transom_clamp", 60, 2000)),
        Item("c", "M", "c", 100, QUAY),
    )
    return ids(charging_plan(Fitted(need, *parts, shaft_m=0.381)).findings)


def leads(cable_m):
    """A setup whose add-on cable is so long, its battery 2.5 m from the motor."""
    lead = Item("lead", "Sample", "Lead", 60.0, Accessory("cable", cable_m=cable_m))
    far = replace(sample_fitted(), fitting=AsSet(places=(("battery", 2.4),)))
    return ids(replace(of_fitted(far), extras=(Bought("accessory", lead, 1, 60.0),)).findings)


CASES = {
    "cable-short": (leads, (4.0, 3.3), (3.0, 1.5)),
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
    "voltage-drop": (
        lambda m: ids(check_wiring(install(Bank(Battery("agm", 12, 100)), 3000.0, Plan(run_m=m)))),
        (2.0, 6.0),
        (29.0,),
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
    "no-shore": (
        lambda yes: planned(shore_power=yes),
        (True,),
        (False,),
    ),
    "charges-a-day": (
        lambda n: planned(charges_per_day=n),
        (1, 3),
        (12,),
    ),
}
