"""Choosing an assortment: most customers' days served within a sum tied up in stock, as a maximum
coverage problem by HiGHS (scipy.optimize.milp), with a greedy choice and a bound as checks.
"""

from __future__ import annotations

from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

import numpy as np
import scipy  # its parts are imported when they are first used

from jolvek.core.assort.demand import KINDS, Demand

PATIENCE_S = 10.0
MOST_SWAPS = 12


@dataclass(frozen=True)
class Chosen:
    """Products that are stocked (P,), the weight they serve, what they tie up, and the most that
    any choice can serve as far as it was proven.
    """

    stocked: np.ndarray
    coverage: float
    value: float
    bound: float

    @property
    def proven(self) -> bool:
        """Whether nothing better exists."""
        return bool(self.bound <= self.coverage + 1e-6)


FLOOR_SLACK = 1e-9  # at the solver's own tolerance, 1e-6, it ends in an error now and then


def best(
    d: Demand,
    budget: float = np.inf,
    most: Mapping[str, int] | None = None,
    keep: Sequence[str] = (),
    patience_s: float = PATIENCE_S,
    whole: bool = True,
) -> Chosen:
    """The assortment that serves most within a budget and at `most` so many products a kind; those
    of `keep` (ids) are in it. Of equal ones the cheaper. Stops at `patience_s` with what is proven.
    Without `whole` products may be stocked in part: no choice, but a bound for every one.

    x stocks a product, y makes a setup (y ≤ x of each of its products), z serves an enquiry
    (z ≤ Σ y of the setups that do her day): y and z need not be whole, since x is. Where the time
    is up first, the better of that and of the greedy choice, improved by swaps.

    >>> from jolvek.core.assort.demand import sample_demand
    >>> c = best(sample_demand(), budget=50)
    >>> c.coverage, c.value, c.proven
    (2.0, 50.0, True)
    """
    n_p, n_s, n_e = len(d.products), d.sets.shape[0], len(d.names)
    kept = np.array([p.id in keep for p in d.products], dtype=bool)
    if not n_s:
        return Chosen(kept, 0.0, d.value(kept), 0.0)
    worth = np.array([p.stock_value for p in d.products])
    gain = np.concatenate([np.zeros(n_p + n_s), d.weights])
    limits = _limits(d, worth, budget, most or {})
    found = _solved(-gain, kept, limits, n_s + n_e, patience_s, whole)
    result = found.mip_dual_bound if whole else found.fun
    bound = d.total if result is None else min(-float(result), d.total)
    stocked = kept if found.x is None else found.x[:n_p] > 0.5
    if whole and bound > d.coverage(stocked) + 1e-6:
        by_hand = _swapped(d, _grown(d, kept, budget, most or {}), kept, budget, most or {})
        stocked = max((stocked, by_hand), key=d.coverage)
    elif whole:
        floor = scipy.optimize.LinearConstraint(gain[None, :], lb=d.coverage(stocked) - FLOOR_SLACK)
        spent = np.concatenate([worth, np.zeros(n_s + n_e)])
        cheaper = _solved(spent, kept, [*limits, floor], n_s + n_e, patience_s, whole)
        stocked = stocked if cheaper.x is None else cheaper.x[:n_p] > 0.5
    stocked = _lean(d, stocked, kept) if whole else stocked
    return Chosen(stocked, d.coverage(stocked), d.value(stocked), bound)


def _lean(d: Demand, stocked: np.ndarray, kept: np.ndarray) -> np.ndarray:
    """Without what serves nobody more, the dearest dropped first."""
    now = d.coverage(stocked)
    worth = np.array([p.stock_value for p in d.products])
    for i in sorted(np.nonzero(stocked & ~kept)[0], key=lambda i: -worth[i]):
        other = stocked.copy()
        other[i] = False
        if d.coverage(other) >= now - 1e-9:
            stocked = other
    return stocked


def _solved(
    aim: np.ndarray,
    kept: np.ndarray,
    limits: list[scipy.optimize.LinearConstraint],
    rest: int,
    patience_s: float,
    whole: bool,
) -> Any:
    """The least of an aim over x (P,) and the rest (y and z)."""
    low = np.concatenate([kept.astype(float), np.zeros(rest)])
    return scipy.optimize.milp(
        aim,
        integrality=np.concatenate([np.full(kept.size, float(whole)), np.zeros(rest)]),
        bounds=scipy.optimize.Bounds(low, np.ones(low.size)),
        constraints=limits,
        options={"time_limit": patience_s, "mip_rel_gap": 0.0},
    )


def _limits(
    d: Demand, worth: np.ndarray, budget: float, most: Mapping[str, int]
) -> list[scipy.optimize.LinearConstraint]:
    n_p, n_s, n_e = len(d.products), d.sets.shape[0], len(d.names)
    entries = d.sets.tocoo()
    n = entries.row.size
    rows = np.arange(n)
    y_of = scipy.sparse.csr_matrix((np.ones(n), (rows, entries.row)), shape=(n, n_s))
    x_of = scipy.sparse.csr_matrix((np.ones(n), (rows, entries.col)), shape=(n, n_p))
    made = scipy.sparse.bmat([[-x_of, y_of, scipy.sparse.csr_matrix((n, n_e))]])
    served = scipy.sparse.bmat(
        [[scipy.sparse.csr_matrix((n_e, n_p)), -d.does, scipy.sparse.identity(n_e)]]
    )
    rows_of = [(made, 0.0), (served, 0.0), *((cut, 0.0) for cut in _each_kind(d))]
    tail = np.zeros(n_s + n_e)
    if np.isfinite(budget):
        rows_of.append((np.concatenate([worth, tail])[None, :], budget))
    for kind, count in most.items():
        of_kind = np.array([float(p.kind == kind) for p in d.products])
        rows_of.append((np.concatenate([of_kind, tail])[None, :], float(count)))
    return [scipy.optimize.LinearConstraint(a, ub=b) for a, b in rows_of]


def _each_kind(d: Demand) -> Iterator[scipy.sparse.csr_matrix]:
    """That an enquiry is served by no more than there are products of each kind that her setups
    need: says nothing new of whole products, and much of parts of them.
    """
    n_e, n_s = len(d.names), d.sets.shape[0]
    setups = np.asarray(d.does.sum(axis=1)).ravel()
    for kind in KINDS:
        of_kind = scipy.sparse.csr_matrix(np.diag([float(p.kind == kind) for p in d.products]))
        mine = d.sets @ of_kind
        has = np.asarray(mine.sum(axis=1)).ravel() > 0
        needed = (setups > 0) & (np.asarray(d.does @ has.astype(float)).ravel() >= setups)
        if needed.any():
            x = (d.does @ mine)[needed]
            x.data[:] = 1.0
            blank = scipy.sparse.csr_matrix((int(needed.sum()), n_s))
            yield scipy.sparse.bmat([[-x, blank, scipy.sparse.identity(n_e, format="csr")[needed]]])


def greedy(d: Demand, budget: float = np.inf, most: Mapping[str, int] | None = None) -> Chosen:
    """A setup at a time, whichever serves most more for what it ties up more; its bound is that of
    products stocked in part (a linear programme), which no choice passes.

    >>> from jolvek.core.assort.demand import sample_demand
    >>> greedy(sample_demand(), budget=50).coverage <= 2
    True
    """
    none = np.zeros(len(d.products), dtype=bool)
    stocked = _grown(d, none, budget, most or {})
    bound = best(d, budget, most, whole=False).bound
    return Chosen(stocked, d.coverage(stocked), d.value(stocked), bound)


def _grown(d: Demand, start: np.ndarray, budget: float, most: Mapping[str, int]) -> np.ndarray:
    """What is stocked and more, a setup at a time."""
    stocked = start.copy()
    worth = np.array([p.stock_value for p in d.products])
    of_kind = np.array([[p.kind == k for k in KINDS] for p in d.products], dtype=float)
    limits = np.array([most.get(k, np.inf) for k in KINDS])
    needs = d.sets.astype(bool).toarray()
    while True:
        more = needs & ~stocked
        cost = more @ worth
        counts = more.astype(float) @ of_kind + stocked.astype(float) @ of_kind
        fits = (d.value(stocked) + cost <= budget + 1e-9) & (counts <= limits).all(axis=1)
        gain = np.asarray(d.does.T @ (d.weights * ~d.served(stocked))).ravel()
        score = np.where(fits & more.any(axis=1), gain / np.maximum(cost, 1e-9), 0.0)
        if not score.size or score.max() <= 0:
            return stocked
        stocked = stocked | needs[int(np.argmax(score))]


def _swapped(
    d: Demand, stocked: np.ndarray, kept: np.ndarray, budget: float, most: Mapping[str, int]
) -> np.ndarray:
    """Better by dropping a product and growing again, as long as that serves more."""
    for _ in range(MOST_SWAPS):
        now = d.coverage(stocked)
        for i in np.nonzero(stocked & ~kept)[0]:
            other = stocked.copy()
            other[i] = False
            other = _grown(d, other, budget, most)
            if d.coverage(other) > now + 1e-9:
                stocked = other
                break
        else:
            return stocked
    return stocked


def pareto(
    d: Demand, steps: int = 10, most: Mapping[str, int] | None = None, patience_s: float = 3.0
) -> list[Chosen]:
    """Coverage against stock value: the best choice at rising budgets, up to all that can be
    served; none that ties up more and serves no more.

    >>> from jolvek.core.assort.demand import sample_demand
    >>> [(c.coverage, c.value) for c in pareto(sample_demand(), 4)]
    [(1.0, 30.0), (2.0, 50.0), (3.0, 90.0)]
    """
    whole = best(d, most=most, patience_s=patience_s)
    out: list[Chosen] = []
    for i in range(1, steps + 1):
        budget = whole.value * i / steps
        c = whole if i == steps else best(d, budget, most, patience_s=patience_s)
        if out and out[-1].coverage >= c.coverage:
            continue
        if c.coverage > 0:
            out.append(c)
    return out


@dataclass(frozen=True)
class Change:
    """What adding (or dropping) one product changes: weight served and value tied up."""

    index: int
    served: float
    value: float


def changes(d: Demand, stocked: np.ndarray) -> list[Change]:
    """For each product: one that is stocked dropped, one that is not added; most first.

    >>> from jolvek.core.assort.demand import sample_demand
    >>> d = sample_demand()
    >>> [c.served for c in changes(d, np.ones(len(d.products), dtype=bool))][:2]
    [-2.0, -2.0]
    """
    now = d.coverage(stocked)
    out = []
    for i, p in enumerate(d.products):
        other = stocked.copy()
        other[i] = not other[i]
        sign = 1.0 if other[i] else -1.0
        out.append(Change(i, d.coverage(other) - now, sign * p.stock_value))
    return sorted(out, key=lambda c: (-abs(c.served), c.index))
