"""Curves of several setups in one SVG: two panels over one axis, one cursor through both."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np
from markupsafe import Markup, escape

DASHES = {"A": "", "B": "9 4", "C": "2 3", "D": "11 3 2 3", "E": "5 2"}


@dataclass(frozen=True)
class Series:
    """One setup's curves in shown units over a common axis: the upper panel's, and the lower's (may
    be empty).
    """

    letter: str
    x: list[float]
    top: list[float]
    low: list[float]
    knee: tuple[float, float] | None = None
    band: tuple[list[float], list[float]] | None = (
        None  # x of the upper panel at its lowest and highest
    )
    second: list[float] | None = None  # another curve in the upper panel, drawn thin


@dataclass(frozen=True)
class Axes:
    """What the panels show, in words with their units, and the marks on them in shown units."""

    x: str
    top: str
    low: str
    unit: str
    verticals: tuple[tuple[float, str], ...] = ()
    plate: float | None = None
    plate_label: str = ""
    cursor: float | None = None
    low_rises: bool = False  # whether the lower curves are to be seen to their ends


def nice_step(span: float, most: int = 6) -> float:
    """A step of 1, 2, 2.5 or 5 times a power of ten that gives at most `most` ticks.

    >>> nice_step(2300), nice_step(5.2)
    (500.0, 1.0)
    """
    raw = max(span, 1e-9) / most
    power = 10.0 ** np.floor(np.log10(raw))
    return float(next(m * power for m in (1, 2, 2.5, 5, 10) if m * power >= raw * 0.999))


def marker(letter: str, x: float, y: float, r: float = 5.5) -> str:
    """The setup's own marker: circle, triangle, square, diamond, cross."""
    shapes = {
        "A": f'<circle cx="{x:.1f}" cy="{y:.1f}" r="{r:.1f}"/>',
        "B": f'<path d="M{x:.1f} {y - r * 1.15:.1f}l{r * 1.1:.1f} {r * 2:.1f}h{-2.2 * r:.1f}z"/>',
        "C": (
            f'<rect x="{x - r * 0.9:.1f}" y="{y - r * 0.9:.1f}" width="{1.8 * r:.1f}"'
            f' height="{1.8 * r:.1f}"/>'
        ),
        "D": (
            f'<path d="M{x:.1f} {y - r * 1.25:.1f}l{r * 1.2:.1f} {r * 1.25:.1f}l{-r * 1.2:.1f}'
            f' {r * 1.25:.1f}l{-r * 1.2:.1f} {-r * 1.25:.1f}z"/>'
        ),
        "E": (
            f'<path d="M{x - r:.1f} {y - r:.1f}l{2 * r:.1f} {2 * r:.1f}m0 {-2 * r:.1f}l{-2 * r:.1f}'
            f' {2 * r:.1f}" class="cross"/>'
        ),
    }
    return f'<g class="mark set-{letter}">{shapes[letter]}</g>'


def badge(letter: str) -> Markup:
    """Marker and letter for headings and tables."""
    return Markup(
        '<svg class="badge" viewBox="0 0 16 16" width="14" height="14"'
        f' aria-hidden="true">{marker(letter, 8, 8, 6)}</svg><span class="letter'
        f' set-{letter}">{letter}</span>'
    )


@dataclass(frozen=True)
class Frame:
    """Where a panel lies and how values map to it."""

    x0: float
    x1: float
    y0: float  # bottom
    y1: float  # top
    x_max: float
    y_max: float

    def x(self, value: float) -> float:
        """Picture x of a value."""
        return self.x0 + (self.x1 - self.x0) * value / self.x_max

    def y(self, value: float) -> float:
        """Picture y of a value, kept inside the panel."""
        return self.y0 - (self.y0 - self.y1) * min(max(value / self.y_max, 0.0), 1.0)


@dataclass(frozen=True)
class Chart:
    """The picture and what the cursor script needs to know of it."""

    svg: Markup
    frame: Frame
    low: Frame
    x_max: float
    notes: list[str] = field(default_factory=list)


def _grid(frame: Frame, step_x: float, step_y: float, label_x: bool) -> str:
    out = []
    for value in np.arange(0, frame.x_max * 1.0001, step_x):
        x = frame.x(float(value))
        out.append(
            f'<line x1="{x:.1f}" x2="{x:.1f}" y1="{frame.y1:.1f}" y2="{frame.y0:.1f}"'
            ' class="grid"/>'
        )
        if label_x:
            out.append(
                f'<text x="{x:.1f}" y="{frame.y0 + 15:.1f}" text-anchor="middle"'
                f' class="tick">{value:g}</text>'
            )
    for value in np.arange(0, frame.y_max * 1.0001, step_y):
        y = frame.y(float(value))
        number = f"{value:,.0f}".replace(",", "\u202f") if step_y >= 1 else f"{value:g}"
        out.append(
            f'<line x1="{frame.x0:.1f}" x2="{frame.x1:.1f}" y1="{y:.1f}" y2="{y:.1f}"'
            f' class="grid"/><text x="{frame.x0 - 7:.1f}" y="{y + 4:.1f}" text-anchor="end"'
            f' class="tick">{number}</text>'
        )
    return "".join(out)


def _curve(frame: Frame, xs: list[float], ys: list[float]) -> str:
    return "M" + "L".join(f"{frame.x(x):.1f} {frame.y(y):.1f}" for x, y in zip(xs, ys, strict=True))


def _ceiling(value: float, step: float) -> float:
    return float(np.ceil(value / step) * step)


def compare(series: list[Series], axes: Axes, width: float = 570.0, height: float = 452.0) -> Chart:
    """Both panels with one cursor through them, drawn where it stands and moved by the script."""
    furthest = max((s.x[-1] for s in series if s.x), default=5.0) * 1.06
    step_x = nice_step(furthest, 7)
    x_max = _ceiling(furthest, step_x / 2)
    highest = max((max(s.top) for s in series if s.top), default=1e-6)
    if axes.plate and axes.plate < 2.2 * highest:
        highest = max(highest, axes.plate * 1.04)
    step_t = nice_step(highest, 5)
    lowers = [
        max(s.low) if axes.low_rises else float(np.interp(0.62 * s.x[-1], s.x, s.low))
        for s in series
        if s.low
    ]
    most_low = max(lowers, default=1.0) * (1.04 if axes.low_rises else 1.1) or 1.0
    step_l = nice_step(most_low, 4)
    split = height * 0.60
    top = Frame(52, width - 22, split, 20, x_max, _ceiling(highest * 1.03, step_t / 2))
    low = Frame(52, width - 22, height - 34, split + 26, x_max, _ceiling(most_low, step_l))
    parts = [
        _grid(top, step_x, step_t, False),
        _grid(low, step_x, step_l, True),
        *_marks(top, low, axes, width, x_max),
    ]
    for s in series:
        parts += _drawn(s, top, low)
    for frame, words, y in ((top, axes.top, top.y1 + 12), (low, axes.low, low.y1 - 5)):
        parts.append(
            f'<text x="{frame.x0 + 5:.1f}" y="{y:.1f}" class="axis">{escape(words)}</text>'
        )
    x = top.x(axes.cursor) if axes.cursor else top.x0
    parts.append(
        f'<g id="cursor" transform="translate({x:.1f} 0)"><line x1="0" x2="0" y1="{top.y1:.1f}"'
        f' y2="{low.y0:.1f}" class="cursor"/><path d="M0 {low.y0 + 1:.1f}l6 8h-12z"'
        ' class="grip"/><rect x="-37" y="0" width="74" height="19" rx="2" class="flag"/><text'
        f' y="14" text-anchor="middle" class="flagtext" id="cursor-text">{axes.cursor or 0:.4g}'
        f' {axes.unit}</text></g><text x="{low.x1:.1f}" y="{height - 4:.1f}" text-anchor="end"'
        f' class="axis">{escape(axes.x)}</text>'
    )
    label = escape(f"{axes.top} and {axes.low} over {axes.x}; the table beside holds the figures")
    svg = Markup(
        f'<svg viewBox="0 0 {width:.0f} {height:.0f}" class="drawing chart" id="chart" role="img"'
        f' aria-label="{label}"><title>{label}</title>{"".join(parts)}</svg>'
    )
    return Chart(svg, top, low, x_max)


def _marks(top: Frame, low: Frame, axes: Axes, width: float, x_max: float) -> list[str]:
    """Hull speed, speed limit, the plate."""
    out = []
    for i, (value, label) in enumerate(axes.verticals):
        if value >= x_max:
            continue
        x = top.x(value)
        right = x < width - 150
        out.append(
            f'<line x1="{x:.1f}" x2="{x:.1f}" y1="{top.y1:.1f}" y2="{low.y0:.1f}"'
            f' class="{"hullspeed" if i == 0 else "limit"}"/><text'
            f' x="{x + (4 if right else -4):.1f}" y="{top.y0 - 6 - 14 * i:.1f}" class="tick"'
            f' text-anchor="{"start" if right else "end"}">{escape(label)}</text>'
        )
    if axes.plate and axes.plate <= top.y_max:
        y = top.y(axes.plate)
        out.append(
            f'<line x1="{top.x0:.1f}" x2="{top.x1:.1f}" y1="{y:.1f}" y2="{y:.1f}"'
            f' class="plate"/><text x="{top.x0 + 6:.1f}"'
            f' y="{y - 5 if y > top.y1 + 26 else y + 14:.1f}"'
            f' class="platetext">{escape(axes.plate_label)}</text>'
        )
    return out


def _drawn(s: Series, top: Frame, low: Frame) -> list[str]:
    """One setup's curves, knee, band and end marks."""
    dash = f' stroke-dasharray="{DASHES[s.letter]}"' if DASHES[s.letter] else ""
    out = []
    if s.band:
        there, back = (
            zip(s.band[0], s.top, strict=True),
            reversed(list(zip(s.band[1], s.top, strict=True))),
        )
        corners = "L".join(
            f"{top.x(min(x, top.x_max)):.1f} {top.y(y):.1f}" for x, y in (*there, *back)
        )
        out.append(f'<path d="M{corners}Z" class="band set-{s.letter}"/>')
    out.append(f'<path d="{_curve(top, s.x, s.top)}" class="curve set-{s.letter}"{dash}/>')
    if s.second:
        out.append(
            f'<path d="{_curve(top, s.x, s.second)}" class="curve thin set-{s.letter}"{dash}/>'
        )
    inside = [(x, y) for x, y in zip(s.x, s.low, strict=False) if y <= low.y_max]
    if inside:
        out.append(
            f'<path d="{_curve(low, [p[0] for p in inside], [p[1] for p in inside])}" class="curve'
            f' set-{s.letter}"{dash}/>'
        )
    if s.knee and s.knee[0] <= top.x_max:
        x, y = top.x(s.knee[0]), top.y(s.knee[1])
        out.append(f'<path d="M{x:.1f} {y - 6:.1f}l6 6l-6 6l-6 -6z" class="knee set-{s.letter}"/>')
    x, y = top.x(s.x[-1]), top.y(s.top[-1])
    out.append(
        marker(s.letter, x, y)
        + f'<text x="{x + 9:.1f}" y="{y + 4:.1f}" class="name set-{s.letter}">{s.letter}</text>'
    )
    if s.low and s.low[-1] <= low.y_max:
        out.append(marker(s.letter, x, low.y(s.low[-1]), 4.2))
    return out
