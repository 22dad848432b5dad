"""A propeller too long for its motor, what grows on a bottom, and a trimaran's amas."""

import json
from dataclasses import replace

import numpy as np
import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.hydro.fouling import MONTHS, bottom_factor, grown
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.open_water import DRIVE_EFFICIENCY, static
from jolvek.core.hydro.propulsor import LUG_TORQUE, fit, lug_thrust_n
from jolvek.core.hydro.resistance import parts, table
from jolvek.core.hydro.water import Water
from jolvek.core.match.matching import match
from jolvek.core.match.whole import fitted_of
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.handling import handling
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor
from jolvek.core.products.shelf import sample
from jolvek.formats import setup_file

DINGHY = Hull("rigid_dinghy", 3.4, 1.5, 75)
SIZES = {"propeller_diameter_m": 0.29, "propeller_pitch_m": 0.40, "propeller_rpm": 2600}
LONG = Motor(4000, mass_kg=30, **SIZES)


def test_the_torque_at_the_lugging_thrust_is_the_motors_highest():  # Wageningen B3-45 at rest
    thrust = lug_thrust_n(0.29, 0.36, 1900 / 60, 4000.0)
    most = LUG_TORQUE * DRIVE_EFFICIENCY * 4000.0 / (2 * np.pi * 1900 / 60)
    powers = np.geomspace(100.0, 10_000.0, 400)
    thrusts, revs = np.array([static(0.29, 0.36, p) for p in powers]).T
    torque = powers / (2 * np.pi * revs)
    assert np.interp(thrust, thrusts, torque) == pytest.approx(most, rel=1e-3)


def test_a_long_pitch_gets_going_slowly_and_a_usual_one_does_not_lug():
    long = evaluate(Setup(DINGHY, Load(2), LONG))
    usual = evaluate(Setup(DINGHY, Load(2), replace(LONG, propeller_pitch_m=0.22)))
    assert long.static_thrust_n == pytest.approx(long.propulsor.lug_n)
    assert usual.static_thrust_n < usual.propulsor.lug_n
    assert long.static_thrust_n < 0.9 * usual.static_thrust_n
    assert handling(long).to_speed_s > handling(usual).to_speed_s


def test_a_propeller_that_nobody_stated_is_not_said_to_lug():
    assert fit(4000.0).lug_n == float("inf")
    assert fit(4000.0, 0.29, None, 1900.0).lug_n == float("inf")
    assert fit(4000.0, 0.29, 0.40, 1900.0).lug_n < 1000.0


def test_torque_that_ends_the_speed_is_named():
    weak = replace(LONG, propeller_rpm=8000)
    p = evaluate(Setup(Hull("keelboat", 8.0, 2.6, 3000), Load(2), weak, wind_m_s=12.0))
    assert p.limited_by == "torque"
    assert p.at_speed(p.top_speed_m_s + 0.5).reason.endswith("cannot turn the propeller faster")


def test_matching_lugs_as_a_single_setup_does():
    made, light = sample(), Need(DINGHY, Load(1), day=Day(1.0, 1000.0))
    volts = made.motors[0].spec.voltage_v
    for rpm in (2600.0, 8000.0):
        spec = replace(LONG, voltage_v=volts, propeller_rpm=rpm, input_power_w=1200, mass_kg=14)
        m = match(light, replace(made, motors=(replace(made.motors[0], spec=spec),)))
        f = fitted_of(m, 0)
        near = pytest.approx(f.performance.top_speed_m_s, rel=0.005)
        assert m.field.top_speed_m_s[0] == near
    assert f.performance.limited_by == "torque"


@pytest.mark.parametrize(("kind", "rate"), [("salt", 1.0), ("fresh", 0.5)])
def test_growth_rises_with_the_months_and_ends(kind, rate):
    factor = grown(np.linspace(0.0, 30.0, 61), kind)
    assert factor[0] == 1.0 and (np.diff(factor) >= 0).all()
    assert factor[-1] == grown(MONTHS[-1] / rate, kind) == 1.8


def test_friction_alone_grows_with_the_months_and_the_eye_may_say_more():
    clean = table(DINGHY, Water(), 300.0)
    afloat = table(replace(DINGHY, months_afloat=6.0), Water(), 300.0)
    a, b = (parts(t, 1.5, 300.0) for t in (clean, afloat))
    assert float(b.friction_n) == pytest.approx(1.5 * float(a.friction_n))
    assert float(b.wave_n) == pytest.approx(float(a.wave_n))
    assert bottom_factor("weed", 1.0, "salt") == 1.5
    assert bottom_factor("clean", 12.0, "fresh") == 1.5


FILE = {
    "hull": {"family": "multihull", "length_m": 7.0, "beam_m": 5.0, "mass_kg": 700.0},
    "load": {"people": 3},
    "motor": {"input_power_w": 3000},
}


def asked(hull=None, **more):
    text = json.dumps(FILE | {"hull": FILE["hull"] | (hull or {})} | more)
    return setup_file.read(text).setup


def test_amas_of_a_file_carry_their_share_at_their_place():
    hull = asked({"amas": {"share": 0.2, "length_m": 4.5, "spacing_m": 2.1}}).hull
    (long, _, port), (_, _, main), (_, _, starboard) = hull.body_shares
    assert (port, main, starboard) == pytest.approx((0.1, 0.8, 0.1))
    assert long * hull.waterline_m == pytest.approx(4.5)
    assert hull.spacing_m == 2.1 and hull.body_count == 3


def test_amas_that_carry_less_leave_the_main_hull_deeper():
    light, heavy = (evaluate(asked({"amas": {"share": s}})) for s in (0.05, 0.4))
    assert light.draught_m > heavy.draught_m * 1.1


def test_amas_on_two_hulls_are_refused():
    with pytest.raises(ValueRefused, match=r"hull\.amas"):
        asked({"bodies": 2, "amas": {"share": 0.1}})


def test_the_fit_of_a_trial_moves_what_it_names():
    plain = evaluate(asked())
    rough = evaluate(asked(fit={"friction_factor": 1.3}))
    hard = evaluate(asked(fit={"drag_factor": 1.3}))
    assert hard.top_speed_m_s < rough.top_speed_m_s < plain.top_speed_m_s
    at = plain.top_speed_m_s / 2
    assert float(hard.drag_at_n(at)) == pytest.approx(1.3 * float(plain.drag_at_n(at)))
    assert asked({"months_afloat": 4.0}).hull.months_afloat == 4.0


def test_what_a_setup_weighs_more_sits_aft_and_costs_speed_on_the_plane():
    light, heavy = table(DINGHY, Water(), [240.0, 330.0], Load(2)).lcg_m
    assert heavy < light - 0.1
    here = table(DINGHY, Water(), 330.0, Load(2))
    ahead = table(DINGHY, Water(), 330.0, Load(2), light)
    at = np.linspace(3.0, 4.0, 5)  # near her hump
    aft, level = (parts(t, at, 330.0).total_n for t in (here, ahead))
    assert (aft > level).all()
