"""What catalogues claim and what schools teach, held against arithmetic; and what doubt does to a
figure.
"""

from dataclasses import replace

import numpy as np
import pytest

from jolvek import demo
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.enquiry.schools import power_schools, reserve_schools
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.predict.claims import check_claims
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor
from jolvek.core.products.shelf import sample

MOTOR, BATTERY = sample().motors[0], sample().batteries[0]
DINGHY = Setup(
    Hull("rigid_dinghy", 3.2, 1.45, 65),
    Load(2),
    Motor(1200, voltage_v=24),
    Bank(Battery("lfp", 25.6, 50)),
)


def levels(item):
    return {c.about: c.level for c in check_claims(item)}


def with_spec(item, **changes):
    return replace(item, spec=replace(item.spec, **changes))


@pytest.mark.parametrize(("newton", "level"), [(250, "fine"), (470, "caution"), (900, "block")])
def test_static_thrust_against_the_momentum_limit(newton, level):
    """Ideal static thrust (2 rho A P^2)^(1/3), the actuator disc; 1200 W on 0.27 m: 551 N in fresh,
    556 N in salt water, by hand.
    """
    item = with_spec(MOTOR, propeller_diameter_m=0.27, static_thrust_n=newton * 1.0)
    ideal = (2 * 1025 * np.pi / 4 * 0.27**2 * 1200**2) ** (1 / 3)
    assert ideal == pytest.approx(553, abs=4)
    assert levels(item)["static thrust"] == level


@pytest.mark.parametrize(("hp", "level"), [(1.5, "fine"), (3.0, "caution")])
def test_horsepower_is_745_7_watts(hp, level):
    assert levels(replace(MOTOR, claimed_hp=hp))["horsepower"] == level
    assert "1.6 hp" in next(
        c.says for c in check_claims(replace(MOTOR, claimed_hp=hp)) if c.about == "horsepower"
    )


@pytest.mark.parametrize(("claimed", "level"), [(1280, "fine"), (1340, "fine"), (1500, "caution")])
def test_watt_hours_are_volts_times_ampere_hours(claimed, level):
    assert levels(replace(BATTERY, claimed_energy_wh=claimed))["energy"] == level


@pytest.mark.parametrize(("kilos", "level"), [(11.6, None), (4.0, "caution"), (40.0, "note")])
def test_a_pack_too_light_for_its_chemistry_is_doubted(kilos, level):
    assert levels(with_spec(BATTERY, mass_kg=kilos)).get("weight") == level


@pytest.mark.parametrize(("speed", "level"), [(1.5, "fine"), (9.0, "caution")])
def test_a_claimed_speed_is_tried_on_a_light_skiff(speed, level):
    assert levels(replace(MOTOR, claimed_speed_m_s=speed))["top speed"] == level


def test_a_claimed_runtime_says_the_energy_it_takes():
    claim = next(
        c
        for c in check_claims(replace(MOTOR, claimed_runtime_s=5400.0))
        if c.about == "time at full power"
    )
    assert "1800 Wh" in claim.says  # 1200 W for an hour and a half


def test_missing_data_name_what_they_weaken_and_whole_data_say_nothing():
    gaps = next(
        c for c in check_claims(with_spec(BATTERY, length_m=None)) if c.about == "missing data"
    )
    assert "length" in gaps.says and "bay" in gaps.says
    assert "missing data" not in levels(with_spec(BATTERY, max_continuous_a=60.0))


def test_no_invented_product_claims_the_impossible():
    shelf = demo.shelf()
    for item in (*shelf.motors, *shelf.batteries):
        assert "block" not in levels(item).values(), item.title


def test_schools_of_power_stand_side_by_side_and_only_what_applies_is_said_to():
    shelf_needs = [row.need for row in demo.enquiries()]
    for need in shelf_needs:
        rows = power_schools(need)
        assert len(rows) >= 4 and len({r.id for r in rows}) == len(rows)
        assert any(r.applies for r in rows)


def test_a_third_kept_goes_less_far_than_a_fifth():
    at = {r.id: r for r in reserve_schools(evaluate(DINGHY), 1.8)}
    assert at["thirds"].range_m < at["fifth"].range_m
    assert at["thirds"].range_m / at["fifth"].range_m == pytest.approx((1 - 1 / 3) / 0.8, rel=0.02)
