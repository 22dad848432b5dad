"""One step of a handover."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.messages import words
from jolvek.core.rules.signals import CAUTION


@dataclass(frozen=True, kw_only=True)
class Step:
    """One step: its key (the same for every setup), its group, what to do and how, its hazard with
    the signal word, and the picture that shows it (empty where none does).
    """

    key: str
    group: str
    text: str
    details: str = ""
    hazard: str = ""
    signal: str = CAUTION
    picture: str = ""

    def __post_init__(self) -> None:
        words(self, "text", "details", "hazard")
