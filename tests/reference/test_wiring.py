"""Wires against ASTM B258, IEC 60228, 33 CFR 183.425 Table 5 (tables from memory); netlists walked
terminal by terminal.
"""

import itertools

import numpy as np
import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.electric import netlist, wire_sizes
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.netlist import Loads12V, Plan
from jolvek.core.electric.network import (
    check_wiring,
    drop_to_motor_v,
    motor_voltage_v,
    path_m,
    string_currents_a,
)
from jolvek.core.electric.wiring import install

CABLES = list(itertools.product((10.0, 47.0, 105.0, 210.0), (1.0, 4.0, 12.0), (12.0, 24.0, 48.0)))
BANKS = list(itertools.product((1, 2, 3, 4), (1, 2, 3, 4)))


@pytest.mark.parametrize(
    ("gauge", "diameter_mm"),
    [  # ASTM B258 table of diameters
        (0, 8.251),
        (2, 6.544),
        (4, 5.189),
        (6, 4.115),
        (8, 3.264),
        (10, 2.588),
        (12, 2.053),
        (14, 1.628),
        (16, 1.291),
        (18, 1.024),
    ],
)
def test_american_gauges_are_those_of_astm_b258(gauge, diameter_mm):
    assert wire_sizes.awg_area_mm2(gauge) == pytest.approx(np.pi / 4 * diameter_mm**2, rel=1e-3)


@pytest.mark.parametrize(
    ("gauge", "amps"),
    [  # 33 CFR 183.425 Table 5, 105 °C column, from memory
        (18, 20),
        (16, 25),
        (14, 35),
        (12, 45),
        (10, 60),
        (8, 80),
        (6, 120),
        (4, 160),
        (3, 180),
        (2, 210),
        (1, 245),
        (0, 285),
        (-1, 330),
        (-2, 385),
        (-3, 445),
    ],
)
def test_allowed_amps_are_those_of_the_american_table(gauge, amps):
    assert dict(wire_sizes.AWG_105C_A)[gauge] == amps


@pytest.mark.parametrize("size", [s for s, _ in wire_sizes.ISO_105C_A])
def test_the_two_tables_agree_for_about_the_same_copper(size):
    """ISO 10133 and 33 CFR 183.425 name about the same amps for the same area: within a fifth (both
    from memory).
    """
    areas = [wire_sizes.awg_area_mm2(g) for g, _ in reversed(wire_sizes.AWG_105C_A)][::-1]
    amps = [a for _, a in wire_sizes.AWG_105C_A]
    if areas[0] <= size <= areas[-1]:
        assert wire_sizes.allowed_a(size) == pytest.approx(np.interp(size, areas, amps), rel=0.2)


@pytest.mark.parametrize(
    ("size", "ohm_km"), [(1.5, 13.3), (2.5, 7.98), (10, 1.91), (16, 1.21), (35, 0.554), (95, 0.206)]
)
def test_the_drop_is_that_of_iec_60228(size, ohm_km):  # class 5 conductors, 20 °C
    assert wire_sizes.drop_v(size, 50.0, 6.0, 20.0) == pytest.approx(ohm_km / 1000 * 6.0 * 50.0)


@pytest.mark.parametrize(("amps", "metres", "volts"), CABLES)
def test_the_chosen_cable_is_the_smallest_that_carries_and_keeps_the_drop(amps, metres, volts):
    c = wire_sizes.cable(amps, metres, volts)
    assert c.allowed_a >= amps and c.drop <= 0.03
    smaller = [s for s, _ in wire_sizes.ISO_105C_A if s < c.size_mm2]
    if smaller and c.runs == 1:
        s = smaller[-1]
        assert wire_sizes.allowed_a(s) < amps or wire_sizes.drop_v(s, amps, metres) > 0.03 * volts


def test_an_engine_space_takes_a_larger_cable():
    assert (
        wire_sizes.cable(125.0, 1.0, 48.0, engine_space=True).size_mm2
        > wire_sizes.cable(125.0, 1.0, 48.0).size_mm2
    )


def test_a_current_no_cable_carries_is_refused_with_what_to_do():
    with pytest.raises(ValueRefused, match="raise the voltage"):
        wire_sizes.cable(4000.0, 20.0, 12.0)


@pytest.mark.parametrize(("series", "parallel"), BANKS)
@pytest.mark.parametrize("take_off", ["diagonal", "bars"])
def test_any_bank_is_electrically_right(series, parallel, take_off):
    bank = Bank(Battery("lfp", 12.8, 100), series, parallel)
    n = install(bank, 40.0 * bank.nominal_v, Plan(take_off=take_off))
    assert motor_voltage_v(n) == pytest.approx(12.8 * series)
    assert [p.kind for p in n.parts].count("pack") == series * parallel
    fuses = [p.kind for p in n.parts].count("fuse")
    assert fuses == parallel + (parallel > 1)  # behind joined strings one for the main cable
    lengths = [path_m(n, i) for i in range(1, parallel + 1)]
    assert np.ptp(lengths) == pytest.approx(0, abs=1e-9)
    amps = string_currents_a(n)
    assert amps.sum() == pytest.approx(n.motor_a)
    assert np.abs(amps / amps.mean() - 1).max() < 0.12
    used = {part for w in n.wires for part, _ in (w.a, w.b)}
    assert used == {p.id for p in n.parts}


def test_taking_both_poles_from_one_end_overworks_the_first_string():
    bank = Bank(Battery("lfp", 12.8, 100), 1, 4)
    amps = {
        how: string_currents_a(install(bank, 1500.0, Plan(take_off=how)))
        for how in ("one end", "diagonal", "bars")
    }
    assert amps["one end"][0] == amps["one end"].max() > 1.1 * amps["one end"].min()
    assert np.ptp(amps["bars"]) < 1e-6 < np.ptp(amps["diagonal"]) < np.ptp(amps["one end"])


def test_the_motor_circuit_keeps_three_per_cent():
    for watts in (600.0, 1200.0, 2400.0):
        n = install(Bank(Battery("lfp", 25.6, 100), 1, 2), watts, Plan(run_m=4.0))
        assert drop_to_motor_v(n) <= 0.03 * 25.6 + 1e-9


def test_twelve_volts_from_the_end_battery_is_told_in_ah_and_a_converter_is_not():
    bank = Bank(Battery("agm", 12, 100), 4)
    loads = [Loads12V(3.0, 5.0, school) for school in netlist.SCHOOLS_12V]
    found = {x.school: check_wiring(install(bank, 2000.0, Plan(loads=x))) for x in loads}
    assert [f.rule for f in found["end taps"]] == ["twelve-volt-tap"] and "15.0 Ah" in found[
        "end taps"
    ][0].text
    assert not found["converter"] and not found["own battery"]


def test_fuses_sit_within_180_mm_and_over_the_current_under_the_cable():
    n = install(Bank(Battery("lfp", 25.6, 50), 1, 2), 1200.0)
    for f in n.fuses.values():
        assert (
            f.within_m <= 0.18
            and f.rating_a >= n.motor_a / 2
            and f.fits_cable
            and f.must_break_a > 500
        )


def test_a_multi_bank_charger_has_a_pair_of_leads_for_every_pack():
    n = install(
        Bank(Battery("agm", 12, 100), 4),
        2000.0,
        Plan(charger_a=10, charger_outputs=4, charger_way="each"),
    )
    assert sum("charger" in (w.a[0], w.b[0]) for w in n.wires) == 8
    fed = {w.b for w in n.wires if w.a[0].startswith("fuse-charge")}
    plus = {(f"pack-1-{k}", "+") for k in (1, 2, 3, 4)}
    assert fed == plus | {(f"pack-1-{k}", "-") for k in (2, 3, 4)}  # above the lowest, both poles


@pytest.mark.parametrize("school", netlist.SCHOOLS_12V)
@pytest.mark.parametrize(("series", "parallel"), [(1, 1), (2, 2), (4, 3)])
def test_no_thin_plus_cable_hangs_unfused_on_the_bank(series, parallel, school):
    """33 CFR 183.455 and ISO 10133 as in use: every ungrounded conductor is protected at its
    source; from memory.
    """
    n = install(
        Bank(Battery("lfp", 12.8, 100), series, parallel),
        1500.0,
        Plan(charger_a=20, loads=Loads12V(5.0, 4.0, school)),
    )
    for w in n.wires:
        if w.role not in ("charge", "load") or w.a[0] in ("shunt",) or "-" in w.a[1] + w.b[1]:
            continue
        ends = {w.a[0], w.b[0]}
        assert any(
            e.startswith("fuse-") and e not in ("fuse-1", "fuse-2", "fuse-3") for e in ends
        ), w
        assert all(
            w.length_m <= 0.18
            for e in ends
            if e.startswith(("pack", "bar")) or e in ("fuse-1", "fuse-2", "fuse-3")
        )
    assert not {f.rule for f in check_wiring(n)} & {"fuse-cable"} and all(
        f.fits_cable for f in n.fuses.values()
    )


@pytest.mark.parametrize("engine_space", [False, True])
@pytest.mark.parametrize("amps", [2.0, 5.0, 12.0, 30.0, 45.0, 60.0])
def test_a_charger_of_any_size_has_a_fuse_its_cable_allows(amps, engine_space):
    n = install(
        Bank(Battery("lfp", 25.6, 100), 1, 2),
        1500.0,
        Plan(charger_a=amps, engine_space=engine_space),
    )
    assert n.fuses["fuse-charge"].fits_cable and n.fuses["fuse-charge"].rating_a >= 1.25 * amps


def test_the_monitor_counts_every_ampere():
    n = install(
        Bank(Battery("lfp", 12.8, 100), 2, 2), 1500.0, Plan(charger_a=20, loads=Loads12V(5.0))
    )
    minus = [
        w
        for w in n.wires
        if w.role in ("charge", "load")
        and any("-" in pole for _, pole in (w.a, w.b))
        and not {"converter", "load"} == {w.a[0], w.b[0]}
    ]
    assert len(minus) == 2 and all(("shunt", "L") in (w.a, w.b) for w in minus)


def test_an_unknown_take_off_is_refused():
    with pytest.raises(ValueRefused, match="diagonal, bars, one end"):
        Plan(take_off="star")
