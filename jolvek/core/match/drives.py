"""Drives: motor × shaft × mount that may hang on a boat, and why the others may not."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from jolvek.core.base.arrays import Array, Index, Mask
from jolvek.core.enquiry.need import Need
from jolvek.core.match.motors import Motors
from jolvek.core.products.mounting import TRANSOM_PLACES
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
