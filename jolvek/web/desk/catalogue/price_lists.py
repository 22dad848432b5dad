"""Price lists: a file read and shown row by row, and written only when that is confirmed."""

from __future__ import annotations

import re
import secrets
from dataclasses import asdict
from hashlib import sha256
from pathlib import Path
from typing import Any

from flask import Blueprint, flash, redirect, render_template, request, url_for

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.products.shelf import Shelf
from jolvek.formats import shelf_csv, shelf_file, supplier_columns, tables
from jolvek.formats.supplier_columns import Column
from jolvek.store import shelf as store
from jolvek.store import suppliers
from jolvek.web import errors
from jolvek.web.desk.catalogue import view as catalogue_page
from jolvek.web.desk.catalogue.columns import columns_from
from jolvek.web.desk.catalogue.page import kind_or_404
from jolvek.web.kit import pages
from jolvek.web.kit.accounts import signing
from jolvek.web.kit.display import counted
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, PRICE_LIST
from jolvek.web.saving import by
from jolvek.web.shared import conn, settings, show

bp = Blueprint("price_lists", __name__, url_prefix="/catalogue/import")
pages.add(
    bp,
    {
        "columns": ADVISOR,
        "confirm": ADVISOR,
        "import_form": ADVISOR,
        "preview": ADVISOR,
    },
    limits={"preview": PRICE_LIST},
    quiet="columns",
)
LAID_ASIDE = 8  # files of one person that wait to be confirmed


def _form(code: int = 200, **more: Any) -> Any:
    columns = {k: list(shelf_csv.columns(k)) for k in store.KINDS}
    values = {"kinds": store.KINDS, "columns": columns, "suppliers": suppliers.names(conn())}
    return render_template("desk/catalogue/import.html", **values, **more), code


@bp.get("")
def import_form() -> Any:
    """The form to bring a price list in."""
    return _form()


@bp.post("")
def preview() -> Any:
    """Read a file and show every row: new, changed, wrong with line and reason. Nothing is
    written.
    """
    upload, kind = request.files.get("file"), kind_or_404(request.form.get("kind", "motors"))
    if upload is None or not upload.filename:
        return refuse(tr("choose a CSV, XLSX or JSON file first"))
    supplier = request.form.get("supplier", "").strip()[:80]
    try:
        content = _plain(upload.read())
        shelf = store.load(conn())
        head = supplier_columns.table(content)[0] if _is_table(content) else []
        if head and not supplier_columns.fits(head, kind):
            known = _remembered(supplier, kind)
            if not known or {name for name in head if name} - set(known):
                guess = {**supplier_columns.guessed(head, kind), **known}
                return _ask(_kept(content), upload.filename, kind, supplier, head, guess)
            content = supplier_columns.translated(content, kind, known, shelf)
        elif head and "id" not in map(str.lower, head):
            ours = {name: Column(name.lower()) for name in head if name}
            content = supplier_columns.translated(content, kind, ours, shelf)
        return _preview(content, upload.filename, kind, shelf)
    except JolvekError as error:
        return refuse(f"{upload.filename}: {error}")


def _preview(content: bytes, name: str, kind: str, shelf: Shelf) -> Any:
    """Every row as it would be written."""
    rows = _rows(content, kind, shelf)
    more = {"token_value": _kept(content), "kind": kind, "name": name, "shown": _stamp(rows)}
    seen = catalogue_page.preview(rows)
    return show("desk/catalogue/preview.html", seen, p=seen, **more)


def _stamp(rows: list[tuple[str, shelf_csv.Row]]) -> str:
    """What a preview showed, in short: other rows or other changes have another."""
    result = "\n".join(f"{k} {r.line} {r.state} {r.title} {r.changes}" for k, r in rows)
    return sha256(result.encode()).hexdigest()[:32]


def _mine() -> str:
    """What the files that this person laid aside begin with."""
    here = signing.person()
    return f"{here.id if here else 0:06d}-"


def _kept(content: bytes) -> str:
    """The file laid aside until it is confirmed, with the last few of the same person; returns its
    token.
    """
    folder, token = settings().data_dir / "imports", _mine() + secrets.token_hex(16)
    folder.mkdir(exist_ok=True)
    (folder / token).write_bytes(content)
    mine = sorted(folder.glob(f"{_mine()}*"), key=lambda p: p.stat().st_mtime_ns)
    for old in mine[:-LAID_ASIDE]:
        old.unlink(missing_ok=True)
    return token


def _laid_aside(token: str) -> Path | None:
    """One's own file of that token."""
    path = settings().data_dir / "imports" / token
    known = re.fullmatch(r"\d{6,}-[0-9a-f]{32}", token) and token.startswith(_mine())
    return path if known and path.exists() else None


def _remembered(supplier: str, kind: str) -> dict[str, Column]:
    """What the supplier's columns are; empty where one of them can no longer be."""
    try:
        kept = suppliers.columns(conn(), supplier, kind) if supplier else {}
        return {name: Column(**c) for name, c in kept.items()}
    except (JolvekError, TypeError):
        return {}


def _ask(
    token: str,
    name: str,
    kind: str,
    supplier: str,
    head: list[str],
    columns: dict[str, Column],
    refused: dict[str, str] | None = None,
) -> Any:
    """Ask what each column of the file is."""
    asked = {"head": head, "columns": columns, "refused": refused or {}}
    keys = list(shelf_csv.columns(kind))
    values = {"token_value": token, "kind": kind, "name": name, "supplier": supplier, "keys": keys}
    page = render_template("desk/catalogue/columns.html", **values, **asked)
    return page, 422 if refused else 200


@bp.post("/columns")
def columns() -> Any:
    """Read the laid-aside file by the columns as told, remember them, and show every row."""
    form, kind = request.form, kind_or_404(request.form.get("kind", "motors"))
    path, name = _laid_aside(form.get("token", "")), form.get("name", "")[:200]
    if path is None:
        return refuse(tr("the file is gone; choose it again"))
    content, supplier = path.read_bytes(), form.get("supplier", "").strip()[:80]
    try:
        head = supplier_columns.table(content)[0]
        result, refused = columns_from(form, head)
        if refused:
            return _ask(_kept(content), name, kind, supplier, head, result, refused)
        shelf = store.load(conn())
        read = supplier_columns.translated(content, kind, result, shelf)
        if supplier:
            plain = {k: asdict(v) for k, v in result.items()}
            shop.catalogue.remember_columns(conn(), supplier, kind, plain)
        return _preview(read, name, kind, shelf)
    except JolvekError as error:
        return refuse(f"{name}: {error}")


def _plain(content: bytes) -> bytes:
    return tables.csv_of_xlsx(content).encode() if content[:2] == b"PK" else content


def _is_table(content: bytes) -> bool:
    return content.lstrip()[:1] not in (b"{", b"[")


def _rows(content: bytes, kind: str, shelf: Shelf) -> list[tuple[str, shelf_csv.Row]]:
    """(kind, row) of a CSV file of one kind, or of a jolvek-shelf file of all."""
    if _is_table(content):
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


@bp.post("/confirm")
def confirm() -> Any:
    """Write what the preview showed, all in one batch; with wrong rows only when they are left out
    by choice.
    """
    token, kind = request.form.get("token", ""), kind_or_404(request.form.get("kind", "motors"))
    path = _laid_aside(token)
    if path is None:
        return refuse(tr("the preview is gone; choose the file again"))
    return shop.catalogue.take_in(conn(), by(), lambda shelf: _confirmed(path, kind, shelf))


def _confirmed(path: Path, kind: str, shelf: Shelf) -> tuple[Any, shop.catalogue.Items, str]:
    """What is answered, what is written, and the name of the batch."""
    content = path.read_bytes()
    rows = _rows(content, kind, shelf)
    if request.form.get("shown", "") not in ("", _stamp(rows)):
        flash(tr("The catalogue changed since the preview: look at it again."))
        return (_preview(content, request.form.get("name", "")[:200], kind, shelf), 422), (), ""
    wrong = [r for _, r in rows if r.state == "wrong"]
    if wrong and request.form.get("leave_out") != "1":
        told = tr("%(wrong)s rows are wrong; nothing was written", wrong=len(wrong))
        return refuse(told), (), ""
    asked = [r for _, r in rows if r.ask and r.state in ("new", "changed")]
    if asked and request.form.get("sure") != "1":
        told = tr(
            "%(asked)s is unlikely, the first %(first)s: %(why)s. Nothing was written.",
            asked=counted(len(asked), "figure"),
            first=asked[0].title,
            why=asked[0].ask,
        )
        return refuse(told), (), ""
    items = [(k, r.item) for k, r in rows if r.state in ("new", "changed") and r.item is not None]
    path.unlink(missing_ok=True)
    left = tr(", %(wrong)s left out", wrong=counted(len(wrong), tr("wrong row"))) if wrong else ""
    flash(tr("%(items)s imported%(left)s.", items=counted(len(items), "product"), left=left))
    what = tr("import of %(items)s", items=counted(len(items), "product"))
    return redirect(url_for("catalogue.page", kind=kind), 303), items, what


def refuse(text: str) -> Any:
    """The import form with the refusal at its field."""
    return _form(422, error=text)


errors.refuses_large("price_lists.preview", refuse)
