"""Station 4, Side by side: up to four setups over one axis of speed with one cursor."""

from __future__ import annotations

from typing import Any

import numpy as np
from flask import Blueprint, flash, redirect, render_template, request, url_for

from jolvek.core import units
from jolvek.store import enquiries, setups
from jolvek.store.db import transaction
from jolvek.web import charts, conn, shown, workings
from jolvek.web.boat import shared, stored_or_404
from jolvek.web.keeping import now

bp = Blueprint("side_by_side", __name__, url_prefix="/enquiry/<int:enquiry_id>")
POINTS = 90


def _series(worked: workings.Worked, u: shown.Units) -> charts.Series:
    """The setup's curves in shown units, from a quarter of the top speed up."""
    p = worked.performance
    speed = np.linspace(0.12, 1.0, POINTS) * p.top_speed_m_s
    points = [p.at_speed(float(v)) for v in speed]
    factor = {q: units.QUANTITIES[q].typed[u[q].lower()] for q in ("speed", "power", "distance")}
    knee = None
    if p.knee.speed_m_s is not None and p.knee.power_w is not None:
        knee = (p.knee.speed_m_s / factor["speed"], p.knee.power_w / factor["power"])
    return charts.Series(worked.letter, [float(v) / factor["speed"] for v in speed],
                         [(x.power_w or 0.0) / factor["power"] for x in points],
                         [(x.range_m or 0.0) / factor["distance"] for x in points], knee)


def _data(worked: list[workings.Worked], series: list[charts.Series], chart: charts.Chart, u: shown.Units, speed: float) -> dict[str, Any]:
    """What the cursor script needs: curves by letter, the frame, units."""
    return {
        "speed": round(speed, 2), "x0": chart.frame.x0, "x1": chart.frame.x1, "xMax": chart.x_max, "unit": u["speed"],
        "powerUnit": u["power"], "distanceUnit": u["distance"], "powerPlaces": 0 if u["power"] == "W" else 2,
        "setups": [{"letter": s.letter, "speed": [round(x, 4) for x in s.speed], "power": [round(x, 3) for x in s.power],
                    "range": [round(x, 3) for x in s.range_], "hold": bool(w.pinned.chosen),
                    "runtime": [round(w.performance.at_speed(v * units.QUANTITIES["speed"].typed[u["speed"]]).runtime_s or 0)
                                for v in np.minimum(s.speed, s.speed[-1] * (1 - 1e-6))]}
                   for w, s in zip(worked, series, strict=True)],
    }


@bp.get("/side-by-side")
def page(enquiry_id: int) -> Any:
    """Charts, table and answer line; `?speed=` sets the cursor."""
    more = shared(enquiry_id, "side_by_side")
    u = shown.current()
    worked = [workings.work_out(more["need"], p) for p in more["pinned"]]
    if not worked:
        return render_template("side_by_side/page.html", worked=[], **more)
    speed_m_s, refused = more["need"].day.speed_m_s, ""
    if request.args.get("speed"):
        try:
            speed_m_s = units.parse(request.args["speed"], "speed", u["speed"])
        except units.NotAQuantity as error:
            refused = str(error)
    fastest = max(w.performance.top_speed_m_s for w in worked)
    slowest = 0.13 * fastest
    speed_m_s = min(max(speed_m_s, slowest), fastest)
    shown_speed = units.to_unit(speed_m_s, "speed", u["speed"])
    series = [_series(w, u) for w in worked]
    plate = more["need"].hull.max_power_w
    lines = charts.Lines(
        units.to_unit(worked[0].performance.hull_speed_m_s, "speed", u["speed"]),
        units.to_unit(plate, "power", u["power"]) if plate else None, f"plate {u.full(plate, 'power')}" if plate else "",
        u["speed"], u["power"], u["distance"], shown_speed)
    chart = charts.compare(series, lines)
    hand = next((w for w in worked if w.pinned.chosen), worked[0])
    return render_template("side_by_side/page.html", worked=worked, chart=chart, speed=speed_m_s, refused=refused, hand=hand,
                           data=_data(worked, series, chart, u, shown_speed), typed=request.args.get("speed"),
                           at={w.letter: w.performance.at_speed(speed_m_s) for w in worked}, best=_best(worked, speed_m_s), **more), \
        422 if refused else 200


def _best(worked: list[workings.Worked], speed_m_s: float) -> dict[str, str]:
    """Row of the table → letter of the best setup in it."""
    at = {w.letter: w.performance.at_speed(speed_m_s) for w in worked}
    rows: dict[str, dict[str, float | None]] = {
        "power": {k: -p.power_w if p.power_w else None for k, p in at.items()},
        "runtime": {k: p.runtime_s for k, p in at.items()}, "range": {k: p.range_m for k, p in at.items()},
        "top": {w.letter: w.performance.top_speed_m_s for w in worked}, "lift": {w.letter: -w.lift_kg for w in worked},
        "mass": {w.letter: -w.parts_kg for w in worked}, "price": {w.letter: -w.pinned.price for w in worked},
        "charge": {w.letter: -w.charge_h if w.charge_h else None for w in worked},
        "thrust": {w.letter: w.performance.static_thrust_n for w in worked},
    }
    return {row: max((k for k in values if values[k] is not None), key=lambda k: values[k] or 0.0, default="")
            for row, values in rows.items()} if len(worked) > 1 else {}


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
