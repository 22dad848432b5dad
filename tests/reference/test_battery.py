"""Batteries and banks against the Peukert textbook example and facts of the trade (common practice,
no source).
"""

import numpy as np
import pytest

from jolvek.core.electric.bank import Bank, current_a, layout, runtime_s
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.chemistry import CHEMISTRIES, chemistry
from jolvek.core.electric.discharge import delivered_share, discharge, peukert_time_h
from jolvek.core.predict.limits import electrical
from jolvek.core.products.motor import Motor


def rules(motor, bank):
    return {f.rule for f in electrical(motor, bank)}


def test_peukert_textbook_example():  # 100 Ah at 20 h, n 1.2, 20 A → 3.79 h (textbook)
    assert float(peukert_time_h(100, 20, 1.2, 20)) == pytest.approx(3.79, abs=0.005)


@pytest.mark.parametrize(
    ("energy_wh", "power_w", "minutes"),
    [
        pytest.param(949, 1100, 50, id="949 Wh at 1100 W, common practice"),
        pytest.param(1276, 1000, 75, id="1276 Wh at 1 kW, common practice"),
    ],
)
@pytest.mark.parametrize("chem", ["lfp", "nmc"])
def test_runtime_of_small_lithium_packs(energy_wh, power_w, minutes, chem):
    bank = Bank(Battery(chem, 25.6, energy_wh / 25.6))
    assert float(runtime_s(bank, power_w, 0.0)) / 60 == pytest.approx(minutes, rel=0.05)


def test_nine_kilowatt_hours_at_one_kilowatt_and_five_knots():  # common practice: 9 h, 45 nm
    hours = float(runtime_s(Bank(Battery("lfp", 51.2, 9000 / 51.2)), 1000, 0.0)) / 3600
    assert hours == pytest.approx(9.0, rel=0.02)
    assert hours * 5 == pytest.approx(45.0, rel=0.02)


def test_half_the_charge_of_lead_is_usable_and_less_at_high_current():  # common practice
    slow, fast = (discharge(chemistry("agm"), x).hours[-1] * x for x in (0.02, 0.8))
    assert slow == pytest.approx(0.5, abs=0.03)
    assert fast < 0.40


def test_two_48_v_60_ah_in_parallel():  # common practice
    bank = Bank(Battery("lfp", 48, 60), 1, 2)
    assert (bank.nominal_v, bank.capacity_ah) == (48, 120)
    assert layout(bank).endswith("48 V 120 Ah")


def test_in_series_they_are_96_v_and_refused_for_a_48_v_motor():  # common practice
    assert "voltage-high" in rules(Motor(3000, voltage_v=48), Bank(Battery("lfp", 48, 60), 2, 1))


def test_four_12_v_make_48_v():  # common practice
    bank = Bank(Battery("agm", 12, 100, max_continuous_a=100), 4, 1)
    assert bank.nominal_v == 48
    assert not rules(Motor(3000, voltage_v=48), bank) & {
        "voltage-high",
        "voltage-low",
        "current-continuous",
    }


@pytest.mark.parametrize(("power_w", "amps", "refused"), [(2400, 100, False), (2520, 105, True)])
def test_current_against_a_100_a_battery_at_24_v(power_w, amps, refused):  # common practice
    bank = Bank(Battery("lfp", 24, 100, max_continuous_a=100))
    assert float(current_a(bank, power_w)) == amps
    assert ("current-continuous" in rules(Motor(power_w, voltage_v=24), bank)) is refused


def test_a_fully_charged_14_cell_pack_stands_at_58_v():  # common practice: "52 V" pack of 14 cells
    assert Bank(Battery("nmc", 51.8, 60)).full_v == pytest.approx(58.8, abs=0.3)


# common practice: 17.5 to 30.6 V
def test_a_24_v_motor_with_a_given_window_takes_a_24_v_lithium_bank():
    motor = Motor(1200, voltage_v=24, voltage_min_v=17.5, voltage_max_v=30.6)
    assert not rules(motor, Bank(Battery("lfp", 12.8, 100), 2)) & {"voltage-high", "voltage-low"}


@pytest.mark.parametrize("chem_id", CHEMISTRIES)
@pytest.mark.parametrize("motor_min_ratio", [0.0, 0.93])
def test_the_share_that_is_delivered_is_that_of_the_discharge(chem_id, motor_min_ratio):
    rates = np.geomspace(0.002, 12.0, 72)[::7]  # at the table's own rates nothing is interpolated
    limits = (0.2, motor_min_ratio, 0.8)
    runs = [discharge(chemistry(chem_id), float(x), *limits) for x in rates]
    assert {r.ended_by for r in runs} & {"cut-off", "motor", "power"}  # some end early
    worked = [float(r.hours[-1] * x) for r, x in zip(runs, rates, strict=True)]
    assert delivered_share(chem_id, rates, *limits).tolist() == pytest.approx(worked)
