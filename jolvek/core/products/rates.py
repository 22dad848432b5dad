"""What a shop asks for work, cable and small parts."""

from __future__ import annotations

from dataclasses import dataclass
from decimal import Decimal


@dataclass(frozen=True)
class Rates:
    """The shop's rates, money in minor units: hours, cable by metre and mm², pieces; tax in %."""

    mounting_minor: int = 0
    wiring_minor: int = 0
    cable_minor: int = 0
    piece_minor: int = 0
    tax: Decimal = Decimal(0)
    digits: int = 2
    ranks_fitted: bool = True  # the fitted price ranks and counts against a budget, not parts only
