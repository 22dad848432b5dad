"""Pictures of the shop's figures: the promise kept by family, boats without a fault by hours."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup

from jolvek.core.care.faults import FirstFault
from jolvek.web.kit.drawings.charts import Frame, nice_step, thousands
from jolvek.web.kit.drawings.svg import circle, line, path, picture, poly, rect, tag, text
from jolvek.web.kit.language import tr

WIDTH, ROW, LEFT, RIGHT, TOP, BOTTOM = 420, 30, 150, 20, 24, 30
INK = "#22292C"
ON_PAPER = {"fill": INK, "stroke": "none", "font_size": "12", "font_family": "Text, sans-serif"}
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
    most = max(0.1, *(max(abs(r.low), abs(r.high)) for r in rows)) * 1.1
    height = TOP + ROW * len(rows) + BOTTOM
    bottom = height - BOTTOM

    def x(share: float) -> float:
        return LEFT + (share + most) / (2 * most) * (WIDTH - LEFT - RIGHT)

    out = []
    step = nice_step(100 * most, 3)
    for i in range(-int(100 * most / step), int(100 * most / step) + 1):
        at = x(i * step / 100)
        grid = line(at, TOP - 6, at, bottom, "grid")
        out.append(tag("g", grid, stroke=INK if i == 0 else "#CCCCCC"))
        label = tr("as promised") if i == 0 else f"{i * step:+g} %"
        out.append(text(at, bottom + 16, label, "tick", "middle"))
    for i, r in enumerate(rows):
        y = TOP + ROW * i + ROW / 2
        out.append(text(LEFT - 8, y + 4, f"{r.name} ({r.points})", "tick", "end"))
        bar = rect(x(r.low), y - 6, max(x(r.high) - x(r.low), 2), 12, "spread")
        out.append(tag("g", bar, fill="#DDD6C8", stroke=INK))
        out.append(circle(x(r.middle), y, 4.5, "point"))
    message = tr("Speed measured against the promise by family; the table has every figure")
    return picture(
        WIDTH, height, "care-chart promise-kept", message, [tag("g", "".join(out), **ON_PAPER)]
    )


def first_fault_chart(curves: Sequence[tuple[str, FirstFault]]) -> Markup:
    """The share of boats without a fault over their hours, a stair a product."""
    last = max(f.curve[-1][0] for _, f in curves) * 1.15
    f = Frame(48, WIDTH - 20, 200, TOP, last, 100.0)
    out = []
    for share in range(0, 101, 25):
        out.append(tag("g", line(f.x0, f.y(share), f.x1, f.y(share), "grid"), stroke="#CCCCCC"))
        out.append(text(f.x0 - 6, f.y(share) + 4, str(share), "tick", "end"))
    step = nice_step(last, 5)
    for i in range(int(last / step) + 1):
        out.append(text(f.x(i * step), f.y0 + 16, thousands(i * step), "tick", "middle"))
    out.append(text(f.x1, f.y0 + 31, tr("hours under way"), "tick", "end"))
    out.append(text(f.x0 + 4, f.y1 - 6, tr("% of boats without a fault"), "tick"))
    for i, (name, found) in enumerate(curves):
        points: list[tuple[float, float]] = []
        before = 1.0
        for at, left in (*found.curve, (last, found.curve[-1][1])):
            points += [(f.x(at), f.y(100 * before)), (f.x(at), f.y(100 * left))]
            before = left
        pen: dict[str, object] = {"stroke_width": "2.5", "stroke_dasharray": DASHES[i]}
        out.append(path(poly(points), "stair", "", fill="none", stroke=INK, **pen))
        y = 252.0 + 18 * i
        key = line(f.x0, y - 4, f.x0 + 34, y - 4, "stair")
        out.append(tag("g", key, stroke=INK, **pen))
        out.append(text(f.x0 + 42, y, name, "tick"))
    height = 244.0 + 18 * len(curves) + 6
    message = tr("Boats without a fault by hours under way; the table has quarter and half")
    return picture(
        WIDTH, height, "care-chart first-fault", message, [tag("g", "".join(out), **ON_PAPER)]
    )
