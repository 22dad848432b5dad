"""How likely each candidate does the day, with what is not known of the boat."""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.enquiry.sizing import size
from jolvek.core.match.matching import Match
from jolvek.core.predict.likelihood import day_chance


def likely(match: Match, rows: ArrayLike) -> Array:
    """Chance that candidates `rows` do the day as wished, any shape; the doubt is of the boat with
    a usual motor, at the speeds of the day. 0 where a leg cannot be run.

    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> bool((likely(match(need, sample()), [0]) > 0.9).all())
    True
    """
    i, f, need = np.asarray(rows, dtype=int), match.field, match.need
    doubt, trip = size(need).doubt, need.day.trip
    weights = np.array([max(leg.seconds, 1.0) * leg.speed_m_s**3 for leg in trip])
    sigma = float(np.average(doubt.sigma_at([leg.speed_m_s for leg in trip]), weights=weights))
    fastest = max(leg.speed_m_s for leg in trip)
    able = np.isfinite(f.day_wh[i])
    takes = np.maximum(np.where(able, f.day_wh[i], 1.0), 1e-6)
    energy = np.where(able, 1 + np.where(able, f.spare_wh[i], 0.0) / takes, 0.0)
    top = np.maximum(f.top_speed_m_s[i], 1e-6)
    return day_chance(energy, sigma, fastest / top, doubt.sigma_at(top))
