"""Fewer pairs where there are too many to work out, the least loss first."""

from __future__ import annotations

import numpy as np

from jolvek.core.base.arrays import Mask
from jolvek.core.match.banks import Supplies
from jolvek.core.match.drives import Drives


def thin(pairs: Mask, d: Drives, s: Supplies, most: int) -> Mask:
    """Fewer pairs where there are too many, the least loss first.

    Each motor's cheapest two drives; then banks go that another of the same voltage and chemistry
    beats in every figure; then each bank keeps its cheapest charger and each motor its cheapest
    drive; at last banks evenly over their energy.

    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> [match(need, sample(), most=n).field.price.size for n in (100, 4)]
    [8, 4]
    """
    keep_s = np.ones(s.battery.size, dtype=bool)
    keep_d = _cheapest_drives(d, 2)
    if _count(pairs, keep_d, keep_s) > most:
        keep_s &= ~_beaten(s, keep_s)
    if _count(pairs, keep_d, keep_s) > most:
        keep_s &= _cheapest_chargers(s, keep_s)
    if _count(pairs, keep_d, keep_s) > most:
        keep_d = _cheapest_drives(d, 1)
    left = _count(pairs, keep_d, keep_s)
    if left > most:
        rows = np.nonzero(keep_s)[0]
        rows = rows[np.argsort(s.energy_wh[rows])]
        keep_s[:] = False
        keep_s[rows[np.linspace(0, rows.size - 1, int(rows.size * most / left)).astype(int)]] = True
    return np.asarray(pairs & keep_d[:, None] & keep_s[None, :])


def _cheapest_chargers(s: Supplies, among: Mask) -> Mask:
    bank = s.battery * 10_000 + s.series * 100 + s.parallel
    order = np.lexsort((s.price, ~among, bank))
    keep = np.zeros(s.battery.size, dtype=bool)
    keep[order[np.concatenate(([True], bank[order][1:] != bank[order][:-1]))]] = True
    return keep


def _count(pairs: Mask, keep_d: Mask, keep_s: Mask) -> int:
    return int(pairs[keep_d][:, keep_s].sum())


def _cheapest_drives(d: Drives, most: int) -> Mask:
    order = np.lexsort((d.price, d.motor))
    motor = d.motor[order]
    start = np.concatenate(([True], motor[1:] != motor[:-1]))
    place = np.arange(order.size) - np.maximum.accumulate(np.where(start, np.arange(order.size), 0))
    keep = np.zeros(order.size, dtype=bool)
    keep[order[place < most]] = True
    return keep


def _beaten(s: Supplies, among: Mask) -> Mask:
    """Banks (B,) than which another of the same voltage, chemistry and kind (which clips on, which
    does not) is no worse in price, weight, energy, amps and charge time, and better in one.
    """
    out = np.zeros(among.size, dtype=bool)
    cost = np.stack(
        [
            s.price,
            s.mass_kg,
            -s.energy_wh,
            -s.continuous_a,
            s.pack_kg,
            np.nan_to_num(s.charge_h, nan=1e9),
        ],
        axis=1,
    )
    clips = np.isnan(s.moments_kg_m[:, 0])
    kinds = np.unique(np.stack([s.nominal_v, s.chem_index, clips], axis=1), axis=0)
    for volts, chem, clipped in kinds:
        alike = (s.nominal_v == volts) & (s.chem_index == chem) & (clips == bool(clipped))
        rows = np.nonzero(among & alike)[0]
        rows = rows[np.argsort(s.price[rows], kind="stable")]
        for a in range(0, rows.size, 256):
            mine = cost[rows[a : a + 256]]
            no_worse = np.logical_and.reduce(
                [cost[rows, k][None, :] <= mine[:, k][:, None] for k in range(cost.shape[1])]
            )
            better = np.logical_or.reduce(
                [cost[rows, k][None, :] < mine[:, k][:, None] for k in range(cost.shape[1])]
            )
            out[rows[a : a + 256]] = (no_worse & better).any(axis=1)
    return out
