"""Speeds on the water (common practice, no source), uncalibrated, within 12 %; and rules of
thumb."""

import pytest

from jolvek.core.base.units import KNOT_M_S
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor


def knots(hull, load, power_w, **motor):
    p = evaluate(Setup(hull, load, Motor(power_w, **motor)))
    return float(p.speed_at_w(power_w)) / KNOT_M_S


MULTIHULL = Hull("multihull", 6.7, 4.2, 750)


@pytest.mark.parametrize(
    ("power_w", "measured_kn"), [(300, 3.45), (500, 4.0), (1000, 5.0), (1500, 5.2)]
)
def test_light_multihull(power_w, measured_kn):
    assert knots(
        MULTIHULL, Load(2, 160, 20), power_w, propeller_diameter_m=0.26, mass_kg=15
    ) == pytest.approx(measured_kn, rel=0.12)


def test_soft_floor_inflatable_with_two_adults():
    assert knots(
        Hull("inflatable_soft", 2.9, 1.5, 32), Load(2, 155, 10), 1100, mass_kg=18
    ) == pytest.approx(4.05, rel=0.12)


def test_skiff_with_one_adult():
    speed = knots(Hull("skiff", 4.3, 1.35, 68), Load(1, 100, 30), 1100, mass_kg=18)
    assert 4.5 * 0.88 < speed < 5.4 * 1.12


@pytest.mark.parametrize(
    ("hull", "kw_per_tonne"),
    [
        pytest.param(Hull("cabin", 6.5, 2.3, 1400), 2.0, id="displacement launch, 2 kW per tonne"),
        pytest.param(
            Hull("keelboat", 7.5, 2.5, 2400), 1.5, id="keel sailing boat, 1.5 kW per tonne"
        ),
    ],
)
def test_kw_per_tonne_gives_80_to_100_per_cent_of_hull_speed(hull, kw_per_tonne):
    motor = Motor(kw_per_tonne * (hull.mass_kg + 250), mass_kg=90)
    p = evaluate(Setup(hull, Load(2, 160), motor))
    assert 0.8 <= p.top_speed_m_s / p.hull_speed_m_s <= 1.0


def dinghy(power_w, people):
    return evaluate(
        Setup(
            Hull("rigid_dinghy", 2.9, 1.45, 55),
            Load(people, 75 * people),
            Motor(power_w, mass_kg=8 + power_w / 160),
        )
    )


def test_one_and_a_half_kilowatts_never_plane_a_tender():
    assert not dinghy(1500, 1).planes


def test_a_dinghy_for_two_planes_from_about_four_and_a_half_kilowatts():
    assert dinghy(5000, 2).planes
    assert not dinghy(3500, 2).planes
    assert 3800 < dinghy(4500, 2).planing_power_w < 5400


def test_one_person_planes_with_less():
    assert dinghy(4500, 1).planing_power_w < 0.75 * dinghy(4500, 2).planing_power_w


def test_small_low_pitch_propellers_cannot_plane_whatever_the_power():
    hull, load = Hull("rigid_dinghy", 2.9, 1.45, 55), Load(1, 75)
    p = evaluate(
        Setup(
            hull,
            load,
            Motor(
                6000,
                mass_kg=30,
                propeller_diameter_m=0.28,
                propeller_pitch_m=0.11,
                propeller_rpm=1500,
            ),
        )
    )
    assert not p.planes
    assert p.limited_by == "pitch"


def test_half_the_power_is_far_more_than_half_the_speed():
    p = evaluate(Setup(Hull("inflatable_air", 2.9, 1.55, 38), Load(2, 150), Motor(1000)))
    assert float(p.speed_at_w(500)) > 0.8 * p.top_speed_m_s
