"""What the catalogue says today of the parts of a setup that was pinned earlier."""

from __future__ import annotations

from collections.abc import Iterator
from dataclasses import dataclass, replace
from typing import Any

from jolvek.core.products.shelf import Item, Shelf
from jolvek.store.setups import KIND_OF_PART, Bought, Pinned
from jolvek.web.kit.display import money
from jolvek.web.kit.language import tr

CENT = 0.005


@dataclass(frozen=True)
class Moved:
    """A part whose price or figures are others today, or that is offered no more (`now` is
    None).
    """

    letter: str
    part: Bought
    now: Item[Any] | None

    @property
    def key(self) -> str:
        """The part by name, as its button sends it."""
        return f"{self.letter}|{self.part.kind}|{self.part.item.id}"

    @property
    def text(self) -> str:
        """In one sentence."""
        title, now = self.part.item.title, self.now
        if now is None:
            text = "Setup %(letter)s: %(title)s is no longer available. Choose another setup."
            return tr(text, letter=self.letter, title=title)
        if _dearer(self.part, now):
            return tr(
                "Setup %(letter)s: %(title)s now costs %(now)s; it was %(then)s when the setup was "
                "pinned.",
                letter=self.letter,
                title=title,
                now=money(now.price),
                then=money(self.part.price),
            )
        return tr(
            "Setup %(letter)s: the catalogue has other figures for %(title)s since the setup was"
            " pinned.",
            letter=self.letter,
            title=title,
        )


def _dearer(part: Bought, now: Item[Any]) -> bool:
    free = part.kind == "mount" and not part.price  # comes with its motor
    return abs(now.price - part.price) > CENT and not free


def moved(pinned: Pinned, offered: Shelf) -> Iterator[Moved]:
    """The parts of a setup that are not on the shelf as they were pinned; what the customer has
    already, and a mount that comes with its motor, cost nothing and do not move.
    """
    for part in (*pinned.parts, *pinned.extras):
        if part.item.own:
            continue
        items = getattr(offered, KIND_OF_PART[part.kind])
        now = next((x for x in items if x.id == part.item.id), None)
        if now is None or _dearer(part, now) or _figures(now) != _figures(part.item):
            yield Moved(pinned.letter, part, now)


def _figures(item: Item[Any]) -> Item[Any]:
    """What of a product decides figures: not its price, its stock and its day."""
    return replace(item, price=0.0, valid_to="", stock="")
