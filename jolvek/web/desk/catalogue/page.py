"""Shelf: browse, filter, compare, edit and check products. Price lists come in by price_lists."""

from __future__ import annotations

import re
from typing import Any

from flask import (
    Blueprint,
    Response,
    abort,
    flash,
    json,
    redirect,
    request,
    url_for,
)
from jsonschema import Draft202012Validator
from jsonschema.exceptions import best_match

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.products.plain import made_id, product_from_plain
from jolvek.core.products.shelf import Item
from jolvek.formats import schema, shelf_csv, shelf_file, unlikely
from jolvek.formats.shelf_schema import item_schema
from jolvek.store import finding, stock
from jolvek.store import shelf as store
from jolvek.web import shared
from jolvek.web.desk.catalogue.compare import compare_page
from jolvek.web.desk.catalogue.stock import stock_values
from jolvek.web.desk.catalogue.view import catalogue_page, product_page, product_values
from jolvek.web.kit import display, language, pages, words
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.fields.merged import merged
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, READER
from jolvek.web.saving import by
from jolvek.web.shared import conn, settings, show, table_file

bp = Blueprint("catalogue", __name__, url_prefix="/catalogue")
pages.add(
    bp,
    {
        "page": READER,
        "product": READER,
        "compare": READER,
        "export_csv": ADVISOR,
        "export_json": ADVISOR,
        "new": ADVISOR,
        "save": ADVISOR,
        "undo": ADVISOR,
    },
)
LATEST = 6


def kind_or_404(kind: str) -> str:
    """A kind of product, or a page that says there is none."""
    if kind not in store.KINDS:
        abort(404)
    return kind


@bp.get("/")
@bp.get("/<kind>")
def page(kind: str = "motors") -> Any:
    """One kind of product, filtered by words and by what is offered; those that cannot be read
    stand above.
    """
    args = request.args
    found = catalogue_page(
        store.load(conn()),
        kind_or_404(kind),
        args.get("q", ""),
        args.get("maker", ""),
        bool(args.get("all")),
        args.get("by", ""),
        shared.skipped(),
    )
    problems, batches = store.problems(conn()), store.batches(conn(), LATEST)
    return show(
        "desk/catalogue/page.html", found, kinds=store.KINDS, batches=batches, problems=problems
    )


@bp.get("/<kind>/compare")
def compare(kind: str) -> Any:
    """Products of one kind in one table: those that are ticked, or all; as page, CSV, XLSX."""
    ids, every = request.args.getlist("id"), getattr(store.load(conn()), kind_or_404(kind))
    items = [x for x in every if x.id in ids] if ids else list(every)
    page = compare_page(kind, items, request.args.getlist("col"), display.current())
    form = request.args.get("form", "")
    return table_file(page.plain, kind, form) if form else show("desk/catalogue/compare.html", page)


@bp.get("/<kind>/item/<path:product_id>")
def product(kind: str, product_id: str) -> Any:
    """One product with its claims checked, its history, and the form to change it; one that cannot
    be read with what is kept of it, to be mended.
    """
    kept = store.stored_row(conn(), kind_or_404(kind), product_id)
    if kept is None:
        abort(404)
    problem = next(
        (p for p in store.problems(conn()) if (p.kind, p.id) == (kind, product_id)), None
    )
    errors = {_field_of(problem.reason, kind): problem.reason} if problem else {}
    return _product_page(kind, kept, {}, errors), 200


@bp.get("/<kind>/new")
def new(kind: str) -> Any:
    """An empty product."""
    return _product_page(kind_or_404(kind), {}, {}, {})


def _product_page(
    kind: str,
    kept: dict[str, Any],
    typed: dict[str, str],
    errors: dict[str, str],
    ask: str = "",
) -> str:
    item: Item[Any] | None = None
    history: list[store.Change] = []
    used: tuple[finding.Use, ...] = ()
    if kept:
        used = finding.using(conn(), kept["id"])
        item = store.get(conn(), kind, kept["id"])
        history = store.history(conn(), kind, kept["id"])
    rows = (kind, item, kept, typed, errors, history, used, display.current())
    mine = kept and signing.may("stock.save")
    had = stock.get(conn(), kind, kept["id"]) if mine else None
    more = {"had": had, "product_id": kept.get("id", ""), "ask": ask}
    more |= {"values": product_values(kind, kept), "stock_values": stock_values(had)}
    return show("desk/catalogue/product.html", product_page(*rows), **more)


def _field_of(reason: str, kind: str) -> str:
    """The field that a refusal speaks of: its key, without the kind before it."""
    key = re.split(r"[:\s]", reason)[0].split(".")[-1]
    return key if key in shelf_csv.columns(kind) else "id"


@bp.post("/<kind>/item")
def save(kind: str) -> Any:
    """Keep a product as typed, or give it back with the message at its field."""
    asked, product_id = kind_or_404(kind), request.form.get("id", "")
    return shop.catalogue.save(conn(), by(), asked, product_id, lambda then: _edited(asked, then))


def _edited(kind: str, then: dict[str, Any]) -> tuple[Any, Item[Any] | None, str]:
    """What is answered, the product to be kept (None: it is refused), and what was done."""
    columns = shelf_csv.columns(kind)
    named = {key: words.key_words(key) for key in columns}
    form = merged(request.form, product_values(kind, then), named)
    typed = {key: "|".join(form.getlist(key)) for key in columns}
    plain, errors = {}, {}
    for key, rule in columns.items():
        try:
            value = shelf_csv.value_of(typed[key], rule, key, language.current() != "en")
            if value is not None:
                plain[key] = value
        except JolvekError as error:
            errors[key] = str(error)
    item: Item[Any] | None = None
    if not typed.get("id") and plain.get("maker") and plain.get("name"):
        taken = {x.id for k in store.KINDS for x in getattr(store.load(conn()), k)}
        typed["id"] = plain["id"] = made_id(plain["maker"], plain["name"], taken)
        errors.pop("id", None)
    if not errors:
        try:
            item = _checked(kind, plain)
        except JolvekError as error:
            errors[_field_of(str(error), kind)] = str(error)
    known = store.stored_row(conn(), kind, typed["id"])
    if item is None:
        return (_product_page(kind, known or {}, typed, errors), 422), None, ""
    ask = unlikely.asked_about(kind, item, store.get(conn(), kind, item.id))
    if ask and request.form.get("sure") != ask:
        return (_product_page(kind, known or {}, typed, {}, str(ask)), 422), None, ""
    what = f"{'changed' if known else 'new'}: {item.title}"
    flash(tr("%(title)s is saved.", title=item.title))
    return redirect(url_for("catalogue.product", kind=kind, product_id=item.id), 303), item, what


def _checked(kind: str, plain: dict[str, Any]) -> Item[Any]:
    fault = best_match(Draft202012Validator(item_schema(kind)).iter_errors(plain))
    if fault is not None:
        raise schema.refused(fault)
    return product_from_plain(kind, plain)


@bp.post("/undo/<int:batch_id>")
def undo(batch_id: int) -> Any:
    """Take a batch back."""
    count = shop.catalogue.undo(conn(), batch_id)
    flash(tr("%(count)s products are as they were.", count=count))
    back = request.form.get("back", "")
    return redirect(back if back.startswith("/catalogue") else url_for("catalogue.page"), 303)


@bp.get("/export.json")
def export_json() -> Response:
    """The whole shelf as jolvek-shelf."""
    data = shelf_file.write(store.load(conn()), settings().currency)
    name = {"Content-Disposition": 'attachment; filename="shelf.json"'}
    text = json.dumps(data, ensure_ascii=False, indent=1)
    return Response(text, mimetype="application/json", headers=name)


@bp.get("/<kind>/export.csv")
def export_csv(kind: str) -> Response:
    """One kind as CSV."""
    text = shelf_csv.write(store.load(conn()), kind_or_404(kind))
    name = {"Content-Disposition": f'attachment; filename="{kind}.csv"'}
    return Response(text, mimetype="text/csv", headers=name)
