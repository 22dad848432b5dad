"""Unit factors against scipy.constants (CODATA) and NIST SP 811 (2008), Appendix B."""

import pytest
from scipy import constants as c

from jolvek.core.base import units


@pytest.mark.parametrize(
    ("quantity", "unit", "expected"),
    [
        pytest.param("length", "ft", c.foot, id="scipy foot"),
        pytest.param("length", "in", c.inch, id="scipy inch"),
        pytest.param("distance", "nm", c.nautical_mile, id="scipy nautical mile"),
        pytest.param("distance", "mi", c.mile, id="scipy mile"),
        pytest.param("speed", "kn", c.knot, id="scipy knot"),
        pytest.param("speed", "mph", c.mph, id="scipy mph"),
        pytest.param("speed", "km/h", c.kmh, id="scipy km/h"),
        pytest.param("mass", "lb", c.pound, id="scipy pound"),
        pytest.param("power", "hp", c.horsepower, id="scipy horsepower"),
        pytest.param("power", "hp", 745.6999, id="NIST SP 811 hp"),
        pytest.param("thrust", "lbf", c.pound_force, id="scipy pound-force"),
        pytest.param("thrust", "kgf", c.kilogram_force, id="scipy kgf"),
        pytest.param("thrust", "lbf", 4.448222, id="NIST SP 811 lbf"),
        pytest.param("power", "ps", 735.4988, id="NIST SP 811 metric hp"),
    ],
)
def test_factor(quantity, unit, expected):
    assert units.QUANTITIES[quantity].typed[unit] == pytest.approx(expected, rel=2e-7)
