"""The customer's own motor, battery or charger: what it is, how old, and what is left of it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any, ClassVar

from jolvek.core.base import checked
from jolvek.core.base.messages import msg
from jolvek.core.electric.battery import Battery
from jolvek.core.products.shelf import OWN_ID, Item

KINDS = ("motors", "batteries", "chargers")
MAKER = "Customer’s own"


@dataclass(frozen=True)
class OwnGear:
    """One thing that the customer has: a product as when new, the year it is from, and the share of
    its charge that a battery still holds.
    """

    RANGES: ClassVar[checked.Ranges] = {
        "since_year": (1950, 2100),
        "health": (0.2, 1.0),
        "count": (1, 8),
    }
    CHOICES: ClassVar[checked.Choices] = {"kind": KINDS}

    kind: str
    item: Item[Any]
    since_year: int | None = None
    health: float = 1.0
    count: int = 1

    def __post_init__(self) -> None:
        checked.check(self, "own")

    @property
    def text(self) -> str:
        """What it is, in a line.

        >>> from jolvek.core.products.shelf import sample
        >>> OwnGear("batteries", sample().batteries[0], 2021, 0.8).text
        'Sample B50, of 2021, holds 80 % of its charge'
        """
        worn = (
            msg(", holds %(health)s %% of its charge", health=f"{100 * self.health:.0f}")
            if self.health < 1
            else ""
        )
        since = f", of {self.since_year}" if self.since_year else ""
        return (f"{self.count} × " if self.count > 1 else "") + self.item.title + since + worn


def packs_there_are(battery: Item[Battery]) -> float:
    """How many packs a bank may be of: as many as the customer has of his own, else no limit.

    >>> from jolvek.core.products.shelf import sample
    >>> packs_there_are(sample().batteries[0])
    inf
    """
    return (battery.spec.max_series or 1) if battery.own else float("inf")


def own_item(gear: OwnGear, number: int) -> Item[Any]:
    """The product as it is now, for matching: without a price, a battery with what it still holds.

    >>> from jolvek.core.products.shelf import sample
    >>> old = own_item(OwnGear("batteries", sample().batteries[0], health=0.8), 7)
    >>> old.own, old.price, old.spec.capacity_ah / sample().batteries[0].spec.capacity_ah
    (True, 0.0, 0.8)
    """
    item, spec = gear.item, gear.item.spec
    if isinstance(spec, Battery):
        left, most = gear.health * spec.capacity_ah, gear.count
        spec = replace(spec, capacity_ah=left, max_series=most, max_parallel=most)
    return replace(item, id=f"{OWN_ID}{number}", price=0.0, spec=spec, pack_ids=())
