"""Banks in turn and mixed, limits of their parts, chargers together, doubt and schools."""

from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.electric import charging
from jolvek.core.electric.bank import Bank, runtime_s
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.electric.chemistry import chemistry, cycle_life
from jolvek.core.electric.discharge import discharge
from jolvek.core.enquiry.battery_schools import battery_schools
from jolvek.core.enquiry.schools import power_schools, reserve_schools
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.hump import advice
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor

PACK = Battery("nmc", 25.9, 30, 4.0)
DINGHY = Setup(
    Hull("rigid_dinghy", 2.9, 1.45, 55),
    Load(2, 150),
    Motor(1200, voltage_v=24, mass_kg=14),
    Bank(Battery("lfp", 25.6, 50)),
)


@pytest.mark.parametrize(
    ("change", "amps", "by"),
    [
        ({}, 40, "cells"),
        ({"bms_max_a": 30}, 30, "BMS"),
        ({"connector_max_a": 25}, 25, "connector"),
        ({"bms_max_a": 30, "connector_max_a": 50}, 30, "BMS"),
    ],
)
def test_the_smallest_limit_of_cells_bms_and_connector_rules(change, amps, by):
    b = Battery("nmc", 25.9, 30, max_continuous_a=40, **change)
    assert (b.continuous_a, b.limited_by) == (amps, by)


@pytest.mark.parametrize(
    ("motor_min", "reserve", "by"),
    [(0.0, 0.2, "reserve"), (0.97, 0.0, "motor"), (0.0, 0.0, "reserve")],
)
def test_a_lithium_discharge_ends_by_what_comes_first(motor_min, reserve, by):
    assert discharge(chemistry("lfp"), 0.5, reserve, motor_min).ended_by == by


def test_lead_ends_at_its_depth_and_at_too_much_power_by_its_cut_off():
    assert discharge(chemistry("agm"), 0.2, 0.2).ended_by == "depth"
    assert discharge(chemistry("agm"), 6.0, 0.2).ended_by in ("cut-off", "power")


def test_cold_and_age_shorten_and_deeper_cycles_cost_life():
    warm, cold, old = (
        float(runtime_s(Bank(Battery("agm", 12, 100), ageing=a, temperature_c=t), 120.0))
        for a, t in ((0, 20), (0, 0), (0.2, 20))
    )
    assert cold == pytest.approx(0.8 * warm, rel=0.05) and old < 0.82 * warm
    assert float(cycle_life(chemistry("lfp"), 0.5)) > float(cycle_life(chemistry("lfp"), 0.9))


def test_two_chargers_take_half_the_time_and_strangers_count_for_nothing():
    bank, c = Bank(Battery("lfp", 25.6, 100)), Charger(24, 10, ("lfp",))
    assert charging.together_h(bank, [c, c], 0.2, 0.85) == pytest.approx(
        charging.together_h(bank, [c], 0.2, 0.85) / 2
    )
    assert charging.together_h(bank, [Charger(48, 10, ("lfp",))]) == float("inf")


# 180 W for 1 to 1.4 kWh, common practice, no source
def test_a_small_charger_needs_most_of_a_working_day():
    hours = [
        charging.first_charge_h(
            Bank(Battery("nmc", 25.9, wh / 25.9)), [Charger(24, 180 / 25.9, ("nmc",))], 0.2
        )
        for wh in (1000, 1400)
    ]
    assert 4.3 < hours[0] < hours[1] < 8


def test_full_by_morning_is_answered_in_charge():
    bank, c = Bank(Battery("lfp", 25.6, 100)), Charger(24, 10, ("lfp",))
    after = charging.soc_after(bank, [c], [0, 4, 8, 24], 0.2)
    assert (
        list(after) == sorted(after)
        and after[0] == pytest.approx(0.2)
        and after[-1] == pytest.approx(0.99)
    )
    hours = charging.together_h(bank, [c], 0.2, 0.7)
    assert float(charging.soc_after(bank, [c], hours, 0.2)) == pytest.approx(0.7, abs=0.01)


def test_planing_power_falls_with_each_person():
    a = advice(replace(DINGHY, load=Load(3, 225)))
    assert a.power_w > a.one_less_w > a.alone_w > 1500
    assert advice(replace(DINGHY, hull=Hull("pontoon", 6, 2.5, 700))).can is False


@pytest.mark.parametrize("which", range(6))
def test_schools_answer_for_every_boat_and_exactly_one_is_preferred(which):
    need = demo.enquiries()[which].need
    rows = power_schools(need)
    assert (
        [r.preferred for r in rows].count(True) == 1
        and rows[-1].preferred
        and all(r.why and r.source for r in rows)
    )
    for question in ("chemistry", "place", "size"):
        choices = [c for c in battery_schools(need) if c.question == question]
        assert len(choices) == 2 and [c.preferred for c in choices].count(True) == 1
        assert all(bool(c.why) is c.preferred for c in choices)


def test_the_thirds_keep_more_than_the_fifth():
    fifth, thirds, hours = reserve_schools(evaluate(DINGHY), 1.6)
    assert thirds.range_m < fifth.range_m and hours.kept == pytest.approx(
        evaluate(DINGHY).at_speed(1.6).power_w / 1280
    )
