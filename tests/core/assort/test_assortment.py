"""The assortment: best against brute force, greedy and the bound; marginals; what serves whom."""

from itertools import product

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st
from scipy.sparse import csr_matrix

from jolvek import demo
from jolvek.core.assort import choose
from jolvek.core.assort.choose import best, changes, greedy, pareto
from jolvek.core.assort.demand import KINDS, Demand, Product, demand, of_enquiries, setups_that_do
from jolvek.core.assort.typical import typical
from jolvek.core.match.matching import match


def brute(d, budget, most):
    """The best of all 2^P choices, and the cheapest of those."""
    kinds = [p.kind for p in d.products]
    found = (0.0, 0.0)
    for bits in product((0, 1), repeat=len(d.products)):
        chosen = np.array(bits, dtype=bool)
        value = d.value(chosen)
        counts = {k: sum(b for b, kind in zip(bits, kinds, strict=True) if kind == k) for k in most}
        if value > budget + 1e-9 or any(counts[k] > n for k, n in most.items()):
            continue
        found = max(found, (d.coverage(chosen), -value))
    return found[0], -found[1]


@st.composite
def demands(draw):
    n_p, n_s, n_e = draw(st.integers(2, 8)), draw(st.integers(1, 7)), draw(st.integers(1, 6))
    products = tuple(
        Product(KINDS[i % 3], f"p{i}", f"p{i}", float(draw(st.integers(1, 9)))) for i in range(n_p)
    )
    cells = draw(st.lists(st.booleans(), min_size=n_s * n_p, max_size=n_s * n_p))
    sets = np.array(cells, dtype=float).reshape(n_s, n_p)
    sets[sets.sum(axis=1) == 0, 0] = 1
    cells = draw(st.lists(st.booleans(), min_size=n_e * n_s, max_size=n_e * n_s))
    does = np.array(cells, dtype=float).reshape(n_e, n_s)
    weights = np.array([float(draw(st.integers(1, 4))) for _ in range(n_e)])
    names = tuple(map(str, range(n_e)))
    return Demand(names, weights, products, csr_matrix(sets), csr_matrix(does), ("",) * n_e)


@settings(max_examples=60, deadline=None)
@given(demands(), st.integers(0, 40), st.integers(1, 3))
def test_the_best_is_brute_forces_and_between_greedy_and_the_bound(d, budget, motors):
    most = {"motors": motors}
    wanted, cheapest = brute(d, budget, most)
    c = best(d, budget, most)
    assert c.coverage == wanted and c.value == pytest.approx(cheapest)
    assert c.proven and c.bound >= c.coverage - 1e-6
    g = greedy(d, budget, most)
    assert g.value <= budget + 1e-9 and g.coverage <= wanted + 1e-9 <= g.bound + 1e-5


@settings(max_examples=25, deadline=None)
@given(demands())
def test_the_front_rises_and_each_point_is_the_best_at_its_value(d):
    front = pareto(d, 5)
    for a, b in zip(front, front[1:], strict=False):
        assert a.coverage < b.coverage and a.value < b.value
    for c in front:
        assert c.coverage == brute(d, c.value, {})[0]
    if front:
        assert front[-1].coverage == brute(d, np.inf, {})[0]


@settings(max_examples=25, deadline=None)
@given(demands())
def test_what_a_change_is_said_to_do_is_what_it_does(d):
    chosen = best(d, 12).stocked
    for c in changes(d, chosen):
        other = chosen.copy()
        other[c.index] ^= True
        assert d.coverage(other) - d.coverage(chosen) == c.served
        assert d.value(other) - d.value(chosen) == pytest.approx(c.value)


@settings(max_examples=25, deadline=None)
@given(demands())
def test_nothing_is_stocked_that_serves_nobody_more(d):
    whole = np.ones(len(d.products), dtype=bool)
    lean = choose._lean(d, whole, ~whole)
    assert d.coverage(lean) == d.coverage(whole)
    assert all(c.served < 0 for c in changes(d, lean) if lean[c.index])


def test_a_product_that_must_stay_stays():
    d = of_enquiries([("one", 1.0, demo.enquiries()[0].need)], demo.shelf())
    worst = max(d.products, key=lambda p: p.stock_value)
    assert best(d, keep=[worst.id]).stocked[d.products.index(worst)]
    assert best(d, budget=1.0).coverage == 0.0


def test_whom_the_demand_says_served_a_match_on_that_shelf_serves():
    shelf, asked = demo.shelf(), [(e.title, 1.0, e.need) for e in demo.enquiries()]
    d = of_enquiries(asked, shelf)
    chosen = best(d, 6000).stocked
    ids = {p.id for p, there in zip(d.products, chosen, strict=True) if there}
    few = shelf.__class__(
        **{
            **vars(shelf),
            **{k: tuple(x for x in getattr(shelf, k) if x.id in ids) for k in KINDS},
        }
    )
    for (_, _, need), served in zip(asked, d.served(chosen), strict=True):
        assert bool(match(need, few).field.does_day.any()) == served
    assert 0 < d.coverage(chosen) < len(asked)


def test_what_nothing_serves_says_what_would():
    need = demo.enquiries()[0].need
    d = demand(
        [
            ("served", 1.0, need, setups_that_do(match(need, demo.shelf()))),
            ("far", 2.0, need, set()),
        ],
        demo.shelf(),
    )
    assert d.lacking[0] == "" and "kWh" in d.lacking[1] and "kW with a bank" in d.lacking[1]
    assert d.total == 3.0 and d.coverage(np.ones(len(d.products))) == 1.0


def test_typical_enquiries_are_of_every_family_and_always_the_same():
    from jolvek.core.hydro.families import FAMILIES

    found = list(typical(3 * len(FAMILIES)))
    assert {need.hull.family for _, _, need in found} == set(FAMILIES)
    assert found == list(typical(3 * len(FAMILIES)))
    assert {need.water.kind for _, _, need in found} == {"salt", "fresh"}
    assert found != list(typical(3 * len(FAMILIES), seed=1))


def test_choices_on_which_the_solver_ends_in_an_error_at_its_own_tolerance_are_the_cheapest():
    sets = np.array([[0, 0, 0, 1, 0], [0, 0, 1, 0, 0], [1, 0, 0, 0, 0]], dtype=float)
    does = np.array([[0, 0, 1], [0, 0, 0], [0, 1, 1], [0, 1, 1], [1, 0, 0]], dtype=float)
    products = tuple(Product(KINDS[i % 3], f"p{i}", f"p{i}", 1.0) for i in range(5))
    weights, names = np.array([1.0, 1, 1, 2, 1]), tuple("abcde")
    d = Demand(names, weights, products, csr_matrix(sets), csr_matrix(does), ("",) * 5)
    c = best(d, 5, {"motors": 1})
    assert (c.coverage, c.value) == (4.0, 1.0)
