"""Curves of several setups in one SVG: power above, range below, one axis of speed, one cursor through both."""

from __future__ import annotations

from dataclasses import dataclass, field

import numpy as np
from markupsafe import Markup, escape

DASHES = {"A": "", "B": "9 4", "C": "2 3", "D": "11 3 2 3", "E": "5 2"}


@dataclass(frozen=True)
class Series:
    """One setup's curves in shown units: speed against power, and against range (may be empty)."""

    letter: str
    speed: list[float]
    power: list[float]
    range_: list[float]
    knee: tuple[float, float] | None = None


@dataclass(frozen=True)
class Lines:
    """Marks on the chart in shown units."""

    hull_speed: float | None = None
    plate: float | None = None
    plate_label: str = ""
    speed_unit: str = "kn"
    power_unit: str = "W"
    range_unit: str = "nm"
    wish: float | None = None


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
        "C": f'<rect x="{x - r * .9:.1f}" y="{y - r * .9:.1f}" width="{1.8 * r:.1f}" height="{1.8 * r:.1f}"/>',
        "D": f'<path d="M{x:.1f} {y - r * 1.25:.1f}l{r * 1.2:.1f} {r * 1.25:.1f}l{-r * 1.2:.1f} {r * 1.25:.1f}l{-r * 1.2:.1f} '
             f'{-r * 1.25:.1f}z"/>',
        "E": f'<path d="M{x - r:.1f} {y - r:.1f}l{2 * r:.1f} {2 * r:.1f}m0 {-2 * r:.1f}l{-2 * r:.1f} {2 * r:.1f}" class="cross"/>',
    }
    return f'<g class="mark set-{letter}">{shapes[letter]}</g>'


def badge(letter: str) -> Markup:
    """Marker and letter for headings and tables."""
    return Markup(f'<svg class="badge" viewBox="0 0 16 16" width="14" height="14" aria-hidden="true">{marker(letter, 8, 8, 6)}</svg>'
                  f'<span class="letter set-{letter}">{letter}</span>')


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


def _grid(frame: Frame, step_x: float, step_y: float, unit: str, label_x: bool) -> str:
    out = []
    for value in np.arange(0, frame.x_max * 1.0001, step_x):
        x = frame.x(float(value))
        out.append(f'<line x1="{x:.1f}" x2="{x:.1f}" y1="{frame.y1:.1f}" y2="{frame.y0:.1f}" class="grid"/>')
        if label_x:
            out.append(f'<text x="{x:.1f}" y="{frame.y0 + 15:.1f}" text-anchor="middle" class="tick">{value:g}</text>')
    for value in np.arange(0, frame.y_max * 1.0001, step_y):
        y = frame.y(float(value))
        number = f"{value:,.0f}".replace(",", "\u202f") if step_y >= 1 else f"{value:g}"
        out.append(f'<line x1="{frame.x0:.1f}" x2="{frame.x1:.1f}" y1="{y:.1f}" y2="{y:.1f}" class="grid"/>'
                   f'<text x="{frame.x0 - 7:.1f}" y="{y + 4:.1f}" text-anchor="end" class="tick">{number}</text>')
    out.append(f'<text x="{frame.x0 + 5:.1f}" y="{frame.y1 + 12:.1f}" class="axis">{unit}</text>')
    return "".join(out)


def _curve(frame: Frame, xs: list[float], ys: list[float]) -> str:
    return "M" + "L".join(f"{frame.x(x):.1f} {frame.y(y):.1f}" for x, y in zip(xs, ys, strict=True))


def compare(series: list[Series], lines: Lines, width: float = 570.0, height: float = 452.0) -> Chart:
    """Both panels; the cursor's line is drawn at the wish and moved by the script."""
    fastest = max((s.speed[-1] for s in series if s.speed), default=5.0)
    step_x = nice_step(fastest * 1.06, 7)
    x_max = float(np.ceil(fastest * 1.06 / (step_x / 2)) * step_x / 2)
    most_power = max([p for s in series for p in s.power[-1:]] + [lines.plate * 1.04 if lines.plate and
                     lines.plate < 2.2 * max((s.power[-1] for s in series), default=1) else 0, 1e-6])
    step_p = nice_step(most_power, 5)
    p_max = float(np.ceil(most_power * 1.03 / (step_p / 2)) * step_p / 2)
    at_low = [float(np.interp(0.62 * s.speed[-1], s.speed, s.range_)) for s in series if s.range_]
    step_r = nice_step(max(at_low, default=1.0) * 1.1, 4)
    r_max = float(np.ceil(max(at_low, default=1.0) * 1.1 / step_r) * step_r)
    split = height * 0.60
    top = Frame(52, width - 22, split, 20, x_max, p_max)
    low = Frame(52, width - 22, height - 34, split + 22, x_max, r_max)
    parts = [_grid(top, step_x, step_p, f"input power, {lines.power_unit}", False),
             _grid(low, step_x, step_r, f"range with the reserve kept, {lines.range_unit}", True)]
    if lines.hull_speed and lines.hull_speed < x_max:
        x = top.x(lines.hull_speed)
        parts.append(f'<line x1="{x:.1f}" x2="{x:.1f}" y1="{top.y1:.1f}" y2="{low.y0:.1f}" class="hullspeed"/>'
                     f'<text x="{x + (4 if x < width - 140 else -4):.1f}" y="{top.y0 - 6:.1f}" class="tick" '
                     f'text-anchor="{"start" if x < width - 140 else "end"}">hull speed {lines.hull_speed:.1f}</text>')
    if lines.plate and lines.plate <= p_max:
        y = top.y(lines.plate)
        parts.append(f'<line x1="{top.x0:.1f}" x2="{top.x1:.1f}" y1="{y:.1f}" y2="{y:.1f}" class="plate"/>'
                     f'<text x="{top.x0 + 6:.1f}" y="{y - 5 if y > top.y1 + 26 else y + 14:.1f}" class="platetext">'
                     f'{escape(lines.plate_label)}</text>')
    for s in series:
        dash = f' stroke-dasharray="{DASHES[s.letter]}"' if DASHES[s.letter] else ""
        parts.append(f'<path d="{_curve(top, s.speed, s.power)}" class="curve set-{s.letter}"{dash}/>')
        if s.range_:
            inside = [(x, y) for x, y in zip(s.speed, s.range_, strict=True) if y <= r_max]
            if inside:
                parts.append(f'<path d="{_curve(low, [p[0] for p in inside], [p[1] for p in inside])}" '
                             f'class="curve set-{s.letter}"{dash}/>')
    for s in series:
        if s.knee and s.knee[0] <= x_max:
            x, y = top.x(s.knee[0]), top.y(s.knee[1])
            parts.append(f'<path d="M{x:.1f} {y - 6:.1f}l6 6l-6 6l-6 -6z" class="knee set-{s.letter}"/>')
        x, y = top.x(s.speed[-1]), top.y(s.power[-1])
        parts.append(marker(s.letter, x, y) + f'<text x="{x + 9:.1f}" y="{y + 4:.1f}" class="name set-{s.letter}">{s.letter}</text>')
        if s.range_:
            parts.append(marker(s.letter, x, low.y(s.range_[-1]), 4.2))
    x = top.x(lines.wish) if lines.wish else top.x0
    parts.append(f'<g id="cursor" transform="translate({x:.1f} 0)"><line x1="0" x2="0" y1="{top.y1:.1f}" y2="{low.y0:.1f}" '
                 f'class="cursor"/><path d="M0 {low.y0 + 1:.1f}l6 8h-12z" class="grip"/>'
                 f'<rect x="-31" y="0" width="62" height="19" rx="2" class="flag"/><text y="14" text-anchor="middle" '
                 f'class="flagtext" id="cursor-text">{lines.wish or 0:.1f} {lines.speed_unit}</text></g>')
    parts.append(f'<text x="{low.x1:.1f}" y="{height - 4:.1f}" text-anchor="end" class="axis">'
                 f'speed through the water, {lines.speed_unit}</text>')
    svg = Markup(f'<svg viewBox="0 0 {width:.0f} {height:.0f}" class="drawing chart" id="chart" role="img" '
                 f'aria-label="Power and range over speed of the setups; the table beside holds the figures">'
                 f'<title>Power and range over speed</title>{"".join(parts)}</svg>')
    return Chart(svg, top, low, x_max)
