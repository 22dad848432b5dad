"""What the rule book's page shows: a worked example of every rule, by topic."""

from __future__ import annotations

from dataclasses import dataclass
from itertools import groupby

from jolvek.core.base.messages import msg
from jolvek.core.fit.rule_reach import can_speak
from jolvek.core.products.shelf import Shelf
from jolvek.core.rules.findings import Finding, example
from jolvek.core.rules.rule import Rule
from jolvek.core.rules.rulebook import RULES
from jolvek.web.kit.display import Units

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
class Asked:
    """What of the book is looked for: words of a rule or its id, a signal word's key, a topic; all
    of it where empty.
    """

    words: str = ""
    signal: str = ""
    topic: str = ""

    def finds(self, r: Rule, rendered: Finding) -> bool:
        """Whether a rule, in the reader's units and language, is among them."""
        text = f"{r.id} {rendered.text} {rendered.cure} {rendered.source}".casefold()
        return (
            all(word in text for word in self.words.casefold().split())
            and self.signal in ("", rendered.signal)
            and self.topic in ("", r.topic)
        )


@dataclass(frozen=True)
class RulesPage:
    """The rule book: (topic, rows) of what is asked, how many rules there are, how many of all can
    speak on this shelf, and how many were found.
    """

    topics: tuple[tuple[str, tuple[RuleRow, ...]], ...]
    total: int
    here: int
    found: int
    asked: Asked
    names: dict[str, str]


def rules_page(shelf: Shelf, asked: Asked, u: Units) -> RulesPage:
    """The book for a shelf as it stands."""
    order = list(TOPICS)
    rules = sorted(RULES.values(), key=lambda r: order.index(r.topic))
    here = {r.id: can_speak(r.id, shelf) for r in rules}
    wanted = [r for r in rules if asked.finds(r, u.rendered(example(r.id)))]
    topics = tuple(
        (
            TOPICS[topic],
            tuple(
                RuleRow(example(r.id), "" if r.school == "all" else r.school, here[r.id])
                for r in rows
            ),
        )
        for topic, rows in groupby(wanted, key=lambda r: r.topic)
    )
    return RulesPage(topics, len(rules), sum(here.values()), len(wanted), asked, TOPICS)
