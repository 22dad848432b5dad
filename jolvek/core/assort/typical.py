"""A made set of typical enquiries by family and waters, for a shop that has none of its own yet.
The shares are Jolvek's own, no source; the boats are each family's usual ones.
"""

from __future__ import annotations

from collections.abc import Iterator

import numpy as np

from jolvek.core.enquiry.need import Day, Need
from jolvek.core.enquiry.site import Site, default_places
from jolvek.core.enquiry.sizing import typical_hull
from jolvek.core.hydro.families import FAMILIES, Family
from jolvek.core.hydro.floating import hull_speed_m_s
from jolvek.core.hydro.hull import Load
from jolvek.core.hydro.water import Water

SEED = 2026
SALT, PLANING = (
    0.6,
    0.2,
)  # shares of enquiries on salt water, and of planing hulls that want to plane
SPEED_OF_HULL = (0.55, 0.95)  # wanted, of the hull speed
HOURS = (0.7, 5.0)  # under way
PLANING_M_S, PLANING_HOURS, PLANING_PEOPLE = (4.5, 7.0), (0.3, 1.0), 2
PEOPLE = {"kayak": (1, 2), "canoe": (1, 2)}
USUAL_PEOPLE = (1, 4)


def typical(count: int, seed: int = SEED) -> Iterator[tuple[str, float, Need]]:
    """So many enquiries, each family as often as the others: name, weight 1, need.

    >>> [name for name, _, _ in typical(2)] == [name for name, _, _ in typical(2)]
    True
    >>> len(list(typical(30)))
    30
    """
    rng, families = np.random.default_rng(seed), list(FAMILIES.values())
    for i in range(count):
        family = families[i % len(families)]
        yield f"{family.name} {i + 1}", 1.0, _need(family, rng)


def _need(family: Family, rng: np.random.Generator) -> Need:
    low, high = family.length_min_m, family.length_max_m
    usual = family.typical_length_m
    length = float(np.clip(rng.normal(usual, 0.12 * usual), low, high))
    hull, _ = typical_hull(family.id, length)
    first, last = PEOPLE.get(family.id, USUAL_PEOPLE)
    planes = family.planes and rng.random() < PLANING
    last = min(last, PLANING_PEOPLE) if planes else last
    load = Load(int(rng.integers(first, last + 1)), gear_kg=float(rng.choice([0, 10, 25])))
    if planes:
        speed, hours = rng.uniform(*PLANING_M_S), rng.uniform(*PLANING_HOURS)
    else:
        limit = float(hull_speed_m_s(hull.waterline_m))
        speed, hours = limit * rng.uniform(*SPEED_OF_HULL), rng.uniform(*HOURS)
    water = Water("salt" if rng.random() < SALT else "fresh")
    day = Day(float(speed), float(speed * hours * 3600), wind_m_s=float(rng.choice([0, 2, 4, 6])))
    return Need(hull, load, Site(default_places(hull.family)), water=water, day=day)
