"""Reads typed figures from an address into SI; what cannot be read is told by field."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field

from jolvek.core.base import typed_figures
from jolvek.web.kit.display import Units
from jolvek.web.kit.language import tr


@dataclass
class Reader:
    """Reads typed figures from an address into SI; what cannot be read is told by field."""

    args: Mapping[str, str]
    u: Units
    refused: dict[str, str] = field(default_factory=dict)

    def figure(self, key: str, quantity: str, low: float, high: float) -> float | None:
        """A typed figure; None where it is empty or refused."""
        text = self.args.get(key, "").strip()
        if not text:
            return None
        try:
            value = typed_figures.parse(text, quantity, self.u[quantity])
        except typed_figures.NotAQuantity as error:
            self.refused[key] = str(error)
            return None
        if not low <= value <= high:
            allowed = f"{self.u.full(low, quantity)} to {self.u.full(high, quantity)}"
            self.refused[key] = tr(
                "read “%(text)s”; allowed is %(allowed)s", text=text, allowed=allowed
            )
            return None
        return value

    def one_of(self, key: str, known: tuple[str, ...], usual: str) -> str:
        """One of the known words."""
        word = self.args.get(key) or usual
        if word in known:
            return word
        self.refused[key] = tr(
            "read “%(word)s”; allowed is one of %(known)s", word=word, known=", ".join(known)
        )
        return usual
