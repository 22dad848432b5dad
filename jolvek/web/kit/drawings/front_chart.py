"""Customers served against what lies in stock: the best choices, and the one that is looked at."""

from __future__ import annotations

from collections.abc import Sequence

from markupsafe import Markup

from jolvek.web.kit.drawings import axes
from jolvek.web.kit.drawings.svg import circle, path, poly, tag
from jolvek.web.kit.language import tr

WIDTH, HEIGHT = 420, 240


def front_chart(
    points: Sequence[tuple[float, float]], here: tuple[float, float], total: float, currency: str
) -> Markup:
    """Points are (value, served); `here` is the choice on the page."""
    most = 1.05 * max([here[0], *(v for v, _ in points)])
    f = axes.Frame(48, WIDTH - 20, HEIGHT - 40, 22, most, total)
    customers = tr("of %(total)s customers' days", total=axes.thousands(total))
    stair = [(f.x(0), f.y(0))]
    for value, served in points:
        stair += [(f.x(value), stair[-1][1]), (f.x(value), f.y(served))]
    mark = circle(f.x(here[0]), f.y(here[1]), 7, "here")
    out = [
        axes.beside(f, axes.round_figures(total, 5)),
        axes.below(f, axes.round_figures(most, 4), lines=False),
        axes.names(f, tr("in stock, %(currency)s", currency=currency), customers),
        path(poly(stair), "stair", "", fill="none", stroke=axes.INK, stroke_width="2"),
        *(circle(f.x(v), f.y(s), 3.5, "point") for v, s in points),
        tag("g", mark, fill="none", stroke=axes.INK, stroke_width="2"),
    ]
    message = tr("Customers served against the value in stock; the table has every figure")
    return axes.small(WIDTH, HEIGHT, "care-chart front", message, out)
