"""Figures of a price list that are asked about before they are kept."""

from __future__ import annotations

from typing import Any

from jolvek.core.base.messages import msg
from jolvek.core.products.shelf import Item

MUCH = 0.3  # a price that changes by more is asked about
USUAL = {  # price for a unit of what a product is bought for: least and most that is likely
    "motors": ("input_power_w", 0.15, 20.0),
    "batteries": ("energy_wh", 0.05, 5.0),
    "chargers": ("current_a", 1.0, 300.0),
    "panels": ("rated_w", 0.2, 30.0),
}  # Jolvek's own, in any currency near the euro


def asked_about(kind: str, item: Item[Any], before: Item[Any] | None) -> str:
    """What of a product is unlikely: a price that moved much, or one that fits its figures ill;
    empty where nothing is.
    """
    if before is not None and before.price and abs(item.price / before.price - 1) > MUCH:
        values = {"was": f"{before.price:.2f}", "now": f"{item.price:.2f}"}
        return msg("the price changes by more than 30 %%: %(was)s → %(now)s", **values)
    if before is not None and before.price == item.price:
        return ""
    name, least, most = USUAL.get(kind, ("", 0.0, 0.0))
    size = getattr(item.spec, name, None) if name else None
    if size and item.price and not least * size <= item.price <= most * size:
        return msg("a price of %(now)s is unlikely for it", now=f"{item.price:.2f}")
    return ""
