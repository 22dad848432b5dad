"""What a pair of cables does to a compass."""

from __future__ import annotations

from math import pi, radians, sqrt, tan

EARTH_T = 18e-6  # horizontal field in northern Europe, from memory
COPPER_SHARE = 0.5  # of a cable's width; common practice, no source


def clear_m(current_a: float, size_mm2: float, turned_deg: float = 1.0) -> float:
    """Distance in m at which two cables side by side, there and back, turn a compass by so much.

    The field of two opposite currents a width apart: 2e-7 · I · width / distance² (Biot–Savart).

    >>> round(clear_m(60.0, 16.0), 2)
    0.59
    """
    width = 2 * sqrt(size_mm2 / pi) / 1000 / COPPER_SHARE
    return sqrt(2e-7 * current_a * width / (EARTH_T * tan(radians(turned_deg))))
