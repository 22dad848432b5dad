"""What the years' cost takes for granted, worked by hand from the day's own sums."""

from dataclasses import fields, replace

import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.day.summed import run_day
from jolvek.core.deal.cost import cost
from jolvek.core.deal.years import (
    OUTBOARDS_KW,
    Assumed,
    assumed,
    case_of,
    litres_per_hour,
    otherwise,
    outboard_kw,
    use,
)
from jolvek.core.electric.chemistry import cycle_life
from jolvek.core.enquiry.need import Day
from jolvek.core.fit.fitted import sample_fitted

DAY = Day(1.5, 4000)


def test_the_use_is_that_of_the_day():
    f, run = sample_fitted(DAY), run_day(sample_fitted(DAY))
    u = use(f)
    assert u.energy_wh == pytest.approx(run.energy_wh) and u.hours == pytest.approx(run.hours)
    assert u.depth == pytest.approx(run.energy_wh / f.bank.energy_wh)


def test_a_hire_boat_counts_its_runs_and_its_charges():
    one = use(sample_fitted(DAY))
    hired = use(sample_fitted(replace(DAY, runs_per_day=4, charges_per_day=2)))
    assert hired.hours == pytest.approx(4 * one.hours)
    assert hired.energy_wh == pytest.approx(4 * one.energy_wh)
    assert hired.depth == pytest.approx(2 * one.depth)
    odd = use(sample_fitted(replace(DAY, runs_per_day=3, charges_per_day=2)))
    assert odd.hours == pytest.approx(3 * one.hours)  # not the four that two charges give


def test_a_day_beyond_the_bank_counts_one_charge():
    far = sample_fitted(replace(DAY, distance_m=400_000))
    u = use(far)
    assert u.depth == pytest.approx(1 - far.kept)
    assert u.energy_wh == pytest.approx(far.bank.energy_wh * (1 - far.kept))


# Willans' line by hand, 4.4 kW outboard: at full load 4.4 × 0.40 = 1.76 kg/h, with 1 % oil over
# 0.745 kg/l = 2.386 l/h; idling 12 % of it. 0.40 kg/kWh from memory (0.35 to 0.45).
def test_petrol_by_load():
    assert litres_per_hour(4.4, 4.4) == pytest.approx(1.76 * 1.01 / 0.745, rel=1e-3)
    assert litres_per_hour(4.4, 0) == pytest.approx(0.12 * litres_per_hour(4.4, 4.4))
    half = litres_per_hour(4.4, 2.2)
    assert half == pytest.approx(0.56 * litres_per_hour(4.4, 4.4))
    assert half / 2.2 > litres_per_hour(4.4, 4.4) / 4.4  # a kWh costs more at part load


def test_the_outboard_has_some_to_spare():
    assert all(outboard_kw(kw / 1.2001) == kw for kw in OUTBOARDS_KW)
    assert outboard_kw(1.8) == 2.9


def test_the_case_by_hand():
    f = sample_fitted(DAY)
    a = replace(assumed(f, 900.0, {"kwh_price": 0.25, "litre_price": 2.0}), outings=40, grant=100)
    case, u = case_of(f, 3000.0, a), use(f)
    assert case.electric.purchase == 2900 and case.hours_per_year == pytest.approx(40 * u.hours)
    assert case.electric.cycle_life == pytest.approx(
        float(cycle_life(f.battery.spec.chem, u.depth))
    )
    wall = 40 * u.energy_wh / 1000 / 0.88 * 0.25
    assert cost(case).electric[1] == pytest.approx(2900 + wall + 60)
    petrol = 40 * u.hours * a.litres_per_hour * 2.0 + 180
    assert cost(case).petrol[1] == pytest.approx(a.petrol_purchase + petrol)


def test_the_battery_is_worn_by_the_depth_really_used():
    shallow, deep = (use(sample_fitted(replace(DAY, distance_m=m))).depth for m in (2000, 8000))
    assert deep > 2 * shallow
    setups = [sample_fitted(replace(DAY, distance_m=m)) for m in (2000, 8000)]
    near, far = (case_of(f, 3000, assumed(f, 900, {})).electric for f in setups)
    assert far.cycle_life < near.cycle_life and far.usable > near.usable
    hours = 8000.0  # far beyond what ages by years
    drawn = hours * far.average_power_w / 1000
    by_hand = far.cycle_life * far.usable * far.battery_kwh / drawn
    assert by_hand < far.calendar_life_years
    assert far.battery_life_years(hours) == pytest.approx(by_hand)


def test_resale_saves_at_the_end_and_trolling_gear_is_bought_again():
    f = sample_fitted(DAY)
    plain = assumed(f, 900.0, {})
    sold = otherwise(plain, {"resale": 500, "petrol_resale": 200})
    one, two = (cost(case_of(f, 3000.0, a)) for a in (plain, sold))
    assert two.electric[-1] == pytest.approx(one.electric[-1] - 500)
    assert two.petrol[-1] == pytest.approx(one.petrol[-1] - 200)
    assert two.electric[:-1] == one.electric[:-1]
    gear = otherwise(plain, {"trolling_motor": 400, "trolling_battery": 150})
    three = cost(case_of(f, 3000.0, gear))
    assert three.petrol[0] == pytest.approx(one.petrol[0] + 550)
    assert three.petrol[5] - one.petrol[5] == pytest.approx(700)  # the lead battery at year 5


@pytest.mark.parametrize("name", [f.name for f in fields(Assumed)])
def test_each_assumption_is_refused_beyond_its_ends(name):
    low, high = Assumed.RANGES[name]
    otherwise(Assumed(), {name: high})
    with pytest.raises(ValueRefused, match=name):
        otherwise(Assumed(), {name: low - 1})
