"""Regeneration under sail against an energy balance."""

import pytest

from jolvek.core.day.getting_home import regeneration
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.resistance import total_n
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor


@pytest.mark.parametrize("sail_m_s", [2.2, 2.7, 3.1])
def test_a_third_of_what_the_propeller_brakes_comes_back(sail_m_s):
    # a free-wheeling propeller gives back 25 to 40 % of its braking: common practice, no source
    p = evaluate(Setup(Hull("keelboat", 8, 2.6, 3000), Load(3), Motor(6000, mass_kg=60)))
    r = regeneration(p, sail_m_s)
    now = sail_m_s - r.lost_m_s
    own, slower = (float(total_n(p.resistance, v, p.displacement_kg)) for v in (sail_m_s, now))
    brake_n = (own - slower) * (sail_m_s / now) ** 2
    assert 0.25 < r.power_w / (brake_n * now) < 0.40


def test_a_propeller_of_a_third_of_a_metre_gives_a_hundred_watts_at_six_knots():
    # 80 to 150 W from 0.32 m at 6 kn, next to nothing at 3 kn: common practice, no source
    p = evaluate(Setup(Hull("keelboat", 8, 2.6, 3000), Load(3), Motor(6000, mass_kg=60)))
    assert 80 < regeneration(p, 3.09).power_w < 150
    assert regeneration(p, 1.5).power_w < 15
