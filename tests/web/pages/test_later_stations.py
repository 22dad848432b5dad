"""Side by side, Day out, Fitting, Offer and the shelf: what their records say is what the core
says.
"""

import re
from dataclasses import replace

import pytest

from jolvek.core.base import units
from jolvek.core.day.outing import outing
from jolvek.core.day.scenario import Switches
from jolvek.core.electric.charging import together_h
from jolvek.core.electric.chemistry import end_soc
from jolvek.core.predict.likelihood import in_words
from jolvek.core.predict.streams import against_streams
from jolvek.core.products.plain import NOT_SOLD
from jolvek.core.products.shelf import Shelf
from jolvek.standins.weather import SimulatedForecast
from jolvek.store.shop import Shop
from jolvek.web.desk.catalogue.view import COLUMNS, catalogue_page
from jolvek.web.kit.doubt_words import MANAGES
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.kit.figures import unmarked
from jolvek.web.stations.by_hand.view import by_hand_page
from jolvek.web.stations.day_out.form import asked_from as outing_asked
from jolvek.web.stations.day_out.planned import planned, run_day
from jolvek.web.stations.day_out.view import day_out_page
from jolvek.web.stations.fitting.drawing import drawing_page
from jolvek.web.stations.fitting.form import fitted_from
from jolvek.web.stations.fitting.mounts import mounts_page
from jolvek.web.stations.fitting.wiring import wiring_page
from jolvek.web.stations.offer import content as offer_content
from jolvek.web.stations.offer.form import Draft
from jolvek.web.stations.offer.setups import AS_ASKED, offer_page
from jolvek.web.stations.side_by_side.streams import NOT
from jolvek.web.stations.side_by_side.view import asked_from, side_by_side_page
from jolvek.web.stations.waters.charging import charging_panel
from tests.web.pages.made import ALL, AT_SEA, ENQUIRIES, SHELF, found, worked

EVERY = range(6)


def bare(text):
    return re.sub(r"<[^>]+>", "", str(text)).replace("\u202f", "").replace("\xa0", " ")


def figure(text):
    return float(re.search(r"-?\d+(?:\.\d+)?", bare(text).replace(",", ""))[0])


def two(which):
    return [worked(which, 0), worked(which, 1)]


def compared(which, u=AT_SEA, **args):
    need = ENQUIRIES[which].need
    asked = asked_from(args, need, two(which), u)
    return side_by_side_page(need, two(which), asked, u), asked


@pytest.mark.parametrize("which", EVERY)
@pytest.mark.parametrize("by", ["speed", "power", "day"])
def test_a_row_of_the_table_marks_one_best_and_the_best_is_so(which, by):
    page, _ = compared(which, by=by)
    for row in page.rows:
        assert len(row.cells) == 2 and sum(c.best for c in row.cells) <= 1
    price = next(r for r in page.rows if r.name == "Fitted")
    prices = [w.job.ranking_price for w in two(which)]
    if prices[0] != prices[1]:
        assert [c.best for c in price.cells] == [p == min(prices) for p in prices]


@pytest.mark.parametrize("u", ALL.values(), ids=ALL)
def test_the_cursor_is_read_in_the_readers_unit_and_held_within_reach(u):
    tops = [w.performance.top_speed_m_s for w in two(1)]
    shown = units.show(1.5, "speed", u["speed"], 3)
    _, asked = compared(1, u, speed=f"{shown} {u['speed']}")
    assert asked.cursor == pytest.approx(1.5, abs=0.01) and asked.refused == ""
    assert compared(1, u, speed="99 kn")[1].cursor == max(tops)
    assert "expected" in compared(1, u, speed="fast")[1].refused


def day_out(which, u=AT_SEA, **args):
    need, all_two = ENQUIRIES[which].need, two(which)
    asked = outing_asked(args, u)
    out = run_day(planned(need, asked, SimulatedForecast()), all_two, all_two[0], asked)
    return day_out_page(out, all_two, asked, args, u), out


@pytest.mark.parametrize("which", EVERY)
def test_the_days_sentence_says_how_the_stepped_day_ends(which):
    page, out = day_out(which)
    v = out.voyage
    assert f"{100 * v.left:.0f} %" in unmarked(page.answer).replace("\xa0", " ")
    assert ("Home at" in page.answer) == v.done
    shown = dict(page.figures)
    used = next(text for name, text in page.figures if name.startswith("Used"))
    assert figure(used) == pytest.approx(v.energy_wh / 1000, abs=0.006)
    assert figure(shown["Last point from which the boat gets home"]) == pytest.approx(
        units.to_unit(out.point.distance_m, "distance", "nm"), abs=0.06
    )


@pytest.mark.parametrize(
    ("args", "word"),
    [
        ({"wind": "25"}, "the wind"),
        ({"heavier": "1"}, "the load"),
        ({"months": "6"}, "what grows on the bottom"),
        ({"aged": "1"}, "the old battery"),
        ({"cold": "1"}, "the cold"),
        ({"charge": "80"}, "the charge at the start"),
    ],
)
def test_what_comes_otherwise_is_named_with_what_it_takes(args, word):
    page, out = day_out(4, **args)
    assert word in unmarked(page.basis)
    if out.voyage.done and out.planned.done:
        assert out.voyage.left <= out.planned.left + 1e-9


def test_two_causes_are_named_together():
    page, _ = day_out(4, heavier="1", aged="1")
    assert "the load and the old battery take" in unmarked(page.basis)


@pytest.mark.parametrize("which", [0, 3])
@pytest.mark.parametrize("u", ALL.values(), ids=ALL)
def test_the_drawing_says_the_trim_of_the_core_in_every_unit(which, u):
    f = worked(which).fitted
    page = drawing_page(f, Reader({}, u), u)
    assert f"*{abs(f.attitude.trim_deg):.1f}°*" in page.answer
    assert dict(page.figures)["Trim"].startswith(f"{abs(f.attitude.trim_deg):.1f}°")
    assert sum(s.checked for s in page.shafts) == (1 if f.leg is not None else 0)
    for row in page.weights:
        assert float(row.low) <= float(row.value) <= float(row.high) + 0.5


@pytest.mark.parametrize("which", EVERY)
def test_the_wiring_lists_each_cable_once_with_the_netlists_figures(which):
    f = worked(which).fitted
    page = wiring_page(f, {}, ALL["metric"])
    n = f.netlist
    assert [c[0].split()[0] for c in page.cables] == [w.id for w in n.wires]
    for cells, wire in zip(page.cables, n.wires, strict=True):
        assert float(cells[3]) == pytest.approx(wire.length_m, abs=0.006)
        assert float(cells[6]) == pytest.approx(wire.current_a, abs=0.51)
    assert len(page.fuses) == len(n.fuses)
    if not f.clips_on:
        assert f"draws up to *{n.motor_a:.0f} A*" in page.answer


@pytest.mark.parametrize("which", EVERY)
def test_all_mounts_stand_once_those_that_go_before_the_others(which):
    m = found(which)
    page = mounts_page(worked(which).fitted, m, AT_SEA)
    assert sorted(r.name for r in page.mounts) == sorted(k.name for k in SHELF.mounts)
    whys = [bool(r.why) for r in page.mounts]
    assert whys == sorted(whys) and sum(r.here for r in page.mounts) == 1
    assert f"*{whys.count(False)}* of {len(whys)}" in page.answer


@pytest.mark.parametrize("which", EVERY)
def test_the_offer_adds_up(which):
    w = worked(which)
    page = offer_page(w, AT_SEA)
    together = sum(p.quantity * p.price for p in w.pinned.parts)
    assert w.job.parts_price == pytest.approx(together)
    lines = offer_content.lines(w, Draft(), Shop())
    assert sum(x.amount for x in lines if x.kind == "part") == round(100 * together)
    for row in page.expected:
        if row.figures[1] != AS_ASKED:
            low, high = (float(x) for x in row.figures[1].split(" – "))
            assert low < float(unmarked(str(row.figures[0]))) < high
        near, far = (figure(x) for x in row.figures[4].split(" – "))
        assert near < figure(row.figures[3]) < far


def test_a_speed_that_is_asked_may_cost_far_more_range_than_a_power_may_cost_speed():
    w = worked(1)
    asked, half = offer_page(w, AT_SEA).expected[:2]
    assert asked.figures[1] == AS_ASKED and half.figures[1] != AS_ASKED
    wide, narrow = ([figure(x) for x in r.figures[4].split(" – ")] for r in (asked, half))
    assert wide[1] / wide[0] > 1.3 * narrow[1] / narrow[0]
    ends = w.fitted.doubt.range_band_m(w.wish_or_top_m_s)
    assert wide == [figure(AT_SEA.number(float(x), "distance")) for x in ends]


def test_the_offer_says_the_share_that_lead_really_keeps():
    w = worked(1)
    lead = replace(w.fitted.battery, spec=replace(w.fitted.battery.spec, chemistry="agm"))
    rows = [
        offer_page(replace(w, job=replace(w.job, fitted=f)), AT_SEA).basis
        for f in (w.fitted, replace(w.fitted, battery=lead))
    ]
    assert "leave 20 % of the charge" in rows[0] and "leave 50 % of the charge" in rows[1]


@pytest.mark.parametrize("which", EVERY)
def test_the_plan_of_charging_is_the_setups_own_time(which):
    w = worked(which)
    panel = charging_panel(w.job, AT_SEA)
    f = w.fitted
    hours = together_h(f.bank, [f.charger.spec], end_soc(f.bank.chem, f.need.day.reserve))
    result = re.match(r"(?:(\d+) h )?(\d+) min", bare(panel.shore[0][2]))
    assert int(result[1] or 0) + int(result[2]) / 60 == pytest.approx(hours, abs=1 / 55)
    assert f.charge_h == pytest.approx(hours)


@pytest.mark.parametrize("which", EVERY)
def test_a_setup_by_hand_is_told_as_the_list_tells_it(which):
    f = worked(which).fitted
    page = by_hand_page(f, AT_SEA)
    assert page.findings == f.findings
    assert f.motor.title in page.answer and "top" in page.answer


@pytest.mark.parametrize("kind", COLUMNS)
def test_a_kind_of_the_shelf_is_sorted_found_and_counted(kind):
    items = getattr(SHELF, kind)
    page = catalogue_page(SHELF, kind, "", "", True, "price")
    prices = [r.price or 0.0 for r in page.items]
    assert prices == sorted(prices) and len(prices) == len(items) == page.counts[kind]
    one = items[0]
    hit = catalogue_page(SHELF, kind, one.title.split()[-1].lower(), one.maker, True, "")
    assert one.id in {r.id for r in hit.items}
    assert catalogue_page(SHELF, kind, "no such thing", "", True, "").items == ()
    if kind in NOT_SOLD:
        return  # known, and never discontinued
    gone = replace(one, discontinued=True)
    left = Shelf(**{kind: (gone, *items[1:])})
    assert one.id not in {r.id for r in catalogue_page(left, kind, "", "", False, "").items}


def test_what_lead_really_keeps_stands_in_table_and_offer_alike():
    """Half of the charge, whatever reserve was asked."""
    w = worked(1)
    lead = next(b for b in SHELF.batteries if not b.spec.chem.lithium)
    asked = w.fitted.need.day.reserve
    by_lead = replace(w, job=replace(w.job, fitted=replace(w.fitted, battery=lead)))
    assert (w.kept_text, by_lead.kept_text) == (f"{100 * asked:.0f} % of the charge",) + (
        "50 % of the charge",
    )
    row = next(r for r in compared(1)[0].rows if r.name == "Kept at the end")
    assert [c.text for c in row.cells] == [x.kept_short for x in two(1)]
    assert [f"{x.kept_short} of the charge" for x in two(1)] == [x.kept_text for x in two(1)]


def stormy(wind, **more):
    w = worked(1)
    s = Switches(wind_m_s=wind, wind_from_h=9.0, **more)
    out = outing({"A": w.fitted}, "A", s)
    return day_out_page(out, [w], outing_asked({}, AT_SEA), {}, AT_SEA), out


def test_thirty_knots_in_a_small_inflatable_are_a_stop_before_any_charge():
    page, out = stormy(15.4)
    assert page.answer.startswith("*Stop*: 29.9") and "stays ashore" in page.answer
    assert [f.rule for f in page.seas][0] == "wind-limit" and not out.seas.holds
    calm, _ = stormy(2.0)
    assert calm.seas == () and not calm.answer.startswith("*Stop*")


def test_open_water_upwind_raises_waves_that_cost_charge():
    sheltered, open_water = stormy(5.0)[1], stormy(5.0, fetch_m=3000.0)[1]
    assert sheltered.seas.wave_m == 0 < open_water.seas.wave_m < 0.3
    assert open_water.voyage.energy_wh > 1.03 * sheltered.voyage.energy_wh
    towing = stormy(5.0, tow_length_m=2.4)[1]
    assert towing.voyage.energy_wh > 1.03 * sheltered.voyage.energy_wh
    shallow = stormy(2.0, depth_m=0.35)[1]
    assert "shallow" in {f.rule for f in shallow.seas.findings}


@pytest.mark.parametrize("which", EVERY)
def test_the_ends_of_the_day_lie_about_it_and_the_word_follows_them(which):
    w = worked(which)
    out = outing({"A": w.fitted}, "A")
    hard, easy = out.between
    if hard.done:
        assert hard.left < out.voyage.left < easy.left
    expected = in_words(out.chance)
    assert (out.chance >= 0.5) == out.voyage.home and (out.chance >= 0.8999) == hard.home
    assert (out.chance <= 0.1001) == (not easy.home)
    page = day_out_page(out, [w], outing_asked({}, AT_SEA), {}, AT_SEA)
    assert f"the boat {MANAGES[expected]}" in unmarked(page.basis)
    if hard.done:
        assert f"between {100 * hard.left:.0f} % and {100 * easy.left:.0f} %" in unmarked(
            page.basis
        )


@pytest.mark.parametrize("by", ["speed", "power"])
def test_what_may_be_stands_under_each_figure_and_holds_it(by):
    page, _ = compared(1, by=by)
    rows = {r.name: r for r in page.rows}
    first = next(r for name, r in rows.items() if name.startswith(("Power at", "Speed")))
    for value, may in ((first, rows["may be"]), (rows["Range"], rows["range may be"])):
        for cell, ends in zip(value.cells, may.cells, strict=True):
            if "–" in ends.text and len(ends.text) > 1:
                low, high = (figure(x) for x in ends.text.split("–"))
                assert low <= figure(cell.text) <= high and low < high
    assert "try one speed on the water" in unmarked(page.basis)


def test_the_table_of_streams_is_the_cores():
    page, _ = compared(1)
    p = page.hand.performance
    power = p.at_speed(ENQUIRIES[1].need.day.speed_m_s).power_w
    rows = against_streams(p, power)
    assert [r.stream for r in page.streams.rows] == [
        AT_SEA.number(r.stream_m_s, "speed") for r in rows
    ]
    assert [n for n, _ in page.streams.columns] == ["full", "half", "lowest", "at the cursor"]
    for shown, row in zip(page.streams.rows, rows, strict=True):
        for (speed, _), held in zip(shown.settings, row.settings, strict=True):
            assert speed == (AT_SEA.number(held.ground_m_s, "speed") if held.holds else NOT)


def test_moving_a_weight_says_what_it_does_to_her_speed():
    w = worked(5)
    far = {f"w-person-{i}": "0.3" for i in (1, 2)}
    read = Reader(far, AT_SEA)
    result = drawing_page(fitted_from(w.fitted, read), read, AT_SEA).answer
    assert "at full power" in result and "before the move" in result
    same = drawing_page(w.fitted, Reader({}, AT_SEA), AT_SEA).answer
    assert "full power" not in same
