"""The fitting to scale: the leg at the transom, the boat with her weights and waterlines, the view
from astern.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass
from math import cos, radians, sin, tan

from markupsafe import Markup, escape

from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.hanging import seat_m
from jolvek.core.fit.leg import HEAD_M, SHALLOW_DEG, SKEG_M, UP_DEG, Leg, largest_tilt_deg, leg
from jolvek.core.fit.trim import Attitude, Weight
from jolvek.core.products.mounting import HUB_BELOW_PLATE, TRANSOM_PLACES
from jolvek.web.drawings.boat_drawing import OUTLINES, View, hull_path
from jolvek.web.view.display import Units


def _svg(
    width: float,
    height: float,
    kind: str,
    label: str,
    parts: list[str],
    scale: float,
    more: str = "",
) -> Markup:
    text = escape(label)
    return Markup(
        f'<svg viewBox="0 0 {width:.0f} {height:.0f}" class="drawing {kind}" role="img"'
        f' data-scale="{scale:.4f}"'
        f' {more}aria-label="{text}"><title>{text}</title>{"".join(parts)}</svg>'
    )


def drawn_leg(f: Fitted) -> tuple[Leg, float]:
    """The leg and its shaft in m; an adjustable shaft is set to cover the hub with 0.25 m of
    water.
    """
    d = f.performance.propulsor.diameter_m
    seat = seat_m(f.need.hull, f.mount.spec)
    shaft = f.shaft_m or max(seat - f.attitude.draught_aft_m + 0.25 - HUB_BELOW_PLATE * d, 0.2)
    return leg(shaft, seat, f.attitude.draught_aft_m, d, 0.0), shaft


@dataclass(frozen=True)
class _Dim:
    """A dimension line: x, from and to in m below the seat, its words and where they stand: beside,
    above, below.
    """

    x: float
    top: float
    bottom: float
    words: str
    where: str = "beside"


def leg_view(
    f: Fitted, u: Units, bare_draught_m: float, width: float = 470.0, height: float = 430.0
) -> Markup:
    """Transom, motor, plate, propeller and waterlines from the side, with dimensions and a scale
    bar.
    """
    x, shaft = drawn_leg(f)
    hull, site, d = f.need.hull, f.need.site, f.performance.propulsor.diameter_m
    seat, draught = seat_m(hull, f.mount.spec), f.attitude.draught_aft_m
    reach = shaft + (HUB_BELOW_PLATE + 0.5) * d + SKEG_M
    scale = (height - 54) / (HEAD_M + reach + 0.10)
    top = 30 + HEAD_M * scale  # the seat
    foot = width * 0.60  # the transom's foot

    def y(below_seat_m: float) -> float:
        return top + below_seat_m * scale

    lean = tan(radians(site.rake_deg)) * seat * scale
    head_x = foot - lean - 0.10 * scale
    water, bottom = y(seat - draught), y(seat)
    sea_floor = height - 22
    parts = [
        (
            f'<rect x="0" y="{water:.1f}" width="{width}" height="{sea_floor - water:.1f}"'
            ' class="sea"/>'
        ),
        _boat_at_the_mount(f, foot, lean, scale, y, width),
        f'<line x1="0" x2="{width}" y1="{water:.1f}" y2="{water:.1f}" class="water"/>',
        (
            f'<line x1="{foot:.1f}" x2="{width}" y1="{y(seat - bare_draught_m):.1f}"'
            f' y2="{y(seat - bare_draught_m):.1f}" class="water before"/>'
        ),
        _tilt(head_x, top, reach, scale, largest_tilt_deg(site.room_ahead_m)),
        _motor(head_x, top, shaft, d, scale),
    ]
    hub, tip = shaft + HUB_BELOW_PLATE * d, shaft + (HUB_BELOW_PLATE - 0.5) * d

    def length(metres: float) -> str:
        return str(u.full(metres, "length")) if u["length"] == "ft" else f"{1000 * metres:.0f} mm"

    at_transom = f.mount.spec.general.place in TRANSOM_PLACES
    lines = [
        _Dim(foot + 24, 0.0, seat, f"{'transom' if at_transom else 'seat'} {length(seat)}"),
        _Dim(
            foot + 62,
            seat,
            shaft,
            f"plate {length(abs(x.plate_m))} {'below' if x.plate_m >= 0 else 'above'}",
            "below",
        ),
        _Dim(head_x - 0.30 * scale, seat - draught, hub, f"hub {length(x.hub_m)}", "below"),
        _Dim(head_x - 0.24 * scale, seat - draught, tip, f"tip {length(x.tip_m)}", "above"),
    ]
    parts += [
        _dimension(line, y) for line in lines if at_transom or not line.words.startswith("plate")
    ]
    bar = 0.25 * scale
    parts.append(
        f'<path d="M{width - bar - 12:.1f} {height - 12}v-5v10v-5h{bar:.1f}v-5v10" class="scalebar"'
        f' data-mm="250"/><text x="{width - bar / 2 - 12:.1f}" y="{height - 18}"'
        f' text-anchor="middle">{length(0.25)}</text><text x="{width - 6}" y="{water - 5:.1f}"'
        ' text-anchor="end" class="watertext">waterline</text>'
    )
    label = (
        f"The motor's leg from the side: plate {length(abs(x.plate_m))}"
        f" {'below' if x.plate_m >= 0 else 'above'} the hull bottom, hub {length(x.hub_m)} and"
        f" upper blade tip {length(x.tip_m)} below the loaded waterline;"
        f" {f.mount.spec.general.name.lower()}"
    )
    more = (
        f'data-shaft="{shaft * scale:.2f}" data-water-y="{water:.2f}" data-bottom-y="{bottom:.2f}" '
    )
    return _svg(width, height, "leg-view", label, parts, scale, more)


def _boat_at_the_mount(
    f: Fitted, foot: float, lean: float, scale: float, y: Callable[[float], float], width: float
) -> str:
    """The transom with the bottom ahead of it; for a mount elsewhere the hull passing behind and
    the bracket it hangs from.
    """
    seat = seat_m(f.need.hull, f.mount.spec)
    bottom = y(seat)
    if f.mount.spec.general.place in TRANSOM_PLACES:
        return (
            f'<path d="M{foot:.1f} {bottom:.1f}L{foot - lean:.1f}'
            f' {y(-0.0):.1f}h{0.03 * scale:.1f}L{foot + 0.03 * scale:.1f} {bottom:.1f}Z"'
            f' class="transom"/><path d="M{foot:.1f} {bottom:.1f}H{width}" class="bottom"/><path'
            f' d="M{foot - lean:.1f} {y(0.02):.1f}L{width} {y(-0.02):.1f}" class="sheerline"/>'
        )
    head_x = foot - lean - 0.10 * scale
    return (
        f'<path d="M0 {bottom:.1f}H{width}" class="bottom"/><path d="M0'
        f' {y(seat - f.need.hull.depth_m):.1f}H{width}" class="sheerline"/><rect'
        f' x="{head_x - 0.05 * scale:.1f}" y="{y(-0.03):.1f}" width="{0.16 * scale:.1f}"'
        f' height="{0.03 * scale:.1f}" class="transom"/>'
    )


def _dimension(line: _Dim, y: Callable[[float], float]) -> str:
    a, b = sorted((y(line.top), y(line.bottom)))
    place = {
        "beside": f'x="{line.x + 6:.1f}" y="{a + 0.25 * (b - a) + 4:.1f}"',
        "above": f'x="{line.x:.1f}" y="{a - 6:.1f}" text-anchor="middle"',
        "below": f'x="{line.x:.1f}" y="{b + 15:.1f}" text-anchor="middle"',
    }[line.where]
    return (
        f'<path d="M{line.x - 4:.1f} {a:.1f}h8m-4 0V{b:.1f}m-4 0h8" class="dim"/><text {place}'
        f' class="dimtext">{escape(line.words)}</text>'
    )


def _motor(x: float, top: float, shaft: float, d: float, s: float) -> str:
    """Head, shaft, plate, gear case and propeller; the shaft is measured from the seat to the
    plate.
    """
    plate, hub = top + shaft * s, top + (shaft + HUB_BELOW_PLATE * d) * s
    return (
        f'<g class="motor"><rect x="{x - 0.12 * s:.1f}" y="{top - HEAD_M * s:.1f}"'
        f' width="{0.24 * s:.1f}" height="{HEAD_M * s:.1f}" rx="5"/><rect x="{x - 0.03 * s:.1f}"'
        f' y="{top:.1f}" width="{0.06 * s:.1f}" height="{hub - top:.1f}" class="shaft"/><rect'
        f' x="{x - 0.17 * s:.1f}" y="{plate - 2:.1f}" width="{0.25 * s:.1f}" height="4"/><rect'
        f' x="{x - 0.16 * s:.1f}" y="{hub - 0.035 * s:.1f}" width="{0.24 * s:.1f}"'
        f' height="{0.07 * s:.1f}" rx="{0.035 * s:.1f}"/><rect x="{x - 0.18 * s:.1f}"'
        f' y="{hub - d / 2 * s:.1f}" width="4" height="{d * s:.1f}" rx="2" class="disc"/><path'
        f' d="M{x - 0.03 * s:.1f} {hub:.1f}v{(d / 2 + SKEG_M) * s:.1f}h{0.05 * s:.1f}'
        f"l{0.03 * s:.1f}"
        f' {-(d / 2 + SKEG_M) * s:.1f}z"/><path d="M{x + 0.1 * s:.1f}'
        f' {top - 0.8 * HEAD_M * s:.1f}l{0.5 * s:.1f} {-0.02 * s:.1f}" class="tiller"/></g>'
    )


def _tilt(x: float, top: float, reach: float, s: float, most_deg: float) -> str:
    """The sweep of the lowest point, with shallow drive and the end of the tilt."""

    def at(degrees: float) -> tuple[float, float]:
        return x - reach * s * sin(radians(degrees)), top + reach * s * cos(radians(degrees))

    (x0, y0), (x1, y1), (xs, ys) = at(0), at(most_deg), at(SHALLOW_DEG)
    words = (
        ""
        if most_deg >= UP_DEG
        else (
            f'<text x="{x1 + 6:.1f}" y="{y1 - 4:.1f}" class="tilttext">stops at'
            f" {most_deg:.0f}°</text>"
        )
    )
    return (
        f'<path d="M{x0:.1f} {y0:.1f}A{reach * s:.1f} {reach * s:.1f} 0 0 1 {x1:.1f} {y1:.1f}"'
        f' class="sweep"/><circle cx="{xs:.1f}" cy="{ys:.1f}" r="3" class="sweepdot"/><text'
        f' x="{max(xs, 4):.1f}" y="{ys + 17:.1f}" class="tilttext" text-anchor="middle">shallow'
        f" {SHALLOW_DEG:.0f}°</text>{words}"
    )


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
    margin = 0.35
    scale = (width - 16) / (hull.length_m + 2 * margin)
    heads = max((w.above_m + 0.62 for w in weights if w.name.startswith("person")), default=0.5)
    tall = max(
        1.55 if OUTLINES[hull.family].extra in ("deck", "cabin") else 1.05,
        heads,
        hull.depth_m * 1.3 + 0.2,
    ) + (1.0 if hull.family == "pontoon" else 0)
    keel = 8 + tall * scale
    view = View(scale, 8 + margin * scale, keel)
    height = keel + 0.30 * scale + 34
    middle = view.at(0.5 * hull.length_m, 0)
    turn = f'transform="rotate({-lying.trim_deg:.2f} {middle[0]:.1f} {middle[1]:.1f})"'
    water, dry = view.at(0, lying.draught_m)[1], before.draught_m - lying.draught_m
    slope = tan(radians(lying.trim_deg - before.trim_deg)) * hull.length_m / 2 * scale
    parts = [
        (
            f'<rect x="0" y="{water:.1f}" width="{width}" height="{keel + 0.3 * scale - water:.1f}"'
            ' class="sea"/>'
        ),
        f"<g {turn}>",
        f'<path d="{hull_path(hull, view)}" class="hull"/>',
    ]
    for w in weights:
        cx, cy = view.at(w.ahead_m, w.above_m)
        key = w.name.replace(" ", "-")
        if w.name.startswith("battery"):
            b = f.battery.spec
            long, high = (b.length_m or 0.3) * scale, (b.height_m or 0.2) * scale
            shape = (
                f'<rect x="{cx - long / 2:.1f}" y="{cy - high / 2:.1f}" width="{long:.1f}"'
                f' height="{high:.1f}" class="pack"/>'
            )
        elif w.name.startswith("person"):
            r = 0.12 * scale
            shape = (
                f'<circle cx="{cx:.1f}" cy="{cy - 0.45 * scale:.1f}" r="{r:.1f}"'
                f' class="person"/><path d="M{cx - 0.17 * scale:.1f} {cy + 0.15 * scale:.1f}q0'
                f" {-0.42 * scale:.1f} {0.17 * scale:.1f} {-0.42 * scale:.1f}t{0.17 * scale:.1f}"
                f' {0.42 * scale:.1f}z" class="person"/>'
            )
        elif w.name == "motor":
            shape = (
                f'<rect x="{cx - 0.09 * scale:.1f}" y="{cy - 0.25 * scale:.1f}"'
                f' width="{0.18 * scale:.1f}" height="{0.3 * scale:.1f}" class="motorhead"/>'
            )
        else:
            shape = (
                f'<rect x="{cx - 0.14 * scale:.1f}" y="{cy - 0.1 * scale:.1f}"'
                f' width="{0.28 * scale:.1f}" height="{0.2 * scale:.1f}" class="gear"/>'
            )
        parts.append(
            f'<g class="weight" data-weight="{key}"'
            f' data-scale="{scale:.3f}">{shape}<title>{escape(w.name)}, {w.mass_kg:.0f}'
            " kg</title></g>"
        )
    gx, gy = view.at(lying.ahead_m, lying.above_m)
    parts.append(
        f'<g class="centre-mark"><circle cx="{gx:.1f}" cy="{gy:.1f}" r="5"/><path d="M{gx - 8:.1f}'
        f' {gy:.1f}h16m-8 -8v16"/></g></g>'
    )
    old = water - dry * scale
    dim_y = keel + 0.30 * scale + 14
    stern, cg = view.at(0, 0)[0], view.at(lying.ahead_m, 0)[0]
    parts.append(
        f'<line x1="0" x2="{width}" y1="{water:.1f}" y2="{water:.1f}" class="water"/><line x1="0"'
        f' x2="{width}" y1="{old - slope:.1f}" y2="{old + slope:.1f}" class="water before"/><path'
        f' d="M{stern:.1f} {dim_y - 4:.1f}v8m0 -4H{cg:.1f}m0 -4v8" class="dim"/><text x="8"'
        f' y="{dim_y + 15:.1f}" class="dimtext">weight acts'
        f" {escape(u.full(lying.ahead_m, 'length'))} ahead of the stern</text>"
    )
    way = "stern" if lying.trim_deg >= 0 else "bow"
    label = (
        f"The boat with her weights: trim {abs(lying.trim_deg):.1f}° by the {way}, draught"
        f" {lying.draught_m:.2f} m"
    )
    return _svg(
        width,
        height,
        "weights-view",
        label,
        parts,
        scale,
        f'data-keel-y="{keel:.2f}" data-water-y="{water:.2f}" ',
    )


def stern_view(f: Fitted, lying: Attitude, width: float = 230.0) -> Markup:
    """From astern: transom, motor, waterline, heel."""
    hull, d = f.need.hull, f.performance.propulsor.diameter_m
    x, shaft = drawn_leg(f)
    seat = seat_m(hull, f.mount.spec)
    scale = (width - 30) / max(hull.beam_m, 0.9)
    low = max(shaft - seat + (HUB_BELOW_PLATE + 0.5) * d + SKEG_M, 0.1)
    top = 10 + (max(hull.depth_m, seat) + HEAD_M) * scale
    mid, half, n = width / 2, hull.body_waterline_beam_m / 2 * scale, hull.body_count
    height = top + low * scale + 14
    water = top - lying.draught_aft_m * scale
    bodies = "".join(
        f'<path d="M{mid + c - half:.1f}'
        f" {top - hull.depth_m * scale:.1f}V{top - 0.25 * half:.1f}Q{mid + c:.1f}"
        f" {top + 0.12 * half:.1f} {mid + c + half:.1f}"
        f' {top - 0.25 * half:.1f}V{top - hull.depth_m * scale:.1f}Z" class="hull"/>'
        for c in ((i - (n - 1) / 2) * hull.spacing_m * scale for i in range(n))
    )
    mx = mid + f.mount.spec.offset_m * scale
    seat_y, hub_y = top - seat * scale, top + (shaft - seat + HUB_BELOW_PLATE * d) * scale
    motor = (
        f'<g class="motor"><rect x="{mx - 0.11 * scale:.1f}" y="{seat_y - HEAD_M * scale:.1f}"'
        f' width="{0.22 * scale:.1f}" height="{HEAD_M * scale:.1f}" rx="4"/><rect'
        f' x="{mx - 0.02 * scale:.1f}" y="{seat_y:.1f}" width="{0.04 * scale:.1f}"'
        f' height="{hub_y - seat_y:.1f}"/></g><circle cx="{mx:.1f}" cy="{hub_y:.1f}"'
        f' r="{d / 2 * scale:.1f}" class="discring"/>'
    )
    parts = [
        f'<rect x="0" y="{water:.1f}" width="{width}" height="{height - water:.1f}" class="sea"/>',
        f'<g transform="rotate({lying.heel_deg:.2f} {mid:.1f} {water:.1f})">{bodies}{motor}</g>',
        f'<line x1="0" x2="{width}" y1="{water:.1f}" y2="{water:.1f}" class="water"/>',
    ]
    label = (
        f"From astern: heel {abs(lying.heel_deg):.1f}°, motor {1000 * f.mount.spec.offset_m:.0f} mm"
        " off the centre line"
    )
    return _svg(width, height, "stern-view", label, parts, scale)
