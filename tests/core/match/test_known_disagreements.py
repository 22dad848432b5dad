"""What version 0.5 offered on the shortlist and blocked afterwards, or dropped and let pass."""

from dataclasses import replace

import numpy as np
import pytest

from jolvek import demo
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.enquiry.site import Site
from jolvek.core.fit.fitted import Fitted
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.match.matching import match
from jolvek.core.match.whole import fitted_of
from jolvek.core.products.motor import Motor
from jolvek.core.products.shelf import Item, sample
from jolvek.core.rules.findings import worst

NEEDS = [e.need for e in demo.enquiries()]
SHELF = demo.shelf()
DINGHY = Need(
    Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=0.36), Load(2), day=Day(1.5, 4000.0)
)


def with_site(need, **changes):
    return replace(need, site=replace(need.site, **changes))


def pack(**changes):
    """The sample shelf with its motor of 24 V and a pack of 25.6 V 100 Ah, changed."""
    made = sample()
    motor = Motor(2400, 2520, voltage_v=24, mass_kg=14, name="M24")
    battery = Battery("lfp", 25.6, 100, 11.6, **{"max_continuous_a": 100, **changes})
    return replace(
        made,
        motors=(replace(made.motors[0], spec=motor),),
        batteries=(replace(made.batteries[0], spec=battery),),
    )


def layouts(m):
    return set(
        zip(m.supplies.series[m.field.supply], m.supplies.parallel[m.field.supply], strict=False)
    )


@pytest.mark.parametrize(
    ("changes", "rule"),
    [
        ({"model_year": 2001, "approval_from_year": 2010}, "approval-year"),
        ({"max_people": 1}, "plate-people"),
    ],
)
def test_what_stands_against_the_boat_is_said_before_any_setup_does_the_day(changes, rule):
    need = replace(NEEDS[1], load=replace(NEEDS[1].load, people=2))
    assert match(need, SHELF).field.does_day.any()
    m = match(with_site(need, **changes), SHELF)
    assert [f.rule for f in m.need_findings] == [rule]
    assert not m.field.does_day.any()


def test_a_long_rudder_leaves_no_motor_in_its_sweep():
    m = match(with_site(DINGHY, rudder_chord_m=0.5), SHELF)
    offsets = np.array([k.spec.offset_m for k in SHELF.mounts])[m.drives.mount]
    at_transom = np.array([k.spec.general.place == "transom" for k in SHELF.mounts])
    assert not (at_transom[m.drives.mount] & (offsets == 0)).any()
    assert "rudder-strikes" in {f.rule for f in m.mount_reasons.values()}


def test_frost_is_a_caution_and_blocks_no_offer():
    cold = replace(DINGHY, day=replace(DINGHY.day, temperature_c=-5.0))
    m = match(cold, SHELF)
    spread = np.flatnonzero(m.field.does_day)[::29]
    does = [fitted_of(m, int(i)) for i in spread]
    assert does and all(worst(f.findings) != "block" for f in does)
    for f in does:
        values = {x.rule: x.level for x in f.findings}
        assert values.get("charge-freezing") == ("caution" if f.bank.chem.lithium else None)


def test_a_clip_on_battery_of_another_motor_is_blocked_by_hand_too():
    owner = next(m for m in SHELF.motors if m.pack_ids)
    battery = next(b for b in SHELF.batteries if b.id in owner.pack_ids)
    other = next(m for m in SHELF.motors if not m.pack_ids)
    f = Fitted(DINGHY, other, battery, SHELF.mounts[0])
    assert "pack-own" in {x.rule for x in f.findings if x.level == "block"}


def test_2400_w_with_a_peak_of_2520_on_a_pack_of_100_a_needs_two():  # common practice: "105 A"
    m = match(DINGHY, pack())
    assert layouts(m) == {(1, 2), (1, 3), (1, 4)}
    made = pack()
    alone = Fitted(DINGHY, made.motors[0], made.batteries[0], made.mounts[0], shaft_m=0.381)
    found = next(f for f in alone.findings if f.rule == "current-peak")
    assert "105 A" in found.text and found.cure.startswith("2 strings in parallel (2 packs)")


def test_a_peak_beyond_the_pack_is_left_out_of_matching():  # 2000/3600 W on 105 A
    made = pack(max_continuous_a=105.0)
    motor = replace(made.motors[0], spec=replace(made.motors[0].spec, input_power_w=2000))
    motor = replace(motor, spec=replace(motor.spec, peak_power_w=3600))
    assert (1, 1) not in layouts(match(DINGHY, replace(made, motors=(motor,))))


def test_a_36_v_pack_never_serves_a_48_v_motor():
    motor = Item("m48", "M", "m48", 900.0, Motor(2000, voltage_v=48, mass_kg=14), "outboard")
    shelf = replace(
        sample(),
        motors=(motor,),
        batteries=(Item("b36", "M", "b36", 800.0, Battery("lfp", 38.4, 100, 14)),),
    )
    m = match(DINGHY, shelf)
    assert not m.field.price.size
    assert [f.rule for f in m.motor_reasons.values()] == ["voltage-low"]


def test_a_lead_battery_without_stated_amps_is_a_caution_in_both():
    motor = Item(
        "m", "M", "m", 900.0, Motor(1200, voltage_v=12, mass_kg=9), "outboard", shafts_m=(0.381,)
    )
    agm = Item("agm", "M", "agm", 200.0, Battery("agm", 12, 100, 28))
    quay = Item("c", "M", "c", 90.0, Charger(12, 15, ("agm",)))
    m = match(DINGHY, replace(sample(), motors=(motor,), batteries=(agm,), chargers=(quay,)))
    assert (1, 1) in layouts(m)
    f = Fitted(DINGHY, motor, agm, sample().mounts[0], quay, shaft_m=0.381)
    assert worst(f.findings) == "caution" and "current-unknown" in {x.rule for x in f.findings}


@pytest.mark.parametrize("key", ["approval_power_w", "approval_thrust_n", "max_motor_kg"])
def test_the_smallest_limit_still_limits(key):
    assert not match(replace(DINGHY, site=Site(**{key: 1.0})), sample()).field.price.size


def test_a_bank_that_nothing_charges_is_left_out_told_and_blocked_by_hand():
    bare = replace(sample(), chargers=())
    m = match(DINGHY, bare)
    assert not m.field.price.size
    assert all("no charger in the catalogue suits it" in f.text for f in m.battery_reasons.values())
    f = Fitted(DINGHY, bare.motors[0], bare.batteries[0], bare.mounts[0], shaft_m=0.381)
    assert [x.rule for x in f.findings if x.level == "block"] == ["no-charger"]


@pytest.mark.parametrize(
    ("own_v", "listed"), [(29.2, True), (28.4, True), (14.6, False), (58.4, False)]
)
def test_the_customers_own_charger_is_asked_its_volts_and_saves_the_price(own_v, listed):
    need = replace(DINGHY, day=replace(DINGHY.day, own_charger_v=own_v))
    bare = match(need, replace(sample(), chargers=()))
    assert bool(bare.field.price.size) == listed
    if listed:
        with_shelf = match(need, sample())
        assert (with_shelf.supplies.charger == -1).all()
        assert with_shelf.field.price.min() == bare.field.price.min()


def test_no_demo_boat_is_offered_a_setup_that_nothing_charges():
    for e in demo.enquiries():
        m = match(e.need, demo.shelf())
        assert (m.supplies.charger[m.field.supply] >= 0).all(), e.title


@pytest.mark.parametrize(("wind_m_s", "does"), [(-6.5, True), (6.6, False), (-6.6, False)])
def test_wind_that_is_too_much_for_her_length_leaves_no_setup(wind_m_s, does):
    windy = replace(DINGHY, day=replace(DINGHY.day, wind_m_s=wind_m_s))
    m = match(windy, SHELF)
    assert [f.rule for f in m.need_findings] == ([] if does else ["wind-limit"])
    assert m.field.does_day.any() == does
