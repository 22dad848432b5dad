"""Cases of core/rules/electric_rules.py."""

from dataclasses import replace

from jolvek.core.electric import bank as banks
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.match.matching import match
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from jolvek.core.products.shelf import Item, Shelf
from tests.core.rules.cases.made import LFP, NEED, at, elec, fit, ids, matched, run

CASES = {
    "adapter-lead": (
        lambda made: fit(battery=LFP, battery_id=made),
        ("b",),
        ("own-gear-3",),
    ),
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
    "voltage-none": (lambda v: matched(batteries=((v, 100, 800),)), (25.6,), (51.2,)),
    "pack-own": (
        lambda v: ids(
            match(
                NEED,
                Shelf(
                    (
                        Item(
                            "m",
                            "M",
                            "m",
                            1,
                            Motor(600, voltage_v=24),
                            "outboard",
                            shafts_m=(0.381,),
                            pack_ids=v,
                        ),
                    ),
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
    "bank-hot": (lambda c: fit(at(day={"temperature_c": c})), (34, 35), (36,)),
    "bank-cold": (lambda c: ids(banks.weather(Bank(LFP, temperature_c=c))), (6, 5), (4,)),
}
