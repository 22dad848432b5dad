"""Speed over power: the promise with its band, the points of the trial, and the curve they make."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup

from jolvek.web.kit.drawings import axes
from jolvek.web.kit.drawings.svg import circle, tag
from jolvek.web.kit.language import tr

WIDTH, HEIGHT = 410, 270


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
    f = axes.Frame(44, WIDTH - 18, HEIGHT - 40, 20, most_w, 1.05 * max(tops))
    out = [
        axes.below(f, axes.round_figures(f.x_max, 5)),
        axes.beside(f, axes.round_figures(f.y_max, 5)),
        axes.names(f, tr("W from the battery"), unit),
        axes.area(f, c.power_w, c.low, c.high),
        axes.curve(f, c.power_w, c.promise, "is-promise", stroke_width="2", stroke_dasharray="6 4"),
    ]
    if c.fitted:
        out.append(axes.curve(f, c.power_w, c.fitted, "is-tried", stroke_width="2"))
    for power, speed, used in c.points:
        mark = circle(f.x(power), f.y(speed), 5, "point" if used else "point is-left-out")
        out.append(tag("g", mark, fill=axes.INK if used else "none", stroke=axes.INK))
    message = tr(
        "Speed over power: promise with its band, points of the trial; figures in the table"
    )
    return axes.small(WIDTH, HEIGHT, "trial-chart", message, out)
