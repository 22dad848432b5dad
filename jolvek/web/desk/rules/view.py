"""What the rule book's page shows: a worked example of every rule, by topic."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import groupby

from jolvek.core.base.messages import msg
from jolvek.core.fit.rule_reach import can_speak
from jolvek.core.products.shelf import Shelf
from jolvek.core.rules.findings import Finding, example
from jolvek.core.rules.rulebook import RULES

TOPICS = {
    "limits": msg("What the boat bears"),
    "fitting": msg("How it hangs, and how the boat lies"),
    "electrics": msg("Volts and amps"),
    "charging": msg("Charging"),
    "wiring": msg("Cables and fuses"),
    "day": msg("The day and what matters"),
    "hull": msg("The hull in the water"),
    "propeller": msg("Propeller and thrust"),
    "precautions": msg("Precautions with every job"),
    "safety": msg("On the water"),
}


@dataclass(frozen=True)
class RuleRow:
    """One rule: an example of what it says, its school where there are several, its reach here."""

    finding: Finding
    school: str
    here: bool


@dataclass(frozen=True)
class RulesPage:
    """The rule book: (topic, rows), and how many of all can speak on this shelf."""

    topics: tuple[tuple[str, tuple[RuleRow, ...]], ...]
    total: int
    here: int


def rules_page(shelf: Shelf) -> RulesPage:
    """The book for a shelf as it stands."""
    order = list(TOPICS)
    rules = sorted(RULES.values(), key=lambda r: order.index(r.topic))
    topics = tuple(
        (
            TOPICS[topic],
            tuple(
                RuleRow(
                    example(r.id), "" if r.school == "all" else r.school, can_speak(r.id, shelf)
                )
                for r in rows
            ),
        )
        for topic, rows in groupby(rules, key=lambda r: r.topic)
    )
    rows = [row for _, some in topics for row in some]
    return RulesPage(topics, len(rows), sum(row.here for row in rows))
