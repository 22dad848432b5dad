"""Drives: motor × shaft × mount that may hang on a boat, and why the others may not."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass

import numpy as np

from jolvek.core.base.arrays import Array, Index, Mask
from jolvek.core.enquiry.need import Need
from jolvek.core.match.motors import Motors
from jolvek.core.products.mounting import TRANSOM_PLACES, Mount
from jolvek.core.products.shelf import Shelf
from jolvek.core.rules.findings import Finding, find


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

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.motors import motors
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> drives(need, sample(), motors(sample(), 1026.0)).shaft_m.tolist()
    [0.381, 0.508]
    """
    pairs = [(i, s) for i, item in enumerate(shelf.motors) for s in item.shafts_m or (np.nan,)]
    mi = np.array([p[0] for p in pairs], dtype=int)
    shaft = np.array([p[1] for p in pairs], dtype=float)
    mounts = [item.spec for item in shelf.mounts]
    mass = m.mass_kg[mi][:, None] + _row(k.mass_kg for k in mounts)
    plate = _plates_m(need, mounts, shaft)
    rules = _rules(need, shelf, m, mi, mass, plate)
    valid = np.logical_and.reduce(list(rules.values())) if mounts else np.zeros(mass.shape, bool)
    pair, mount = np.nonzero(valid)
    driven = set(mi[pair].tolist())
    return Drives(
        mi[pair],
        mount,
        shaft[pair],
        mass[pair, mount],
        m.price[mi[pair]] + np.array([shelf.mounts[j].price for j in mount], dtype=float),
        plate[pair, mount],
        np.array([mounts[j].hands_free for j in mount], dtype=bool),
        {
            i: _why_no_drive(need, shelf, i, mi == i, rules, plate, m)
            for i in range(len(shelf.motors))
            if i not in driven
        },
    )


def _row(values: Iterable[float | bool]) -> Array:
    """One figure a mount, as (1, K)."""
    return np.array(list(values), dtype=float)[None, :]


def _plates_m(need: Need, mounts: list[Mount], shaft: Array) -> Array:
    """Depth (P, K) of the plate below the hull bottom; nan where it does not apply."""
    on_transom = _row(k.general.place in TRANSOM_PLACES for k in mounts) > 0
    seat = need.hull.transom_m - _row(k.drop_m for k in mounts)
    return np.where(on_transom & ~np.isnan(shaft)[:, None], shaft[:, None] - seat, np.nan)


def _rules(
    need: Need, shelf: Shelf, m: Motors, mi: Index, mass: Array, plate: Array
) -> dict[str, Mask]:
    """Rule id → (P, K) mask that is True where a motor with its shaft on a mount passes it."""
    site, hull, mounts = need.site, need.hull, [item.spec for item in shelf.mounts]
    power_cap = min(x for x in (hull.max_power_w, site.approval_power_w, np.inf) if x is not None)
    styles = [[shelf.motors[i].style in k.general.styles for k in mounts] for i in mi]
    placed = _row(
        k.general.place in site.places
        and (not k.general.families or hull.family in k.general.families)
        for k in mounts
    )
    thick = site.transom_thickness_m
    clamped = _row(
        thick is None or k.general.place != "transom" or k.transom_min_m <= thick <= k.transom_max_m
        for k in mounts
    )
    power, thrust, kilos = (x[mi][:, None] for x in (m.power_w, m.thrust_n, m.mass_kg))
    masks = {
        "plate-power": power <= power_cap * (1 + 1e-9),
        "approval-thrust": thrust <= (site.approval_thrust_n or np.inf),
        "mount-style": np.array(styles, dtype=bool).reshape(mass.shape),
        "mount-place": placed > 0,
        "motor-mass": mass <= (site.max_motor_kg or np.inf),
        "mount-motor-mass": kilos <= _row(k.max_motor_kg for k in mounts),
        "mount-thrust": thrust <= _row(k.max_thrust_n for k in mounts),
        "mount-transom": clamped > 0,
        "shaft-short": ~(plate < 0),
    }
    return {rule: np.broadcast_to(ok, mass.shape) for rule, ok in masks.items()}


def _why_no_drive(
    need: Need,
    shelf: Shelf,
    i: int,
    rows: Mask,
    rules: dict[str, Mask],
    plate: Array,
    m: Motors,
) -> Finding:
    """The rule that binds: the one that still fails on the mount where the most others hold."""
    item, site = shelf.motors[i], need.site
    nowhere = find("no-mount", style=item.style, places=", ".join(site.places) or "none")
    if not shelf.mounts:
        return nowhere
    left = np.ones((int(rows.sum()), len(shelf.mounts)), dtype=bool)
    for rule, ok in rules.items():
        now = left & ok[rows]
        if not now.any():
            mounts = [shelf.mounts[k].spec for k in np.nonzero(left.any(axis=0))[0]]
            best_plate = float(np.nanmax(np.where(left, plate[rows], np.nan), initial=-np.inf))
            return _said(rule, need, mounts, m, i, best_plate) or nowhere
        left = now
    return nowhere


def _said(
    rule: str, need: Need, mounts: list[Mount], m: Motors, i: int, plate: float
) -> Finding | None:
    """The finding of one rule against a motor on the mounts that were left for it."""
    site, power, thrust, kilos = need.site, m.power_w[i], m.thrust_n[i], m.mass_kg[i]
    if rule == "plate-power":
        if site.approval_power_w is not None and power > site.approval_power_w:
            return find("approval-power", power, site.approval_power_w)
        return find(rule, power, need.hull.max_power_w)
    if rule == "approval-thrust":
        return find(rule, thrust, site.approval_thrust_n)
    if rule == "motor-mass":
        return find(rule, kilos, site.max_motor_kg)
    if rule == "mount-motor-mass":
        return find(rule, kilos, max(k.max_motor_kg for k in mounts))
    if rule == "mount-thrust":
        return find(rule, thrust, max(k.max_thrust_n for k in mounts))
    if rule == "shaft-short":
        return find(rule, plate, 0.0, short=float(np.ceil(np.round(-1000 * plate, 3))))
    if rule == "mount-transom" and mounts:
        low, high = 1000 * mounts[0].transom_min_m, 1000 * mounts[0].transom_max_m
        return find(rule, 1000 * (site.transom_thickness_m or 0), low=low, high=high)
    return None
