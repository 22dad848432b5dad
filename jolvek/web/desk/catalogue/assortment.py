"""What to stock: which few products serve the most customers' days, for what they tie up."""

from __future__ import annotations

from typing import Any

import numpy as np
from flask import Blueprint, Response, abort, redirect, request, url_for

from jolvek.core.assort.choose import Chosen, best, changes
from jolvek.core.assort.demand import KINDS, Demand
from jolvek.core.base.money import major
from jolvek.store import stock
from jolvek.web import data
from jolvek.web.desk.catalogue.stocking import MOST_TYPICAL, OWN, STOCKING, TYPICAL, Work
from jolvek.web.kit import display, pages
from jolvek.web.kit.drawings.front_chart import front_chart
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.kit.language import tr
from jolvek.web.kit.matches import shelf_of
from jolvek.web.kit.pages import ADVISOR
from jolvek.web.kit.rates import digits_of
from jolvek.web.shared import conn, settings, show, table_file

bp = Blueprint("assortment", __name__, url_prefix="/assortment")
pages.add(
    bp,
    {
        "page": ADVISOR,
        "begin": ADVISOR,
        "table": ADVISOR,
    },
)
PATIENCE_S, SHARE = 2.0, 0.5  # for a page; of all that is worth stocking, where nothing is typed
KIND_WORDS = dict(zip(KINDS, ("motors", "packs", "mounts", "chargers"), strict=True))
USUAL, MORE = 200, 12


def _work() -> Work | None:
    return STOCKING.get(settings().database)


def _asked(d: Demand, work: Work) -> tuple[float, dict[str, int], Reader]:
    """Budget and most products a kind, as typed."""
    read = Reader(request.args, display.current())
    budget = read.figure("budget", "money", 0, 1e9)
    most = {}
    for kind in KINDS:
        count = read.figure(f"most_{kind}", "count", 0, 1000)
        if count is not None:
            most[kind] = int(count)
    whole = work.front[-1].value if work.front else d.value(np.ones(len(d.products)))
    return (SHARE * whole if budget is None else budget), most, read


def _choice(work: Work, d: Demand, budget: float, most: dict[str, int]) -> Chosen:
    """The best in a page's time; where the front knows a better one for the money, that."""
    keep = request.args.getlist("keep")
    found = best(d, budget, most, keep, PATIENCE_S)
    known = [] if most or keep else [x for x in work.front if x.value <= budget]
    return max([found, *known], key=lambda c: (c.coverage, -c.value))


@bp.get("")
def page() -> Any:
    """The choice, what each product brings, and what nothing serves."""
    work = _work()
    more: dict[str, Any] = {"work": work, "usual": USUAL, "most": MOST_TYPICAL}
    if work is not None and work.demand is not None:
        d = work.demand
        budget, limits, read = _asked(d, work)
        c = _choice(work, d, budget, limits)
        front = [(x.value, x.coverage) for x in work.front]
        ranked = changes(d, c.stocked)
        more |= {
            "d": d,
            "c": c,
            "budget": budget,
            "refused": read.refused,
            "kinds": KIND_WORDS,
            "keep": request.args.getlist("keep"),
            "stocked": [(d.products[x.index], x) for x in ranked if c.stocked[x.index]],
            "others": [
                (d.products[x.index], x) for x in ranked if not c.stocked[x.index] and x.served > 0
            ][:MORE],
            "front": work.front,
            "chart": front_chart(front, (c.value, c.coverage), d.total, data.shop().currency),
            "lacking": [(n, x) for n, x in zip(d.names, d.lacking, strict=True) if x],
        }
    return show("desk/catalogue/stock.html", **more)


@bp.post("")
def begin() -> Any:
    """Work the demand out, of the shop's own enquiries or of typical ones."""
    of = request.form.get("of", "")
    if of not in (OWN, TYPICAL):
        abort(
            422,
            tr(
                "Read %(of)s; allowed is %(own)s or %(typical)s.",
                of=repr(of),
                own=OWN,
                typical=TYPICAL,
            ),
        )
    read = Reader(request.form, display.current())
    count = read.figure("count", "count", 10, MOST_TYPICAL)
    if read.refused:
        abort(422, read.refused["count"])
    shelf = shelf_of(conn())
    digits = digits_of(data.shop().currency)
    worth = {k: float(major(v, digits)) for k, v in stock.buying(conn()).items()}
    STOCKING.begin(settings().database, of, USUAL if count is None else int(count), shelf, worth)
    return redirect(url_for("assortment.page"), 303)


@bp.get("/stock.<form>")
def table(form: str) -> Response:
    """The choice as a table, then what else would serve more."""
    work = _work()
    if work is None or work.demand is None:
        abort(404)
    d = work.demand
    budget, limits, _ = _asked(d, work)
    c = _choice(work, d, budget, limits)
    rows: list[tuple[str, ...]] = [("stocked", "kind", "product", "value", "changes served by")]
    for x in changes(d, c.stocked):
        p = d.products[x.index]
        there = "yes" if c.stocked[x.index] else "no"
        rows.append((there, KIND_WORDS[p.kind], p.title, f"{p.stock_value:.2f}", f"{x.served:+g}"))
    return table_file(rows, "stock", form)
