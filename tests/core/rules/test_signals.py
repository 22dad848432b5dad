"""Signal words follow the hazard, as safety signs have them (ANSI Z535 and ISO 3864, from memory:
danger kills, warning may kill or hurt, caution hurts or damages), not the level that blocks.
"""

from jolvek.core.rules.examples import EXAMPLES
from jolvek.core.rules.findings import example
from jolvek.core.rules.rulebook import RULES
from jolvek.core.rules.signals import OF_RULE, SIGNAL_WORDS


def test_every_rule_that_is_named_exists_and_has_one_word():
    assert set(OF_RULE) <= set(RULES) and set(OF_RULE.values()) < set(SIGNAL_WORDS)


def test_the_word_is_the_hazards_and_not_the_levels():
    assert example("voltage-dangerous").signal == "danger"  # offered, after it was read
    assert example("shore-side").signal == "danger"  # a note that is told with every such job
    assert example("too-dear").signal == "stop"  # keeps it from being offered, harms nobody
    assert example("below-reserve").signal == "warning"  # strands
    assert example("charger-voltage").signal == "caution"  # blocks, and would ruin the cells


def test_all_that_can_shock_burn_or_sink_is_a_danger():
    words = ("touching it can kill", "kills swimmers", "hydrogen", "awash", "lithium fires")
    for rule in RULES.values():
        if rule.id in EXAMPLES and any(w in rule.sentence for w in words):
            assert example(rule.id).signal == "danger", rule.id
