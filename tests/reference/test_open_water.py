"""B-series polynomials (typed from memory) against momentum theory, the shape of the tank charts,
and the everyday model.
"""

import itertools

import numpy as np
import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.hydro import open_water

GRID = list(itertools.product((0.5, 0.65, 0.8, 1.0, 1.2, 1.4), (0.40, 0.55, 0.70), (3, 4, 5)))


@pytest.mark.parametrize(("pitch", "area", "blades"), GRID, ids=lambda v: f"{v:g}")
def test_no_propeller_beats_momentum_theory_and_all_stop_pushing_just_past_their_pitch(
    pitch, area, blades
):
    """Ideal efficiency 2/(1 + √(1 + 8K_T/(πJ²))), Rankine–Froude; zero thrust at J of 1.0–1.2 P/D
    (tank charts).
    """
    j = np.linspace(0.01, 1.6 * pitch, 500)
    k_t, k_q = open_water.coefficients(j, pitch, area, blades)
    push = k_t > 0
    efficiency = j * k_t / (2 * np.pi * k_q)
    ideal = 2 / (1 + np.sqrt(1 + 8 * np.maximum(k_t, 0) / (np.pi * j**2)))
    assert (efficiency[push] < ideal[push]).all()
    assert 0.40 < efficiency[push].max() < 0.80
    assert 1.0 < j[np.argmin(push)] / pitch < 1.22
    assert (np.diff(k_t[push]) < 0).all()


@pytest.mark.parametrize(
    ("pitch", "area", "blades", "k_t0", "best", "at"),
    [
        pytest.param(1.4, 0.70, 4, 0.62, 0.75, 1.2, id="B4-70 P/D 1.4, chart, from memory"),
        pytest.param(0.5, 0.70, 4, 0.20, 0.46, 0.38, id="B4-70 P/D 0.5, chart, from memory"),
        pytest.param(1.0, 0.55, 4, 0.43, 0.70, 0.85, id="B4-55 P/D 1.0, chart, from memory"),
        pytest.param(1.0, 0.75, 5, 0.47, 0.69, 0.83, id="B5-75 P/D 1.0, chart, from memory"),
    ],
)
def test_the_tank_charts(pitch, area, blades, k_t0, best, at):
    j = np.linspace(0.0, 1.1 * pitch, 300)
    k_t, k_q = open_water.coefficients(j, pitch, area, blades)
    efficiency = j * k_t / (2 * np.pi * k_q)
    assert k_t[0] == pytest.approx(k_t0, abs=0.02)
    assert efficiency.max() == pytest.approx(best, abs=0.02)
    assert j[np.argmax(efficiency)] == pytest.approx(at, abs=0.04)


def test_thrust_and_shaft_speed_are_inverse():
    for thrust, speed in ((60.0, 1.5), (300.0, 2.5), (900.0, 0.2)):
        r = open_water.run(thrust, speed, 0.28, 0.18)
        k_t, _ = open_water.coefficients(speed / (r.rev_s * 0.28), 0.18 / 0.28)
        assert float(k_t) * 1026 * float(r.rev_s) ** 2 * 0.28**4 == pytest.approx(thrust, rel=5e-3)


def test_a_larger_propeller_takes_less_power_and_a_flat_one_runs_out_of_pitch():
    v = np.linspace(0.4, 4.0, 60)
    drag = 45 * v**2.4
    small, large, flat = open_water.compare(
        v, drag, [(0.22, 0.16), (0.30, 0.16), (0.30, 0.12)], 1500.0, 19.0, 1.5
    )
    assert large.power_at_wish_w < small.power_at_wish_w
    assert flat.limited_by == "shaft speed" and flat.top_speed_m_s < large.top_speed_m_s


def test_a_pitch_ratio_the_series_does_not_hold_is_refused():
    with pytest.raises(ValueRefused, match="pitch ratio: read 2.0, allowed is 0.4 to 1.4"):
        open_water.coefficients(0.3, 2.0)
