"""Every figure of a day counts from the charge at the start, and from all runs of a charge."""

from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.day.aboard import Aboard
from jolvek.core.day.outing import outing
from jolvek.core.day.stepped import sail_out
from jolvek.core.day.summed import carries, run_day, sets_out_with
from jolvek.core.electric.bank import Bank, runtime_s
from jolvek.core.electric.battery import Battery
from jolvek.core.enquiry.need import Day
from jolvek.core.enquiry.sizing import size
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.job.job_setup import of_fitted
from jolvek.core.match.likely import likely
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import ranked
from jolvek.core.match.whole import fitted_of

SHORT = Day(1.5, 1500)


def told(**changes):
    return sample_fitted(replace(SHORT, **changes))


@pytest.mark.parametrize("chem", ["lfp", "nmc", "agm"])
def test_from_part_charge_is_from_full_less_what_was_gone(chem):
    bank = Bank(Battery(chem, 25.6, 100))
    full, part = (float(runtime_s(bank, 300.0, 0.55, 0.0, start)) for start in (1.0, 0.8))
    gone = float(runtime_s(bank, 300.0, 0.8))
    assert part == pytest.approx(full - gone, rel=0.02)
    assert float(runtime_s(bank, 300.0, 0.55, 0.0, 0.5)) == 0


def test_a_part_charge_leaves_less_and_reaches_less_far_on_every_page():
    full, part = told(), told(start_charge=0.6)
    assert run_day(full).left - run_day(part).left == pytest.approx(0.4, abs=0.02)
    assert sail_out(part).left == pytest.approx(run_day(part).left, abs=0.02)
    ranges = [f.performance.at_speed(1.5).range_m for f in (full, part)]
    assert ranges[1] == pytest.approx(ranges[0] / 2, rel=0.03)  # (0.6 - 0.2) of (1 - 0.2)
    assert float(Aboard().lasts_s(part, 200.0)) < 0.55 * float(Aboard().lasts_s(full, 200.0))
    o = outing({"A": part}, "A")
    assert o.planned is o.voyage and o.voyage.soc[0] == pytest.approx(0.6)


def test_the_list_and_one_setup_of_it_judge_the_same_part_charge_and_runs():
    need = demo.enquiries()[1].need
    for changes in ({"start_charge": 0.5}, {"runs_per_day": 3}, {"start_charge": 0.7}):
        asked = replace(need, day=replace(need.day, **changes))
        whole, m = match(need, demo.shelf()).field, match(asked, demo.shelf())
        assert m.field.does_day.sum() < whole.does_day.sum()
        i = ranked(m)[0]
        f = fitted_of(m, i)
        assert run_day(f).home == bool(m.field.spare_wh[i] >= 0)
        sure = of_fitted(f).day.chance
        assert sure == pytest.approx(float(likely(m, [i])[0]), abs=0.12)
        assert size(asked).energy_wh > 1.2 * size(need).energy_wh


def test_the_day_shown_of_a_hire_boat_is_the_last_run_of_a_charge():
    f = told(runs_per_day=6, charges_per_day=2)
    one, all_three = run_day(told()), run_day(f)
    assert (all_three.runs, all_three.hours) == (3, pytest.approx(one.hours))
    assert 1 - all_three.left == pytest.approx(3 * (1 - one.left), rel=0.03)
    assert sets_out_with(f) == pytest.approx(1 - 2 * (1 - one.left), rel=0.03)
    v = sail_out(f)
    assert v.soc[0] == pytest.approx(sets_out_with(f)) and v.home
    assert v.left == pytest.approx(all_three.left, abs=0.02)
    assert outing({"A": f}, "A").point.distance_m < outing({"A": told()}, "A").point.distance_m


def test_a_charge_carries_what_it_carries():
    most = carries(told())
    assert run_day(told(runs_per_day=most)).home
    assert not run_day(told(runs_per_day=most + 1)).home
    late = outing({"A": told(runs_per_day=most + 1)}, "A")
    assert not late.voyage.home and late.likely != "likely"


@pytest.mark.parametrize("metres", [3000.0, 6000.0, 12000.0, 18000.0, 30000.0])
@pytest.mark.parametrize("chemistry", ["lfp", "agm"])
def test_what_is_left_says_the_same_as_whether_she_is_home(metres, chemistry):
    f = told(distance_m=metres)
    spec = Battery(chemistry, 25.6, 100, mass_kg=60)
    f = replace(f, battery=replace(f.battery, spec=spec))
    r = run_day(f)
    assert r.home == (r.left >= f.kept - 1e-9)
    if r.home:
        assert sail_out(f).left == pytest.approx(r.left, abs=0.04)
