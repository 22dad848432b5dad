"""Candidates by facet, and which of them the filters of the Shortlist leave."""

from __future__ import annotations

import numpy as np

from jolvek.core.base.arrays import Index, Mask
from jolvek.core.base.messages import msg
from jolvek.core.match.matching import Match
from jolvek.web.stations.shortlist.narrowing import Filters

CLIPS, SEPARATE = msg("clips on"), msg("own bank")


def facet_values(match: Match) -> dict[str, tuple[Index, list[str]]]:
    """Facet → (value index of each candidate (N,), names)."""
    f, d, s, shelf = match.field, match.drives, match.supplies, match.shelf
    motor, battery = d.motor[f.drive], s.battery[f.supply]

    def named(per_item: list[str], index: Index) -> tuple[Index, list[str]]:
        names = sorted(set(per_item))
        places = np.array([names.index(x) for x in per_item], dtype=int)
        return (places[index] if per_item else index), names

    clips = [CLIPS if item.pack_ids else SEPARATE for item in shelf.motors]
    return {
        "volt": named([f"{item.spec.voltage_v or 0:g} V" for item in shelf.motors], motor),
        "place": named(clips, motor),
        "chem": named([item.spec.chem.name for item in shelf.batteries], battery),
        "mount": named([item.spec.general.name for item in shelf.mounts], d.mount[f.drive]),
        "maker": named([item.maker for item in shelf.motors], motor),
    }


def narrowed(match: Match, filters: Filters) -> Mask:
    """Which candidates (N,) the filters leave."""
    f = match.field
    keep = np.ones(f.price.size, dtype=bool)
    values = facet_values(match) if filters.facets else {}
    for key, wanted in filters.facets.items():
        index, names = values[key]
        keep &= index == (names.index(wanted) if wanted in names else -1)
    if filters.price_min is not None:
        keep &= f.price >= filters.price_min
    if filters.price_max is not None:
        keep &= f.price <= filters.price_max
    if filters.range_min_m is not None:
        keep &= f.range_m >= filters.range_min_m
    if filters.range_max_m is not None:
        keep &= f.range_m <= filters.range_max_m
    return keep
