"""Friction against the ITTC 1957 line; waves against brute quadrature (scipy) and a published curve
(from memory).
"""

import numpy as np
import pytest
from scipy.integrate import quad

from jolvek.core.hydro.friction import friction_coefficient
from jolvek.core.hydro.waves import G_M_S2, depth_factor, thin_ship_resistance_n

L, B, T = 10.0, 1.0, 0.625
RHO = 1026.0


def test_friction_line_at_ten_million():  # ITTC 1957: Re = 1e7 gives exactly 0.003
    assert float(friction_coefficient(1e7)) == pytest.approx(0.003, abs=1e-12)


def brute_force_n(speed, offsets=(0.0,), length=L, beam=B, draught=T):
    """Michell's integral with both inner integrals done numerically from the hull's surface, not in
    closed form.
    """
    k0 = G_M_S2 / speed**2
    x, wx = np.polynomial.legendre.leggauss(160)
    z, wz = np.polynomial.legendre.leggauss(48)
    x, wx = x * length / 2, wx * length / 2
    z, wz = (z + 1) * draught / 2, wz * draught / 2
    slope = beam / 2 * (-8 * x / length**2)

    def integrand(u):
        s = np.cosh(u)
        along = np.sum(wx * slope * np.exp(1j * k0 * x * s))
        down = np.sum(wz * (1 - (z / draught) ** 2) * np.exp(-k0 * z * s * s))
        bodies = abs(sum(np.exp(1j * k0 * y * s * np.sinh(u)) for y in offsets)) ** 2
        return abs(along * down) ** 2 * s * s * bodies

    pieces = [quad(integrand, a, a + 0.1, limit=120)[0] for a in np.arange(0.0, 3.6, 0.1)]
    return 4 * RHO * G_M_S2**2 / (np.pi * speed**2) * sum(pieces)


@pytest.mark.parametrize("froude", [0.25, 0.316, 0.408, 0.48, 0.6, 1.0])
@pytest.mark.parametrize("offsets", [(0.0,), (-1.6, 1.6)], ids=["one body", "two bodies"])
def test_waves_agree_with_brute_quadrature(froude, offsets):
    speed = froude * np.sqrt(G_M_S2 * L)
    ours = thin_ship_resistance_n([speed], L, B, T, offsets, RHO)[0, 0]
    assert ours == pytest.approx(brute_force_n(speed, offsets), rel=5e-3)


@pytest.mark.parametrize(
    ("froude", "published"), [(0.316, 0.0018), (0.408, 0.0030), (0.48, 0.0045)]
)
def test_waves_agree_with_the_published_thin_ship_curve(
    froude, published
):  # from memory, wetted surface 0.1487 L²
    speed = froude * np.sqrt(G_M_S2 * L)
    coefficient = thin_ship_resistance_n([speed], L, B, T)[0, 0] / (
        0.5 * RHO * 0.1487 * L**2 * speed**2
    )
    assert coefficient == pytest.approx(published, rel=0.03)


# limiting cases of the theory
def test_two_bodies_far_apart_make_twice_the_waves_and_close_together_four_times():
    speed = 0.4 * np.sqrt(G_M_S2 * L)
    one = thin_ship_resistance_n([speed], L, B, T)[0, 0]
    assert thin_ship_resistance_n([speed], L, B, T, (0.0, 0.0))[0, 0] == pytest.approx(
        4 * one, rel=1e-9
    )
    spread = np.mean(
        [thin_ship_resistance_n([speed], L, B, T, (-y, y))[0, 0] for y in np.linspace(40, 60, 41)]
    )
    assert spread == pytest.approx(2 * one, rel=0.05)


@pytest.mark.parametrize("q", [0.0, 1e-6, 0.05, 0.149, 0.151, 1.0, 30.0])
def test_depth_factor_against_quadrature(q):
    expected = quad(lambda t: (1 - t * t) * np.exp(-q * t), 0, 1)[0]
    assert float(depth_factor(np.array([q]))[0]) == pytest.approx(expected, rel=1e-6)


def test_a_trimarans_small_amas_make_few_waves_of_their_own():
    """Amas of nothing leave the main hull's waves; three like bodies in one make nine times one."""
    speed, y = 0.4 * np.sqrt(G_M_S2 * L), (-1.5, 0.0, 1.5)
    one = thin_ship_resistance_n([speed], L, B, T)[0, 0]
    nothing = ((0.75, 1e-4, 1e-4), (1.0, 1.0, 1.0), (0.75, 1e-4, 1e-4))
    assert thin_ship_resistance_n([speed], L, B, T, y, unlike=nothing)[0, 0] == pytest.approx(
        one, rel=1e-3
    )
    same = ((1.0, 1.0, 1.0),) * 3
    together = thin_ship_resistance_n([speed], L, B, T, (0.0, 0.0, 0.0), unlike=same)[0, 0]
    assert together == pytest.approx(9 * one, rel=1e-9)


def test_a_shorter_body_alone_is_the_body_of_that_length():
    speed = 0.45 * np.sqrt(G_M_S2 * L)
    alone = thin_ship_resistance_n([speed], 0.75 * L, 0.5 * B, 0.6 * T)[0, 0]
    unlike = thin_ship_resistance_n([speed], L, B, T, (0.0,), unlike=((0.75, 0.5, 0.6),))[0, 0]
    assert unlike == pytest.approx(alone, rel=1e-9)
