"""Getting going and stopping against closed forms and each other."""

from dataclasses import replace

import pytest

from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.handling import handling
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor

RIB = Setup(Hull("rib", 3.6, 1.75, 110), Load(1, 80), Motor(9000))
DINGHY = Setup(Hull("rigid_dinghy", 3.2, 1.45, 65), Load(2), Motor(2000))


def sailed(p, thrust):
    """(s to 90 % of the top speed, m run) from a march in time of our own; water that moves with
    her is 8 % of her mass (5 to 10 % in surge, common practice, no source).
    """
    v, run, t, step, mass = (0.0 if thrust else p.top_speed_m_s), 0.0, 0.0, 0.01, 1.08
    while v < 0.9 * p.top_speed_m_s if thrust else v > 0.3:
        push = float(p.thrust_available_n(v)) if thrust else 0.0
        v += (push - float(p.drag_at_n(v))) / (mass * p.displacement_kg) * step
        run, t = run + v * step, t + step
    return t, run


def test_going_and_running_on_are_those_of_a_march_in_time():
    p = evaluate(DINGHY)
    result = handling(p)
    assert result.to_speed_s == pytest.approx(sailed(p, True)[0], rel=0.03)
    assert result.coasts_m == pytest.approx(sailed(p, False)[1], rel=0.03)


def test_more_power_gets_going_sooner_and_more_weight_later():
    plain = handling(evaluate(RIB))
    heavy = handling(evaluate(replace(RIB, load=Load(2, 160))))
    strong = handling(evaluate(replace(RIB, motor=Motor(12000))))
    assert 1 < strong.to_plane_s < plain.to_plane_s < plain.to_speed_s < heavy.to_speed_s < 60
    assert handling(evaluate(DINGHY)).to_plane_s is None


@pytest.mark.parametrize("setup", [RIB, DINGHY], ids=["rib", "dinghy"])
def test_half_the_thrust_to_spare_takes_longer(setup):
    harder = handling(evaluate(replace(setup, drag_factor=1.2)))
    assert harder.coasts_m < handling(evaluate(setup)).coasts_m
