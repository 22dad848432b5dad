"""Station 4, Side by side: two to five setups under one cursor, at the same speed, the same power,
or over the day.
"""

from __future__ import annotations

import csv
import io
from dataclasses import dataclass
from typing import Any

import numpy as np
from flask import (
    Blueprint,
    Response,
    abort,
    current_app,
    flash,
    redirect,
    render_template,
    request,
    url_for,
)

from jolvek.core.base import units
from jolvek.core.day.summed import DayRun, run_day
from jolvek.core.enquiry.schools import reserve_schools
from jolvek.core.predict.what_if import what_if
from jolvek.store import enquiries, setups
from jolvek.store import shelf as shelf_store
from jolvek.store.db import transaction
from jolvek.web import conn
from jolvek.web.drawings import charts
from jolvek.web.saving import now
from jolvek.web.stations.boat import shared, stored_or_404
from jolvek.web.view import display
from jolvek.web.view.worked import Worked, work_out

bp = Blueprint("side_by_side", __name__, url_prefix="/enquiry/<int:enquiry_id>")
POINTS = 90
VIEWS = {"power": "Power and range", "time": "Time and range", "thrust": "Thrust and drag"}
MODES = {"speed": "same speed", "power": "same power", "day": "the day"}
Worked = Worked


@dataclass(frozen=True)
class Curves:
    """One setup's figures in shown units over speed; every list has POINTS values."""

    speed: list[float]
    power: list[float]
    range_: list[float]
    runtime_h: list[float]
    drag: list[float]
    thrust: list[float]


def curves(worked: Worked, u: display.Units) -> Curves:
    """From an eighth of the top speed to the top."""
    p = worked.performance
    speed = np.linspace(0.12, 1.0, POINTS) * p.top_speed_m_s
    points = [p.at_speed(float(v)) for v in speed]

    def by(quantity: str, values: Any) -> list[float]:
        return [units.to_unit(float(x or 0.0), quantity, u[quantity]) for x in values]

    return Curves(
        by("speed", speed),
        by("power", [x.power_w for x in points]),
        by("distance", [x.range_m for x in points]),
        [(x.runtime_s or 0.0) / 3600 for x in points],
        by("thrust", [x.thrust_n for x in points]),
        by("thrust", p.thrust_available_n(speed)),
    )


def _series(
    w: Worked, c: Curves, view: str, mode: str, band: bool, u: display.Units
) -> charts.Series:
    """One setup as the chart shows it."""
    p = w.performance
    if mode == "power":
        order = np.maximum.accumulate(np.array(c.power)).tolist()
        return charts.Series(w.letter, order, c.speed, c.range_)
    if view == "time":
        return charts.Series(w.letter, c.speed, c.runtime_h, c.range_)
    if view == "thrust":
        return charts.Series(w.letter, c.speed, c.drag, c.power, second=c.thrust)
    knee = None
    if p.knee.speed_m_s is not None and p.knee.power_w is not None:
        knee = (
            units.to_unit(p.knee.speed_m_s, "speed", u["speed"]),
            units.to_unit(p.knee.power_w, "power", u["power"]),
        )
    spread = (
        ([x * (1 - p.band) for x in c.speed], [x * (1 + p.band) for x in c.speed]) if band else None
    )
    return charts.Series(w.letter, c.speed, c.power, c.range_, knee, spread)


def _axes(
    need: Any, worked: list[Worked], view: str, mode: str, u: display.Units, cursor: float
) -> charts.Axes:
    speed, power, far = (
        f"speed through the water, {u['speed']}",
        f"input power, {u['power']}",
        f"range with the reserve kept, {u['distance']}",
    )
    hull = units.to_unit(worked[0].performance.hull_speed_m_s, "speed", u["speed"])
    marks = [(hull, f"hull speed {hull:.1f}")]
    if need.day.speed_limit_m_s:
        limit = units.to_unit(need.day.speed_limit_m_s, "speed", u["speed"])
        marks.append((limit, f"speed limit {limit:.1f}"))
    plate = need.hull.max_power_w
    if mode == "power":
        at = ((units.to_unit(plate, "power", u["power"]), "plate"),) if plate else ()
        return charts.Axes(power, speed, far, u["power"], at, cursor=cursor)
    if view == "time":
        return charts.Axes(
            speed, "time with the reserve kept, h", far, u["speed"], tuple(marks), cursor=cursor
        )
    if view == "thrust":
        return charts.Axes(
            speed,
            f"drag, and thrust to be had (thin), {u['thrust']}",
            power,
            u["speed"],
            tuple(marks),
            cursor=cursor,
            low_rises=True,
        )
    shown_plate = units.to_unit(plate, "power", u["power"]) if plate else None
    return charts.Axes(
        speed,
        power,
        far,
        u["speed"],
        tuple(marks),
        shown_plate,
        f"plate {u.full(plate, 'power')}" if plate else "",
        cursor,
    )


def _data(
    worked: list[Worked],
    all_curves: list[Curves],
    chart: charts.Chart,
    u: display.Units,
    mode: str,
    cursor: float,
) -> dict[str, Any]:
    """What the cursor script needs: per setup the axis and the live rows."""
    places = {"power": 0 if u["power"] == "W" else 2, "speed": 1, "range": 1}
    return {
        "at": round(cursor, 2),
        "x0": chart.frame.x0,
        "x1": chart.frame.x1,
        "xMax": chart.x_max,
        "mode": mode,
        "unit": u["power"] if mode == "power" else u["speed"],
        "places": places,
        "distanceUnit": u["distance"],
        "speedUnit": u["speed"],
        "setups": [
            {
                "letter": w.letter,
                "hold": bool(w.pinned.chosen),
                "x": [
                    round(x, 4)
                    for x in (
                        np.maximum.accumulate(np.array(c.power)) if mode == "power" else c.speed
                    )
                ],
                "speed": [round(x, 4) for x in c.speed],
                "power": [round(x, 3) for x in c.power],
                "range": [round(x, 3) for x in c.range_],
                "runtime": [round(3600 * x) for x in c.runtime_h],
            }
            for w, c in zip(worked, all_curves, strict=True)
        ],
    }


def _cursor(
    args: Any, need: Any, worked: list[Worked], mode: str, u: display.Units
) -> tuple[float, str]:
    """Where the cursor stands in SI (m/s, or W where power is compared), and why a typed one was
    refused.
    """
    quantity = "power" if mode == "power" else "speed"
    most = max(
        w.performance.power_limit_w if quantity == "power" else w.performance.top_speed_m_s
        for w in worked
    )
    value = 0.5 * most if quantity == "power" else need.day.speed_m_s
    refused = ""
    if args.get(quantity):
        try:
            value = units.parse(args[quantity], quantity, u[quantity])
        except units.NotAQuantity as error:
            refused = str(error)
    return min(max(value, 0.13 * most), most), refused


@bp.get("/side-by-side")
def page(enquiry_id: int) -> Any:
    """Charts, table and answer line; view, mode, cursor and band stand in the address."""
    more = shared(enquiry_id, "side_by_side")
    u, need = display.current(), more["need"]
    worked = [work_out(need, p) for p in more["pinned"]]
    if not worked:
        return render_template("side_by_side/page.html", worked=[], **more)
    mode = request.args.get("by", "") if request.args.get("by", "") in MODES else "speed"
    view = request.args.get("view", "") if request.args.get("view", "") in VIEWS else "power"
    cursor, refused = _cursor(request.args, need, worked, mode, u)
    quantity = "power" if mode == "power" else "speed"
    all_curves = [curves(w, u) for w in worked]
    shown_cursor = units.to_unit(cursor, quantity, u[quantity])
    band = request.args.get("band") == "1"
    series = [_series(w, c, view, mode, band, u) for w, c in zip(worked, all_curves, strict=True)]
    chart = charts.compare(series, _axes(need, worked, view, mode, u, shown_cursor))
    hand = next((w for w in worked if w.pinned.chosen), worked[0])
    at = {
        w.letter: (
            w.performance.at_power(min(cursor, w.performance.power_limit_w))
            if mode == "power"
            else w.performance.at_speed(cursor)
        )
        for w in worked
    }
    days = {w.letter: run_day(w.fitted) for w in worked}
    best = _best(worked, at, days)
    return render_template(
        "side_by_side/page.html",
        worked=worked,
        chart=chart,
        cursor=cursor,
        refused=refused,
        hand=hand,
        mode=mode,
        view=view,
        views=VIEWS,
        modes=MODES,
        band=band,
        data=_data(worked, all_curves, chart, u, mode, shown_cursor),
        typed=request.args.get(quantity),
        quantity=quantity,
        at=at,
        days=days,
        best=best,
        whys={w.letter: why(w, worked, best) for w in worked},
        schools=reserve_schools(hand.performance, need.day.speed_m_s),
        cases=what_if(hand.fitted.setup) if request.args.get("doubt") else [],
        add_ons=_add_ons(),
        **more,
    ), (422 if refused else 200)


def _best(worked: list[Worked], at: dict[str, Any], days: dict[str, DayRun]) -> dict[str, str]:
    """Row of the table → letter of the best setup in it."""
    rows: dict[str, dict[str, float | None]] = {
        "power": {k: -p.power_w if p.power_w else None for k, p in at.items()},
        "speed": {k: p.speed_m_s for k, p in at.items()},
        "runtime": {k: p.runtime_s for k, p in at.items()},
        "range": {k: p.range_m for k, p in at.items()},
        "top": {w.letter: w.performance.top_speed_m_s for w in worked},
        "lift": {w.letter: -w.lift_kg for w in worked},
        "mass": {w.letter: -w.parts_kg for w in worked},
        "price": {w.letter: -w.pinned.price for w in worked},
        "charge": {w.letter: -w.charge_h if w.charge_h else None for w in worked},
        "thrust": {w.letter: w.performance.static_thrust_n for w in worked},
        "noise": {
            w.letter: -w.fitted.motor.noise_db if w.fitted.motor.noise_db else None for w in worked
        },
        "left": {k: d.left if d.home else None for k, d in days.items()},
    }
    return (
        {
            row: max(
                (k for k in values if values[k] is not None),
                key=lambda k: values[k] or 0.0,
                default="",
            )
            for row, values in rows.items()
        }
        if len(worked) > 1
        else {}
    )


_FOR = {
    "price": "costs least",
    "lift": "is lightest to lift",
    "range": "goes furthest at this speed",
    "top": "is fastest",
    "charge": "charges quickest",
    "noise": "is quietest",
    "left": "comes home with most left",
}


def why(w: Worked, worked: list[Worked], best: dict[str, str]) -> str:
    """Why this one: what it is best at, and what it gives up for it, in one or two sentences."""
    if w.blocked:
        return "Cannot be offered for this boat; shown for comparison."
    wins = [words for row, words in _FOR.items() if best.get(row) == w.letter]
    cheapest = min(x.pinned.price for x in worked)
    lightest = min(x.lift_kg for x in worked)
    gives = []
    if w.pinned.price > 1.2 * cheapest:
        gives.append(f"costs {display.money(w.pinned.price - cheapest)} more than the cheapest")
    if w.lift_kg > 1.3 * lightest:
        gives.append(f"is {w.lift_kg - lightest:.0f} kg heavier to lift than the lightest")
    first = (
        f"It {', '.join(wins[:-1]) + ' and ' + wins[-1] if len(wins) > 1 else wins[0]}."
        if wins
        else "Best at nothing, near in all."
    )
    return first + (f" It {' and '.join(gives)}." if gives else "")


def _add_ons() -> list[tuple[str, Any]]:
    shelf = shelf_store.load(conn()).on_offer
    return [
        *(("accessory", x) for x in shelf.accessories),
        *(("panel", x) for x in shelf.panels),
        *(("propeller", x) for x in shelf.propellers),
    ]


@bp.post("/extra")
def extra(enquiry_id: int) -> Any:
    """Add an add-on to a pinned setup, or take it off."""
    pinned = {p.letter: p for p in setups.of_enquiry(conn(), stored_or_404(enquiry_id).id)}
    setup = pinned.get(request.form.get("letter", ""))
    product = request.form.get("product", "")
    kind, item = next(((k, x) for k, x in _add_ons() if x.id == product), ("", None))
    if setup is None or (item is None and not request.form.get("off")):
        abort(422, "That add-on is not on the shelf any more.")
    with transaction(conn()) as c:
        if request.form.get("off"):
            setups.drop_extra(c, setup.id, product)
        else:
            setups.add_extra(c, setup.id, kind, item)
        enquiries.touch(c, enquiry_id, now())
    return redirect(
        url_for("side_by_side.page", enquiry_id=enquiry_id) + f"#setup-{setup.letter}", 303
    )


@bp.get("/side-by-side.csv")
def as_csv(enquiry_id: int) -> Response:
    """The curves as CSV, SI with unit-bearing columns."""
    stored = stored_or_404(enquiry_id)
    out = io.StringIO()
    writer = csv.writer(out)
    writer.writerow(
        ["setup", "speed_m_s", "power_w", "current_a", "runtime_s", "range_m", "thrust_n"]
    )
    for p in setups.of_enquiry(conn(), enquiry_id):
        w = work_out(stored.need, p)
        for v in np.linspace(0.12, 1.0, POINTS) * w.performance.top_speed_m_s:
            at = w.performance.at_speed(float(v))
            writer.writerow(
                [
                    p.letter,
                    *(
                        "" if x is None else f"{x:.6g}"
                        for x in (
                            at.speed_m_s,
                            at.power_w,
                            at.current_a,
                            at.runtime_s,
                            at.range_m,
                            at.thrust_n,
                        )
                    ),
                ]
            )
    return Response(
        out.getvalue(),
        mimetype="text/csv",
        headers={"Content-Disposition": 'attachment; filename="side-by-side.csv"'},
    )


@bp.get("/side-by-side.svg")
def as_svg(enquiry_id: int) -> Response:
    """The chart as a picture of its own."""
    stored = stored_or_404(enquiry_id)
    u = display.current()
    worked = [work_out(stored.need, p) for p in setups.of_enquiry(conn(), enquiry_id)]
    if not worked:
        abort(404)
    cursor, _ = _cursor(request.args, stored.need, worked, "speed", u)
    series = [_series(w, curves(w, u), "power", "speed", False, u) for w in worked]
    chart = charts.compare(
        series,
        _axes(stored.need, worked, "power", "speed", u, units.to_unit(cursor, "speed", u["speed"])),
    )
    style = (current_app.jinja_env.get_template("side_by_side/chart.css")).render()
    svg = (
        str(chart.svg)
        .replace("<svg ", '<svg xmlns="http://www.w3.org/2000/svg" ', 1)
        .replace("<title>", f"<style>{style}</style><title>", 1)
    )
    return Response(
        svg,
        mimetype="image/svg+xml",
        headers={
            "Content-Disposition": 'attachment; filename="side-by-side.svg"',
            "Content-Security-Policy": "default-src 'none'; style-src 'unsafe-inline'",
        },
    )


@bp.post("/choose")
def choose(enquiry_id: int) -> Any:
    """Make one setup the one in hand and go to the offer or stay."""
    stored_or_404(enquiry_id)
    letter = request.form.get("letter", "")
    with transaction(conn()) as c:
        setups.choose(c, enquiry_id, letter)
        enquiries.touch(c, enquiry_id, now())
    flash(f"{letter} is in hand.")
    target = "offer.page" if request.form.get("then") == "offer" else "side_by_side.page"
    return redirect(url_for(target, enquiry_id=enquiry_id), 303)
