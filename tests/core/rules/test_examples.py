"""Every rule told by an example, and whether it can speak on a shelf."""

from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.fit.rule_reach import NEEDS, can_speak
from jolvek.core.match.matching import match
from jolvek.core.match.whole import fitted_of
from jolvek.core.products.shelf import Shelf
from jolvek.core.rules.examples import EXAMPLES
from jolvek.core.rules.findings import example, say
from jolvek.core.rules.rulebook import RULES

SHELF = demo.shelf()


def test_each_rule_has_one_example_and_no_example_is_left_over():
    assert set(EXAMPLES) == set(RULES)


@pytest.mark.parametrize("rule", RULES)
def test_an_example_breaks_its_rule_in_plain_figures(rule):
    result = example(rule)
    assert "{" not in result.text + result.cure and "nan" not in result.text
    figure, limit = result.figure, result.limit
    years = rule == "approval-year"
    if not years and isinstance(figure, int | float) and isinstance(limit, int | float) and limit:
        assert abs(figure - limit) > 0.01 * abs(limit), "not at the limit but past it"


@pytest.mark.parametrize("rule", ["plate-power", "too-slow", "plate-load", "approval-thrust"])
def test_an_example_is_told_in_the_readers_units(rule):
    units = {"power": "hp", "speed": "kn", "mass": "lb", "thrust": "lbf"}
    result = say(example(rule), units)
    assert result.text != example(rule).text
    assert any(unit in result.text for unit in units.values())


def test_on_an_empty_shelf_no_rule_of_products_can_speak():
    assert not [rule for rule in NEEDS if can_speak(rule, Shelf())]
    assert set(NEEDS) <= set(RULES)


def test_what_speaks_of_the_demos_setups_is_said_to_be_able_to():
    for e in demo.enquiries():
        m = match(e.need, SHELF)
        for i in range(0, m.field.price.size, max(1, m.field.price.size // 15)):
            f = fitted_of(m, i)
            for found in (*f.findings, *f.precautions):
                assert can_speak(found.rule, SHELF), found.rule


@pytest.mark.parametrize(
    ("rule", "kind", "change"),
    [
        ("noise", "motors", {"noise_db": None}),
        ("pack-own", "motors", {"pack_ids": ()}),
    ],
)
def test_a_rule_falls_silent_as_the_last_product_for_it_goes(rule, kind, change):
    assert can_speak(rule, SHELF)
    bare = tuple(replace(item, **change) for item in getattr(SHELF, kind))
    assert not can_speak(rule, replace(SHELF, **{kind: bare}))


@pytest.mark.parametrize(
    ("rule", "kind", "change"),
    [
        ("connector-limit", "batteries", {"connector_max_a": None}),
        ("current-peak", "motors", {"peak_power_w": None}),
        ("controller-limits", "motors", {"controller_max_a": None}),
        ("petrol-aboard", "motors", {"ignition_protected": True}),
        ("gauge-lithium", "accessories", {"measures": ""}),
    ],
)
def test_the_same_for_what_a_specification_says(rule, kind, change):
    assert can_speak(rule, SHELF)
    items = getattr(SHELF, kind)
    bare = tuple(replace(item, spec=replace(item.spec, **change)) for item in items)
    assert not can_speak(rule, replace(SHELF, **{kind: bare}))
