"""What the shop has of a product, from whom, and what it paid: for the shop only."""

from __future__ import annotations

from collections.abc import Mapping
from typing import Any

from flask import Blueprint, abort, flash, redirect, request, url_for

from jolvek import shop
from jolvek.core.base import typed_figures
from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.base.money import minor
from jolvek.store import shelf
from jolvek.store.stock import Stock
from jolvek.web import data
from jolvek.web.kit import display, pages
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.fields.merged import merged
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR
from jolvek.web.kit.rates import digits_of
from jolvek.web.shared import conn

bp = Blueprint("stock", __name__, url_prefix="/catalogue")
pages.add(
    bp,
    {
        "save": ADVISOR,
    },
)
LABELS = {
    "supplier": msg("Supplier"),
    "in_stock": msg("In stock"),
    "buying": msg("Buying price"),
}


@bp.post("/<kind>/stock/<path:product_id>")
def save(kind: str, product_id: str) -> Any:
    """Keep supplier, number in stock and buying price."""
    if kind not in shelf.TABLES or shelf.stored_row(conn(), kind, product_id) is None:
        abort(404)
    back = redirect(url_for("catalogue.product", kind=kind, product_id=product_id) + "#stock", 303)
    try:
        shop.catalogue.keep_stock(
            conn(),
            kind,
            product_id,
            lambda had: _read(merged(request.form, stock_values(had), LABELS)),
        )
    except JolvekError as error:
        flash(tr("Stock is not saved: %(error)s", error=error))
        return back
    signing.record_activity("stock changed", product_id)
    flash(tr("Stock is saved."))
    return back


def stock_values(had: Stock | None) -> dict[str, str]:
    """What the form of a product's stock is filled with."""
    had = had or Stock()
    paid = "" if had.buying_minor is None else display.minor_plain(had.buying_minor)
    return {"supplier": had.supplier, "in_stock": str(had.in_stock), "buying": paid}


def _read(form: Mapping[str, str]) -> Stock:
    digits = digits_of(data.shop().currency)
    many = typed_figures.parse(form.get("in_stock", "").strip() or "0", "count", "")
    paid = form.get("buying", "").strip()
    price = minor(typed_figures.parse(paid, "money", ""), digits) if paid else None
    return Stock(form.get("supplier", "").strip(), int(many), price)
