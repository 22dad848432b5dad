"""The field: every candidate setup in arrays."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from jolvek.core.base.arrays import Array, Index, Mask


@dataclass(frozen=True)
class Field:
    """All candidate setups in arrays (N,), SI; `curve_speed_m_s` (P,) and `curve_power_w` (N,
    P).
    """

    drive: Index
    supply: Index
    displacement_kg: Array
    top_speed_m_s: Array
    power_at_wish_w: Array  # nan where the wanted speed is out of reach
    range_m: Array  # at the wanted speed, or the top speed where it is out of reach
    runtime_s: Array
    price: Array  # that ranks and counts against a budget: fitted, or parts only
    parts_price: Array
    fitted_price: Array
    mass_kg: Array
    lift_kg: Array
    charge_h: Array
    noise_db: Array
    day_wh: Array  # what the day takes between two charges; inf where a leg cannot be run
    spare_wh: Array  # left over it with the reserve kept
    does_day: Mask
    curve_speed_m_s: Array
    curve_power_w: NDArray[np.float32] | None


def empty_field() -> Field:
    """The field of no candidates.

    >>> empty_field().price.size
    0
    """
    none, index = np.zeros(0), np.zeros(0, dtype=int)
    no = np.zeros(0, dtype=bool)
    return Field(index, index, *(none,) * 14, no, none, None)
