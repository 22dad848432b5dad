"""Named picks: the best of each kind among setups that one would put on such a boat, and what a
pick misses of the wishes where none keeps them all.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from jolvek.core.base.arrays import Array, Index
from jolvek.core.base.messages import msg
from jolvek.core.match.matching import Match
from jolvek.core.match.ranking import score
from jolvek.core.match.sensible import among, limits


@dataclass(frozen=True)
class Pick:
    """A candidate chosen for one reason, and what of the wishes it misses: (what, figure, limit)
    with what being charge (h), kit (share of the boat with its people) or power (W).
    """

    id: str
    title: str
    index: int
    misses: tuple[tuple[str, float, float], ...] = ()


def picks(match: Match) -> list[Pick]:
    """Named picks among setups that do the day; empty where none does.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match as run
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.products.shelf import sample
    >>> m = run(Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2)), sample())
    >>> [p.id for p in picks(m)][:2]
    ['cheapest', 'lightest']
    """
    f = match.field
    does = np.nonzero(f.does_day)[0]
    if not does.size:
        return []
    wishes, chosen = limits(match), among(match, f.does_day)
    in_hand = -(f.range_m / max(match.need.day.distance_m, 1.0)) / f.price
    rows = [
        ("cheapest", msg("cheapest"), f.price),
        ("lightest", msg("lightest to carry"), f.lift_kg + 0.01 * f.mass_kg),
        ("furthest", msg("goes farthest"), -f.range_m),
        ("fastest", msg("fastest"), -f.top_speed_m_s),
        ("reserve", msg("most range for the price"), in_hand),
    ]
    if match.need.day.budget:
        rows.append(("budget", msg("best for the budget"), -score(match)))
    return [_pick(key, title, _least(value, f.price, chosen), wishes) for key, title, value in rows]


def _pick(key: str, title: str, i: int, wishes: list[tuple[str, Array, Array]]) -> Pick:
    missed = [(what, float(x[i]), float(most[i])) for what, x, most in wishes if x[i] > most[i]]
    return Pick(key, title, i, tuple(missed))


def _least(value: Array, price: Array, rows: Index) -> int:
    """The row with the least value, the cheapest among equals (to the third decimal)."""
    rounded = np.round(value[rows], 3)
    best = rows[rounded == rounded.min()]
    return int(best[np.argmin(price[best])])
