"""The fitting drawings measured: what is drawn is as long, as deep and as inclined as computed, for
every demo boat.
"""

import re
from dataclasses import replace

import pytest

from jolvek.core.enquiry.site import Bay
from jolvek.core.fit.as_set import AsSet
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.fit.hanging import seat_m
from jolvek.core.fit.hung_leg import hung_leg
from jolvek.core.fit.leg import HEAD_M, SKEG_M
from jolvek.core.fit.trim import crew, places_m, sole_m
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.water import Water
from jolvek.core.job.job_setup import of_fitted
from jolvek.core.products.mounting import HUB_BELOW_PLATE, TRANSOM_PLACES, Mount
from jolvek.store import enquiries as store
from jolvek.store import setups
from jolvek.web.kit import display
from jolvek.web.kit.drawings import pictures
from jolvek.web.kit.drawings.boat_drawing import Aboard, HungMotor, Labels, side_view
from jolvek.web.kit.drawings.leg_drawing import leg_view
from jolvek.web.kit.drawings.person_drawing import seated
from jolvek.web.kit.drawings.plan_drawing import plan_view
from jolvek.web.kit.drawings.under_drawing import under_view
from jolvek.web.kit.drawings.weights_drawing import stern_view, weights_view
from jolvek.web.kit.worked import Worked, work_out


def attributes(svg):
    return {k: float(v) for k, v in re.findall(r'data-([\w-]+)="([\d.]+)"', svg[: svg.index(">")])}


@pytest.fixture(params=range(1, 7))
def fitted(request, app, conn, pinned):
    pinned.backup(conn)
    stored = store.get(conn, request.param)
    worked = work_out(stored.need, setups.of_enquiry(conn, request.param)[0])
    with app.test_request_context():
        yield worked.fitted


def test_the_shaft_is_as_long_as_its_scale_says(fitted):
    svg = str(leg_view(fitted, display.current(), 0.1))
    at, (x, shaft) = attributes(svg), hung_leg(fitted)
    bar = re.search(r'h([\d.]+)v-5v10" class="scalebar" data-mm="250"', svg)
    assert float(bar[1]) / at["scale"] == pytest.approx(0.25, abs=0.001)
    assert at["shaft"] / at["scale"] == pytest.approx(shaft, abs=0.001)
    assert (at["bottom-y"] - at["water-y"]) / at["scale"] == pytest.approx(
        fitted.transom_draught_m, abs=0.002
    )
    seat = float(re.search(r'y="([\d.]+)"[^>]*class="shaft"', svg)[1]) + 1
    if fitted.motor.spec.style == "outboard":
        cowl = re.search(r'd="([^"]*)" class="cowl"', svg)[1]
        top = min(float(y) for y in re.findall(r"[\d.]+ ([\d.]+)", cowl))
        assert (seat - top) / at["scale"] == pytest.approx(HEAD_M, abs=0.001)
    d = fitted.performance.propulsor.diameter_m
    disc = float(re.search(r'height="([\d.]+)" rx="2" class="disc"', svg)[1])
    assert disc / at["scale"] == pytest.approx(d, abs=0.001)
    assert x.lowest_m == pytest.approx(x.hub_m + d / 2 + SKEG_M)


def test_the_transom_is_drawn_only_where_the_motor_hangs_on_it(fitted):
    svg = str(leg_view(fitted, display.current(), 0.1))
    on_it = fitted.mount.spec.general.place in TRANSOM_PLACES
    assert ("transom " in svg) == on_it and (
        "plate " in re.sub(r"<title>.*?</title>|aria-label=\"[^\"]*\"", "", svg)
    ) == on_it


def test_the_disc_hangs_as_deep_from_astern_as_from_the_side(fitted):
    svg = str(stern_view(fitted, fitted.attitude))
    at = attributes(svg)
    hub_y = float(re.search(r'cy="([\d.]+)"[^>]*class="discring"', svg)[1])
    water_y = float(re.search(r'y1="([\d.]+)" y2="[\d.]+" class="water"/>', svg)[1])
    x, shaft = hung_leg(fitted)
    hub = (
        shaft
        - seat_m(fitted.need, fitted.mount.spec)
        + HUB_BELOW_PLATE * fitted.performance.propulsor.diameter_m
    )
    assert (hub_y - water_y) / at["scale"] == pytest.approx(
        hub + fitted.transom_draught_m, abs=0.003
    )
    assert (hub_y - water_y) / at["scale"] == pytest.approx(x.hub_m, abs=0.003)
    assert f"rotate({fitted.attitude.heel_deg:.2f} " in svg


def test_she_floats_at_her_draught_turned_by_her_trim_with_every_weight_aboard(fitted):
    svg = str(
        weights_view(fitted, fitted.weights, fitted.attitude, fitted.attitude, display.current())
    )
    at = attributes(svg)
    assert (at["keel-y"] - at["water-y"]) / at["scale"] == pytest.approx(
        fitted.attitude.draught_m, abs=0.002
    )
    assert f"rotate({-fitted.attitude.trim_deg:.2f} " in svg
    drawn = re.findall(r'data-weight="([\w-]+)"', svg)
    assert sorted(drawn) == sorted(w.name.replace(" ", "-") for w in fitted.weights)
    heads = sum(w.name.startswith("person") for w in fitted.weights)
    assert svg.count('class="person"') == heads


def test_the_same_attitude_before_and_after_draws_one_waterline_over_the_other(fitted):
    svg = str(
        weights_view(fitted, fitted.weights, fitted.attitude, fitted.attitude, display.current())
    )
    now, before = re.findall(r'y1="([\d.]+)" y2="([\d.]+)" class="water(?: before)?"', svg)
    assert float(before[0]) == pytest.approx(float(now[0]), abs=0.1) and before[0] == before[1]


@pytest.mark.parametrize("kind", ["fin_box", "pod"])
def test_what_is_fixed_under_the_hull_is_drawn_there(app, kind):
    sample = sample_fitted()
    fixed = replace(sample, shaft_m=None, mount=replace(sample.mount, spec=Mount(kind, 60, 2000)))
    with app.test_request_context():
        svg = str(under_view(fixed, display.current(), 0.1))
        astern = str(stern_view(fixed, fixed.attitude))
    at, (x, strut) = attributes(svg), hung_leg(fixed)
    assert (at["hub-y"] - at["water-y"]) / at["scale"] == pytest.approx(x.hub_m, abs=0.001)
    bottom = float(re.search(r'd="M0 ([\d.]+)H', svg)[1])
    assert (at["hub-y"] - bottom) / at["scale"] == pytest.approx(strut, abs=0.001)
    disc = float(re.search(r'height="([\d.]+)" rx="2" class="disc"', svg)[1])
    d = fixed.performance.propulsor.diameter_m
    assert disc / at["scale"] == pytest.approx(d, abs=0.001)
    assert f">{1000 * strut:.0f} mm below hull<" in svg
    assert 'rx="4"' not in astern  # no head over the stern


def test_the_side_view_hangs_a_fixed_motor_below_the_keel():
    hull = Hull("kayak", 3.7, 0.78, 34)
    motor = HungMotor(0.1, 0.16, 0.0, 0.5, fixed=True)
    svg = str(side_view(hull, 120.0, Water(), Labels("", ""), "", Aboard((1.8,), motor)))
    keel = float(re.search(r'data-keel-y="([\d.]+)"', svg)[1])
    group = svg[svg.index('class="motor"') :]
    tops = [float(y) for y in re.findall(r'<rect x="[\d.]+" y="([\d.]+)"', group)[:3]]
    assert min(tops) >= keel - 0.1


def test_the_card_draws_her_as_she_is_fitted(fitted, app, monkeypatch):
    """Motor on its seat, packs where they are stowed or put, people where they sit."""
    seen = []
    monkeypatch.setattr(pictures, "side_view", lambda *a, **k: seen.append(a[5]) or "")
    moved = replace(fitted, fitting=AsSet((("person 1", 0.77),)))
    for f in (fitted, moved):
        pictures._view(f.need, f.displacement_kg, 264.0, Worked(None, of_fitted(f)))
        aboard = seen[-1]
        assert aboard.motor.seat_m == seat_m(f.need, f.mount.spec)
        assert aboard.people == places_m(f.weights, "person")
        packs = [(w.ahead_m, w.above_m) for w in f.weights if w.name.startswith("battery")]
        assert list(aboard.batteries) == ([] if f.clips_on else packs)
    assert seen[1].people[0] == 0.77 != seen[0].people[0]


def test_side_and_plan_put_middles_where_they_are(app):
    hull, bay = Hull("rib", 3.6, 1.75, 110), Bay("locker", 0.6, 0.5, 0.4, None, 0.0)
    motor = HungMotor(0.381, 0.26, 0.36, -0.06)
    aboard = Aboard((1.0,), motor, ((1.5, 0.2),), (0.4, 0.2), (bay,))
    svg = str(side_view(hull, 300.0, Water(), Labels("", ""), "", aboard, 520.0))
    above = str(plan_view(hull, (1.0,), (bay,), "", 520.0))
    scale, above_scale = (float(re.search(r'data-scale="([\d.]+)"', x)[1]) for x in (svg, above))
    stern = 6 + 0.55 * scale
    pack = re.search(r'<rect x="([\d.]+)" y="[\d.]+" width="([\d.]+)"[^>]*class="pack"', svg)
    assert float(pack[1]) + float(pack[2]) / 2 == pytest.approx(stern + 1.5 * scale, abs=0.2)
    for drawn, at in ((svg, stern), (above, 12 + 0.25 * above_scale)):
        box = re.search(r'<rect x="([\d.-]+)" y="[\d.]+" width="([\d.]+)"[^>]*class="bay"', drawn)
        assert float(box[1]) + float(box[2]) / 2 == pytest.approx(at, abs=0.2)
    keel = float(re.search(r'data-keel-y="([\d.]+)"', svg)[1])
    group = svg[svg.index('class="motor"') :]
    seat = float(re.search(r'y="([\d.]+)"[^>]*class="shaft"', group)[1]) + 1
    assert keel - seat == pytest.approx(0.36 * scale, abs=0.2)
    disc = re.search(r'y="([\d.]+)" width="[\d.]+" height="([\d.]+)" rx="2" class="disc"', group)
    hub = float(disc[1]) + float(disc[2]) / 2
    below = 0.381 + HUB_BELOW_PLATE * 0.26 - 0.36
    assert hub - keel == pytest.approx(below * scale, abs=0.3)


def test_people_sit_on_their_boats_seats_beside_each_other_and_hold_what_they_reach():
    pontoon, dinghy = Hull("pontoon", 6.4, 2.5, 700), Hull("rigid_dinghy", 3.2, 1.45, 65)
    deck = sole_m(pontoon)
    assert deck > pontoon.depth_m and sole_m(dinghy) == 0
    for hull, seat in ((pontoon, deck + 0.45), (dinghy, 0.35)):
        person, gear = crew(hull, Load(1, 80, 20))
        assert person.above_m == pytest.approx(seat + 0.25)
        assert gear.above_m == pytest.approx(sole_m(hull) + 0.2)
    for apart, rows in ((0.3, 2), (1.2, 1)):
        above = str(plan_view(pontoon, (2.0, 2.0 + apart), (), "", 520.0))
        assert len(set(re.findall(r'<ellipse cx="[\d.]+" cy="([\d.]+)"', above))) == rows
    for held, hand in (((0.3, 0.2), True), ((1.5, 0.2), False)):
        drawn = seated(100.0, 100.0, 0.35, 100.0, held)
        assert (f"{100 + 100 * held[0]:.1f} {100 - 100 * held[1]:.1f}" in drawn) is hand
