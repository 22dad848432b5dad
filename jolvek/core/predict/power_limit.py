"""The most power of a boat without a plate by the formula of 33 CFR 183.53 (typed from memory).
Local codes decide.
"""

from __future__ import annotations

import math

from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.base.units import FOOT_M, HORSEPOWER_W, INCH_M
from jolvek.core.hydro.hull import Hull

_STEPS = ((35, 3.0), (39, 5.0), (42, 7.5), (45, 10.0), (52, 15.0))
_TALL_TRANSOM_M = 20 * INCH_M
_OPEN_MOTORBOATS = ("rigid_dinghy", "rib", "flat_bottom", "skiff", "cabin")
LONGEST_M = 20 * FOOT_M


def applies(hull: Hull) -> bool:
    """Whether the formula is meant for this kind of hull: single-hulled motorboats under 20 ft; not
    inflatables, sail, canoes, kayaks.

    >>> applies(Hull("flat_bottom", 4.3, 1.6, 130)), applies(Hull("kayak", 3.7, 0.78, 34))
    (True, False)
    """
    return hull.family in _OPEN_MOTORBOATS and hull.length_m < LONGEST_M and hull.body_count == 1


def factor(length_m: float, transom_width_m: float) -> int:
    """Length in feet times transom width in feet, to the nearest whole number.

    >>> factor(4.3, 1.3)
    60
    """
    return math.floor(length_m / FOOT_M * transom_width_m / FOOT_M + 0.5)


def most_hp(
    length_m: float,
    transom_width_m: float,
    flat_bottom: bool = False,
    remote_steering: bool = False,
    transom_height_m: float = 0.381,
) -> float:
    """Most power in hp. Factor ≤ 35 → 3, ≤ 39 → 5, ≤ 42 → 7.5, ≤ 45 → 10, ≤ 52 → 15 (flat-bottom
    hard chine one step
    down); above, with remote steering and a transom of 20 in: 2f − 90, else flat-bottom 0.5f − 15,
    others 0.8f − 25, raised to the next 5. Source: 33 CFR 183.53. Raises ValueRefused for sizes
    that are none.

    >>> most_hp(4.3, 1.3), most_hp(4.3, 1.3, flat_bottom=True), most_hp(4.3, 1.3, False, True, 0.51)
    (25.0, 15.0, 30.0)
    """
    if not (0 < length_m < 30 and 0 < transom_width_m < 10):
        raise ValueRefused(
            "transom_width_m", transom_width_m, msg("a width above 0 and a length below 30 m")
        )
    f = factor(length_m, transom_width_m)
    if f <= 52:
        i = next(i for i, (top, _) in enumerate(_STEPS) if f <= top)
        return _STEPS[max(i - 1, 0) if flat_bottom else i][1]
    if remote_steering and transom_height_m >= _TALL_TRANSOM_M - 1e-9:
        raw = 2.0 * f - 90
    else:
        raw = 0.5 * f - 15 if flat_bottom else 0.8 * f - 25
    return 5.0 * math.ceil(raw / 5 - 1e-9)


def most_w(
    length_m: float,
    transom_width_m: float,
    flat_bottom: bool = False,
    remote_steering: bool = False,
    transom_height_m: float = 0.381,
) -> float:
    """The same in W. Errors and source as `most_hp`.

    >>> round(most_w(2.5, 1.1))
    2237
    """
    return (
        most_hp(length_m, transom_width_m, flat_bottom, remote_steering, transom_height_m)
        * HORSEPOWER_W
    )
