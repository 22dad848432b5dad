"""How the boat lies with each candidate: trim and heel over arrays, by core/fit/trim."""

from __future__ import annotations

import numpy as np

from jolvek.core.base.arrays import Array, Index
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.hanging import motor_above_m, motor_ahead_m
from jolvek.core.fit.level import lies
from jolvek.core.fit.stowage import CLIPPED_ABOVE_M
from jolvek.core.fit.trim import Weight, crew, moments_kg_m
from jolvek.core.hydro.floating import level_m
from jolvek.core.match.banks import Supplies
from jolvek.core.match.drives import Drives
from jolvek.core.products.shelf import Shelf


def angles_deg(
    need: Need, shelf: Shelf, d: Drives, s: Supplies, drive: Index, supply: Index, mass_kg: Array
) -> tuple[Array, Array]:
    """Trim and heel (N,) of candidates by drive and supply, before they are held.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import allowed_pairs
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> _, d, s, _, p = allowed_pairs(need, sample())
    >>> found = angles_deg(need, sample(), d, s, p.drive, p.supply, p.displacement_kg)
    >>> found[0].round(1).tolist()[0], found[1].max()
    (0.3, np.float64(0.0))
    """
    hull = need.hull
    bare = Weight("hull", hull.mass_kg, level_m(hull), 0.0, 0.45 * hull.depth_m)
    fixed = np.array(moments_kg_m([bare, *crew(hull, need.load)]))
    mounts = [item.spec for item in shelf.mounts]
    hung = np.array([(motor_ahead_m(need, k), k.offset_m, motor_above_m(need, k)) for k in mounts])
    hung = hung.reshape(len(mounts), 3)
    at = hung[d.mount]  # (D, 3)
    drives = fixed + d.mass_kg[:, None] * at
    clips = np.isnan(s.moments_kg_m[:, 0])
    banks = np.where(clips[:, None], 0.0, s.moments_kg_m)
    riding_kg = np.where(clips, s.mass_kg, 0.0)[supply] if clips.any() else None
    rides = at + np.array([0.0, 0.0, CLIPPED_ABOVE_M])

    def centre(k: int) -> Array:
        if not drives[:, k].any() and not banks[:, k].any():
            return np.zeros(1)  # everything on the centre line
        total = drives[:, k][drive] + banks[:, k][supply]
        if riding_kg is not None:
            total += riding_kg * rides[:, k][drive]
        return np.asarray(total / mass_kg)

    ahead, off, above = (centre(k) for k in range(3))
    found = lies(hull, mass_kg, ahead, off, above, need.water.density_kg_m3)
    return found.trim_deg, found.heel_deg
