"""Pictures of the shop's figures: the promise kept by family, boats without a fault by hours."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup

from jolvek.core.care.faults import FirstFault
from jolvek.web.kit.drawings import axes
from jolvek.web.kit.drawings.svg import circle, line, path, poly, rect, tag, text
from jolvek.web.kit.language import tr

WIDTH, ROW, TOP, BOTTOM = 420, 30, 24, 30
DASHES = (None, "7 4", "2 3", "9 3 2 3")


@dataclass(frozen=True)
class Spread:
    """One family: points, and the quarter, the middle and three quarters of what they differ by."""

    name: str
    points: int
    low: float
    middle: float
    high: float


def promise_chart(rows: Sequence[Spread]) -> Markup:
    """A bar a family over the middle half of its points; the upright line is the promise."""
    most = 110 * max(0.1, *(max(abs(r.low), abs(r.high)) for r in rows))
    height = TOP + ROW * len(rows) + BOTTOM
    f = axes.Frame(150, WIDTH - 20, height - BOTTOM, TOP - 6, most, 1.0, x_min=-most)
    step = axes.nice_step(most, 3)
    marks = [i * step for i in range(-int(most / step), int(most / step) + 1) if i]
    middle = line(f.x(0), f.y1, f.x(0), f.y0, "grid")
    out = [
        axes.below(f, [(percent, f"{percent:+g} %") for percent in marks]),
        axes.below(f, [(0.0, tr("as promised"))], lines=False),
        tag("g", middle, stroke=axes.INK),
    ]
    for i, r in enumerate(rows):
        y = TOP + ROW * i + ROW / 2
        low, high = f.x(100 * r.low), f.x(100 * r.high)
        bar = rect(low, y - 6, max(high - low, 2), 12, "spread")
        out += [
            text(f.x0 - 8, y + 4, f"{r.name} ({r.points})", "tick", "end"),
            tag("g", bar, fill=axes.SAND, stroke=axes.INK),
            circle(f.x(100 * r.middle), y, 4.5, "point"),
        ]
    message = tr("Speed measured against the promise by family; the table has every figure")
    return axes.small(WIDTH, height, "care-chart promise-kept", message, out)


def first_fault_chart(curves: Sequence[tuple[str, FirstFault]]) -> Markup:
    """The share of boats without a fault over their hours, a stair a product."""
    last = max(f.curve[-1][0] for _, f in curves) * 1.15
    f = axes.Frame(48, WIDTH - 20, 200, TOP, last, 100.0)
    out = [
        axes.beside(f, axes.round_figures(100, step=25)),
        axes.below(f, axes.round_figures(last, 5), lines=False),
        axes.names(f, tr("hours under way"), tr("% of boats without a fault")),
    ]
    for i, (name, found) in enumerate(curves):
        points: list[tuple[float, float]] = []
        before = 1.0
        for at, left in (*found.curve, (last, found.curve[-1][1])):
            points += [(f.x(at), f.y(100 * before)), (f.x(at), f.y(100 * left))]
            before = left
        pen: dict[str, object] = {"stroke_width": "2.5", "stroke_dasharray": DASHES[i]}
        y = 252.0 + 18 * i
        key = line(f.x0, y - 4, f.x0 + 34, y - 4, "stair")
        out += [
            path(poly(points), "stair", "", fill="none", stroke=axes.INK, **pen),
            tag("g", key, stroke=axes.INK, **pen),
            text(f.x0 + 42, y, name, "tick"),
        ]
    height = 244.0 + 18 * len(curves) + 6
    message = tr("Boats without a fault by hours under way; the table has quarter and half")
    return axes.small(WIDTH, height, "care-chart first-fault", message, out)
