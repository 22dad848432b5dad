"""The panels' own chain on every bank: fused at both ends, thick enough, home to one minus."""

import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.compass import clear_m
from jolvek.core.electric.netlist import Loads12V, Plan
from jolvek.core.electric.wire_sizes import FUSE_WITHIN_M
from jolvek.core.electric.wiring import PANEL_V, install

PACK = Battery("lfp", 12.8, 100, 11.4, 100)
LAYOUTS = [(1, 1), (2, 1), (4, 1), (2, 2), (4, 2)]


def wired(series, parallel, watts=400.0, **more):
    bank = Bank(PACK, series, parallel)
    return install(bank, 0.4 * bank.nominal_v * 100, Plan(solar_w=watts, **more))


def sun(n):
    return [w for w in n.wires if w.role == "sun"]


@pytest.mark.parametrize(("series", "parallel"), LAYOUTS)
@pytest.mark.parametrize("shunt", [True, False])
def test_panel_fuse_controller_fuse_bank(series, parallel, shunt):
    n = wired(series, parallel, shunt=shunt)
    follows = {w.a: w.b for w in sun(n)}
    assert follows["sun", "in+"] == ("fuse-panel", "1")
    assert follows["fuse-panel", "2"] == ("panel", "+")
    assert follows["sun", "out+"] == ("fuse-sun", "1")
    assert follows["fuse-sun", "2"] == ("fuse-1", "2")
    home = "shunt" if shunt else "minus-bar"
    assert follows["panel", "-"] == ("sun", "in-") and follows["sun", "out-"] == (home, "L")


@pytest.mark.parametrize(("series", "parallel"), LAYOUTS)
@pytest.mark.parametrize("watts", [50.0, 400.0, 1200.0])
def test_each_cable_of_the_sun_carries_what_its_fuse_lets_through(series, parallel, watts):
    n = wired(series, parallel, watts)
    for name, amps in (
        ("fuse-panel", watts / PANEL_V),
        ("fuse-sun", watts / (0.9 * n.bank.nominal_v)),
    ):
        fuse = n.fuses[name]
        assert fuse.fits_cable and fuse.rating_a >= 1.25 * amps - 1e-9
        ends = [w for w in sun(n) if name in (w.a[0], w.b[0])]
        assert len(ends) == 2 and min(w.length_m for w in ends) <= FUSE_WITHIN_M
        assert all(w.size.allowed_a >= fuse.rating_a * (1 - 1e-9) for w in ends)
        assert fuse.volts_v >= n.bank.charge_v


def test_the_controller_is_told_its_amps_its_programme_and_its_end():
    n = wired(2, 1)
    told = n.part("sun").caution
    assert "17 A at 26 V" in told and "Lithium iron phosphate" in told and "29.2 V" in told


def test_no_panels_no_chain_and_nonsense_is_refused():
    n = wired(1, 1, 0.0)
    assert sun(n) == [] and "fuse-sun" not in n.fuses
    with pytest.raises(ValueRefused, match="solar_w"):
        Plan(solar_w=-5.0)


@pytest.mark.parametrize(
    ("more", "bar"),
    [
        ({}, False),
        ({"charger_a": 20.0}, True),
        ({"charger_a": 20.0, "charger_way": "turn"}, False),
        ({"loads": Loads12V(3, 4)}, True),
        ({"solar_w": 100.0}, True),
        ({"charger_a": 20.0, "shunt": True}, False),
    ],
)
def test_minus_comes_home_to_one_bar_where_more_than_the_motor_does(more, bar):
    bank = Bank(PACK, 2)
    n = install(bank, 1000.0, Plan(**{"shunt": False, **more}))
    assert ("minus-bar" in {p.id for p in n.parts}) == bar
    on_pack = [w for w in n.wires if ("pack-1-1", "-") in (w.a, w.b)]
    assert len(on_pack) == 1, "one cable on the battery's own pole"


# B = μ0 I d / (2π r²) for two opposite currents d apart (Biot–Savart, any physics textbook)
@pytest.mark.parametrize(("amps", "mm2"), [(60, 16), (100, 35), (20, 6)])
def test_the_compass_is_turned_by_a_degree_where_the_field_says_so(amps, mm2):
    r = clear_m(amps, mm2)
    width = 2 * 2 * (mm2 / 3.141592653589793) ** 0.5 / 1000
    field = 4e-7 * 3.141592653589793 * amps * width / (2 * 3.141592653589793 * r * r)
    assert field == pytest.approx(18e-6 * 0.017455, rel=1e-3)
    assert clear_m(4 * amps, mm2) == pytest.approx(2 * r)
