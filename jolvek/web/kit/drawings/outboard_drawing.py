"""An outboard motor from the side, to scale: head, clamp, shaft, plate, gear case, propeller."""

from __future__ import annotations

from jolvek.core.fit.hanging import BEHIND_M
from jolvek.core.fit.leg import HEAD_M, SKEG_M
from jolvek.core.products.mounting import HUB_BELOW_PLATE
from jolvek.web.kit.drawings.svg import circle, path, rect, tag

BOARD_M = 0.035  # a transom's thickness
POLE_HEAD_M = 0.10  # height of a pole motor's head
TILLER_M = (0.56, 0.05)  # its end ahead of where it begins, and how much it rises to there
HEAD_TILLER_M, POLE_TILLER_M = (0.10, 0.15), (0.08, 0.21)  # where it begins: ahead, above the seat
HELD = 0.85  # of the tiller, where the hand is


def outboard(
    x: float, seat_y: float, shaft_m: float, d: float, s: float, pole: bool = False
) -> str:
    """Drawn in px at `s` px per m: shaft's middle `x`, seat (the transom's top) `seat_y`; shaft
    and diameter in m. A pole motor has a small head and a thin pole.
    """
    plate, hub = seat_y + shaft_m * s, seat_y + (shaft_m + HUB_BELOW_PLATE * d) * s
    half = d / 2 * s
    upper = _pole_head(x, seat_y, s) if pole else _head(x, seat_y, s)
    parts = (
        upper,
        _clamp(x, seat_y, s),
        _shaft(x, seat_y, hub, s, 0.025 if pole else 0.055),
        "" if pole else _plate(x, plate, s),
        _gear_case(x, hub, s),
        _propeller(x - 0.14 * s, hub, half, s),
        _skeg(x, hub, half + SKEG_M * s, s),
    )
    return tag("g", "".join(parts), cls="motor")


def grip_m(pole: bool) -> tuple[float, float]:
    """Where the hand is on the tiller: m ahead of the shaft, m above the seat."""
    ahead, up = POLE_TILLER_M if pole else HEAD_TILLER_M
    return ahead + HELD * TILLER_M[0], up + HELD * TILLER_M[1]


def _head(x: float, y: float, s: float) -> str:
    """The cowl with its rounded back, the seam under it, the tiller ahead."""
    top, seam = y - HEAD_M * s, y - 0.13 * s
    cowl = (
        f"M{x - 0.11 * s:.1f} {seam:.1f}C{x - 0.15 * s:.1f} {top + 0.06 * s:.1f}"
        f" {x - 0.11 * s:.1f} {top:.1f} {x - 0.03 * s:.1f} {top:.1f}"
        f"C{x + 0.08 * s:.1f} {top:.1f} {x + 0.13 * s:.1f} {top + 0.05 * s:.1f}"
        f" {x + 0.12 * s:.1f} {seam:.1f}Z"
    )
    below = (
        f"M{x - 0.10 * s:.1f} {seam + 0.012 * s:.1f}H{x + 0.12 * s:.1f}"
        f"L{x + 0.07 * s:.1f} {y - 0.02 * s:.1f}H{x - 0.06 * s:.1f}Z"
    )
    return path(cowl, "cowl") + path(below) + _tiller(x, y, HEAD_TILLER_M, s)


def _pole_head(x: float, y: float, s: float) -> str:
    """A pole motor's small head with its tiller."""
    top = y - 0.26 * s
    box = rect(x - 0.07 * s, top, 0.16 * s, POLE_HEAD_M * s, rx=0.04 * s)
    pole = rect(x - 0.0125 * s, top + 0.08 * s, 0.025 * s, 0.2 * s)
    return box + pole + _tiller(x, y, POLE_TILLER_M, s)


def _tiller(x: float, y: float, begins_m: tuple[float, float], s: float) -> str:
    x, y, ahead, up = x + begins_m[0] * s, y - begins_m[1] * s, TILLER_M[0] * s, TILLER_M[1] * s
    arm = path(f"M{x:.1f} {y:.1f}l{ahead:.1f} {-up:.1f}", "tiller")
    grip = f"M{x + 0.7 * ahead:.1f} {y - 0.7 * up:.1f}l{0.3 * ahead:.1f} {-0.3 * up:.1f}"
    return arm + path(grip, "grip")


def _clamp(x: float, y: float, s: float) -> str:
    """Over the transom's top, down its inner face, with the screw."""
    a, b = x + BEHIND_M * s, x + (BEHIND_M + BOARD_M) * s
    hook = (
        f"M{a - 0.03 * s:.1f} {y - 0.05 * s:.1f}H{b + 0.025 * s:.1f}V{y + 0.09 * s:.1f}"
        f"h{-0.025 * s:.1f}V{y - 0.012 * s:.1f}H{a:.1f}V{y + 0.16 * s:.1f}h{-0.03 * s:.1f}Z"
    )
    screw = f"M{b:.1f} {y + 0.065 * s:.1f}h{0.06 * s:.1f}m0 {-0.03 * s:.1f}v{0.06 * s:.1f}"
    return path(hook, "clamp") + path(screw, "screw")


def _shaft(x: float, top: float, hub: float, s: float, wide_m: float) -> str:
    return rect(x - wide_m / 2 * s, top - 1, wide_m * s, hub - top + 1, "shaft")


def _plate(x: float, y: float, s: float) -> str:
    """The plate above the propeller, thinner aft."""
    thick = max(0.016 * s, 1.4)
    return path(
        f"M{x - 0.22 * s:.1f} {y - 0.4 * thick:.1f}L{x + 0.06 * s:.1f} {y - thick / 2:.1f}"
        f"q{0.03 * s:.1f} {thick / 2:.1f} 0 {thick:.1f}L{x - 0.22 * s:.1f} {y + 0.4 * thick:.1f}Z",
        "plate",
    )


def _gear_case(x: float, hub: float, s: float) -> str:
    """A bullet with its nose ahead."""
    r, nose = 0.038 * s, x + 0.13 * s
    return path(
        f"M{x - 0.12 * s:.1f} {hub - 0.8 * r:.1f}L{x - 0.02 * s:.1f} {hub - r:.1f}"
        f"H{x + 0.05 * s:.1f}C{nose:.1f} {hub - r:.1f} {nose:.1f} {hub + r:.1f}"
        f" {x + 0.05 * s:.1f} {hub + r:.1f}H{x - 0.02 * s:.1f}"
        f"L{x - 0.12 * s:.1f} {hub + 0.8 * r:.1f}Z"
    )


def _propeller(x: float, hub: float, half: float, s: float) -> str:
    """Two blades edge on, the hub's cone, and the disc that they sweep."""
    wide = max(0.05 * s, 3.0)
    blades = "".join(
        path(
            f"M{x + 0.02 * s:.1f} {hub:.1f}C{x + side * wide:.1f} {hub - side * 0.3 * half:.1f}"
            f" {x + side * 0.7 * wide:.1f} {hub - side * 0.9 * half:.1f} {x:.1f}"
            f" {hub - side * half:.1f}C{x - side * 0.3 * wide:.1f} {hub - side * 0.8 * half:.1f}"
            f" {x - side * 0.1 * wide:.1f} {hub - side * 0.3 * half:.1f} {x - 0.02 * s:.1f}"
            f" {hub:.1f}Z"
        )
        for side in (1, -1)
    )
    cone = path(
        f"M{x + 0.03 * s:.1f} {hub - 0.026 * s:.1f}q{-0.07 * s:.1f} {0.004 * s:.1f}"
        f" {-0.08 * s:.1f} {0.026 * s:.1f}q{0.01 * s:.1f} {0.022 * s:.1f} {0.08 * s:.1f}"
        f" {0.026 * s:.1f}Z"
    )
    return rect(x - 2, hub - half, 4, 2 * half, "disc", rx=2) + blades + cone


def _skeg(x: float, hub: float, deep: float, s: float) -> str:
    return path(
        f"M{x - 0.05 * s:.1f} {hub + 0.02 * s:.1f}L{x - 0.07 * s:.1f} {hub + deep:.1f}"
        f"h{0.03 * s:.1f}L{x + 0.07 * s:.1f} {hub + 0.02 * s:.1f}Z"
    )


def astern(x: float, seat_y: float, hub_y: float, d: float, s: float, head: bool = True) -> str:
    """The same from astern: head, shaft, gear case, blades."""
    cowl = (
        f"M{x - 0.09 * s:.1f} {seat_y - 0.04 * s:.1f}L{x - 0.12 * s:.1f} {seat_y - 0.13 * s:.1f}"
        f"Q{x - 0.12 * s:.1f} {seat_y - HEAD_M * s:.1f} {x:.1f} {seat_y - HEAD_M * s:.1f}"
        f"Q{x + 0.12 * s:.1f} {seat_y - HEAD_M * s:.1f} {x + 0.12 * s:.1f} {seat_y - 0.13 * s:.1f}"
        f"L{x + 0.09 * s:.1f} {seat_y - 0.04 * s:.1f}Z"
    )
    r = d / 2 * s
    blades = "".join(
        tag(
            "ellipse",
            cx=x,
            cy=hub_y - 0.52 * r,
            rx=0.24 * r,
            ry=0.44 * r,
            transform=f"rotate({turn} {x:.1f} {hub_y:.1f})",
        )
        for turn in (0, 120, 240)
    )
    parts = (
        path(cowl, "cowl") if head else "",
        rect(x - 0.022 * s, seat_y - 0.04 * s, 0.044 * s, hub_y - seat_y + 0.04 * s),
        blades,
        circle(x, hub_y, 0.042 * s),
    )
    return tag("g", "".join(parts), cls="motor")
