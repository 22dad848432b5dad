"""Chances from margins and their doubt, and the words for them."""

from __future__ import annotations

from math import erf, sqrt

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.base.errors import ValueRefused

CONFIDENCE = 0.8  # of a band, where no other is asked
LIKELY, UNLIKELY = 0.8, 0.2


def z_of(confidence: float) -> float:
    """Standard deviations of a two-sided band of that share; 0.01 to 0.999, by bisection on erf.

    >>> round(z_of(0.8), 3), round(z_of(0.9), 3)
    (1.282, 1.645)
    """
    if not 0.01 <= confidence <= 0.999:
        raise ValueRefused("confidence", confidence, "0.01 to 0.999")
    low, high = 0.0, 4.0
    for _ in range(50):
        middle = 0.5 * (low + high)
        low, high = (middle, high) if erf(middle / sqrt(2)) < confidence else (low, middle)
    return low


def chance(margin: ArrayLike, sigma: ArrayLike) -> Array:
    """Chance that a margin (ln of what there is over what is needed) is above 0, for a doubt σ.

    >>> float(chance(0.0, 0.2)), round(float(chance(0.2, 0.2)), 2)
    (0.5, 0.84)
    """
    x = np.asarray(margin, dtype=float) / np.maximum(sigma, 1e-6) / sqrt(2)
    return np.asarray(0.5 * (1 + np.vectorize(erf)(np.clip(x, -6, 6))))


def in_words(probability: float) -> str:
    """likely, open or unlikely.

    >>> [in_words(p) for p in (0.95, 0.5, 0.1)]
    ['likely', 'open', 'unlikely']
    """
    if probability >= LIKELY:
        return "likely"
    return "unlikely" if probability <= UNLIKELY else "open"
