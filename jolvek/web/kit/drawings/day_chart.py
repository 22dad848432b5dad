"""The day as pictures: charge over the clock with the legs as bands, and the way as a strip with
its points.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from markupsafe import Markup

from jolvek.core.base.messages import msg
from jolvek.core.day.getting_home import NoReturn
from jolvek.core.day.scenario import turn_index
from jolvek.core.day.voyage import Voyage
from jolvek.web.kit.display import Units
from jolvek.web.kit.drawings import axes
from jolvek.web.kit.drawings.axes import Frame, thousands
from jolvek.web.kit.drawings.charts import DASHES, marker
from jolvek.web.kit.drawings.svg import circle, line, path, picture, poly, rect, tag, text
from jolvek.web.kit.language import tr

TEXT_PX, TICK_PX, WORDS_PX = 11.0, 76.0, 118.0  # a line of text, a clock hour, an event's words
Span = tuple[float, float, float]  # what words take: from x to x, at y

_WORDS = {
    "warning": msg("15 min left"),
    "reserve": "reserve",
    "cut-back": msg("power cut back"),
    "swap": msg("spare in"),
    "empty": "empty",
    "no-way": msg("no way made"),
    "home": "home",
}


def clock(hour: float) -> str:
    """A clock hour as h:mm; past midnight with the day.

    >>> clock(9.5), clock(25.25)
    ('9:30', '1:15 next day')
    """
    minutes = round(hour * 60)
    text = f"{minutes // 60 % 24}:{minutes % 60:02d}"
    return text if minutes < 24 * 60 else tr("%(text)s next day", text=text)


def _spans(v: Voyage) -> list[tuple[int, float, float]]:
    """(leg, start s, end s) of each leg under way or waiting."""
    out = []
    for i in range(len(v.legs)):
        rows = np.nonzero(v.leg == i)[0]
        if rows.size:
            out.append((i, float(v.t_s[rows[0]]), float(v.t_s[min(rows[-1] + 1, v.t_s.size - 1)])))
    return out


@dataclass(frozen=True)
class DayLines:
    """What the chart shows: setups by letter, the one in hand, the day as planned (itself where
    nothing is asked), the ends of what it may be, when it begins in h, the share that stays.
    """

    voyages: dict[str, Voyage]
    hand: str
    planned: Voyage
    between: tuple[Voyage, Voyage]
    start_h: float
    kept: float

    @property
    def voyage(self) -> Voyage:
        """The day of the setup in hand."""
        return self.voyages[self.hand]


def day_chart(d: DayLines, width: float = 900.0, height: float = 330.0) -> Markup:
    """Charge of each setup over the clock, drawn for a width in px: the legs of the one in hand as
    bands, its doubt, its plan where that differs, its events; power and sun below.
    """
    v = d.voyage
    longest = max(float(x.t_s[-1]) for x in (*d.voyages.values(), d.planned)) / 3600 or 1.0
    top = Frame(46, width - 14, 216, 22, longest * 1.02, 100.0)
    low = Frame(46, width - 14, height - 30, 240, longest * 1.02, 1.0)
    y, kept = top.y(100 * d.kept), f"{100 * d.kept:.0f}"
    parts = [
        _bands(v, top),
        _axes(top, low, d.start_h, longest),
        _doubt(d, top),
        line(top.x0, y, top.x1, y, "reserve"),
        text(top.x0 + 4, y - 4, tr("reserve %(kept)s %%", kept=kept), "reservetext"),
        *(_charge(letter, voyage, top, y) for letter, voyage in d.voyages.items()),
        _power(v, low),
        _events(v, top, [] if d.planned is v else [_ending(*_named_plan(d, top))]),
    ]
    label = tr(
        "Charge over the clock for setup %(hand)s: %(left)s %% left after %(hours)s h; the table "
        "below lists what happens",
        hand=d.hand,
        left=f"{100 * v.left:.0f}",
        hours=f"{v.hours:.1f}",
    )
    return picture(width, height, "drawing chart day", label, parts, id="day-chart")


def _doubt(d: DayLines, f: Frame) -> str:
    """What the charge may be between, and the day as planned, dotted, where another is asked."""
    last = min(float(x.t_s[-1]) for x in (d.voyage, *(x for x in d.between if x.done)))
    t = np.linspace(0.0, last, 80)
    low, high = (100 * np.interp(t, x.t_s, x.soc) for x in d.between)
    out = axes.area(f, (t / 3600).tolist(), low.tolist(), high.tolist())
    if d.planned is d.voyage:
        return out
    pick = _some(d.planned)
    hours, charge = d.planned.t_s[pick] / 3600, 100 * d.planned.soc[pick]
    out += path(poly(f.way(hours.tolist(), charge.tolist())), "curve planned")
    words = tr("as planned %(left)s %%", left=f"{charge[-1]:.0f}")
    return out + text(*_named_plan(d, f), words, "", "end")


def _named_plan(d: DayLines, f: Frame) -> tuple[float, float]:
    """Where the name of the day as planned ends: over its line, at its end."""
    x = f.x(float(d.planned.t_s[-1]) / 3600)
    return x - 4, _above(d.planned, f, x - WORDS_PX, x) - 6


def _above(v: Voyage, f: Frame, x0: float, x1: float) -> float:
    """Picture y of the highest point of a curve between two picture x."""
    span = np.linspace(max(x0, f.x0), max(x1, f.x0 + 1), 12)
    t = 3600 * f.x_max * (span - f.x0) / (f.x1 - f.x0)
    return min(f.y(100 * float(soc)) for soc in np.interp(t, v.t_s, v.soc))


def _some(v: Voyage) -> np.ndarray:
    """Some 260 of the day's steps, the last among them: enough for a picture."""
    every = max(1, v.t_s.size // 260)
    return np.unique(np.append(np.arange(0, v.t_s.size, every), v.t_s.size - 1))


def _charge(letter: str, v: Voyage, frame: Frame, reserve_y: float) -> str:
    """One setup's charge over the clock, with its mark and what is left, clear of the reserve."""
    pick, name = _some(v), f"set-{letter}"
    steps = zip(v.t_s[pick], v.soc[pick], strict=True)
    points = ((frame.x(t / 3600), frame.y(100 * soc)) for t, soc in steps)
    x, y = frame.x(float(v.t_s[-1]) / 3600), frame.y(100 * v.left)
    words, under = f"{letter} {100 * v.left:.0f} %", y + 17
    if abs(under - 4 - reserve_y) < TEXT_PX:
        under = reserve_y + 15
    return (
        path(poly(points), f"curve {name}", stroke_dasharray=DASHES[letter] or None)
        + marker(letter, x, y, 4.5)
        + text(x - 8, under, words, f"name {name}", "end")
    )


def _bands(v: Voyage, frame: Frame) -> str:
    out = []
    for i, start, end in _spans(v):
        x0, x1 = frame.x(start / 3600), frame.x(end / 3600)
        name = v.legs[i].name or tr("leg %(i)s", i=i + 1)
        room = int((x1 - x0) / 7.4)
        words = name if len(name) <= room else name[: max(room - 1, 0)] + "…" if room > 3 else ""
        body = rect(x0, frame.y1, max(x1 - x0, 1), frame.y0 - frame.y1)
        body += text((x0 + x1) / 2, frame.y1 - 7, words, anchor="middle")
        out.append(tag("g", body, cls=f"legband{' is-odd' if i % 2 else ''}", data_leg=i + 1))
    return "".join(out)


def _axes(top: Frame, low: Frame, start_h: float, longest: float) -> str:
    most = max(2, int((top.x1 - top.x0) / TICK_PX))
    step = next(s for s in (0.25, 0.5, 1, 2, 3, 6, 12, 24, 48, 96, 1e9) if longest / s <= most)
    first = np.ceil(start_h / step) * step
    hours = np.arange(first, start_h + longest * 1.02, step).tolist()
    clocks = [(hour - start_h, clock(hour).replace(" next day", "")) for hour in hours]
    return (
        axes.below(low, clocks, to=top.y1)
        + axes.beside(top, axes.round_figures(100, step=25))
        + text(top.x0 + 4, top.y0 - 6, tr("charge, %"), "axis")
    )


def _power(v: Voyage, frame: Frame) -> str:
    """Power and sun below, as areas over the clock."""
    most, pick = max(float(v.power_w.max()), float(v.sun_w.max()), 1.0), _some(v)
    sunny = bool(v.sun_w.max() > 0)

    def area(values: np.ndarray) -> str:
        steps = "".join(
            f"H{frame.x(float(v.t_s[k]) / 3600):.1f}V{frame.y(float(values[k]) / most):.1f}"
            for k in pick
        )
        return f"M{frame.x0} {frame.y0}{steps}V{frame.y0}Z"

    return (
        path(area(v.power_w), "powerarea")
        + (path(area(v.sun_w), "sunarea") if sunny else "")
        + line(frame.x0, frame.y0, frame.x1, frame.y0, "grid")
        + text(frame.x0 - 6, frame.y1 + 8, thousands(most), anchor="end")
        + text(
            frame.x0 + 4,
            frame.y1 - 6,
            tr("power%(sunny)s, W", sunny=" and sun" if sunny else ""),
            "axis",
        )
    )


def _ending(x: float, y: float) -> Span:
    """What words take that end at a point."""
    return x - WORDS_PX, x, y


def _events(v: Voyage, frame: Frame, placed: list[Span]) -> str:
    """Marks on the curve, their words over it, stacked where they, or words placed before, meet."""
    out: list[str] = []
    for e in v.events:
        if e.kind not in _WORDS or e.kind == "home":
            continue
        x, y = frame.x(e.t_s / 3600), frame.y(100 * e.soc)
        ends = x > frame.x1 - WORDS_PX
        x0, x1 = (x - WORDS_PX, x) if ends else (x, x + WORDS_PX)
        lift = _above(v, frame, x0, x1) - 8
        while any(x0 < b and a < x1 and abs(lift - at) < 13 for a, b, at in placed):
            lift -= 14
        placed.append((x0, x1, lift))
        level = "block" if e.kind in ("empty", "no-way") else "caution"
        anchor, aside = ("end", 0) if ends else ("start", 6)
        body = circle(x, y, 4) + text(x + aside, lift, _WORDS[e.kind], anchor=anchor)
        out.append(tag("g", body, cls=f"event at-{level}"))
    return "".join(out)


@dataclass(frozen=True)
class _Way:
    """The strip's scale: how far it shows in m, and where."""

    far_m: float
    x1: float
    x0: float = 40.0
    y: float = 34.0

    def x(self, metres: float) -> float:
        return self.x0 + (self.x1 - self.x0) * min(metres / self.far_m, 1.0) / 1.04


def way_strip(
    v: Voyage, point: NoReturn, u: Units, width: float = 900.0, height: float = 88.0
) -> Markup:
    """The way from the quay outward: ends of legs, the turn, the last point from which she still
    gets home, where she stopped.
    """
    ends = np.cumsum([leg.metres for leg in v.legs[: turn_index(v.legs)]]).tolist()
    gone = ends[-1] if ends else 0.0
    w = _Way(max(gone, min(point.distance_m, 1.6 * gone), 1.0), width - 60)
    parts = [
        line(w.x0, w.y, w.x(w.far_m), w.y, "way"),
        path(f"M{w.x0} {w.y - 9}v18", "quay"),
        text(w.x0, w.y + 24, tr("quay"), anchor="middle"),
        *(circle(w.x(metres), w.y, 4, "stop") for metres in ends),
    ]
    if ends:
        turn = tr("turn, %(gone)s", gone=u.full(gone, "distance"))
        parts.append(text(w.x(gone), w.y + 24, turn, anchor="middle"))
    parts.append(_last_point(point, w, width, u))
    if not v.done:
        parts.append(_stopped(float(v.distance_m[-1]), gone, w))
    label = tr(
        "The way: turn at %(gone)s, last point from which the boat gets home at %(distance)s",
        gone=u.full(gone, "distance"),
        distance=u.full(point.distance_m, "distance"),
    )
    return picture(width, height, "drawing strip", label, parts)


def _last_point(point: NoReturn, w: _Way, width: float, u: Units) -> str:
    at, beyond = w.x(point.distance_m), point.distance_m > w.far_m * 1.001
    words = tr(
        "last point home: %(distance)s%(beyond)s",
        distance=u.full(point.distance_m, "distance"),
        beyond=" →" if beyond else "",
    )
    mark = path(f"M{at:.1f} {w.y}l-6 -12h12z", f"lastpoint{'' if point.safe else ' is-bad'}")
    anchor = "end" if at > width - 200 else "start" if at < 160 else "middle"
    return mark + text(min(at, width - 8), w.y - 17, words, anchor=anchor)


def _stopped(ran_m: float, turn_m: float, w: _Way) -> str:
    """Where she stops short of home."""
    x = w.x(abs(ran_m - 2 * turn_m) if ran_m > turn_m else ran_m)
    cross = path(f"M{x - 5:.1f} {w.y - 5}l10 10m0 -10l-10 10", "stopped")
    return cross + text(x, w.y + 38, tr("stops here"), "stoptext", "middle")
