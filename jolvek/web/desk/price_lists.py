"""Price lists: a file read and shown row by row, and written only when that is confirmed."""

from __future__ import annotations

import re
import secrets
from typing import Any

from flask import Blueprint, flash, redirect, render_template, request, url_for

from jolvek.core.base.errors import JolvekError
from jolvek.core.products.shelf import Shelf
from jolvek.formats import shelf_csv, shelf_file, tables
from jolvek.store import shelf as store
from jolvek.store.db import transaction
from jolvek.web import errors, saving
from jolvek.web.desk.shelf import kind_or_404
from jolvek.web.pages import catalogue_page
from jolvek.web.shared import conn, settings, show

bp = Blueprint("price_lists", __name__, url_prefix="/shelf/import")


def _form(code: int = 200, **more: Any) -> Any:
    columns = {k: list(shelf_csv.columns(k)) for k in store.KINDS}
    return render_template("shelf/import.html", kinds=store.KINDS, columns=columns, **more), code


@bp.get("")
def import_form() -> Any:
    """The form to bring a price list in."""
    return _form()


@bp.post("")
def preview() -> Any:
    """Read a file and show every row: new, changed, wrong with line and reason. Nothing is
    written.
    """
    upload, kind = request.files.get("file"), request.form.get("kind", "motors")
    if upload is None or not upload.filename:
        return refuse("choose a CSV, XLSX or JSON file first")
    content = upload.read()
    try:
        rows = _rows(content, kind_or_404(kind), store.load(conn()))
    except JolvekError as error:
        return refuse(f"{upload.filename}: {error}")
    folder, token = settings().data_dir / "imports", secrets.token_hex(16)
    folder.mkdir(exist_ok=True)
    for old in folder.iterdir():
        old.unlink(missing_ok=True)
    (folder / token).write_bytes(content)
    seen = catalogue_page.preview(rows)
    return show(
        "shelf/preview.html", seen, p=seen, token_value=token, kind=kind, name=upload.filename
    )


def _rows(content: bytes, kind: str, shelf: Shelf) -> list[tuple[str, shelf_csv.Row]]:
    """(kind, row) of a CSV file of one kind, or of a jolvek-shelf file of all."""
    if content[:2] == b"PK":
        content = tables.csv_of_xlsx(content).encode()
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


@bp.post("/confirm")
def confirm() -> Any:
    """Write what the preview showed, all in one batch; with wrong rows only when they are left out
    by choice.
    """
    token, kind = request.form.get("token", ""), kind_or_404(request.form.get("kind", "motors"))
    path = settings().data_dir / "imports" / token
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
    left = f", {len(wrong)} wrong rows left out" if wrong else ""
    flash(f"{len(items)} products imported{left}.")
    return redirect(url_for("shelf.page", kind=kind), 303)


def refuse(text: str) -> Any:
    """The import form with the refusal at its field."""
    return _form(422, error=text)


errors.refuses_large("price_lists.preview", refuse)
