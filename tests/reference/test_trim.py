"""Trim, heel and depth against closed forms of naval architecture and facts of the trade (common
practice, no source).
"""

import numpy as np
import pytest

from jolvek.core.fit.leg import leg, pod_wedge, rudder_clearance_m, shaft_choices
from jolvek.core.fit.trim import Weight, attitude, best_place_m, crew, moved, yaw
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.water import Water

DINGHY = Hull("rigid_dinghy", 3.2, 1.45, 65)


def test_coefficients_of_the_waterplane_lie_between_a_diamond_and_a_box():
    """I = c·L³B: 1/12 for a box, 1/48 for a diamond; D'Arcangelo's fits at C_wp 0.72 must lie
    between.
    """
    c = 0.72
    for value in (0.1216 * c - 0.0410, 0.350 * c * c - 0.405 * c + 0.146):
        assert 1 / 48 < value < 1 / 12


def test_moment_to_trim_is_weight_times_longitudinal_height():
    a = attitude(DINGHY, [Weight("helm", 80, 1.0)])
    assert a.moment_to_trim_nm == pytest.approx(
        a.displacement_kg * 9.80665 * a.gm_long_m * np.tan(np.radians(1))
    )
    shift = 0.02
    b = attitude(DINGHY, [Weight("helm", 80, 1.0 - shift)])
    assert (b.trim_deg - a.trim_deg) * a.moment_to_trim_nm == pytest.approx(
        80 * 9.80665 * shift, rel=0.1
    )


def test_mean_draught_stays_and_the_ends_differ_by_the_trim():
    a = attitude(DINGHY, [Weight("helm", 80, 0.6)])
    assert a.draught_aft_m > a.draught_m > a.draught_fore_m
    assert np.degrees(
        np.arctan((a.draught_aft_m - a.draught_fore_m) / DINGHY.waterline_m)
    ) == pytest.approx(a.trim_deg, abs=1e-6)


def test_two_hulls_apart_are_far_stiffer_than_one():
    cat, mono = Hull("pontoon", 6, 2.5, 700), Hull("cabin", 6, 2.3, 700)
    load = [Weight("people", 300, 2.6, 0.5, 0.9)]
    assert attitude(cat, load).heel_deg < 0.5 * attitude(mono, load).heel_deg


def test_a_motor_on_one_side_of_a_kayak_heels_it_a_few_degrees_and_lead_in_the_air_turns_it_over():
    kayak = Hull("kayak", 3.75, 0.84, 36)
    people = crew(kayak, Load(1, 85))
    assert 1 < attitude(kayak, [*people, Weight("motor", 6, 1.4, 0.42, 0.3)]).heel_deg < 8
    assert attitude(kayak, [*people, Weight("lead", 60, 1.8, 0.1, 1.5)]).heel_asked_deg == 90.0


def test_the_best_battery_place_levels_the_boat():
    weights = [*crew(DINGHY, Load(1, 75)), Weight("motor", 20, -0.06), Weight("battery", 25, 0.3)]
    best = best_place_m(DINGHY, weights, "battery", 0.2, 2.8)
    assert abs(attitude(DINGHY, moved(weights, "battery", best)).trim_deg) < abs(
        attitude(DINGHY, weights).trim_deg
    )


# common practice, no source
def test_the_leg_of_a_38_to_40_cm_transom_reaches_about_30_cm_below_the_surface():
    x = leg(0.42, 0.39, 0.14, 0.26)
    assert x.hub_m == pytest.approx(0.30, abs=0.05) and x.air == "none"


@pytest.mark.parametrize(
    ("plate_mm", "says"), [(25, "right"), (-20, "20 mm too short"), (130, "deep")]
)
def test_the_plate_belongs_about_25_mm_below_the_bottom(
    plate_mm, says
):  # common practice, no source
    assert shaft_choices((0.36 + plate_mm / 1000,), 0.36, 0.15, 0.26)[0].says.startswith(says)


def test_tilted_up_it_needs_no_more_water_than_the_hull():
    x = leg(0.508, 0.5, 0.14, 0.28)
    assert x.up_m == pytest.approx(0.14) and x.up_m < x.shallow_m < x.needs_m


def test_shallow_drive_is_the_cosine_of_twenty_degrees():
    x = leg(0.508, 0.5, 0.14, 0.28)
    reach = 0.508 + 1.12 * 0.28 + 0.03
    assert x.shallow_m == pytest.approx(reach * np.cos(np.radians(20)) - (0.5 - 0.14) + 0.05)


def test_yaw_is_thrust_times_offset_and_falls_with_speed_at_the_rudder():
    kayak = Hull("kayak", 3.75, 0.84, 36)
    slow, fast = (yaw(80, 0.42, kayak, v) for v in (0.5, 2.0))
    assert slow.moment_nm == pytest.approx(33.6) and fast.helm_most_n == pytest.approx(
        16 * slow.helm_most_n
    )
    assert not slow.answered and fast.answered


def test_a_rudder_swings_free_of_a_bracket_far_enough_outboard():
    near, far = (rudder_clearance_m(x, 0.2, 0.26, 0.35) for x in (0.2, 0.45))
    assert near < 0 < far


def test_the_wedge_of_a_pod_is_the_tangent_of_the_slope():
    assert pod_wedge(7.0, 0.3).rise_m == pytest.approx(0.3 * np.tan(np.radians(7)))


def test_salt_water_carries_higher():
    weights = [Weight("helm", 80, 1.2)]
    assert (
        attitude(DINGHY, weights, Water("salt")).draught_m
        < attitude(DINGHY, weights, Water("fresh")).draught_m
    )
