"""The axes every chart stands on: a frame, lines at round figures, curves and areas over it."""

from __future__ import annotations

from collections.abc import Iterable, Sequence
from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from jolvek.web.kit.drawings.svg import line, path, picture, poly, tag, text
from jolvek.web.kit.language import decimal

INK, GREY, SAND = "#22292C", "#CCCCCC", "#DDD6C8"  # as on paper; the pages' CSS stands above them
_TYPE = {"fill": INK, "stroke": "none", "font_size": "12", "font_family": "Text, sans-serif"}

Labels = Iterable[tuple[float, object]]  # values with what stands beside their line


@dataclass(frozen=True)
class Frame:
    """Where a panel lies in the picture and how values map to it."""

    x0: float
    x1: float
    y0: float  # bottom
    y1: float  # top
    x_max: float
    y_max: float
    x_min: float = 0.0
    y_min: float = 0.0

    def x(self, value: float) -> float:
        """Picture x of a value."""
        return self.x0 + (self.x1 - self.x0) * (value - self.x_min) / (self.x_max - self.x_min)

    def y(self, value: float) -> float:
        """Picture y of a value, kept inside the panel."""
        share = (value - self.y_min) / (self.y_max - self.y_min)
        return self.y0 - (self.y0 - self.y1) * min(max(share, 0.0), 1.0)

    def way(self, xs: Iterable[float], ys: Iterable[float]) -> list[tuple[float, float]]:
        """Picture points of values."""
        return [(self.x(x), self.y(y)) for x, y in zip(xs, ys, strict=True)]


def nice_step(span: float, most: int = 6) -> float:
    """A step of 1, 2, 2.5 or 5 times a power of ten that gives at most `most` ticks.

    >>> nice_step(2300), nice_step(5.2)
    (500.0, 1.0)
    """
    raw = max(span, 1e-9) / most
    power = 10.0 ** np.floor(np.log10(raw))
    return float(next(m * power for m in (1, 2, 2.5, 5, 10) if m * power >= raw * 0.999))


def thousands(value: float) -> str:
    """A whole number with thin spaces.

    >>> thousands(12500.2)
    '12\u202f500'
    """
    return f"{value:,.0f}".replace(",", "\u202f")


def round_figures(span: float, most: int = 6, step: float | None = None) -> list[tuple[float, str]]:
    """Values from zero at a nice step, with their figures in the language of the page.

    >>> round_figures(2.2, 5)
    [(0.0, '0'), (0.5, '0.5'), (1.0, '1'), (1.5, '1.5'), (2.0, '2')]
    """
    step = step or nice_step(span, most)
    values = (i * step for i in range(int(span / step * 1.0001) + 1))
    return [(v, thousands(v) if step >= 1 and step % 1 == 0 else decimal(f"{v:g}")) for v in values]


def below(f: Frame, labels: Labels, lines: bool = True, to: float | None = None) -> str:
    """Figures under the panel, with a line up through it (from picture y `to`) at each."""
    out = []
    for value, words in labels:
        x = f.x(value)
        if lines:
            out.append(line(x, f.y1 if to is None else to, x, f.y0, "grid"))
        out.append(_figure(x, f.y0 + 15, words, "middle"))
    return tag("g", "".join(out), stroke=GREY)


def beside(f: Frame, labels: Labels) -> str:
    """Figures left of the panel, with a line across it at each."""
    out = []
    for value, words in labels:
        y = f.y(value)
        out += [line(f.x0, y, f.x1, y, "grid"), _figure(f.x0 - 6, y + 4, words, "end")]
    return tag("g", "".join(out), stroke=GREY)


def _figure(x: float, y: float, words: object, anchor: str) -> str:
    return tag("g", text(x, y, words, "tick", anchor), stroke="none") if words != "" else ""


def names(f: Frame, x: str = "", y: str = "", drop: float = 31.0) -> str:
    """What the axes show, with units: under the right end, and over the left one."""
    out = text(f.x0 + 4, f.y1 - 6, y, "axis") if y else ""
    return out + (text(f.x1, f.y0 + drop, x, "axis", "end") if x else "")


def curve(f: Frame, xs: Iterable[float], ys: Iterable[float], cls: str, **pen: object) -> str:
    """A line through values."""
    return path(poly(f.way(xs, ys)), cls, "", fill="none", stroke=INK, **pen)


def area(f: Frame, xs: Sequence[float], low: Iterable[float], high: Iterable[float]) -> str:
    """What lies between two curves, as a band."""
    corners = [*f.way(xs, high), *f.way(xs, low)[::-1]]
    return path(poly(corners, True), "promise-band", "", fill=SAND)


def small(width: float, height: float, cls: str, label: str, parts: Iterable[str]) -> Markup:
    """A chart that stands in a column or on paper, in ink of its own."""
    return picture(width, height, cls, label, [tag("g", "".join(parts), **_TYPE)])
