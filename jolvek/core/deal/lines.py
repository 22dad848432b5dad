"""The lines of an offer and their sums: discounts by line and in all, tax by rate, included or
added, deposit and instalments.

Each line is rounded to the minor unit, then each rate's sum after the discount in all, then its
tax; so the printed total is the sum of what is printed.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.base.money import MOST_MINOR, rounded, split

KINDS = ("part", "wiring", "labour", "addon", "free")
HUNDRED = Decimal(100)


@dataclass(frozen=True)
class Line:
    """One line: price of one in minor units; discount and tax in %. `optional` ones count where
    they are ticked. `buying_minor` of one is the shop's own and on no paper.
    """

    CHOICES: ClassVar[checked.Choices] = {"kind": KINDS}
    TEXTS: ClassVar[checked.Counts] = {"text": 300, "unit": 20}
    RANGES: ClassVar[checked.Ranges] = {
        "quantity": (-10_000, 10_000),
        "price_minor": (-MOST_MINOR, MOST_MINOR),
        "discount": (0, 100),
        "tax": (0, 50),
        "buying_minor": (0, MOST_MINOR),
    }

    kind: str
    text: str
    quantity: Decimal
    price_minor: int
    unit: str = ""
    discount: Decimal = Decimal(0)
    tax: Decimal = Decimal(0)
    optional: bool = False
    ticked: bool = True
    buying_minor: int | None = None

    def __post_init__(self) -> None:
        checked.check(self, "line")

    @property
    def counts(self) -> bool:
        """Whether it is part of the total."""
        return self.ticked or not self.optional

    @property
    def amount(self) -> int:
        """Quantity × price less its discount, rounded.

        >>> Line("free", "Launch", Decimal(3), 333, discount=Decimal(10)).amount
        899
        """
        gross = self.quantity * self.price_minor
        return rounded(gross * (HUNDRED - self.discount) / HUNDRED)


@dataclass(frozen=True)
class Terms:
    """What is agreed of the whole: discount and deposit in %, instalments of the rest."""

    RANGES: ClassVar[checked.Ranges] = {
        "discount": (0, 100),
        "deposit": (0, 100),
        "instalments": (1, 60),
    }

    tax_included: bool = True
    discount: Decimal = Decimal(0)
    deposit: Decimal = Decimal(0)
    instalments: int = 1

    def __post_init__(self) -> None:
        checked.check(self, "terms")


@dataclass(frozen=True)
class Rate:
    """One tax rate: what is taxed, the tax, and both."""

    rate: Decimal
    net: int
    tax: int
    gross: int


@dataclass(frozen=True)
class Sums:
    """All in minor units. `lines` is the sum of the lines that count, `off` the discount in all;
    the rest after the deposit comes in `instalments`.
    """

    lines: int
    off: int
    rates: tuple[Rate, ...]
    net: int
    tax: int
    total: int
    deposit: int
    instalments: tuple[int, ...]
    margin: int | None  # over the buying prices, before tax; None where one is not known


def sums(lines: Sequence[Line], terms: Terms) -> Sums:
    """The sums of the lines that count. Raises ValueRefused for a total below nothing.

    >>> s = sums([Line("part", "Motor", Decimal(1), 100_00, tax=Decimal(25))], Terms())
    >>> s.total, s.net, s.tax
    (10000, 8000, 2000)
    """
    counted = [x for x in lines if x.counts]
    by_rate: dict[Decimal, int] = {}
    for x in counted:
        by_rate[x.tax] = by_rate.get(x.tax, 0) + x.amount
    rates = tuple(_rate(rate, amount, terms) for rate, amount in sorted(by_rate.items()))
    total, tax = sum(r.gross for r in rates), sum(r.tax for r in rates)
    if total < 0:
        raise ValueRefused("offer.total", total, msg("nothing or more"))
    after = sum(r.gross if terms.tax_included else r.net for r in rates)
    listed = sum(x.amount for x in counted)
    deposit = rounded(total * terms.deposit / HUNDRED)
    parts = split(total - deposit, terms.instalments)
    bought = [x.buying_minor for x in counted]
    margin = None
    if counted and None not in bought:
        spent = sum(rounded(x.quantity * (x.buying_minor or 0)) for x in counted)
        margin = total - tax - spent
    return Sums(
        listed,
        listed - after,
        rates,
        total - tax,
        tax,
        total,
        deposit=deposit,
        instalments=parts,
        margin=margin,
    )


def _rate(rate: Decimal, amount: int, terms: Terms) -> Rate:
    left = rounded(amount * (HUNDRED - terms.discount) / HUNDRED)
    if terms.tax_included:
        tax = rounded(left * rate / (HUNDRED + rate))
        return Rate(rate, left - tax, tax, left)
    tax = rounded(left * rate / HUNDRED)
    return Rate(rate, left, tax, left + tax)
