"""Drives: motor × shaft × mount that may hang on a boat, and why the others may not."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from jolvek.core.base.arrays import Array, Index, Mask
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fit_facts import Hung, drive_facts
from jolvek.core.match.motors import Motors
from jolvek.core.products.shelf import Shelf
from jolvek.core.rules.findings import Finding, find
from jolvek.core.rules.judge import Verdicts, allowed, judge, nearest, said


@dataclass(frozen=True)
class Drives:
    """Motor × shaft × mount in index arrays (D,), with the reason against each motor and each
    mount that has none.
    """

    motor: Index
    mount: Index
    shaft_m: Array  # nan: adjustable
    mass_kg: Array
    price: Array
    plate_m: Array  # plate below the hull bottom; nan where it does not apply
    hands_free: Mask
    rejected: dict[int, Finding]
    mounts_rejected: dict[int, Finding]


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
    styles = [shelf.motors[i].style for i in mi]
    power, thrust, kilos, diameter = (
        x[mi] for x in (m.power_w, m.thrust_n, m.mass_kg, m.diameter_m)
    )
    hung = Hung(power, thrust, kilos, diameter, shaft, styles)
    facts = drive_facts(need, hung, mounts)
    verdicts, shape = judge("drive", facts), (mi.size, len(mounts))
    pair, mount = np.nonzero(allowed(verdicts, shape))
    driven = set(mi[pair].tolist())
    return Drives(
        mi[pair],
        mount,
        shaft[pair],
        facts.hung_kg[pair, mount],
        m.price[mi[pair]] + np.array([shelf.mounts[j].price for j in mount], dtype=float),
        facts.plate_m[pair, mount],
        np.array([mounts[j].hands_free for j in mount], dtype=bool),
        {
            i: _why_no_drive(need, shelf.motors[i].style, np.nonzero(mi == i)[0], verdicts, shape)
            for i in range(len(shelf.motors))
            if i not in driven
        },
        _why_no_mount(mi, set(mount.tolist()), m, verdicts, shape),
    )


def _why_no_drive(
    need: Need, style: str, rows: Index, verdicts: Verdicts, shape: tuple[int, int]
) -> Finding:
    """The rule that binds: the one that still fails where all before it hold, at its nearest."""
    nowhere = find("no-mount", style=style, places=", ".join(need.site.places) or "none")
    left = np.zeros(shape, dtype=bool)
    left[rows] = True
    if not left.any():
        return nowhere
    for rule, held in verdicts.items():
        now = left & np.broadcast_to(held.ok, shape)
        if not now.any():
            if rule in ("mount-place", "mount-style"):
                return nowhere
            return said(rule, held, nearest(held, left), shape)
        left = now
    return nowhere


def _why_no_mount(
    mi: Index, used: set[int], m: Motors, verdicts: Verdicts, shape: tuple[int, int]
) -> dict[int, Finding]:
    """For every mount that carries no motor: what keeps the lightest motor of its kind off it."""
    out: dict[int, Finding] = {}
    if not mi.size:
        return out
    styled = np.broadcast_to(verdicts["mount-style"].ok, shape)
    for k in sorted(set(range(shape[1])) - used):
        rows = np.nonzero(styled[:, k])[0]
        order = rows if rows.size else np.arange(mi.size)
        lightest = int(order[np.argmin(m.mass_kg[mi[order]])])
        rule, held = next(
            (rule, held)
            for rule, held in verdicts.items()
            if not np.broadcast_to(held.ok, shape)[lightest, k]
        )
        out[k] = said(rule, held, (lightest, k), shape)
    return out
