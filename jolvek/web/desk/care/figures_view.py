"""What the shop's boats in service tell: promise against measured by family, faults by product,
hours to the first fault.
"""

from __future__ import annotations

import sqlite3
from collections import defaultdict
from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from jolvek.core.care.faults import SERVICE_FAULTS, FirstFault, first_fault
from jolvek.core.hydro.families import FAMILIES
from jolvek.store import service_faults, trials
from jolvek.store.shelf import titles
from jolvek.web.desk.care.fleet_view import hand_of
from jolvek.web.kit.drawings.figures_chart import Spread, first_fault_chart, promise_chart
from jolvek.web.kit.language import tr
from jolvek.web.stations.trial.view import promise_kept

MOST_TRIALS = 60  # the latest; each is worked out anew


@dataclass(frozen=True)
class FamilyFigures:
    """One family: boats tried, points, and where half of the points and the middle one lie."""

    name: str
    boats: int
    points: int
    low: float
    middle: float
    high: float


@dataclass(frozen=True)
class ProductFigures:
    """One product: its faults by kind, and how long boats ran before their first."""

    title: str
    faults: tuple[tuple[str, int, int], ...]  # what is seen, how many, open ones
    first: FirstFault | None


@dataclass(frozen=True)
class Figures:
    """All of it, and its pictures."""

    families: tuple[FamilyFigures, ...]
    products: tuple[ProductFigures, ...]
    promise: Markup
    first: Markup


def figures(conn: sqlite3.Connection) -> Figures:
    """Worked out from trials, trips and faults."""
    families, products = _families(conn), _products(conn)
    spreads = [Spread(f.name, f.points, f.low, f.middle, f.high) for f in families]
    curves = [(p.title, p.first) for p in products if p.first and p.first.faulted]
    return Figures(
        tuple(families),
        tuple(products),
        promise_chart(spreads) if spreads else Markup(""),
        first_fault_chart(curves[:4]) if curves else Markup(""),
    )


def _families(conn: sqlite3.Connection) -> list[FamilyFigures]:
    found: dict[str, list[list[float]]] = defaultdict(list)
    for trial in trials.latest_of_all(conn, MOST_TRIALS):
        hand = hand_of(conn, trial.enquiry_id)
        off = promise_kept(conn, trial, hand[1]) if hand else []
        if hand and off:
            found[hand[1].fitted.need.hull.family].append(off)
    out = []
    for family, boats in sorted(found.items()):
        low, middle, high = np.percentile(np.concatenate(boats), (25, 50, 75))
        name = FAMILIES[family].name if family in FAMILIES else family
        count = sum(len(b) for b in boats)
        out.append(FamilyFigures(name, len(boats), count, float(low), float(middle), float(high)))
    return out


def _products(conn: sqlite3.Connection) -> list[ProductFigures]:
    kinds: dict[str, list[tuple[str, int, int]]] = defaultdict(list)
    for product, kind, count, still_open in service_faults.by_product(conn):
        seen = SERVICE_FAULTS[kind].seen if kind in SERVICE_FAULTS else kind
        kinds[product].append((seen, count, still_open))
    hours = service_faults.first_hours(conn)
    known = titles(conn)
    out = []
    for product, found in kinds.items():
        ran = hours.get(product, [])
        first = first_fault([h for h, _ in ran], [had for _, had in ran]) if ran else None
        title = known.get(product, product) or tr("no part named")
        out.append(ProductFigures(title, tuple(found), first))
    return out
