"""Pairs: which drives and banks may be joined, rule by rule, and carried by the boat."""

from __future__ import annotations

from collections.abc import Set
from dataclasses import dataclass

import numpy as np

from jolvek.core.base.arrays import Array, Index, Mask
from jolvek.core.enquiry.need import Need
from jolvek.core.hydro.floating import awash_kg
from jolvek.core.match.banks import Supplies
from jolvek.core.match.drives import Drives
from jolvek.core.match.motors import Motors
from jolvek.core.match.thinning import thin
from jolvek.core.products.shelf import Shelf


def compatible(shelf: Shelf, m: Motors, s: Supplies) -> dict[str, Mask]:
    """Rule id → (M, B) array that is True where motor and supply pass it.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.banks import supplies
    >>> from jolvek.core.match.motors import motors
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> m = motors(sample(), 1026.0)
    >>> compatible(sample(), m, supplies(need, sample(), m))["voltage-high"].all().item()
    True
    """
    volts = s.nominal_v[None, :]
    watts = np.minimum(m.power_w[:, None], m.controller_a[:, None] * volts)
    ids = [item.id for item in shelf.batteries]
    locked = {pack for item in shelf.motors for pack in item.pack_ids}
    own = np.array(
        [
            [
                ids[b] in item.pack_ids if item.pack_ids else ids[b] not in locked
                for b in range(len(ids))
            ]
            for item in shelf.motors
        ],
        dtype=bool,
    ).reshape(len(shelf.motors), len(ids))
    single = (
        np.array([not item.pack_ids for item in shelf.motors], dtype=bool)[:, None]
        | (s.series * s.parallel == 1)[None, :]
    )
    return {
        "pack-own": (
            own[:, s.battery] & single if len(ids) else np.zeros((len(shelf.motors), 0), dtype=bool)
        ),
        "voltage-high": s.full_v[None, :] <= m.v_max[:, None] * (1 + 1e-9),
        "voltage-low": volts >= m.v_min[:, None] * (1 - 1e-9),
        "current-continuous": watts / volts <= s.continuous_a[None, :] * (1 + 1e-9),
    }


@dataclass(frozen=True)
class Pairs:
    """Candidates (N,) as rows of drives and supplies, with the mass afloat; what thinning beat."""

    drive: Index
    supply: Index
    displacement_kg: Array
    thinned: bool = False
    beaten: Set[int] = frozenset()  # batteries that thinning left out altogether


def joined(need: Need, d: Drives, s: Supplies, passes: dict[str, Mask], most: int) -> Pairs:
    """Every drive with every supply that passes all rules and floats, thinned to about `most`.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.banks import supplies
    >>> from jolvek.core.match.drives import drives
    >>> from jolvek.core.match.motors import motors
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> m = motors(sample(), 1026.0)
    >>> d, s = drives(need, sample(), m), supplies(need, sample(), m)
    >>> joined(need, d, s, compatible(sample(), m, s), 100).drive.size
    8
    """
    may = np.zeros((d.motor.size, s.battery.size), dtype=bool)
    if may.size:
        may = np.logical_and.reduce(list(passes.values()))[d.motor]
    thinned, beaten = int(may.sum()) > most, frozenset[int]()
    if thinned:
        before = set(s.battery[may.any(axis=0)].tolist())
        may = thin(may, d, s, most)
        beaten = frozenset(before - set(s.battery[may.any(axis=0)].tolist()))
    drive, supply = np.nonzero(may)
    mass = need.hull.mass_kg + need.load.total_kg + d.mass_kg[drive] + s.mass_kg[supply]
    floats = mass < awash_kg(need.hull, need.water.density_kg_m3)
    if need.site.max_load_kg is not None:
        floats &= mass - need.hull.mass_kg <= need.site.max_load_kg
    return Pairs(drive[floats], supply[floats], mass[floats], thinned, beaten)
