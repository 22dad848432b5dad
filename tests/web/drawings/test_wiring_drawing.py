"""The diagram of any bank: everything of the netlist on it, boxes apart, and no cable drawn through
a box it does not serve.
"""

import re
from itertools import combinations, product

import pytest

from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.netlist import SCHOOLS_12V, TAKE_OFFS, Loads12V, Plan
from jolvek.core.electric.wiring import install
from jolvek.web.kit.drawings.wiring_drawing import PACK_H, PACK_W, places, wiring_diagram

HALF = {
    "pack": (PACK_W / 2, PACK_H / 2),
    "fuse": (16, 7),
    "switch": (23, 3),
    "bar": (5, 46),
    "plug": (9, 18),
}
BANKS = list(product((1, 2, 4), (1, 2, 4)))
PLANS = [
    Plan(charger_a=20, loads=Loads12V(5.0, 4.0, school), take_off=how)
    for school in SCHOOLS_12V
    for how in TAKE_OFFS
]
LEADS = ("adapter", "lead, battery’s end", "lead, motor’s end")
PLANS += [Plan(plugs=LEADS[:k], shunt=shunt) for k in (1, 2, 3) for shunt in (True, False)]


def name(p):
    return f"{p.loads.school}, {p.take_off}, {len(p.plugs)}, {p.shunt}"


def net(series, parallel, plan):
    return install(Bank(Battery("lfp", 12.8, 100), series, parallel), 40 * 12.8 * series, plan)


def boxes(n):
    at, _, _ = places(n)
    out = {}
    for part in n.parts:
        (x, y), (w, h) = at[part.id], HALF.get(part.kind, (52, 21))
        out[part.id] = (x - w, y - h, x + w, y + h)
    return out


def ways(n):
    found = re.findall(
        r'<path d="([^"]+)" class="wire [^"]*" data-wire="(W\d+)"', str(wiring_diagram(n))
    )
    return {wire: path for path, wire in found}


def points(path):
    """The corners of a path of M, H, V and h."""
    x = y = 0.0
    out = []
    for letter, numbers in re.findall(r"([MHVh])([-\d. ]+)", path):
        values = [float(v) for v in numbers.split()]
        if letter == "M":
            x, y = values
        elif letter == "H":
            x = values[0]
        elif letter == "V":
            y = values[0]
        else:
            x += values[0]
        out.append((x, y))
    return out


def crosses(a, b, box, within=2.0):
    left, top, right, bottom = box[0] + within, box[1] + within, box[2] - within, box[3] - within
    return (
        min(a[0], b[0]) < right
        and max(a[0], b[0]) > left
        and min(a[1], b[1]) < bottom
        and max(a[1], b[1]) > top
    )


@pytest.mark.parametrize(
    "plan", PLANS, ids=lambda p: f"{p.loads.school}, {p.take_off}, {len(p.plugs)}, {p.shunt}"
)
@pytest.mark.parametrize(("series", "parallel"), BANKS)
def test_boxes_stand_apart_and_on_the_sheet(series, parallel, plan):
    n = net(series, parallel, plan)
    _, width, height = places(n)
    found = boxes(n)
    assert set(found) == {p.id for p in n.parts}
    for (a, one), (b, other) in combinations(found.items(), 2):
        assert (
            one[2] <= other[0] or other[2] <= one[0] or one[3] <= other[1] or other[3] <= one[1]
        ), (a, b)
    for left, top, right, bottom in found.values():
        assert left >= 0 and top >= 0 and right <= width and bottom <= height


@pytest.mark.parametrize(
    "plan", PLANS, ids=lambda p: f"{p.loads.school}, {p.take_off}, {len(p.plugs)}, {p.shunt}"
)
@pytest.mark.parametrize(("series", "parallel"), BANKS)
def test_no_cable_runs_through_a_box_it_does_not_serve(series, parallel, plan):
    n = net(series, parallel, plan)
    drawn = ways(n)
    assert set(drawn) == {w.id for w in n.wires}
    assert ('class="wire is-mains"' in str(wiring_diagram(n))) == (plan.charger_a > 0)
    found = boxes(n)
    for wire in n.wires:
        corners = points(drawn[wire.id])
        ends = {wire.a[0], wire.b[0]}
        for part, box in found.items():
            through = [1 for a, b in zip(corners, corners[1:], strict=False) if crosses(a, b, box)]
            plugged = part.startswith("plug") and ("motor" in ends)
            assert part in ends or plugged == bool(through), (wire, part)


@pytest.mark.parametrize(("series", "parallel"), BANKS)
def test_a_way_begins_and_ends_at_its_parts_or_at_the_rail_between(series, parallel):
    n = net(series, parallel, Plan(charger_a=20, loads=Loads12V(5.0)))
    found = boxes(n)
    rail = (
        max(box[2] for part, box in found.items() if re.fullmatch(r"fuse-\d", part)) + 14,
        found[f"fuse-{parallel}"][1] + 7,
    )
    for w, path in ways(n).items():
        wire = next(x for x in n.wires if x.id == w)
        start, stop = points(path)[0], points(path)[-1]
        for end in (start, stop):
            near = [
                p
                for p in (wire.a[0], wire.b[0])
                if found[p][0] - 1 <= end[0] <= found[p][2] + 1
                and found[p][1] - 1 <= end[1] <= found[p][3] + 1
            ]
            assert near or end == pytest.approx(rail, abs=0.2), (wire, end)
