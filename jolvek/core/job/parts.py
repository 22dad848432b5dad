"""The parts of a setup as they were pinned: each product as it was, how many, its price then."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

from jolvek.core.products.shelf import Item


@dataclass(frozen=True)
class Bought:
    """One part of a setup: the product as it was, how many, and its price then."""

    kind: str
    item: Item[Any]
    quantity: int
    price: float

    @property
    def asked(self) -> float:
        """What one costs the customer: nothing where it is there already."""
        return 0.0 if self.item.own else self.price


def total(parts: tuple[Bought, ...]) -> float:
    """What parts cost together.

    >>> from jolvek.core.products.shelf import sample
    >>> total((Bought("battery", sample().batteries[0], 2, 700.0),))
    1400.0
    """
    return sum(x.quantity * x.asked for x in parts)


def sun_of_parts(extras: tuple[Bought, ...]) -> tuple[int, float, Any, set[tuple[Any, Any]]]:
    """Panels among add-ons: how many, rated W together, the controller's record or None, and the
    volts (open, at work) that they state.

    >>> sun_of_parts(())
    (0, 0.0, None, set())
    """
    panels = [x for x in extras if x.kind == "panel"]
    controller = next((x.item.spec for x in extras if x.kind == "controller"), None)
    volts = {(x.item.spec.open_v, x.item.spec.working_v) for x in panels}
    rated = float(sum(x.quantity * x.item.spec.rated_w for x in panels))
    return sum(x.quantity for x in panels), rated, controller, volts
