"""The day as pictures: charge over the clock with the legs as bands, and the way as a strip with
its points.
"""

from __future__ import annotations

import numpy as np
from markupsafe import Markup, escape

from jolvek.core.day.getting_home import NoReturn
from jolvek.core.day.otherwise import turn_index
from jolvek.core.day.voyage import Event, Voyage
from jolvek.web.drawings.charts import DASHES, Frame, marker
from jolvek.web.view.display import Units

_WORDS = {
    "warning": "15 min left",
    "reserve": "reserve",
    "cut-back": "power cut back",
    "swap": "spare in",
    "empty": "empty",
    "no-way": "no way made",
    "home": "home",
}


def clock(hour: float) -> str:
    """A clock hour as h:mm; past midnight with the day.

    >>> clock(9.5), clock(25.25)
    ('9:30', '1:15 next day')
    """
    minutes = round(hour * 60)
    text = f"{minutes // 60 % 24}:{minutes % 60:02d}"
    return text if minutes < 24 * 60 else f"{text} next day"


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
    top, low = (
        Frame(46, width - 14, 216, 22, longest * 1.02, 100.0),
        Frame(46, width - 14, height - 30, 240, longest * 1.02, 1.0),
    )
    parts = [_bands(v, top), _axes(top, low, start_h, longest)]
    y = top.y(100 * kept)
    parts.append(
        f'<line x1="{top.x0}" x2="{top.x1}" y1="{y:.1f}" y2="{y:.1f}" class="reserve"/><text'
        f' x="{top.x0 + 4}" y="{y - 4:.1f}" class="reservetext">reserve {100 * kept:.0f} %</text>'
    )
    for letter, x in voyages.items():
        every = max(1, x.t_s.size // 260)
        pick = np.unique(np.append(np.arange(0, x.t_s.size, every), x.t_s.size - 1))
        line = "L".join(
            f"{top.x(t / 3600):.1f} {top.y(100 * s):.1f}"
            for t, s in zip(x.t_s[pick], x.soc[pick], strict=True)
        )
        dash = f' stroke-dasharray="{DASHES[letter]}"' if DASHES[letter] else ""
        parts.append(f'<path d="M{line}" class="curve set-{letter}"{dash}/>')
        end_x, end_y = top.x(float(x.t_s[-1]) / 3600), top.y(100 * x.left)
        parts.append(
            marker(letter, end_x, end_y, 4.5)
            + f'<text x="{end_x - 8:.1f}" y="{end_y + 17:.1f}" text-anchor="end" '
            f'class="name set-{letter}">{letter} {100 * x.left:.0f} %</text>'
        )
    parts += [_power(v, low), _events(v.events, top)]
    label = escape(
        f"Charge over the clock for setup {hand}: {100 * v.left:.0f} % left after {v.hours:.1f} h;"
        " the table below lists what happens"
    )
    return Markup(
        f'<svg viewBox="0 0 {width:.0f} {height:.0f}" class="drawing chart day" id="day-chart"'
        f' role="img" aria-label="{label}"><title>{label}</title>{"".join(parts)}</svg>'
    )


def _bands(v: Voyage, frame: Frame) -> str:
    out = []
    for i, start, end in _spans(v):
        x0, x1 = frame.x(start / 3600), frame.x(end / 3600)
        name = v.legs[i].name or f"leg {i + 1}"
        room = int((x1 - x0) / 7.4)
        text = name if len(name) <= room else name[: max(room - 1, 0)] + "…" if room > 3 else ""
        out.append(
            f'<g class="legband{" is-odd" if i % 2 else ""}" data-leg="{i + 1}"><rect x="{x0:.1f}"'
            f' y="{frame.y1}" width="{max(x1 - x0, 1):.1f}" height="{frame.y0 - frame.y1}"/><text'
            f' x="{(x0 + x1) / 2:.1f}" y="{frame.y1 - 7}"'
            f' text-anchor="middle">{escape(text)}</text></g>'
        )
    return "".join(out)


def _axes(top: Frame, low: Frame, start_h: float, longest: float) -> str:
    step = next(s for s in (0.25, 0.5, 1, 2, 3, 6, 12, 24, 48, 96, 1e9) if longest / s <= 11)
    first = np.ceil(start_h / step) * step
    out = []
    for hour in np.arange(first, start_h + longest * 1.02, step):
        x = top.x(float(hour - start_h))
        out.append(
            f'<line x1="{x:.1f}" x2="{x:.1f}" y1="{top.y1}" y2="{low.y0}" class="grid"/><text'
            f' x="{x:.1f}" y="{low.y0 + 15}"'
            f' text-anchor="middle">{clock(float(hour)).replace(" next day", "")}</text>'
        )
    for percent in (0, 25, 50, 75, 100):
        y = top.y(percent)
        out.append(
            f'<line x1="{top.x0}" x2="{top.x1}" y1="{y:.1f}" y2="{y:.1f}" class="grid"/>'
            f'<text x="{top.x0 - 6}" y="{y + 4:.1f}" text-anchor="end">{percent}</text>'
        )
    return "".join(out) + f'<text x="{top.x0 + 4}" y="{top.y0 - 6}" class="axis">charge, %</text>'


def _power(v: Voyage, frame: Frame) -> str:
    most = max(float(v.power_w.max()), float(v.sun_w.max()), 1.0)
    every = max(1, v.t_s.size // 260)
    pick = np.unique(np.append(np.arange(0, v.t_s.size, every), v.t_s.size - 1))

    def area(values: np.ndarray) -> str:
        steps = "".join(
            f"H{frame.x(float(v.t_s[k]) / 3600):.1f}V{frame.y(float(values[k]) / most):.1f}"
            for k in pick
        )
        return f"M{frame.x0} {frame.y0}{steps}V{frame.y0}Z"

    sun = f'<path d="{area(v.sun_w)}" class="sunarea"/>' if v.sun_w.max() > 0 else ""
    base = f'<line x1="{frame.x0}" x2="{frame.x1}" y1="{frame.y0}" y2="{frame.y0}" class="grid"/>'
    return (
        f'<path d="{area(v.power_w)}" class="powerarea"/>{sun}{base}'
        f'<text x="{frame.x0 - 6}" y="{frame.y1 + 8}" text-anchor="end">{most:,.0f}</text>'.replace(
            ",", "\u202f"
        )
        + f'<text x="{frame.x0 + 4}" y="{frame.y1 - 6}"'
        f' class="axis">power{" and sun" if sun else ""}, W</text>'
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
        out.append(
            f'<g class="event is-{level}"><circle cx="{x:.1f}" cy="{y:.1f}" r="4"/><text'
            f' x="{x + aside:.1f}" y="{lift:.1f}"'
            f' text-anchor="{anchor}">{_WORDS[e.kind]}</text></g>'
        )
    return "".join(out)


def way_strip(
    v: Voyage, point: NoReturn, u: Units, width: float = 900.0, height: float = 74.0
) -> Markup:
    """The way from the quay outward: ends of legs, the turn, the last point from which she still
    gets home, where she stopped.
    """
    turn = turn_index(v.legs)
    ends, gone = [], 0.0
    for leg in v.legs[:turn]:
        gone += leg.metres
        ends.append((leg.name, gone))
    far = max(gone, min(point.distance_m, 1.6 * gone), 1.0)
    x0, x1, y = 40.0, width - 60.0, 34.0

    def x(metres: float) -> float:
        return x0 + (x1 - x0) * min(metres / far, 1.0) / 1.04

    parts = [
        f'<line x1="{x0}" x2="{x(far):.1f}" y1="{y}" y2="{y}" class="way"/><path d="M{x0}'
        f' {y - 9}v18" class="quay"/><text x="{x0}" y="{y + 24}" text-anchor="middle">quay</text>'
    ]
    for _, metres in ends:
        parts.append(f'<circle cx="{x(metres):.1f}" cy="{y}" r="4" class="stop"/>')
    if ends:
        words = escape(f"turn, {u.full(gone, 'distance')}")
        parts.append(f'<text x="{x(gone):.1f}" y="{y + 24}" text-anchor="middle">{words}</text>')
    at = x(point.distance_m)
    beyond = point.distance_m > far * 1.001
    words = escape(f"last point home: {u.full(point.distance_m, 'distance')}")
    bad, anchor = "" if point.safe else " is-bad", "end" if at > width - 200 else "middle"
    parts.append(
        f'<path d="M{at:.1f} {y}l-6 -12h12z" class="lastpoint{bad}"/><text'
        f' x="{min(at, width - 8):.1f}" y="{y - 17}"'
        f' text-anchor="{anchor}">{words}{" →" if beyond else ""}</text>'
    )
    if not v.done:
        ran = float(v.distance_m[-1])
        back = abs(ran - 2 * gone) if ran > gone else ran
        parts.append(
            f'<path d="M{x(back) - 5:.1f} {y - 5}l10 10m0 -10l-10 10" class="stopped"/><text'
            f' x="{x(back):.1f}" y="{y + 38}" text-anchor="middle" class="stoptext">stops'
            " here</text>"
        )
    label = escape(
        f"The way: turn at {u.full(gone, 'distance')}, last point from which she gets home at "
        f"{u.full(point.distance_m, 'distance')}"
    )
    return Markup(
        f'<svg viewBox="0 0 {width:.0f} {height:.0f}" class="drawing strip" role="img"'
        f' aria-label="{label}"><title>{label}</title>{"".join(parts)}</svg>'
    )
