"""Friction of water along a hull."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array

ROUGHNESS_ALLOWANCE = 0.0004


def friction_coefficient(reynolds: ArrayLike) -> Array:
    """ITTC 1957 line C_f = 0.075/(log₁₀Re − 2)²; Re from 1e4 (any shape).

    Source: ITTC 1957 model-ship correlation line.

    >>> round(float(friction_coefficient(1e7)), 6)
    0.003
    """
    re = np.maximum(np.asarray(reynolds, dtype=float), 1e4)
    return np.asarray(0.075 / (np.log10(re) - 2.0) ** 2)
