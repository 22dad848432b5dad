"""Speed over power: the promise with its band, the points of the trial, and the curve they make."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup

from jolvek.web.kit.drawings.charts import Frame, nice_step, thousands
from jolvek.web.kit.drawings.svg import circle, line, path, picture, poly, tag, text
from jolvek.web.kit.language import tr

WIDTH, HEIGHT = 410, 270
LEFT, RIGHT, TOP, BOTTOM = 44, 18, 18, 40
INK = "#22292C"
ON_PAPER = {"fill": INK, "stroke": "none", "font_size": "12", "font_family": "Text, sans-serif"}


@dataclass(frozen=True)
class Curves:
    """In shown units over W: promise, its lowest and highest, the fitted curve (may be empty); and
    points as (W, speed, used).
    """

    power_w: list[float]
    promise: list[float]
    low: list[float]
    high: list[float]
    fitted: list[float]
    points: Sequence[tuple[float, float, bool]]


def trial_chart(c: Curves, unit: str) -> Markup:
    """The picture."""
    tops = [*c.high, *c.fitted, *(p[1] for p in c.points)]
    most_w = max([*c.power_w, *(p[0] for p in c.points)])
    frame = Frame(LEFT, WIDTH - RIGHT, HEIGHT - BOTTOM, TOP, most_w, 1.05 * max(tops))
    out = [*_grid(frame, unit)]
    x = [frame.x(w) for w in c.power_w]
    there = [(a, frame.y(v)) for a, v in zip(x, c.high, strict=True)]
    back = [(a, frame.y(v)) for a, v in zip(x, c.low, strict=True)][::-1]
    out.append(path(poly([*there, *back], True), "promise-band", "", fill="#DDD6C8"))
    lines: list[tuple[str, list[float], str | None]] = [("promise", c.promise, "6 4")]
    lines += [("tried", c.fitted, None)] if c.fitted else []
    for name, values, dash in lines:
        points = [(a, frame.y(v)) for a, v in zip(x, values, strict=True)]
        pen: dict[str, object] = {"stroke_width": "2", "stroke_dasharray": dash}
        out.append(path(poly(points), f"is-{name}", "", fill="none", stroke=INK, **pen))
    for power, speed, used in c.points:
        mark = circle(frame.x(power), frame.y(speed), 5, "point" if used else "point is-left-out")
        out.append(tag("g", mark, fill=INK if used else "none", stroke=INK))
    message = tr(
        "Speed over power: promise with its band, points of the trial; figures in the table"
    )
    return picture(WIDTH, HEIGHT, "trial-chart", message, [tag("g", "".join(out), **ON_PAPER)])


def _grid(f: Frame, unit: str) -> list[str]:
    out = []
    step_x, step_y = nice_step(f.x_max, 5), nice_step(f.y_max, 5)
    for i in range(int(f.x_max / step_x) + 1):
        x = f.x(i * step_x)
        out.append(tag("g", line(x, f.y1, x, f.y0, "grid"), stroke="#CCCCCC"))
        out.append(text(x, f.y0 + 15, thousands(i * step_x), "tick", "middle"))
    for i in range(int(f.y_max / step_y) + 1):
        y = f.y(i * step_y)
        out.append(tag("g", line(f.x0, y, f.x1, y, "grid"), stroke="#CCCCCC"))
        out.append(text(f.x0 - 6, y + 4, f"{i * step_y:g}", "tick", "end"))
    out.append(text(f.x1, f.y0 + 32, tr("W from the battery"), "tick", "end"))
    out.append(text(f.x0, f.y1 - 5, unit, "tick"))
    return out
