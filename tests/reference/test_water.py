"""Water against TEOS-10 (package gsw) and the ITTC 7.5-02-01-03 table (typed from memory)."""

import gsw
import pytest

from jolvek.core.hydro import water


@pytest.mark.parametrize("celsius", [0.0, 5.0, 10.0, 15.0, 20.0, 30.0])
@pytest.mark.parametrize("salinity", [0.0, 0.02, 0.035])
def test_density_is_that_of_teos_10(celsius, salinity):
    expected = gsw.rho_t_exact(salinity * 1000, celsius, 0.0)
    assert water.density_kg_m3(celsius, salinity) == pytest.approx(expected, rel=4e-4)


@pytest.mark.parametrize(
    ("celsius", "salinity", "expected"),
    [
        pytest.param(15.0, 0.0, 1.1386e-6, id="ITTC fresh 15 °C"),
        pytest.param(15.0, 0.035, 1.1892e-6, id="ITTC salt 15 °C"),
        pytest.param(20.0, 0.0, 1.0034e-6, id="ITTC fresh 20 °C"),
        pytest.param(10.0, 0.035, 1.3604e-6, id="ITTC salt 10 °C"),
    ],
)
def test_viscosity_is_that_of_the_ittc_table(celsius, salinity, expected):
    assert water.viscosity_m2_s(celsius, salinity) == pytest.approx(expected, rel=3e-3)


def test_unknown_water_is_refused():
    with pytest.raises(water.ValueRefused, match="salt or fresh"):
        water.Water("brackish")
