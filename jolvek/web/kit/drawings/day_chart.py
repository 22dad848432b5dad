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
from jolvek.core.day.voyage import Event, Voyage
from jolvek.web.kit.display import Units
from jolvek.web.kit.drawings import axes
from jolvek.web.kit.drawings.axes import Frame, thousands
from jolvek.web.kit.drawings.charts import DASHES, marker
from jolvek.web.kit.drawings.svg import circle, line, path, picture, poly, rect, tag, text
from jolvek.web.kit.language import tr

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


def day_chart(
    voyages: dict[str, Voyage],
    hand: str,
    start_h: float,
    kept: float,
    width: float = 900.0,
    height: float = 330.0,
) -> Markup:
    """Charge of each setup over the clock, the legs of the one in hand as bands, its events marked,
    power and sun below.
    """
    v = voyages[hand]
    longest = max(float(x.t_s[-1]) for x in voyages.values()) / 3600 or 1.0
    top = Frame(46, width - 14, 216, 22, longest * 1.02, 100.0)
    low = Frame(46, width - 14, height - 30, 240, longest * 1.02, 1.0)
    y = top.y(100 * kept)
    parts = [
        _bands(v, top),
        _axes(top, low, start_h, longest),
        line(top.x0, y, top.x1, y, "reserve"),
        text(top.x0 + 4, y - 4, tr("reserve %(kept)s %%", kept=f"{100 * kept:.0f}"), "reservetext"),
        *(_charge(letter, voyage, top) for letter, voyage in voyages.items()),
        _power(v, low),
        _events(v.events, top),
    ]
    label = tr(
        "Charge over the clock for setup %(hand)s: %(left)s %% left after %(hours)s h; the table "
        "below lists what happens",
        hand=hand,
        left=f"{100 * v.left:.0f}",
        hours=f"{v.hours:.1f}",
    )
    return picture(width, height, "drawing chart day", label, parts, id="day-chart")


def _some(v: Voyage) -> np.ndarray:
    """Some 260 of the day's steps, the last among them: enough for a picture."""
    every = max(1, v.t_s.size // 260)
    return np.unique(np.append(np.arange(0, v.t_s.size, every), v.t_s.size - 1))


def _charge(letter: str, v: Voyage, frame: Frame) -> str:
    """One setup's charge over the clock, with its mark and what is left."""
    pick, name = _some(v), f"set-{letter}"
    steps = zip(v.t_s[pick], v.soc[pick], strict=True)
    points = ((frame.x(t / 3600), frame.y(100 * soc)) for t, soc in steps)
    x, y = frame.x(float(v.t_s[-1]) / 3600), frame.y(100 * v.left)
    words = f"{letter} {100 * v.left:.0f} %"
    return (
        path(poly(points), f"curve {name}", stroke_dasharray=DASHES[letter] or None)
        + marker(letter, x, y, 4.5)
        + text(x - 8, y + 17, words, f"name {name}", "end")
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
    step = next(s for s in (0.25, 0.5, 1, 2, 3, 6, 12, 24, 48, 96, 1e9) if longest / s <= 11)
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


def _events(events: tuple[Event, ...], frame: Frame) -> str:
    """Marks on the curve, their words stacked where they come close together."""
    out: list[str] = []
    placed: list[tuple[float, float]] = []
    for e in events:
        if e.kind not in _WORDS or e.kind == "home":
            continue
        x, y = frame.x(e.t_s / 3600), frame.y(100 * e.soc)
        lift = y - 10
        while any(abs(x - px) < 125 and abs(lift - py) < 13 for px, py in placed):
            lift -= 14
        placed.append((x, lift))
        level = "block" if e.kind in ("empty", "no-way") else "caution"
        anchor, aside = ("end", -6) if x > frame.x1 - 110 else ("start", 6)
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
    v: Voyage, point: NoReturn, u: Units, width: float = 900.0, height: float = 74.0
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
