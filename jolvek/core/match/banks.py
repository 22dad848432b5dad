"""Banks with their chargers, as arrays, and why the other batteries make none."""

from __future__ import annotations

import itertools
from dataclasses import dataclass, field
from typing import Any

import numpy as np

from jolvek.core.base.arrays import Array, Index
from jolvek.core.electric.charging import charge_time_h
from jolvek.core.electric.chemistry import chemistry
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.stowage import stow
from jolvek.core.match.motors import Motors
from jolvek.core.products.shelf import Shelf
from jolvek.core.rules.findings import Finding, find

MAX_PARALLEL = 4


MAX_PACKS = 8


@dataclass(frozen=True)
class Supplies:
    """Battery × series × parallel × charger in arrays (B,)."""

    battery: Index
    series: Index
    parallel: Index
    charger: Index  # −1: none
    nominal_v: Array
    full_v: Array
    empty_v: Array
    continuous_a: Array
    energy_wh: Array
    mass_kg: Array
    pack_kg: Array
    price: Array
    charge_h: Array
    chemistry: tuple[str, ...]
    chem_index: Index
    rejected: dict[int, Finding] = field(default_factory=dict)


def supplies(need: Need, shelf: Shelf, m: Motors) -> Supplies:
    """Every bank that some motor's voltage allows and a bay holds, with up to two chargers each.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.motors import motors
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> supplies(need, sample(), motors(sample(), 1026.0)).parallel.tolist()
    [1, 2, 3, 4]
    """
    rows: list[tuple[Any, ...]] = []
    rejected: dict[int, Finding] = {}
    top = float(m.v_max.max(initial=0.0))
    low = float(m.v_min.min(initial=np.inf))
    clips_on = {pack for motor in shelf.motors for pack in motor.pack_ids}
    names = tuple(dict.fromkeys(item.spec.chemistry for item in shelf.batteries))
    for i, item in enumerate(shelf.batteries):
        b, reason, found = item.spec, None, False
        for s, p in itertools.product(range(1, MAX_PACKS + 1), range(1, MAX_PARALLEL + 1)):
            if s * p > MAX_PACKS or s * b.full_v > top or s * b.nominal_voltage_v < low:
                continue
            reason = None if item.id in clips_on else stow(need.site.bays, b, s * p)[1]
            if reason:
                break
            found = True
            rows.append(
                (
                    i,
                    s,
                    p,
                    names.index(b.chemistry),
                    b.nominal_voltage_v,
                    b.capacity_ah,
                    b.full_v,
                    b.empty_v,
                    b.continuous_a,
                    b.weight_kg,
                    item.price,
                )
            )
        if not found:
            rejected[i] = reason or find("voltage-none", b.full_v, top)
    a = np.array(rows, dtype=float).reshape(len(rows), 11).T
    bank, charger, hours = _chargers(a, names, shelf, need.day.charge_h, need.day.reserve)
    i, s, p, chem, volts, ah, full, empty, amps, kg, price = a[:, bank]
    price = s * p * price + np.array([0.0, *(c.price for c in shelf.chargers)])[charger + 1]
    return Supplies(
        i.astype(int),
        s.astype(int),
        p.astype(int),
        charger,
        s * volts,
        s * full,
        s * empty,
        p * amps,
        s * p * volts * ah,
        s * p * kg,
        kg,
        price,
        hours,
        names,
        chem.astype(int),
        rejected,
    )


def _chargers(
    banks: Array, names: tuple[str, ...], shelf: Shelf, hours_given: float, reserve: float
) -> tuple[Index, Index, Array]:
    """(bank, charger, hours) rows: per bank the cheapest charger and the cheapest that fills it in
    the hours given; −1: none.
    """
    n = banks.shape[1]
    if not shelf.chargers or not n:
        return np.arange(n), np.full(n, -1), np.full(n, np.nan)
    _, series, parallel, chem, volts, ah = banks[:6, :, None]
    spec = [item.spec for item in shelf.chargers]
    price = np.array([item.price for item in shelf.chargers])
    charger_v, charger_a, outputs = (
        np.array([getattr(c, k) for c in spec], dtype=float)
        for k in ("voltage_v", "current_a", "outputs")
    )
    programme = np.array([[name in c.chemistries for c in spec] for name in names])[
        banks[3].astype(int)
    ]
    whole = programme & (np.abs(series * volts / charger_v - 1) <= 0.1)
    packwise = programme & ~whole & (np.abs(volts / charger_v - 1) <= 0.1)
    hours = np.full(whole.shape, np.inf)
    for k, name in enumerate(names):
        mine = banks[3] == k
        kind = chemistry(name)
        at_once = charge_time_h((parallel * ah)[mine], charger_a * outputs, kind, reserve)
        rounds = np.ceil((series * parallel)[mine] / outputs) * charge_time_h(
            ah[mine], charger_a, kind, reserve
        )
        hours[mine] = np.where(whole[mine], at_once, np.where(packwise[mine], rounds, np.inf))
    rows = np.arange(n)
    cheapest = np.argmin(np.where(np.isfinite(hours), price, np.inf), axis=1)
    none = ~np.isfinite(hours).any(axis=1)
    quick = np.argmin(np.where(hours <= hours_given, price, np.inf), axis=1)
    more = ~none & (hours <= hours_given).any(axis=1) & (quick != cheapest)
    bank, charger = (
        np.concatenate((rows, rows[more])),
        np.concatenate((np.where(none, -1, cheapest), quick[more])),
    )
    order = np.argsort(bank, kind="stable")
    bank, charger = bank[order], charger[order]
    return bank, charger, np.where(charger < 0, np.nan, hours[bank, charger])
