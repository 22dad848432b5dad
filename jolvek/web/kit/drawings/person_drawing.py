"""A person seated in a boat, from the side, to scale: on a thwart, or low with the legs ahead."""

from __future__ import annotations

from math import hypot

from jolvek.web.kit.drawings.svg import Point, circle, path, poly, tag

CROWN_M = 0.88  # over the seat
LOW_M = 0.25  # a seat lower than this over the keel has the legs ahead on the floor
FLOOR_M = 0.05  # of the hull under the feet
LIMB_M, TRUNK_M, ARM_M, HEAD_M = 0.15, 0.23, 0.085, 0.115  # widths, and the head's radius
EDGE_PX = 1.4
REACH_M = 0.62  # from shoulder to hand
ARM_SEEN = 50.0  # px per m from which arms are drawn


def seated(
    x: float, y: float, seat_m: float, scale: float, holds_m: tuple[float, float] | None = None
) -> str:
    """A person whose seat is at (x, y) px, `seat_m` over the keel, facing the bow; the hand on the
    knee, or on what it holds (m ahead of the seat, above it) where that is in reach.
    """

    def at(ahead: float, above: float) -> Point:
        return x + ahead * scale, y - above * scale

    down = max(min(0.40, seat_m - FLOOR_M - LIMB_M / 2), 0.0)
    low = seat_m < LOW_M
    sole = max(0.04, LIMB_M / 2 + FLOOR_M - seat_m)
    knee, foot = ((0.42, 0.20), (0.82, sole)) if low else ((0.43, 0.06), (0.47, -down))
    hip, shoulder = at(0.0, 0.08), at(-0.04, 0.48)
    limbs = (([at(*foot), at(*knee), hip], LIMB_M), ([hip, shoulder], TRUNK_M))
    hand = (0.34, 0.30) if low else (0.34, 0.16)
    if holds_m and hypot(holds_m[0] + 0.03, holds_m[1] - 0.45) < REACH_M:
        hand = holds_m
    elbow = (hand[0] / 2 - 0.06, min(hand[1] / 2 + 0.16, 0.30))
    arms = (([at(-0.03, 0.45), at(*elbow), at(*hand)], ARM_M),) if scale > ARM_SEEN else ()
    head = circle(*at(-0.01, CROWN_M - HEAD_M), HEAD_M * scale, "person")
    return head + _bodied(limbs, scale) + _bodied(arms, scale)


def _bodied(limbs: tuple[tuple[list[Point], float], ...], scale: float) -> str:
    """Thick lines that run into each other with one edge round all of them."""
    out = ""
    for cls, more in (("limb-edge", 2 * EDGE_PX), ("limb", 0.0)):
        out += "".join(
            tag("path", d=poly(points), cls=cls, stroke_width=width * scale + more)
            for points, width in limbs
        )
    return out


def from_above(x: float, y: float, scale: float) -> str:
    """The same from above, facing right: shoulders, head, knees."""
    knees = "".join(
        path(poly([(x, y + side * 0.08 * scale), (x + 0.34 * scale, y + side * 0.1 * scale)]), cls)
        for cls in ("knees-edge", "knees")
        for side in (-1, 1)
    )
    across = tag(
        "ellipse",
        cx=x,
        cy=y,
        rx=0.13 * scale,
        ry=0.23 * scale,
        cls="person",
    )
    return tag("g", knees + across + circle(x, y, 0.09 * scale, "person"), cls="seen-above")
