"""The lines of a setup are its parts and all of its netlist, counted by hand, and the hours that
the rigger's sheet has.
"""

import re
from dataclasses import replace
from decimal import Decimal

import pytest

from jolvek.core.deal.quote import Priced, lines_of, wiring_lines
from jolvek.core.enquiry.site import Bay, Site
from jolvek.core.fit.checklist import work_hours
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.products.rates import Rates

CARRIED = sample_fitted()
LOCKER = Site(bays=(Bay("locker", 0.6, 0.5, 0.4, ahead_m=1.0),))
F = replace(CARRIED, need=replace(CARRIED.need, site=LOCKER))  # wired in
RATES = Rates(80_00, 90_00, 65, 14_00, Decimal(25))


def wiring(f):
    return {x.text: x for x in wiring_lines(f, RATES)}


@pytest.mark.parametrize("parallel", [1, 2, 3])
def test_cables_and_lugs_are_counted_from_the_netlist(parallel):
    f = replace(F, parallel=parallel)
    found, wires = wiring(f), f.netlist.wires
    for size in {w.size.size_mm2 for w in wires}:
        of_size = [w for w in wires if w.size.size_mm2 == size]
        metres = sum(w.length_m * w.size.runs for w in of_size)
        cable = found[f"Cable {size:g} mm², tinned"]
        assert float(cable.quantity) == pytest.approx(metres, abs=0.05)
        assert cable.price_minor == round(65 * size) and cable.unit == "m"
        ends = sum(1 for w in of_size for _ in range(w.size.runs) for _end in (w.a, w.b))
        lugs = found[f"Lugs for {size:g} mm²"]
        assert lugs.quantity == ends and lugs.price_minor == 14_00 // 4


@pytest.mark.parametrize("parallel", [1, 2, 3])
def test_each_fuse_bar_and_switch_is_a_piece(parallel):
    f = replace(F, parallel=parallel)
    counted = {}
    for part in f.netlist.parts:
        if part.kind in ("fuse", "switch", "bar", "inlet"):
            counted[part.kind] = counted.get(part.kind, 0) + 1
    found = {}
    for x in wiring_lines(f, RATES):
        kind = re.match(r"(Fuse \d|Battery switch|Bar|Shore inlet|Fuse holder)", x.text)
        if kind:
            name = kind[1].removesuffix(kind[1][-2:]) if kind[1][-1].isdigit() else kind[1]
            found[name] = found.get(name, 0) + int(x.quantity)
            assert x.price_minor == 14_00
    names = {"fuse": "Fuse", "switch": "Battery switch", "bar": "Bar", "inlet": "Shore inlet"}
    expected = {names[k]: n for k, n in counted.items()} | {"Fuse holder": counted["fuse"]}
    assert found == expected and counted["fuse"] > parallel
    volts = {fuse.volts_v for fuse in f.netlist.fuses.values()}
    fuses = [text for text in wiring(f) if text.startswith("Fuse ") and "V DC" in text]
    assert {float(re.search(r"(\d+) V DC", text)[1]) for text in fuses} == volts
    assert all("class T" in text for text in fuses)  # lithium


def test_hours_are_those_of_the_riggers_sheet_at_the_shops_rates():
    labour = [x for x in lines_of(F, [], RATES) if x.kind == "labour"]
    assert float(sum(x.quantity for x in labour)) == pytest.approx(work_hours(F))
    assert [x.price_minor for x in labour] == [80_00, 90_00]


def test_a_kit_that_is_carried_aboard_has_no_inlet_and_no_hours_of_wiring():
    kinds = {p.kind for p in CARRIED.netlist.parts}
    assert CARRIED.carried and not kinds & {"charger", "inlet"}
    assert [x.text for x in lines_of(CARRIED, [], RATES) if x.kind == "labour"] == ["Mounting"]
    assert {"charger", "inlet"} <= {p.kind for p in F.netlist.parts} and not F.carried


def test_hours_of_wiring_follow_the_cables():
    two = replace(F, parallel=2)
    assert work_hours(two) > work_hours(F) > F.mount.spec.hours + 1


def test_a_pack_that_clips_on_brings_no_cable():
    clipped = replace(F, motor=replace(F.motor, pack_ids=(F.battery.id,)))
    assert clipped.clips_on and wiring_lines(clipped, RATES) == []
    assert float(sum(x.quantity for x in lines_of(clipped, [], RATES))) == work_hours(clipped)


def test_parts_add_ons_and_what_is_set_on_fitting_stand_in_their_order_with_the_tax():
    led = replace(F, fitting=replace(F.fitting, lead_m=2.0, throttle="cable", throttle_m=4.0))
    parts = [Priced("Motor", 1, 1500.5), Priced("Cover", 2, 40.0, True)]
    lines = lines_of(led, parts, RATES)
    assert [(x.kind, x.amount) for x in lines[:2]] == [("part", 150_050), ("addon", 8_000)]
    assert lines[1].optional and {x.tax for x in lines} == {Decimal(25)}
    named = [x.text for x in lines]
    assert "throttle cable (4.0 m)" in named
    assert any("extension lead" in text and "2 m" in text for text in named)


def test_a_larger_boat_with_a_longer_run_takes_more_cable():
    far = replace(F, fitting=replace(F.fitting, places=(("battery", 2.9),)))
    assert far.run_m > F.run_m + 1.9  # the battery was moved 1.9 m
    longer = sum(x.quantity for x in wiring(far).values() if x.unit == "m")
    assert longer > sum(x.quantity for x in wiring(F).values() if x.unit == "m") + 3
