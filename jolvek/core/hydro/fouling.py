"""What grows on a bottom, and how much more friction it makes."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array

BOTTOMS = {"clean": 1.0, "slime": 1.2, "weed": 1.5}  # on friction; common practice, no source
# months in salt water without paint that keeps growth off, and the friction then; common
# practice, no source
MONTHS, FRICTION = (0.0, 0.5, 1.0, 2.0, 6.0, 12.0), (1.0, 1.04, 1.1, 1.2, 1.5, 1.8)
GROWS = {"salt": 1.0, "fresh": 0.5}  # how quick, against salt water; common practice, no source


def grown(months: ArrayLike, kind: str = "salt") -> Array:
    """Friction over that of a clean bottom after so many months afloat (any shape) in a kind of
    water; a boat kept ashore has none. Past a year it stays as it is.

    >>> float(grown(2.0)), float(grown(2.0, "fresh")), float(grown(0.0))
    (1.2, 1.1, 1.0)
    """
    return np.asarray(np.interp(np.asarray(months, dtype=float) * GROWS[kind], MONTHS, FRICTION))


def bottom_factor(bottom: str, months: float | None, kind: str) -> float:
    """Friction over a clean bottom's, as seen or by the months afloat, whichever is more.

    >>> bottom_factor("slime", None, "salt"), bottom_factor("slime", 6.0, "salt")
    (1.2, 1.5)
    """
    return max(BOTTOMS[bottom], float(grown(months or 0.0, kind)))
