"""Every bank that the matcher makes from the demo shelf with every charger that serves it: volts
across each charge lead, and a fuse at each source. 33 CFR 183.455 and ISO 13297 as in use, from
memory.
"""

import itertools

import pytest

from jolvek import demo
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger, matches
from jolvek.core.electric.netlist import Plan
from jolvek.core.electric.wire_sizes import FUSE_WITHIN_M
from jolvek.core.electric.wiring import install

SHELF = demo.shelf()
LAYOUTS = [(s, p) for s in range(1, 9) for p in range(1, 5) if s * p <= 8]
BANKS = [
    Bank(item.spec, s, p)
    for item, (s, p) in itertools.product(SHELF.batteries, LAYOUTS)
    if s * item.spec.charge_v <= 60
]
SERVED = [
    (bank, c.spec, way)
    for bank, c in itertools.product(BANKS, SHELF.chargers)
    if (way := matches(bank, c.spec))
]


def wired(bank, charger, way):
    plan = Plan(charger_a=charger.current_a, charger_outputs=charger.outputs, charger_way=way)
    return install(bank, 0.4 * bank.nominal_v * bank.continuous_a, plan)


def rise_v(n, terminal):
    """Open-circuit volts of a terminal above the bank's minus, by its place in the string."""
    part, pole = terminal
    if part.startswith("pack"):
        place = int(part.split("-")[2])
        return (place if pole == "+" else place - 1) * n.bank.battery.charge_v
    on_minus = part in ("shunt", "minus-bar", "bar-minus") or pole == "-"
    return 0.0 if on_minus else n.bank.charge_v


def lead_ends(n):
    """Charger output → the volts of its plus and minus ends at the bank."""
    behind = {w.a[0]: w.b for w in n.wires if w.a[0].startswith("fuse-charge")}
    ends = {}
    for w in n.wires:
        if w.a[0] == "charger":
            end = behind.get(w.b[0], w.b)
            ends.setdefault(w.a[1][:-1], {})[w.a[1][-1]] = rise_v(n, end)
    return ends


def test_no_charger_stands_across_more_volts_than_it_gives():
    ways = set()
    for bank, charger, way in SERVED:
        n, gives = wired(bank, charger, way), charger.charge_voltage_v or 1.25 * charger.voltage_v
        ends = lead_ends(n)
        ways.add(way)
        assert bool(ends) == (way != "turn")
        for end in ends.values():
            across = end["+"] - end["-"]
            assert (
                0.9 * charger.voltage_v
                <= across
                <= max(gives, across if way == "" else gives) + 0.7
            )
        if way == "each":
            assert len(ends) == bank.packs <= charger.outputs
    assert ways == {"bank", "each", "turn"}


def test_every_charge_lead_is_fused_at_each_pole_that_can_feed_it():
    for bank, charger, way in SERVED:
        n = wired(bank, charger, way)
        for w in n.wires:
            if w.role != "charge" or "charger" in w.a:
                continue
            assert w.length_m <= FUSE_WITHIN_M and w.a[0] in n.fuses
        for w in n.wires:
            if w.a[0] == "charger" and not w.b[0].startswith("fuse-"):
                assert rise_v(n, w.b) == 0.0  # only the bank's own minus needs none


@pytest.mark.parametrize(
    ("pack", "charger", "way"),
    [
        (("nmc", 48.1, 50), (48, 10, 58.8), ""),  # 14-cell charger on 13 cells
        (("nmc", 51.8, 50), (48, 10, 58.8), "bank"),
        (("lfp", 51.2, 50), (48, 10, 58.4), "bank"),
        (("lfp", 51.2, 50), (48, 10, 54.0), ""),
        (("lfp", 51.2, 50), (48, 10, None), "bank"),  # not stated: by the label, with a caution
    ],
)
def test_a_charger_suits_by_the_end_of_its_charge(pack, charger, way):
    volts, amps, ends_at = charger
    c = Charger(volts, amps, ("lfp", "nmc"), charge_voltage_v=ends_at)
    assert matches(Bank(Battery(*pack)), c) == way


def reaching(n, wire):
    """Sum of the fuses through which the bank can feed a cable of the motor's circuit."""
    strings = [n.fuses[f"fuse-{i}"].rating_a for i in range(1, n.bank.parallel + 1)]
    ends = {wire.a[0], wire.b[0]}
    if "fuse-main" in n.fuses and ends & {"switch", "motor", "shunt", "minus-bar"}:
        return n.fuses["fuse-main"].rating_a
    if "bar-plus" in ends or "bar-minus" in ends:
        return sum(strings[1:])
    if all(end.startswith("fuse-") for end in ends) or wire.role == "minus":
        at = [int(end.split("-")[1]) for end in ends if end[-1].isdigit() and "-" in end]
        low = min(at, default=len(strings))
        return max(sum(strings[:low]), sum(strings[low:]))
    return strings[0]


@pytest.mark.parametrize("take_off", ["diagonal", "bars", "one end"])
def test_every_cable_carries_what_its_fuses_let_through(take_off):
    for bank in BANKS:
        n = install(bank, 0.4 * bank.nominal_v * bank.continuous_a, Plan(take_off=take_off))
        for w in n.wires:
            if w.length_m > FUSE_WITHIN_M:
                assert w.size.allowed_a >= min(reaching(n, w), 500 * bank.parallel) * (1 - 1e-9), w


def test_every_fuse_stands_the_volts_and_breaks_what_can_flow():
    for bank, charger, way in SERVED:
        n = wired(bank, charger, way)
        for name, f in n.fuses.items():
            assert f.volts_v >= bank.charge_v and f.within_m <= FUSE_WITHIN_M and f.fits_cable, name
            assert f.must_break_a >= (10_000 if bank.chem.lithium else 500)
        if bank.parallel > 1:
            one = n.fuses["fuse-1"].must_break_a
            assert "fuse-main" in n.fuses and n.fuses["fuse-main"].must_break_a >= one
