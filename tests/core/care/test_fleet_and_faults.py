"""Charging plans, costs an hour, first faults, warranty, packs that must not be joined, logs."""

from datetime import date

import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.care.faults import SERVICE_FAULTS, first_fault, suspect_from_log
from jolvek.core.care.fleet import ToCharge, charge_plan, spent
from jolvek.core.care.renewal import against_joining
from jolvek.core.care.steps import Care, Edit, Profile, care_for
from jolvek.core.care.trips import summed
from jolvek.core.care.warranty import verdict
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.trial.segments import Sample

LFP = Bank(Battery("lfp", 25.6, 100))
CHARGER = Charger(24, 20, ("lfp",))


def boat(name="a", soc=0.3, needed=0.8, leaves=9.0, charger=CHARGER):
    return ToCharge(name, LFP, charger, soc, needed, leaves)


def test_the_plan_never_takes_more_than_the_supply_and_nobody_is_plugged_in_twice():
    boats = [boat(str(i), 0.2 + 0.05 * i, 0.9, 1 + i % 3) for i in range(7)]
    supply = 2 * boats[0].wall_w + 10
    plan = charge_plan(boats, supply, 18.0)
    assert sorted(c.boat.name for c in plan) == sorted(b.name for b in boats)
    for c in plan:
        at = [x for x in plan if x.from_h <= c.from_h < x.to_h]
        assert sum(x.boat.wall_w for x in at) <= supply
        assert c.to_h - c.from_h == pytest.approx(c.boat.hours)
        assert c.ready == (c.from_h + c.boat.hours_needed <= 24 + c.boat.leaves_h + 1e-9)
    assert any(not c.ready for c in plan) and any(c.ready for c in plan)
    assert all(c.ready for c in charge_plan(boats, 10 * supply, 18.0))


def test_who_leaves_first_is_charged_first():
    late, early = boat("late", leaves=16.0), boat("early", leaves=6.0)
    plan = charge_plan([late, early], early.wall_w + 1, 18.0)
    assert [c.boat.name for c in plan] == ["early", "late"]
    assert plan[1].from_h == pytest.approx(plan[0].to_h)


@pytest.mark.parametrize(
    ("it", "told"),
    [
        (boat(needed=1.4), "140 % of a charge"),
        (boat(charger=None), "no charger"),
        (boat(charger=Charger(48, 20, ("nmc",))), "no charger of its own charges"),
        (boat(charger=Charger(24, 400, ("lfp",))), "W of 3600 W"),
        (boat(soc=0.1, needed=0.9, leaves=0.0, charger=Charger(24, 4, ("lfp",))), "too late"),
    ],
)
def test_a_boat_that_cannot_be_ready_says_why(it, told):
    (c,) = charge_plan([it], 3600, 18.0)
    assert not c.ready and told in c.why


def test_a_boat_with_charge_enough_is_ready_without_a_charger():
    (c,) = charge_plan([boat(soc=0.9, needed=0.5, charger=None)], 3600, 18.0)
    assert c.ready and c.to_h == c.from_h


def test_an_hour_costs_energy_wear_and_parts():
    s = spent(200, 180_000, 0.4, 0.95, 120.0, 3000, 0.15)
    assert s.energy == pytest.approx(180 / 0.88 / 0.95 * 0.4)
    assert (s.battery, s.parts) == (450, 120)
    assert s.an_hour == pytest.approx((s.energy + 570) / 200)
    assert spent(0, 0, 0.4, 0.95, 0, 0, 0).an_hour is None


# Freireich and others 1963, 6-mercaptopurine, weeks in remission, as given in many textbooks on
# survival analysis with Kaplan and Meier's estimate beside it; from memory
WEEKS = [6, 6, 6, 6, 7, 9, 10, 10, 11, 13, 16, 17, 19, 20, 22, 23, 25, 32, 32, 34, 35]
RELAPSED = [1, 1, 1, 0, 1, 0, 1, 0, 0, 1, 1, 0, 0, 0, 1, 1, 0, 0, 0, 0, 0]
ESTIMATE = {6: 0.857, 7: 0.807, 10: 0.753, 13: 0.690, 16: 0.627, 22: 0.538, 23: 0.448}


def test_hours_to_the_first_fault_are_kaplan_and_meiers_estimate():
    f = first_fault(WEEKS, [bool(x) for x in RELAPSED])
    assert {at: pytest.approx(s, abs=6e-4) for at, s in f.curve[1:]} == ESTIMATE
    assert (f.half_h, f.quarter_h, f.faulted) == (23, 13, 9)
    none = first_fault([10.0, 20.0], [False, False])
    assert (none.quarter_h, none.half_h, none.curve) == (None, None, ((0.0, 1.0),))


def test_a_log_suspects_what_takes_more_power_only_when_it_lasts():
    assert not suspect_from_log([0.4, 0.4, 0.4, 0.4])
    assert not suspect_from_log([0.4, 0.1, 0.1, 0.1, 0.4])
    assert [x.fault.key for x in suspect_from_log([0.2] * 5, aged=True)] == ["slow", "short_day"]
    for f in SERVICE_FAULTS.values():
        assert f.seen and f.told_by and (f.causes or f.key == "other")


@pytest.mark.parametrize(
    ("to", "damage", "months", "standing", "new_to"),
    [
        ("2026-08-01", False, 24, "warranty", "2026-08-01"),  # the last day counts
        ("2026-07-31", False, 24, "paid", "2028-08-01"),
        ("2027-08-01", True, 24, "paid", "2028-08-01"),
        (None, False, 24, "not known", "2028-08-01"),
        (None, False, 0, "not known", None),
    ],
)
def test_the_warrantys_verdict(to, damage, months, standing, new_to):
    v = verdict(date(2026, 8, 1), date.fromisoformat(to) if to else None, damage, months)
    assert v.standing == standing and v.text
    assert v.new_to == (date.fromisoformat(new_to) if new_to else None)


def test_packs_that_do_not_belong_together_are_named():
    same = LFP.battery
    assert not against_joining(LFP, 0.98, 0.3, same)
    assert "years old" in against_joining(LFP, 0.98, 2.0, same)[0]
    assert "hold 90 %" in against_joining(LFP, 0.90, 0.3, same)[0]
    assert "beside" in against_joining(LFP, 1.0, 0.1, Battery("lfp", 51.2, 100))[0]
    assert "50 Ah beside 100 Ah" in against_joining(LFP, 1.0, 0.1, Battery("lfp", 25.6, 50))[0]
    assert "other voltages" in against_joining(LFP, 1.0, 0.1, Battery("nmc", 25.9, 100))[0]


def test_a_log_comes_to_hours_way_and_energy():
    still = [Sample(float(t), 0.0, None, 20.0) for t in range(0, 600, 10)]
    run = [Sample(600.0 + t, 2.0, None, 300.0) for t in range(0, 1801, 10)]
    away = [Sample(9000.0 + t, 2.0, None, 300.0) for t in range(0, 601, 10)]
    s = summed([*still, *run, *away])
    assert s.hours == pytest.approx((1800 + 600) / 3600, abs=0.01)
    assert s.distance_m == pytest.approx(4800, rel=0.01)
    assert s.energy_wh == pytest.approx(300 * 2400 / 3600 + 20 * 590 / 3600, rel=0.03)
    blind = [Sample(float(t), 2.0, None, 300.0 if t < 100 else None) for t in range(0, 1000, 10)]
    assert summed(blind).energy_wh is None


BOAT = Profile(True, False, False, ("m1", "b1"))


def test_the_shops_own_steps_stand_before_jolveks_and_a_products_before_all():
    everywhere = Edit("", "shaft", Care("shaft", "hours", "Ours", 40))
    mine = Edit("m1", "shaft", Care("shaft", "hours", "The manual's", 25, source="its manual"))
    other = Edit("m9", "shaft", Care("shaft", "hours", "Another's", 10))
    more = Edit("b1", "fan", Care("fan", "months", "Fan free", 6))

    def found(*edits):
        return {c.key: c for c in care_for(BOAT, edits)}

    assert found(everywhere)["shaft"].every == 40
    assert found(mine, everywhere, other)["shaft"].every == 25
    assert "fan" in found(more) and "fan" not in found()
    assert "shaft" not in found(everywhere, Edit("m1", "shaft", None))


@pytest.mark.parametrize(
    "wrong",
    [
        {"kind": "hours", "every": 0},
        {"kind": "months", "every": 1.5},
        {"kind": "date", "at": ""},
        {"kind": "date", "at": "laid up"},
        {"kind": "yearly"},
        {"kind": "trip", "text": " "},
        {"kind": "hours", "every": 50, "text": "x" * 301},
    ],
)
def test_a_step_that_could_never_be_due_is_refused(wrong):
    with pytest.raises(ValueRefused):
        Care(**{"key": "k", "text": "Grease", **wrong})
