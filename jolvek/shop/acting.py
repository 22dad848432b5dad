"""Who acts, and when."""

from __future__ import annotations

from dataclasses import dataclass


@dataclass(frozen=True)
class By:
    """The name that an act is kept under, and its time in UTC as stored."""

    who: str
    at: str
