"""Pairs: which drives and banks may be joined, rule by rule, and carried by the boat."""

from __future__ import annotations

from collections.abc import Set
from dataclasses import dataclass

import numpy as np

from jolvek.core.base.arrays import Array, Index
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fit_facts import setup_facts
from jolvek.core.match.banks import Supplies
from jolvek.core.match.drives import Drives
from jolvek.core.match.lying import angles_deg
from jolvek.core.match.motors import Motors
from jolvek.core.match.thinning import thin
from jolvek.core.products.pair_facts import pair_facts
from jolvek.core.products.shelf import Shelf, compatible_with_own_gear
from jolvek.core.rules.judge import Verdicts, allowed, judge


def compatible(shelf: Shelf, m: Motors, s: Supplies, rows: Index | None = None) -> Verdicts:
    """Rule id → what it finds of every motor with every supply (M, B), or of the motors `rows`.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.banks import supplies
    >>> from jolvek.core.match.motors import motors
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> m = motors(sample(), 1026.0)
    >>> compatible(sample(), m, supplies(need, sample(), m))["voltage-high"].ok.all().item()
    True
    """
    rows = np.arange(len(shelf.motors)) if rows is None else rows
    these = [shelf.motors[i] for i in rows]
    packs, place = np.unique(s.battery, return_inverse=True)
    own = compatible_with_own_gear(these, [shelf.batteries[k] for k in packs])[:, place]
    single = (
        np.array([not item.pack_ids for item in these], dtype=bool)[:, None]
        | (s.series * s.parallel == 1)[None, :]
    )
    return judge("pair", pair_facts(m.facts.of(rows), s.facts, own & single))


@dataclass(frozen=True)
class Pairs:
    """Candidates (N,) as rows of drives and supplies, with the mass afloat; what thinning beat."""

    drive: Index
    supply: Index
    displacement_kg: Array
    thinned: bool = False
    beaten: Set[int] = frozenset()  # batteries that thinning left out altogether


def joined(
    need: Need, shelf: Shelf, d: Drives, s: Supplies, verdicts: Verdicts, most: int
) -> Pairs:
    """Every drive with every supply that passes all rules and floats, thinned to about `most`.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.banks import supplies
    >>> from jolvek.core.match.drives import drives
    >>> from jolvek.core.match.motors import motors
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> m = motors(sample(), 1026.0)
    >>> d, s = drives(need, sample(), m), supplies(need, sample(), m)
    >>> joined(need, sample(), d, s, compatible(sample(), m, s), 100).drive.size
    8
    """
    motors_n = verdicts["pack-own"].ok.shape[0]
    place = np.searchsorted(np.unique(d.motor), d.motor)
    may = allowed(verdicts, (motors_n, s.battery.size))[place]
    thinned, beaten = int(may.sum()) > most, frozenset[int]()
    if thinned:
        before = set(s.battery[may.any(axis=0)].tolist())
        may = thin(may, d, s, most)
        beaten = frozenset(before - set(s.battery[may.any(axis=0)].tolist()))
    drive, supply = np.nonzero(may)
    mass = need.hull.mass_kg + need.load.total_kg + d.mass_kg[drive] + s.mass_kg[supply]
    angles = angles_deg(need, shelf, d, s, drive, supply, mass)
    floats = allowed(judge("setup", setup_facts(need, mass, *angles)), mass.shape)
    return Pairs(drive[floats], supply[floats], mass[floats], thinned, beaten)
