"""12 V loads never hang on more than they are made for, whatever the bank and the school."""

import pytest

from jolvek import demo
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.netlist import MOST_12V, SCHOOLS_12V, Loads12V, Plan, fed_by
from jolvek.core.electric.wiring import install

PACKS = [item.spec for item in demo.shelf().batteries]


@pytest.mark.parametrize("school", SCHOOLS_12V)
def test_no_load_stands_across_more_than_fifteen_volts(school):
    ways = set()
    for pack in PACKS:
        for series, parallel in ((1, 1), (2, 1), (4, 1), (2, 2)):
            bank = Bank(pack, series, parallel)
            n = install(
                bank, 0.3 * bank.nominal_v * bank.continuous_a, Plan(loads=Loads12V(4, 4, school))
            )
            into = {w.a[0] for w in n.wires if w.b[0] == "fuse-load"} | {
                w.b for w in n.wires if w.a == ("fuse-load", "2")
            }
            way = fed_by(bank, n.plan.loads)
            ways.add(way)
            if ("fuse-1", "2") in into:
                assert way == "direct" and bank.charge_v <= MOST_12V
            if ("pack-1-1", "+") in into:
                assert way == "end taps" and pack.charge_v <= MOST_12V
            if way == "converter":
                assert ("converter", "out+") in into
    assert school in ways and "direct" in ways


@pytest.mark.parametrize(
    ("pack", "series", "school", "way"),
    [
        (Battery("lfp", 12.8, 100), 1, "converter", "direct"),  # 14.6 V when full
        (Battery("nmc", 14.8, 100), 1, "converter", "converter"),  # 16.8 V when full
        (Battery("agm", 12, 100), 2, "end taps", "end taps"),
        (Battery("lfp", 25.6, 100), 1, "end taps", "converter"),
        (Battery("lfp", 25.6, 100), 2, "end taps", "converter"),
        (Battery("lfp", 25.6, 100), 2, "own battery", "own battery"),
    ],
)
def test_how_they_are_fed(pack, series, school, way):
    assert fed_by(Bank(pack, series), Loads12V(3, 4, school)) == way
