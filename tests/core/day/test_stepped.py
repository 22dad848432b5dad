"""The day out: energy that adds up, steps that do not matter, and every awkward day told instead of
raised.
"""

from dataclasses import replace

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from jolvek import demo
from jolvek.core.day.aboard import spare_of
from jolvek.core.day.forecast import against
from jolvek.core.day.getting_home import (
    best_against_m_s,
    homing,
    no_return,
    regeneration,
    speed_for_arrival_m_s,
)
from jolvek.core.day.scenario import Switches, legs_otherwise, turn_index
from jolvek.core.day.stepped import sail_out
from jolvek.core.day.summed import run_day
from jolvek.core.electric.bank import Bank, runtime_s
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.chemistry import CHEMISTRIES
from jolvek.core.electric.pack_state import PackState
from jolvek.core.enquiry.need import Day, Leg, Need
from jolvek.core.fit.fitted import Fitted
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import ranked
from jolvek.core.match.whole import fitted_of
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor
from jolvek.core.products.shelf import sample
from jolvek.standins.weather import SimulatedForecast

DINGHY = Need(
    Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=0.36), Load(2, 150), day=Day(1.5, 5000)
)


def fitted(need=DINGHY, battery=None, **more):
    s = sample()
    item = s.batteries[0] if battery is None else replace(s.batteries[0], spec=battery)
    return Fitted(need, s.motors[0], item, s.mounts[0], s.chargers[0], shaft_m=0.381, **more)


def with_legs(*legs, **day):
    return replace(DINGHY, day=replace(DINGHY.day, **day).with_legs(legs))


def best(which):
    shelf, need = demo.shelf(), demo.enquiries()[which].need
    m = match(need, shelf)
    return replace(fitted_of(m, ranked(m, 1)[0]), charger=None)


@pytest.mark.parametrize("which", range(6))
def test_energy_adds_up_and_half_the_step_gives_the_same_day(which):
    f = best(which)
    sun = lambda hour: 60.0 * max(0.0, 1 - abs(hour - 12) / 6)  # noqa: E731
    whole, half = sail_out(f, sun_at=sun), sail_out(f, sun_at=sun, step_s=30.0)
    assert whole.balance < 1e-3 and half.balance < 1e-3
    assert whole.left == pytest.approx(half.left, rel=5e-3) and whole.hours == pytest.approx(
        half.hours, rel=5e-3
    )


@settings(max_examples=40, deadline=None)
@given(
    chem=st.sampled_from(sorted(CHEMISTRIES)),
    powers=st.lists(st.floats(-300, 900), min_size=1, max_size=25),
    cold=st.floats(-10, 40),
)
def test_energy_in_is_energy_out_whatever_is_drawn(chem, powers, cold):
    pack = PackState(Bank(Battery(chem, 24, 60), temperature_c=cold), soc=0.9)
    for power in powers:
        if power <= 0 or pack.able(power):
            pack.step(power, 1 / 60)
    assert pack.balance < 1e-3 and 0 <= pack.soc <= 1


@pytest.mark.parametrize("watts", [150.0, 400.0, 1000.0])
@pytest.mark.parametrize("chem", ["lfp", "nmc", "agm"])
def test_stepping_a_pack_down_takes_the_time_of_the_whole_discharge(chem, watts):
    bank = Bank(Battery(chem, 24, 100))
    pack, seconds, stop = PackState(bank), 0, max(0.2, 1 - bank.chem.usable)
    while pack.soc > stop and pack.able(watts):
        pack.step(watts, 10 / 3600)
        seconds += 10
    assert seconds == pytest.approx(float(runtime_s(bank, watts, 0.2)), rel=0.02)


# common practice, no source
def test_nine_kilowatt_hours_at_one_kilowatt_and_five_knots_are_nine_hours_and_45_miles():
    pack, hours = PackState(Bank(Battery("lfp", 51.2, 9000 / 51.2))), 0.0
    while pack.able(1000.0):
        pack.step(1000.0, 1 / 60)
        hours += 1 / 60
    assert hours == pytest.approx(9.0, rel=0.02) and hours * 5 == pytest.approx(45.0, rel=0.02)


def test_the_stepped_day_agrees_with_the_sum_of_its_legs():
    need = with_legs(
        Leg("out", 1.4, 2000.0, None, -0.2, -2.0, hold_s=600.0),
        Leg("home", 1.5, 2000.0, None, 0.2, 3.0),
        hotel_w=20.0,
    )
    v, r = sail_out(fitted(need)), run_day(fitted(need))
    assert v.energy_wh == pytest.approx(r.energy_wh, rel=0.01) and v.left == pytest.approx(
        r.left, abs=0.005
    )


def test_a_stream_faster_than_the_boat_is_told():
    v = sail_out(fitted(with_legs(Leg("out", 1.5, 500.0), Leg("the race", 1.5, 500.0, None, 1.6))))
    assert not v.done and v.first("no-way").text.startswith("no way is made on the race")


def test_a_day_of_nothing_ends_where_it_began():
    v = sail_out(fitted(with_legs(Leg("nothing", 1.5, 0.0))))
    assert v.home and v.left == 1.0 and v.hours == 0


def test_a_day_runs_past_midnight_and_the_sun_is_asked_by_the_clock():
    asked = []
    need = with_legs(Leg("night", 1.0, None, 4 * 3600.0, hold_s=3600.0), start_h=22.5)
    v = sail_out(fitted(need), sun_at=lambda hour: asked.append(hour) or 0.0)
    assert v.hours == pytest.approx(5.0) and min(asked) == 22.5 and max(asked) > 27.0


def test_warnings_come_in_their_order_and_the_motor_cuts_back():
    v = sail_out(fitted(replace(DINGHY, day=Day(2.15, 24_000))))
    kinds = [e.kind for e in v.events]
    assert [k for k in kinds if k in ("warning", "reserve", "cut-back", "empty")] == [
        "warning",
        "reserve",
        "cut-back",
        "empty",
    ]
    warning, reserve = v.first("warning"), v.first("reserve")
    assert 13 * 60 < reserve.t_s - warning.t_s < 17 * 60
    late = v.t_s > v.first("cut-back").t_s + 60
    assert v.power_w[late][:-1].max() <= 0.5 * 1200 + 1e-6 and not v.home


def test_a_spare_of_another_size_brings_her_home():
    need = replace(DINGHY, day=Day(1.95, 18_000))
    alone, helped = (
        sail_out(fitted(need)),
        sail_out(fitted(need), spare=Bank(Battery("agm", 24, 60))),
    )
    assert (
        not alone.home
        and helped.first("swap")
        and helped.distance_m[-1] > 1.1 * alone.distance_m[-1]
    )
    assert helped.balance < 1e-3


@pytest.mark.parametrize(
    "change",
    [
        {"wind_m_s": 8.0, "wind_from_h": 9.0},
        {"stream_m_s": 0.5},
        {"heavier": 0.15},
        {"months": 6.0},
        {"aged": 0.2},
        {"temperature_c": 0.0},
    ],
)
def test_every_switch_costs_charge(change):
    need = with_legs(Leg("out", 1.4, 2500.0), Leg("home", 1.4, 2500.0))
    assert sail_out(fitted(need), Switches(**change)).left < sail_out(fitted(need)).left


def test_wind_on_the_way_out_helps_her_home():
    need = with_legs(Leg("out", 1.4, 2500.0), Leg("home", 1.4, 2500.0))
    home, out = (
        sail_out(
            fitted(need),
            Switches(wind_m_s=8.0, wind_from_h=9.0 + 2500 / 1.4 / 3600, wind_against=w),
        ).left
        for w in ("home", "out")
    )
    assert home < out


def test_the_way_home_begins_where_less_than_half_is_left():
    assert turn_index(DINGHY.day.trip) == 1
    assert turn_index((Leg("a", 1, 300.0), Leg("b", 1, 300.0), Leg("c", 1, 600.0))) == 2


def test_from_the_point_of_no_return_she_just_comes_home():
    need = with_legs(Leg("out", 1.5, 3000.0, None, -0.3), Leg("home", 1.5, 3000.0, None, 0.3))
    far = no_return(fitted(need)).distance_m
    for share, home in ((0.97, True), (1.04, False)):
        legs = (Leg("out", 1.5, share * far, None, -0.3), Leg("home", 1.5, share * far, None, 0.3))
        assert sail_out(fitted(with_legs(*legs))).home is home
    windy = legs_otherwise(need.day, Switches(14.0, 0.0))
    assert no_return(fitted(need), windy).distance_m < far


def test_slowest_and_fastest_speeds_that_bring_her_home_do_and_beyond_they_do_not():
    need = with_legs(Leg("out", 1.5, 4500.0), Leg("home", 1.5, 4500.0))
    h = homing(fitted(need))

    def at(speed):
        return sail_out(
            fitted(with_legs(Leg("out", speed, 4500.0), Leg("home", speed, 4500.0)))
        ).home

    assert at(0.97 * h.fastest_m_s) and not at(1.08 * h.fastest_m_s) and at(h.slowest_m_s)
    assert (
        homing(
            fitted(with_legs(Leg("out", 1.5, 240_000.0), Leg("home", 1.5, 240_000.0)))
        ).fastest_m_s
        is None
    )


@pytest.mark.parametrize("switches", [Switches(w, h) for w in (4, 7, 10) for h in (0, 9.6, 23)])
def test_the_fastest_speed_home_in_a_wind_is_that_of_the_voyage_in_it(switches):
    """One wind, two ways to ask: the page must not say 3.6 kn bring her home where 3.5 do not."""

    def day(speed):
        return with_legs(Leg("out", speed, 4500.0), Leg("home", speed, 4500.0))

    h = homing(fitted(day(1.5)), legs_otherwise(day(1.5).day, switches))
    whole = switches.wind_from_h != 9.6  # a wind that gets up half-way counts for the whole leg
    assert sail_out(fitted(day(0.96 * h.fastest_m_s)), switches).home
    assert not (whole and sail_out(fitted(day(1.08 * h.fastest_m_s)), switches).home)


def test_the_speed_for_an_arrival_arrives_then():
    need = with_legs(
        Leg("out", 1.5, 3000.0, None, 0.2, 0.0, hold_s=600.0), Leg("home", 1.5, 3000.0, None, -0.2)
    )
    speed = speed_for_arrival_m_s(fitted(need), 1.4)
    assert 3000 / (speed - 0.2) + 600 + 3000 / (speed + 0.2) == pytest.approx(1.4 * 3600, rel=1e-3)
    assert speed_for_arrival_m_s(fitted(need), 0.2) is None


def test_against_a_stream_one_goes_faster_and_against_too_much_not_at_all():
    p = evaluate(Setup(Hull("canoe", 4.8, 0.9, 32), Load(2, 150), Motor(500, mass_kg=8)))
    assert best_against_m_s(p, 1.0) > best_against_m_s(p, 0.4) > best_against_m_s(p, 0.0)
    assert best_against_m_s(p, 9.0) is None


def test_regeneration_costs_more_speed_the_more_it_gives():
    p = evaluate(Setup(Hull("keelboat", 8, 2.6, 3000), Load(3), Motor(6000, mass_kg=60)))
    slow, fast = regeneration(p, 2.0), regeneration(p, 3.2)
    assert 0 < slow.power_w < fast.power_w < 800 and 0 < fast.lost_m_s < 0.8


def test_the_simulated_weather_is_the_same_again_two_tides_a_day_and_says_that_it_is_simulated():
    service = SimulatedForecast()
    day = [service.at(55.0, 10.0, "2026-07-01", h / 4) for h in range(96)]
    assert day == [service.at(55.0, 10.0, "2026-07-01", h / 4) for h in range(96)] and all(
        w.simulated for w in day
    )
    turns = sum(a.stream_to_deg != b.stream_to_deg for a, b in zip(day, day[1:], strict=False))
    assert turns in (3, 4) and max(w.stream_m_s for w in day) < 1.2
    noon, night = max(w.wind_m_s for w in day[52:68]), day[8].wind_m_s
    assert noon > night and service.at(55.0, 10.0, "2026-07-02", 12) != service.at(
        55.0, 10.0, "2026-07-01", 12
    )
    assert against(day[0], day[0].wind_from_deg)[0] == pytest.approx(day[0].wind_m_s)


def test_a_spare_weighs_and_only_a_pack_that_can_be_swapped_is_one():
    f = fitted()
    light, heavy = sail_out(f), sail_out(f, spare=f.bank)
    assert heavy.fitted.displacement_kg == pytest.approx(
        light.fitted.displacement_kg + f.bank.mass_kg
    )
    assert heavy.power_w.max() > light.power_w.max()
    plug = replace(f.battery, spec=replace(f.battery.spec, connector_max_a=60.0))
    wired = replace(f.battery, spec=replace(f.battery.spec, connector_max_a=None))
    assert spare_of(replace(f, battery=plug)) is not None
    assert spare_of(replace(f, battery=wired)) is None
    assert spare_of(replace(f, battery=plug, parallel=2)) is None


@pytest.mark.parametrize("share", [0.91, 0.5, 0.3])
def test_she_sets_out_with_what_is_in_the_battery(share):
    f = fitted()
    full, less = sail_out(f), sail_out(f, Switches(start_charge=share))
    assert less.soc[0] == pytest.approx(share)
    assert less.left < full.left and less.balance < 1e-3
    if less.done:
        used = (full.soc[0] - full.left, share - less.left)
        assert used[1] == pytest.approx(used[0], rel=0.08)
