"""Boats times catalogue: every setup of every enquiry on a shelf, block by block by `match`."""

from __future__ import annotations

from collections.abc import Sequence
from typing import Any

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.enquiry.need import Need
from jolvek.core.match.matching import match
from jolvek.core.products.shelf import Shelf

NO_LIMIT = 10**9  # setups of one enquiry that are kept: all
FIGURES = (
    "displacement_kg",
    "top_speed_m_s",
    "power_at_wish_w",
    "range_m",
    "runtime_s",
    "price",
    "mass_kg",
    "lift_kg",
    "charge_h",
    "noise_db",
    "day_wh",
    "spare_wh",
)
PARTS = ("motor", "battery", "mount", "charger")


def setups_of(number: int, need: Need, shelf: Shelf) -> dict[str, Array]:
    """Every setup of one enquiry as columns of one length: `enquiry` its number, places of motor,
    battery, mount and charger in the shelf's lists (−1: none), packs in series and strings in
    parallel, shaft in m, the figures of FIGURES in SI, `does_day`. The same for the same arguments
    wherever it runs: one pass of `match`, nothing left out.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> found = setups_of(7, need, sample())
    >>> set(found["enquiry"].tolist()), found["price"].size == found["motor"].size
    ({7}, True)
    """
    found = match(need, shelf, most=NO_LIMIT)
    f, d, s = found.field, found.drives, found.supplies
    n = f.price.size
    out: dict[str, Array] = {"enquiry": np.full(n, number, dtype=np.int32)}
    if n:
        places = (d.motor[f.drive], s.battery[f.supply], d.mount[f.drive], s.charger[f.supply])
        out |= {k: np.asarray(v, dtype=np.int32) for k, v in zip(PARTS, places, strict=True)}
        out["series"] = np.asarray(s.series[f.supply], dtype=np.int16)
        out["parallel"] = np.asarray(s.parallel[f.supply], dtype=np.int16)
        out["shaft_m"] = np.asarray(d.shaft_m[f.drive], dtype=float)
    else:
        out |= {k: np.zeros(0, dtype=np.int32) for k in PARTS}
        out |= {k: np.zeros(0, dtype=np.int16) for k in ("series", "parallel")}
        out["shaft_m"] = np.zeros(0)
    out |= {k: np.asarray(getattr(f, k), dtype=float) for k in FIGURES}
    out["does_day"] = np.asarray(f.does_day, dtype=bool)
    return out


def block(asked: Sequence[tuple[int, Need]], shelf: Shelf) -> dict[str, Array]:
    """The setups of some enquiries, one after the other.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> two = block([(1, need), (2, need)], sample())
    >>> sorted(set(two["enquiry"].tolist()))
    [1, 2]
    """
    found = [setups_of(number, need, shelf) for number, need in asked]
    return {key: np.concatenate([x[key] for x in found]) for key in found[0]}


def blocks(count: int, size: int) -> list[tuple[int, int]]:
    """First and last (not in it) of each block of so many enquiries.

    >>> blocks(5, 2)
    [(0, 2), (2, 4), (4, 5)]
    """
    return [(i, min(i + size, count)) for i in range(0, count, size)]


def titles(shelf: Shelf) -> dict[str, list[str]]:
    """The products' titles by part, in the order of the places.

    >>> from jolvek.core.products.shelf import sample
    >>> sorted(titles(sample()))
    ['battery', 'charger', 'motor', 'mount']
    """
    pools: tuple[Sequence[Any], ...] = (shelf.motors, shelf.batteries, shelf.mounts, shelf.chargers)
    return {k: [x.title for x in pool] for k, pool in zip(PARTS, pools, strict=True)}
