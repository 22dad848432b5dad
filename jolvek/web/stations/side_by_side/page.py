"""Station 4, Side by side: two to five setups under one cursor, at the same speed, the same power,
or over the day.
"""

from __future__ import annotations

from typing import Any

import numpy as np
from flask import Blueprint, Response, abort, flash, redirect, request, url_for

from jolvek import shop
from jolvek.core.base import units
from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.fit.add_ons import area_m2, why_not
from jolvek.store import setups
from jolvek.web.kit import display, pages, pdf, stations
from jolvek.web.kit.language import tr
from jolvek.web.kit.matches import shelf_of
from jolvek.web.kit.pages import ADVISOR, READER
from jolvek.web.kit.worked import Worked, work_out
from jolvek.web.saving import by
from jolvek.web.shared import conn, frame, show, stored_or_404, table_file
from jolvek.web.stations.side_by_side.curves import POINTS, SLOWEST_SHARE
from jolvek.web.stations.side_by_side.full import full_table
from jolvek.web.stations.side_by_side.view import MODES, VIEWS, asked_from, drawn, side_by_side_page

bp = Blueprint("side_by_side", __name__, url_prefix="/enquiry/<int:enquiry_id>")
pages.add(
    bp,
    {
        "page": READER,
        "as_csv": READER,
        "as_svg": READER,
        "as_table": READER,
        "choose": ADVISOR,
        "extra": ADVISOR,
    },
    changes_job=True,
)
OWN_STYLE = {"Content-Security-Policy": "default-src 'none'; style-src 'unsafe-inline'"}


def _state(s: stations.Standing) -> tuple[str, str]:
    if not s.pinned:
        return "empty", tr("pin a setup first")
    if s.level == "block":
        return "blocked", tr("a setup cannot be offered")
    if len(s.pinned) == 1:
        return "look", tr("one setup only: pin another to compare")
    return "done", tr("%(pinned)s setups", pinned=len(s.pinned))


STATION = stations.add(4, "side_by_side", msg("Side by side"), _state)


@bp.get("/side-by-side")
def page(enquiry_id: int) -> Any:
    """Charts, table and answer line; view, mode, cursor and band stand in the address."""
    f, u = frame(enquiry_id, "side_by_side"), display.current()
    if not f.pinned:
        return show("stations/side_by_side/page.html", f, worked=[])
    worked = [work_out(f.need, p) for p in f.pinned]
    asked = asked_from(request.args, f.need, worked, u)
    whole = side_by_side_page(f.need, worked, asked, u)
    code = 422 if asked.refused else 200
    tabs = {
        "views": VIEWS,
        "modes": MODES,
        "add_ons": {w.letter: _judged(w) for w in worked},
        "full": full_table(worked, u),
    }
    return show("stations/side_by_side/page.html", f, whole, **tabs), code


def _add_ons() -> list[tuple[str, Any]]:
    shelf = shelf_of(conn())
    return [(kind, x) for kind, kinds in setups.EXTRAS.items() for x in getattr(shelf, kinds)]


def _judged(w: Worked) -> list[tuple[Any, str]]:
    """Every add-on of the shelf with why it does not go with a setup; those that go first."""
    panels = sum(x.quantity * area_m2(x.item.spec) for x in w.pinned.extras if x.kind == "panel")
    rows = [(x, why_not(x, w.fitted, panels)) for _, x in _add_ons()]
    return sorted(rows, key=lambda row: bool(row[1]))


@bp.post("/extra")
def extra(enquiry_id: int) -> Any:
    """Add an add-on to a pinned setup, or take it off."""
    need = stored_or_404(enquiry_id).need
    pinned = {p.letter: p for p in setups.of_enquiry(conn(), enquiry_id)}
    setup = pinned.get(request.form.get("letter", ""))
    product, off = request.form.get("product", ""), bool(request.form.get("off"))
    kind, item = next(((k, x) for k, x in _add_ons() if x.id == product), ("", None))
    if setup is None or (item is None and not off):
        abort(422, tr("That add-on is not in the catalogue any more."))
    values = {x.id: why for x, why in _judged(work_out(need, setup))}
    if not off and item is not None and values[item.id]:
        abort(422, tr("%(title)s does not go here: %(id)s.", title=item.title, id=values[item.id]))
    if off:
        shop.setups.drop_extra(conn(), by(), enquiry_id, setup.id, product)
    elif item is not None:
        shop.setups.add_extra(conn(), by(), enquiry_id, setup.id, kind, item)
    address = url_for("side_by_side.page", enquiry_id=enquiry_id)
    return redirect(f"{address}#setup-{setup.letter}", 303)


@bp.get("/side-by-side.csv")
def as_csv(enquiry_id: int) -> Response:
    """The curves as CSV in shown units, which stand in the head."""
    u = display.current()
    read = {
        "speed_m_s": ("speed", "speed"),
        "power_w": ("power", "power"),
        "range_m": ("range", "distance"),
        "thrust_n": ("thrust", "thrust"),
    }
    head = [f"{name}, {u[quantity]}" for name, quantity in read.values()]
    rows = [["setup", *head, "current, A", tr("runs, h")]]
    for w in _worked(enquiry_id):
        top = w.performance.top_speed_m_s
        for v in np.linspace(SLOWEST_SHARE, 1.0, POINTS) * top:
            at = w.performance.at_speed(float(v))
            values = [(getattr(at, key), q) for key, (_, q) in read.items()]
            cells = ["" if x is None else f"{units.to_unit(x, q, u[q]):.6g}" for x, q in values]
            hours = "" if at.runtime_s is None else f"{at.runtime_s / 3600:.6g}"
            amps = "" if at.current_a is None else f"{at.current_a:.6g}"
            rows.append([w.letter, *cells, amps, hours])
    return table_file(rows, "curves", "csv")


@bp.get("/side-by-side/table.<form>")
def as_table(enquiry_id: int, form: str) -> Response:
    """Everything of the setups beside each other as a file."""
    worked = _worked(enquiry_id)
    if not worked:
        abort(404)
    return table_file(full_table(worked, display.current()).plain, "side-by-side", form)


def _worked(enquiry_id: int) -> list[Worked]:
    need = stored_or_404(enquiry_id).need
    return [work_out(need, p) for p in setups.of_enquiry(conn(), enquiry_id)]


@bp.get("/side-by-side.svg")
def as_svg(enquiry_id: int) -> Response:
    """The chart as a picture of its own."""
    u, worked = display.current(), _worked(enquiry_id)
    if not worked:
        abort(404)
    need = worked[0].fitted.need
    speed = {"speed": request.args["speed"]} if request.args.get("speed") else {}
    chart, _ = drawn(need, worked, asked_from(speed, need, worked, u), u)
    svg = str(pdf.styled(chart.svg, "stations/side_by_side/chart.css"))
    svg = svg.replace("<svg ", '<svg xmlns="http://www.w3.org/2000/svg" ', 1)
    name = {"Content-Disposition": 'attachment; filename="side-by-side.svg"'}
    return Response(svg, mimetype="image/svg+xml", headers={**name, **OWN_STYLE})


@bp.post("/choose")
def choose(enquiry_id: int) -> Any:
    """Make one setup the one in hand and go to the offer or stay."""
    stored_or_404(enquiry_id)
    letter = request.form.get("letter", "")
    try:
        shop.setups.choose(conn(), by(), enquiry_id, letter)
    except JolvekError as error:
        abort(422, str(error))
    flash(tr("Setup %(letter)s is now the current one.", letter=letter))
    target = "offer.page" if request.form.get("then") == "offer" else "side_by_side.page"
    return redirect(url_for(target, enquiry_id=enquiry_id), 303)
