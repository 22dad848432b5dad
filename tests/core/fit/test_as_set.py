"""What is set by hand on a fitting: over what is planned, and no more than can be."""

from dataclasses import fields, replace

import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.electric.netlist import Plan
from jolvek.core.fit.as_set import AS_PLANNED, AsSet, as_set_from, as_set_plain
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.fit.hung_leg import hung_leg
from jolvek.core.fit.measured_trim import hull_aft_m, off
from jolvek.core.fit.mounting_work import mounted
from jolvek.core.fit.stowage import best_place
from jolvek.core.products.mounting import Mount

F = sample_fitted()
ALL = AsSet(
    (("gear", 1.2),),
    pole_m=0.65,
    pin=3,
    run_m=4.5,
    take_off="bars",
    engine_space=True,
    load_a=3.0,
    load_h=5.0,
    school="end taps",
    throttle="cable",
    throttle_m=4.0,
    locked=True,
    controller_ahead_m=1.1,
    lead_m=2.0,
    bay="locker",
    trim_deg=-1.5,
    hull_aft_m=-0.3,
    claims=True,
)


@pytest.mark.parametrize("measured", [-2.0, 0.0, 3.5])
def test_a_trim_that_was_measured_stands_above_the_weights_and_moves_with_them(measured):
    aft = hull_aft_m(F, measured)
    tried = replace(F, fitting=AsSet(trim_deg=measured, hull_aft_m=aft))
    assert tried.attitude.trim_deg == pytest.approx(measured)
    assert hull_aft_m(tried, measured) == pytest.approx(aft)
    found = off(tried)
    assert found.more_deg == pytest.approx(measured - F.attitude.trim_asked_deg)
    assert found.much == (abs(measured - F.attitude.trim_deg) > 2)
    lower = tried.attitude.draught_aft_m - F.attitude.draught_aft_m
    assert (lower > 0) == (found.more_deg > 0) == (found.aft_m > 0)
    assert (tried.leg.hub_m > F.leg.hub_m) == (found.more_deg > 0)
    ahead = F.weights[0].ahead_m + 0.4
    by_move = [
        replace(x, fitting=replace(x.fitting, places=((x.weights[0].name, ahead),))).attitude
        for x in (F, tried)
    ]
    assert by_move[0].trim_deg < F.attitude.trim_deg and by_move[1].trim_deg < measured
    little = F.attitude.trim_deg + 0.2
    sunk = replace(F, fitting=AsSet(trim_deg=little, hull_aft_m=hull_aft_m(F, little)))
    assert best_place(sunk)[0] > best_place(F)[0]


def test_nothing_set_is_as_planned():
    assert AS_PLANNED.plan(Plan()) == Plan()
    assert AS_PLANNED.weights(F.planned_weights) == F.planned_weights == F.weights
    assert as_set_plain(AS_PLANNED) == {} and as_set_from({}) == AS_PLANNED


def test_every_field_comes_back_from_plain_data():
    assert as_set_from(as_set_plain(ALL)) == ALL
    assert set(as_set_plain(ALL)) == {f.name for f in fields(AsSet)}


def test_the_installation_follows_what_is_set():
    assert replace(F, fitting=ALL).netlist.plan.run_m == ALL.lead_m  # a lead is the run
    measured = replace(F, fitting=replace(ALL, lead_m=None, places=(("battery", 2.5),)))
    assert measured.netlist.plan.run_m == 4.5 > F.netlist.plan.run_m
    plan = ALL.plan(Plan())
    assert (plan.take_off, plan.engine_space) == ("bars", True)
    assert (plan.loads.current_a, plan.loads.hours, plan.loads.school) == (3.0, 5.0, "end taps")


@pytest.mark.parametrize(
    "data",
    [
        {"run_m": 0.1},
        {"run_m": float("inf")},
        {"pole_m": 2.5},
        {"pin": 5},
        {"load_a": -1},
        {"take_off": "anyhow"},
        {"school": "hope"},
        {"throttle": "string"},
        {"throttle_m": 16.0},
        {"controller_ahead_m": -0.1},
        {"lead_m": 0.2},
        {"places": [["gear", 99.0]]},
        {"places": [["gear", float("nan")]]},
        {"places": [["gear"]]},
        {"places": [["gear", 1.0]] * 41},
        {"unknown": 1},
        [1, 2],
        None,
    ],
    ids=str,
)
def test_what_cannot_be_is_refused(data):
    with pytest.raises(ValueRefused):
        as_set_from(data)


def test_a_moved_weight_trims_her_and_the_rules_hear_of_it():
    aft = replace(F, fitting=AsSet((("person 1", 0.1), ("person 2", 0.2))))
    assert aft.attitude.trim_deg > F.attitude.trim_deg + 2
    assert "trim-angle" in {f.rule for f in aft.findings}
    assert "trim-angle" not in {f.rule for f in F.findings}


def test_a_weight_that_is_not_aboard_any_more_is_left_out():
    assert replace(F, fitting=AsSet((("person 7", 0.1),))).weights == F.planned_weights


def test_a_pole_hangs_where_it_is_set_and_the_pin_goes_on_the_sheet():
    arm = replace(F, shaft_m=None, mount=replace(F.mount, spec=Mount("side_bar", 60, 2000)))
    assert hung_leg(replace(arm, fitting=AsSet(pole_m=0.8)))[1] == 0.8
    assert hung_leg(replace(F, fitting=AsSet(pole_m=0.8)))[1] == F.shaft_m
    assert replace(F, fitting=AsSet(pin=1)).pin == 1 != F.pin


def test_a_boat_built_of_air_is_not_drilled_whatever_her_kind():
    plate = replace(F, mount=replace(F.mount, spec=Mount("stern_plate", 60, 2000)))
    airy = replace(
        plate, need=replace(F.need, site=replace(F.need.site, construction="inflatable"))
    )
    assert "drill, seal every hole" in mounted(plate)
    assert "never drill" in mounted(airy) and "drill, seal" not in mounted(airy)
