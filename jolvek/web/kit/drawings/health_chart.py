"""A battery's capacity over the years: trips as points, its trend with the band, its end."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

from markupsafe import Markup

from jolvek.web.kit.drawings import axes
from jolvek.web.kit.drawings.room import chart_px
from jolvek.web.kit.drawings.svg import circle, line, tag, text
from jolvek.web.kit.language import tr

WIDTH, HEIGHT = 420, 230
CARD_PX = 32.0  # the margins of the card it stands in
LOWEST, HIGHEST = 50.0, 110.0  # per cent shown
MANY_YEARS = 8  # more than these are named every third year


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
    width = chart_px(WIDTH) - CARD_PX
    f = axes.Frame(48, width - 70, HEIGHT - 36, 18, last, HIGHEST, y_min=LOWEST)
    percents = [(float(p), str(p)) for p in range(int(LOWEST), int(HIGHEST) + 1, 10)]
    first, every = int(t.began_year) + 1, 1 if last <= MANY_YEARS else 3
    years = range(first, int(t.began_year + last) + 1, every)
    at, mean, low, high = zip(*t.trend, strict=True)
    out = [
        axes.beside(f, percents),
        axes.below(f, [(year - t.began_year, str(year)) for year in years], lines=False),
        axes.names(f, y=tr("% of the rated capacity")),
        axes.area(f, at, low, high),
        axes.curve(f, at, mean, "is-tried", stroke_width="2.5"),
        tag("g", line(f.x0, f.y(t.end), f.x1, f.y(t.end), "end-of-life"), stroke=axes.INK),
        text(f.x1 + 6, f.y(t.end) + 4, tr("worn out"), "tick"),
        *(circle(f.x(a), f.y(percent), 2.0, "point") for a, percent in t.points),
    ]
    message = tr("Capacity of the battery over the years with its band; its figures stand in words")
    return axes.small(width, HEIGHT, "care-chart health-chart", message, out)
