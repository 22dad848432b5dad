"""Station 6, Fitting: the setup in hand drawn to scale, its weights moved, its wiring, the rigger's
sheet, and all mounts.
"""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from flask import (
    Blueprint,
    Response,
    abort,
    redirect,
    render_template,
    request,
    url_for,
)

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.electric.netlist import SCHOOLS_12V, TAKE_OFFS
from jolvek.core.fit.as_set import AsSet
from jolvek.core.fit.checklist import sheet, work_hours
from jolvek.core.fit.fitted import Fitted
from jolvek.core.rules.findings import Finding
from jolvek.core.rules.rulebook import ELECTRIC, RULES
from jolvek.store import offers
from jolvek.store.setups import Pinned
from jolvek.web import saving
from jolvek.web.kit import display, pages, pdf, stations
from jolvek.web.kit.fields.reader import Reader
from jolvek.web.kit.language import tr
from jolvek.web.kit.matches import answered, shelf_for
from jolvek.web.kit.pages import READER, RIGGER
from jolvek.web.kit.worked import Worked, work_out
from jolvek.web.shared import Frame, conn, frame, is_fragment, show, stored_or_404
from jolvek.web.stations.fitting.drawing import drawing_page
from jolvek.web.stations.fitting.form import fitted_from, seen_text
from jolvek.web.stations.fitting.mounts import mounts_page
from jolvek.web.stations.fitting.wiring import TAKE_WORDS, wiring_page

bp = Blueprint("fitting", __name__, url_prefix="/enquiry/<int:enquiry_id>")
pages.add(
    bp,
    {
        "page": READER,
        "sheet_pdf": READER,
        "keep": RIGGER,
    },
    saves_itself="keep",
    changes_job=True,
)
TABS = {
    "drawing": msg("Drawing"),
    "wiring": msg("Wiring"),
    "sheet": msg("Sheet"),
    "mounts": msg("All mounts"),
}


def _state(s: stations.Standing) -> tuple[str, str]:
    if not s.pinned:
        return "empty", tr("pin a setup first")
    return (
        ("look", tr("see the findings"))
        if s.level in ("caution", "block")
        else ("done", tr("fits"))
    )


STATION = stations.add(6, "fitting", msg("Fitting"), _state)


@bp.get("/fitting")
def page(enquiry_id: int) -> Any:
    """One tab of the station; a fragment with it alone when something of it moves."""
    f = frame(enquiry_id, "fitting")
    hand = _hand(f)
    if hand is None:
        return (
            abort(404)
            if is_fragment()
            else show("stations/fitting/page.html", f, tabs=TABS, hand=None)
        )
    return _tab(f, hand, Reader(request.args, display.current()))


def _hand(f: Frame) -> Worked | None:
    """The setup that a form was filled for, though another be in hand by now; else the one in
    hand.
    """
    letter, hand = request.values.get("setup"), f.card.in_hand
    if not letter or hand is None or letter == hand.letter:
        return hand
    pinned = next((p for p in f.pinned if p.letter == letter), None)
    return work_out(f.need, pinned) if pinned else None


@bp.post("/fitting")
def keep(enquiry_id: int) -> Any:
    """Keep with its setup what a form of the station sets; refused fields are told, the rest is
    kept.
    """
    f = frame(enquiry_id, "fitting")
    hand = _hand(f)
    if hand is None:
        abort(404)
    read = Reader(request.values, display.current())

    def fitted(p: Pinned) -> tuple[float | None, AsSet]:
        made = fitted_from(work_out(f.need, p).fitted, read)
        return made.shaft_m, made.fitting

    try:
        shop.setups.fit(conn(), saving.by(), enquiry_id, hand.pinned.id, fitted)
    except JolvekError as error:
        abort(422, str(error))
    if not is_fragment() and not read.refused:
        tab = request.values.get("tab") or None
        return redirect(url_for("fitting.page", enquiry_id=enquiry_id, tab=tab), 303)
    f = frame(enquiry_id, "fitting")
    now = _hand(f)
    return abort(404) if now is None else _tab(f, now, read)


def _letter(hand: Worked, fitted: Fitted) -> str:
    """The letter of a setup that stands as it is kept, whose figures are the job's."""
    return hand.letter if fitted == hand.fitted else ""


def _on_tab(found: list[Finding], tab: str) -> tuple[Finding, ...]:
    """What is told beside the drawing, and beside the wiring: each finding on one of them."""
    return tuple(k for k in found if (RULES[k.rule].topic in ELECTRIC) == (tab == "wiring"))


def _tab(f: Frame, hand: Worked, read: Reader) -> Any:
    asked = read.args.get("tab", "")
    tab, u = asked if asked in TABS else "drawing", read.u
    fitted = fitted_from(hand.fitted, read)
    figures: Any = None
    found = replace(hand.job, fitted=fitted).findings
    if tab == "drawing":
        figures = drawing_page(fitted, read, u, _letter(hand, fitted))
    elif tab == "wiring":
        figures = wiring_page(fitted, read.refused, u, _letter(hand, fitted))
    elif tab == "mounts":
        figures = mounts_page(fitted, answered(f.need, shelf_for(conn(), f.e.id)).match, u)
    more = {
        "sheet": sheet(fitted, found) if tab == "sheet" else None,
        "findings": _on_tab(found, tab),
        "hours": work_hours(fitted),
        "args": read.args,
        "seen": seen_text(hand.fitted),
        "take_words": {t: TAKE_WORDS[t] for t in TAKE_OFFS},
        "schools": SCHOOLS_12V,
    }
    code = 422 if read.refused else 200
    if is_fragment():
        return show(f"stations/fitting/_{tab}.html", f, figures, hand=hand, **more), code
    return show(
        "stations/fitting/page.html", f, figures, hand=hand, tab=tab, tabs=TABS, **more
    ), code


@bp.get("/fitting/sheet.pdf")
def sheet_pdf(enquiry_id: int) -> Any:
    """The rigger's sheet as PDF, from the same templates."""
    stored_or_404(enquiry_id)
    f, u = frame(enquiry_id, "fitting"), display.current()
    hand = f.card.in_hand
    if hand is None:
        abort(404)
    read = Reader(request.args, u)
    fitted = fitted_from(hand.fitted, read)
    drawing, wiring = drawing_page(fitted, read, u), wiring_page(fitted, read.refused, u)
    html = show(
        "stations/fitting/sheet_pdf.html",
        f,
        wiring,
        hand=hand,
        sheet=sheet(fitted, replace(hand.job, fitted=fitted).findings),
        leg_svg=drawing.leg_svg,
        boat_svg=drawing.boat_svg,
        plan_svg=drawing.plan_svg,
        stern_svg=drawing.stern_svg,
        diagram=wiring.diagram,
        number=next((x.number for x in offers.of_enquiry(conn(), enquiry_id)), ""),
    )
    try:
        content = pdf.write(html)
    except pdf.NoPdf as error:
        return render_template(
            "kit/error.html", title=tr("No PDF on this machine"), text=str(error)
        ), 503
    name = {"Content-Disposition": f'inline; filename="fitting-{enquiry_id}.pdf"'}
    return Response(content, mimetype="application/pdf", headers=name)
