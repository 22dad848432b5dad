"""Station 5, Day out: the legs run with the setup in hand, what may come otherwise, and whether she
gets home.
"""

from __future__ import annotations

import csv
import io
from dataclasses import replace
from typing import Any

from flask import Blueprint, Response, abort, flash, json, redirect, request, url_for

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.enquiry.need import Need
from jolvek.formats import gpx_file
from jolvek.standins.weather import SimulatedForecast
from jolvek.store import setups
from jolvek.web import errors, saving
from jolvek.web.kit import display, pages, stations
from jolvek.web.kit.language import tr
from jolvek.web.kit.pages import ADVISOR, PRICE_LIST, READER
from jolvek.web.kit.worked import Worked, work_out
from jolvek.web.shared import conn, flash_left_out, frame, is_fragment, show, stored_or_404
from jolvek.web.stations.day_out.form import Asked, asked_from
from jolvek.web.stations.day_out.planned import planned, run_day
from jolvek.web.stations.day_out.view import DayOutPage, day_out_page
from jolvek.web.stations.waters.charging import charging_of

bp = Blueprint("day_out", __name__, url_prefix="/enquiry/<int:enquiry_id>")
pages.add(
    bp,
    {
        "page": READER,
        "as_csv": READER,
        "way": READER,
        "import_way": ADVISOR,
        "keep": ADVISOR,
    },
    limits={"import_way": PRICE_LIST},
    changes_job=True,
)
CSV_COLUMNS = ("t_s", "soc", "power_w", "sun_w", "speed_m_s", "ground_m_s", "distance_m", "leg")


def _state(s: stations.Standing) -> tuple[str, str]:
    return ("done", tr("the day can be run")) if s.pinned else ("empty", tr("pin a setup first"))


STATION = stations.add(5, "day_out", msg("Day out"), _state)


def _asked() -> Asked:
    return asked_from(request.args, display.current())


def outing(need: Need, worked: list[Worked], asked: Asked, letter: str) -> DayOutPage:
    """One core answer, and the page of it."""
    hand = next((w for w in worked if w.letter == letter), None)
    hand = hand or next((w for w in worked if w.pinned.chosen), worked[0])
    out = run_day(planned(need, asked, SimulatedForecast()), worked, hand, asked)
    return day_out_page(out, worked, asked, request.args.to_dict(), display.current())


def _page(enquiry_id: int, code: int = 200, **more: Any) -> Any:
    f = frame(enquiry_id, "day_out")
    if not f.pinned:
        return show("stations/day_out/page.html", f, answer="", **more), code
    asked, worked = _asked(), [work_out(f.need, p) for p in f.pinned]
    whole = outing(f.need, worked, asked, request.args.get("s", ""))
    more["charging"] = charging_of(whole.hand)
    return show("stations/day_out/page.html", f, whole, **more), 422 if asked.refused else code


@bp.get("/day-out")
def page(enquiry_id: int) -> Any:
    """The day; a fragment when a switch, a speed or the wind moves."""
    if not is_fragment():
        return _page(enquiry_id)
    asked, worked = _asked(), _worked(enquiry_id)
    need = worked[0].fitted.need
    whole = outing(need, worked, asked, request.args.get("s", ""))
    return show("stations/day_out/_day.html", whole), 422 if asked.refused else 200


def _worked(enquiry_id: int) -> list[Worked]:
    need = stored_or_404(enquiry_id).need
    pinned = setups.of_enquiry(conn(), enquiry_id)
    if not pinned:
        abort(404)
    return [work_out(need, p) for p in pinned]


@bp.post("/day-out/keep")
def keep(enquiry_id: int) -> Any:
    """Keep the legs' speeds (and simulated weather is never kept)."""
    stored_or_404(enquiry_id)
    asked = replace(asked_from(request.form, display.current()), simulated=False)
    if asked.refused:
        abort(422, next(iter(asked.refused.values())))

    def with_kept_speeds(e: Enquiry) -> Enquiry:
        legs = planned(e.need, asked, SimulatedForecast()).day.trip
        return replace(e, need=replace(e.need, day=e.need.day.with_legs(legs)))

    saving.change(enquiry_id, with_kept_speeds)
    flash(tr("The legs are saved with these speeds."))
    return redirect(url_for("day_out.page", enquiry_id=enquiry_id), 303)


@bp.post("/day-out/way")
def import_way(enquiry_id: int) -> Any:
    """Legs out of a GPX track or route."""
    stored, upload = stored_or_404(enquiry_id), request.files.get("file")
    try:
        if upload is None or not upload.filename:
            raise gpx_file.WayRefused(tr("choose a GPX file first"))
        way = gpx_file.read(upload.read(), stored.need.day.speed_m_s)
    except JolvekError as error:
        return _page(enquiry_id, 422, way_error=str(error))
    lat, lon = way.latitude_deg, way.longitude_deg

    def with_route(e: Enquiry) -> Enquiry:
        day = replace(e.need.day.with_legs(way.legs), latitude_deg=lat, longitude_deg=lon)
        return replace(e, need=replace(e.need, day=day))

    day = saving.change(enquiry_id, with_route).need.day
    flash_left_out(way.left_out)
    far = display.current().full(day.distance_m, "distance")
    flash(tr("%(legs)s legs out of the way, %(far)s.", legs=len(way.legs), far=far))
    return redirect(url_for("day_out.page", enquiry_id=enquiry_id), 303)


def _too_large(text: str) -> Any:
    return _page((request.view_args or {})["enquiry_id"], 422, way_error=text)


errors.refuses_large("day_out.import_way", _too_large)


@bp.get("/day-out.csv")
def as_csv(enquiry_id: int) -> Response:
    """The day of the setup in hand as CSV, SI."""
    worked, asked = _worked(enquiry_id), _asked()
    hand = next((w for w in worked if w.pinned.chosen), worked[0])
    need = planned(hand.fitted.need, asked, SimulatedForecast())
    v = run_day(need, [hand], hand, asked).voyage
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(CSV_COLUMNS)
    columns = [getattr(v, key) + (key == "leg") for key in CSV_COLUMNS]
    for row in zip(*columns, strict=True):
        writer.writerow([f"{x:.6g}" for x in row])
    name = {"Content-Disposition": 'attachment; filename="day.csv"'}
    return Response(out.getvalue(), mimetype="text/csv", headers=name)


@bp.get("/way.<kind>")
def way(enquiry_id: int, kind: str) -> Response:
    """The legs that have places, as GPX or GeoJSON."""
    stored = stored_or_404(enquiry_id)
    day, title = stored.need.day, stored.title
    if kind not in ("gpx", "geojson") or not any(x.latitude_deg is not None for x in day.legs):
        abort(404)
    start = (day.latitude_deg, day.longitude_deg)
    if kind == "gpx":
        text, mime = gpx_file.write(start, day.legs, title), "application/gpx+xml"
    else:
        text = json.dumps(gpx_file.geojson(start, day.legs, title))
        mime = "application/geo+json"
    name = {"Content-Disposition": f'attachment; filename="way.{kind}"'}
    return Response(text, mimetype=mime, headers=name)
