"""The leg where it hangs, the transom over the water, and what moving weights does to speed."""

from dataclasses import replace

import pytest

from jolvek.core.enquiry.site import Bay
from jolvek.core.fit.as_set import AsSet
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.fit.hung_leg import COVER_M, STEP_M, hub_below_m, hung_leg, under_m
from jolvek.core.fit.in_wind import in_wind
from jolvek.core.fit.leg import GROUND_M
from jolvek.core.fit.moving import best_move, top_at_centre_m_s
from jolvek.core.fit.stowage import best_place, holding
from jolvek.core.hydro.floating import draws_m, float_at, keel_wetted_m2, transom_draught_m
from jolvek.core.hydro.hull import Hull
from jolvek.core.products.mounting import Mount

F = sample_fitted()


def on(hull, **more):
    return replace(F, need=replace(F.need, hull=hull), table=None, **more)


def test_a_pole_is_set_in_steps_of_25_mm_and_covers_its_hub():
    pole = replace(F, shaft_m=None, mount=replace(F.mount, spec=Mount("side_bar", 60, 2000)))
    x, shaft = hung_leg(pole)
    assert shaft / STEP_M == pytest.approx(round(shaft / STEP_M))
    assert COVER_M - 1e-9 <= x.hub_m < COVER_M + STEP_M


def test_a_measured_transom_stands_for_the_estimate():
    low, high = (
        on(replace(F.need.hull, transom_clearance_m=m)).transom_draught_m for m in (-0.15, 0.05)
    )
    assert (low, high) == (0.15, -0.05)
    hubs = [
        hung_leg(on(replace(F.need.hull, transom_clearance_m=m)))[0].hub_m for m in (-0.15, 0.05)
    ]
    assert hubs[0] - hubs[1] == pytest.approx(0.2)
    assert 0 < under_m(F) < F.attitude.draught_aft_m


@pytest.mark.parametrize(
    ("family", "share"),
    [("inflatable_soft", 1.0), ("rigid_dinghy", 0.7), ("sailing_dinghy", 0.3), ("keelboat", 0.0)],
)
def test_a_fine_stern_has_its_transom_near_the_water(family, share):
    length = 7.5 if family == "keelboat" else 3.0
    hull = Hull(family, length, 0.4 * length, 100)
    assert float(transom_draught_m(hull, 0.4, 0.4)) == pytest.approx(share * 0.4)
    trimmed = float(transom_draught_m(hull, 0.4, 0.5))
    assert trimmed == pytest.approx(share * 0.4 + 0.1)


def test_a_keel_is_drawn_deep_and_drags():
    hull = Hull("keelboat", 7.5, 2.5, 2400)
    floats = float_at(hull, 2800.0)
    assert float(draws_m(hull, floats)) == pytest.approx(0.15 * 7.5)
    given = replace(hull, keel_draught_m=1.6)
    assert float(draws_m(given, floats)) == 1.6
    assert float(keel_wetted_m2(given, floats)) > float(keel_wetted_m2(hull, floats)) > 1.0
    flat = Hull("rib", 3.6, 1.75, 110)
    assert float(keel_wetted_m2(flat, float_at(flat, 300.0))) == 0


def test_moving_weight_changes_a_planing_boats_speed_and_a_kayak_hardly_cares():
    """On the plane weight aft lets her run flat out faster; before it she squats and drags."""
    rib = on(Hull("rib", 3.6, 1.75, 110, transom_height_m=0.36))
    strong = replace(
        rib, motor=replace(rib.motor, spec=replace(rib.motor.spec, input_power_w=9000))
    )
    aft, fore = (top_at_centre_m_s(strong, x) for x in (0.9, 1.6))
    assert aft > fore + 0.1
    weak = replace(rib, motor=replace(rib.motor, spec=replace(rib.motor.spec, input_power_w=1500)))
    squats, level = (top_at_centre_m_s(weak, x) for x in (0.7, 1.4))
    assert level > squats
    kayak = on(Hull("kayak", 3.7, 0.78, 34))
    spread = [top_at_centre_m_s(kayak, x) for x in (1.2, 1.9)]
    assert spread[0] == pytest.approx(spread[1], rel=0.03)


def test_wind_over_open_water_brings_its_waves_and_sheltered_water_none():
    open_water = replace(F, fetch_m=2000.0)
    ahead, behind = (in_wind(open_water, w) for w in (7.0, -7.0))
    assert ahead.setup.wave_height_m == behind.setup.wave_height_m > 0.15
    assert ahead.at_speed(1.2).power_w > in_wind(F, 7.0).at_speed(1.2).power_w
    assert in_wind(F, 7.0).setup.wave_height_m == 0
    assert in_wind(F, F.setup.wind_m_s) is F.performance


@pytest.mark.parametrize(("kind", "d"), [("fin_box", 0.16), ("pod", 0.30)])
def test_a_fin_and_a_pod_stand_under_the_hull_and_do_not_tilt(kind, d):
    motor = replace(F.motor, spec=replace(F.motor.spec, propeller_diameter_m=d))
    fixed = replace(
        F, shaft_m=None, motor=motor, mount=replace(F.mount, spec=Mount(kind, 60, 2000))
    )
    x, strut = hung_leg(fixed)
    assert strut == pytest.approx(hub_below_m(fixed)) == pytest.approx(0.65 * d)
    assert x.hub_m == pytest.approx(fixed.transom_draught_m + strut)
    assert x.hub_m - d / 2 > fixed.transom_draught_m  # the blades clear the hull
    assert x.shallow_m is None and x.up_m is None and fixed.leg is None
    assert x.needs_m == pytest.approx(x.lowest_m + GROUND_M)


def test_a_swing_arm_carries_a_pod_that_is_set_like_a_pole():
    arm = replace(F, shaft_m=None, mount=replace(F.mount, spec=Mount("swing_arm", 60, 2000)))
    assert hung_leg(arm)[0].shallow_m is not None


def test_the_best_bay_for_speed_is_found_and_told_by_how_much():
    bays = (
        Bay("aft locker", 0.6, 0.5, 0.4, None, 0.3),
        Bay("bow locker", 0.6, 0.5, 0.4, None, 2.2),
    )
    site = replace(F.need.site, bays=bays)
    heavy = replace(F.battery, spec=replace(F.battery.spec, mass_kg=45.0))
    f = replace(F, need=replace(F.need, site=site), battery=heavy, table=None)
    best = best_move(f)
    assert best.bay == "bow locker" and best.gain_m_s > 0.02  # off the stern she squats less
    there = replace(f, fitting=AsSet((("battery", best.ahead_m),)))
    gained = top_at_centre_m_s(there, there.attitude.ahead_m) - top_at_centre_m_s(
        f, f.attitude.ahead_m
    )
    assert best.gain_m_s == pytest.approx(gained)
    assert best_move(there).gain_m_s == pytest.approx(0.0, abs=1e-9)
    assert best_move(replace(f, motor=replace(F.motor, pack_ids=(heavy.id,)))) is None


def stowed_in(*bays):
    """A heavy bank aft on a dinghy with these bays."""
    need = replace(F.need, site=replace(F.need.site, bays=bays))
    heavy = replace(F.battery, spec=replace(F.battery.spec, mass_kg=60.0))
    aft = AsSet((("person 1", 0.3), ("battery", 0.3)))
    return replace(F, need=need, battery=heavy, fitting=aft, table=None)


def told(f):
    return dict(next(x for x in f.findings if x.rule == "trim-angle").values)


def test_no_page_sends_a_battery_to_a_bay_that_does_not_hold_it():
    aft = Bay("aft locker", 0.6, 0.5, 0.4, None, 0.3)
    roomy, tiny = (Bay("bow locker", s, s, s, None, 2.2) for s in (0.6, 0.1))
    weak = Bay("bow locker", 0.6, 0.6, 0.6, 20.0, 2.2)  # takes its size, not its mass
    free = stowed_in(aft, roomy)
    assert best_place(free)[1] == best_move(free).bay == "bow locker"
    assert told(free)["what"] == "the battery" and "forward" in told(free)["direction"]
    for small in (tiny, weak):
        f = stowed_in(aft, small)
        assert holding(f) == [aft] and best_move(f).bay == best_place(f)[1] == "aft locker"
        assert abs(best_place(f)[0] - aft.ahead_m) <= aft.length_m / 2
    nowhere = stowed_in(tiny)
    assert best_place(nowhere) is None is best_move(nowhere)
    assert told(nowhere)["what"] == "people or gear"
    halves = [Bay(n, 0.6, 0.5, 0.4, 70.0, x) for n, x in (("port", 0.3), ("bow", 2.2))]
    split = replace(stowed_in(*halves), parallel=2, fitting=AsSet())
    assert len(split.stowed[0]) == 2 and best_place(split) is None is best_move(split)


def test_a_battery_at_its_best_place_is_not_sent_nowhere():
    f = stowed_in(Bay("bow locker", 0.6, 0.5, 0.4, None, 2.2))
    f = replace(f, fitting=AsSet((("person 1", 0.1), ("person 2", 0.1), ("battery", 2.5))))
    assert best_place(f)[0] == pytest.approx(2.5) and told(f)["what"] == "people or gear"
