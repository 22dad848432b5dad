"""Boat, Waters, the counter and the shortlist: what their records say is what the core says."""

import re
from dataclasses import replace

import numpy as np
import pytest

from jolvek import demo
from jolvek.core.base import units
from jolvek.core.enquiry.demands import demands, hardest
from jolvek.core.enquiry.need import Day, Leg
from jolvek.core.enquiry.schools import power_schools
from jolvek.core.enquiry.sizing import size
from jolvek.core.job.job_setup import of_fitted
from jolvek.core.match.matching import match
from jolvek.core.match.picks import Pick
from jolvek.core.match.ranking import ranked, steps
from jolvek.core.match.whole import fitted_of
from jolvek.core.predict.likelihood import in_words
from jolvek.core.products.shelf import Shelf
from jolvek.web.kit.matches import row
from jolvek.web.kit.quick import from_catalogue, quick_answer, quick_need
from jolvek.web.stations.boat.view import boat_page, schools, speeds_m_s
from jolvek.web.stations.shortlist.narrowed import facet_values, narrowed
from jolvek.web.stations.shortlist.narrowing import Filters, filters_from
from jolvek.web.stations.shortlist.rejected import MOST_SHOWN
from jolvek.web.stations.shortlist.view import because, missed, picked, results, shortlist_page
from jolvek.web.stations.waters.view import waters_page
from tests.web.pages.made import ALL, AT_SEA, ENQUIRIES, METRIC, answer, found

EVERY = range(6)


def bare(text):
    return re.sub(r"<[^>]+>", "", str(text)).replace("\u202f", "").replace("\xa0", " ")


def figure(text):
    return float(re.search(r"-?\d+(?:\.\d+)?", bare(text))[0])


@pytest.mark.parametrize("which", EVERY)
def test_the_boats_page_says_the_power_of_the_wished_speed(which):
    need = ENQUIRIES[which].need
    page, sizing = boat_page(need, AT_SEA), size(need)
    watts = [float(x) for x in re.findall(r"(\d+(?:\.\d+)?) W", bare(page.answer))]
    assert watts and min(abs(w / sizing.power_w - 1) for w in watts) < 0.06
    assert len(page.drawings) >= 1 and page.basis and len(page.speeds) >= 4


@pytest.mark.parametrize(("unit", "usual"), [("km/h", 4), ("kn", 2)])
def test_the_speeds_of_the_list_are_round_in_the_readers_unit(unit, usual):
    u = METRIC if unit == "km/h" else AT_SEA
    shown = [units.to_unit(v, "speed", unit) for v in speeds_m_s(1.8, u)]
    assert any(x == pytest.approx(usual, abs=1e-6) for x in shown)
    assert shown == sorted(shown)


@pytest.mark.parametrize("which", EVERY)
def test_each_school_of_power_stands_with_its_source_and_one_is_preferred(which):
    need = ENQUIRIES[which].need
    result = schools(need, AT_SEA)
    assert len(result) >= 2 and all(s.source for s in result)
    assert sum(s.preferred for s in result) == 1 and next(s for s in result if s.preferred).why
    assert {s.name for s in result} <= {s.name for s in power_schools(need)} | {
        s.name for s in result
    }


@pytest.mark.parametrize("which", [1, 5])
@pytest.mark.parametrize("u", ALL.values(), ids=ALL)
def test_the_waters_page_marks_the_leg_that_decides(which, u):
    need = ENQUIRIES[which].need
    page, rows = waters_page(need, u), demands(need)
    assert len(page.rows) == len(rows)
    hard = hardest(rows)
    assert [r.name for r in page.rows if r.deciding] in ([hard.leg.name], [])
    for shown, asked in zip(page.rows, rows, strict=True):
        speed = units.to_unit(asked.leg.speed_m_s, "speed", u["speed"])
        assert figure(shown.figures[0]) == pytest.approx(speed, abs=0.06)
        assert figure(shown.figures[5]) == pytest.approx(asked.energy_wh, abs=0.6)


def test_a_leg_over_the_limit_of_the_place_is_marked():
    need = ENQUIRIES[0].need
    legs = (Leg("slow", 1.2, 1000.0), Leg("fast", 1.9, 1000.0))
    day = replace(need.day, speed_limit_m_s=1.5).with_legs(legs)
    page = waters_page(replace(need, day=day), AT_SEA)
    assert [r.too_fast for r in page.rows] == [False, True]


def test_the_sun_of_the_day_is_told_with_its_noon():
    need = ENQUIRIES[4].need
    dark, sunny = (
        waters_page(replace(need, day=replace(need.day, solar_w=w)), AT_SEA) for w in (0, 500)
    )
    assert "panels give" not in dark.basis and "panels give about" in sunny.basis


@pytest.mark.parametrize(("wind_m_s", "stopped"), [(10.0, False), (12.0, True), (-12.0, True)])
def test_wind_that_is_too_much_is_a_stop_before_all_that_the_day_takes(wind_m_s, stopped):
    need = ENQUIRIES[4].need
    windy = replace(need, day=replace(need.day, wind_m_s=wind_m_s, legs=()))
    assert waters_page(windy, AT_SEA).answer.startswith("*Stop*: ") == stopped
    result = waters_page(windy, AT_SEA).answer
    assert not stopped or f"{AT_SEA.full(12.0, 'speed')} of wind" in result


@pytest.mark.parametrize("family", ["kayak", "rigid_dinghy", "rib", "pontoon"])
def test_the_quick_answer_is_the_sizing_of_the_core(family):
    need = quick_need(family, 4.2, 2, Day(1.8, 6000))
    result, sizing = quick_answer(need, AT_SEA), size(need)
    shown = dict(result.figures)
    assert figure(shown["Lithium"]) == pytest.approx(sizing.energy_wh / 1000, abs=0.06)
    assert figure(shown["or lead-acid"]) == pytest.approx(sizing.lead_wh / 1000, abs=0.06)
    motor = figure(shown["Motor to look for"])
    assert motor >= sizing.motor_w - 1e-6 and motor % 50 == 0
    assert sizing.lead_wh > sizing.energy_wh


def test_the_quick_answer_says_when_nothing_on_the_shelf_does_it():
    need = quick_need("kayak", 4.0, 1, Day(1.5, 3000))
    assert "Nothing in the catalogue" in from_catalogue(need, Shelf(), AT_SEA)
    swift = quick_need("kayak", 4.0, 1, Day(1.0, 3000, current_m_s=3.0))
    assert "no way is made" in quick_answer(swift, AT_SEA).answer


def shown(which, u=AT_SEA, **args):
    need = ENQUIRIES[which].need
    filters = filters_from(args, need, u)
    return results(need, answer(which), filters, {}, u), filters


@pytest.mark.parametrize("which", EVERY)
def test_the_list_has_each_pick_once_with_its_number_and_the_matchs_figures(which):
    page, _ = shown(which)
    m = found(which)
    marks = [r.mark for r in page.rows if r.mark]
    assert marks == sorted(set(marks)) and page.rows[0].mark == 1
    assert page.left == int(m.field.does_day.sum())
    prices = {round(float(p)) for p in m.field.price}
    for r in page.rows:
        assert round(figure(re.sub(r"[^\d.]", "", bare(r.price)))) in prices
        assert r.pin["motor"] and r.pin["battery"] and r.pin["mount"] and r.pin["charger"]


@pytest.mark.parametrize("which", [1, 4])
def test_a_price_narrows_the_list_and_the_count(which):
    everything, _ = shown(which)
    m = found(which)
    most = float(np.median(m.field.price[m.field.does_day]))
    page, filters = shown(which, price_max=f"{most:.2f}")
    assert filters.any and page.left == int((m.field.does_day & (m.field.price <= most)).sum())
    assert page.left < everything.left


@pytest.mark.parametrize("value", ["-5", "much", "1e99"])
def test_a_filter_that_cannot_be_read_is_told_and_left_out(value):
    page, filters = shown(1, price_max=value)
    assert "price_max" in filters.refused and filters.price_max is None
    assert page.left == shown(1)[0].left


def test_each_facet_leaves_only_what_has_it():
    m = found(4)
    for facet, (values, words) in facet_values(m).items():
        for k, word in enumerate(words[:3]):
            only = Filters({facet: word}, None, None, None, None, {}, refused={})
            keep = narrowed(m, only)
            assert keep.sum() == (values == k).sum() or keep.any() == (values == k).any()


def test_why_a_setup_stands_where_it_does_names_the_wishes_that_lift_it():
    values = {"price": np.array([0.2, 1.0]), "light": np.array([0.9, 0.1])}
    values |= {w: np.zeros(2) for w in ("range", "speed", "silence", "hands_free", "tidy")}
    weights = dict.fromkeys(values, 0.0) | {"price": 3.0, "light": 2.0}
    assert because(values, weights, 0).startswith("light to carry 90")
    assert because(values, weights, 1).startswith("costs little 100")
    assert because(values, dict.fromkeys(values, 0.0), 0) == ""


@pytest.mark.parametrize(
    ("miss", "words"),
    [
        (("charge", 14.2, 10.0), "fills in 14.2 h, not in 10 h"),
        (("kit", 0.62, 0.4), "weighs 62 % of the boat with its people"),
        (("power", 6000.0, 2237.0), "6000 W, more than the 2237 W such a boat bears"),
    ],
)
def test_what_a_pick_misses_is_told_after_its_title(miss, words):
    result = bare(missed(Pick("x", "fastest", 0, (miss,)), AT_SEA))
    assert result == f", but {words}"


@pytest.mark.parametrize("which", EVERY)
def test_the_whole_shortlist_tells_steps_of_money_and_reasons_for_the_rest(which):
    need = ENQUIRIES[which].need
    first, _ = shown(which)
    page = shortlist_page(need, answer(which), first, AT_SEA)
    m = found(which)
    there = len(steps(m))
    assert len(page.steps) == (there if there > 1 else 0)
    gone = sum(count for _, _, count in page.rejected)
    reasons = (m.motor_reasons, m.battery_reasons, m.mount_reasons, m.charger_reasons)
    assert gone == sum(map(len, reasons))
    for _, rows, count in page.rejected:
        assert len(rows) == min(count, MOST_SHOWN)
        assert all(r.text and r.title for r in rows)
    assert page.any_does == bool(m.field.does_day.any())


def test_a_setup_picked_for_much_tells_once_what_it_misses():
    misses = (("power", 9000.0, 3728.0), ("kit", 0.46, 0.4))
    picks = [Pick("a", "does the day, cheapest", 3, misses), Pick("b", "lightest", 3, misses)]
    result = picked(picks, METRIC).replace("\u202f", "").replace("\u00a0", "")
    assert result.startswith("does the day, cheapest; lightest, but 9.00kW, more than the 3.73kW")
    assert result.count("but") == 1 and result.endswith(
        "bears, and weighs 46% of the boat with its people"
    )
    assert picked([], METRIC) == ""


def test_a_small_energy_is_told_in_watt_hours():
    board = quick_need("board", 3.2, 1, Day(1.0, 2000))
    assert re.search(r"a battery of about \*\d\d Wh\*", quick_answer(board, AT_SEA).answer)


@pytest.mark.parametrize("which", range(6))
def test_a_row_says_of_the_day_what_the_setup_says_once_it_is_pinned(which, app):
    need, shelf = demo.enquiries()[which].need, demo.shelf()
    found = match(need, shelf)
    with app.test_request_context():
        for i in ranked(found, 12):
            listed, job = row(found, i), of_fitted(fitted_of(found, i))
            assert listed.as_wished == job.run.as_wished
            assert not listed.as_wished or in_words(listed.chance) == job.day.likely, (which, i)
            assert listed.range_m == job.wish_or_top.range_m
