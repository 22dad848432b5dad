"""Cases of core/rules/inspection_rules.py."""

from dataclasses import replace

from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.enquiry.site import Bay
from jolvek.core.products.motor import Motor
from tests.core.rules.cases.made import LFP, QUAY, at, fit

FORTY_EIGHT = replace(LFP, nominal_voltage_v=51.2, max_continuous_a=200)
PACK_12 = replace(LFP, nominal_voltage_v=12.8, max_continuous_a=200)
QUAY_48 = Charger(48, 20, ("lfp",))


def motor(watts=1200, volts=24, **more):
    return Motor(watts, voltage_v=volts, mass_kg=14, **more)


CASES = {
    "no-charger": (
        lambda own: fit(at(day={"own_charger_v": own}), charger=None),
        (29.2, 28.4),
        (None, 14.6, 58.4),
    ),
    "bms-cuts-off": (
        lambda w: fit(battery=replace(LFP, nominal_voltage_v=24.0), motor=motor(w)),
        (1200, 2160),
        (2170, 2400),
    ),
    "inrush": (
        lambda w: fit(battery=FORTY_EIGHT, motor=motor(w, 48), charger=QUAY_48),
        (900, 1000),
        (1001,),
    ),
    "aluminium-hull": (
        lambda built: fit(at({"construction": built})),
        ("", "moulded", "wood"),
        ("aluminium",),
    ),
    "cut-edges": (
        lambda built: fit(at({"construction": built})),
        ("", "moulded", "aluminium"),
        ("wood", "laminate"),
    ),
    "petrol-aboard": (
        lambda told: fit(at({"petrol_aboard": True}), motor=motor(ignition_protected=told)),
        (True,),
        (False, None),
    ),
    "bay-wet": (
        lambda m: fit(at({"bays": (Bay("b", 0.8, 0.4, 0.3, above_m=m),)})),
        (0.06, 0.05),
        (0.049, 0.0),
    ),
    "derating": (lambda c: fit(at(day={"temperature_c": c})), (20, 30), (31,)),
    "wet-touch": (
        lambda v: fit(battery=replace(LFP, full_voltage_v=v)),
        (29.0, 30.0),
        (30.1,),
    ),
    "packs-alike": (lambda n: fit(at({"bays": ()}), parallel=n), (1,), (2, 3)),
    "main-fuse": (lambda b: fit(battery=b), (), (LFP,)),
    "fuse-volts": (
        lambda b: fit(battery=b, motor=motor(900, b.nominal_voltage_v), charger=None),
        (LFP,),
        (replace(LFP, nominal_voltage_v=28.9), FORTY_EIGHT),
    ),
    "restraint": (lambda b: fit(battery=b), (), (LFP,)),
    "polarity": (lambda b: fit(battery=b), (), (LFP,)),
    "cable-run": (lambda b: fit(battery=b), (), (LFP,)),
    "charge-watched": (
        lambda b: fit(battery=b),
        (Battery("agm", 24, 100),),
        (LFP,),
    ),
    "shore-side": (
        lambda yes: fit(at(day={"shore_power": yes}), charger=QUAY),
        (False,),
        (True,),
    ),
    "transport": (
        lambda ah: fit(battery=replace(LFP, capacity_ah=ah)),
        (100 / 25.6, 3.0),
        (4.0, 100),
    ),
    "insurer": (lambda b: fit(battery=b), (Battery("agm", 24, 100),), (LFP,)),
}
