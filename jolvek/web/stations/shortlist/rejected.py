"""What fell out on the Shortlist, by group: why, what cures it, and what may be tried."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass

from jolvek.core.base.messages import msg
from jolvek.core.match.matching import Match
from jolvek.core.rules.rulebook import RULES
from jolvek.web.kit.display import Units
from jolvek.web.kit.language import capital
from jolvek.web.kit.what_if import TRIALS, WHAT_IFS

GROUPS = {
    "day": msg("Does not manage the day"),
    "limits": msg("Plate and approvals"),
    "fitting": msg("Does not fit"),
    "electrics": msg("Volts and amps"),
}


@dataclass(frozen=True)
class Rejected:
    """One product that fell out: why, what cures it, and what may be tried."""

    kind: str
    id: str
    title: str
    text: str
    cure: str
    trial: str
    question: str


MOST_SHOWN = 40  # of a group


def rejected_by_group(match: Match, u: Units) -> tuple[tuple[str, tuple[Rejected, ...], int], ...]:
    """The rejected, those that concern the day first: heading, the first of them, how many."""
    counts: dict[str, int] = defaultdict(int)
    groups: dict[str, list[Rejected]] = defaultdict(list)
    for kind, reasons in (
        ("motors", match.motor_reasons),
        ("batteries", match.battery_reasons),
        ("mounts", match.mount_reasons),
        ("chargers", match.charger_reasons),
    ):
        for i, found in reasons.items():
            topic = RULES[found.rule].topic
            counts[topic] += 1
            if len(groups[topic]) == MOST_SHOWN:
                continue
            item, result = getattr(match.shelf, kind)[i], u.rendered(found)
            trial = TRIALS.get(found.rule, "")
            groups[topic].append(
                Rejected(
                    kind,
                    item.id,
                    item.title,
                    result.text,
                    result.cure,
                    trial,
                    question=WHAT_IFS.get(trial, ""),
                )
            )
    topics = [t for t in (*GROUPS, *sorted(set(groups) - set(GROUPS))) if t in groups]
    return tuple((GROUPS.get(t, capital(t)), tuple(groups[t]), counts[t]) for t in topics)
