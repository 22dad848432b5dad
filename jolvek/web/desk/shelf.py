"""Shelf: browse, filter, compare, edit and check products; price lists in and out, with preview,
history and undo.
"""

from __future__ import annotations

import re
import secrets
from datetime import date
from typing import Any

from flask import (
    Blueprint,
    Response,
    abort,
    current_app,
    flash,
    json,
    redirect,
    render_template,
    request,
    url_for,
)
from jsonschema import Draft202012Validator
from jsonschema.exceptions import best_match

from jolvek.core.base.errors import JolvekError
from jolvek.core.predict import claims
from jolvek.core.products.plain import product_from_plain, product_plain
from jolvek.core.products.shelf import Item, Shelf
from jolvek.formats import schema, shelf_csv, shelf_file
from jolvek.store import shelf as store
from jolvek.store.db import transaction
from jolvek.web import conn, saving

bp = Blueprint("shelf", __name__, url_prefix="/shelf")
COLUMNS = {
    "motors": (
        "input_power_w",
        "voltage_v",
        "mass_kg",
        "static_thrust_n",
        "propeller_diameter_m",
        "noise_db",
    ),
    "batteries": ("chemistry", "nominal_voltage_v", "capacity_ah", "mass_kg", "max_continuous_a"),
    "mounts": ("kind", "max_motor_kg", "max_thrust_n", "mass_kg", "hours"),
    "chargers": ("voltage_v", "current_a", "outputs", "mass_kg"),
    "panels": ("rated_w", "length_m", "width_m", "mass_kg"),
    "propellers": ("diameter_m", "pitch_m", "blades"),
    "accessories": ("kind", "text", "mass_kg"),
}
MOST_UPLOAD = 4_000_000
PREVIEW_SAME = 30


def _kind_or_404(kind: str) -> str:
    if kind not in store.KINDS:
        abort(404)
    return kind


def _item_or_404(kind: str, product_id: str) -> Item[Any]:
    item = store.get(conn(), _kind_or_404(kind), product_id)
    if item is None:
        abort(404)
    return item


@bp.get("/")
@bp.get("/<kind>")
def page(kind: str = "motors") -> Any:
    """One kind of product, filtered by words and by what is offered."""
    shelf, words = store.load(conn()), request.args.get("q", "").lower().split()
    items = [
        x
        for x in getattr(shelf, _kind_or_404(kind))
        if all(w in f"{x.title} {x.id}".lower() for w in words)
    ]
    if request.args.get("maker"):
        items = [x for x in items if x.maker == request.args["maker"]]
    if not request.args.get("all"):
        items = [x for x in items if not x.discontinued]
    order = request.args.get("by", "")
    if order in COLUMNS[kind] or order == "price":
        items.sort(
            key=lambda x: (
                (_value(x, order) is None, _value(x, order) or 0)
                if not isinstance(_value(x, order), str)
                else (False, _value(x, order))
            )
        )
    return render_template(
        "shelf/page.html",
        kind=kind,
        kinds=store.KINDS,
        items=items,
        columns=COLUMNS[kind],
        value=_value,
        makers=sorted({x.maker for x in getattr(shelf, kind)}),
        doubts={x.id: _worst(x) for x in items},
        counts={k: len(getattr(shelf, k)) for k in store.KINDS},
        batches=store.batches(conn(), 6),
        today=date.today().isoformat(),
    )


def _value(item: Item[Any], key: str) -> Any:
    return (
        item.price
        if key == "price"
        else (
            getattr(item, key)
            if hasattr(item, key) and key in ("noise_db", "stock")
            else getattr(item.spec, key)
        )
    )


def _worst(item: Item[Any]) -> str:
    levels = {c.level for c in claims.check_claims(item)}
    return next((level for level in ("block", "caution") if level in levels), "")


@bp.get("/<kind>/compare")
def compare(kind: str) -> Any:
    """Up to five products of one kind beside each other."""
    items = [_item_or_404(kind, pid) for pid in request.args.getlist("id")[:5]]
    rows = [(key, [product_plain(x).get(key) for x in items]) for key in shelf_csv.columns(kind)]
    return render_template(
        "shelf/compare.html",
        kind=kind,
        items=items,
        rows=[r for r in rows if any(v not in (None, "") for v in r[1])],
    )


@bp.get("/<kind>/item/<product_id>")
def product(kind: str, product_id: str) -> Any:
    """One product with its claims checked, its history, and the form to change it."""
    return _product_page(kind, _item_or_404(kind, product_id), {})


@bp.get("/<kind>/new")
def new(kind: str) -> Any:
    """An empty product."""
    return _product_page(_kind_or_404(kind), None, {})


def _product_page(
    kind: str, item: Item[Any] | None, errors: dict[str, str], typed: dict[str, str] | None = None
) -> Any:
    plain = product_plain(item) if item else {}
    fields = [
        (key, rule, (typed or {}).get(key, shelf_csv.cell(plain.get(key))))
        for key, rule in shelf_csv.columns(kind).items()
    ]
    page = render_template(
        "shelf/product.html",
        kind=kind,
        item=item,
        fields=fields,
        errors=errors,
        claims=claims.check_claims(item) if item else [],
        history=store.history(conn(), kind, item.id) if item else [],
        diff=_diff,
    )
    return (page, 422) if errors else page


def _diff(change: store.Change) -> list[str]:
    a, b = change.before or {}, change.after or {}
    return [
        f"{key}: {shelf_csv.cell(a.get(key)) or 'none'} → {shelf_csv.cell(b.get(key)) or 'none'}"
        for key in sorted({*a, *b})
        if a.get(key) != b.get(key)
    ]


@bp.post("/<kind>/item")
def save(kind: str) -> Any:
    """Keep a product as typed, or give it back with the message at its field."""
    typed = {key: request.form.get(key, "") for key in shelf_csv.columns(_kind_or_404(kind))}
    plain, errors = {}, {}
    for key, rule in shelf_csv.columns(kind).items():
        try:
            value = shelf_csv.value_of(typed[key], rule, key)
            if value is not None:
                plain[key] = value
        except JolvekError as error:
            errors[key] = str(error)
    if not errors:
        fault = best_match(Draft202012Validator(shelf_csv.item_schema(kind)).iter_errors(plain))
        try:
            if fault is not None:
                raise schema.refused(fault)
            item = product_from_plain(kind, plain)
        except JolvekError as error:
            errors[
                re.split(r"[.:]", str(error))[0]
                if re.split(r"[.:]", str(error))[0] in typed
                else "id"
            ] = str(error)
    if errors:
        return _product_page(kind, store.get(conn(), kind, typed["id"]), errors, typed)
    known = store.get(conn(), kind, item.id)
    with transaction(conn()) as c:
        store.change(
            c, [(kind, item)], f"{'changed' if known else 'new'}: {item.title}", saving.now()
        )
    flash(f"{item.title} is kept.")
    return redirect(url_for("shelf.product", kind=kind, product_id=item.id), 303)


@bp.get("/import")
def import_form() -> Any:
    """The form to bring a price list in."""
    return render_template(
        "shelf/import.html",
        kinds=store.KINDS,
        columns={k: list(shelf_csv.columns(k)) for k in store.KINDS},
    )


@bp.post("/import")
def preview(kind: str = "") -> Any:
    """Read a file and show every row: new, changed, wrong with line and reason. Nothing is
    written.
    """
    request.max_content_length = MOST_UPLOAD
    upload, kind = request.files.get("file"), request.form.get("kind", "motors")
    if upload is None or not upload.filename:
        return refuse("choose a CSV or JSON file first")
    content = upload.read()
    token = secrets.token_hex(16)
    try:
        rows = _rows(content, _kind_or_404(kind), store.load(conn()))
    except JolvekError as error:
        return refuse(f"{upload.filename}: {error}")
    folder = current_app.config["SETTINGS"].data_dir / "imports"
    folder.mkdir(exist_ok=True)
    for old in folder.iterdir():
        old.unlink(missing_ok=True)
    (folder / token).write_bytes(content)
    by = {
        state: [r for r in rows if r[1].state == state]
        for state in ("wrong", "changed", "new", "same")
    }
    return render_template(
        "shelf/preview.html", by=by, token=token, kind=kind, name=upload.filename, most=PREVIEW_SAME
    )


def _rows(content: bytes, kind: str, shelf: Shelf) -> list[tuple[str, shelf_csv.Row]]:
    """(kind, row) of a CSV file of one kind, or of a jolvek-shelf file of all."""
    if content.lstrip()[:1] not in (b"{", b"["):
        return [(kind, row) for row in shelf_csv.read(content, kind, shelf)]
    given = shelf_file.read(content)
    out = []
    for k in store.KINDS:
        old = {x.id: x for x in getattr(shelf, k)}
        for i, item in enumerate(getattr(given, k), 1):
            changes = shelf_csv.differences(old[item.id], item) if item.id in old else ()
            state = "new" if item.id not in old else "changed" if changes else "same"
            out.append((k, shelf_csv.Row(i, state, item, changes=changes, title=item.title)))
    return out


@bp.post("/import/confirm")
def confirm() -> Any:
    """Write what the preview showed, all in one batch; with wrong rows only when they are left out
    by choice.
    """
    token, kind = request.form.get("token", ""), _kind_or_404(request.form.get("kind", "motors"))
    path = current_app.config["SETTINGS"].data_dir / "imports" / token
    if not re.fullmatch(r"[0-9a-f]{32}", token) or not path.exists():
        return refuse("the preview is gone; choose the file again")
    rows = _rows(path.read_bytes(), kind, store.load(conn()))
    wrong = [r for _, r in rows if r.state == "wrong"]
    if wrong and request.form.get("leave_out") != "1":
        return refuse(f"{len(wrong)} rows are wrong; nothing was written")
    items = [(k, r.item) for k, r in rows if r.state in ("new", "changed") and r.item is not None]
    with transaction(conn()) as c:
        store.change(c, items, f"import of {len(items)} products", saving.now())
    path.unlink(missing_ok=True)
    flash(
        f"{len(items)} products imported{f', {len(wrong)} wrong rows left out' if wrong else ''}."
    )
    return redirect(url_for("shelf.page", kind=kind), 303)


def refuse(text: str) -> Any:
    """The import form with the refusal at its field."""
    return (
        render_template(
            "shelf/import.html",
            kinds=store.KINDS,
            columns={k: list(shelf_csv.columns(k)) for k in store.KINDS},
            error=text,
        ),
        422,
    )


@bp.post("/undo/<int:batch_id>")
def undo(batch_id: int) -> Any:
    """Take a batch back."""
    with transaction(conn()) as c:
        count = store.undo(c, batch_id)
    flash(f"{count} products are as they were.")
    return redirect(
        (
            request.form.get("back")
            if request.form.get("back", "").startswith("/shelf")
            else url_for("shelf.page")
        ),
        303,
    )


@bp.get("/export.json")
def export_json() -> Response:
    """The whole shelf as jolvek-shelf."""
    data = shelf_file.write(store.load(conn()), current_app.config["SETTINGS"].currency)
    return Response(
        json.dumps(data, ensure_ascii=False, indent=1),
        mimetype="application/json",
        headers={"Content-Disposition": 'attachment; filename="shelf.json"'},
    )


@bp.get("/<kind>/export.csv")
def export_csv(kind: str) -> Response:
    """One kind as CSV."""
    return Response(
        shelf_csv.write(store.load(conn()), _kind_or_404(kind)),
        mimetype="text/csv",
        headers={"Content-Disposition": f'attachment; filename="{kind}.csv"'},
    )
