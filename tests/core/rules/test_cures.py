"""A cure is shown only where the rule book passes what it makes."""

from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.predict.limits import electrical
from jolvek.core.products.motor import Motor
from tests.core.rules.cases.made import LFP, NEED, fitted

SHELF = demo.shelf()


def said(findings, rule):
    return next((f for f in findings if f.rule == rule), None)


@pytest.mark.parametrize(
    ("highest", "cure"),
    [(90.0, "Put 2 packs in series"), (58.6, "Choose a motor for this voltage")],
)
def test_no_pack_is_put_in_series_that_burns_the_motor(highest, cure):
    """38.4 V of LFP is charged with 43.8: two are 87.6 V."""
    motor = Motor(2000, voltage_v=48, voltage_min_v=42, voltage_max_v=highest)
    low = said(electrical(motor, Bank(Battery("lfp", 38.4, 60))), "voltage-low")
    assert low.cure.startswith(cure)


def test_packs_are_counted_by_the_volts_that_fell_short():
    """Of 25.6 V nominal enough for 25 V, and under load not: one pack more, not that one pack."""
    motor = Motor(1200, voltage_v=26, voltage_min_v=25.5, voltage_max_v=60)
    low = said(electrical(motor, Bank(Battery("lfp", 25.6, 20))), "voltage-low")
    assert low is not None and dict(low.values)["packs"] == 2


@pytest.mark.parametrize(
    ("more", "cure"),
    [
        ({}, "2 strings in parallel (2 packs)"),
        ({"max_parallel": 1}, "Limit the motor to"),
        ({"max_continuous_a": 9.0}, "Limit the motor to"),  # six strings: more than is ever joined
    ],
)
def test_no_more_strings_are_asked_for_than_may_be_joined(more, cure):
    battery = replace(LFP, **{"max_continuous_a": 30.0, **more})
    found = said(electrical(Motor(1200, voltage_v=24), Bank(battery)), "current-continuous")
    assert found.cure.startswith(cure)


@pytest.mark.parametrize(
    ("bay_kg", "cure"), [(60.0, "2 strings in parallel"), (15.0, "Limit the motor to")]
)
def test_no_cure_asks_for_packs_that_the_boat_cannot_stow(bay_kg, cure):
    bay = replace(NEED.site.bays[0], length_m=0.9, width_m=0.5, max_kg=bay_kg)
    need = replace(NEED, site=replace(NEED.site, bays=(bay,)))
    f = fitted(need, replace(LFP, max_continuous_a=30.0))
    assert said(f.findings, "current-continuous").cure.startswith(cure)


def test_every_cure_of_the_demo_shelf_heals_what_it_is_given_for():
    tried = 0
    for motor in SHELF.motors:
        for battery in SHELF.batteries:
            for found in electrical(motor.spec, Bank(battery.spec)):
                values = dict(found.values)
                if not values.get("cured") or "packs" not in values:
                    continue
                strings = int(values.get("strings", 1))
                then = Bank(battery.spec, int(values["packs"]) // strings, strings)
                healed = [x.rule for x in electrical(motor.spec, then) if x.level == "block"]
                assert found.rule not in healed and "voltage-high" not in healed
                assert not {"series-most", "parallel-most"} & set(healed)
                tried += 1
    assert tried > 50
