"""From panel to bank: rows, windows, amps, and what the sums count."""

from dataclasses import replace

import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.netlist import Plan
from jolvek.core.electric.sun_chain import COLD, SunChain, SunController, findings
from jolvek.core.electric.wiring import install

TWELVE, TWENTY_FOUR, FORTY_EIGHT = (Bank(Battery("lfp", v, 100)) for v in (12.8, 25.6, 51.2))
TRACKER = SunController(20, 100, 12, 48, ("lfp",), name="Tracker")


def told(chain, bank, watts=400.0):
    return {f.rule: f for f in findings(chain, bank, watts)}


@pytest.mark.parametrize(
    ("bank", "panels", "row"),
    [
        (TWELVE, 2, 2),  # 14.6 V and 5 more: one of 18.6 V falls short
        (TWENTY_FOUR, 4, 2),
        (FORTY_EIGHT, 4, 4),
        (FORTY_EIGHT, 3, 3),  # as many as there are
        (TWENTY_FOUR, 3, 3),  # no row of two leaves equal rows
    ],
)
def test_as_few_panels_stand_in_a_row_as_lift_the_full_bank(bank, panels, row):
    chain = SunChain(panels, 22.5, 18.6, TRACKER)
    assert chain.in_row(bank) == row
    short = row * 18.6 < bank.charge_v + TRACKER.starts_over_v
    assert ("sun-low" in told(chain, bank)) == short


def test_cold_lifts_the_open_volts_over_the_window():
    chain = SunChain(4, 22.5, 18.6, replace(TRACKER, input_max_v=4 * 22.5 * COLD - 0.1))
    found = told(chain, FORTY_EIGHT)["sun-window"]
    assert found.level == "block" and found.figure == pytest.approx(4 * 22.5 * COLD)
    wide = replace(chain, controller=replace(TRACKER, input_max_v=4 * 22.5 * COLD + 0.1))
    assert "sun-window" not in told(wide, FORTY_EIGHT)


def test_without_panels_nothing_is_said_and_without_a_controller_one_is_asked_for():
    assert told(SunChain(), TWENTY_FOUR, 0.0) == {}
    asked = told(SunChain(), TWENTY_FOUR, 230.4)["sun-controller-none"]
    assert "10 A" in asked.cure  # 230.4 W over 0.9 of 25.6 V


def test_the_netlist_is_sized_by_the_row_and_by_what_the_controller_passes():
    chain = SunChain(2, 22.5, 18.6, TRACKER, 800.0)
    plain = install(TWENTY_FOUR, 1200.0, Plan(solar_w=800.0))
    chosen = install(TWENTY_FOUR, 1200.0, Plan(solar_w=800.0, sun=chain))

    def amps(n, end):
        return next(w.current_a for w in n.wires if end in (w.a, w.b) and w.role == "sun")

    assert amps(chosen, ("panel", "+")) == pytest.approx(800 / (2 * 18.6))
    assert amps(plain, ("panel", "+")) == pytest.approx(800 / 18.0)
    assert amps(chosen, ("sun", "out+")) == 20 < amps(plain, ("sun", "out+"))
    assert "Tracker" in chosen.part("sun").text and "2 in a row" in chosen.part("panel").text


@pytest.mark.parametrize(
    ("bank", "open_v", "volts"),
    [
        (TWENTY_FOUR, 22.5, 58),  # 2 in a row: 50.4 V when cold, which a fuse for 32 V burns on
        (FORTY_EIGHT, 22.5, 125),  # 4 in a row: 100.8 V, the bank 58.4
        (FORTY_EIGHT, None, 125),  # not stated: a quarter over 18.6 V at work
        (FORTY_EIGHT, 60.0, 600),
    ],
)
def test_the_panels_fuse_stands_the_row_on_a_cold_morning(bank, open_v, volts):
    chain = SunChain(4, open_v, 18.6, replace(TRACKER, input_max_v=500), 400.0)
    chain = replace(chain, panels=chain.in_row(bank))
    n = install(bank, 1200.0, Plan(solar_w=400.0, sun=chain))
    assert n.fuses["fuse-panel"].volts_v == volts >= chain.row_v(bank)
    assert n.fuses["fuse-sun"].volts_v == install(bank, 1200.0).fuses["fuse-1"].volts_v
    told_of = told(chain, bank)
    assert ("sun-volts-dangerous" in told_of) == (chain.row_v(bank) > 60)
    assert all(f.signal == "danger" for r, f in told_of.items() if r == "sun-volts-dangerous")


def test_what_counts_is_no_more_than_the_controller_passes():
    chain = SunChain(2, 22.5, 18.6, TRACKER, 800.0)
    assert chain.counted_w(25.6) == 20 * 25.6 and chain.counted_w(51.2) == 800
    assert replace(chain, controller=None).counted_w(25.6) == 800


def test_a_controller_of_no_banks_is_refused():
    with pytest.raises(ValueRefused, match="bank_max_v"):
        SunController(20, 100, 48, 24, ("lfp",))
