"""Speeds on the water (common practice, no source), uncalibrated, within 10 %; and rules
of thumb."""

import pytest

from jolvek.core.base.units import KNOT_M_S
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.resistance import table, total_n
from jolvek.core.hydro.water import Water
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.measured import residuals, rms_z
from jolvek.core.predict.reported import REPORTED
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor


@pytest.mark.parametrize("row", residuals(), ids=lambda r: f"{r.what}, {r.power_w} W")
def test_measured_speeds_are_met_within_a_tenth(row):
    assert abs(row.error) < 0.10


def test_what_owners_report_is_met_within_its_own_doubt_and_the_bands_hold_what_they_say():
    """Nineteen speeds of seven families, from memory and good to about a tenth."""
    told = residuals(REPORTED)
    assert all(abs(row.error) < 0.16 for row in told), told
    every = [abs(row.z) <= 1.2816 for row in (*told, *residuals())]
    assert 0.7 <= sum(every) / len(every) <= 0.9
    planing = [r.error for r in told if r.measured_m_s > 5.5]
    assert abs(sum(planing)) / len(planing) < 0.04


def test_the_doubt_is_what_the_measured_points_show():
    assert 0.6 < rms_z(residuals()) < 1.4


def test_a_long_kayak_drags_as_published():
    """5.2 m, 113 kg, 4 kn: 19 to 20 N (from memory)."""
    t = table(Hull("kayak", 5.2, 0.6, 25), Water("fresh"), 113.0, Load(1))
    assert float(total_n(t, 4 * KNOT_M_S, 113.0)) == pytest.approx(19.5, rel=0.1)


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
