"""What a set of enquiries asks of a shelf: for each enquiry, which products together do her day."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass

import numpy as np
import scipy  # its parts are imported when they are first used

from jolvek.core.base.messages import msg
from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.sizing import size
from jolvek.core.match.matching import Match, match
from jolvek.core.products.shelf import Shelf

KINDS = ("motors", "batteries", "mounts", "chargers")


@dataclass(frozen=True, order=True)
class Product:
    """One product that may be stocked: its kind, id, title, and what it ties up in stock."""

    kind: str
    id: str
    title: str
    stock_value: float


@dataclass(frozen=True)
class Demand:
    """Enquiries against products: `sets` (S, P) is true where a setup needs a product, `does`
    (E, S) where a setup does an enquiry's day; weights (E,) of the enquiries.
    """

    names: tuple[str, ...]
    weights: np.ndarray
    products: tuple[Product, ...]
    sets: scipy.sparse.csr_matrix
    does: scipy.sparse.csr_matrix
    lacking: tuple[str, ...]  # what an enquiry that nothing serves would take; empty where served

    @property
    def total(self) -> float:
        """Weight of all enquiries."""
        return float(self.weights.sum())

    def coverage(self, chosen: np.ndarray) -> float:
        """Weight of the enquiries whose day some setup of the chosen products (P,) does."""
        return float(self.weights[self.served(chosen)].sum())

    def served(self, chosen: np.ndarray) -> np.ndarray:
        """Which enquiries (E,) are served by the chosen products."""
        if not self.sets.shape[0]:
            return np.zeros(len(self.names), dtype=bool)
        needed = np.asarray(self.sets.sum(axis=1)).ravel()
        there = self.sets @ np.asarray(chosen, dtype=float) >= needed - 1e-9
        return np.asarray(self.does @ there.astype(float) > 0)

    def value(self, chosen: np.ndarray) -> float:
        """What the chosen products tie up."""
        worth = np.array([p.stock_value for p in self.products])
        return float(worth[np.asarray(chosen, dtype=bool)].sum())


def setups_that_do(found: Match) -> set[tuple[str, ...]]:
    """The products, as (kind, id) in KINDS' order, of every setup of a match that does the day; own
    gear of a customer needs no stock.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> len(setups_that_do(match(need, sample()))) > 0
    True
    """
    f, d, s, shelf = found.field, found.drives, found.supplies, found.shelf
    if not f.price.size:
        return set()
    at = np.nonzero(f.does_day)[0]
    rows = np.stack(
        [
            d.motor[f.drive[at]],
            s.battery[f.supply[at]],
            d.mount[f.drive[at]],
            s.charger[f.supply[at]],
        ],
        axis=1,
    )
    lists = (shelf.motors, shelf.batteries, shelf.mounts, shelf.chargers)
    out = set()
    for row in np.unique(rows, axis=0):
        items = [(k, pool[i]) for k, pool, i in zip(KINDS, lists, row, strict=True) if i >= 0]
        out.add(tuple(f"{k} {x.id}" for k, x in items if not x.own))
    return out


def lacks(need: Need) -> str:
    """What a motor and bank would have to be for a day that nothing does, in words.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> lacks(Need(Hull("kayak", 3.7, 0.78, 34), Load(1)))[:24]
    'a motor of about 0.15 kW'
    """
    s = size(need)
    if s.no_way:
        return msg("no motor: the current is as fast as the boat is wanted to be")
    return msg(
        "a motor of about %(motor)s kW with a bank of about %(energy)s kWh (lithium), light "
        "enough for a %(text)s of %(length)s m",
        motor=f"{s.motor_w / 1000:.2g}",
        energy=f"{s.energy_wh / 1000:.2g}",
        text=need.hull.fam.label,
        length=f"{need.hull.length_m:.1f}",
    )


def demand(
    asked: Iterable[tuple[str, float, Need, set[tuple[str, ...]]]],
    shelf: Shelf,
    worth: Mapping[str, float] | None = None,
) -> Demand:
    """From enquiries, each with its name, weight, need and the setups that do her day.

    `worth` by product id: what one ties up in stock, as its buying price; its price if not told.

    >>> demand([], Shelf()).total
    0.0
    """
    rows = list(asked)
    sets = sorted({x for _, _, _, found in rows for x in found})
    products = _products(shelf, {key for x in sets for key in x}, worth or {})
    at = {f"{p.kind} {p.id}": i for i, p in enumerate(products)}
    where = {x: i for i, x in enumerate(sets)}
    return Demand(
        tuple(name for name, _, _, _ in rows),
        np.array([w for _, w, _, _ in rows], dtype=float),
        products,
        _matrix([[at[key] for key in x] for x in sets], len(products)),
        _matrix([[where[x] for x in found] for _, _, _, found in rows], len(sets)),
        tuple("" if found else lacks(need) for _, _, need, found in rows),
    )


def _products(shelf: Shelf, used: set[str], worth: Mapping[str, float]) -> tuple[Product, ...]:
    out = []
    for kind in KINDS:
        for item in getattr(shelf, kind):
            if f"{kind} {item.id}" in used:
                ties_up = worth.get(item.id, item.price)
                out.append(Product(kind, item.id, item.title, ties_up))
    return tuple(out)


def _matrix(rows: list[list[int]], width: int) -> scipy.sparse.csr_matrix:
    """A matrix of ones at the columns of each row."""
    ends = np.cumsum([0, *(len(r) for r in rows)])
    columns = np.array([c for r in rows for c in r], dtype=int)
    return scipy.sparse.csr_matrix((np.ones(columns.size), columns, ends), shape=(len(rows), width))


def of_enquiries(asked: Iterable[tuple[str, float, Need]], shelf: Shelf) -> Demand:
    """The demand of enquiries on a shelf, each matched in turn.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> d = of_enquiries([("one", 1.0, need)], sample())
    >>> d.coverage(np.ones(len(d.products))), d.coverage(np.zeros(len(d.products)))
    (1.0, 0.0)
    """
    found = ((name, w, need, setups_that_do(match(need, shelf))) for name, w, need in asked)
    return demand(found, shelf)


def sample_demand() -> Demand:
    """Three enquiries and two motors, two packs, for examples.

    >>> sample_demand().total
    3.0
    """
    products = tuple(
        Product(kind, name, name, value)
        for kind, name, value in (
            ("motors", "m1", 10.0),
            ("motors", "m2", 40.0),
            ("batteries", "b1", 20.0),
            ("batteries", "b2", 20.0),
        )
    )
    sets = _matrix([[0, 2], [0, 3], [1, 3]], 4)
    does = _matrix([[0], [1], [2]], 3)
    return Demand(("one", "two", "three"), np.ones(3), products, sets, does, ("", "", ""))
