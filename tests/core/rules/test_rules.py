"""The rule book: every rule is said above its limit and held back below; what stands at the limit
is right.
"""

from importlib import import_module
from pkgutil import iter_modules

import numpy as np
import pytest

from jolvek import demo
from jolvek.core.fit.fitted import Fitted
from jolvek.core.match.matching import match
from jolvek.core.rules.findings import LEVELS, find
from jolvek.core.rules.rulebook import RULES
from tests.core.rules import cases

TOPICS = [import_module(f"{cases.__name__}.{m.name}") for m in iter_modules(cases.__path__)]
CASES = {rule: case for topic in TOPICS for rule, case in getattr(topic, "CASES", {}).items()}


def test_every_rule_of_the_book_has_its_case():
    assert set(CASES) == set(RULES)


@pytest.mark.parametrize("rule", CASES)
def test_silent_within_the_limit_and_spoken_past_it(rule):
    result, silent, speaks = CASES[rule]
    assert [x for x in silent if rule in result(x)] == []
    assert [x for x in speaks if rule not in result(x)] == []


def test_every_rule_has_a_level_a_cure_and_a_source():
    for rule in RULES.values():
        assert rule.level in LEVELS and rule.source and rule.school, rule.id
        assert rule.cure.endswith((".", "{how}")) and rule.sentence.endswith("."), rule.id


def test_a_finding_says_figure_and_limit():
    text = find("plate-power", 3000.0, 2200.0).text
    assert "3\u202f000" in text and "2\u202f200" in text


def test_the_demo_boats_are_judged_without_a_slip():
    shelf = demo.shelf()
    for e in demo.enquiries():
        m = match(e.need, shelf)
        for i in range(0, m.field.price.size, max(1, m.field.price.size // 7)):
            d, s = int(m.field.drive[i]), int(m.field.supply[i])
            charger = int(m.supplies.charger[s])
            shaft = float(m.drives.shaft_m[d])
            f = Fitted(
                e.need,
                shelf.motors[m.drives.motor[d]],
                shelf.batteries[m.supplies.battery[s]],
                shelf.mounts[m.drives.mount[d]],
                shelf.chargers[charger] if charger >= 0 else None,
                int(m.supplies.series[s]),
                parallel=int(m.supplies.parallel[s]),
                shaft_m=None if np.isnan(shaft) else shaft,
            )
            assert "block" not in {x.level for x in f.findings}, [
                x.text for x in f.findings if x.level == "block"
            ]
