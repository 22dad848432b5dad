"""One day for all: the legs are made once, and matching, the sum and the steps end alike."""

import random
from dataclasses import replace

import numpy as np
import pytest

from jolvek import demo
from jolvek.core.day.getting_home import homing, no_return, speed_for_arrival_m_s
from jolvek.core.day.stepped import sail_out
from jolvek.core.day.summed import kept_at_end, run_day
from jolvek.core.enquiry.demands import demands
from jolvek.core.enquiry.need import Day, Leg, Need
from jolvek.core.enquiry.sizing import size
from jolvek.core.enquiry.sizing import typical_hull as hull_of
from jolvek.core.fit.checklist import LOW_CHARGE
from jolvek.core.hydro.hull import Load
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import ranked
from jolvek.core.match.whole import fitted_of

HULLS = (("kayak", 3.7), ("rigid_dinghy", 3.2), ("inflatable_air", 2.9), ("pontoon", 6.0))


def generated(seed):
    """A need with wind, current, other loads, sun, waits, runs and a part charge as they come."""
    r = random.Random(seed)
    kind, length = HULLS[seed % len(HULLS)]
    day = Day(
        r.uniform(1.0, 2.0),
        r.uniform(2e3, 12e3),
        wind_m_s=r.choice((0, 2, 5)),
        current_m_s=r.choice((0, 0.2, 0.4)),
        against=r.choice(("home", "all day")),
        hotel_w=r.choice((0, 0, 30)),
        solar_w=r.choice((0, 0, 200)),
        standby_s=r.choice((0, 3600)),
        runs_per_day=r.choice((1, 1, 2)),
        start_charge=r.choice((1, 1, 0.7)),
        start_h=r.uniform(6, 14),
    )
    if seed % 3 == 0:
        stay = Leg("fishing", 0.3, None, r.uniform(1e3, 9e3), r.uniform(0.3, 0.6))
        day = day.with_legs((*day.trip[:1], stay, *day.trip[1:]))
    return Need(hull_of(kind, length)[0], Load(r.choice((1, 2))), day=day)


@pytest.mark.parametrize("seed", range(24))
def test_matching_sum_and_steps_end_the_day_alike(seed):
    need = generated(seed)
    m = match(need, demo.shelf(), most=20_000)
    if not m.field.price.size or need.day_blocked:
        pytest.skip("nothing fits this boat")
    best = [i for i in ranked(m, 40) if np.isfinite(m.field.day_wh[i])][::10] or [0]
    for i in best:
        f = fitted_of(m, int(i))
        steps, total = sail_out(f), run_day(f)
        if steps.done and steps.left > LOW_CHARGE:
            assert steps.left == pytest.approx(total.left, abs=0.01)
            assert 3600 * steps.hours == pytest.approx(
                sum(x.seconds + x.hold_s for x in need.day.trip), rel=0.01
            )
        spent, spare = float(m.field.day_wh[i]), float(m.field.spare_wh[i])
        if abs(total.left - kept_at_end(f)) > 0.015 and total.as_wished:
            assert total.home == (spare >= 0), (total.left, kept_at_end(f), spent, spare)


def test_a_place_held_against_a_current_is_a_leg_of_its_own():
    leg = Leg("fishing", 0.514, None, 4 * 3600.0, 0.514)
    need = replace(generated(1), day=Day(1.5).with_legs((leg,)))
    assert leg.stays and leg.metres == 0 and not need.day_blocked
    row = demands(need)[0]
    assert row.possible and row.seconds == 4 * 3600 and not size(need).no_way
    m = match(need, demo.shelf())
    assert m.field.does_day.any()
    f = fitted_of(m, ranked(m, 1)[0])
    v, total = sail_out(f), run_day(f)
    assert v.home and v.hours == pytest.approx(4.0) and float(v.distance_m[-1]) == 0
    assert v.left == pytest.approx(total.left, abs=0.01) and total.home


def test_a_slower_wish_than_the_current_holds_the_place_and_a_slower_boat_does_not():
    leg = Leg("fishing", 0.3, None, 3600.0, 0.8)
    assert leg.as_run.speed_m_s == 0.8 and leg.as_run.stays
    need = replace(generated(1), day=Day(1.5).with_legs((replace(leg, current_m_s=5.9),)))
    m = match(replace(need, day=Day(1.5)), demo.shelf())
    slow = replace(fitted_of(m, ranked(m, 1)[0]), need=need)
    v = sail_out(slow)
    assert not v.done and v.first("no-way") and not run_day(slow).makes_way


def test_what_is_held_on_the_way_shortens_the_reach_and_no_speed_hurries_it():
    need = generated(1)
    out, home = replace(need.day, wind_m_s=0, current_m_s=0, standby_s=0, hotel_w=0, solar_w=0).trip
    stay = Leg("fishing", 0.6, None, 2 * 3600.0, 0.6)
    m = match(need, demo.shelf())
    f = fitted_of(m, ranked(m, 1)[0])
    assert no_return(f, (out, stay, home)).distance_m < no_return(f, (out, home)).distance_m
    assert speed_for_arrival_m_s(f, 2.0, (out, stay, home)) is None
    assert speed_for_arrival_m_s(f, 9.0, (out, stay, home)) == pytest.approx(
        speed_for_arrival_m_s(f, 7.0, (out, home)), rel=1e-3
    )
    assert homing(f, (out, stay, home)).slowest_m_s is not None


def test_against_all_day_is_harder_than_against_on_the_way_home():
    base = replace(generated(1).day, wind_m_s=6.0, current_m_s=0.3, standby_s=0)
    ways = [replace(generated(1), day=replace(base, against=a)) for a in ("home", "all day")]
    home, all_day = (match(need, demo.shelf()).field for need in ways)
    both = np.isfinite(home.day_wh) & np.isfinite(all_day.day_wh)
    assert both.any() and (home.day_wh[both] < all_day.day_wh[both]).all()


def test_sun_that_falls_on_the_panels_counts_in_the_list_too():
    need = replace(generated(1), day=replace(generated(1).day, solar_w=0.0, start_h=10.0))
    lit = replace(need, day=replace(need.day, solar_w=400.0))
    dark, bright = match(need, demo.shelf()).field, match(lit, demo.shelf()).field
    able = np.isfinite(dark.day_wh)
    assert (bright.spare_wh[able] > dark.spare_wh[able]).all()
