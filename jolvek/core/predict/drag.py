"""All that holds a setup back: hull, leg and wind, waves, shallows and a boat in tow."""

from __future__ import annotations

from functools import lru_cache

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.families import family, typical_beam_m, typical_mass_kg
from jolvek.core.hydro.floating import float_at
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.resistance import Resistance, remembered_table, total_n
from jolvek.core.hydro.seaway import added_in_waves_n, shallow_loss
from jolvek.core.hydro.water import Water
from jolvek.core.predict.setup import Setup

TOWED = "rigid_dinghy"
MIDSHIP = 0.8  # of beam times draught; common practice, no source


def drag_n(setup: Setup, resistance: Resistance, speed_m_s: ArrayLike) -> Array:
    """Resistance in N at speeds through the water (any shape); negative where the wind drives her.

    Sources and validity as `resistance` and `seaway`. In shallow water she drags as she would at
    the speed that the same power gives in deep water, and never less than at her own: past a hump
    the faster of the two drags less.

    >>> from jolvek.core.products.motor import Motor
    >>> s = Setup(Hull("rigid_dinghy", 3.2, 1.45, 65), Load(2), Motor(1000))
    >>> r = remembered_table(s.hull, s.water, s.displacement_kg, s.load)
    >>> towing = Setup(s.hull, s.load, s.motor, tow_length_m=2.4)
    >>> float(drag_n(towing, r, 1.5)) > float(drag_n(s, r, 1.5)) + 5
    True
    """
    s, v = setup, np.asarray(speed_m_s, dtype=float)
    rho, mass = s.water.density_kg_m3, s.displacement_kg
    as_deep = v
    if s.depth_m is not None:
        floats = float_at(s.hull, mass, rho)
        wide = s.hull.body_waterline_beam_m * s.hull.body_count
        midship = MIDSHIP * wide * float(floats.draught_m)
        as_deep = v / (1 - shallow_loss(v, midship, max(s.depth_m, float(floats.draught_m))))
    area = s.motor.leg_area_m2
    drag = total_n(resistance, as_deep, mass, s.wind_m_s, area)
    if s.depth_m is not None:
        drag = np.maximum(drag, total_n(resistance, v, mass, s.wind_m_s, area))
    if s.wave_height_m:
        drag = drag + added_in_waves_n(s.hull, s.wave_height_m, s.wave_from_deg, rho)
    if s.tow_length_m:
        towed = _towed(s.tow_length_m, s.water)
        drag = drag + total_n(towed, v, towed.displacement_kg[0], s.wind_m_s)
    return np.asarray(s.drag_factor * drag)


@lru_cache(maxsize=16)
def _towed(length_m: float, water: Water) -> Resistance:
    """An empty dinghy of that length, as usual; it never planes."""
    fam = family(TOWED)
    mass = typical_mass_kg(fam, length_m)
    hull = Hull(TOWED, length_m, typical_beam_m(fam, length_m), mass)
    return remembered_table(hull, water, mass, Load(0))
