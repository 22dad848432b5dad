"""Papers of the stations that have none of their own: Side by side and Day out, as tagged PDF."""

from __future__ import annotations

from datetime import date
from typing import Any

from flask import Blueprint, Response, abort, render_template, request

from jolvek.store import offers
from jolvek.web.kit import display, language, pages, pdf
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import READER
from jolvek.web.kit.worked import Worked, work_out
from jolvek.web.shared import Frame, conn, frame, show, spoken_to
from jolvek.web.stations.day_out.form import asked_from as outing_asked
from jolvek.web.stations.day_out.page import outing
from jolvek.web.stations.side_by_side.full import full_table
from jolvek.web.stations.side_by_side.view import asked_from, side_by_side_page

bp = Blueprint("papers", __name__, url_prefix="/enquiry/<int:enquiry_id>")
pages.add(
    bp,
    {
        "day_out": READER,
        "side_by_side": READER,
    },
)


def _worked(f: Frame) -> list[Worked]:
    if not f.pinned:
        abort(404, tr("No setup is pinned yet: there is nothing to print."))
    return [work_out(f.need, p) for p in f.pinned]


def _framed(enquiry_id: int, station: str) -> Frame:
    """The enquiry, and its customer's language for what follows."""
    f = frame(enquiry_id, station)
    language.choose(spoken_to(enquiry_id))
    return f


def _paper(enquiry_id: int, template: str, name: str, *records: Any, **more: Any) -> Any:
    """The paper, with boat, customer, day and the number of the offer it belongs to."""
    sent = offers.of_enquiry(conn(), enquiry_id)
    more |= {"number": sent[0].number if sent else "", "on": date.today().isoformat()}
    try:
        body = pdf.write(show(template, *records, **more))
    except pdf.NoPdf as error:
        return render_template(
            "kit/error.html", title=tr("No PDF on this machine"), text=str(error)
        ), 503
    head = {"Content-Disposition": f'inline; filename="{name}-{enquiry_id}.pdf"'}
    return Response(body, mimetype="application/pdf", headers=head)


@bp.get("/side-by-side.pdf")
def side_by_side(enquiry_id: int) -> Any:
    """The chart as it stands in the address, and everything of the setups beside each other."""
    f, u = _framed(enquiry_id, "side_by_side"), display.current()
    worked = _worked(f)
    whole = side_by_side_page(f.need, worked, asked_from(request.args, f.need, worked, u), u)
    chart = pdf.styled(whole.chart, "stations/side_by_side/chart.css")
    more = {"full": full_table(worked, u), "chart": chart}
    return _paper(enquiry_id, "stations/side_by_side/paper.html", "side-by-side", f, whole, **more)


@bp.get("/day-out.pdf")
def day_out(enquiry_id: int) -> Any:
    """The day as it stands in the address: chart, what happens, figures."""
    f, u = _framed(enquiry_id, "day_out"), display.current()
    worked, asked = _worked(f), outing_asked(request.args, display.current())
    whole = outing(f.need, worked, asked, request.args.get("s", ""))
    pictures = {
        k: pdf.styled(getattr(whole, k), "stations/day_out/paper.css") for k in ("chart", "strip")
    }
    return _paper(enquiry_id, "stations/day_out/paper.html", "day-out", f, whole, u=u, **pictures)
