"""The field of all candidates as SVG: price against range, those that do the day dark, the front
drawn, the picks named.
"""

from __future__ import annotations

import numpy as np
from markupsafe import Markup, escape

from jolvek.core.base.units import to_unit
from jolvek.core.match.matching import Match
from jolvek.core.match.ranking import Pick
from jolvek.web.drawings.charts import Frame, nice_step
from jolvek.web.view.display import Units

MOST_DOTS = 1400


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
    width: float = 900.0,
    height: float = 210.0,
) -> Markup:
    """The chart; `keep` (N,) marks what the filters leave. Prices run to what covers the front and
    most of the rest.
    """
    f = match.field
    price, reach = f.price, f.range_m / float(to_unit(1.0, "distance", u["distance"]) ** -1)
    named = np.array([p.index for p in picks], dtype=int)
    shown = np.concatenate((front, named)).astype(int)
    x_max = max(
        float(np.quantile(price, 0.9)), float(price[shown].max()) * 1.04 if shown.size else 0.0
    )
    y_max = max(
        float(np.quantile(reach, 0.97)),
        float(reach[shown].max()) * 1.08 if shown.size else 0.0,
        1e-6,
    )
    step_x, step_y = nice_step(x_max, 9), nice_step(y_max, 4)
    frame = Frame(46, width - 10, height - 30, 12, x_max, y_max)
    parts = []
    for value in np.arange(0, x_max, step_x):
        x = frame.x(float(value))
        parts.append(
            f'<line x1="{x:.1f}" x2="{x:.1f}" y1="{frame.y1}" y2="{frame.y0}" class="grid"/><text'
            f' x="{x:.1f}" y="{frame.y0 + 15:.0f}"'
            f' text-anchor="middle">{f"{value:,.0f}".replace(",", chr(0x202F))}</text>'
        )
    for value in np.arange(0, y_max, step_y):
        y = frame.y(float(value))
        parts.append(
            f'<line x1="{frame.x0}" x2="{frame.x1:.1f}" y1="{y:.1f}" y2="{y:.1f}" class="grid"/>'
            f'<text x="{frame.x0 - 6}" y="{y + 4:.1f}" text-anchor="end">{value:g}</text>'
        )
    stride = max(1, price.size // MOST_DOTS)
    every = np.arange(0, price.size, stride)
    every = every[(price[every] <= x_max) & (reach[every] <= y_max)]
    for mask, kind in (
        (~f.does_day, "short"),
        (f.does_day & ~keep, "off"),
        (f.does_day & keep, "does"),
    ):
        rows = every[mask[every]]
        parts.append(_dots(frame, price[rows], reach[rows], kind))
    line = front[np.argsort(price[front])]
    best = (
        line[
            np.concatenate(
                (
                    [True],
                    np.maximum.accumulate(reach[line])[1:]
                    > np.maximum.accumulate(reach[line])[:-1],
                )
            )
        ]
        if line.size
        else line
    )
    if best.size:
        points = (f"{frame.x(float(price[i])):.1f} {frame.y(float(reach[i])):.1f}" for i in best)
        parts.append(f'<path class="front" d="M{"L".join(points)}"/>')
    wish = frame.y(to_unit(match.need.day.distance_m, "distance", u["distance"]))
    parts.append(
        f'<line x1="{frame.x0}" x2="{frame.x1:.1f}" y1="{wish:.1f}" y2="{wish:.1f}"'
        f' class="wish"/><text x="{frame.x1:.1f}" y="{wish - 4:.1f}" text-anchor="end"'
        ' class="wishtext">the day</text>'
    )
    parts.append(_names(frame, price, reach, picks))
    unit = u["distance"]
    label = escape(
        f"All {price.size} setups: price against range in {unit}; {int(f.does_day.sum())} do"
        " the day"
    )
    return Markup(
        f'<svg viewBox="0 0 {width:.0f} {height:.0f}" class="chart field" id="field" role="img"'
        f' aria-label="{label}" data-x0="{frame.x0}" data-x1="{frame.x1}" data-y0="{frame.y0}"'
        f' data-y1="{frame.y1}" data-x-max="{x_max:.2f}"'
        f' data-y-max="{y_max:.4f}"><title>{label}</title>{"".join(parts)}<text x="{frame.x0 + 4}"'
        f' y="{frame.y1 + 10}" class="axis">range, {unit}</text><text x="{frame.x1:.1f}"'
        f' y="{height - 2:.0f}" text-anchor="end" class="axis">price</text><rect class="brush"'
        ' id="brush" width="0" height="0"/></svg>'
    )


def _names(frame: Frame, price: np.ndarray, reach: np.ndarray, picks: list[Pick]) -> str:
    """Numbered marks for the picks, one for picks that are the same setup."""
    numbers: dict[int, int] = {}
    out = []
    for pick in picks:
        numbers.setdefault(pick.index, len(numbers) + 1)
    for index, number in numbers.items():
        x, y = frame.x(float(price[index])), frame.y(float(reach[index]))
        out.append(
            f'<g class="pick"><circle cx="{x:.1f}" cy="{y:.1f}" r="8"/>'
            f'<text x="{x:.1f}" y="{y + 4:.1f}" text-anchor="middle">{number}</text></g>'
        )
    return "".join(out)
