"""The cumulative cost of a setup and of petrol over the years: two lines, named at their ends."""

from __future__ import annotations

from markupsafe import Markup

from jolvek.core.base.messages import msg
from jolvek.core.deal.cost import Cost
from jolvek.web.kit.drawings import axes
from jolvek.web.kit.drawings.svg import circle, text
from jolvek.web.kit.language import tr

WIDTH, HEIGHT = 420, 230
MANY_YEARS = 12  # more than these are named every fifth year


def years_chart(c: Cost, currency: str) -> Markup:
    """Money over years: what is bought again is seen as a step; the break-even is marked."""
    years = len(c.electric) - 1
    most = max(*c.electric, *c.petrol, 1.0)
    f = axes.Frame(52, WIDTH - 58, HEIGHT - 36, 18, max(years, 1), most)
    every = 1 if years <= MANY_YEARS else 5
    out = [
        axes.beside(f, axes.round_figures(most, 5)),
        axes.below(f, [(y, str(y)) for y in range(0, years + 1, every)], lines=False),
        axes.names(f, tr("years"), currency),
    ]
    ends = [f.y(c.electric[-1]), f.y(c.petrol[-1])]
    if abs(ends[0] - ends[1]) < 14:  # the names would lie on each other
        ends[ends[0] > ends[1]] -= 7
        ends[ends[0] <= ends[1]] += 7
    lines = ((msg("electric"), c.electric, ends[0]), (msg("petrol"), c.petrol, ends[1]))
    for name, sums, y in lines:
        pen: dict[str, object] = {"stroke_dasharray": "7 4" if name == "petrol" else None}
        out.append(
            axes.curve(f, range(years + 1), sums, f"sum-line is-{name}", stroke_width="2.5", **pen)
        )
        out.append(text(f.x1 + 6, y + 4, tr(name), f"sum-name is-{name}"))
    if c.break_even_year:
        low = int(c.break_even_year)
        share = c.break_even_year - low
        high = min(low + 1, years)
        value = c.electric[low] + share * (c.electric[high] - c.electric[low])
        out.append(circle(f.x(c.break_even_year), f.y(value), 5, "sum-even"))
    message = tr(
        "Cost over %(years)s years, in %(currency)s: the table beside it has every figure.",
        years=years,
        currency=currency,
    )
    return axes.small(WIDTH, HEIGHT, "years-chart", message, out)
