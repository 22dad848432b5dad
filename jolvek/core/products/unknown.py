"""What nobody has said of a product, where it decides: unknown is never an advantage."""

from __future__ import annotations

from jolvek.core.electric.battery import Battery
from jolvek.core.products.motor import Motor
from jolvek.core.products.shelf import Item

ADJUSTED = ("pole", "fin", "pod")  # motors whose depth is set when they are fitted, or fixed


def shaft_unknown(motor: Item[Motor]) -> bool:
    """Whether a motor has a shaft of one length, and nobody said which.

    >>> from dataclasses import replace
    >>> from jolvek.core.products.shelf import sample
    >>> motor = sample().motors[0]
    >>> shaft_unknown(motor), shaft_unknown(replace(motor, shafts_m=()))
    (False, True)
    """
    return not motor.shafts_m and motor.style not in ADJUSTED


def weight_unknown(item: Item[Motor] | Item[Battery]) -> bool:
    """Whether a product's weight is only estimated; of what the customer has already it is no
    question of what to buy.

    >>> from jolvek.core.products.shelf import sample
    >>> weight_unknown(sample().motors[0])
    False
    """
    return item.spec.mass_kg is None and not item.own
