"""What was said twice on a page and differently, and what nobody would say: gone, kept gone."""

import re
from dataclasses import replace

import pytest

from jolvek.core.day.outing import outing
from jolvek.core.day.scenario import Switches
from jolvek.core.enquiry.site import Site
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.fit.leg import JUST_M, shaft_choices
from jolvek.core.fit.trim import attitude, best_stowed_m, moved
from jolvek.core.hydro.hull import Hull
from jolvek.core.job.job_setup import on_another_day
from jolvek.core.products.mounting import Mount
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.stations.fitting.drawing import drawing_page
from jolvek.web.stations.fitting.text import SHORT
from jolvek.web.stations.offer.setups import offer_page
from tests.web.pages.made import AT_SEA, METRIC
from tests.web.pages.test_later_stations import worked


def test_a_shaft_that_is_too_short_is_never_said_to_draw_no_air(app):
    tall = sample_fitted(transom_height_m=0.46)
    with app.test_request_context():
        page = drawing_page(tall, Reader({}, METRIC), METRIC)
    assert "ABOVE" in page.answer and SHORT in page.answer and "draw air" not in page.answer
    assert "shaft-short" in {f.rule for f in tall.findings}


@pytest.mark.parametrize(
    ("seat_m", "says"),
    [(0.381, "just long enough"), (0.381 - JUST_M, "right"), (0.356, "right"), (0.39, "too short")],
)
def test_a_plate_level_with_the_bottom_is_just_enough_and_25_mm_is_right(seat_m, says):
    assert says in shaft_choices((0.381,), seat_m, 0.2, 0.2)[0].says


@pytest.mark.parametrize("which", range(6))
def test_the_best_place_for_the_battery_lies_in_a_bay(which, app):
    f = worked(which).fitted
    pack = next((w for w in f.weights if w.name.startswith("battery")), None)
    placed = [b for b in f.need.site.bays if b.ahead_m is not None]
    if pack is None or f.clips_on or not placed:
        pytest.skip("no pack of its own in a bay")
    best, name = best_stowed_m(f.need.hull, f.weights, pack.name, f.need.site.bays)
    bay = next(b for b in placed if b.name == name)
    assert bay.ahead_m - bay.length_m / 2 <= best <= bay.ahead_m + bay.length_m / 2
    now, then = (
        attitude(f.need.hull, w, f.need.water)
        for w in (f.weights, moved(f.weights, pack.name, best))
    )
    assert abs(then.trim_deg) <= abs(now.trim_deg) + 0.01 or len(placed) > 1


def test_an_offer_that_cannot_reach_the_wanted_speed_does_not_call_it_wanted(app):
    w = worked(1)
    fast = replace(w.fitted.need, day=replace(w.fitted.need.day, speed_m_s=6.2, legs=()))
    hurried = replace(w, job=on_another_day(w.job, fast))
    with app.test_request_context():
        names = [x.name for x in offer_page(hurried, AT_SEA).expected]
    assert "the wanted speed" not in names and "12.1" in names[0] and "wanted" in names[0]


def demo_day():
    from datetime import date

    return date(2026, 11, 26)


@pytest.mark.parametrize(
    ("family", "style", "told"),
    [("keelboat", "pod", True), ("keelboat", "outboard", False), ("rigid_dinghy", "pod", False)],
)
def test_regeneration_is_told_of_pods_under_sail_alone(family, style, told):
    f = sample_fitted()
    boat = {"keelboat": Hull("keelboat", 7.0, 2.3, 1500), "rigid_dinghy": f.need.hull}[family]
    need = replace(f.need, hull=boat)
    motor = replace(f.motor, style=style)
    pod = replace(f, need=need, motor=motor, table=None)
    out = outing({"A": pod}, "A", Switches())
    assert (out.regeneration is not None) == told


def test_the_day_and_its_reserve_are_told_apart(fitted):
    text = re.sub(r"<[^>]+>", "", fitted.get("/enquiry/3/waters").text)
    assert "with the reserve" in text


@pytest.mark.parametrize(
    ("family", "rudder", "says"),
    [
        ("kayak", None, "paddle"),
        ("kayak", 0.15, "the rudder holds the boat with"),
        ("sailing_dinghy", 0.2, "the rudder holds the boat with"),
    ],
)
def test_a_pull_to_one_side_is_told_of_the_rudder_only_where_there_is_one(
    app, family, rudder, says
):
    hull = {
        "kayak": Hull("kayak", 3.8, 0.8, 30),
        "sailing_dinghy": Hull("sailing_dinghy", 4.8, 1.8, 170),
    }
    f = sample_fitted()
    beside = Mount("side_bar", 60, 2000, offset_m=0.4)
    need = replace(f.need, hull=hull[family], site=Site(("rail",), rudder_chord_m=rudder))
    fitted = replace(f, need=need, shaft_m=None, mount=replace(f.mount, spec=beside), table=None)
    with app.test_request_context():
        rows = dict(drawing_page(fitted, Reader({}, METRIC), METRIC).figures)
    assert says in rows["Pull to one side"]


def test_the_boats_page_tells_what_the_batterys_bay_does_for_her_speed(fitted, conn):
    text = fitted.get("/enquiry/5/boat").text
    assert 'id="moves"' in text and "The battery of A" in text
