"""The boat's side view to scale at its loaded waterline: hull, people, batteries, motor."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from jolvek.core.enquiry.site import Bay
from jolvek.core.fit.trim import seat_above_keel_m
from jolvek.core.hydro.families import FAMILIES
from jolvek.core.hydro.floating import draws_m, float_at
from jolvek.core.hydro.hull import Hull
from jolvek.core.hydro.water import Water
from jolvek.web.kit.drawings.outboard_drawing import grip_m, outboard
from jolvek.web.kit.drawings.outlines import MOST_SEEN, OUTLINES, View, hull_path, smooth
from jolvek.web.kit.drawings.person_drawing import CROWN_M, seated
from jolvek.web.kit.drawings.svg import line, path, picture, poly, rect, tag, text
from jolvek.web.kit.language import tr

ROOM_PX = 84.0  # for a dimension's words beside the boat


@dataclass(frozen=True)
class HungMotor:
    """What the side view needs of a motor: shaft, propeller, its seat above the hull's bottom, its
    place ahead of the transom, all in m; whether it is fixed under the hull.
    """

    shaft_m: float
    diameter_m: float
    seat_m: float
    ahead_m: float
    fixed: bool = False
    pole: bool = False


@dataclass(frozen=True)
class Labels:
    """Sizes in words: length, draught, and the transom's height where it is to stand beside it."""

    length: str
    draught: str
    transom: str = ""


@dataclass(frozen=True)
class Aboard:
    """What is drawn in the boat: people, m ahead of the stern, the helm first; batteries by their
    middle, m ahead of the stern and above the keel; a pack's length and height in m; motor, bays.
    """

    people: tuple[float, ...] = ()
    motor: HungMotor | None = None
    batteries: tuple[tuple[float, float], ...] = ()
    pack_m: tuple[float, float] = (0.3, 0.2)
    bays: tuple[Bay, ...] = ()


def silhouette(family_id: str, width: float = 84.0, height: float = 34.0) -> Markup:
    """A small unlabelled outline of a family, for choosing."""
    fam = FAMILIES[family_id]
    hull = Hull(family_id, fam.typical_length_m, fam.typical_beam_m, fam.typical_mass_kg)
    scale = (width - 8) / hull.length_m
    view = View(scale, 4, height - 8)
    y = view.at(0, 0.35 * hull.depth_m)[1]
    body = extras(hull, view, small=True) + path(hull_path(hull, view), "hull")
    body += topline(hull, view) + line(0, y, width, y, "water")
    size = {"width": f"{width:.0f}", "height": f"{height:.0f}"}
    box = f"0 0 {width:.0f} {height:.0f}"
    more = {"aria_hidden": "true", "focusable": "false"}
    return Markup(tag("svg", body, viewBox=box, **size, cls="drawing", **more))


def extras(hull: Hull, view: View, small: bool = False) -> str:
    """What a family carries beside its hull, all below or behind the outline."""
    kind, depth = OUTLINES[hull.family].extra, hull.depth_m
    if kind == "mast":
        return _spar(hull, view, 0.62, 0.5, depth + (0.45 if small else 0.28) * hull.length_m)
    if kind == "cabin":
        house = ((0.42, 0.9), (0.45, 1.75), (0.66, 1.75), (0.74, 1.02))
        return path(_shares(hull, view, house), "house")
    if kind == "keel":
        return _spar(hull, view, 0.6, 0.9, depth + 0.3 * hull.length_m)
    if kind == "beams":
        (x, y) = view.at(0.22 * hull.length_m, 1.16 * depth)
        (x2, y2) = view.at(0.68 * hull.length_m, 0.96 * depth)
        return rect(x, y, x2 - x, y2 - y, "house")
    return deck(hull, view) if kind == "deck" else ""


def _shares(hull: Hull, view: View, points: tuple[tuple[float, float], ...]) -> str:
    return poly((view.at(a * hull.length_m, b * hull.depth_m) for a, b in points), close=True)


def _spar(hull: Hull, view: View, ahead: float, foot: float, top_m: float) -> str:
    (x, y), (_, top) = view.at(ahead * hull.length_m, foot * hull.depth_m), view.at(0, top_m)
    return line(x, y, x, top, "spar")


def deck(hull: Hull, view: View) -> str:
    """A pontoon's deck, rail and roof on its posts."""
    length, depth = hull.length_m, hull.depth_m
    (x, y), (x2, y2) = view.at(0, 1.16 * depth), view.at(0.96 * length, 1.0 * depth)
    rail, roof = view.at(0, 1.16 * depth + 0.55)[1], view.at(0, 1.16 * depth + 1.95)[1]
    posts = (view.at(share * length, 0)[0] for share in (0.12, 0.62))
    left, right = view.at(0.08 * length, 0)[0], view.at(0.66 * length, 0)[0]
    return (
        rect(x, y, x2 - x, y2 - y, "house")
        + rect(x, rail, x2 - x, y - rail, "rail")
        + "".join(line(px, roof, px, y, "spar") for px in posts)
        + line(left, roof, right, roof, "spar")
    )


def topline(hull: Hull, view: View) -> str:
    """What is drawn on the topsides: an inflatable's tube, a kayak's cockpit."""
    outline, length, depth = OUTLINES[hull.family], hull.length_m, hull.depth_m
    if outline.extra == "tube":
        thick = min(0.5 * depth, 0.16 * hull.beam_m * 1.6)
        below = [view.at(x * length, y * depth - thick) for x, y in outline.sheer[:-1]]
        tip = view.at(0.975 * length, outline.sheer[-1][1] * depth - 0.28 * depth)
        cone = [view.at(0, outline.sheer[0][1] * depth), view.at(-0.045 * length, 0.72 * depth)]
        return path(smooth([*below, tip]), "topline") + path(poly([*cone, below[0]]), "topline")
    if hull.family == "kayak":
        (x0, y), (x1, _) = view.at(0.34 * length, 0.77 * depth), view.at(0.58 * length, 0)
        sag = 0.42 * depth * view.scale
        bow = f"M{x0:.1f} {y:.1f}q{(x1 - x0) / 2:.1f} {sag:.1f} {x1 - x0:.1f} 0"
        return path(bow, "topline")
    return ""


def _motor(view: View, m: HungMotor) -> str:
    """Hung where the mount sits, or fixed under the hull; to scale."""
    if m.fixed:
        return _fixed(view, m)
    return outboard(*view.at(m.ahead_m, m.seat_m), m.shaft_m, m.diameter_m, view.scale, m.pole)


def _fixed(view: View, m: HungMotor) -> str:
    """A strut below the hull with the motor in its body and the propeller behind."""
    s, (x, y) = view.scale, view.at(m.ahead_m, 0)
    hub, half, long = y + m.shaft_m * s, 0.5 * m.diameter_m * s, 1.1 * m.diameter_m * s
    parts = (
        rect(x - 0.2 * long, y, 0.4 * long, hub - y),
        rect(x - 0.5 * long, hub - 0.15 * long, long, 0.3 * long, rx=0.15 * long),
        rect(x - 0.5 * long - 1.5, hub - half, 1.5, 2 * half, rx=1),
    )
    return tag("g", "".join(parts), cls="motor")


def tall_m(hull: Hull) -> float:
    """How far what a family carries beside its hull reaches above the keel, in m."""
    return {
        "deck": 2.75,
        "mast": 0.28 * hull.length_m + 0.9,
        "keel": 0.3 * hull.length_m + 0.9,
        "cabin": 2.2,
    }.get(OUTLINES[hull.family].extra, 0.0)


def _top_m(hull: Hull, people: bool) -> float:
    """How far the drawing goes above the keel, in m."""
    seated = seat_above_keel_m(hull) + CROWN_M + 0.05 if people else 0.0
    return max(hull.depth_m * 1.3 + 0.12, tall_m(hull), seated)


def _inside(hull: Hull, view: View, aboard: Aboard) -> list[str]:
    """Bays, battery and motor."""
    parts = []
    for bay in aboard.bays:
        middle = 0.3 * hull.length_m if bay.ahead_m is None else bay.ahead_m
        ahead = middle - bay.length_m / 2
        x, y = view.at(ahead, bay.above_m + bay.height_m)
        size = (bay.length_m * view.scale, bay.height_m * view.scale)
        parts.append(rect(x, y, *size, "bay", title=bay.name))
    for ahead, above in aboard.batteries:
        length, height = aboard.pack_m
        x, y = view.at(ahead - length / 2, above + height / 2)
        parts.append(rect(x, y, length * view.scale, height * view.scale, "pack"))
    if aboard.motor:
        parts.append(_motor(view, aboard.motor))
    return parts


def _people(hull: Hull, view: View, aboard: Aboard) -> str:
    """Each on a seat of the boat, the helm's arm at the tiller where there is one."""
    seat, m, out = seat_above_keel_m(hull), aboard.motor, ""
    for i, ahead in enumerate(aboard.people[:MOST_SEEN]):
        held = None
        if m and not m.fixed and i == 0:
            grip = grip_m(m.pole)
            held = (m.ahead_m + grip[0] - ahead, m.seat_m + grip[1] - seat)
        out += seated(*view.at(ahead, seat), seat, view.scale, held)
    return out


def keel_below(hull: Hull, view: View, below_m: float) -> str:
    """A fin keel under the middle of the hull."""
    if below_m <= 0:
        return ""
    fin = ((0.56, 0.1), (0.53, -below_m), (0.43, -below_m), (0.41, 0.1))
    corners = (view.at(share * hull.length_m, z) for share, z in fin)
    return path(poly(corners, close=True), "fin")


def _margins_m(
    hull: Hull, labels: Labels, motor: HungMotor | None, width: float
) -> tuple[float, float]:
    """Room in m behind the stern and ahead of the bow: for the motor, or for dimensions."""
    if labels.transom:
        room = ROOM_PX * hull.length_m / (width - 12 - 2 * ROOM_PX)
        return room, room
    return 0.55 if motor else 0.25, 0.25


def _length(hull: Hull, view: View, y: float, labels: Labels) -> list[str]:
    """The length below the boat, with the draught where that has no dimension of its own."""
    stern, bow = view.at(0, 0)[0], view.at(hull.length_m, 0)[0]
    ends = f"M{stern:.1f} {y - 4:.1f}v8M{bow:.1f} {y - 4:.1f}v8"
    message = tr("%(labels)s, draws %(labels2)s", labels=labels.length, labels2=labels.draught)
    words = labels.length if labels.transom else message
    return [
        path(f"{ends}M{stern:.1f} {y:.1f}H{bow:.1f}", "dim"),
        text((stern + bow) / 2, y + 15, words, "dimtext", "middle"),
    ]


def _heights(hull: Hull, view: View, draught_m: float, labels: Labels) -> list[str]:
    """The transom's height behind the stern and the draught ahead of the bow."""
    (stern, keel), (bow, water) = view.at(0, 0), view.at(hull.length_m, draught_m)
    top = view.at(0, hull.transom_m)[1]
    x, ahead, beside = stern - 12, bow + 14, 13.0
    return [
        path(f"M{x - 4:.1f} {top:.1f}h8m-4 0V{keel:.1f}m-4 0h8", "dim"),
        text(x - 8, top + 4, tr("transom"), "dimtext", "end"),
        text(x - 8, top + 4 + beside, labels.transom, "dimtext", "end"),
        path(f"M{ahead - 4:.1f} {water:.1f}h8m-4 0V{keel:.1f}m-4 0h8", "dim"),
        text(ahead - 8, keel + beside, tr("draws"), "dimtext"),
        text(ahead - 8, keel + 2 * beside, labels.draught, "dimtext"),
    ]


def side_view(
    hull: Hull,
    displacement_kg: float,
    water: Water,
    labels: Labels,
    title: str,
    aboard: Aboard,
    width: float = 264.0,
) -> Markup:
    """The boat at its loaded waterline, with its length and draught; with the transom's height as
    dimensions of their own.
    """
    m = aboard.motor
    margin, ahead = _margins_m(hull, labels, m, width)
    scale = (width - 12) / (hull.length_m + margin + ahead)
    floats = float_at(hull, displacement_kg, water.density_kg_m3)
    draught = float(floats.draught_m)
    keel_m = float(draws_m(hull, floats)) - draught
    keel_y = 6 + _top_m(hull, bool(aboard.people)) * scale
    view = View(scale, 6 + margin * scale, keel_y)
    below = m.shaft_m + m.diameter_m * 1.2 if m else 0.0
    below -= m.seat_m if m and not m.fixed else 0.0
    bottom = keel_y + max(0.12, below, keel_m + 0.1 if keel_m else 0.0) * scale
    height, water_y = bottom + 34, view.at(0, draught)[1]
    parts = [
        extras(hull, view),
        _people(hull, view, aboard),
        keel_below(hull, view, keel_m),
        path(hull_path(hull, view), "hull") + topline(hull, view),
        *_inside(hull, view, aboard),
        rect(0, water_y, width, height - 26 - water_y, "sea"),
        line(0, water_y, width, water_y, "water"),
        *_length(hull, view, bottom + 14, labels),
        *(_heights(hull, view, draught, labels) if labels.transom else ()),
    ]
    at = {"data_keel_y": f"{keel_y:.2f}", "data_water_y": f"{water_y:.2f}"}
    kind = "drawing side-view"
    return picture(width, height, kind, title, parts, data_scale=f"{scale:.4f}", **at)
