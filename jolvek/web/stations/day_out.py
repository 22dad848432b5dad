"""Station 5, Day out: the legs run with the setup in hand, what may come otherwise, and whether she
gets home.
"""

from __future__ import annotations

import csv
import io
from dataclasses import dataclass, replace
from functools import lru_cache
from typing import Any

from flask import (
    Blueprint,
    Response,
    abort,
    flash,
    json,
    redirect,
    render_template,
    request,
    url_for,
)

from jolvek.core.base import units
from jolvek.core.base.errors import JolvekError
from jolvek.core.day.forecast import with_weather
from jolvek.core.day.getting_home import (
    best_against_m_s,
    homing,
    no_return,
    regeneration,
    spare_of,
    speed_for_arrival_m_s,
)
from jolvek.core.day.otherwise import Switches, switched, there_and_back, turn_index
from jolvek.core.day.stepped import sail_out
from jolvek.core.day.voyage import Voyage
from jolvek.core.enquiry.need import Leg, Need
from jolvek.core.fit.fitted import Fitted
from jolvek.core.predict.solar import Panels, Sunshine, sunshine
from jolvek.formats import gpx_file
from jolvek.standins.weather import SimulatedForecast
from jolvek.store import enquiries
from jolvek.store.db import transaction
from jolvek.web import conn, is_fragment
from jolvek.web.drawings.day_chart import clock, day_chart, way_strip
from jolvek.web.saving import now
from jolvek.web.stations.boat import shared, stored_or_404
from jolvek.web.view import display
from jolvek.web.view.worked import Worked, work_out

bp = Blueprint("day_out", __name__, url_prefix="/enquiry/<int:enquiry_id>")
OUT_COURSE_DEG = 200.0  # where legs have no places
_sunshine = lru_cache(maxsize=32)(sunshine)


@dataclass(frozen=True)
class Asked:
    """What the address asks: switches, spare, simulated weather, speeds of legs (m/s by number),
    hours to arrive in.
    """

    switches: Switches
    spare: bool
    simulated: bool
    everyone: bool
    speeds: dict[int, float]
    arrive_h: float | None
    refused: dict[str, str]


def asked_from(args: Any) -> Asked:
    """Read the address; what cannot be read is told beside its field."""
    u, refused = display.current(), {}

    def figure(key: str, quantity: str, low: float, high: float) -> float | None:
        text = args.get(key, "").strip()
        if not text:
            return None
        try:
            value = units.parse(text, quantity, u[quantity])
        except units.NotAQuantity as error:
            refused[key] = str(error)
            return None
        if not low <= value <= high:
            refused[key] = (
                f"read “{text}”; allowed is {u.full(low, quantity)} to {u.full(high, quantity)}"
            )
            return None
        return value

    wind, stream, hour = (
        figure("wind", "speed", 0, 30),
        figure("stream", "speed", 0, 6),
        figure("from", "clock", 0, 24),
    )
    speeds = {i: v for i in range(1, 25) if (v := figure(f"v{i}", "speed", 0.2, 20)) is not None}
    switches = Switches(
        wind if args.get("wind_on") or wind else None,
        13.0 if hour is None else hour,
        "out" if args.get("against") == "out" else "home",
        stream or 0.0,
        0.15 if args.get("heavier") else 0.0,
        "weed" if args.get("foul") else "",
        0.2 if args.get("aged") else 0.0,
        2.0 if args.get("cold") else None,
    )
    arrive = figure("arrive", "duration", 300, 400 * 3600)
    return Asked(
        switches,
        bool(args.get("spare")),
        bool(args.get("sim")),
        bool(args.get("all")),
        speeds,
        arrive,
        refused,
    )


def _courses(need: Need, legs: tuple[Leg, ...]) -> tuple[float, ...]:
    """Course of each leg: by its places, else out on one course and home on its opposite."""
    turn, here, out = turn_index(legs), (need.day.latitude_deg, need.day.longitude_deg), []
    for i, leg in enumerate(legs):
        if leg.latitude_deg is not None and leg.longitude_deg is not None:
            there = (leg.latitude_deg, leg.longitude_deg)
            out.append(gpx_file.bearing_deg(here, there))
            here = there
        else:
            out.append(OUT_COURSE_DEG if i < turn else (OUT_COURSE_DEG + 180) % 360)
    return tuple(out)


def planned(need: Need, asked: Asked) -> Need:
    """The need with the legs as asked: their speeds, and simulated wind and stream where switched
    on.
    """
    legs = tuple(
        replace(leg, speed_m_s=asked.speeds.get(i, leg.speed_m_s))
        for i, leg in enumerate(there_and_back(need.day), 1)
    )
    if asked.simulated:
        day = need.day
        legs = with_weather(
            legs,
            _courses(need, legs),
            SimulatedForecast(),
            day.latitude_deg,
            day.longitude_deg,
            day.date,
            day.start_h,
        )
    return replace(need, day=replace(need.day, legs=legs))


def _sun(need: Need, extras_w: float) -> Sunshine | None:
    day = need.day
    rated = day.solar_w + extras_w
    if rated <= 0:
        return None
    return _sunshine(
        Panels(rated, day.sky),
        day.latitude_deg,
        day.longitude_deg,
        day.date,
        float(round(day.longitude_deg / 15)),
    )


def run(need: Need, worked: Worked, asked: Asked) -> Voyage:
    """One pinned setup's day; panels among its add-ons count."""
    fitted = replace(worked.fitted, need=need)
    panels = sum(
        p.quantity * p.item.spec.rated_w for p in worked.pinned.extras if p.kind == "panel"
    )
    return _sailed(fitted, panels, asked.switches, asked.spare)


@lru_cache(maxsize=64)
def _sailed(fitted: Fitted, panels_w: float, switches: Switches, spare: bool) -> Voyage:
    """Remembered: the day as planned stands beside every other while the wind is dragged."""
    sun = _sun(fitted.need, panels_w)
    return sail_out(
        fitted, switches, spare_of(fitted) if spare else None, sun.at_w if sun else None
    )


def sentence(v: Voyage, start_h: float, u: display.Units) -> str:
    """The day in one sentence; `*words*` are the ones to stress."""
    end = clock(start_h + v.hours)
    if v.home:
        return (
            f"Home at *{end}* with *{100 * v.left:.0f} %* of the charge,"
            f" {u.full(v.distance_m[-1], 'distance')} in {v.hours:.1f} h."
        )
    stop = v.first("no-way") or v.first("empty")
    if stop is None:
        reserve = v.first("reserve")
        since = f"; the reserve goes at {clock(start_h + reserve.t_s / 3600)}" if reserve else ""
        return f"Home at *{end}*, but with *{100 * v.left:.0f} %*, below the reserve{since}."
    total = sum(leg.metres for leg in v.legs)
    left = max(total - float(v.distance_m[-1]), 0.0)
    at = clock(start_h + stop.t_s / 3600)
    return (
        f"She does *not get home*: at *{at}* {stop.text}, {u.full(left, 'distance')} before the"
        " end."
    )


def why(v: Voyage, plain: Voyage, asked: Asked) -> str:
    """The reason, against the day as planned: what the switches cost."""
    s = asked.switches
    causes = [
        word
        for on, word in (
            (s.wind_m_s is not None, "the wind"),
            (s.stream_m_s > 0, "the stream"),
            (s.heavier > 0, "the load"),
            (bool(s.bottom), "the foul bottom"),
            (s.aged > 0, "the old battery"),
            (s.temperature_c is not None, "the cold"),
        )
        if on
    ]
    if not causes:
        return ""
    told = " and ".join([", ".join(causes[:-1]), causes[-1]] if len(causes) > 1 else causes)
    if not plain.done:
        return f"As planned she does not get home either; {told} makes it worse."
    verb, points = "take" if len(causes) > 1 else "takes", 100 * (plain.left - v.left)
    return (
        f"As planned she comes home with {100 * plain.left:.0f} %; {told} {verb} {points:.0f}"
        " points of it."
    )


def _figures(enquiry_id: int, need: Need, pinned: list[Any], args: Any) -> dict[str, Any]:
    asked = asked_from(args)
    u = display.current()
    worked = [work_out(need, p) for p in pinned]
    hand = next((w for w in worked if w.letter == args.get("s")), None) or next(
        (w for w in worked if w.pinned.chosen), worked[0]
    )
    need = planned(need, asked)
    chosen = worked if asked.everyone else [hand]
    voyages = {w.letter: run(need, w, asked) for w in chosen}
    v = voyages[hand.letter]
    fitted = switched(replace(hand.fitted, need=need), asked.switches)
    s = asked.switches
    as_planned = s == Switches(wind_from_h=s.wind_from_h, wind_against=s.wind_against)
    plain = v if as_planned else run(need, hand, replace(asked, switches=Switches()))
    wind_home = s.wind_m_s if s.wind_against == "home" else None
    point = no_return(fitted, wind_home)
    kept = max(need.day.kept_share, 1 - fitted.bank.chem.usable)
    streams = [x for x in (max((leg.current_m_s for leg in v.legs), default=0.0),) if x > 0]
    arrive = speed_for_arrival_m_s(fitted, asked.arrive_h / 3600) if asked.arrive_h else None
    sails = need.hull.fam.sails
    return {
        "asked": asked,
        "hand": hand,
        "worked": worked,
        "v": v,
        "voyages": voyages,
        "day_need": need,
        "point": point,
        "homing": homing(fitted),
        "sentence": sentence(v, need.day.start_h, u),
        "why": why(v, plain, asked),
        "clock": clock,
        "start_h": need.day.start_h,
        "chart": day_chart(voyages, hand.letter, need.day.start_h, kept),
        "strip": way_strip(v, point, u),
        "args": args,
        "against": (
            (streams[0], best_against_m_s(fitted.performance, streams[0])) if streams else None
        ),
        "arrive": arrive,
        "regen": (
            regeneration(fitted.performance, 0.8 * fitted.performance.hull_speed_m_s)
            if sails
            else None
        ),
        "enquiry_id": enquiry_id,
    }


@bp.get("/day-out")
def page(enquiry_id: int) -> Any:
    """The day; a fragment when a switch, a speed or the wind moves."""
    if is_fragment():
        stored = stored_or_404(enquiry_id)
        from jolvek.store import setups

        pinned = setups.of_enquiry(conn(), enquiry_id)
        if not pinned:
            abort(404)
        figures = _figures(enquiry_id, stored.need, pinned, request.args)
        return render_template("day_out/_day.html", e=stored, need=stored.need, **figures), (
            422 if figures["asked"].refused else 200
        )
    more = shared(enquiry_id, "day_out")
    if not more["pinned"]:
        return render_template("day_out/page.html", v=None, **more)
    figures = _figures(enquiry_id, more["need"], more["pinned"], request.args)
    return render_template("day_out/page.html", **{**more, **figures}), (
        422 if figures["asked"].refused else 200
    )


@bp.post("/day-out/keep")
def keep(enquiry_id: int) -> Any:
    """Keep the legs' speeds (and simulated weather is never kept)."""
    stored = stored_or_404(enquiry_id)
    asked = replace(asked_from(request.form), simulated=False)
    day = stored.need.day.with_legs(planned(stored.need, asked).day.legs)
    with transaction(conn()) as c:
        enquiries.save(
            c, enquiry_id, replace(stored.enquiry, need=replace(stored.need, day=day)), now()
        )
    flash("The legs are kept with these speeds.")
    return redirect(url_for("day_out.page", enquiry_id=enquiry_id), 303)


@bp.post("/day-out/way")
def import_way(enquiry_id: int) -> Any:
    """Legs out of a GPX track or route."""
    stored = stored_or_404(enquiry_id)
    upload = request.files.get("file")
    try:
        if upload is None or not upload.filename:
            raise gpx_file.WayRefused("choose a GPX file first")
        way = gpx_file.read(upload.read(), stored.need.day.speed_m_s)
    except JolvekError as error:
        more = shared(enquiry_id, "day_out")
        figures = (
            _figures(enquiry_id, more["need"], more["pinned"], request.args)
            if more["pinned"]
            else {"v": None}
        )
        return (
            render_template("day_out/page.html", way_error=str(error), **{**more, **figures}),
            422,
        )
    day = replace(
        stored.need.day.with_legs(way.legs),
        latitude_deg=way.latitude_deg,
        longitude_deg=way.longitude_deg,
    )
    with transaction(conn()) as c:
        enquiries.save(
            c, enquiry_id, replace(stored.enquiry, need=replace(stored.need, day=day)), now()
        )
    far = display.current().full(day.distance_m, "distance")
    flash(f"{len(way.legs)} legs out of the way, {far}.")
    return redirect(url_for("day_out.page", enquiry_id=enquiry_id), 303)


@bp.get("/day-out.csv")
def as_csv(enquiry_id: int) -> Response:
    """The day of the setup in hand as CSV, SI."""
    stored, worked = _in_hand(enquiry_id)
    v = run(planned(stored.need, asked_from(request.args)), worked, asked_from(request.args))
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(
        ["t_s", "soc", "power_w", "sun_w", "speed_m_s", "ground_m_s", "distance_m", "leg"]
    )
    for row in zip(
        v.t_s,
        v.soc,
        v.power_w,
        v.sun_w,
        v.speed_m_s,
        v.ground_m_s,
        v.distance_m,
        v.leg + 1,
        strict=True,
    ):
        writer.writerow([f"{x:.6g}" for x in row])
    return Response(
        out.getvalue(),
        mimetype="text/csv",
        headers={"Content-Disposition": 'attachment; filename="day.csv"'},
    )


def _in_hand(enquiry_id: int) -> tuple[enquiries.Stored, Worked]:
    from jolvek.store import setups

    stored, pinned = stored_or_404(enquiry_id), setups.of_enquiry(conn(), enquiry_id)
    if not pinned:
        abort(404)
    return stored, work_out(stored.need, next((p for p in pinned if p.chosen), pinned[0]))


@bp.get("/way.<kind>")
def way(enquiry_id: int, kind: str) -> Response:
    """The legs that have places, as GPX or GeoJSON."""
    stored = stored_or_404(enquiry_id)
    day = stored.need.day
    if kind not in ("gpx", "geojson") or not any(leg.latitude_deg is not None for leg in day.legs):
        abort(404)
    start = (day.latitude_deg, day.longitude_deg)
    text = (
        gpx_file.write(start, day.legs, stored.title)
        if kind == "gpx"
        else json.dumps(gpx_file.geojson(start, day.legs, stored.title))
    )
    return Response(
        text,
        mimetype="application/gpx+xml" if kind == "gpx" else "application/geo+json",
        headers={"Content-Disposition": f'attachment; filename="way.{kind}"'},
    )
