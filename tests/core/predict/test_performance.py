"""A setup's figures: consistent with each other, honest at the ends."""

from dataclasses import replace

import numpy as np
import pytest

from jolvek.core.base.units import KNOT_M_S
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.enquiry.sizing import typical_hull
from jolvek.core.hydro.floating import awash_kg, float_at, hull_speed_m_s
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.resistance import parts, table, total_n
from jolvek.core.hydro.water import Water
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.limits import check_performance
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor

TENDER = Setup(
    Hull("inflatable_air", 2.9, 1.55, 38),
    Load(2, 150, 15),
    Motor(1000, voltage_v=24),
    Bank(Battery("nmc", 25.9, 52)),
)


def rules(setup):
    return {f.rule for f in check_performance(evaluate(setup))}


def test_power_and_speed_are_inverse():
    p = evaluate(TENDER)
    for watts in (60.0, 300.0, 950.0):
        assert p.at_speed(p.at_power(watts).speed_m_s).power_w == pytest.approx(watts, rel=0.01)


def test_range_is_way_over_ground_times_time():
    p = evaluate(replace(TENDER, current_m_s=0.5))
    at = p.at_speed(1.6)
    assert at.range_m == pytest.approx((1.6 - 0.5) * at.runtime_s)


def test_a_current_faster_than_the_boat_gives_no_range_and_says_so():
    setup = replace(TENDER, current_m_s=3.0)
    assert evaluate(setup).at_speed(1.8).range_m == 0
    assert "current" in evaluate(setup).at_speed(1.8).reason
    assert "current-beats-boat" in rules(setup)


def test_a_speed_out_of_reach_has_no_power_but_a_reason():
    at = evaluate(TENDER).at_speed(6.0)
    assert at.power_w is None and "not enough" in at.reason


def test_wind_against_costs_power_and_wind_behind_saves_it():
    calm, against, behind = (
        evaluate(replace(TENDER, wind_m_s=w)).at_speed(1.6).power_w for w in (0, 8, -8)
    )
    assert behind < calm < against


def test_a_foul_bottom_costs_power():
    assert (
        evaluate(replace(TENDER, hull=replace(TENDER.hull, bottom="weed"))).at_speed(1.6).power_w
        > evaluate(TENDER).at_speed(1.6).power_w
    )


def test_the_knee_lies_below_hull_speed_and_within_power():
    p = evaluate(TENDER)
    assert 0.7 * p.hull_speed_m_s < p.knee.speed_m_s < 1.05 * p.hull_speed_m_s


def test_power_grows_steadily_without_false_shelves():
    p = evaluate(replace(TENDER, motor=Motor(1500)))
    keep = (p.speed_m_s > 0.5) & (p.speed_m_s < p.top_speed_m_s)
    slope = np.gradient(np.log(p.thrust_n[keep]), np.log(p.speed_m_s[keep]))
    assert slope.min() > 1.4


def test_the_range_has_a_best_speed_below_which_the_idle_draw_eats_it():
    big = replace(TENDER, motor=Motor(6000, voltage_v=TENDER.motor.voltage_v))
    p = evaluate(big)
    ranges = [p.at_speed(v).range_m for v in (0.2, 0.4, 0.6, 0.8, 1.0, 1.4, 1.8)]
    assert 0 < int(np.argmax(ranges)) < 5 and max(ranges) > 1.2 * max(ranges[0], ranges[-1])
    thirsty = replace(big, motor=replace(big.motor, idle_w=150.0))
    slow = evaluate(thirsty)
    assert slow.at_speed(1.0).power_w > evaluate(big).at_speed(1.0).power_w + 80
    assert slow.top_speed_m_s == pytest.approx(evaluate(big).top_speed_m_s, rel=0.01)


def test_the_curve_has_sixty_powers_from_three_per_cent():
    curve = evaluate(TENDER).curve(60)
    assert curve["power_w"].shape == (60,) and curve["power_w"][0] == pytest.approx(30.0)
    assert (np.diff(curve["runtime_s"]) < 0).all()


def test_arrays_equal_scalars():
    hull, water = TENDER.hull, Water()
    masses, speeds = np.array([180.0, 240.0, 320.0]), np.array([0.6, 1.4, 2.2, 4.5])
    t = table(hull, water, masses)
    together = total_n(t, speeds[None, :], masses[:, None], 2.0, 0.0075)
    for i, m in enumerate(masses):
        for j, v in enumerate(speeds):
            assert total_n(t, float(v), float(m), 2.0, 0.0075) == pytest.approx(together[i, j])
            assert total_n(
                table(hull, water, float(m)), float(v), float(m), 2.0, 0.0075
            ) == pytest.approx(together[i, j], rel=5e-3)


def test_the_passage_to_planing_is_smooth_and_complete():
    t = table(Hull("rib", 3.6, 1.75, 110), Water(), 300.0)
    v = np.linspace(1.0, 9.0, 400)
    total = total_n(t, v, 300.0)
    assert np.abs(np.diff(total)).max() < 0.05 * total.max()
    assert parts(t, 9.0, 300.0).wave_n == 0 and parts(t, 1.5, 300.0).planing_n == 0


def test_a_hull_that_cannot_plane_never_does():
    p = evaluate(Setup(Hull("keelboat", 6, 2.2, 900), Load(2), Motor(40000, mass_kg=120)))
    assert not p.planes and p.planing_power_w is None


def test_the_hump_is_climbed_with_ten_per_cent_to_spare_or_not_at_all():
    hull, load = Hull("rigid_dinghy", 2.9, 1.45, 55), Load(2, 150)
    for watts in np.arange(3500, 6000, 250):
        p = evaluate(Setup(hull, load, Motor(float(watts), mass_kg=35)))
        edge = p.resistance.planing_speed_m_s(p.displacement_kg)
        assert p.planes == (p.hump_margin >= 0.1 and p.top_speed_m_s >= edge)
        assert p.planes or p.top_speed_m_s < edge * 1.02


def test_slip_and_efficiency_are_those_of_a_propeller():
    p = evaluate(TENDER)
    assert 0.1 < float(p.slip(1.7)) < 0.6 and 0.3 < float(p.efficiency(1.7)) < 0.62


@pytest.mark.parametrize(
    "family", ["kayak", "flat_bottom", "inflatable_soft", "keelboat", "pontoon"]
)
def test_sinkage_and_draught_agree(family):
    """A millimetre more draught is what the waterplane says: dV = A dT."""
    hull, _ = typical_hull(family, {"kayak": 4.0, "keelboat": 7.5, "pontoon": 6.0}.get(family, 3.2))
    light, heavy = (float_at(hull, hull.mass_kg + kg, 1000.0) for kg in (200.0, 202.0))
    sunk = float(heavy.draught_m - light.draught_m)
    assert 0.002 / sunk == pytest.approx(float(light.waterplane_m2), rel=0.02)
    assert 2.0 / (1000 * sunk) == pytest.approx(float(light.immersion_kg_per_mm), rel=0.02)


def test_hull_speed_of_a_sixteen_foot_waterline():  # 1.34 √16 = 5.36 kn, by definition
    assert float(hull_speed_m_s(16 * 0.3048)) / KNOT_M_S == pytest.approx(5.36)


def test_an_overloaded_boat_is_stopped_not_computed_away():
    hull = Hull("kayak", 3.7, 0.78, 34)
    assert "awash" in rules(Setup(hull, Load(1, 85, awash_kg(hull)), Motor(500)))
    assert "low-freeboard" in rules(
        Setup(hull, Load(1, 85, awash_kg(hull) * 0.5 - 100), Motor(500))
    )


@pytest.mark.parametrize(("plate", "blocked"), [(999, True), (1000, False), (1001, False)])
def test_plate_power_below_at_and_above(plate, blocked):
    assert (
        "plate-power" in rules(replace(TENDER, hull=replace(TENDER.hull, max_power_w=plate)))
    ) is blocked
