"""Curves of several setups in one SVG: two panels over one axis, one cursor through both."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from jolvek.web.kit.drawings import axes as axis
from jolvek.web.kit.drawings.axes import Frame, nice_step
from jolvek.web.kit.drawings.svg import circle, line, path, picture, poly, rect, tag, text
from jolvek.web.kit.language import decimal, tr

TICK_PX = 80.0  # room for a figure of the axis
LETTER_H, LETTER_W = 17.0, 8.2  # of the figures' face
SMALL = 100  # of a figure: below it a tenth is told

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


def marker(letter: str, x: float, y: float, r: float = 5.5) -> str:
    """The setup's own marker: circle, triangle, square, diamond, cross."""
    if letter == "A":
        shape = circle(x, y, r)
    elif letter == "C":
        shape = rect(x - r * 0.9, y - r * 0.9, 1.8 * r, 1.8 * r)
    else:
        d = 2 * r
        start, way = {
            "B": ((x, y - r * 1.15), f"l{r * 1.1:.1f} {r * 2:.1f}h{-2.2 * r:.1f}z"),
            "D": (
                (x, y - r * 1.25),
                f"l{r * 1.2:.1f} {r * 1.25:.1f}l{-r * 1.2:.1f} {r * 1.25:.1f}"
                f"l{-r * 1.2:.1f} {-r * 1.25:.1f}z",
            ),
            "E": (
                (x - r, y - r),
                f"l{d:.1f} {d:.1f}m0 {-d:.1f}l{-d:.1f} {d:.1f}",
            ),
        }[letter]
        shape = path(f"M{start[0]:.1f} {start[1]:.1f}{way}", "cross" if letter == "E" else None)
    return tag("g", shape, cls=f"mark set-{letter}")


def badge(letter: str) -> Markup:
    """Marker and letter for headings and tables."""
    size = {"width": "14", "height": "14"}
    mark = marker(letter, 8, 8, 6)
    svg = tag("svg", mark, cls="badge", viewBox="0 0 16 16", **size, aria_hidden="true")
    return Markup(svg + tag("span", letter, cls=f"letter set-{letter}"))


@dataclass(frozen=True)
class _Panels:
    """Both panels and the steps of their grids."""

    top: Frame
    low: Frame
    step_x: float
    step_top: float
    step_low: float


@dataclass(frozen=True)
class Chart:
    """The picture and what the cursor script needs to know of it."""

    svg: Markup
    frame: Frame
    low: Frame
    x_max: float


def _ceiling(value: float, step: float) -> float:
    return float(np.ceil(value / step) * step)


def _panels(series: list[Series], axes: Axes, width: float, height: float) -> _Panels:
    """The two panels with steps that fit what is shown."""
    furthest = max((s.x[-1] for s in series if s.x), default=5.0) * 1.06
    highest = max((max(s.top) for s in series if s.top), default=1e-6)
    if axes.plate and axes.plate < 2.2 * highest:
        highest = max(highest, axes.plate * 1.04)
    lowers = [
        max(s.low) if axes.low_rises else float(np.interp(0.62 * s.x[-1], s.x, s.low))
        for s in series
        if s.low
    ]
    most_low = max(lowers, default=1.0) * (1.04 if axes.low_rises else 1.1) or 1.0
    step_x = nice_step(furthest, max(3, int(width / TICK_PX)))
    step_t, step_l = nice_step(highest, 5), nice_step(most_low, 4)
    x_max, split = _ceiling(furthest, step_x / 2), height * 0.60
    top = Frame(52, width - 22, split, 20, x_max, _ceiling(highest * 1.03, step_t / 2))
    low = Frame(52, width - 22, height - 34, split + 26, x_max, _ceiling(most_low, step_l))
    return _Panels(top, low, step_x, step_t, step_l)


def compare(series: list[Series], axes: Axes, width: float = 570.0, height: float = 452.0) -> Chart:
    """Both panels with one cursor through them, drawn where it stands and moved by the script."""
    p = _panels(series, axes, width, height)
    parts = [
        axis.below(p.low, axis.round_figures(p.low.x_max, step=p.step_x), to=p.top.y1),
        axis.beside(p.top, axis.round_figures(p.top.y_max, step=p.step_top)),
        axis.beside(p.low, axis.round_figures(p.low.y_max, step=p.step_low)),
        *_marks(p.top, p.low, axes, width),
    ]
    for s in series:
        parts += _drawn(s, p.top, p.low)
    parts += _letters(series, p.top)
    for frame, words, y in ((p.top, axes.top, p.top.y1 + 12), (p.low, axes.low, p.low.y1 - 5)):
        parts.append(text(frame.x0 + 5, y, words, "axis"))
    parts.append(_cursor(p, axes))
    parts.append(text(p.low.x1, height - 4, axes.x, "axis", "end"))
    label = tr(
        "%(top)s and %(low)s over %(axes)s; the table beside holds the figures",
        top=axes.top,
        low=axes.low,
        axes=axes.x,
    )
    svg = picture(width, height, "drawing chart", label, parts, id="chart")
    return Chart(svg, p.top, p.low, p.top.x_max)


def _cursor(p: _Panels, axes: Axes) -> str:
    """The cursor with its grip and flag."""
    x = p.top.x(axes.cursor) if axes.cursor else p.top.x0
    at = axes.cursor or 0.0
    places = 1 if at < SMALL else 0
    words = f"{decimal(f'{at:.{places}f}')} {axes.unit}"
    body = (
        line(0, p.top.y1, 0, p.low.y0, "cursor")
        + path(f"M0 {p.low.y0 + 1:.1f}l6 8h-12z", "grip")
        + rect(-37, 0, 74, 19, "flag", rx=2)
        + tag("text", words, y=14, text_anchor="middle", cls="flagtext", id="cursor-text")
    )
    return tag("g", body, id="cursor", transform=f"translate({x:.1f} 0)")


def _marks(top: Frame, low: Frame, axes: Axes, width: float) -> list[str]:
    """Hull speed, speed limit, the plate; a label goes below what stands where it would."""
    out, rows = [], [(top.y1 + 12, top.x0 + 5 + LETTER_W * len(axes.top))]  # taken up to there
    if axes.plate and axes.plate <= top.y_max:
        y = top.y(axes.plate)
        words_y = y - 5 if y > top.y1 + 32 else max(y + 14, top.y1 + 27)
        out.append(line(top.x0, y, top.x1, y, "plate"))
        out.append(text(top.x0 + 6, words_y, axes.plate_label, "platetext"))
        rows.append((words_y, top.x0 + 6 + LETTER_W * len(axes.plate_label)))
    for i, (value, label) in enumerate(axes.verticals):
        if value >= top.x_max:
            continue
        x = top.x(value)
        aside, anchor = (4, "start") if x < width - 150 else (-4, "end")
        begins = x + 4 if anchor == "start" else x - 4 - LETTER_W * len(label)
        at_y = top.y1 + 12 + 14 * i
        while any(abs(at_y - row) < LETTER_H and begins < ends for row, ends in rows):
            at_y += 14
        rows.append((at_y, begins + LETTER_W * len(label)))
        out.append(line(x, top.y1, x, low.y0, "hullspeed" if i == 0 else "limit"))
        out.append(text(x + aside, at_y, label, "tick", anchor))
    return out


def _band(s: Series, frame: Frame) -> str:
    """The uncertainty of the upper curve as an area."""
    if s.band is None:
        return ""
    there = list(zip(s.band[0], s.top, strict=True))
    back = reversed(list(zip(s.band[1], s.top, strict=True)))
    corners = ((frame.x(min(x, frame.x_max)), frame.y(y)) for x, y in (*there, *back))
    return path(poly(corners, close=True), f"band set-{s.letter}")


def _meet(one: tuple[float, float, str], other: tuple[float, float, str]) -> bool:
    return abs(one[0] - other[0]) < LETTER_H and abs(one[1] - other[1]) < 2 * LETTER_H


def _letters(series: list[Series], top: Frame) -> list[str]:
    """The setups' letters beside the ends of their curves, one under the other where they meet."""
    ends = sorted((top.y(s.top[-1]), top.x(s.x[-1]), s.letter) for s in series)
    meeting: list[list[tuple[float, float, str]]] = []
    for end in ends:
        near = next((group for group in meeting if any(_meet(x, end) for x in group)), None)
        if near is None:
            meeting.append([end])
        else:
            near.append(end)
    placed: list[tuple[float, float, str]] = []
    for group in meeting:
        x = max(end[1] for end in group) + 9
        first = sum(end[0] for end in group) / len(group) - LETTER_H * (len(group) - 1) / 2
        for i, (_, _, letter) in enumerate(group):
            y = first + LETTER_H * i
            while any(_meet((y, x, ""), one) for one in placed):
                y += LETTER_H / 2
            placed.append((y, x, letter))
    return [text(x, y + 4, letter, f"name set-{letter}") for y, x, letter in placed]


def _drawn(s: Series, top: Frame, low: Frame) -> list[str]:
    """One setup's curves, knee, band and end marks."""
    dash, name = DASHES[s.letter] or None, f"set-{s.letter}"

    def curve(frame: Frame, xs: list[float], ys: list[float], kind: str = "curve") -> str:
        points = ((frame.x(x), frame.y(y)) for x, y in zip(xs, ys, strict=True))
        return path(poly(points), f"{kind} {name}", stroke_dasharray=dash)

    out = [_band(s, top), curve(top, s.x, s.top)]
    if s.second:
        out.append(curve(top, s.x, s.second, "curve thin"))
    inside = [(x, y) for x, y in zip(s.x, s.low, strict=False) if y <= low.y_max]
    if inside:
        out.append(curve(low, [p[0] for p in inside], [p[1] for p in inside]))
    if s.knee and s.knee[0] <= top.x_max:
        x, y = top.x(s.knee[0]), top.y(s.knee[1])
        out.append(path(f"M{x:.1f} {y - 6:.1f}l6 6l-6 6l-6 -6z", f"knee {name}"))
    x, y = top.x(s.x[-1]), top.y(s.top[-1])
    out.append(marker(s.letter, x, y))
    if s.low and s.low[-1] <= low.y_max:
        out.append(marker(s.letter, x, low.y(s.low[-1]), 4.2))
    return out
