"""A large catalogue holds many products of nearly the same figures: those that stand for the others
go on, before anything is paired. What a wholesaler lists is then no dearer to work out than what a
shop does.
"""

from __future__ import annotations

from collections.abc import Sequence

import numpy as np

from jolvek.core.base.arrays import Array, Index, Mask

MOST_MOTORS = 320
MOST_BATTERIES = 240
MOST_CHARGERS = 80
FINEST = 0.01  # share of the size within which products count as of the same size, at first
COARSEST = 1.0


def standing_for(
    group: Sequence[object], size: Array, costs: Sequence[Array], most: int, own: Mask | None = None
) -> Mask:
    """Which products (N,) stand for all: of each group and size, the least in each of the costs
    (N,). Sizes that differ by 1 % count as one, and by more until at most about `most` are left;
    all, where there are no more than that. `own` are kept whatever they are.

    >>> price = np.array([10.0, 8.0, 30.0])
    >>> standing_for("aab", np.array([1.0, 1.001, 1.0]), [price], 2).tolist()
    [False, True, True]
    """
    if size.size <= most:
        return np.ones(size.size, dtype=bool)
    names = {name: i for i, name in enumerate(dict.fromkeys(group))}
    kind = np.array([names[name] for name in group], dtype=np.int64)
    logs = np.log(np.maximum(np.nan_to_num(size), 1e-9))
    fineness = FINEST
    while True:
        place = np.floor((logs - logs.min()) / fineness).astype(np.int64)
        keep = _least(kind * (int(place.max()) + 1) + place, costs)
        if keep.sum() <= most or fineness > COARSEST:
            break
        fineness *= 1.4
    return keep if own is None else keep | own


def _least(cell: Index, costs: Sequence[Array]) -> Mask:
    """The least of each cost in each cell; what has no figure comes last."""
    keep = np.zeros(cell.size, dtype=bool)
    for cost in costs:
        order = np.lexsort((np.nan_to_num(cost, nan=np.inf), cell))
        starts = np.concatenate(([True], cell[order][1:] != cell[order][:-1]))
        keep[order[starts]] = True
    return keep
