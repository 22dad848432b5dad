"""What cables, fuses and hours add to the parts of every candidate: the bill of one setup, worked
out once for all candidates whose wiring is cut alike.
"""

from __future__ import annotations

import numpy as np

from jolvek.core.base.arrays import Array, Index, Mask
from jolvek.core.electric import charging
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.netlist import Plan
from jolvek.core.electric.wire_sizes import (
    COPPER_PER_K,
    DROP,
    FUSE_SHARE,
    FUSES_A,
    IEC_OHM_KM,
    RUNNING_C,
)
from jolvek.core.electric.wiring import install
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.hanging import motor_above_m, motor_ahead_m
from jolvek.core.fit.materials import bolts, hours_minor, materials, wiring_hours
from jolvek.core.fit.mounting_work import drills
from jolvek.core.fit.route import CARRIED_KG, way_m
from jolvek.core.match.banks import Supplies
from jolvek.core.match.drives import Drives
from jolvek.core.match.motors import Motors
from jolvek.core.match.pairs import Pairs
from jolvek.core.products.pair_facts import pair_facts
from jolvek.core.products.rates import Rates
from jolvek.core.products.shelf import Shelf

_OHM_M = np.array([ohm for _, ohm in IEC_OHM_KM]) / 1000 * (1 + COPPER_PER_K * (RUNNING_C - 20))


def work_price(
    need: Need, shelf: Shelf, m: Motors, d: Drives, s: Supplies, p: Pairs, rates: Rates
) -> Array:
    """Money (N,) over the parts of each candidate: its cables, lugs, fuses, switches and hours at
    the shop's rates, as on its bill.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import allowed_pairs
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> m, d, s, _, p = allowed_pairs(need, sample())
    >>> bool((work_price(need, sample(), m, d, s, p, Rates(8000, 9000, 60, 450)) > 40).all())
    True
    """
    mounts = [item.spec for item in shelf.mounts]
    each = [
        hours_minor(k.hours, rates.mounting_minor) + drills(k, need) * bolts(rates).amount_minor
        for k in mounts
    ]
    hours = np.array(each, dtype=float)
    mount, motor = d.mount[p.drive], d.motor[p.drive]
    out = hours[mount]
    own = np.array([x.own for x in shelf.batteries], dtype=bool)[s.battery[p.supply]]
    theirs = np.array([x.own for x in shelf.motors], dtype=bool)[motor]
    adapted = own & ~theirs
    out = out + np.where(adapted, float(rates.piece_minor), 0.0)
    wired = np.nonzero(~np.isnan(s.moments_kg_m[p.supply, 0]))[0]
    if wired.size:
        carried = _carried(need, shelf, s, p, mount)[wired]
        run_dm = np.round(10 * _run_m(need, shelf, s, p, mount)[wired]).astype(int)
        amps = _amps(m, s, motor[wired], p.supply[wired])
        keys = _alike(s, p.supply[wired], amps, run_dm, carried)
        _, first, group = np.unique(keys, axis=0, return_index=True, return_inverse=True)
        cost = [
            _cost(
                need,
                shelf,
                s,
                int(p.supply[wired[i]]),
                float(amps[i]),
                run_dm[i] / 10,
                bool(carried[i]),
                rates,
            )
            for i in first
        ]
        out[wired] += np.array(cost, dtype=float)[group.reshape(-1)]
    return np.asarray(out / 10**rates.digits)


def _carried(need: Need, shelf: Shelf, s: Supplies, p: Pairs, mount: Index) -> Mask:
    """Which kits (N,) are carried aboard, as `route.carried` has it."""
    if need.site.bays or need.day.solar_w:
        return np.zeros(mount.size, dtype=bool)
    fixed = np.array([item.spec.fixed for item in shelf.mounts], dtype=bool)[mount]
    light = (s.series * s.parallel == 1) & (s.pack_kg <= CARRIED_KG)
    return np.asarray(light[p.supply] & ~fixed)


def _run_m(need: Need, shelf: Shelf, s: Supplies, p: Pairs, mount: Index) -> Array:
    """One way (N,) from the farthest pack to the motor."""
    mounts = [item.spec for item in shelf.mounts]
    hung = np.array([(motor_ahead_m(need, k), k.offset_m, motor_above_m(need, k)) for k in mounts])
    kinds, kind = np.unique(hung.reshape(len(mounts), 3), axis=0, return_inverse=True)
    ways = np.empty((s.battery.size, len(kinds)))
    for j, at in enumerate(kinds):
        ahead, off, above = np.moveaxis(s.spots_m - at, -1, 0)
        ways[:, j] = np.fmax.reduce(way_m(ahead, off, above), axis=1)
    return np.asarray(ways[p.supply, kind.reshape(-1)[mount]])


def _amps(m: Motors, s: Supplies, motor: Index, supply: Index) -> Array:
    """Steady current (N,) of motors with supplies."""
    rows, place = np.unique(motor, return_inverse=True)
    facts = pair_facts(m.facts.of(rows), s.facts, np.ones((rows.size, s.battery.size), dtype=bool))
    return np.asarray(facts.amps[place, supply])


def _alike(s: Supplies, supply: Index, amps: Array, run_dm: Index, carried: Mask) -> Array:
    """What decides how a candidate's wiring is cut, as rows of figures (N, K): two with the same
    row have the same cables and pieces.
    """
    volts, parallel = s.nominal_v[supply], s.parallel[supply]
    one_a = s.continuous_a[supply] / parallel
    string_a = np.where(parallel == 1, amps, np.maximum(amps / parallel, np.minimum(amps, one_a)))
    most_a = DROP["motor"] * volts / np.maximum(0.2 * run_dm, 1e-6)  # times 1/Ω a metre
    by_drop = (amps[:, None] * _OHM_M > most_a[:, None]).sum(axis=1)
    beyond = (by_drop >= _OHM_M.size) | (FUSE_SHARE * amps > FUSES_A[-1])
    columns = (
        volts,
        s.series[supply],
        parallel,
        np.where(carried, -2, s.charger[supply]),
        s.chem_index[supply],
        run_dm,
        carried,
        np.searchsorted(FUSES_A, FUSE_SHARE * amps - 1e-9),
        np.searchsorted(FUSES_A, FUSE_SHARE * string_a - 1e-9),
        by_drop,
        np.where(beyond, amps, 0.0),
        np.where(parallel > 1, np.searchsorted(FUSES_A, amps), 0),
    )
    return np.column_stack([np.asarray(c, dtype=float) for c in columns])


def _cost(
    need: Need,
    shelf: Shelf,
    s: Supplies,
    supply: int,
    amps: float,
    run_m: float,
    carried: bool,
    rates: Rates,
) -> int:
    """Minor units of one candidate's wiring: materials, and the hours where it is wired in."""
    item, index = shelf.batteries[s.battery[supply]], int(s.charger[supply])
    bank = Bank(item.spec, int(s.series[supply]), int(s.parallel[supply]))
    c = shelf.chargers[index].spec if index >= 0 else None
    plan = Plan(
        run_m=run_m,
        charger_a=c.current_a if c else 0.0,
        charger_outputs=c.outputs if c else 1,
        charger_way=charging.matches(bank, c) if c and not carried else "",
        solar_w=need.day.solar_w,
        shunt=False,
    )
    netlist = install(bank, amps * bank.nominal_v, plan, steady_a=amps)
    out = sum(x.amount_minor for x in materials(netlist, rates))
    return out if carried else out + hours_minor(wiring_hours(netlist), rates.wiring_minor)
