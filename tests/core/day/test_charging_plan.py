"""Charging as a plan: from shore, from the sun, from a station on the dock."""

from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.day.charging_plan import STATION_EFFICIENCY, charging_plan
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import CHARGER_EFFICIENCY, Charger, together_h
from jolvek.core.electric.chemistry import end_soc
from jolvek.core.enquiry.sun import sun_of
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import ranked
from jolvek.core.match.whole import fitted_of
from jolvek.core.products.shelf import Item

SHELF = demo.shelf()


def pontoon(**day):
    m = match(demo.enquiries()[4].need, SHELF)
    f = fitted_of(m, ranked(m)[0])
    return replace(f, need=replace(f.need, day=replace(f.need.day, **day)))


def test_a_frozen_lithium_pack_takes_nothing_from_sun_or_shore():
    """Common practice, no source: lithium is never charged below 0 °C; lead may be."""
    warm, frozen = (pontoon(temperature_c=t, solar_w=600.0) for t in (1.0, -5.0))
    assert frozen.bank.chem.lithium and not frozen.bank.takes_charge and warm.bank.takes_charge
    assert charging_plan(warm).aboard_wh > 500 and charging_plan(frozen).aboard_wh == 0
    start = end_soc(frozen.bank.chem, frozen.need.day.reserve)
    assert {(s.reached, s.in_time) for s in charging_plan(frozen).shore} == {(start, False)}
    assert charging_plan(warm).shore[0].reached > start
    lead = replace(frozen, battery=Item("l", "M", "l", 1, Battery("agm", 48.0, 200)))
    assert lead.bank.takes_charge and charging_plan(lead).aboard_wh > 500


def said(plan):
    return {x.rule for x in plan.findings}


def test_one_charger_takes_the_time_that_the_setup_tells_and_more_take_less():
    f = pontoon(charge_h=48.0)
    plan = charging_plan(f)
    assert plan.shore[0].hours == pytest.approx(f.charge_h)
    assert plan.shore[0].hours > plan.shore[1].hours > plan.shore[2].hours
    draws = f.charger.spec.power_w / CHARGER_EFFICIENCY
    assert [s.shore_w for s in plan.shore] == pytest.approx([draws, 2 * draws, 3 * draws])
    assert plan.shore[0].in_time and plan.shore[0].reached == pytest.approx(0.99)


def test_the_quays_limit_holds_the_chargers_back_and_costs_time():
    half = 0.5 * pontoon().charger.spec.power_w / CHARGER_EFFICIENCY
    free, held = (charging_plan(pontoon(shore_limit_w=w)) for w in (None, half))
    assert not any(s.held_back for s in free.shore)
    (only,) = held.shore  # one more of them would do nothing
    assert only.held_back and only.shore_w == pytest.approx(half)
    assert only.hours > 1.5 * free.shore[0].hours


def test_what_is_not_full_says_the_charge_it_reaches_and_full_is_never_passed():
    f = pontoon(charge_h=2.0)
    plan = charging_plan(f)
    one = plan.shore[0]
    start = end_soc(f.bank.chem, f.need.day.reserve)
    assert not one.in_time and start < one.reached < 0.99
    back = together_h(f.bank, [f.charger.spec], start, one.reached)
    assert back == pytest.approx(2.0, abs=0.05)


@pytest.mark.parametrize(("charges", "speaks"), [(1, False), (2, True)])
def test_a_hire_boat_shares_the_hours_among_its_charges(charges, speaks):
    f = pontoon(charges_per_day=charges, charge_h=10.0)
    plan = charging_plan(f)
    assert plan.hours_each == 10.0 / charges
    assert ("charges-a-day" in said(plan)) == speaks


def test_without_shore_power_the_sun_must_do_it_or_that_is_said():
    dark = charging_plan(pontoon(shore_power=False))
    assert dark.shore == () and "no-shore" in said(dark)
    sunny = charging_plan(pontoon(shore_power=False, solar_w=20000.0))
    assert "no-shore" not in said(sunny)
    assert "no-shore" not in said(charging_plan(pontoon(shore_power=True)))


def test_the_dock_station_by_month_is_the_suns_year():
    f = pontoon(dock_solar_w=1000.0, dock_battery_wh=6000.0, latitude_deg=55.0)
    plan = charging_plan(f)
    day = {m.name: m.day_wh for m in plan.months}
    assert len(day) == 12 and max(day, key=day.get) == "June"
    assert min(day, key=day.get) == "December" and day["June"] > 8 * day["December"]
    # the same panels aboard on the same day give the same
    june = sun_of(replace(f.need.day, solar_w=1000.0, date="2026-06-15"))
    assert day["June"] == pytest.approx(june.energy_wh)
    for month in plan.months:
        wanted = STATION_EFFICIENCY * month.day_wh / plan.charge_wh
        assert month.charges == pytest.approx(wanted)
    assert plan.station_holds == pytest.approx(0.8 * 6000 * 0.85 / plan.charge_wh)


def test_south_of_the_line_the_year_is_turned():
    plan = charging_plan(pontoon(dock_solar_w=1000.0, latitude_deg=-40.0))
    day = {m.name: m.day_wh for m in plan.months}
    assert day["December"] > 2 * day["June"]


def test_the_noon_sun_holds_a_speed_whose_power_it_is():
    f = pontoon(solar_w=800.0)
    plan = charging_plan(f)
    noon = sun_of(f.need.day).noon_w
    assert f.performance.at_speed(plan.sun_speed_m_s).power_w == pytest.approx(noon, rel=0.02)
    assert charging_plan(pontoon(solar_w=800.0, hotel_w=5000.0)).sun_speed_m_s == 0
    assert charging_plan(pontoon()).sun_speed_m_s is None


def test_panels_asked_for_and_panels_added_are_counted_once():
    f = pontoon(solar_w=300.0)
    once = charging_plan(f).aboard_wh
    assert charging_plan(f, 300.0).aboard_wh == once
    assert charging_plan(f, 600.0).aboard_wh == pytest.approx(2 * once)
    assert charging_plan(f, 0.0).aboard_wh == 0 < once


def test_a_night_without_sun_is_said():
    plan = charging_plan(pontoon(solar_w=300.0, latitude_deg=80.0, date="2026-12-20"))
    assert "solar-none" in said(plan)


def test_without_a_charger_there_is_no_row_and_no_division_by_none():
    assert charging_plan(replace(sample_fitted(), charger=None)).shore == ()


@pytest.mark.parametrize(
    ("packs", "amps", "outputs", "counts"),
    [
        ((1, 1), 10, 1, 3),  # half an amp for each amp-hour is 50 A
        ((1, 1), 20, 1, 2),
        ((1, 1), 60, 1, 1),  # too much already; the rule on its current says so
        ((1, 2), 30, 1, 3),
    ],
)
def test_no_more_chargers_than_the_packs_take(packs, amps, outputs, counts):
    f = sample_fitted()
    pack = replace(f.battery, spec=Battery("lfp", 25.6, 100))
    charger = replace(f.charger, spec=Charger(24, amps, ("lfp",), outputs=outputs))
    f = replace(f, battery=pack, charger=charger, series=packs[0], parallel=packs[1])
    assert [s.chargers for s in charging_plan(f).shore] == list(range(1, counts + 1))


@pytest.mark.parametrize(
    ("packs", "outputs", "counts"), [(2, 1, 2), (4, 2, 2), (4, 4, 1), (4, 1, 2)]
)
def test_no_more_chargers_than_there_are_packs_for(packs, outputs, counts):
    f = sample_fitted()
    pack = replace(f.battery, spec=Battery("lfp", 12.8, 100))
    charger = replace(f.charger, spec=Charger(12, 20, ("lfp",), outputs=outputs))
    f = replace(f, battery=pack, charger=charger, series=packs)
    rows = charging_plan(f).shore
    assert len(rows) == counts
    hours = [s.hours for s in rows]
    assert hours == sorted(set(hours), reverse=True), "each one more is of use"
