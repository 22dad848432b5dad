"""The last point and the speeds home count the sun as chosen, and agree with the stepped day."""

from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.day.aboard import Aboard, laden, mean_sun_w
from jolvek.core.day.getting_home import homing, no_return
from jolvek.core.day.outing import outing
from jolvek.core.day.scenario import Switches, legs_otherwise, switched
from jolvek.core.day.stepped import sail_out
from jolvek.core.enquiry.need import Leg
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import ranked
from jolvek.core.match.whole import fitted_of


def pontoon(**day):
    m = match(demo.enquiries()[4].need, demo.shelf())
    f = fitted_of(m, ranked(m)[0])
    return replace(f, need=replace(f.need, day=replace(f.need.day, wind_m_s=0.0, **day)))


def charged(f, share):
    return switched(f, Switches(start_charge=share))


def steady(watts):
    return lambda _hour: watts


def sunny(watts):
    return Aboard(sun_at=steady(watts))


def there_and_back(metres, speed=2.3):
    return (Leg("out", speed, metres), Leg("home", speed, metres))


def test_no_sun_fills_a_frozen_lithium_bank_but_it_spares_what_is_drawn():
    legs = (Leg("out", 1.0, 3000.0), Leg("home", 1.0, 3000.0))
    for degrees, fills in ((2.0, True), (-4.0, False)):
        f = charged(pontoon(temperature_c=degrees), 0.6)
        f = replace(f, need=replace(f.need, day=f.need.day.with_legs(legs)))
        bright, dark = sail_out(f, sun_at=steady(5000.0)), sail_out(f)
        assert (bright.stored_wh > 0) == fills and dark.left < bright.left
        assert bright.left == pytest.approx(bright.soc[0], abs=1e-9) or fills
        counted = sunny(5000.0).sun_w(f, [3600.0, 7200.0], [300.0, 800.0])
        assert counted == pytest.approx([5000.0, 5000.0] if fills else [300.0, 800.0])


@pytest.mark.parametrize("watts", [0.0, 300.0, 800.0])
def test_at_the_last_point_the_stepped_day_comes_home_with_just_the_reserve(watts):
    f = pontoon()
    legs = there_and_back(5000.0)
    last = no_return(f, legs, sunny(watts)).distance_m
    need = replace(f.need, day=f.need.day.with_legs(there_and_back(last)))
    v = sail_out(replace(f, need=need), sun_at=steady(watts))
    assert v.done and v.left == pytest.approx(f.need.day.reserve, abs=0.02)


def test_more_sun_carries_further_and_faster_and_none_changes_nothing():
    f, legs = pontoon(), there_and_back(22000.0)
    dark, dim, bright = (no_return(f, legs, a).distance_m for a in (None, sunny(200), sunny(900)))
    assert dark < dim < bright
    assert no_return(f, legs, sunny(0.0)).distance_m == pytest.approx(dark, rel=1e-6)
    fast = [homing(f, legs, a).fastest_m_s for a in (None, sunny(900))]
    assert fast[0] < fast[1]


def test_the_fastest_speed_home_in_the_sun_does_it_in_the_stepped_day_too():
    f = pontoon()
    fast = homing(f, there_and_back(15000.0), sunny(600)).fastest_m_s
    need = replace(f.need, day=f.need.day.with_legs(there_and_back(15000.0, 0.985 * fast)))
    v = sail_out(replace(f, need=need), sun_at=steady(600))
    assert v.done and v.left >= f.need.day.reserve - 0.01


def test_the_suns_mean_is_that_of_the_hours_under_way():
    def noon(hour):
        return 500.0 if 11 <= hour < 13 else 0.0

    assert mean_sun_w(noon, 9.0, [3600.0]).item() == 0
    assert mean_sun_w(noon, 11.0, [7200.0]).item() == pytest.approx(500, rel=0.03)
    assert mean_sun_w(noon, 9.0, [8 * 3600.0]).item() == pytest.approx(125, rel=0.03)
    assert mean_sun_w(None, 9.0, [3600.0]).item() == 0


def test_the_wind_that_is_dragged_counts_with_the_sun():
    f = pontoon()
    calm = no_return(f, legs_otherwise(f.need.day, Switches()), sunny(400)).distance_m
    blow = legs_otherwise(f.need.day, Switches(wind_m_s=8.0, wind_from_h=0.0))
    assert no_return(f, blow, sunny(400)).distance_m < calm


def test_an_outing_with_panels_tells_both_and_without_them_one():
    result = outing({"A": pontoon(solar_w=500.0)}, "A")
    assert result.sunless is not None
    assert result.sunless[0].distance_m < result.point.distance_m
    assert outing({"A": pontoon()}, "A").sunless is None


@pytest.mark.parametrize("share", [0.9, 0.6, 0.35])
def test_the_last_point_is_of_the_charge_she_sets_out_with(share):
    f = pontoon()
    legs = there_and_back(3000.0)
    last = no_return(charged(f, share), legs).distance_m
    need = replace(f.need, day=f.need.day.with_legs(there_and_back(last)))
    v = sail_out(replace(f, need=need), Switches(start_charge=share))
    assert v.done and v.left == pytest.approx(f.need.day.reserve, abs=0.02)
    assert no_return(charged(f, 0.15), legs).distance_m == 0


def test_the_last_point_with_a_spare_is_where_the_second_pack_has_its_reserve():
    f = pontoon()
    one = replace(f, parallel=1)
    spare = one.bank
    heavy = laden(one, spare)
    last = no_return(heavy, there_and_back(3000.0), Aboard(spare=spare)).distance_m
    need = replace(one.need, day=one.need.day.with_legs(there_and_back(last)))
    v = sail_out(replace(one, need=need), spare=spare)
    assert v.first("swap") and v.done
    assert v.left == pytest.approx(f.need.day.reserve, abs=0.02)


def test_the_outing_hands_on_what_is_aboard():
    f = pontoon()
    full, less = (outing({"A": f}, "A", Switches(start_charge=s)) for s in (1.0, 0.5))
    assert less.point.distance_m < 0.5 * full.point.distance_m
    assert (less.homing.fastest_m_s or 0) <= full.homing.fastest_m_s
