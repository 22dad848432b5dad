"""What a rule is, and the sources that several rules share."""

from __future__ import annotations

from dataclasses import dataclass

COMMON = "common practice, no source"
OWN = "Jolvek's own model"
MAKER = "maker's data"


@dataclass(frozen=True)
class Rule:
    """One rule: `sentence` and `cure` are templates filled with the boat's figures; SI inside."""

    id: str
    level: str
    topic: str
    sentence: str
    cure: str
    source: str
    school: str = "all"
