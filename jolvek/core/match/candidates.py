"""Drives and banks that could go on a boat, in arrays, and the hard rules that let them or keep
them off.

A drive is a motor with one shaft on one mount; a supply is a battery in series and parallel with
one charger. Every rule is a boolean array, kept so that a rejected product can be told its reason.
"""

from __future__ import annotations

import itertools
from dataclasses import dataclass, field
from typing import Any

import numpy as np
from numpy.typing import NDArray

from jolvek.core.electric.battery import chemistry
from jolvek.core.electric.charging import charge_time_h
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.stowage import stow
from jolvek.core.hydro.propulsor import static_thrust_n
from jolvek.core.products.mounting import TRANSOM_PLACES
from jolvek.core.products.shelf import Shelf
from jolvek.core.rules.findings import Finding, find

Array = NDArray[np.float64]
Index = NDArray[np.intp]
Mask = NDArray[np.bool_]
MAX_PARALLEL = 4
MAX_PACKS = 8


@dataclass(frozen=True)
class Motors:
    """Motor data in arrays (M,)."""

    power_w: Array
    mass_kg: Array
    price: Array
    v_min: Array
    v_max: Array
    diameter_m: Array
    pitch_m: Array
    rev_s: Array
    loss_factor: Array
    leg_m2: Array
    thrust_n: Array
    controller_a: Array
    noise_db: Array


def motors(shelf: Shelf, density: float) -> Motors:
    """The shelf's motors as arrays; missing data estimated as for a single prediction. `density` in
    kg/m³.

    >>> from jolvek.core.products.shelf import sample
    >>> motors(sample(), 1026.0).power_w.tolist()
    [1200.0]
    """
    rows = []
    for item in shelf.motors:
        m = item.spec
        prop = m.propulsor(density)
        low, high = m.window_v()
        rows.append(
            (
                m.input_power_w,
                m.weight_kg,
                item.price,
                low,
                high,
                prop.diameter_m,
                prop.pitch_m,
                prop.shaft_rev_s,
                prop.loss_factor,
                m.leg_area_m2,
                float(static_thrust_n(m.input_power_w, prop.diameter_m, prop.loss_factor, density)),
                m.controller_max_a or np.inf,
                item.noise_db if item.noise_db is not None else np.nan,
            )
        )
    return Motors(*np.array(rows, dtype=float).reshape(len(rows), 13).T)


@dataclass(frozen=True)
class Drives:
    """Motor × shaft × mount in index arrays (D,), with the reason against each motor that has
    none.
    """

    motor: Index
    mount: Index
    shaft_m: Array  # nan: adjustable
    mass_kg: Array
    price: Array
    plate_m: Array  # plate below the hull bottom; nan where it does not apply
    hands_free: Mask
    rejected: dict[int, Finding]


def drives(need: Need, shelf: Shelf, m: Motors) -> Drives:
    """Every motor with every shaft on every mount that the boat, the plate and the mount allow.

    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> drives(need, sample(), motors(sample(), 1026.0)).shaft_m.tolist()
    [0.381, 0.508]
    """
    pairs = [(i, s) for i, item in enumerate(shelf.motors) for s in item.shafts_m or (np.nan,)]
    mi = np.array([p[0] for p in pairs], dtype=int)
    shaft = np.array([p[1] for p in pairs], dtype=float)
    mounts = [item.spec for item in shelf.mounts]
    site, hull = need.site, need.hull

    def column(values: Any) -> Array:
        return np.array(list(values), dtype=float)[None, :]

    placed = np.array(
        [
            k.general.place in site.places
            and (not k.general.families or hull.family in k.general.families)
            for k in mounts
        ],
        dtype=bool,
    )[None, :]
    style = np.array(
        [[shelf.motors[i].style in k.general.styles for k in mounts] for i, _ in pairs], dtype=bool
    ).reshape(len(pairs), len(mounts))
    on_transom = np.array([k.general.place in TRANSOM_PLACES for k in mounts], dtype=bool)[None, :]
    seat = hull.transom_m - column(k.drop_m for k in mounts)
    plate = np.where(on_transom & ~np.isnan(shaft)[:, None], shaft[:, None] - seat, np.nan)
    mass = m.mass_kg[mi][:, None] + column(k.mass_kg for k in mounts)
    thick = site.transom_thickness_m
    thin = np.array(
        [
            thick is None
            or k.general.place != "transom"
            or k.transom_min_m <= thick <= k.transom_max_m
            for k in mounts
        ],
        dtype=bool,
    )[None, :]
    power_cap = min(x for x in (hull.max_power_w, site.approval_power_w, np.inf) if x is not None)
    rules: list[tuple[str, Mask]] = [
        (
            "plate-power",
            np.broadcast_to((m.power_w[mi] <= power_cap * (1 + 1e-9))[:, None], style.shape),
        ),
        (
            "approval-thrust",
            np.broadcast_to(
                (m.thrust_n[mi] <= (site.approval_thrust_n or np.inf))[:, None], style.shape
            ),
        ),
        ("mount-style", style),
        ("mount-place", np.broadcast_to(placed, style.shape)),
        ("motor-mass", mass <= (site.max_motor_kg or np.inf)),
        ("mount-motor-mass", m.mass_kg[mi][:, None] <= column(k.max_motor_kg for k in mounts)),
        ("mount-thrust", m.thrust_n[mi][:, None] <= column(k.max_thrust_n for k in mounts)),
        ("mount-transom", np.broadcast_to(thin, style.shape)),
        ("shaft-short", ~(plate < 0)),
    ]
    valid = (
        np.logical_and.reduce([ok for _, ok in rules])
        if mounts
        else np.zeros(style.shape, dtype=bool)
    )
    pair, mount = np.nonzero(valid)
    driven = set(mi[pair].tolist())
    rejected = {
        i: _why_no_drive(need, shelf, i, mi == i, rules, plate, m)
        for i in range(len(shelf.motors))
        if i not in driven
    }
    return Drives(
        mi[pair],
        mount,
        shaft[pair],
        mass[pair, mount],
        m.price[mi[pair]] + np.array([shelf.mounts[j].price for j in mount], dtype=float),
        plate[pair, mount],
        np.array([mounts[j].hands_free for j in mount], dtype=bool),
        rejected,
    )


def _why_no_drive(
    need: Need,
    shelf: Shelf,
    i: int,
    rows: Mask,
    rules: list[tuple[str, Mask]],
    plate: Array,
    m: Motors,
) -> Finding:
    """The rule that binds: the one that still fails on the mount where the most others hold."""
    left = np.ones(rules[0][1][rows].shape, dtype=bool)
    item, site = shelf.motors[i], need.site
    if not shelf.mounts:
        return find("no-mount", style=item.style, places=", ".join(site.places) or "none")
    for rule, ok in rules:
        now = left & ok[rows]
        if not now.any():
            j = int(np.nonzero(left.any(axis=0))[0][0]) if left.any() else 0
            mount = shelf.mounts[j].spec if shelf.mounts else None
            if (
                rule == "plate-power"
                and site.approval_power_w is not None
                and m.power_w[i] > site.approval_power_w
            ):
                return find("approval-power", m.power_w[i], site.approval_power_w)
            if rule == "plate-power":
                return find(rule, m.power_w[i], need.hull.max_power_w)
            if rule == "approval-thrust":
                return find(rule, m.thrust_n[i], site.approval_thrust_n)
            if rule == "shaft-short":
                short = -1000 * np.nanmax(np.where(left, plate[rows], np.nan))
                return find(rule, -short / 1000, 0.0, short=float(np.ceil(np.round(short, 3))))
            if rule == "motor-mass":
                return find(rule, m.mass_kg[i], site.max_motor_kg)
            if rule == "mount-motor-mass":
                best = max(
                    shelf.mounts[k].spec.max_motor_kg for k in np.nonzero(left.any(axis=0))[0]
                )
                return find(rule, m.mass_kg[i], best)
            if rule == "mount-thrust":
                best = max(
                    shelf.mounts[k].spec.max_thrust_n for k in np.nonzero(left.any(axis=0))[0]
                )
                return find(rule, m.thrust_n[i], best)
            if rule == "mount-transom" and mount:
                return find(
                    rule,
                    1000 * (site.transom_thickness_m or 0),
                    low=1000 * mount.transom_min_m,
                    high=1000 * mount.transom_max_m,
                )
            return find("no-mount", style=item.style, places=", ".join(site.places) or "none")
        left = now
    return find("no-mount", style=item.style, places=", ".join(site.places) or "none")


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

    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.products.shelf import sample
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


def compatible(shelf: Shelf, m: Motors, s: Supplies) -> dict[str, Mask]:
    """Rule id → (M, B) array that is True where motor and supply pass it.

    >>> from jolvek.core.hydro.hull import Hull, Load; from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> m = motors(sample(), 1026.0)
    >>> compatible(sample(), m, supplies(need, sample(), m))["voltage-high"].all().item()
    True
    """
    volts = s.nominal_v[None, :]
    watts = np.minimum(m.power_w[:, None], m.controller_a[:, None] * volts)
    ids = [item.id for item in shelf.batteries]
    locked = {pack for item in shelf.motors for pack in item.pack_ids}
    own = np.array(
        [
            [
                ids[b] in item.pack_ids if item.pack_ids else ids[b] not in locked
                for b in range(len(ids))
            ]
            for item in shelf.motors
        ],
        dtype=bool,
    ).reshape(len(shelf.motors), len(ids))
    single = (
        np.array([not item.pack_ids for item in shelf.motors], dtype=bool)[:, None]
        | (s.series * s.parallel == 1)[None, :]
    )
    return {
        "pack-own": (
            own[:, s.battery] & single if len(ids) else np.zeros((len(shelf.motors), 0), dtype=bool)
        ),
        "voltage-high": s.full_v[None, :] <= m.v_max[:, None] * (1 + 1e-9),
        "voltage-low": volts >= m.v_min[:, None] * (1 - 1e-9),
        "current-continuous": watts / volts <= s.continuous_a[None, :] * (1 + 1e-9),
    }
