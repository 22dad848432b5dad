"""How long a charge takes: constant current, then a falling one."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.electric.chemistry import Chemistry

TAIL_FROM = {True: 0.90, False: 0.80}  # constant current up to here: lithium, lead
TAIL_TIME_H = {True: 0.35, False: 3.0}  # time constant of the falling current


def charge_time_h(
    capacity_ah: ArrayLike,
    current_a: ArrayLike,
    chem: Chemistry,
    start_soc: ArrayLike = 0.2,
    end_soc: ArrayLike = 1.0,
) -> Array:
    """Hours to charge a capacity (Ah) with a current (A) between two states of charge; broadcasts.

    Constant current to 90 % (lithium) or 80 % (lead), then a current falling exponentially, taken
    as full at 99 %. Charge efficiency by chemistry. Jolvek's own simplification of CC–CV charging.

    >>> from jolvek.core.electric.chemistry import chemistry
    >>> round(float(charge_time_h(50, 7.0, chemistry("lfp"))), 1)
    6.0
    """
    lithium = chem.lithium
    knee, efficiency = TAIL_FROM[lithium], chem.charge_efficiency
    start, end = (
        np.asarray(start_soc, dtype=float),
        np.minimum(np.asarray(end_soc, dtype=float), 0.995),
    )
    rate = (
        np.asarray(current_a, dtype=float) * efficiency / np.asarray(capacity_ah, dtype=float)
    )  # SoC per hour
    bulk = np.maximum(np.minimum(end, knee) - start, 0.0) / rate
    left0 = 1.0 - np.maximum(start, knee)
    left1 = np.maximum(1.0 - end, 0.01)
    tau = np.minimum((1 - knee) / rate, TAIL_TIME_H[lithium])  # slow chargers hardly taper
    tail = np.where(
        end > np.maximum(start, knee), tau * np.log(np.maximum(left0 / left1, 1.0)), 0.0
    )
    return np.asarray(bulk + tail)
