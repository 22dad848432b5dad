"""Where people sit, and so where a boat's weight lies before any kit is chosen."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.floating import level_m
from jolvek.core.hydro.hull import Hull, Load

# where people sit: share of the length from the stern, the helm first; common practice, no source
SEATS: dict[str, tuple[float, ...]] = {
    "kayak": (0.47, 0.27),
    "canoe": (0.25, 0.7),
    "board": (0.5, 0.3),
    "sailing_dinghy": (0.24, 0.42),
    "rigid_dinghy": (0.25, 0.58),
    "inflatable_soft": (0.14, 0.40),
    "inflatable_air": (0.14, 0.40),
    "rib": (0.16, 0.40),
    "flat_bottom": (0.22, 0.5, 0.7),
    "skiff": (0.24, 0.55),
    "cabin": (0.2, 0.3),
    "keelboat": (0.17, 0.26),
    "multihull": (0.25, 0.4),
    "pontoon": (0.2, 0.34, 0.52, 0.66, 0.27, 0.41, 0.6, 0.74),
}
KIT_AT = 0.08  # motor and battery together, share of the length; usual, common practice, no source
NEAREST, FARTHEST = 0.30, 0.52  # people move until she lies between; shares of the length


def seats_m(hull: Hull, people: int) -> tuple[float, ...]:
    """Where people sit, m ahead of the stern, the helm first; beyond the family's seats spread
    along the boat.

    >>> seats_m(Hull("kayak", 4.0, 0.8, 30), 1)
    (1.88,)
    """
    known = SEATS[hull.family]
    more = [0.15 + 0.7 * i / 4 for i in range(max(0, people - len(known)))]
    return tuple(round(share * hull.length_m, 3) for share in (*known, *more)[:people])


def centre_m(hull: Hull, load: Load, displacement_kg: ArrayLike) -> Array:
    """Centre of gravity of the boat, m ahead of the stern, at displacements in kg (any shape):
    what is more than boat, people and gear is motor and battery, well aft.

    Kept between 0.30 and 0.52 of the length, where people would move; Jolvek's own estimate.

    >>> h = Hull("rigid_dinghy", 2.9, 1.45, 55)
    >>> centre_m(h, Load(2, 150), [240.0, 300.0]).round(2).tolist()
    [1.05, 0.88]
    """
    each = load.crew_kg / load.people if load.people else 0.0
    parts = [(hull.mass_kg, level_m(hull)), (load.gear_kg, 0.5 * hull.length_m)]
    parts += [(each, x) for x in seats_m(hull, load.people)]
    mass = sum(m for m, _ in parts)
    aboard = sum(m * x for m, x in parts) / mass
    kit = np.maximum(1 - mass / np.asarray(displacement_kg, dtype=float), 0.0)
    mean = (1 - kit) * aboard + kit * KIT_AT * hull.length_m
    return np.clip(mean, NEAREST * hull.length_m, FARTHEST * hull.length_m)
