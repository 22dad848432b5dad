"""Named picks keep the wishes, or say which they miss; none is more than such a boat bears."""

from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.enquiry.demands import demands
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.enquiry.site import Site
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.match.matching import match
from jolvek.core.match.picks import picks
from jolvek.core.match.ranking import measures
from jolvek.core.match.sensible import KIT_SHARE

SHELF = demo.shelf()
TENDER = Need(
    Hull("rigid_dinghy", 2.35, 1.3, 38, transom_height_m=0.38),
    Load(2, 150),
    Site(("transom",)),
    day=Day(1.5, 2000, charge_h=12),
)
SKIFF = Need(
    Hull("skiff", 4.2, 1.35, 68, transom_height_m=0.38),
    Load(2, 150),
    Site(("transom",)),
    day=Day(1.5, 4000, charge_h=14),
)


def kinds(m):
    return {p.id: p for p in picks(m)}


def watts(m, pick):
    return m.shelf.motors[m.drives.motor[m.field.drive[pick.index]]].spec.input_power_w


def test_the_fastest_for_a_small_tender_is_not_the_largest_motor_of_the_shelf():
    # 33 CFR 183.53: length × width of 31 square feet allows 3 hp
    m = match(TENDER, SHELF)
    assert watts(m, kinds(m)["fastest"]) <= 2237
    assert max(x.spec.input_power_w for x in SHELF.motors) > 5000


def test_what_goes_furthest_does_not_weigh_more_than_the_skiff():
    m = match(SKIFF, SHELF)
    furthest = kinds(m)["furthest"]
    assert m.field.mass_kg[furthest.index] <= KIT_SHARE * (68 + 150)
    assert m.field.mass_kg[m.field.range_m.argmax()] > 200  # what would have been picked


@pytest.mark.parametrize("which", range(6))
@pytest.mark.parametrize("hours", [2.0, 6.0, 14.0])
def test_a_pick_fills_in_the_hours_given_or_says_that_it_does_not(which, hours):
    need = demo.enquiries()[which].need
    m = match(replace(need, day=replace(need.day, charge_h=hours)), SHELF)
    for pick in picks(m):
        late = m.field.charge_h[pick.index] > hours * (1 + 1e-9)
        assert late == ("charge" in {what for what, _, _ in pick.misses}), pick


def test_what_a_pick_misses_is_told_with_figure_and_limit():
    m = match(replace(SKIFF, day=replace(SKIFF.day, charge_h=0.5)), SHELF)
    missed = [miss for p in picks(m) for miss in p.misses]
    assert missed and all(what == "charge" and x > most == 0.5 for what, x, most in missed)


def test_the_plate_rules_where_there_is_one():
    hull = replace(TENDER.hull, max_power_w=1100.0)
    m = match(replace(TENDER, hull=hull), SHELF)
    assert all(watts(m, p) <= 1100 for p in picks(m))


@pytest.mark.parametrize("which", range(6))
def test_the_power_that_would_do_is_the_counters_and_a_motor_here_has_it(which):
    need = demo.enquiries()[which].need
    rows = [f for f in match(need, SHELF).motor_reasons.values() if f.rule == "too-slow"]
    for finding in rows:
        watts = dict(finding.values)["watts"]
        counter = max(d.power_w for d in demands(need))
        assert watts == pytest.approx(counter, rel=0.2)
        assert any(m.spec.input_power_w >= watts for m in SHELF.motors)


def test_no_motor_that_does_4_of_12_knots_has_full_marks_for_speed(shelf):
    need = demo.enquiries()[1].need
    fast = replace(need, day=replace(need.day, speed_m_s=6.2, distance_m=400_000.0, legs=()))
    found = match(fast, shelf)
    marks = measures(found)
    assert not found.field.does_day.any()
    for wish, had, asked in (
        ("speed", found.field.top_speed_m_s, 6.2),
        ("range", found.field.range_m, 400_000.0),
    ):
        short = had < asked
        assert short.any() and (marks[wish][short] <= had[short] / asked + 1e-9).all()
