"""How boats float against navaltoolbox on meshes of plain shapes (values kept here, made by
scripts/hydrostatics_reference.py), at loads they were not fitted to; a tube against its own
formula; facts of the trade.
"""

import numpy as np
import pytest

from jolvek.core.fit.trim import Weight, attitude, crew
from jolvek.core.hydro.floating import float_at, level_m
from jolvek.core.hydro.hull import Hull, Load

# (family, length m, beam m of the body, kg, T m, A m², S m², KB m, I_T m⁴, I_L m⁴, LCB m)
# fmt: off
STATES = [
    ("kayak", 3.7, 0.78, 91, 0.06453, 1.623, 1.828, 0.03564, 0.04062, 1.101, 1.838),
    ("kayak", 3.7, 0.78, 162, 0.1062, 1.711, 2.158, 0.05761, 0.04733, 1.166, 1.828),
    ("kayak", 3.7, 0.78, 208, 0.1319, 1.749, 2.357, 0.07106, 0.05055, 1.194, 1.825),
    ("canoe", 4.8, 0.92, 147, 0.07332, 2.389, 2.648, 0.04115, 0.07738, 2.712, 2.391),
    ("canoe", 4.8, 0.92, 262, 0.1188, 2.547, 3.124, 0.06542, 0.09317, 2.913, 2.375),
    ("canoe", 4.8, 0.92, 336, 0.1465, 2.618, 3.406, 0.08014, 0.1009, 2.999, 2.371),
    ("board", 3.3, 0.82, 77, 0.05322, 1.708, 1.825, 0.02978, 0.05242, 1.038, 1.537),
    ("board", 3.3, 0.82, 138, 0.08667, 1.81, 2.083, 0.04753, 0.06202, 1.107, 1.532),
    ("board", 3.3, 0.82, 176, 0.1072, 1.855, 2.235, 0.05834, 0.06667, 1.137, 1.531),
    ("sailing_dinghy", 4.3, 1.65, 210, 0.09972, 3.159, 3.302, 0.06115, 0.1958, 3.249, 2.018),
    ("sailing_dinghy", 4.3, 1.65, 375, 0.1469, 3.623, 3.959, 0.08874, 0.2844, 3.892, 1.97),
    ("sailing_dinghy", 4.3, 1.65, 480, 0.1744, 3.832, 4.302, 0.1045, 0.3337, 4.158, 1.955),
    ("rigid_dinghy", 3.2, 1.45, 175, 0.09988, 3.042, 3.212, 0.06625, 0.3296, 1.739, 1.23),
    ("rigid_dinghy", 3.2, 1.45, 312, 0.1428, 3.184, 3.59, 0.09057, 0.3549, 1.939, 1.263),
    ("rigid_dinghy", 3.2, 1.45, 400, 0.1694, 3.248, 3.81, 0.1049, 0.3695, 2.021, 1.276),
    ("inflatable_soft", 2.9, 1.5, 154, 0.07696, 2.946, 3.376, 0.04807, 0.4894, 1.25, 1.061),
    ("inflatable_soft", 2.9, 1.5, 275, 0.1139, 3.415, 4.216, 0.06912, 0.5892, 1.592, 1.101),
    ("inflatable_soft", 2.9, 1.5, 352, 0.1355, 3.548, 4.498, 0.0813, 0.6212, 1.74, 1.12),
    ("inflatable_air", 2.9, 1.55, 161, 0.08353, 2.948, 3.341, 0.05282, 0.5088, 1.254, 1.063),
    ("inflatable_air", 2.9, 1.55, 288, 0.122, 3.442, 4.209, 0.07501, 0.624, 1.609, 1.102),
    ("inflatable_air", 2.9, 1.55, 368, 0.1441, 3.639, 4.61, 0.08772, 0.6711, 1.782, 1.121),
    ("rib", 3.6, 1.75, 231, 0.1379, 3.778, 4.178, 0.0976, 0.7783, 2.481, 1.333),
    ("rib", 3.6, 1.75, 412, 0.18, 4.597, 5.418, 0.1249, 1.037, 3.305, 1.375),
    ("rib", 3.6, 1.75, 528, 0.2036, 4.972, 6.087, 0.1396, 1.148, 3.73, 1.396),
    ("flat_bottom", 4.3, 1.6, 245, 0.05915, 4.835, 5.152, 0.03336, 0.7026, 5.289, 1.694),
    ("flat_bottom", 4.3, 1.6, 438, 0.09699, 5.064, 5.652, 0.0531, 0.7487, 5.923, 1.757),
    ("flat_bottom", 4.3, 1.6, 560, 0.1203, 5.167, 5.928, 0.06526, 0.7741, 6.189, 1.783),
    ("skiff", 4.3, 1.35, 168, 0.06542, 3.743, 3.937, 0.04155, 0.3527, 3.73, 1.607),
    ("skiff", 4.3, 1.35, 300, 0.09904, 3.9, 4.319, 0.0595, 0.3757, 4.136, 1.654),
    ("skiff", 4.3, 1.35, 384, 0.1198, 3.975, 4.539, 0.07043, 0.3895, 4.312, 1.673),
    ("cabin", 6.5, 2.3, 1260, 0.2468, 7.444, 8.32, 0.1497, 1.092, 18.03, 3.064),
    ("cabin", 6.5, 2.3, 2250, 0.368, 8.414, 10.34, 0.2196, 1.536, 21.04, 2.979),
    ("cabin", 6.5, 2.3, 2880, 0.4391, 8.847, 11.47, 0.2599, 1.775, 22.3, 2.952),
    ("keelboat", 7.5, 2.5, 1960, 0.3578, 8.388, 9.823, 0.2198, 1.375, 23.05, 3.746),
    ("keelboat", 7.5, 2.5, 3500, 0.5199, 9.973, 12.91, 0.3172, 2.053, 30.84, 3.632),
    ("keelboat", 7.5, 2.5, 4480, 0.6127, 10.62, 14.56, 0.3718, 2.434, 33.4, 3.589),
    ("multihull", 6.7, 0.55, 332, 0.2473, 1.816, 3.895, 0.1461, 0.01532, 4.549, 3.169),
    ("multihull", 6.7, 0.55, 594, 0.378, 2.066, 5.688, 0.22, 0.02229, 5.23, 3.134),
    ("multihull", 6.7, 0.55, 760, 0.4543, 2.182, 6.732, 0.263, 0.02619, 5.541, 3.123),
]
# fmt: on


def of(family, length, beam):
    """One body of that size; two of them, far apart, for a multihull."""
    if family == "multihull":
        return Hull(family, length, 4.2, 650, body_beam_m=beam)
    return Hull(family, length, beam, 50)


@pytest.mark.parametrize("row", STATES, ids=lambda r: f"{r[0]}-{r[3]}")
def test_draught_waterplane_wetted_surface_and_both_metacentres_within_a_tenth(row):
    family, length, beam, mass, t, a, s, kb, i_t, i_l, lcb = row
    hull = of(family, length, beam)
    n, volume = hull.body_count, mass / 1026.0
    f = float_at(hull, n * mass)
    assert float(f.draught_m) == pytest.approx(t, rel=0.1)
    assert float(f.waterplane_m2) / n == pytest.approx(a, rel=0.1)
    assert float(f.wetted_m2) / n == pytest.approx(s, rel=0.1)
    across, along = (float(z) for z in f.metacentres_m)
    assert along == pytest.approx(kb + i_l / volume, rel=0.1)
    if n == 1:
        assert across == pytest.approx(kb + i_t / volume, rel=0.1)
    assert level_m(hull) + hull.fam.tube_overhang * length == pytest.approx(lcb, rel=0.1)


@pytest.mark.parametrize("share", [0.2, 0.5, 0.8])
def test_a_pontoon_lies_as_two_round_tubes(share):
    """The segment of a circle by its own integral: half the depth is half the volume."""
    hull = Hull("pontoon", 6.0, 2.5, 700)
    r = hull.body_waterline_beam_m / 2
    z = np.linspace(0, 2 * r * share, 20001)
    half = np.sqrt(np.maximum(r * r - (z - r) ** 2, 0.0))
    area = np.trapezoid(2 * half, z)
    f = float_at(hull, 2 * 1026.0 * area * 0.93 * 6.0)
    assert float(f.draught_m) == pytest.approx(2 * r * share, rel=2e-3)
    assert float(f.waterplane_m2) == pytest.approx(4 * half[-1] * 0.93 * 6.0, rel=5e-3)
    assert float(f.kb_m) == pytest.approx(np.trapezoid(2 * half * z, z) / area, rel=5e-3)


def test_an_adult_off_the_middle_of_an_inflatable_heels_her_a_few_degrees():
    """2.9 m, 0.3 m off: 1.5 to 4° (mesh 1.6°, voxels with shaped ends 2.7°); common practice."""
    hull = Hull("inflatable_soft", 2.9, 1.5, 32)
    weights = [Weight("adult", 80, 1.0, 0.3, 0.55), Weight("motor", 18, -0.05, 0.0, 0.4)]
    assert 1.5 < attitude(hull, weights).heel_deg < 4


def test_a_small_motor_does_not_tip_a_small_tender():
    """A 2.35 m tender with a 9 kg motor lies within a degree or two; common practice."""
    hull = Hull("inflatable_soft", 2.35, 1.35, 22)
    a = attitude(hull, [*crew(hull, Load(1, 80)), Weight("motor", 9, -0.05, 0.1, 0.4)])
    assert abs(a.heel_deg) < 1


def test_a_helm_at_the_tiller_squats_a_passenger_amidships_does_not():
    """Two to three degrees at the tiller, about level amidships; common practice, no source."""
    hull = Hull("inflatable_soft", 2.9, 1.5, 32)
    kit = [Weight("motor", 18, -0.05, 0.0, 0.4), Weight("battery", 15, 0.35, 0.0, 0.2)]
    helm = attitude(hull, [*kit, Weight("helm", 80, 0.4, 0, 0.6)])
    both = attitude(hull, [*kit, Weight("helm", 80, 0.4, 0, 0.6), Weight("two", 80, 1.1, 0, 0.5)])
    level = attitude(hull, [*kit, Weight("two amidships", 160, 1.0, 0, 0.5)])
    assert helm.trim_deg > both.trim_deg > 0.5 and 2 < helm.trim_deg < 5
    assert abs(level.trim_deg) < 1
