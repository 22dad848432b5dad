"""A netlist walked as a network: what each parallel string gives, how long its way is, what stands
at the motor.
"""

from __future__ import annotations

from collections.abc import Iterable

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.electric.bank import VOLTS_DANGEROUS
from jolvek.core.electric.netlist import Netlist, Wire, pack_id, tap_imbalance_ah
from jolvek.core.electric.wire_sizes import (
    COPPER_PER_K,
    DROP,
    IEC_OHM_KM,
    RUNNING_C,
)
from jolvek.core.rules.findings import Finding, find

SHORTER = "a shorter way from bank to motor, or a higher voltage"
UNEVEN = 0.15  # of the mean current; common practice, no source


def resistance_ohm(wire: Wire) -> float:
    """Resistance of one cable in Ω at its running temperature. Source: IEC 60228 class 5.

    >>> from jolvek.core.electric.wire_sizes import MOST_FUSE_SHARE, cable
    >>> size = cable(50.0, 4.0, 24.0, at_least_mm2=16)
    >>> w = Wire("W1", ("a", "+"), ("b", "+"), 2.0, 50.0, "plus", size)
    >>> round(1000 * resistance_ohm(w), 2)
    2.66
    """
    per_m = dict(IEC_OHM_KM)[wire.size.size_mm2] / 1000 * (1 + COPPER_PER_K * (RUNNING_C - 20))
    return per_m * wire.length_m / wire.size.runs


def string_currents_a(netlist: Netlist, cable_ohm_factor: float = 1.0) -> Array:
    """Current in A that each parallel string gives at the motor's steady current, (parallel,).

    Solves the network of cable and pack resistances (Kirchhoff); fuses and joints count as nothing.

    >>> from jolvek.core.electric.bank import Bank
    >>> from jolvek.core.electric.battery import Battery
    >>> from jolvek.core.electric.wiring import install
    >>> from jolvek.core.electric.netlist import Plan
    >>> bank = Bank(Battery("lfp", 12.8, 100), 1, 4)
    >>> even = string_currents_a(install(bank, 1200.0, Plan(take_off="bars")))
    >>> bool(np.ptp(even) < 1e-6)
    True
    """
    bank = netlist.bank
    inner = bank.chem.resistance_h * bank.battery.nominal_voltage_v / bank.battery.capacity_ah
    level = _levels_v(_edges(netlist, inner, cable_ohm_factor), netlist.motor_a)
    rises = (
        level[f"{pack_id(i, 1)}:+"] - level[f"{pack_id(i, 1)}:-"]
        for i in range(1, bank.parallel + 1)
    )
    return np.array([(bank.battery.nominal_voltage_v - rise) / inner for rise in rises])


def _edges(netlist: Netlist, inner: float, factor: float) -> list[tuple[str, str, float, float]]:
    """(node, node, conductance, electromotive force towards the second) of cables and packs."""
    bank = netlist.bank
    edges = [
        (_node(w.a), _node(w.b), 1 / (resistance_ohm(w) * factor + 1e-9), 0.0)
        for w in netlist.wires
        if w.role in ("plus", "minus", "series")
    ]
    packs = [pack_id(i, k) for i in range(1, bank.parallel + 1) for k in range(1, bank.series + 1)]
    volts = bank.battery.nominal_voltage_v
    return edges + [(f"{p}:-", f"{p}:+", 1 / inner, volts) for p in packs]


def _levels_v(edges: list[tuple[str, str, float, float]], motor_a: float) -> dict[str, float]:
    """Voltage of every node against the motor's minus while the motor draws its current."""
    nodes = sorted({n for e in edges for n in e[:2]})
    at = {n: x for x, n in enumerate(nodes)}
    lead, source = np.zeros((len(nodes), len(nodes))), np.zeros(len(nodes))
    for a, b, g, volts in edges:
        x, y = at[a], at[b]
        lead[x, x] += g
        lead[y, y] += g
        lead[x, y] -= g
        lead[y, x] -= g
        source[x] -= g * volts
        source[y] += g * volts
    source[at["motor:+"]] -= motor_a
    source[at["motor:-"]] += motor_a
    keep = [x for x in range(len(nodes)) if x != at["motor:-"]]
    level = np.zeros(len(nodes))
    level[keep] = np.linalg.solve(lead[np.ix_(keep, keep)], source[keep])
    return dict(zip(nodes, level.tolist(), strict=True))


def _node(terminal: tuple[str, str]) -> str:
    """Fuses, bars, switches and shunts join their terminals; packs and the motor keep them
    apart.
    """
    part, pole = terminal
    apart = part.startswith("pack") or part in ("motor", "converter", "load", "charger", "own")
    return f"{part}:{pole}" if apart else part


def path_m(netlist: Netlist, string: int) -> float:
    """Cable length in m from the motor's plus through one string back to its minus, by the shortest
    way.

    >>> from jolvek.core.electric.bank import Bank
    >>> from jolvek.core.electric.battery import Battery
    >>> from jolvek.core.electric.wiring import install
    >>> n = install(Bank(Battery("lfp", 12.8, 100), 1, 3), 1200.0)
    >>> len({round(path_m(n, i), 6) for i in (1, 2, 3)})
    1
    """
    bank = netlist.bank
    roads = [
        (_node(w.a), _node(w.b), w.length_m) for w in netlist.wires if w.role in ("plus", "minus")
    ]
    series = sum(
        w.length_m
        for w in netlist.wires
        if w.role == "series" and w.a[0].startswith(f"pack-{string}-")
    )
    return (
        _shortest(roads, "motor:+", f"{pack_id(string, bank.series)}:+")
        + series
        + _shortest(roads, f"{pack_id(string, 1)}:-", "motor:-")
    )


def _shortest(roads: Iterable[tuple[str, str, float]], start: str, goal: str) -> float:
    far = {start: 0.0}
    roads = list(roads)
    for _ in range(len(roads)):
        for a, b, length in roads:
            for x, y in ((a, b), (b, a)):
                if x in far and far[x] + length < far.get(y, np.inf):
                    far[y] = far[x] + length
    return far[goal]


def motor_voltage_v(netlist: Netlist) -> float:
    """Open-circuit voltage between the motor's terminals, walked through the wires of one string.

    >>> from jolvek.core.electric.bank import Bank
    >>> from jolvek.core.electric.battery import Battery
    >>> from jolvek.core.electric.wiring import install
    >>> round(motor_voltage_v(install(Bank(Battery("agm", 12, 100), 4, 2), 2000.0)), 1)
    48.0
    """
    joined: dict[str, set[str]] = {}
    for w in netlist.wires:
        if w.role in ("plus", "minus", "series"):
            joined.setdefault(_node(w.a), set()).add(_node(w.b))
            joined.setdefault(_node(w.b), set()).add(_node(w.a))
    level, todo = {"motor:-": 0.0}, ["motor:-"]
    while todo:
        here = todo.pop()
        volts = netlist.bank.battery.nominal_voltage_v
        across = (
            [(f"{here[:-1]}+", volts)]
            if here.startswith("pack") and here.endswith("-")
            else [(f"{here[:-1]}-", -volts)]
            if here.startswith("pack")
            else []
        )
        for there, rise in (*((n, 0.0) for n in joined.get(here, ())), *across):
            if there not in level:
                level[there] = level[here] + rise
                todo.append(there)
    return level["motor:+"]


def drop_to_motor_v(netlist: Netlist) -> float:
    """Volts lost in the motor's own circuit, there and back, at the steady current.

    >>> from jolvek.core.electric.bank import Bank
    >>> from jolvek.core.electric.battery import Battery
    >>> from jolvek.core.electric.wiring import install
    >>> 0.1 < drop_to_motor_v(install(Bank(Battery("lfp", 25.6, 100)), 2000.0)) < 0.77
    True
    """
    return sum(
        w.current_a * resistance_ohm(w)
        for w in netlist.wires
        if w.role in ("plus", "minus")
        and {_node(w.a), _node(w.b)} & {"switch", "motor:+", "motor:-", "shunt", "minus-bar"}
    )


def check_wiring(netlist: Netlist) -> list[Finding]:
    """What is to be said of an installation: touch voltage, connector, fuses, uneven strings, 12 V
    from end batteries.

    >>> from jolvek.core.electric.bank import Bank
    >>> from jolvek.core.electric.battery import Battery
    >>> from jolvek.core.electric.wiring import install
    >>> check_wiring(install(Bank(Battery("lfp", 25.6, 50), 1, 2), 1200.0))
    []
    """
    out, bank, plan = [], netlist.bank, netlist.plan
    if bank.full_v > VOLTS_DANGEROUS:
        out.append(find("voltage-dangerous", bank.full_v, VOLTS_DANGEROUS))
    if plan.connector_a is not None and netlist.motor_a > plan.connector_a * (1 + 1e-9):
        out.append(find("connector-limit", netlist.motor_a, plan.connector_a))
    lost = drop_to_motor_v(netlist) / bank.nominal_v
    if lost > DROP["motor"] * (1 + 1e-6):
        out.append(find("voltage-drop", lost, DROP["motor"], cure_size=SHORTER))
    if bank.parallel > 1:
        amps = string_currents_a(netlist)
        worst = float(np.abs(amps / amps.mean() - 1).max())
        if worst > UNEVEN:
            out.append(
                find(
                    "strings-uneven", worst, UNEVEN, most=float(amps.max()), least=float(amps.min())
                )
            )
        if float(amps.max()) > bank.battery.continuous_a * (1 + 1e-9):
            out.append(find("string-current", float(amps.max()), bank.battery.continuous_a))
    behind = tap_imbalance_ah(bank, plan.loads)
    if behind > 0:
        out.append(find("twelve-volt-tap", behind, 0.0))
    return out
