"""Banks with their chargers, as arrays, and why the other batteries make none."""

from __future__ import annotations

import itertools
from dataclasses import dataclass, field

import numpy as np

from jolvek.core.base.arrays import Array, Index, Mask
from jolvek.core.electric.bank_facts import bank_facts, own_suits
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger, served_how
from jolvek.core.electric.chemistry import chemistry, end_soc
from jolvek.core.electric.serving import hours
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.stowage import bank_weights, stow
from jolvek.core.fit.trim import moments_kg_m
from jolvek.core.match.folding import MOST_BATTERIES, MOST_CHARGERS, standing_for
from jolvek.core.match.motors import Motors
from jolvek.core.products.motor import WINDOW
from jolvek.core.products.own import packs_there_are
from jolvek.core.products.shelf import Shelf
from jolvek.core.rules.facts import BankFacts
from jolvek.core.rules.findings import Finding, find
from jolvek.core.rules.predicates import MOST_JOINED, MOST_STRINGS
from jolvek.core.rules.rule import SLACK


@dataclass(frozen=True)
class Supplies:
    """Battery × series × parallel × charger in arrays (B,)."""

    battery: Index
    series: Index
    parallel: Index
    charger: Index  # −1: none
    nominal_v: Array
    continuous_a: Array
    energy_wh: Array
    mass_kg: Array
    pack_kg: Array
    price: Array
    charge_h: Array
    chemistry: tuple[str, ...]
    chem_index: Index
    facts: BankFacts
    moments_kg_m: Array  # (B, 3): ahead, off, above; nan where the pack clips onto the motor
    spots_m: Array  # (B, K, 3): where packs stand, ahead, off, above; nan where there are fewer
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
    rows, rejected = _layouts(need, shelf, m)
    names = tuple(dict.fromkeys(item.spec.chemistry for item in shelf.batteries))
    spec = [shelf.batteries[row[0]].spec for row in rows]
    i, s, p = np.array([row[:3] for row in rows], dtype=int).reshape(len(rows), 3).T
    moments = np.array([row[3] for row in rows], dtype=float).reshape(len(rows), 3)
    chem = np.array([names.index(b.chemistry) for b in spec], dtype=int)
    volts = np.array([b.nominal_voltage_v for b in spec], dtype=float)
    ah = np.array([b.capacity_ah for b in spec], dtype=float)
    own = own_suits(spec, s, need.day.own_charger_v)
    layouts = _Layouts(spec, s, p, chem, ah, names)
    bank, charger, charge_h = _chargers(layouts, shelf, need, own)
    charged = own[bank] | (charger >= 0)
    charger_price = np.array([0.0, *(c.price for c in shelf.chargers)])[charger + 1]
    packs, kg = (s * p)[bank], np.array([b.weight_kg for b in spec], dtype=float)[bank]
    price = np.array([shelf.batteries[k].price for k in i], dtype=float)[bank]
    return Supplies(
        i[bank],
        s[bank],
        p[bank],
        charger,
        (s * volts)[bank],
        (p * np.array([b.continuous_a for b in spec], dtype=float))[bank],
        energy_wh=packs * (volts * ah)[bank],
        mass_kg=packs * kg,
        pack_kg=kg,
        price=packs * price + charger_price,
        charge_h=charge_h,
        chemistry=names,
        chem_index=chem[bank],
        facts=bank_facts([spec[k] for k in bank], s[bank], p[bank], need.day.kept_share, charged),
        moments_kg_m=moments[bank],
        spots_m=_spots(rows)[bank],
        rejected=rejected,
    )


def _spots(rows: list[_Row]) -> Array:
    """Where the packs of each bank stand (B, K, 3); nan where a bank stands in fewer places."""
    out = np.full((len(rows), max((len(row[4]) for row in rows), default=1) or 1, 3), np.nan)
    for k, row in enumerate(rows):
        out[k, : len(row[4])] = np.array(row[4]).reshape(len(row[4]), 3)
    return out


def _most_v(m: Motors) -> Array:
    """The highest voltage (M,) that each motor takes; what nobody said limits nothing."""
    known = np.where(np.isnan(m.facts.most_v), WINDOW[1] * m.facts.nominal_v, m.facts.most_v)
    return np.asarray(np.where(np.isnan(known), np.inf, known))


_Row = tuple[int, int, int, tuple[float, ...], tuple[tuple[float, ...], ...]]
_CLIPPED = (np.nan, np.nan, np.nan)


def _layouts(need: Need, shelf: Shelf, m: Motors) -> tuple[list[_Row], dict[int, Finding]]:
    """(battery, series, parallel, moments) that some motor's voltage allows and a bay holds; why
    none.
    """
    rows: list[_Row] = []
    rejected: dict[int, Finding] = {}
    top = float(np.max(_most_v(m), initial=0.0))
    stays = _folded(shelf)
    for i, item in enumerate(shelf.batteries):
        if not stays[i]:
            rejected[i] = find("folded")
            continue
        b, reason, before = item.spec, None, len(rows)
        for s, p in itertools.product(range(1, MOST_JOINED + 1), range(1, MOST_STRINGS + 1)):
            if s * p > min(MOST_JOINED, packs_there_are(item)) or s * b.charge_v > top * SLACK:
                continue
            places, problem = stow(need.site.bays, b, s * p) if not item.clip_on else ([], None)
            if problem:
                reason = reason or problem
                continue
            kilos = bank_weights(need.hull, b, s * p, places)
            spots = tuple((w.ahead_m, w.off_m, w.above_m) for w in kilos)
            moments = _CLIPPED if item.clip_on else moments_kg_m(kilos)
            rows.append((i, s, p, moments, spots))
        if len(rows) == before:
            rejected[i] = reason or find("voltage-none", b.charge_v, top)
    return rows, rejected


def _folded(shelf: Shelf) -> Mask:
    """Which batteries stand for the others of nearly the same figures."""
    items = shelf.batteries
    spec = [x.spec for x in items]
    group = [(x.spec.chemistry, round(x.spec.nominal_voltage_v), x.clip_on) for x in items]
    both = zip(spec, items, strict=True)
    figures = [(b.energy_wh, x.price, b.weight_kg, -b.continuous_a) for b, x in both]
    energy, *costs = np.array(figures, dtype=float).reshape(-1, 4).T
    own = np.array([x.own for x in items], dtype=bool)
    return standing_for(group, energy, costs, MOST_BATTERIES, own)


@dataclass(frozen=True)
class _Layouts:
    """Banks (B,) before their chargers: battery, series, parallel, chemistry, pack's amp-hours."""

    spec: list[Battery]
    series: Index
    parallel: Index
    chem_index: Index
    ah: Array
    names: tuple[str, ...]


def _chargers(b: _Layouts, shelf: Shelf, need: Need, own: Mask) -> tuple[Index, Index, Array]:
    """(bank, charger, hours) rows: per bank the cheapest charger and the cheapest that fills it in
    the hours given; −1: none on the shelf, or the customer's own.
    """
    n = b.ah.size
    if not shelf.chargers or not n:
        return np.arange(n), np.full(n, -1), np.full(n, np.nan)
    stays = np.nonzero(_folded_chargers(shelf))[0]
    price = np.array([shelf.chargers[k].price for k in stays])
    takes = _charge_hours(b, [shelf.chargers[k].spec for k in stays], need.day.reserve)
    in_time = takes <= need.day.charge_h
    rows = np.arange(n)
    cheapest = np.argmin(np.where(np.isfinite(takes), price, np.inf), axis=1)
    none = own | ~np.isfinite(takes).any(axis=1)
    quick = np.argmin(np.where(in_time, price, np.inf), axis=1)
    more = ~none & in_time.any(axis=1) & (quick != cheapest)
    bank = np.concatenate((rows, rows[more]))
    charger = np.concatenate((np.where(none, -1, cheapest), quick[more]))
    order = np.argsort(bank, kind="stable")
    bank, charger = bank[order], charger[order]
    charge_h = np.where(charger < 0, np.nan, takes[bank, charger])
    return bank, np.where(charger < 0, -1, stays[charger]), charge_h


def _folded_chargers(shelf: Shelf) -> Mask:
    """Which chargers stand for the others: of a voltage, its programmes and outputs, the cheapest
    of each current.
    """
    items = shelf.chargers
    group = [
        (round(c.voltage_v), c.charge_voltage_v, c.chemistries, c.outputs)
        for c in (x.spec for x in items)
    ]
    amps = np.array([x.spec.current_a for x in items], dtype=float)
    price = np.array([x.price for x in items], dtype=float)
    own = np.array([x.own for x in items], dtype=bool)
    return standing_for(group, amps, [price], MOST_CHARGERS, own)


def _charge_hours(b: _Layouts, chargers: list[Charger], reserve: float) -> Array:
    """Hours (B, C) from what a day leaves to full; inf where a charger does not serve a bank."""
    series, parallel, ah = (x[:, None] for x in (b.series, b.parallel, b.ah))
    charger_a = np.array([c.current_a for c in chargers], dtype=float)
    outputs = np.array([c.outputs for c in chargers], dtype=float)
    way = served_how(b.spec, b.series, b.parallel, chargers)
    out = np.full(way.shape, np.inf)
    for k, name in enumerate(b.names):
        mine, kind = b.chem_index == k, chemistry(name)
        bank = (series[mine], parallel[mine], ah[mine])
        start = end_soc(kind, reserve)
        out[mine] = hours(way[mine], *bank, charger_a, outputs, kind, start)
    return out
