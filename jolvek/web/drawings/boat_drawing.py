"""The boat's side view to scale, at its loaded waterline, as SVG: hull, people, batteries, motor.

Outlines are Jolvek's own, one per family, in shares of length (stern 0, bow 1) and depth (keel 0,
sheer 1).
"""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from jolvek.core.enquiry.site import Bay
from jolvek.core.fit.trim import seats_m
from jolvek.core.hydro.families import FAMILIES
from jolvek.core.hydro.floating import float_at
from jolvek.core.hydro.hull import Hull
from jolvek.core.hydro.water import Water

Point = tuple[float, float]


@dataclass(frozen=True)
class Outline:
    """Keel from stern to bow, sheer from stern to bow; both as (share of length, share of
    depth).
    """

    keel: tuple[Point, ...]
    sheer: tuple[Point, ...]
    sole: float = 0.22  # height of the floor
    extra: str = ""


OUTLINES: dict[str, Outline] = {
    "kayak": Outline(
        ((0, 0.62), (0.06, 0.14), (0.25, 0), (0.7, 0), (0.92, 0.12), (1, 0.7)),
        ((0, 0.92), (0.25, 0.78), (0.5, 0.76), (0.8, 0.86), (1, 1.12)),
        0.25,
    ),
    "canoe": Outline(
        ((0, 0.7), (0.05, 0.1), (0.25, 0), (0.75, 0), (0.95, 0.1), (1, 0.7)),
        ((0, 1.28), (0.15, 0.95), (0.5, 0.85), (0.85, 0.95), (1, 1.3)),
        0.2,
    ),
    "board": Outline(
        ((0, 0.35), (0.05, 0.05), (0.5, 0), (0.85, 0.1), (1, 1.1)),
        ((0, 0.9), (0.5, 0.9), (0.85, 1), (1, 1.5)),
        0.9,
    ),
    "sailing_dinghy": Outline(
        ((0, 0.2), (0.25, 0.04), (0.5, 0), (0.8, 0.12), (0.97, 0.6)),
        ((0, 0.86), (0.5, 0.82), (0.8, 0.95), (1, 1.15)),
        0.24,
        "mast",
    ),
    "rigid_dinghy": Outline(
        ((0, 0.03), (0.4, 0), (0.72, 0.06), (0.92, 0.4), (0.98, 0.75)),
        ((0, 0.88), (0.5, 0.86), (0.8, 0.96), (1, 1.18)),
        0.2,
    ),
    "inflatable_soft": Outline(
        ((0.03, 0.12), (0.4, 0.06), (0.74, 0.1), (0.93, 0.5), (0.985, 0.8)),
        ((0, 0.98), (0.6, 0.98), (0.85, 1.1), (1, 1.32)),
        0.22,
        "tube",
    ),
    "inflatable_air": Outline(
        ((0.03, 0.08), (0.4, 0.02), (0.74, 0.06), (0.93, 0.45), (0.985, 0.8)),
        ((0, 0.98), (0.6, 0.98), (0.85, 1.12), (1, 1.36)),
        0.22,
        "tube",
    ),
    "rib": Outline(
        ((0.04, 0.02), (0.45, 0), (0.74, 0.08), (0.92, 0.45), (0.985, 0.85)),
        ((0, 0.98), (0.6, 0.98), (0.85, 1.1), (1, 1.32)),
        0.3,
        "tube",
    ),
    "flat_bottom": Outline(
        ((0, 0.03), (0.3, 0), (0.7, 0), (0.9, 0.3), (0.97, 0.75)),
        ((0, 0.9), (0.5, 0.86), (0.8, 0.92), (1, 1.02)),
        0.16,
    ),
    "skiff": Outline(
        ((0, 0.03), (0.3, 0), (0.72, 0.03), (0.93, 0.4), (0.99, 0.8)),
        ((0, 0.86), (0.5, 0.82), (0.8, 0.92), (1, 1.08)),
        0.2,
    ),
    "cabin": Outline(
        ((0, 0.28), (0.2, 0.08), (0.5, 0), (0.8, 0.06), (0.95, 0.45), (0.98, 0.8)),
        ((0, 0.95), (0.45, 0.9), (0.75, 1), (1, 1.3)),
        0.4,
        "cabin",
    ),
    "keelboat": Outline(
        ((0, 0.72), (0.12, 0.4), (0.45, 0.26), (0.75, 0.34), (0.93, 0.7)),
        ((0, 0.98), (0.5, 0.94), (0.8, 1), (1, 1.12)),
        0.6,
        "keel",
    ),
    "multihull": Outline(
        ((0, 0.4), (0.1, 0.12), (0.4, 0), (0.8, 0.05), (0.98, 0.4)),
        ((0, 0.95), (0.5, 0.92), (0.8, 0.96), (1, 1.05)),
        0.75,
        "beams",
    ),
    "pontoon": Outline(
        ((0, 0.12), (0.06, 0), (0.88, 0), (0.96, 0.3), (0.995, 0.72)),
        ((0, 0.98), (0.3, 1), (0.85, 1), (0.985, 0.96)),
        1.12,
        "deck",
    ),
}


def smooth(points: list[Point], first: str = "M") -> str:
    """A smooth path through points (Catmull–Rom as Bézier curves)."""
    out = f"{first}{points[0][0]:.1f} {points[0][1]:.1f}"
    for i in range(len(points) - 1):
        p0, p1, p2 = points[max(i - 1, 0)], points[i], points[i + 1]
        p3 = points[min(i + 2, len(points) - 1)]
        out += (
            f"C{p1[0] + (p2[0] - p0[0]) / 6:.1f} {p1[1] + (p2[1] - p0[1]) / 6:.1f}"
            f" {p2[0] - (p3[0] - p1[0]) / 6:.1f} {p2[1] - (p3[1] - p1[1]) / 6:.1f} {p2[0]:.1f}"
            f" {p2[1]:.1f}"
        )
    return out


@dataclass(frozen=True)
class View:
    """Where the boat lies in the picture: scale in px per m, stern's x, keel's y."""

    scale: float
    x0: float
    keel_y: float

    def at(self, x_m: float, height_m: float) -> Point:
        """Picture coordinates of a place: metres ahead of the stern, metres above the keel."""
        return self.x0 + x_m * self.scale, self.keel_y - height_m * self.scale


def hull_path(hull: Hull, view: View) -> str:
    """The closed outline of the hull."""
    line, length, depth = OUTLINES[hull.family], hull.length_m, hull.depth_m
    keel = [view.at(x * length, y * depth) for x, y in line.keel]
    sheer = [view.at(x * length, y * depth) for x, y in reversed(line.sheer)]
    return smooth(keel) + smooth(sheer, "L") + "Z"


def silhouette(family_id: str, width: float = 84.0, height: float = 34.0) -> Markup:
    """A small unlabelled outline of a family, for choosing."""
    fam = FAMILIES[family_id]
    hull = Hull(family_id, fam.typical_length_m, fam.typical_beam_m, fam.typical_mass_kg)
    scale = (width - 8) / hull.length_m
    view = View(scale, 4, height - 8)
    body = (
        _extras(hull, view, small=True)
        + f'<path d="{hull_path(hull, view)}" class="hull"/>'
        + _lines(hull, view)
    )
    y = view.at(0, 0.35 * hull.depth_m)[1]
    water = f'<line x1="0" x2="{width:.0f}" y1="{y:.1f}" y2="{y:.1f}" class="water"/>'
    return Markup(
        f'<svg viewBox="0 0 {width:.0f} {height:.0f}" width="{width:.0f}" height="{height:.0f}"'
        f' class="drawing" aria-hidden="true" focusable="false">{body}{water}</svg>'
    )


def _extras(hull: Hull, view: View, small: bool = False) -> str:
    """What a family carries beside its hull: mast, cabin, keel, deck, beams. All below or behind
    the outline.
    """
    kind, length, depth = OUTLINES[hull.family].extra, hull.length_m, hull.depth_m
    out = ""
    if kind == "mast":
        (x, y), (_, top) = (
            view.at(0.62 * length, 0.5 * depth),
            view.at(0, depth + (0.45 if small else 0.28) * length),
        )
        out = f'<line x1="{x:.1f}" x2="{x:.1f}" y1="{y:.1f}" y2="{top:.1f}" class="spar"/>'
    elif kind == "cabin":
        pts = [
            view.at(a * length, b * depth)
            for a, b in ((0.42, 0.9), (0.45, 1.75), (0.66, 1.75), (0.74, 1.02))
        ]
        out = '<path d="M' + "L".join(f"{x:.1f} {y:.1f}" for x, y in pts) + 'Z" class="house"/>'
    elif kind == "keel":
        pts = [
            view.at(a * length, b * depth)
            for a, b in ((0.40, 0.28), (0.44, 0.0), (0.58, 0.0), (0.62, 0.30))
        ]
        out = '<path d="M' + "L".join(f"{x:.1f} {y:.1f}" for x, y in pts) + 'Z" class="fin"/>'
        (x, y), (_, top) = view.at(0.6 * length, 0.9 * depth), view.at(0, depth + 0.3 * length)
        out += f'<line x1="{x:.1f}" x2="{x:.1f}" y1="{y:.1f}" y2="{top:.1f}" class="spar"/>'
    elif kind == "beams":
        (x, y), (x2, y2) = (
            view.at(0.22 * length, 1.16 * depth),
            view.at(0.68 * length, 0.96 * depth),
        )
        out = (
            f'<rect x="{x:.1f}" y="{y:.1f}" width="{x2 - x:.1f}" height="{y2 - y:.1f}"'
            ' class="house"/>'
        )
    elif kind == "deck":
        (x, y), (x2, y2) = view.at(0, 1.16 * depth), view.at(0.96 * length, 1.0 * depth)
        rail = view.at(0, 1.16 * depth + 0.55)[1]
        roof = view.at(0, 1.16 * depth + 1.95)[1]
        posts = "".join(
            f'<line x1="{px:.1f}" x2="{px:.1f}" y1="{roof:.1f}" y2="{y:.1f}" class="spar"/>'
            for px in (view.at(0.12 * length, 0)[0], view.at(0.62 * length, 0)[0])
        )
        left, right = view.at(0.08 * length, 0)[0], view.at(0.66 * length, 0)[0]
        out = (
            f'<rect x="{x:.1f}" y="{y:.1f}" width="{x2 - x:.1f}" height="{y2 - y:.1f}"'
            f' class="house"/><rect x="{x:.1f}" y="{rail:.1f}" width="{x2 - x:.1f}"'
            f' height="{y - rail:.1f}" class="rail"/>{posts}<line x1="{left:.1f}" x2="{right:.1f}"'
            f' y1="{roof:.1f}" y2="{roof:.1f}" class="spar"/>'
        )
    return out


def _lines(hull: Hull, view: View) -> str:
    """What is drawn on the topsides: an inflatable's tube, a kayak's cockpit, a cockpit sole's
    edge.
    """
    line, length, depth = OUTLINES[hull.family], hull.length_m, hull.depth_m
    if line.extra == "tube":
        below = [
            view.at(x * length, y * depth - min(0.5 * depth, 0.16 * hull.beam_m * 1.6))
            for x, y in line.sheer[:-1]
        ]
        tip = view.at(0.975 * length, line.sheer[-1][1] * depth - 0.28 * depth)
        cone = view.at(-0.045 * length, 0.72 * depth)
        (x0, y0), (x1, y1) = view.at(0, line.sheer[0][1] * depth), below[0]
        return (
            f'<path d="{smooth([*below, tip])}" class="topline"/><path d="M{x0:.1f}'
            f' {y0:.1f}L{cone[0]:.1f} {cone[1]:.1f}L{x1:.1f} {y1:.1f}" class="topline"/>'
        )
    if hull.family == "kayak":
        (x0, y), (x1, _) = view.at(0.34 * length, 0.77 * depth), view.at(0.58 * length, 0)
        return (
            f'<path d="M{x0:.1f} {y:.1f}q{(x1 - x0) / 2:.1f} {0.42 * depth * view.scale:.1f}'
            f' {x1 - x0:.1f} 0" class="topline"/>'
        )
    return ""


def _person(x: float, y: float, scale: float) -> str:
    """A seated person, 0.85 m from seat to crown, in scale."""
    r = 0.11 * scale
    top, w = y - 0.85 * scale, 0.19 * scale
    return (
        f'<path d="M{x - w:.1f} {y:.1f}V{y - 0.36 * scale:.1f}q0 {-0.22 * scale:.1f} {w:.1f}'
        f' {-0.22 * scale:.1f}t{w:.1f} {0.22 * scale:.1f}V{y:.1f}" class="person"/><circle'
        f' cx="{x:.1f}" cy="{top + r:.1f}" r="{r:.1f}" class="person"/>'
    )


def _motor(
    hull: Hull, view: View, shaft_m: float, diameter_m: float, drop_m: float, ahead_m: float
) -> str:
    """Head, leg, plate and propeller, hung where the mount sits; to scale below the seat."""
    seat = hull.transom_m - drop_m
    s = view.scale
    x, y = view.at(ahead_m, seat)
    plate = y + shaft_m * s
    hub = plate + 0.62 * diameter_m * s
    half, head = 0.5 * diameter_m * s, 0.20 * s
    return (
        f'<g class="motor"><rect x="{x - 0.10 * s:.1f}" y="{y - head:.1f}" width="{0.20 * s:.1f}"'
        f' height="{head:.1f}"/><line x1="{x + 0.08 * s:.1f}" y1="{y - 0.8 * head:.1f}"'
        f' x2="{x + 0.55 * s:.1f}" y2="{y - 1.0 * head:.1f}" class="tiller"/><rect'
        f' x="{x - 0.028 * s:.1f}" y="{y - 1:.1f}" width="{0.056 * s:.1f}"'
        f' height="{hub - y + 1:.1f}"/><rect x="{x - 0.13 * s:.1f}" y="{plate - 0.008 * s:.1f}"'
        f' width="{0.2 * s:.1f}" height="{max(0.016 * s, 1.2):.1f}"/><rect x="{x - 0.13 * s:.1f}"'
        f' y="{hub - 0.03 * s:.1f}" width="{0.2 * s:.1f}" height="{0.06 * s:.1f}"'
        f' rx="{0.03 * s:.1f}"/><rect x="{x - 0.15 * s:.1f}" y="{hub - half:.1f}"'
        f' width="{max(0.025 * s, 1.5):.1f}" height="{2 * half:.1f}" rx="1"/></g>'
    )


def side_view(
    hull: Hull,
    people: int,
    displacement_kg: float,
    water: Water,
    length_label: str,
    draught_label: str,
    title: str,
    width: float = 264.0,
    motor: tuple[float, float, float, float] | None = None,
    battery: tuple[float, float, float] | None = None,
    bays: tuple[Bay, ...] = (),
) -> Markup:
    """The boat at its loaded waterline; `motor` is (shaft m, propeller m, drop m, ahead m),
    `battery` (x, length, height m).
    """
    line = OUTLINES[hull.family]
    margin_left = 0.55 if motor else 0.25
    scale = (width - 12) / (hull.length_m + margin_left + 0.25)
    draught = float(float_at(hull, displacement_kg, water.density_kg_m3).draught_m)
    tall = {
        "deck": 2.75,
        "mast": 0.28 * hull.length_m + 0.9,
        "keel": 0.3 * hull.length_m + 0.9,
        "cabin": 2.2,
    }.get(line.extra, 1.5)
    top_m = max(
        hull.depth_m * 1.3 + 0.12,
        tall if line.extra in ("deck", "mast", "keel", "cabin") else 0,
        line.sole * hull.depth_m + 0.98 if people else 0,
    )
    below_m = max(0.12, (motor[0] + motor[1] * 1.2 - hull.transom_m + motor[2]) if motor else 0)
    keel_y = 6 + top_m * scale
    view = View(scale, 6 + margin_left * scale, keel_y)
    bottom = keel_y + below_m * scale
    height = bottom + 34
    parts = [_extras(hull, view)]
    for ahead in seats_m(hull, min(people, 12)):
        parts.append(_person(*view.at(ahead, line.sole * hull.depth_m), view.scale))
    water_y = view.at(0, draught)[1]
    parts.append(f'<path d="{hull_path(hull, view)}" class="hull"/>' + _lines(hull, view))
    for bay in bays:
        x, y = view.at(
            (bay.ahead_m or 0.3 * hull.length_m) - bay.length_m / 2, bay.above_m + bay.height_m
        )
        parts.append(
            f'<rect x="{x:.1f}" y="{y:.1f}" width="{bay.length_m * scale:.1f}"'
            f' height="{bay.height_m * scale:.1f}"'
            f' class="bay"><title>{Markup.escape(bay.name)}</title></rect>'
        )
    if battery:
        x, y = view.at(battery[0], line.sole * hull.depth_m * 0.6 + battery[2])
        parts.append(
            f'<rect x="{x:.1f}" y="{y:.1f}" width="{battery[1] * scale:.1f}"'
            f' height="{battery[2] * scale:.1f}" class="pack"/>'
        )
    if motor:
        parts.append(_motor(hull, view, *motor))
    stern, bow = view.at(0, 0)[0], view.at(hull.length_m, 0)[0]
    dim = bottom + 14
    parts.append(
        f'<rect x="0" y="{water_y:.1f}" width="{width:.0f}" height="{height - 26 - water_y:.1f}"'
        f' class="sea"/><line x1="0" x2="{width:.0f}" y1="{water_y:.1f}" y2="{water_y:.1f}"'
        f' class="water"/><path d="M{stern:.1f} {dim - 4:.1f}v8M{bow:.1f}'
        f' {dim - 4:.1f}v8M{stern:.1f} {dim:.1f}H{bow:.1f}" class="dim"/><text'
        f' x="{(stern + bow) / 2:.1f}" y="{dim + 15:.1f}" class="dimtext"'
        f' text-anchor="middle">{length_label}, draws {draught_label}</text>'
    )
    label = Markup.escape(title)
    return Markup(
        f'<svg viewBox="0 0 {width:.0f} {height:.0f}" class="drawing side-view" role="img"'
        f' data-scale="{scale:.4f}" data-keel-y="{keel_y:.2f}" data-water-y="{water_y:.2f}"'
        f' aria-label="{label}"><title>{label}</title>{"".join(parts)}</svg>'
    )
