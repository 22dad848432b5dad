"""The rule book: every rule as data, with its level, sentence, cure, source, and its school."""

from __future__ import annotations

from itertools import chain

from jolvek.core.rules import (
    day_rules,
    electric_rules,
    fitting_rules,
    given_rules,
    inspection_rules,
    limit_rules,
    sea_rules,
    sun_rules,
    water_rules,
    wiring_rules,
)
from jolvek.core.rules.rule import Rule

ELECTRIC = ("electrics", "charging", "wiring", "precautions")  # topics of the wiring
_TOPICS = (
    electric_rules,
    inspection_rules,
    day_rules,
    limit_rules,
    water_rules,
    fitting_rules,
    given_rules,
    wiring_rules,
    sun_rules,
    sea_rules,
)
RULES: dict[str, Rule] = {r.id: r for r in chain.from_iterable(t.RULES for t in _TOPICS)}
