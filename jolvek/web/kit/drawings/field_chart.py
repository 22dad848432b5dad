"""The field of all candidates as SVG: price against range, those that do the day dark, the front
drawn, the picks named.
"""

from __future__ import annotations

import numpy as np
from markupsafe import Markup

from jolvek.core.base.units import to_unit
from jolvek.core.match.matching import Match
from jolvek.core.match.picks import Pick
from jolvek.web.kit.display import Units
from jolvek.web.kit.drawings import axes
from jolvek.web.kit.drawings.axes import Frame
from jolvek.web.kit.drawings.svg import circle, line, path, picture, poly, tag, text
from jolvek.web.kit.language import tr

MOST_DOTS, TICK_PX = 1400, 90.0


def _dots(frame: Frame, x: np.ndarray, y: np.ndarray, kind: str) -> str:
    spots = {
        (round(frame.x(float(a))), round(frame.y(float(b)))) for a, b in zip(x, y, strict=True)
    }
    return f'<path class="dots {kind}" d="{"".join(f"M{a} {b}h0" for a, b in sorted(spots))}"/>'


def field_chart(
    match: Match,
    front: np.ndarray,
    picks: list[Pick],
    keep: np.ndarray,
    u: Units,
    currency: str,
    width: float = 900.0,
    height: float = 136.0,
) -> Markup:
    """The chart; `keep` (N,) marks what the filters leave. Prices run to what covers the front and
    most of the rest.
    """
    unit, does = u["distance"], match.field.does_day
    price, reach = match.field.price, match.field.range_m * to_unit(1.0, "distance", unit)
    named = np.array([p.index for p in picks], dtype=int)
    x_max, y_max = _extent(price, reach, np.concatenate((front, named)).astype(int))
    frame = Frame(46, width - 10, height - 30, 12, x_max, y_max)
    wish = frame.y(to_unit(match.need.day.distance_m, "distance", unit))
    every = np.arange(0, price.size, max(1, price.size // MOST_DOTS))
    every = every[(price[every] <= x_max) & (reach[every] <= y_max)]
    kinds = ((~does, "short"), (does & ~keep, "off"), (does & keep, "does"))
    dots = ((every[mask[every]], kind) for mask, kind in kinds)
    parts = [
        axes.below(frame, axes.round_figures(x_max, max(3, int(width / TICK_PX)))),
        axes.beside(frame, axes.round_figures(y_max, 4)),
        *(_dots(frame, price[rows], reach[rows], kind) for rows, kind in dots),
        _front(frame, price[front], reach[front]),
        line(frame.x0, wish, frame.x1, wish, "wish"),
        _names(frame, price, reach, picks),
        text(frame.x0 + 4, wish - 4, tr("the day"), "wishtext"),
        text(frame.x0 + 4, frame.y1 + 10, tr("range, %(unit)s", unit=unit), "axis"),
        axes.names(frame, tr("price, %(currency)s", currency=currency), drop=28.0),
        tag("rect", cls="brush", id="brush", width=0, height=0),
    ]
    label = tr(
        "All %(size)s setups: price against range in %(unit)s; %(sum)s manage the day",
        size=price.size,
        unit=unit,
        sum=int(does.sum()),
    )
    most = {"data_x_max": f"{x_max:.2f}", "data_y_max": f"{y_max:.4f}"}
    ends = {"data_x0": frame.x0, "data_x1": frame.x1, "data_y0": frame.y0, "data_y1": frame.y1}
    return picture(width, height, "chart field", label, parts, id="field", **ends, **most)


def _extent(price: np.ndarray, reach: np.ndarray, shown: np.ndarray) -> tuple[float, float]:
    """How far the axes go: all of `shown` (indices) and most of the rest."""
    x, y = _below(price, 0.9), _below(reach, 0.97)
    if shown.size:
        x, y = max(x, float(price[shown].max()) * 1.04), max(y, float(reach[shown].max()) * 1.08)
    return x, max(y, 1e-6)


def _below(values: np.ndarray, share: float) -> float:
    """The value that a share of them is not above; `np.quantile` reads `numpy.ma` first, 20 ms."""
    rank = int(share * (values.size - 1))
    return float(np.partition(values, rank)[rank])


def _front(frame: Frame, price: np.ndarray, reach: np.ndarray) -> str:
    """The Pareto front in these two: only what goes further than all that is cheaper."""
    if not price.size:
        return ""
    order = np.argsort(price)
    best = np.maximum.accumulate(reach[order])
    line_of = order[np.concatenate(([True], best[1:] > best[:-1]))]
    points = ((frame.x(float(price[i])), frame.y(float(reach[i]))) for i in line_of)
    return path(poly(points), "front")


def _names(frame: Frame, price: np.ndarray, reach: np.ndarray, picks: list[Pick]) -> str:
    """Numbered marks for the picks, one for picks that are the same setup."""
    numbers: dict[int, int] = {}
    out = []
    for pick in picks:
        numbers.setdefault(pick.index, len(numbers) + 1)
    for index, number in numbers.items():
        x, y = frame.x(float(price[index])), frame.y(float(reach[index]))
        body = circle(x, y, 8) + text(x, y + 4, number, anchor="middle")
        out.append(tag("g", body, cls="pick"))
    return "".join(out)
