"""Trim and heel of candidates in arrays are those of the whole setup, and where they end is a
Stop for both.
"""

from dataclasses import replace

import numpy as np
import pytest

from jolvek import demo
from jolvek.core.enquiry.site import Bay
from jolvek.core.match.lying import angles_deg
from jolvek.core.match.matching import match
from jolvek.core.match.whole import fitted_of

SHELF = demo.shelf()


@pytest.mark.parametrize("which", range(6))
def test_the_arrays_give_each_setups_own_angles(which):
    m = match(demo.enquiries()[which].need, SHELF)
    f, d = m.field, m.drives
    rows = np.linspace(0, f.price.size - 1, 25).astype(int)
    mass = m.need.hull.mass_kg + m.need.load.total_kg
    mass = mass + d.mass_kg[f.drive[rows]] + m.supplies.mass_kg[f.supply[rows]]
    args = (m.need, SHELF, d, m.supplies, f.drive[rows], f.supply[rows], mass)
    for i, trim, heel in zip(rows, *angles_deg(*args), strict=True):
        lying = fitted_of(m, int(i)).attitude
        assert trim == pytest.approx(lying.trim_asked_deg, abs=1e-6)
        assert heel == pytest.approx(lying.heel_asked_deg, abs=1e-6)


def test_batteries_far_aft_in_a_light_boat_are_neither_listed_nor_passed():
    need = demo.enquiries()[0].need
    aft = (Bay("under the stern seat", 2.0, 1.0, 0.6, None, 0.02),)
    need = replace(need, site=replace(need.site, bays=aft, max_load_kg=None))
    m = match(need, SHELF)
    mass = [fitted_of(m, i).attitude for i in range(0, m.field.price.size, 7)]
    assert mass and max(abs(a.trim_asked_deg) for a in mass) <= 8.0
    before = match(replace(need, site=replace(need.site, bays=())), SHELF)
    assert m.field.price.size < before.field.price.size
