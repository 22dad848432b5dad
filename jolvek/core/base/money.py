"""Amounts in minor units (cents), worked out in Decimal and rounded half away from zero."""

from __future__ import annotations

from decimal import ROUND_HALF_UP, Decimal, InvalidOperation

from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg

MOST_MINOR = 10**13


def rounded(amount: Decimal) -> int:
    """Whole minor units, halves away from zero: what invoices do; common practice, no source.

    >>> rounded(Decimal("2.5")), rounded(Decimal("-2.5")), rounded(Decimal("2.4999"))
    (3, -3, 2)
    """
    return int(amount.quantize(Decimal(1), rounding=ROUND_HALF_UP))


def minor(amount: float | str | Decimal, digits: int = 2) -> int:
    """An amount of money as minor units. Raises ValueRefused for what is no amount.

    >>> minor("12.345"), minor(12.344999), minor(7, 0)
    (1235, 1234, 7)
    """
    try:
        value = Decimal(str(amount)) * 10**digits
        if not value.is_finite() or abs(value) > MOST_MINOR:
            raise InvalidOperation
        return rounded(value)
    except InvalidOperation:
        raise ValueRefused("amount", amount, msg("an amount of money")) from None


def major(amount: int, digits: int = 2) -> Decimal:
    """Minor units as an amount of money.

    >>> major(1235), major(7, 0)
    (Decimal('12.35'), Decimal('7'))
    """
    return Decimal(amount).scaleb(-digits)


def split(total: int, count: int) -> tuple[int, ...]:
    """A total in `count` parts that add up to it, the first ones a minor unit larger.

    >>> split(1000, 3), sum(split(-7, 4))
    ((334, 333, 333), -7)
    """
    each, rest = divmod(total, count)
    return tuple(each + (i < rest) for i in range(count))
