"""The shop's rates as the core takes them."""

from __future__ import annotations

from decimal import Decimal

from babel.numbers import get_currency_precision
from flask import has_app_context

from jolvek.core.base.money import minor
from jolvek.core.products.rates import Rates
from jolvek.store.shop import Shop
from jolvek.web import data
from jolvek.web.kit.language import tr


def digits_of(currency: str) -> int:
    """How many decimals a currency has.

    >>> digits_of("EUR"), digits_of("JPY"), digits_of("KWD")
    (2, 0, 3)
    """
    return int(get_currency_precision(currency))


def rates_of(shop: Shop) -> Rates:
    """The shop's rates as lines take them."""
    digits = digits_of(shop.currency)
    hours = (minor(shop.fitting_rate, digits), minor(shop.wiring_rate, digits))
    pieces = (minor(shop.cable_price, digits), minor(shop.piece_price, digits))
    return Rates(*hours, *pieces, tax_of(shop), digits, shop.ranks_by == "fitted")


def shop_rates() -> Rates:
    """Those of this request's shop; none outside of a request."""
    return rates_of(data.shop()) if has_app_context() else Rates()


def price_name(short: bool = False) -> str:
    """Which price ranks and counts against a budget, by name."""
    if shop_rates().ranks_fitted:
        return tr("fitted") if short else tr("Price, fitted")
    return tr("parts only") if short else tr("Price, parts only")


def tax_of(shop: Shop) -> Decimal:
    """The first tax rate, which is that of parts and work."""
    return Decimal(str(shop.tax_rates[0])) if shop.tax_rates else Decimal(0)
