"""A hire boat's season is her day, so many times: by hand from the day's own figures."""

from dataclasses import replace

import pytest

from jolvek.core.day.season import SEALS_H, season
from jolvek.core.day.summed import run_day
from jolvek.core.electric.chemistry import cycle_life
from jolvek.core.enquiry.need import Day
from jolvek.core.fit.fitted import sample_fitted

HIRE = Day(1.5, 1500, runs_per_day=6, charges_per_day=2, days_a_season=100.0)


def told(**changes):
    return season(sample_fitted(replace(HIRE, **changes)))


def test_hours_and_energy_are_those_of_all_runs():
    one, s = run_day(sample_fitted(HIRE)), told()
    assert s.hours == pytest.approx(600 * one.hours)
    assert s.energy_kwh == pytest.approx(600 * one.energy_wh / 1000)
    assert s.seal_years == pytest.approx(SEALS_H / (600 * one.hours))


def test_a_battery_lasts_by_its_cycles_at_the_depth_of_a_charge():
    f, s = sample_fitted(HIRE), told()
    depth = 3 * run_day(f).energy_wh / f.bank.energy_wh
    assert s.cycles == 200
    assert s.battery_years == pytest.approx(float(cycle_life(f.bank.chem, depth)) / 200)
    assert told(charges_per_day=6).battery_years < s.battery_years * 3  # shallower, but oftener


@pytest.mark.parametrize(
    ("runs", "charges", "asked"), [(6, 2, 3), (7, 2, 4), (1, 1, 1), (6, 12, 1), (40, 1, 40)]
)
def test_runs_between_charges_are_whole_ones(runs, charges, asked):
    s = told(runs_per_day=runs, charges_per_day=charges)
    assert s.asked == asked
    assert bool(s.findings) == (s.carries < asked)


def test_one_charge_carries_as_many_runs_as_stay_above_the_reserve():
    f, s = sample_fitted(HIRE), told()
    usable = f.bank.energy_wh * 0.8
    assert s.carries == int(usable / run_day(f).energy_wh) >= 1
    assert told(reserve=0.6).carries < s.carries


def test_without_days_or_a_day_that_can_be_done_there_is_no_season():
    assert told(days_a_season=None) is None
    assert told(speed_m_s=19.0, current_m_s=6.0) is None
