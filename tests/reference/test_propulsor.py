"""The propeller against the limits of momentum theory and facts of the trade (common practice, no
source).
"""

import numpy as np
import pytest

from jolvek.core.hydro import propulsor

RHO = 1026.0


def test_at_high_speed_thrust_tends_to_power_over_speed():  # momentum theory: T → ηP/V
    thrust = propulsor.thrust_at_power_n(1000.0, 60.0, 0.3, 0.62)
    assert float(thrust) == pytest.approx(0.62 * 1000 / 60, rel=1e-3)


def test_at_rest_thrust_is_the_static_formula():  # T0 = (2ρA)^⅓ (ηP)^⅔
    thrust = propulsor.thrust_at_power_n(1000.0, 0.0, 0.3, 0.62)
    area = np.pi * 0.3**2 / 4
    assert float(thrust) == pytest.approx((2 * RHO * area) ** (1 / 3) * 620 ** (2 / 3), rel=1e-6)
    assert float(propulsor.static_thrust_n(1000.0, 0.3)) == pytest.approx(float(thrust), rel=1e-6)


@pytest.mark.parametrize("power", [100.0, 1000.0, 12000.0])
@pytest.mark.parametrize("speed", [0.0, 0.5, 3.0, 12.0])
def test_power_and_thrust_are_inverse(power, speed):
    thrust = propulsor.thrust_at_power_n(power, speed, 0.28, 0.6)
    assert float(propulsor.power_for_thrust_w(thrust, speed, 0.28, 0.6)) == pytest.approx(
        power, rel=1e-6
    )


# common practice, no source
def test_a_claim_of_711_n_from_2400_w_on_270_mm_is_just_not_believed():
    p = propulsor.fit(2400, 0.27, static_thrust_n=711)
    assert p.claimed_factor == pytest.approx(0.73, abs=0.01)
    assert p.loss_factor == propulsor.LOSS_FACTOR


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
