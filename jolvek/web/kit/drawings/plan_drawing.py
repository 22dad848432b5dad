"""The boat seen from above to scale: outline, bays, seats and motor, as SVG."""

from __future__ import annotations

from collections.abc import Sequence
from itertools import pairwise
from math import cos, radians, sin

from markupsafe import Markup

from jolvek.core.enquiry.site import Bay
from jolvek.core.fit.leg import LIFTED_CHORDS, RUDDER_MOST_DEG
from jolvek.core.hydro.hull import Hull
from jolvek.web.kit.drawings.outlines import MOST_SEEN, View, smooth
from jolvek.web.kit.drawings.person_drawing import from_above
from jolvek.web.kit.drawings.scale_bar import scale_bar
from jolvek.web.kit.drawings.svg import line, path, picture, rect, tag

# half outlines as (share of length, share of half beam)
_FULL = ((0.0, 0.86), (0.25, 0.97), (0.5, 1.0), (0.75, 0.86), (0.92, 0.45), (1.0, 0.03))
_SHARP = (
    *((0.0, 0.04), (0.15, 0.45), (0.4, 0.95), (0.55, 1.0)),
    *((0.75, 0.8), (0.92, 0.35), (1.0, 0.02)),
)
_SQUARE = ((0.0, 0.96), (0.3, 1.0), (0.8, 1.0), (0.97, 0.9), (1.0, 0.6))
_OUTLINE = {
    "kayak": _SHARP,
    "canoe": _SHARP,
    "board": _SHARP,
    "pontoon": _SQUARE,
    "flat_bottom": _SQUARE,
}

SEAT_LENGTH_M = 0.6  # of the boat that one takes


def _outline(hull: Hull, view: View) -> str:
    """The closed outline, starboard (down) first."""
    shares = _OUTLINE.get(hull.family, _FULL)
    starboard, port = (
        [view.at(x * hull.length_m, side * y * 0.5 * hull.beam_m) for x, y in shares]
        for side in (1, -1)
    )
    return smooth(starboard) + smooth(port[::-1], "L") + "Z"


def _box(
    view: View, ahead_m: float, off_m: float, size_m: tuple[float, float], cls: str, title: str
) -> str:
    """A box by its middle: ahead of the stern, to starboard, length and width, all in m."""
    x, y = view.at(ahead_m - size_m[0] / 2, size_m[1] / 2 - off_m)
    return rect(x, y, size_m[0] * view.scale, size_m[1] * view.scale, cls, title=title)


def _rudder(view: View, chord_m: float, lifts: bool) -> list[str]:
    """The blade hung at the stern with its sweep to both sides, and dashed how far it reaches
    lifted.
    """
    if not chord_m:
        return []
    out = []
    reaches = [(chord_m, "rudder-sweep")]
    reaches += [(LIFTED_CHORDS * chord_m, "rudder-sweep lifted")] if lifts else []
    for reach, cls in reaches:
        a, b = (view.at(*_aft(reach, side * RUDDER_MOST_DEG)) for side in (-1, 1))
        r, (x, y) = reach * view.scale, view.at(0.0, 0.0)
        arc = f"M{x:.1f} {y:.1f}L{a[0]:.1f} {a[1]:.1f}A{r:.1f} {r:.1f} 0 0 0 {b[0]:.1f} {b[1]:.1f}Z"
        out.append(path(arc, cls))
    return [*out, line(*view.at(0.0, 0.0), *view.at(-chord_m, 0.0), "rudder")]


def _aft(reach_m: float, deg: float) -> tuple[float, float]:
    return -reach_m * cos(radians(deg)), reach_m * sin(radians(deg))


def _apart(people: Sequence[float], beam_m: float) -> list[tuple[float, float]]:
    """People with how far off the centre line each is drawn: where two would sit in each other's
    place they sit on both sides.
    """
    off = 0.28 * beam_m
    rows = sorted(people)
    crowded = any(b - a < SEAT_LENGTH_M for a, b in pairwise(rows))
    return [(x, (off if i % 2 else -off) if crowded else 0.0) for i, x in enumerate(rows)]


def plan_view(
    hull: Hull,
    people: Sequence[float],
    bays: tuple[Bay, ...],
    title: str,
    width: float = 520.0,
    motor: tuple[float, float] | None = None,
    packs: tuple[tuple[str, float, float, float, float], ...] = (),
    rudder: tuple[float, bool] = (0.0, False),
) -> Markup:
    """The plan; people are m ahead of the stern, `motor` is (ahead, to starboard) in m, `packs`
    (name, ahead, to starboard, length, width) in m, `rudder` (chord in m, whether its blade swings
    up). Starboard is down.
    """
    aft = max(0.25, rudder[0] * (LIFTED_CHORDS if rudder[1] else 1.0) + 0.05)
    scale = (width - 24) / (hull.length_m + 0.15 + aft)
    half = 0.5 * hull.beam_m * scale
    view = View(scale, 12 + aft * scale, half + 12)
    (x0, y0), (x1, _) = view.at(0, 0), view.at(hull.length_m, 0)
    parts = [path(_outline(hull, view), "hull"), line(x0, y0, x1, y0, "centre")]
    for bay in bays:
        ahead = 0.3 * hull.length_m if bay.ahead_m is None else bay.ahead_m
        size = (bay.length_m, bay.width_m)
        parts.append(_box(view, ahead, bay.off_m, size, "bay", bay.name))
    for ahead, off in _apart(people[:MOST_SEEN], hull.beam_m):
        parts.append(from_above(*view.at(ahead, off), scale))
    for name, ahead, off, length, wide in packs:
        parts.append(_box(view, ahead, off, (length, wide), "pack", name))
    parts += _rudder(view, *rudder)
    if motor:
        x, y = view.at(motor[0], -motor[1])
        head = rect(x - 0.12 * scale, y - 0.08 * scale, 0.2 * scale, 0.16 * scale, rx=3)
        parts.append(tag("g", head, cls="motor"))
    kind = "drawing plan-view"
    parts.append(scale_bar(width - 8, 2 * half + 30, scale))
    return picture(width, 2 * half + 52, kind, title, parts, data_scale=f"{scale:.4f}")
