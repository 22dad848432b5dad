"""Outlines of the boat families from the side: Jolvek's own, in shares of length (stern 0, bow 1)
and of depth (keel 0, sheer 1); and how they are laid on the sheet.
"""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.hydro.hull import Hull
from jolvek.web.kit.drawings.svg import Point

MOST_SEEN = 12  # people drawn in a boat


@dataclass(frozen=True)
class Outline:
    """Keel from stern to bow, sheer from stern to bow; both as (share of length, share of
    depth).
    """

    keel: tuple[Point, ...]
    sheer: tuple[Point, ...]
    extra: str = ""


OUTLINES: dict[str, Outline] = {
    "kayak": Outline(
        ((0, 0.62), (0.06, 0.14), (0.25, 0), (0.7, 0), (0.92, 0.12), (1, 0.7)),
        ((0, 0.92), (0.25, 0.78), (0.5, 0.76), (0.8, 0.86), (1, 1.12)),
    ),
    "canoe": Outline(
        ((0, 0.7), (0.05, 0.1), (0.25, 0), (0.75, 0), (0.95, 0.1), (1, 0.7)),
        ((0, 1.28), (0.15, 0.95), (0.5, 0.85), (0.85, 0.95), (1, 1.3)),
    ),
    "board": Outline(
        ((0, 0.35), (0.05, 0.05), (0.5, 0), (0.85, 0.1), (1, 1.1)),
        ((0, 0.9), (0.5, 0.9), (0.85, 1), (1, 1.5)),
    ),
    "sailing_dinghy": Outline(
        ((0, 0.2), (0.25, 0.04), (0.5, 0), (0.8, 0.12), (0.97, 0.6)),
        ((0, 0.86), (0.5, 0.82), (0.8, 0.95), (1, 1.15)),
        "mast",
    ),
    "rigid_dinghy": Outline(
        ((0, 0.03), (0.4, 0), (0.72, 0.06), (0.92, 0.4), (0.98, 0.75)),
        ((0, 0.88), (0.5, 0.86), (0.8, 0.96), (1, 1.18)),
    ),
    "inflatable_soft": Outline(
        ((0.03, 0.12), (0.4, 0.06), (0.74, 0.1), (0.93, 0.5), (0.985, 0.8)),
        ((0, 0.98), (0.6, 0.98), (0.85, 1.1), (1, 1.32)),
        "tube",
    ),
    "inflatable_air": Outline(
        ((0.03, 0.08), (0.4, 0.02), (0.74, 0.06), (0.93, 0.45), (0.985, 0.8)),
        ((0, 0.98), (0.6, 0.98), (0.85, 1.12), (1, 1.36)),
        "tube",
    ),
    "rib": Outline(
        ((0.04, 0.02), (0.45, 0), (0.74, 0.08), (0.92, 0.45), (0.985, 0.85)),
        ((0, 0.98), (0.6, 0.98), (0.85, 1.1), (1, 1.32)),
        "tube",
    ),
    "flat_bottom": Outline(
        ((0, 0.03), (0.3, 0), (0.7, 0), (0.9, 0.3), (0.97, 0.75)),
        ((0, 0.9), (0.5, 0.86), (0.8, 0.92), (1, 1.02)),
    ),
    "skiff": Outline(
        ((0, 0.03), (0.3, 0), (0.72, 0.03), (0.93, 0.4), (0.99, 0.8)),
        ((0, 0.86), (0.5, 0.82), (0.8, 0.92), (1, 1.08)),
    ),
    "cabin": Outline(
        ((0, 0.28), (0.2, 0.08), (0.5, 0), (0.8, 0.06), (0.95, 0.45), (0.98, 0.8)),
        ((0, 0.95), (0.45, 0.9), (0.75, 1), (1, 1.3)),
        "cabin",
    ),
    "keelboat": Outline(
        ((0, 0.62), (0.12, 0.2), (0.45, 0.0), (0.75, 0.11), (0.93, 0.6)),
        ((0, 0.98), (0.5, 0.94), (0.8, 1), (1, 1.12)),
        "keel",
    ),
    "multihull": Outline(
        ((0, 0.4), (0.1, 0.12), (0.4, 0), (0.8, 0.05), (0.98, 0.4)),
        ((0, 0.95), (0.5, 0.92), (0.8, 0.96), (1, 1.05)),
        "beams",
    ),
    "pontoon": Outline(
        ((0, 0.12), (0.06, 0), (0.88, 0), (0.96, 0.3), (0.995, 0.72)),
        ((0, 0.98), (0.3, 1), (0.85, 1), (0.985, 0.96)),
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
