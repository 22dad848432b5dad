"""Station 6, Fitting: the setup in hand drawn to scale, its weights moved, its wiring, the rigger's
sheet, and all mounts.
"""

from __future__ import annotations

from dataclasses import replace
from pathlib import Path
from typing import Any

from flask import Blueprint, Response, abort, current_app, render_template, request
from markupsafe import Markup

from jolvek.core.base import units
from jolvek.core.electric.netlist import SCHOOLS_12V, TAKE_OFFS, Loads12V, Plan, tap_imbalance_ah
from jolvek.core.electric.network import check as wiring_check
from jolvek.core.electric.network import drop_to_motor_v, resistance_ohm, string_currents_a
from jolvek.core.fit.checklist import sheet
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.hanging import seat_m
from jolvek.core.fit.leg import pod_wedge, shaft_choices, tiller_reach, trim_pin
from jolvek.core.fit.trim import Weight, attitude, best_place_m, crew, moved
from jolvek.core.products.mounting import KINDS
from jolvek.store import setups
from jolvek.web import conn, is_fragment
from jolvek.web.drawings.fitting_drawing import drawn_leg, leg_view, stern_view, weights_view
from jolvek.web.drawings.plan_drawing import plan_view
from jolvek.web.drawings.wiring_drawing import wiring_diagram
from jolvek.web.stations.boat import shared, stored_or_404
from jolvek.web.view import display
from jolvek.web.view.matches import answered, shelf_of
from jolvek.web.view.worked import Worked, work_out

bp = Blueprint("fitting", __name__, url_prefix="/enquiry/<int:enquiry_id>")
TABS = {"drawing": "Drawing", "wiring": "Wiring", "sheet": "Sheet", "mounts": "All mounts"}
WEED = {
    "transom_clamp": "tilt up and clear it",
    "quick_release": "tilt up and clear it",
    "rowlock_pin": "lift out and clear it",
    "side_bar": "swing up and clear it",
    "stern_plate": "swing up by line",
    "fin_box": "hard to reach: lift the stern ashore",
    "pod": "a diver's job",
    "swing_arm": "swing up and clear it",
    "offset_bracket": "tilt up and clear it",
    "well": "lift out and clear it",
}
NO_PDF = (
    "The PDF needs Pango: apt-get install libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0. "
    "Until then print the sheet from the browser."
)


def _number(args: Any, key: str, low: float, high: float, quantity: str) -> float | None:
    """A typed figure in SI; None where it is empty or cannot be read."""
    try:
        value = units.parse(args.get(key, ""), quantity, display.current()[quantity])
    except units.NotAQuantity:
        return None
    return value if low <= value <= high else None


def plan_from(args: Any) -> Plan:
    """The installation asked for: run, take-off, engine space, 12 V loads and their school."""
    loads = Loads12V(
        _number(args, "load", 0, 200, "current") or 0.0,
        (_number(args, "hours", 0, 240 * 3600, "duration") or 4 * 3600) / 3600,
        args.get("school") if args.get("school") in SCHOOLS_12V else "converter",
    )
    return Plan(
        _number(args, "run", 0.2, 30, "length") or 2.0,
        args.get("take") if args.get("take") in TAKE_OFFS else "diagonal",
        bool(args.get("engine")),
        loads,
    )


def fitted_for(worked: Worked, args: Any) -> Fitted:
    """The setup in hand with the shaft and installation on trial."""
    shaft = args.get("shaft", type=float)
    on_offer = worked.fitted.motor.shafts_m
    return replace(
        worked.fitted,
        shaft_m=shaft if shaft in on_offer else worked.fitted.shaft_m,
        plan=plan_from(args),
    )


def weights_on_trial(f: Fitted, args: Any) -> list[Weight]:
    """The weights with those moved that the address moves."""
    out = f.weights
    for w in f.weights:
        key = "w-" + w.name.replace(" ", "-")
        place = _number(args, key, -0.5, f.need.hull.length_m, "length") if args.get(key) else None
        if place is not None and w.name != "motor":
            out = moved(out, w.name, place)
    return out


def _drawing(f: Fitted, args: Any) -> dict[str, Any]:
    hull, u = f.need.hull, display.current()
    weights = weights_on_trial(f, args)
    lying, before = (
        attitude(hull, weights, f.need.water),
        attitude(hull, crew(hull, f.need.load), f.need.water),
    )
    trial = replace(f)
    trial.__dict__["attitude"] = lying
    x, shaft = drawn_leg(trial)
    pack = next((w for w in weights if w.name.startswith("battery")), None)
    best = (
        best_place_m(hull, weights, pack.name, 0.1, 0.85 * hull.length_m)
        if pack and not f.clips_on
        else None
    )
    as_stowed = attitude(hull, f.weights, f.need.water)
    packs = tuple(
        (w.name, w.ahead_m, w.off_m, f.battery.spec.length_m or 0.3, f.battery.spec.width_m or 0.2)
        for w in weights
        if w.name.startswith("battery")
    )
    motor = next(w for w in weights if w.name == "motor")
    return {
        "weights": weights,
        "lying": lying,
        "before": before,
        "as_stowed": as_stowed,
        "x": x,
        "shaft": shaft,
        "best": best,
        "pack": pack,
        "leg_svg": leg_view(trial, u, before.draught_aft_m),
        "boat_svg": weights_view(f, weights, lying, before, u),
        "stern_svg": stern_view(trial, lying),
        "plan_svg": plan_view(
            hull,
            f.need.load.people,
            f.need.site.bays,
            "From above, with batteries and motor",
            470.0,
            (motor.ahead_m, motor.off_m),
            packs,
        ),
        "shafts": (
            shaft_choices(
                f.motor.shafts_m,
                seat_m(hull, f.mount.spec),
                lying.draught_aft_m,
                f.performance.propulsor.diameter_m,
            )
            if f.leg is not None
            else []
        ),
        "pin": trim_pin(f.need.site.rake_deg),
        "tiller": _tiller(f, weights),
        "wedge": pod_wedge(0.5 * hull.deadrise + 3.0) if f.mount.spec.kind == "pod" else None,
        "yaw": f.yaw,
    }


def _tiller(f: Fitted, weights: list[Weight]) -> str:
    """Whether the helm reaches the tiller; empty where the motor is not steered by one."""
    helm = next((w for w in weights if w.name == "person 1"), None)
    if (
        helm is None
        or f.need.site.remote_steering
        or not f.mount.spec.general.steering.startswith("tiller")
    ):
        return ""
    return tiller_reach(helm.ahead_m, next(w.ahead_m for w in weights if w.name == "motor"))


def _wiring(f: Fitted) -> dict[str, Any]:
    n = f.netlist
    return {
        "n": n,
        "diagram": wiring_diagram(n),
        "currents": string_currents_a(n),
        "drop": drop_to_motor_v(n),
        "ohm": resistance_ohm,
        "wiring_findings": wiring_check(n),
        "schools": SCHOOLS_12V,
        "take_offs": TAKE_OFFS,
        "imbalance": {
            s: tap_imbalance_ah(f.bank, replace(f.plan.loads, school=s)) for s in SCHOOLS_12V
        },
    }


def _mounts(f: Fitted) -> list[dict[str, Any]]:
    """Every mount on the shelf: whether it goes, and with which motors, or why not."""
    answer = answered(f.need, shelf_of(conn()))
    match, rows = answer.match, []
    for j, item in enumerate(match.shelf.mounts):
        motors = sorted(
            {match.shelf.motors[i].title for i in match.drives.motor[match.drives.mount == j]}
        )
        rows.append(
            {
                "item": item,
                "kind": KINDS[item.spec.kind],
                "motors": motors,
                "why": match.mount_reasons.get(j),
                "weed": WEED[item.spec.kind],
                "here": item.id == f.mount.id,
            }
        )
    return sorted(rows, key=lambda r: (r["why"] is not None, not r["here"], r["item"].price))


@bp.get("/fitting")
def page(enquiry_id: int) -> Any:
    """One tab of the station; a fragment with the drawing alone when a weight or the shaft
    moves.
    """
    tab = request.args.get("tab", "") if request.args.get("tab", "") in TABS else "drawing"
    if is_fragment():
        stored, pinned = stored_or_404(enquiry_id), setups.of_enquiry(conn(), enquiry_id)
        if not pinned:
            abort(404)
        worked = work_out(stored.need, next((p for p in pinned if p.chosen), pinned[0]))
        f = fitted_for(worked, request.args)
        more = _wiring(f) if tab == "wiring" else _drawing(f, request.args)
        return render_template(
            f"fitting/_{'wiring' if tab == 'wiring' else 'drawing'}.html",
            e=stored,
            need=stored.need,
            f=f,
            args=request.args,
            moved=any(k.startswith("w-") for k in request.args),
            **more,
        )
    more = shared(enquiry_id, "fitting")
    if not more["pinned"]:
        return render_template("fitting/page.html", f=None, tab=tab, tabs=TABS, **more)
    f = fitted_for(more["card"].in_hand, request.args)
    figures = {
        "drawing": lambda: _drawing(f, request.args),
        "wiring": lambda: _wiring(f),
        "sheet": lambda: {"sheet": sheet(f), **_wiring(f)},
        "mounts": lambda: {"mounts": _mounts(f)},
    }[tab]()
    return render_template(
        "fitting/page.html",
        f=f,
        tab=tab,
        tabs=TABS,
        hand=more["card"].in_hand,
        args=request.args,
        moved=any(k.startswith("w-") for k in request.args),
        **more,
        **figures,
    )


def _standalone(svg: Markup) -> Markup:
    """An SVG with its own styles, for where the page's are not applied."""
    style = current_app.jinja_env.get_template("fitting/print.css").render()
    return Markup(str(svg).replace("<title>", f"<style>{style}</style><title>", 1))


@bp.get("/fitting/sheet.pdf")
def pdf(enquiry_id: int) -> Any:
    """The rigger's sheet as PDF, from the same templates."""
    more = shared(enquiry_id, "fitting")
    if not more["pinned"]:
        abort(404)
    f = fitted_for(more["card"].in_hand, request.args)
    drawing, wiring = _drawing(f, request.args), _wiring(f)
    html = render_template(
        "fitting/sheet_pdf.html",
        f=f,
        sheet=sheet(f),
        leg_svg=_standalone(drawing["leg_svg"]),
        boat_svg=_standalone(drawing["boat_svg"]),
        diagram=_standalone(wiring["diagram"]),
        n=wiring["n"],
        ohm=resistance_ohm,
        e=more["e"],
        need=more["need"],
        hand=more["card"].in_hand,
    )
    try:
        from weasyprint import HTML
    except OSError:
        return render_template("error.html", title="No PDF on this machine", text=NO_PDF), 503
    static = Path(current_app.static_folder or ".")
    content = HTML(string=html, base_url=static.as_uri() + "/").write_pdf()
    return Response(
        content,
        mimetype="application/pdf",
        headers={"Content-Disposition": f'inline; filename="fitting-{enquiry_id}.pdf"'},
    )
