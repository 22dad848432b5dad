"""Trim and heel against meshes that the shapes were not fitted to (values kept here, made by
scripts/attitude_reference.py, which uses no part of Jolvek).
"""

import numpy as np
import pytest

from jolvek.core.fit.level import lies, water_aboard_deg
from jolvek.core.hydro.floating import level_m
from jolvek.core.hydro.hull import Hull

# (boat, family, length m, beam m, kg, trim in degrees with 80 kg moved 0.5 and 1 m aft, heel with
# them 0.15 and 0.3 m to the side)
# fmt: off
BOATS = [
    ("small dinghy", "rigid_dinghy", 2.8, 1.4, 230, 2.00, 4.46, 3.04, 6.48),
    ("RIB", "rib", 4.2, 1.95, 480, 0.42, 0.93, 0.58, 1.06),
    ("air floor", "inflatable_air", 3.4, 1.65, 270, 0.98, 2.09, 0.91, 1.84),
    ("flat bottom", "flat_bottom", 3.6, 1.4, 280, 0.84, 1.75, 2.02, 4.01),
    ("skiff", "skiff", 4.9, 1.5, 320, 0.31, 0.68, 1.33, 2.55),
    ("kayak", "kayak", 4.4, 0.66, 120, 1.46, 3.23, 36.22, 74.37),
    ("canoe", "canoe", 5.2, 0.88, 230, 0.67, 1.35, 17.55, 38.86),
    ("sailing dinghy", "sailing_dinghy", 3.8, 1.5, 240, 0.94, 1.92, 5.43, 11.09),
]
# fmt: on
HEIGHT_M = {"kayak": 0.15, "canoe": 0.25}


def lying(family, length, beam, kg, aft_m=0.0, aside_m=0.0):
    hull = Hull(family, length, beam, 0.3 * kg)
    ahead = level_m(hull) - 80 * aft_m / kg
    return lies(hull, kg, ahead, np.array(80 * aside_m / kg), HEIGHT_M.get(family, 0.35), 1026.0)


@pytest.mark.parametrize("row", BOATS, ids=lambda r: r[0])
def test_eighty_kilograms_moved_aft_trim_her_as_the_mesh(row):
    _, family, length, beam, kg, half, whole, *_ = row
    for aft_m, trim in ((0.5, half), (1.0, whole)):
        found = float(lying(family, length, beam, kg, aft_m=aft_m).trim_deg)
        assert found == pytest.approx(trim, rel=0.1, abs=0.06)


@pytest.mark.parametrize("row", BOATS, ids=lambda r: r[0])
def test_eighty_kilograms_moved_aside_heel_her_as_the_mesh(row):
    _, family, length, beam, kg, _, _, near, far = row
    close = 0.2 if family in HEIGHT_M else 0.13  # narrow, round and tender: less is known
    for aside_m, heel in ((0.15, near), (0.3, far)):
        if heel > 30:
            continue  # past what the formula is for
        found = float(lying(family, length, beam, kg, aside_m=aside_m).heel_deg)
        assert found == pytest.approx(heel, rel=close, abs=0.12)


def test_water_comes_over_the_side_where_the_rail_meets_it():
    """Freeboard over half the beam is the tangent of the angle: geometry."""
    hull = Hull("rigid_dinghy", 3.2, 1.45, 65)
    light, deep = (water_aboard_deg(hull, kg, 1026.0) for kg in (180.0, 420.0))
    assert 20 < deep < light < 40
    assert water_aboard_deg(Hull("kayak", 3.7, 0.78, 34), 130.0, 1026.0) is None
