"""The boat with its weights to scale: trimmed from the side, heeled from astern."""

from __future__ import annotations

from math import radians, tan

from markupsafe import Markup

from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.hanging import motor_ahead_m, seat_m
from jolvek.core.fit.hung_leg import hub_below_m, hung_leg
from jolvek.core.fit.leg import HEAD_M, SKEG_M
from jolvek.core.fit.trim import PERSON_CG_M, Attitude, Weight
from jolvek.core.hydro.floating import draws_m, float_at
from jolvek.core.hydro.hull import Hull
from jolvek.web.kit.display import Units
from jolvek.web.kit.drawings.boat_drawing import extras, keel_below, tall_m, topline
from jolvek.web.kit.drawings.outboard_drawing import astern, grip_m, outboard
from jolvek.web.kit.drawings.outlines import View, hull_path
from jolvek.web.kit.drawings.person_drawing import CROWN_M, seated
from jolvek.web.kit.drawings.scale_bar import scale_bar
from jolvek.web.kit.drawings.svg import circle, line, path, picture, rect, tag, text, titled
from jolvek.web.kit.language import shown, tr

MARGIN_M, BELOW_M = 0.35, 0.30  # sheet beside and below the boat


def _top_m(hull: Hull, weights: list[Weight]) -> float:
    """How far the drawing goes above the keel, in m."""
    middles = [w.above_m for w in weights if w.name.startswith("person")]
    heads = max(middles, default=0.0) - PERSON_CG_M + CROWN_M
    return max(1.05, heads, hull.depth_m * 1.3 + 0.2, tall_m(hull))


def _hull(f: Fitted, view: View) -> str:
    """The hull with what its family carries: mast, cabin or deck, and the keel below it."""
    hull = f.need.hull
    floats = float_at(hull, f.performance.displacement_kg, f.need.water.density_kg_m3)
    keel_m = float(draws_m(hull, floats) - floats.draught_m)
    body = path(hull_path(hull, view), "hull") + topline(hull, view)
    return keel_below(hull, view, keel_m) + body + extras(hull, view)


def _shape(w: Weight, f: Fitted, view: View) -> str:
    """A weight as it looks: pack, person, motor head, gear."""
    (x, y), s = view.at(w.ahead_m, w.above_m), view.scale
    if w.name.startswith("battery"):
        long, high = (f.battery.spec.length_m or 0.3) * s, (f.battery.spec.height_m or 0.2) * s
        return rect(x - long / 2, y - high / 2, long, high, "pack")
    if w.name.startswith("person"):
        seat = w.above_m - PERSON_CG_M
        return seated(*view.at(w.ahead_m, seat), seat, s, _held(w, seat, f))
    if w.name == "motor" and f.mount.spec.fixed:
        return rect(x - 0.12 * s, y, 0.24 * s, 0.12 * s, "motorhead", rx=0.05 * s)
    if w.name == "motor":
        shaft, d = hung_leg(f)[1], f.performance.propulsor.diameter_m
        hung = view.at(w.ahead_m, seat_m(f.need, f.mount.spec))
        return outboard(*hung, shaft, d, s, f.motor.spec.style == "pole")
    return rect(x - 0.14 * s, y - 0.1 * s, 0.28 * s, 0.2 * s, "gear")


def _held(w: Weight, seat: float, f: Fitted) -> tuple[float, float] | None:
    """The tiller's grip from the helm's seat, m ahead and above; None for the rest."""
    if w.name != "person 1" or f.mount.spec.fixed:
        return None
    ahead, above = grip_m(f.motor.spec.style == "pole")
    at = motor_ahead_m(f.need, f.mount.spec) + ahead, seat_m(f.need, f.mount.spec) + above
    return at[0] - w.ahead_m, at[1] - seat


def _weight(w: Weight, f: Fitted, view: View) -> str:
    """A weight to be dragged."""
    body = _shape(w, f, view) + titled(f"{shown(w.name)}, {w.mass_kg:.0f} kg")
    key, scale = w.name.replace(" ", "-"), f"{view.scale:.3f}"
    return tag("g", body, cls="weight", data_weight=key, data_scale=scale)


def weights_view(
    f: Fitted,
    weights: list[Weight],
    lying: Attitude,
    before: Attitude,
    u: Units,
    width: float = 470.0,
) -> Markup:
    """The boat trimmed as she lies, weights where they sit (to be dragged), the waterline before
    dashed, the centre of all weights.
    """
    hull = f.need.hull
    scale = (width - 16) / (hull.length_m + 2 * MARGIN_M)
    keel = 8 + _top_m(hull, weights) * scale
    view = View(scale, 8 + MARGIN_M * scale, keel)
    below = 0.0 if f.mount.spec.fixed else hub_below_m(f) + f.performance.propulsor.diameter_m / 2
    low = keel + max(BELOW_M, below + 0.08) * scale
    water = view.at(0, lying.draught_m)[1]
    middle = view.at(0.5 * hull.length_m, 0)
    seated = [w for w in weights if w.name.startswith("person")]
    boat = (
        "".join(_weight(w, f, view) for w in seated)  # behind the topsides: they sit in her
        + _hull(f, view)
        + "".join(_weight(w, f, view) for w in weights if w not in seated)
        + _centre_mark(*view.at(lying.ahead_m, lying.above_m))
    )
    turn = f"rotate({-lying.trim_deg:.2f} {middle[0]:.1f} {middle[1]:.1f})"
    parts = [
        rect(0, water, width, low - water, "sea"),
        tag("g", boat, transform=turn),
        line(0, water, width, water, "water"),
        _line_before(hull, view, lying, before, width),
        _where_weight_acts(view, lying, low + 14, u),
        scale_bar(width - 8, 8, scale),
    ]
    way = "stern" if lying.trim_deg >= 0 else "bow"
    label = tr(
        "The boat with its weights: trim %(trim_deg)s° by the %(way)s, draught %(draught)s m",
        trim_deg=f"{abs(lying.trim_deg):.1f}",
        way=way,
        draught=f"{lying.draught_m:.2f}",
    )
    data = {"scale": f"{scale:.4f}", "keel-y": f"{keel:.2f}", "water-y": f"{water:.2f}"}
    at = {f"data-{key}": value for key, value in data.items()}
    return picture(width, low + 34, "drawing weights-view", label, parts, **at)


def _centre_mark(x: float, y: float) -> str:
    cross = circle(x, y, 5) + path(f"M{x - 8:.1f} {y:.1f}h16m-8 -8v16")
    return tag("g", cross, cls="centre-mark")


def _line_before(hull: Hull, view: View, lying: Attitude, before: Attitude, width: float) -> str:
    """The waterline before the kit came aboard, seen from the sheet."""
    y = view.at(0, lying.draught_m)[1] - (before.draught_m - lying.draught_m) * view.scale
    slope = tan(radians(lying.trim_deg - before.trim_deg)) * hull.length_m / 2 * view.scale
    return line(0, y - slope, width, y + slope, "water before")


def _where_weight_acts(view: View, lying: Attitude, y: float, u: Units) -> str:
    stern, centre = view.at(0, 0)[0], view.at(lying.ahead_m, 0)[0]
    words = tr("weight acts %(ahead)s ahead of the stern", ahead=u.full(lying.ahead_m, "length"))
    ends = f"M{stern:.1f} {y - 4:.1f}v8m0 -4H{centre:.1f}m0 -4v8"
    return path(ends, "dim") + text(8, y + 15, words, "dimtext")


def stern_view(f: Fitted, lying: Attitude, width: float = 230.0) -> Markup:
    """From astern: transom, motor, waterline, heel."""
    hull, d, hub = f.need.hull, f.performance.propulsor.diameter_m, hub_below_m(f)
    seat = seat_m(f.need, f.mount.spec)
    scale = (width - 30) / max(hull.beam_m, 0.9)
    low = max(hub + 0.5 * d + SKEG_M, 0.1)
    top = 10 + (max(hull.depth_m, seat) + HEAD_M) * scale
    height, water, mid = top + low * scale + 14, top - f.transom_draught_m * scale, width / 2
    x = mid + f.mount.spec.offset_m * scale
    seat_y, hub_y = top if f.mount.spec.fixed else top - seat * scale, top + hub * scale
    motor = astern(x, seat_y, hub_y, d, scale, not f.mount.spec.fixed)
    ring = circle(x, hub_y, d / 2 * scale, "discring")
    heel = f"rotate({lying.heel_deg:.2f} {mid:.1f} {water:.1f})"
    parts = [
        rect(0, water, width, height - water, "sea"),
        tag("g", _bodies(hull, mid, top, scale) + motor + ring, transform=heel),
        line(0, water, width, water, "water"),
    ]
    label = tr(
        "From astern: heel %(heel_deg)s°, motor %(offset)s mm off the centre line",
        heel_deg=f"{abs(lying.heel_deg):.1f}",
        offset=f"{1000 * f.mount.spec.offset_m:.0f}",
    )
    kind = "drawing stern-view"
    return picture(width, height, kind, label, parts, data_scale=f"{scale:.4f}")


def _bodies(hull: Hull, mid: float, top: float, scale: float) -> str:
    """The hull or hulls from astern."""
    half, sheer, n = hull.body_waterline_beam_m / 2 * scale, hull.depth_m * scale, hull.body_count
    out = ""
    if n > 1:  # what joins them
        wide, thick = ((n - 1) * hull.spacing_m + 2 * half / scale) * scale, 0.06 * scale
        out = rect(mid - wide / 2, top - sheer - thick, wide, thick, "house")
    for i in range(n):
        x = mid + (i - (n - 1) / 2) * hull.spacing_m * scale
        if hull.family == "pontoon":  # tubes
            out += circle(x, top - sheer / 2, sheer / 2, "hull")
            continue
        bilge = top - 0.25 * half
        out += path(
            f"M{x - half:.1f} {top - sheer:.1f}V{bilge:.1f}Q{x:.1f} {top + 0.12 * half:.1f}"
            f" {x + half:.1f} {bilge:.1f}V{top - sheer:.1f}Z",
            "hull",
        )
    return out
