"""How the form of a boat's resistance curve may differ from the prediction, speed by speed: a
smooth factor on the hull's resistance, of which a trial finds what its runs tell.

Source: the discrepancy of a model from the thing itself as a Gaussian process, Kennedy and O'Hagan
2001, "Bayesian calibration of computer models"; its size and length are Jolvek's own (docs/why.md).
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array

STEP = 0.3  # between nodes, in ln of the Froude number by length
NODES = np.log(0.1) + STEP * np.arange(12)
SIZE = 0.06  # 1σ of ln resistance
HUMP_SIZE, HUMP_AT, HUMP_WIDE = 0.05, np.log(0.6), 0.35  # more of hulls that plane, near the hump
LENGTH = 0.4  # of the correlation, in ln of the Froude number


def weights(log_froude: ArrayLike) -> Array:
    """What each node counts at ln V/√(g L) (…,) → (…, 12): between two nodes in a straight line,
    beyond the last as there.

    >>> weights(NODES[3]).round(9).tolist()[2:5], float(weights(-9.0)[0])
    ([0.0, 1.0, 0.0], 1.0)
    """
    at = np.clip((np.asarray(log_froude, dtype=float) - NODES[0]) / STEP, 0.0, len(NODES) - 1.0)
    return np.asarray(np.clip(1.0 - np.abs(at[..., None] - np.arange(len(NODES))), 0.0, None))


def covariance(planes: bool) -> Array:
    """Covariance of ln of the factor at the nodes (12, 12), before a trial; wider near the hump of
    hulls that plane.

    >>> round(float(np.sqrt(covariance(False)[0, 0])), 3)
    0.06
    """
    bump = np.exp(-(((NODES - HUMP_AT) / HUMP_WIDE) ** 2)) if planes else 0.0
    size = np.sqrt(SIZE**2 + (HUMP_SIZE * bump) ** 2) * np.ones(len(NODES))
    apart = (NODES[:, None] - NODES[None, :]) / LENGTH
    return np.asarray(size[:, None] * size[None, :] * np.exp(-0.5 * apart**2))


def factor(shape: tuple[float, ...], log_froude: ArrayLike) -> Array:
    """The factor on the hull's resistance at ln of the Froude number (any shape).

    >>> float(factor((), 0.3)), round(float(factor((0.1,) * 12, -2.0)), 3)
    (1.0, 1.105)
    """
    at = np.asarray(log_froude, dtype=float)
    return np.exp(np.interp(at, NODES, shape)) if shape else np.ones(at.shape)
