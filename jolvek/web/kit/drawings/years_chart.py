"""The cumulative cost of a setup and of petrol over the years: two lines, named at their ends."""

from __future__ import annotations

from markupsafe import Markup

from jolvek.core.base.messages import msg
from jolvek.core.deal.cost import Cost
from jolvek.web.kit.drawings.charts import Frame, nice_step, thousands
from jolvek.web.kit.drawings.svg import circle, line, path, picture, poly, tag, text
from jolvek.web.kit.language import tr

WIDTH, HEIGHT = 420, 230
INK = "#22292C"
ON_PAPER = {"fill": INK, "stroke": "none", "font_size": "12", "font_family": "Text, sans-serif"}
LEFT, RIGHT, TOP, BOTTOM = 52, 58, 18, 36


def years_chart(c: Cost, currency: str) -> Markup:
    """Money over years: what is bought again is seen as a step; the break-even is marked."""
    years = len(c.electric) - 1
    most = max(*c.electric, *c.petrol, 1.0)
    step = nice_step(most, 5)
    frame = Frame(LEFT, WIDTH - RIGHT, HEIGHT - BOTTOM, TOP, max(years, 1), most)
    out = []
    for i in range(int(most / step) + 1):
        y = frame.y(i * step)
        out += [tag("g", line(frame.x0, y, frame.x1, y, "grid"), stroke="#BBBBBB")]
        out += [text(frame.x0 - 7, y + 4, thousands(i * step), "tick", "end")]
    every = 1 if years <= 12 else 5
    for year in range(0, years + 1, every):
        out.append(text(frame.x(year), frame.y0 + 16, str(year), "tick", "middle"))
    out.append(text(frame.x1, frame.y0 + 31, tr("years"), "tick", "end"))
    out.append(text(frame.x0 + 4, frame.y1 - 4, currency, "tick"))
    ends = [frame.y(c.electric[-1]), frame.y(c.petrol[-1])]
    if abs(ends[0] - ends[1]) < 14:  # the names would lie on each other
        ends[ends[0] > ends[1]] -= 7
        ends[ends[0] <= ends[1]] += 7
    lines = ((msg("electric"), c.electric, ends[0]), (msg("petrol"), c.petrol, ends[1]))
    for name, sums, y in lines:
        points = [(frame.x(i), frame.y(x)) for i, x in enumerate(sums)]
        dash = "7 4" if name == "petrol" else None
        pen: dict[str, object] = {"stroke_width": "2.5", "stroke_dasharray": dash}
        kind = f"sum-line is-{name}"
        out.append(path(poly(points), kind, "", fill="none", stroke=INK, **pen))
        out.append(text(frame.x1 + 6, y + 4, tr(name), f"sum-name is-{name}"))
    if c.break_even_year:
        low = int(c.break_even_year)
        share = c.break_even_year - low
        high = min(low + 1, years)
        value = c.electric[low] + share * (c.electric[high] - c.electric[low])
        out.append(circle(frame.x(c.break_even_year), frame.y(value), 5, "sum-even"))
    result = _told(years, currency)
    return picture(WIDTH, HEIGHT, "years-chart", result, [tag("g", "".join(out), **ON_PAPER)])


def _told(years: int, currency: str) -> str:
    return tr(
        "Cost over %(years)s years, in %(currency)s: the table beside it has every figure.",
        years=years,
        currency=currency,
    )
