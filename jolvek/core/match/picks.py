"""Named picks: the best of each kind among setups that one would put on such a boat, and what a
pick misses of the wishes where none keeps them all.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from jolvek.core.base.arrays import Array, Index, Mask
from jolvek.core.base.told import tell
from jolvek.core.match.matching import Match
from jolvek.core.match.ranking import score
from jolvek.core.predict import power_limit

KIT_SHARE = 0.4  # of the boat with its people; common practice, no source
TRANSOM_SHARE = 0.8  # of the beam, where the transom's width is not given; common practice
WATTS_PER_KG = 12.0  # of all that floats, for hulls that do not plane; common practice, no source


@dataclass(frozen=True)
class Pick:
    """A candidate chosen for one reason, and what of the wishes it misses: (what, figure, limit)
    with what being charge (h), kit (share of the boat with its people) or power (W).
    """

    id: str
    title: str
    index: int
    misses: tuple[tuple[str, float, float], ...] = ()


def most_power_w(match: Match) -> Array:
    """The power (N,) beyond which nobody would choose a motor for this boat: the formula for small
    planing boats, or watts for each kilogram afloat.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match as run
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.products.shelf import sample
    >>> m = run(Need(Hull("rigid_dinghy", 2.35, 1.3, 38, transom_height_m=.36), Load(2)), sample())
    >>> most_power_w(m).round().max().item()
    2237.0
    """
    need, afloat = match.need, match.field.displacement_kg
    hull, site = need.hull, need.site
    if hull.max_power_w is not None:
        return np.full(afloat.shape, hull.max_power_w)
    if not power_limit.applies(hull):
        return np.asarray(WATTS_PER_KG * afloat)
    width = site.transom_width_m or TRANSOM_SHARE * hull.beam_m
    flat, remote = hull.family == "flat_bottom", site.remote_steering
    return np.full(
        afloat.shape, power_limit.most_w(hull.length_m, width, flat, remote, hull.transom_m)
    )


def _wishes(match: Match) -> list[tuple[str, Array, Array]]:
    """What a pick should keep beside doing the day: (what, figures, limits), arrays (N,)."""
    need, f, one = match.need, match.field, np.ones(match.field.price.size)
    boat = need.hull.mass_kg + need.load.total_kg
    watts = match.motors.facts.power_w[match.drives.motor[f.drive]]
    return [
        ("power", watts, most_power_w(match)),
        ("kit", f.mass_kg / boat, KIT_SHARE * one),
        ("charge", np.where(np.isnan(f.charge_h), 0.0, f.charge_h), need.day.charge_h * one),
    ]


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
    wishes = _wishes(match)
    among = _among(f.does_day, wishes)
    in_hand = -(f.range_m / max(match.need.day.distance_m, 1.0)) / f.price
    rows = [
        ("cheapest", tell("cheapest"), f.price),
        ("lightest", tell("lightest to carry"), f.lift_kg + 0.01 * f.mass_kg),
        ("furthest", tell("goes farthest"), -f.range_m),
        ("fastest", tell("fastest"), -f.top_speed_m_s),
        ("reserve", tell("most range for the price"), in_hand),
    ]
    if match.need.day.budget:
        rows.append(("budget", tell("best for the budget"), -score(match)))
    return [_pick(key, title, _least(value, f.price, among), wishes) for key, title, value in rows]


def _among(does_day: Mask, wishes: list[tuple[str, Array, Array]]) -> Index:
    """Those that keep as many wishes as any does, given up from the last to the first."""
    for kept in range(len(wishes), -1, -1):
        keep = does_day.copy()
        for _, figure, limit in wishes[:kept]:
            keep &= figure <= limit * (1 + 1e-9)
        if keep.any():
            return np.nonzero(keep)[0]
    return np.nonzero(does_day)[0]


def _pick(key: str, title: str, i: int, wishes: list[tuple[str, Array, Array]]) -> Pick:
    missed = [(what, float(x[i]), float(most[i])) for what, x, most in wishes if x[i] > most[i]]
    return Pick(key, title, i, tuple(missed))


def _least(value: Array, price: Array, rows: Index) -> int:
    """The row with the least value, the cheapest among equals (to the third decimal)."""
    rounded = np.round(value[rows], 3)
    best = rows[rounded == rounded.min()]
    return int(best[np.argmin(price[best])])
