"""Customers served against what lies in stock: the best choices, and the one that is looked at."""

from __future__ import annotations

from collections.abc import Sequence

from markupsafe import Markup

from jolvek.web.kit.drawings.charts import Frame, nice_step, thousands
from jolvek.web.kit.drawings.svg import circle, line, path, picture, poly, tag, text
from jolvek.web.kit.language import tr

WIDTH, HEIGHT, LEFT, RIGHT, TOP, BOTTOM = 420, 240, 48, 20, 22, 40
INK = "#22292C"
ON_PAPER = {"fill": INK, "stroke": "none", "font_size": "12", "font_family": "Text, sans-serif"}


def front_chart(
    points: Sequence[tuple[float, float]], here: tuple[float, float], total: float, currency: str
) -> Markup:
    """Points are (value, served); `here` is the choice on the page."""
    most = 1.05 * max([here[0], *(v for v, _ in points)])
    f = Frame(LEFT, WIDTH - RIGHT, HEIGHT - BOTTOM, TOP, most, total)
    out = []
    step = nice_step(total, 5)
    for i in range(int(total / step) + 1):
        y = f.y(i * step)
        out.append(tag("g", line(f.x0, y, f.x1, y, "grid"), stroke="#CCCCCC"))
        out.append(text(f.x0 - 6, y + 4, thousands(i * step), "tick", "end"))
    step = nice_step(most, 4)
    for i in range(int(most / step) + 1):
        out.append(text(f.x(i * step), f.y0 + 16, thousands(i * step), "tick", "middle"))
    out.append(
        text(f.x1, f.y0 + 32, tr("in stock, %(currency)s", currency=currency), "tick", "end")
    )
    out.append(
        text(f.x0 + 4, f.y1 - 7, tr("of %(total)s customers' days", total=thousands(total)), "tick")
    )
    stair = [(f.x(0), f.y(0))]
    for value, served in points:
        stair += [(f.x(value), stair[-1][1]), (f.x(value), f.y(served))]
    out.append(path(poly(stair), "stair", "", fill="none", stroke=INK, stroke_width="2"))
    out += [circle(f.x(v), f.y(s), 3.5, "point") for v, s in points]
    mark = circle(f.x(here[0]), f.y(here[1]), 7, "here")
    out.append(tag("g", mark, fill="none", stroke=INK, stroke_width="2"))
    message = tr("Customers served against the value in stock; the table has every figure")
    return picture(WIDTH, HEIGHT, "care-chart front", message, [tag("g", "".join(out), **ON_PAPER)])
