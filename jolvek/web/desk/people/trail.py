"""The audit trail, for the owner."""

from __future__ import annotations

from typing import Any

from flask import Blueprint, Response, request

from jolvek.store import trail as store
from jolvek.web import shared
from jolvek.web.kit import pages
from jolvek.web.kit.pages import OWNER

bp = Blueprint("trail", __name__, url_prefix="/trail")
pages.add(
    bp,
    {
        "page": OWNER,
        "as_csv": OWNER,
    },
)
A_PAGE = 100
NAMES = ("time", "who", "role", "address", "action", "path", "detail", "chain")


@bp.get("")
def page() -> Any:
    """The last steps, and whether the chain holds."""
    before = request.args.get("before", type=int) or 0
    before = before if 0 < before <= shared.LARGEST_ID else 0
    steps = store.latest(shared.conn(), A_PAGE, before)
    older = steps[-1][0] if len(steps) == A_PAGE else 0
    broken = store.broken_at(shared.conn())
    return shared.show("desk/people/trail.html", steps=steps, older=older, broken=broken)


@bp.get("/trail.csv")
def as_csv() -> Response:
    """All of it, with its chain."""
    steps = ([*vars(s).values()] for s in store.all_of(shared.conn()))
    return shared.table_file([NAMES, *steps], "trail", "csv")
