"""The shop's figures of its boats in service, as page, picture and table."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, Response, abort

from jolvek.web.desk.care.figures_view import figures
from jolvek.web.kit import pages
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import READER
from jolvek.web.shared import conn, show, table_file

bp = Blueprint("care_figures", __name__, url_prefix="/care/figures")
pages.add(
    bp,
    {
        "page": READER,
        "table": READER,
    },
)


@bp.get("")
def page() -> Any:
    """Promise against measured, faults by product, hours to the first."""
    return show("desk/care/figures.html", g=figures(conn()))


@bp.get("/<name>.<form>")
def table(name: str, form: str) -> Response:
    """One of the tables as a file."""
    found = figures(conn())
    rows: list[tuple[str, ...]]
    if name == "promise":
        rows = [("family", "boats", "points", "quarter", "middle", tr("three quarters"))]
        rows += [
            (f.name, str(f.boats), str(f.points), *(f"{x:.4f}" for x in (f.low, f.middle, f.high)))
            for f in found.families
        ]
    elif name == "faults":
        rows = [("product", "seen", "faults", "open", tr("a quarter by h"), tr("half by h"))]
        for p in found.products:
            ends = (p.first.quarter_h, p.first.half_h) if p.first else (None, None)
            texts = tuple("" if x is None else f"{x:.1f}" for x in ends)
            rows += [(p.title, seen, str(n), str(o), *texts) for seen, n, o in p.faults]
    else:
        abort(404)
    return table_file(rows, name, form)
