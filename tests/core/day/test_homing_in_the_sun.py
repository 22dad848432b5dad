"""The last point and the speeds home count the sun as chosen, and agree with the stepped day."""

from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.day.getting_home import homing, mean_sun_w, no_return
from jolvek.core.day.otherwise import Switches, legs_otherwise
from jolvek.core.day.outing import outing
from jolvek.core.day.stepped import sail_out
from jolvek.core.enquiry.need import Leg
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import ranked
from jolvek.core.match.whole import fitted_of


def pontoon(**day):
    m = match(demo.enquiries()[4].need, demo.shelf())
    f = fitted_of(m, ranked(m)[0])
    return replace(f, need=replace(f.need, day=replace(f.need.day, wind_m_s=0.0, **day)))


def steady(watts):
    return lambda _hour: watts


def there_and_back(metres, speed=2.3):
    return (Leg("out", speed, metres), Leg("home", speed, metres))


@pytest.mark.parametrize("watts", [0.0, 300.0, 800.0])
def test_at_the_last_point_the_stepped_day_comes_home_with_just_the_reserve(watts):
    f = pontoon()
    legs = there_and_back(5000.0)
    last = no_return(f, legs, steady(watts)).distance_m
    need = replace(f.need, day=f.need.day.with_legs(there_and_back(last)))
    v = sail_out(replace(f, need=need), sun_at=steady(watts))
    assert v.done and v.left == pytest.approx(f.need.day.reserve, abs=0.02)


def test_more_sun_carries_further_and_faster_and_none_changes_nothing():
    f, legs = pontoon(), there_and_back(22000.0)
    dark, dim, bright = (no_return(f, legs, s).distance_m for s in (None, steady(200), steady(900)))
    assert dark < dim < bright
    assert no_return(f, legs, steady(0.0)).distance_m == pytest.approx(dark, rel=1e-6)
    fast = [homing(f, legs, s).fastest_m_s for s in (None, steady(900))]
    assert fast[0] < fast[1]


def test_the_fastest_speed_home_in_the_sun_does_it_in_the_stepped_day_too():
    f = pontoon()
    fast = homing(f, there_and_back(15000.0), steady(600)).fastest_m_s
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
    calm = no_return(f, legs_otherwise(f.need.day, Switches()), steady(400)).distance_m
    blow = legs_otherwise(f.need.day, Switches(wind_m_s=8.0, wind_from_h=0.0))
    assert no_return(f, blow, steady(400)).distance_m < calm


def test_an_outing_with_panels_tells_both_and_without_them_one():
    f = pontoon(solar_w=500.0)
    sunny = outing({"A": f}, "A", sun_at={"A": steady(300)})
    assert sunny.sunless is not None
    assert sunny.sunless[0].distance_m < sunny.point.distance_m
    assert outing({"A": f}, "A").sunless is None
