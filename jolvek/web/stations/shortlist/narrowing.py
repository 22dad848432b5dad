"""What the Shortlist's address asks to narrow to, and the weights on trial; refusals by field."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from urllib.parse import parse_qsl

from jolvek.core.base import typed_figures, units
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.need import MOST_WEIGHT, WISHES, Need
from jolvek.web.kit.display import Units

FACETS = {
    "volt": msg("Volts"),
    "place": msg("Battery"),
    "chem": msg("Chemistry"),
    "mount": msg("Mount"),
    "maker": msg("Maker of the motor"),
}
MOST_PRICE, MOST_RANGE_M = 1e8, 1e8


@dataclass(frozen=True)
class Filters:
    """What to narrow to in SI, the weights on trial, and what was refused by field."""

    facets: dict[str, str]
    price_min: float | None
    price_max: float | None
    range_min_m: float | None
    range_max_m: float | None
    weights: dict[str, float]
    refused: dict[str, str]
    unfold: str = ""  # the motor whose other banks are shown

    @property
    def any(self) -> bool:
        """Whether anything is narrowed."""
        limits = (self.price_min, self.price_max, self.range_min_m, self.range_max_m)
        return bool(self.facets or self.refused) or any(x is not None for x in limits)


def filters_from(args: Mapping[str, str], need: Need, u: Units) -> Filters:
    """Read the filters; what cannot be read is refused at its field and left out."""
    refused: dict[str, str] = {}

    def read(key: str, quantity: str, unit: str, most: float) -> float | None:
        text = args.get(key, "").strip()
        if not text:
            return None
        try:
            value = typed_figures.parse(text, quantity, unit)
        except typed_figures.NotAQuantity as error:
            refused[key] = str(error)
            return None
        if not 0 <= value <= most:
            shown = units.show(most, quantity, unit)
            refused[key] = f"read “{text}”; allowed is 0 to {shown} {unit}".rstrip()
            return None
        return value

    weights = {w: read(f"w_{w}", "number", "", MOST_WEIGHT) for w in WISHES}
    return Filters(
        {k: args[k] for k in FACETS if args.get(k)},
        read("price_min", "money", "", MOST_PRICE),
        read("price_max", "money", "", MOST_PRICE),
        read("range_min", "distance", u["distance"], MOST_RANGE_M),
        read("range_max", "distance", u["distance"], MOST_RANGE_M),
        {w: need.weight(w) if value is None else value for w, value in weights.items()},
        refused=refused,
        unfold=args.get("unfold", ""),
    )


KEYS = (*FACETS, "price_min", "price_max", "range_min", "range_max", "unfold")


def known_args(query: str) -> dict[str, str]:
    """Of an address's query what the Shortlist reads, to come back to the same list.

    >>> known_args("mount=Side+bar&next=//elsewhere&w_price=3")
    {'mount': 'Side bar', 'w_price': '3'}
    """
    keys = (*KEYS, *(f"w_{w}" for w in WISHES))
    return {k: v for k, v in parse_qsl(query[:2000]) if k in keys}
