"""Drives: motor × shaft × mount that may hang on a boat, and why the others may not."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Any

import numpy as np

from jolvek.core.base.arrays import Array, Index, Mask
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fit_facts import Hung, drive_facts
from jolvek.core.match.folding import MOST_MOTORS, standing_for
from jolvek.core.match.motors import Motors
from jolvek.core.products.shelf import Shelf
from jolvek.core.products.unknown import shaft_unknown, weight_unknown
from jolvek.core.rules.findings import Finding, find
from jolvek.core.rules.judge import Verdicts, allowed, finding_of, judge, nearest, of_rows
from jolvek.core.rules.predicates import ROUNDING_M


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
    not_given: Mask  # of the motor's shaft or weight, or of a transom that would decide
    rejected: dict[int, Finding] = field(default_factory=dict)
    mounts_rejected: dict[int, Finding] = field(default_factory=dict)


def drives(need: Need, shelf: Shelf, m: Motors) -> Drives:
    """Every motor with every shaft on every mount that the boat, the plate and the mount allow.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.motors import motors
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> drives(need, sample(), motors(sample(), 1026.0)).shaft_m.tolist()
    [0.381, 0.508]
    """
    count, mounts = len(shelf.motors), [item.spec for item in shelf.mounts]
    pairs = [(i, s) for i, item in enumerate(shelf.motors) for s in item.shafts_m or (np.nan,)]
    large = len(pairs) * len(mounts) > MANY
    prices = np.array([item.price for item in shelf.mounts], dtype=float)
    rejected: dict[int, Finding] = {}
    used, parts = np.zeros(len(mounts), dtype=bool), []
    a_block = max(CELLS // max(len(mounts), 1), 1) if large else max(count, 1)
    for first in range(0, count, a_block):
        mine = [p for p in pairs if first <= p[0] < first + a_block]
        mi = np.array([p[0] for p in mine], dtype=int)
        shaft = np.array([p[1] for p in mine], dtype=float)
        facts = drive_facts(need, _hung(shelf, m, mi, shaft), mounts)
        verdicts, shape = judge("drive", facts), (mi.size, len(mounts))
        may = allowed(verdicts, shape)
        used |= may.any(axis=0)
        lacking = sorted(set(mi.tolist()) - set(mi[may.any(axis=1)].tolist()))
        rejected |= {
            i: _why_no_drive(need, shelf.motors[i].style, np.nonzero(mi == i)[0], verdicts, shape)
            for i in lacking
        }
        pair, mount = np.nonzero(_cheapest(may, prices) if large else may)
        hung_kg, plate_m = facts.hung_kg[pair, mount], facts.plate_m[pair, mount]
        covered = np.broadcast_to(facts.above_m, facts.plate_m.shape)[pair, mount]
        parts.append((mi[pair], mount, shaft[pair], hung_kg, plate_m, plate_m + covered))
    no_mount = _why_no_mount(need, shelf, m, pairs, used)
    made = replace(
        _joined(parts, shelf, m, need.hull.transom_height_m is None),
        rejected=rejected,
        mounts_rejected=no_mount,
    )
    return _folded(made, shelf, m) if count > MOST_MOTORS else made


def _joined(parts: list[Any], shelf: Shelf, m: Motors, estimated: bool) -> Drives:
    """The drives of all blocks, with what follows of motor and mount; where the transom is only
    estimated, a shaft that is short by it is not known to do.
    """
    whole = [np.concatenate(x) for x in zip(*parts, strict=True)] if parts else [np.zeros(0)] * 6
    motor, mount = whole[0].astype(int), whole[1].astype(int)
    hands_free = np.array([item.spec.hands_free for item in shelf.mounts], dtype=bool)
    prices = np.array([item.price for item in shelf.mounts], dtype=float)
    unknown = [shaft_unknown(x) or weight_unknown(x) for x in shelf.motors]
    too_short = estimated & (np.nan_to_num(whole[5], nan=1.0) < -ROUNDING_M)
    return Drives(
        motor,
        mount,
        whole[2],
        whole[3],
        m.price[motor] + prices[mount],
        whole[4],
        hands_free=hands_free[mount],
        not_given=np.array(unknown, dtype=bool)[motor] | too_short,
    )


MANY = 2_000_000  # motors with their shafts on mounts: from there on the cheapest mounts only
CELLS = 600_000  # of them judged at a time


def _hung(shelf: Shelf, m: Motors, motor: Index, shaft_m: Array) -> Hung:
    power, thrust, kilos, wide = (
        x[motor] for x in (m.power_w, m.thrust_n, m.mass_kg, m.diameter_m)
    )
    return Hung(power, thrust, kilos, wide, shaft_m, [shelf.motors[i].style for i in motor])


def _cheapest(may: Mask, prices: Array, most: int = 2) -> Mask:
    """Of each row's mounts those that cost least."""
    cost = np.where(may, prices[None, :], np.inf)
    few = min(most, may.shape[1])
    best = np.argpartition(cost, few - 1, axis=1)[:, :few]
    keep = np.zeros_like(may)
    np.put_along_axis(keep, best, True, axis=1)
    return keep & may


def _folded(d: Drives, shelf: Shelf, m: Motors) -> Drives:
    """The drives of those motors that stand for the others of nearly the same figures."""
    there = np.unique(d.motor)
    price = np.full(len(shelf.motors), np.inf)
    np.minimum.at(price, d.motor, d.price)
    items = [shelf.motors[i] for i in there]
    group = [(x.style, round(x.spec.voltage_v or 0), x.pack_ids) for x in items]
    known = np.where([weight_unknown(x) for x in shelf.motors], np.inf, m.mass_kg)
    figures = (price, known, -m.thrust_n, -m.loss_factor, m.noise_db)
    costs = [x[there] for x in figures]
    own = np.array([x.own for x in items], dtype=bool)
    stays = there[standing_for(group, m.power_w[there], costs, MOST_MOTORS, own)]
    keep = np.isin(d.motor, stays)
    left = {int(i): find("folded") for i in np.setdiff1d(there, stays)}
    return Drives(
        d.motor[keep],
        d.mount[keep],
        d.shaft_m[keep],
        d.mass_kg[keep],
        d.price[keep],
        d.plate_m[keep],
        hands_free=d.hands_free[keep],
        not_given=d.not_given[keep],
        rejected={**d.rejected, **left},
        mounts_rejected=d.mounts_rejected,
    )


def _why_no_drive(
    need: Need, style: str, rows: Index, verdicts: Verdicts, shape: tuple[int, int]
) -> Finding:
    """The rule that binds: the one that still fails where all before it hold, at its nearest."""
    nowhere = find("no-mount", style=style, places=", ".join(need.site.places) or "none")
    mine = (rows.size, shape[1])
    left = np.ones(mine, dtype=bool)
    if not left.any():
        return nowhere
    for rule, whole in verdicts.items():
        held = of_rows(whole, rows, shape)
        now = left & np.broadcast_to(held.ok, mine)
        if not now.any():
            if rule in ("mount-place", "mount-style"):
                return nowhere
            return finding_of(rule, held, nearest(held, left), mine)
        left = now
    return nowhere


def _why_no_mount(
    need: Need, shelf: Shelf, m: Motors, pairs: Sequence[tuple[int, float]], used: Mask
) -> dict[int, Finding]:
    """For every mount that carries no motor: what keeps the lightest motor of its kind off it."""
    out: dict[int, Finding] = {}
    lightest_of: dict[str, tuple[int, float]] = {}
    for i, shaft_m in pairs:
        style = shelf.motors[i].style
        if style not in lightest_of or m.mass_kg[i] < m.mass_kg[lightest_of[style][0]]:
            lightest_of[style] = (i, shaft_m)
    if not lightest_of or used.all():
        return out
    mi = np.array([p[0] for p in lightest_of.values()], dtype=int)
    shaft = np.array([p[1] for p in lightest_of.values()], dtype=float)
    mounts = [item.spec for item in shelf.mounts]
    verdicts = judge("drive", drive_facts(need, _hung(shelf, m, mi, shaft), mounts))
    shape = (mi.size, len(mounts))
    styled = np.broadcast_to(verdicts["mount-style"].ok, shape)
    for k in np.nonzero(~used)[0].tolist():
        rows = np.nonzero(styled[:, k])[0]
        order = rows if rows.size else np.arange(mi.size)
        lightest = int(order[np.argmin(m.mass_kg[mi[order]])])
        rule, held = next(
            (rule, held)
            for rule, held in verdicts.items()
            if not np.broadcast_to(held.ok, shape)[lightest, k]
        )
        out[k] = finding_of(rule, held, (lightest, k), shape)
    return out
