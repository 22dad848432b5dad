"""How the boat is worked: cables as long as they must be, a locked motor, a battery off the motor,
the adapter of one's own battery, and add-ons that go with it all.
"""

from dataclasses import replace

import pytest

from jolvek.core.electric.netlist import Plan
from jolvek.core.enquiry.site import Bay
from jolvek.core.fit import controls
from jolvek.core.fit.add_ons import why_not
from jolvek.core.fit.as_set import AsSet
from jolvek.core.fit.checklist import sheet
from jolvek.core.fit.fit_facts import drive_facts
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.fit.mounting_work import mounted
from jolvek.core.hydro.hull import Hull
from jolvek.core.products.accessories import Accessory, Panel, Propeller
from jolvek.core.products.mounting import KINDS, Mount
from jolvek.core.products.shelf import Item

F = sample_fitted()


def at_sea(f=F, site=None, **fitting):
    of = dict(site or {})
    hull = replace(f.need.hull, canopy_m2=of.pop("canopy_m2", None))
    need = replace(f.need, hull=hull, site=replace(f.need.site, **of))
    return replace(f, need=need, fitting=AsSet(**fitting))


def pod(**fitting):
    hull = Hull("keelboat", 7.2, 2.4, 1600)
    need = replace(F.need, hull=hull, site=replace(F.need.site, helm_ahead_m=1.0))
    mount = replace(F.mount, spec=Mount("pod", 60, 2000))
    motor = replace(F.motor, style="pod", shafts_m=())
    return replace(F, need=need, mount=mount, motor=motor, shaft_m=None, fitting=AsSet(**fitting))


@pytest.mark.parametrize(("helm_m", "more_m"), [(0.0, -1.2), (1.2, 0.0), (2.2, 1.0)])
def test_the_throttles_cable_grows_with_the_helms_place(helm_m, more_m):
    here = controls.runs(at_sea(site={"helm_ahead_m": 1.2})).throttle_m
    there = controls.runs(at_sea(site={"helm_ahead_m": helm_m})).throttle_m
    assert there - here == pytest.approx(more_m, abs=0.13)  # the motor hangs a little aft


def test_without_a_helm_nobody_knows_the_cable():
    assert controls.runs(F) == controls.Runs(None, None)


def test_a_controller_nearer_the_pod_shortens_the_phases_and_ends_the_throttles_cable_there():
    near, far = (controls.runs(pod(controller_ahead_m=x)) for x in (1.5, 4.0))
    assert far.phase_m - near.phase_m == pytest.approx(2.5 - 2 * (1.5 - 0.2 * 7.2), abs=0.2)
    assert far.throttle_m > near.throttle_m
    assert controls.runs(pod()).phase_m is None  # nobody said where it stands


def test_the_rigger_is_told_of_throttle_phases_and_lock():
    steps = " ".join(sheet(pod(controller_ahead_m=1.5, throttle="cable")).steps)
    assert "Throttle at the helm" in steps and "three phase cables of" in steps
    parts = dict(sheet(pod(controller_ahead_m=1.5, throttle="cable")).parts)
    assert "throttle cable" in parts and "phase cable, one of three" in parts
    assert "Lock the motor straight" in " ".join(sheet(at_sea(locked=True)).steps)
    assert "Pair the wireless" in " ".join(sheet(at_sea(throttle="wireless")).steps)
    assert "Throttle" not in " ".join(sheet(F).steps)


def test_a_locked_motor_beside_the_middle_pulls_to_one_side():
    beside = replace(F.mount, spec=Mount("transom_clamp", 60, 2000, offset_m=0.4))
    assert replace(F, mount=beside).yaw is None  # the motor steers
    assert replace(F, mount=beside, fitting=AsSet(locked=True)).yaw.moment_nm > 10


def clip_on(**fitting):
    motor = replace(F.motor, pack_ids=(F.battery.id,))
    bay = (Bay("bow", 0.6, 0.4, 0.3, 40, 2.4), Bay("stern", 0.6, 0.4, 0.3, 40, 0.5))
    need = replace(F.need, site=replace(F.need.site, bays=bay))
    fitted = AsSet(**fitting)
    return replace(F, motor=motor, need=need, fitting=fitted, plan=fitted.plan(Plan()))


def test_an_extension_lead_takes_the_battery_off_the_motor_into_its_bay():
    on, off = clip_on(), clip_on(lead_m=3.0, bay="bow")
    assert on.clips_on and not off.clips_on
    where = {w.name: w.ahead_m for w in off.weights}
    assert where["battery"] == 2.4 and on.attitude.trim_deg > off.attitude.trim_deg
    assert off.netlist.plan.run_m == 3.0
    assert [n for what, n in sheet(off).parts if what.startswith("extension lead")] == ["3 m"]


BAYS = {"bow": 2.4, "stern": 0.5, "": 2.4, "gone": 2.4}


@pytest.mark.parametrize(("bay", "ahead_m"), BAYS.items())
def test_the_bank_goes_into_the_bay_that_is_chosen(bay, ahead_m):
    f = replace(clip_on(bay=bay), motor=F.motor)
    assert next(w.ahead_m for w in f.weights if w.name == "battery") == ahead_m


def test_ones_own_battery_brings_an_adapter_with_its_fuse():
    own = replace(F, battery=replace(F.battery, id="own-gear-1"))
    assert controls.adapted(own) and not controls.adapted(F)
    both = replace(own, motor=replace(F.motor, id="own-gear-2"))
    assert not controls.adapted(both)  # they went together before
    (what, count), *_ = [p for p in sheet(own).parts if "adapter" in p[0]]
    assert "a fuse of" in what and count == "1"
    led = replace(own, fitting=replace(own.fitting, lead_m=2.0))
    plugs = [p.text for p in led.netlist.parts if p.kind == "plug"]
    assert plugs == ["adapter", "lead, battery’s end", "lead, motor’s end"]
    assert not [p for p in F.netlist.parts if p.kind == "plug"]


def test_a_cassette_lifts_and_is_built_in():
    f = replace(pod(), mount=replace(F.mount, spec=Mount("cassette", 60, 2000)))
    assert "trunk" in mounted(f) and f.mount.spec.fixed
    assert "lifts" in KINDS["cassette"].shallows
    assert any("weakens" in c for c in sheet(f).cautions)


def item(spec):
    return Item("x", "Sample", "X", 1.0, spec)


@pytest.mark.parametrize(
    ("spec", "site", "told"),
    [
        (Propeller(0.27, 0.16), {}, ""),
        (Propeller(0.27, 0.16, motor_ids=("m12",)), {}, ""),
        (Propeller(0.27, 0.16, motor_ids=("m20",)), {}, "other motors"),
        (Panel(110, 1.0, 0.5), {}, ""),
        (Panel(110, 1.0, 0.5), {"canopy_m2": 0.5}, ""),
        (Panel(110, 1.0, 0.5), {"canopy_m2": 0.49}, "the canopy has 0.5"),
        (Accessory("throttle", cable_m=4.0), {}, ""),
        (Accessory("throttle", cable_m=4.0), {"helm_ahead_m": 1.2}, ""),
        (Accessory("throttle", cable_m=3.0), {"helm_ahead_m": 1.2}, "3.1 m are needed"),
        (Accessory("cable", cable_m=2.0), {}, ""),
        (Accessory("cable", cable_m=1.5), {}, "the run is 1.7 m"),
        (Accessory("adapter", cable_m=0.5), {}, "no battery of the customer"),
        (Accessory("cover"), {}, ""),
    ],
)
def test_an_add_on_goes_or_says_why_not(spec, site, told):
    result = why_not(item(spec), at_sea(site=site))
    assert (told in result) if told else result == ""


def test_panels_that_are_there_already_count():
    one = item(Panel(110, 1.0, 0.5))
    assert why_not(one, at_sea(site={"canopy_m2": 0.9}), 0.4) == ""
    assert "0.9 m² of panels" in why_not(one, at_sea(site={"canopy_m2": 0.8}), 0.4)


@pytest.mark.parametrize("chord_m", [0.08, 0.12, 0.15])
def test_a_blade_that_does_not_swing_up_needs_less_room_than_one_that_does(chord_m):
    beside = Mount("offset_bracket", 60, 2000, offset_m=0.32)
    gaps = []
    for lifts in (True, False):
        site = replace(F.need.site, rudder_chord_m=chord_m, rudder_lifts=lifts)
        facts = drive_facts(replace(F.need, site=site), F.hung, [beside])
        gaps.append(float(facts.rudder_gap_m[0, 0]))
    assert gaps[0] < gaps[1]  # lifted it reaches two and a half chords aft
