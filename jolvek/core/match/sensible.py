"""What a setup should keep beside doing the day: all of it known, and power, weight and hours that
suit the boat.
"""

from __future__ import annotations

import numpy as np

from jolvek.core.base.arrays import Array, Index, Mask
from jolvek.core.match.matching import Match
from jolvek.core.predict import capacity

KIT_SHARE = 0.4  # of the boat with its people; common practice, no source
WATTS_PER_KG = 12.0  # of all that floats, for hulls that do not plane; common practice, no source


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
    formula = capacity.most_power_w(hull, site.transom_width_m, site.remote_steering)
    return WATTS_PER_KG * afloat if formula is None else np.full(afloat.shape, formula)


def limits(match: Match) -> list[tuple[str, Array, Array]]:
    """What a setup should keep beside doing the day: (what, figures, limits), arrays (N,).

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match as run
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.products.shelf import sample
    >>> m = run(Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2)), sample())
    >>> [what for what, _, _ in limits(m)]
    ['given', 'power', 'load', 'kit', 'charge']
    """
    need, f, one = match.need, match.field, np.ones(match.field.price.size)
    boat = need.hull.mass_kg + need.load.total_kg
    watts = match.motors.facts.power_w[match.drives.motor[f.drive]]
    return [
        ("given", match.not_given.astype(float), 0.0 * one),
        ("power", watts, most_power_w(match)),
        ("load", f.displacement_kg - need.hull.mass_kg, _most_load_kg(match, watts)),
        ("kit", f.mass_kg / boat, KIT_SHARE * one),
        ("charge", np.where(np.isnan(f.charge_h), 0.0, f.charge_h), need.day.charge_h * one),
    ]


def _most_load_kg(match: Match, watts: Array) -> Array:
    """By the plate, or as boats without one likely bear, in kg (N,)."""
    hull, plate = match.need.hull, match.need.site.max_load_kg
    if plate is not None:
        return np.full(watts.shape, plate)
    small, large = (capacity.most_load_kg(hull, w) for w in (0.0, np.inf))
    return np.where(watts <= capacity.SMALL_MOTOR_W, small, large)


def _within(rows: Mask, found: list[tuple[str, Array, Array]]) -> Mask:
    """Those of some candidates (N,) that keep every one of the limits."""
    keep = rows.copy()
    for _, figure, limit in found:
        keep &= figure <= limit * (1 + 1e-9)
    return keep


def among(match: Match, rows: Mask) -> Index:
    """Those of some candidates (N,) that keep as many limits as any does, given up from the last to
    the first.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match as run
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.products.shelf import sample
    >>> m = run(Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2)), sample())
    >>> among(m, m.field.does_day).size > 0
    True
    """
    found = limits(match)
    for kept in range(len(found), -1, -1):
        keep = _within(rows, found[:kept])
        if keep.any():
            return np.nonzero(keep)[0]
    return np.nonzero(rows)[0]


def sensible(match: Match, rows: Mask) -> Index:
    """Those of some candidates (N,) that suit the boat: none, where none keeps its power, weight
    and hours; of them those of which all is known, where there are any.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match as run
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.products.shelf import sample
    >>> m = run(Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2)), sample())
    >>> sensible(m, m.field.does_day).size > 0
    True
    """
    keep = _within(rows, limits(match)[1:])
    known = keep & ~match.not_given
    return np.nonzero(known if known.any() else keep)[0]
