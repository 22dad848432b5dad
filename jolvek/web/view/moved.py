"""What the catalogue says today of the parts of a setup that was pinned earlier."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from jolvek.core.products.shelf import Item, Shelf
from jolvek.store.setups import KIND_OF_PART, Bought, Pinned
from jolvek.web.view.display import money
from jolvek.web.view.language import tr

CENT = 0.005


@dataclass(frozen=True)
class Moved:
    """A part whose price is another today, or that is offered no more (`now` is None)."""

    letter: str
    part: Bought
    now: Item[Any] | None

    @property
    def told(self) -> str:
        """In one sentence."""
        title = self.part.item.title
        if self.now is None:
            told = "Setup %(letter)s: %(title)s is no longer available. Choose another setup."
            return tr(told, letter=self.letter, title=title)
        return tr(
            "Setup %(letter)s: %(title)s now costs %(now)s; it was %(then)s when the setup was "
            "pinned.",
            letter=self.letter,
            title=title,
            now=money(self.now.price),
            then=money(self.part.price),
        )


def moved(pinned: Pinned, offered: Shelf) -> Iterator[Moved]:
    """The parts of a setup that are not on the shelf as they were pinned; what the customer has
    already, and a mount that comes with its motor, cost nothing and do not move.
    """
    for part in (*pinned.parts, *pinned.extras):
        if part.item.own:
            continue
        items = getattr(offered, KIND_OF_PART[part.kind])
        now = next((x for x in items if x.id == part.item.id), None)
        free = part.kind == "mount" and not part.price
        if now is None or (abs(now.price - part.price) > CENT and not free):
            yield Moved(pinned.letter, part, now)
