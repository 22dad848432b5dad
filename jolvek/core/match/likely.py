"""How likely each candidate does the day, with what is not known of the boat."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.enquiry.sizing import size
from jolvek.core.match.matching import Match
from jolvek.core.predict.likelihood import CONFIDENCE, chance, z_of


def likely(match: Match, rows: ArrayLike) -> Array:
    """Chance that candidates `rows` come home with the reserve, any shape, at the requested speeds:
    as the day of one setup says it, from what is left at both ends of the doubt (`Outing.chance`).
    The doubt is of the boat with a usual motor. 0 where a leg cannot be run as requested.

    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> likely(match(need, sample()), [0]).round(2).tolist()
    [0.9]
    """
    i, f, need = np.asarray(rows, dtype=int), match.field, match.need
    doubt, trip = size(need).doubt, need.day.trip
    weights = np.array([max(leg.seconds, 1.0) * leg.speed_m_s**3 for leg in trip])
    sigma = float(np.average(doubt.sigma_at([leg.speed_m_s for leg in trip]), weights=weights))
    able = np.isfinite(f.day_wh[i])
    takes = np.maximum(np.where(able, f.day_wh[i], 1.0), 1e-6)
    has = 1 + np.where(able, f.spare_wh[i], 0.0) / takes
    z = z_of(CONFIDENCE)
    hard, middle, easy = has - np.exp(z * sigma), has - 1, has - np.exp(-z * sigma)
    above = z * middle / np.maximum(middle - hard, 1e-9)
    below = z * middle / np.maximum(easy - middle, 1e-9)
    at = np.clip(np.where(middle >= 0, above, below), -z, z)
    return np.where(able, chance(at, 1.0), 0.0)
