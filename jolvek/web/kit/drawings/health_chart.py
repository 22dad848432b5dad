"""A battery's capacity over the years: trips as points, its trend with the band, its end."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup

from jolvek.web.kit.drawings.charts import Frame
from jolvek.web.kit.drawings.svg import circle, line, path, picture, poly, tag, text
from jolvek.web.kit.language import tr

WIDTH, HEIGHT = 420, 230
LEFT, RIGHT, TOP, BOTTOM = 48, 70, 18, 36
LOWEST, HIGHEST = 50.0, 110.0  # per cent shown
INK = "#22292C"
ON_PAPER = {"fill": INK, "stroke": "none", "font_size": "12", "font_family": "Text, sans-serif"}


@dataclass(frozen=True)
class Trend:
    """Calendar year of the first day, points (years since, %), the trend as (years since, %, low,
    high), and the end in %.
    """

    began_year: float
    points: Sequence[tuple[float, float]]
    trend: Sequence[tuple[float, float, float, float]]
    end: float


def health_chart(t: Trend) -> Markup:
    """The picture."""
    last = max(t.trend[-1][0], 1.0)
    f = Frame(LEFT, WIDTH - RIGHT, HEIGHT - BOTTOM, TOP, last, HIGHEST - LOWEST)

    def y(percent: float) -> float:
        return f.y(min(max(percent, LOWEST), HIGHEST) - LOWEST)

    out = []
    for percent in range(int(LOWEST), int(HIGHEST) + 1, 10):
        at = y(percent)
        out.append(tag("g", line(f.x0, at, f.x1, at, "grid"), stroke="#CCCCCC"))
        out.append(text(f.x0 - 6, at + 4, str(percent), "tick", "end"))
    first = int(t.began_year) + 1
    every = 1 if last <= 8 else 3
    for year in range(first, int(t.began_year + last) + 1, every):
        out.append(text(f.x(year - t.began_year), f.y0 + 16, str(year), "tick", "middle"))
    out.append(text(f.x0 + 4, f.y1 - 5, tr("% of the rated capacity"), "tick"))
    over = [(f.x(a), y(high)) for a, _, _, high in t.trend]
    under = [(f.x(a), y(low)) for a, _, low, _ in t.trend][::-1]
    out.append(path(poly([*over, *under], True), "promise-band", "", fill="#DDD6C8"))
    way = poly([(f.x(a), y(mean)) for a, mean, _, _ in t.trend])
    out.append(path(way, "is-tried", "", fill="none", stroke=INK, stroke_width="2.5"))
    end = tag("g", line(f.x0, y(t.end), f.x1, y(t.end), "end-of-life"), stroke=INK)
    out += [end, text(f.x1 + 6, y(t.end) + 4, tr("worn out"), "tick")]
    out += [circle(f.x(a), y(percent), 3.5, "point") for a, percent in t.points]
    message = tr("Capacity of the battery over the years with its band; its figures stand in words")
    return picture(
        WIDTH, HEIGHT, "care-chart health-chart", message, [tag("g", "".join(out), **ON_PAPER)]
    )
