"""The leg at the transom and the packs in their bays: geometry at its ends, and against brute
force.
"""

from dataclasses import replace
from itertools import permutations

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from jolvek.core.electric.battery import Battery
from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.site import Bay, Site
from jolvek.core.fit import fit_facts
from jolvek.core.fit.fit import Stowed
from jolvek.core.fit.fit_facts import Hung, drive_facts
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.fit.hanging import seat_m, upright_m
from jolvek.core.fit.hung_leg import hung_leg
from jolvek.core.fit.leg import (
    GROUND_M,
    STANDARD_SHAFTS_M,
    largest_tilt_deg,
    leg,
    pod_wedge,
    rudder_clearance_m,
    shaft_choices,
    tiller_reach,
    trim_pin,
)
from jolvek.core.fit.stowage import bank_weights, packs_in_bay, stow
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.products.mounting import Mount

seats = st.floats(0.25, 0.75)
many = settings(max_examples=80, deadline=None)


@many
@given(seats, st.floats(0.05, 0.4), st.floats(0.2, 0.34), st.floats(0.3, 0.7))
def test_a_longer_shaft_sets_everything_deeper_by_as_much(seat, draught, diameter, shaft):
    short, long = leg(shaft, seat, draught, diameter), leg(shaft + 0.127, seat, draught, diameter)
    for name in ("plate_m", "hub_m", "tip_m", "lowest_m", "needs_m"):
        assert getattr(long, name) - getattr(short, name) == pytest.approx(0.127)


@many
@given(seats, st.floats(0.05, 0.25), st.floats(0.2, 0.34), st.floats(0.3, 0.7))
def test_tilting_up_never_needs_more_water_and_never_less_than_the_hull(
    seat, draught, diameter, shaft
):
    x = leg(shaft, seat, draught, diameter)
    assert draught <= x.up_m <= x.shallow_m + 1e-9 <= max(x.needs_m, draught + GROUND_M) + 1e-9
    assert x.tip_m < x.hub_m < x.lowest_m < x.needs_m


@pytest.mark.parametrize(("transom_in", "shaft_in"), [(15, 15), (20, 20), (25, 25)])
def test_the_standard_shaft_of_a_standard_transom_is_right_and_its_neighbours_are_not(
    transom_in, shaft_in
):
    """15, 20 and 25 inch transoms take 15, 20 and 25 inch shafts, the plate about level with the
    bottom: common practice, no source.
    """
    rows = {
        round(c.shaft_m / 0.0254): c
        for c in shaft_choices((), transom_in * 0.0254 - 0.01, 0.2, 0.25)
    }
    assert set(rows) == {15, 20, 25} and len(STANDARD_SHAFTS_M) == 3
    assert rows[shaft_in].says == "right"
    for other, row in rows.items():
        if other < shaft_in:
            assert "too short" in row.says and row.leg.plate_m < 0
        elif other > shaft_in:
            assert row.says.startswith(("deep", "far too deep"))


def test_air_is_drawn_where_the_tip_leaves_the_water_and_not_where_it_is_deep():
    assert leg(0.381, 0.60, 0.10, 0.28).air == "always"
    assert leg(0.508, 0.40, 0.20, 0.28).air == "none"
    order = {"always": 0, "in turns": 1, "none": 2}
    found = [order[leg(0.381, seat, 0.12, 0.27).air] for seat in np.linspace(0.75, 0.2, 40)]
    assert found == sorted(found) and set(found) == {0, 1, 2}


def test_a_knee_stops_the_tilt_and_less_room_stops_it_earlier():
    stops = [largest_tilt_deg(room) for room in (0.0, 0.08, 0.16, 0.30, 0.32, 2.0)]
    assert stops == sorted(stops) and stops[0] == 0 and stops[-1] == 85


@pytest.mark.parametrize(("rake", "hole"), [(0, 1), (8, 2), (12, 3), (25, 4)])
def test_a_raked_transom_takes_a_farther_pin(rake, hole):
    assert trim_pin(rake) == hole


@many
@given(st.floats(0, 0.8), st.floats(0.1, 0.4), st.floats(0.2, 0.34), st.floats(0.15, 0.5))
def test_the_rudder_keeps_clear_the_farther_the_motor_hangs_off(offset, behind, diameter, chord):
    near, far = (rudder_clearance_m(x, behind, diameter, chord) for x in (offset, offset + 0.2))
    assert far >= near - 1e-6
    assert rudder_clearance_m(-offset, behind, diameter, chord) == pytest.approx(near)
    if behind > chord + 0.01:
        assert near > 0  # the blade does not reach that far


def test_a_wedge_levels_the_slope_it_is_cut_for():
    for slope in (-8.0, -2.0, 3.0, 9.0):
        w = pod_wedge(slope, 0.3)
        assert np.degrees(np.arctan(w.rise_m / 0.3)) == pytest.approx(abs(slope))
        assert w.thick_end == ("aft" if slope > 0 else "forward")


def test_the_tiller_is_reached_from_the_stern_thwart_and_not_from_the_bow():
    assert tiller_reach(0.7) == "in reach"
    assert "extension" in tiller_reach(2.8)


def test_a_bracket_that_lowers_the_seat_makes_a_short_shaft_long_enough():
    need = Need(Hull("sailing_dinghy", 5.2, 1.8, 180, transom_height_m=0.60), Load(2))
    high, low = Mount("transom_clamp", 60, 2000), Mount("transom_clamp", 60, 2000, drop_m=0.22)
    assert seat_m(need, high) - seat_m(need, low) == pytest.approx(0.22)
    assert seat_m(need, high) - 0.381 > 0.15 and seat_m(need, low) <= 0.381


def test_a_raked_transom_is_lower_than_it_is_long_for_judge_and_drawing_alike():
    hull = Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=0.41)
    for rake, height in ((0.0, 0.41), (20.0, 0.41 * np.cos(np.radians(20)))):
        need = replace(sample_fitted().need, hull=hull, site=Site(rake_deg=rake))
        f = replace(sample_fitted(), need=need, table=None)
        assert upright_m(need) == pytest.approx(height)
        assert hung_leg(f)[0].plate_m == pytest.approx(0.381 - height)
        one = np.array([1.0])
        hung = Hung(900 * one, 300 * one, 20 * one, 0.26 * one, 0.381 * one, ["outboard"])
        facts = drive_facts(need, hung, [f.mount.spec])
        assert facts.plate_m[0, 0] == pytest.approx(0.381 - height)
        assert ("shaft-short" in {x.rule for x in f.hard_findings}) == (rake == 0.0)


sizes = st.tuples(*[st.floats(0.1, 0.5)] * 3)


@many
@given(st.tuples(*[st.floats(0.15, 1.5)] * 3), sizes)
def test_packs_in_a_bay_by_counting_every_turn(inner, pack):
    bay = Bay("locker", *inner)
    best = max(
        int(np.prod([int(room / side + 1e-9) for room, side in zip(inner, turn, strict=True)]))
        for turn in permutations(pack)
    )
    assert packs_in_bay(bay, *pack, upright=False) == best
    assert packs_in_bay(bay, *pack, upright=True) <= best
    assert packs_in_bay(bay, *pack, upright=True) * np.prod(pack) <= np.prod(inner) * (1 + 1e-6)


@many
@given(
    st.lists(
        st.tuples(st.floats(0.2, 1.0), st.floats(0.2, 0.8), st.floats(0.2, 0.6), st.floats(5, 120)),
        min_size=1,
        max_size=3,
    ),
    st.integers(1, 6),
)
def test_what_is_stowed_fits_by_size_and_weight_and_is_all_of_it(rows, packs):
    bays = [Bay(f"bay {i}", *row) for i, row in enumerate(rows)]
    battery = Battery("lfp", 12.8, 100, 11.4, length_m=0.33, width_m=0.17, height_m=0.22)
    out, against = stow(bays, battery, packs)
    if against is None:
        assert sum(s.packs for s in out) == packs and len({s.bay.name for s in out}) == len(out)
        for s in out:
            assert s.packs <= packs_in_bay(s.bay, 0.33, 0.17, 0.22, upright=False)
            assert s.packs * battery.weight_kg <= s.bay.max_kg + 1e-6
    else:
        assert not out and against.rule in ("bay-size", "bay-mass", "bay-lid")


def test_a_pack_that_does_not_pass_the_lid_is_told_by_the_lid():
    bay = Bay("locker", 0.7, 0.4, 0.3, lid_length_m=0.30, lid_width_m=0.15)
    battery = Battery("lfp", 12.8, 100, 11.4, length_m=0.33, width_m=0.17, height_m=0.22)
    assert stow([bay], battery, 1)[1].rule == "bay-lid"


@pytest.mark.parametrize(
    ("offset_m", "chord_m", "why"),
    [
        (0.15, 0.16, "the lifted blade sweeps through the leg"),
        (0.0, 0.10, "on the centre line even a small blade, lifted, meets the leg"),
    ],
)
def test_a_rudder_that_clears_with_its_blade_down_may_strike_with_it_up(offset_m, chord_m, why):
    down = rudder_clearance_m(offset_m, fit_facts.BEHIND_M, 0.26, chord_m)
    assert down > 0.03, "clear with the blade down"
    sail = Hull("sailing_dinghy", 4.8, 1.8, 180, transom_height_m=0.42)
    need = Need(sail, Load(2, 150), Site(("transom",), rudder_chord_m=chord_m))
    one = np.ones(1)
    hung = fit_facts.Hung(900 * one, 300 * one, 20 * one, 0.26 * one, 0.5 * one, ["outboard"])
    mount = Mount("offset_bracket", 60, 2000, offset_m=offset_m)
    gap = fit_facts.drive_facts(need, hung, [mount]).rudder_gap_m
    assert float(gap[0, 0]) < 0.03, why


@pytest.mark.parametrize(("ahead_m", "at"), [(0.0, 0.0), (1.4, 1.4), (-0.2, -0.2), (None, 1.2)])
def test_packs_are_weighed_where_the_bay_is_at_the_stern_too(ahead_m, at):
    hull, battery = Hull("rigid_dinghy", 4.0, 1.6, 90), Battery("lfp", 12.8, 50, 6.0)
    stowed = [Stowed(Bay("b", 0.8, 0.4, 0.3, None, ahead_m), 2)]
    (weight,) = bank_weights(hull, battery, 2, stowed)
    assert weight.ahead_m == pytest.approx(at) and weight.mass_kg == 12.0


def test_packs_of_unknown_size_still_weigh_in_the_bay():
    bay = Bay("locker", 0.7, 0.4, 0.3, 25.0)
    unknown = Battery("lfp", 12.8, 100, 11.4)
    assert stow([bay], unknown, 2)[0][0].packs == 2
    stowed, problem = stow([bay], unknown, 3)
    assert not stowed and problem.rule == "bay-mass"
