"""Doubt: the bands against boats whose hidden parameters are drawn from the priors, and against
their own definition.
"""

from dataclasses import replace

import numpy as np
import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.resistance import parts
from jolvek.core.predict.doubt import doubt
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.likelihood import chance, in_words, z_of
from jolvek.core.predict.priors import PRIORS, priors
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor

BANK = Bank(Battery("lfp", 25.6, 100))
SOFT = Setup(Hull("inflatable_soft", 2.9, 1.5, 32), Load(2, 155), Motor(1100), BANK)
SKIFF = Setup(Hull("skiff", 4.3, 1.35, 68), Load(1, 100, 30), Motor(1100), BANK)
LAUNCH = Setup(Hull("cabin", 6.5, 2.3, 1400), Load(2, 160), Motor(4000), BANK)
CATAMARAN = Setup(Hull("multihull", 6.7, 4.2, 750), Load(2, 160), Motor(1500), BANK)
TENDER = Setup(Hull("rigid_dinghy", 2.9, 1.45, 55), Load(2, 150), Motor(4500))
LONG = Motor(
    4000,
    mass_kg=30,
    propeller_diameter_m=0.29,
    propeller_pitch_m=0.40,
    propeller_rpm=2600,
)
KAYAK = Setup(Hull("kayak", 5.2, 0.6, 25), Load(1, 85), Motor(500), BANK)


def hidden(setup, dice):
    """A boat that is not quite as said: sizes, weight and coefficients drawn from the priors."""

    def off(key):
        return float(np.exp(priors(setup)[key] * dice.standard_normal()))

    hull = setup.hull
    length = min(hull.waterline_m * off("length"), hull.length_m)
    beam = {
        "body_beam_m" if hull.body_count > 1 else "waterline_beam_m": min(
            hull.body_waterline_beam_m * off("beam"), hull.beam_m
        )
    }
    made = replace(hull, waterline_length_m=length, **beam)
    gear = setup.load.gear_kg + setup.displacement_kg * (off("mass") - 1)
    weighed = replace(setup, hull=made, load=replace(setup.load, gear_kg=max(gear, 0.0)))
    return evaluate(weighed), {key: off(key) for key in PRIORS}


def takes_w(p, factor, speed, setup):
    """Power of the hidden boat at a speed, each part of its resistance by its own factor."""
    split = parts(p.resistance, speed, p.displacement_kg)
    leg = 0.5 * setup.water.density_kg_m3 * setup.motor.leg_area_m2 * speed**2
    thrust = (
        split.friction_n * factor["friction"]
        + split.wave_n * factor["waves"]
        + split.transom_n * factor["transom"]
        + split.air_n * factor["air"]
        + leg * factor["leg"]
    )
    return float(p.propulsor.drive.power_w(thrust, speed)) / factor["efficiency"]


@pytest.mark.parametrize(
    "setup", [SOFT, SKIFF, LAUNCH, CATAMARAN, KAYAK], ids=lambda s: s.hull.family
)
def test_hidden_boats_fall_into_their_band_as_often_as_it_says(setup):
    setup = replace(setup, load=replace(setup.load, gear_kg=0.3 * setup.displacement_kg))
    p = evaluate(setup)
    d, speed, dice = doubt(p), 0.8 * p.top_speed_m_s, np.random.default_rng(11)
    result, sigma = p.at_speed(speed).power_w, float(d.sigma_at(speed))
    z = [np.log(takes_w(*hidden(setup, dice), speed, setup) / result) / sigma for _ in range(150)]
    assert 0.85 < float(np.sqrt(np.mean(np.square(z)))) < 1.2
    low, high = (np.log(float(x) / result) / sigma for x in d.power_band_w(speed))
    assert 0.7 < np.mean([low < x < high for x in z]) < 0.9


@pytest.mark.parametrize("setup", [SOFT, SKIFF, LAUNCH, KAYAK], ids=lambda s: s.hull.family)
def test_the_doubt_is_small_in_speed_and_large_in_power_and_range(setup):
    """7 to 10 % of speed at a fixed power (90 %), 16 to 24 % (1σ) of power at a fixed speed."""
    p = evaluate(setup)
    d = doubt(p, 0.9)
    speed = 0.8 * p.top_speed_m_s
    power = p.at_speed(speed).power_w
    assert 0.06 < d.speed_share(power) < 0.13
    assert 0.15 < float(d.sigma_at(speed)) < 0.25
    low, high = d.range_band_m(speed)
    near, far = d.way_band_m(power)
    assert high / low > 1.4 * far / near and low < p.at_speed(speed).range_m < high


def test_at_the_hump_the_two_ends_lie_on_its_sides_and_planing_is_open():
    d = doubt(evaluate(TENDER))
    low, high = d.speed_band_m_s(4500.0)
    assert low < 0.6 * high and in_words(d.planing_chance) == "open"
    assert d.planing_band_w[0] < 4500 < d.planing_band_w[1]
    strong = doubt(evaluate(replace(TENDER, motor=Motor(9000))))
    weak = doubt(evaluate(replace(TENDER, motor=Motor(1500))))
    assert in_words(strong.planing_chance) == "likely"
    assert in_words(weak.planing_chance) == "unlikely"
    assert doubt(evaluate(SOFT)).planing_chance is None


def test_what_is_known_narrows_the_band_and_a_run_on_the_water_most():
    d = doubt(evaluate(SKIFF))
    ways = dict(d.narrowed(800.0))
    assert max(ways.values()) < d.speed_share(800.0)
    assert min(ways, key=ways.get) == "try one speed on the water"
    measured = replace(
        SKIFF, hull=replace(SKIFF.hull, waterline_length_m=4.0, waterline_beam_m=1.15)
    )
    after = doubt(evaluate(measured))
    assert "measure the waterline afloat" not in dict(after.narrowed(800.0))
    tried = replace(measured, hull=replace(measured.hull, friction_factor=1.1))
    assert doubt(evaluate(tried)).speed_share(800.0) < 0.5 * after.speed_share(800.0)


def test_a_harder_boat_takes_what_the_upper_end_says():
    p = evaluate(LAUNCH)
    d, speed = doubt(p), 0.7 * p.top_speed_m_s
    for side, end in zip((1, -1), reversed(d.power_band_w(speed)), strict=True):
        other = evaluate(replace(LAUNCH, drag_factor=d.drag_factor(speed, side)))
        assert other.at_speed(speed).power_w == pytest.approx(float(end), rel=0.03)


def test_a_wider_confidence_gives_a_wider_band_and_nonsense_is_refused():
    p = evaluate(SOFT)
    shares = [doubt(p, c).speed_share(900.0) for c in (0.5, 0.8, 0.95)]
    assert shares == sorted(shares) and z_of(0.6827) == pytest.approx(1.0, abs=1e-3)
    with pytest.raises(ValueRefused, match="0.01 to 0.999"):
        doubt(p, 1.0)
    assert float(chance(0.0, 0.3)) == 0.5


def test_a_pontoon_is_less_sure_than_a_launch_until_she_is_tried():
    def sigma(hull):
        d = doubt(evaluate(Setup(hull, Load(4), Motor(6000, propeller_diameter_m=0.32))))
        return float(d.sigma_at(2.5))

    pontoon = Hull("pontoon", 6.4, 2.5, 800)
    assert sigma(pontoon) > 1.2 * sigma(Hull("flat_bottom", 6.4, 2.0, 800))
    assert sigma(replace(pontoon, friction_factor=1.1)) < 0.6 * sigma(pontoon)


@pytest.mark.parametrize(
    ("hull", "motor", "limit"),
    [
        (
            SOFT.hull,
            Motor(1100, propeller_pitch_m=0.1, propeller_diameter_m=0.25, propeller_rpm=1300),
            "pitch",
        ),
        (TENDER.hull, LONG, "torque"),
    ],
    ids=["pitch", "torque"],
)
def test_a_limited_speed_lies_within_its_own_band(hull, motor, limit):
    """Both ends went through the same limit, so the band lay to one side of the figure."""
    p = evaluate(replace(SOFT, hull=hull, motor=motor))
    assert p.limited_by == limit
    for power in np.geomspace(0.0005, 1.0, 30) * p.power_limit_w:
        low, high = doubt(p).speed_band_m_s(power)
        assert low <= float(p.speed_at_w(power)) <= high
    low, high = doubt(p).speed_band_m_s(p.power_limit_w)
    assert low <= 0.975 * p.top_speed_m_s and high >= 1.025 * p.top_speed_m_s
