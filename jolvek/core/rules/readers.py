"""Whom a finding is for: what only the shop or its rigger can act on reaches no customer."""

from __future__ import annotations

# hints for the advisor, and precautions of the rigger's work
FOR_SHOP = frozenset(
    {
        "beaten",
        "beyond-planing",
        "beyond-tried",
        "cable-run",
        "controller-limits",
        "does-not-plane",
        "folded",
        "helm-unknown",
        "hull-does-not-plane",
        "main-fuse",
        "overpowered",
        "people-light",
        "pitch-bound",
        "polarity",
        "thrust-claim",
        "thrust-impossible",
        "throttle-cable",
    }
)
ELECTRIC = frozenset({"electrics", "wiring", "precautions"})


def for_customer(rule_id: str) -> bool:
    """Whether a customer reads findings of this rule.

    >>> for_customer("beyond-tried"), for_customer("life-jacket")
    (False, True)
    """
    return rule_id not in FOR_SHOP


def part_of(topic: str) -> str:
    """Under which of the customer's three heads a topic stands: go, electrics or charging.

    >>> part_of("wiring"), part_of("day"), part_of("charging")
    ('electrics', 'go', 'charging')
    """
    return topic if topic == "charging" else "electrics" if topic in ELECTRIC else "go"
