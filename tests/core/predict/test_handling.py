"""Getting going and stopping against closed forms and each other."""

from dataclasses import replace

import numpy as np
import pytest

from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.handling import ADDED_MASS, SLOW_M_S, handling
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor

RIB = Setup(Hull("rib", 3.6, 1.75, 110), Load(1, 80), Motor(9000))
DINGHY = Setup(Hull("rigid_dinghy", 3.2, 1.45, 65), Load(2), Motor(2000))


def test_she_runs_on_as_mass_and_resistance_say():
    """For R = k V² a body runs on (m/k) ln(V0/V1): between that with k at both ends."""
    p = evaluate(DINGHY)
    far, mass = handling(p).coasts_m, p.displacement_kg * (1 + ADDED_MASS)
    k = [float(p.drag_at_n(v)) / v**2 for v in (p.top_speed_m_s, SLOW_M_S)]
    ends = sorted(mass / x * np.log(p.top_speed_m_s / SLOW_M_S) for x in k)
    assert ends[0] < far < ends[1]


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
