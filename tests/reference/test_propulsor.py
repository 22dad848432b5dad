"""The propeller against the limits of momentum theory and facts of the trade (common practice, no
source).
"""

import numpy as np
import pytest

from jolvek.core.hydro import drive, open_water, propulsor

RHO = 1026.0


def test_at_high_speed_thrust_tends_to_power_over_speed():  # momentum theory: T → P/V
    thrust = drive.momentum_thrust_n(1000.0, 60.0, 0.3)
    assert float(thrust) == pytest.approx(1000 / 60, rel=1e-3)


def test_at_rest_thrust_is_the_static_formula():  # T0 = (2ρA)^⅓ P^⅔
    thrust = drive.momentum_thrust_n(1000.0, 0.0, 0.3)
    area = np.pi * 0.3**2 / 4
    assert float(thrust) == pytest.approx((2 * RHO * area) ** (1 / 3) * 1000 ** (2 / 3), rel=1e-6)


@pytest.mark.parametrize("power", [100.0, 1000.0, 12000.0])
@pytest.mark.parametrize("speed", [0.0, 0.5, 3.0, 12.0])
@pytest.mark.parametrize("rated", [1000.0, 12000.0])
def test_power_and_thrust_are_inverse(power, speed, rated):
    d = drive.Drive(0.28, 0.7, 0.6, rated, 0.006 * rated)
    thrust = d.thrust_n(power, speed)
    assert float(d.power_w(thrust, speed)) == pytest.approx(power, rel=1e-4)


@pytest.mark.parametrize(
    ("diameter", "pitch", "watts"), [(0.26, 0.17, 1000), (0.27, 0.171, 2400), (0.32, 0.26, 8000)]
)
def test_a_drive_is_the_b_series_behind_a_motor_of_0_85_at_its_rated_input(diameter, pitch, watts):
    """`open_water.run` works with K_T and K_Q, the drive with a share of momentum power."""
    d = propulsor.fit(watts, diameter, pitch, 1500).drive
    for speed in (1.5, 2.5, 4.0):
        thrust = float(d.thrust_n(watts, speed))
        shaft = float(open_water.run(thrust, speed, diameter, pitch).shaft_power_w)
        assert shaft / drive.SCALE == pytest.approx(open_water.DRIVE_EFFICIENCY * watts, rel=0.01)
    at_rest, _ = open_water.static(diameter, pitch, open_water.DRIVE_EFFICIENCY * watts)
    assert float(d.thrust_n(watts, 0.0)) == pytest.approx(
        at_rest * drive.SCALE ** (2 / 3), rel=0.02
    )


@pytest.mark.parametrize(
    ("rated", "asked", "useful_w"),
    [
        pytest.param(
            1000.0, 50.0, 30.0, id="1 kW at 50 W: about 30 W to the shaft, common practice"
        ),
        pytest.param(12000.0, 330.0, 170.0, id="12 kW: 330 W where 200 W were said"),
    ],
)
def test_a_large_motor_wastes_at_a_crawl(rated, asked, useful_w):
    d = propulsor.fit(rated).drive
    shaft = float(d._useful(np.asarray(asked / rated))) * rated * open_water.DRIVE_EFFICIENCY
    assert shaft == pytest.approx(useful_w, rel=0.1)


# common practice, no source
def test_a_claim_of_711_n_from_2520_w_on_270_mm_is_not_believed_and_makes_no_jump():
    p = propulsor.fit(2400, 0.27, static_thrust_n=711, peak_w=2520)
    assert p.claimed_factor == pytest.approx(0.70, abs=0.01) and p.claimed_factor > 0.62
    claims = np.linspace(100, 1500, 400)
    factors = [propulsor.fit(2400, 0.27, static_thrust_n=n).loss_factor for n in claims]
    assert (np.diff(factors) >= 0).all() and np.diff(factors).max() < 0.005
    assert min(factors) == 0.55 and max(factors) == 0.68


def test_pitch_speed():  # 171 mm at 2300 rpm = 6.55 m/s (common practice, no source)
    assert propulsor.Propulsor(0.27, 0.171, 2300 / 60).pitch_speed_m_s == pytest.approx(
        6.555, abs=0.005
    )


def test_shaft_speed_and_pitch_limit_are_inverse():
    n = propulsor.shaft_speed_rev_s(300.0, 2.5, 0.28, 0.18)
    assert float(propulsor.pitch_limited_thrust_n(2.5, 0.28, 0.18, n)) == pytest.approx(
        300.0, rel=1e-4
    )  # read from a table of the curve


def test_there_is_no_thrust_past_the_zero_slip_speed():
    assert float(propulsor.pitch_limited_thrust_n(8.0, 0.28, 0.12, 30.0)) == 0.0
