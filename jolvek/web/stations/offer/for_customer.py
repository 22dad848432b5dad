"""What the customer reads first: their day in a sentence, three figures, setups beside each other,
and what the sliders of their page step through.
"""

from __future__ import annotations

from collections.abc import Callable, Iterable
from dataclasses import replace
from functools import lru_cache
from typing import Any

import numpy as np

from jolvek.core.base.units import hours
from jolvek.core.day.scenario import Switches
from jolvek.core.day.seas import seas
from jolvek.core.day.stepped import sail_out
from jolvek.core.day.voyage import Voyage
from jolvek.core.fit.fitted import Fitted
from jolvek.core.predict.performance import Point
from jolvek.web.kit.display import Units, long_hours
from jolvek.web.kit.drawings.axes import thousands
from jolvek.web.kit.drawings.charge_picture import charge_picture
from jolvek.web.kit.drawings.day_chart import clock
from jolvek.web.kit.drawings.pictures import setup_view
from jolvek.web.kit.figures import fig, marked
from jolvek.web.kit.language import tr
from jolvek.web.kit.worked import Worked
from jolvek.web.stations.day_out.text import sentence, setting_out

WINDS_M_S = (3.0, 6.0, 9.0, 12.0)
SPEEDS = 12
SAME_M_S = 0.02


def plain(text: str) -> str:
    """A sentence without the marks of what is to be stressed."""
    return text.replace("*", "")


def headline(w: Worked, u: Units) -> str:
    """The customer's day with one setup, in one sentence; `*words*` are the ones to stress."""
    return f"{_day(w, u)} {setting_out(w.job.day)}".strip().replace(" %", "\u00a0%")


def _day(w: Worked, u: Units) -> str:
    out, v = w.job.day, w.job.day.planned
    if not v.done:
        ends = sentence(v, out.need.day.start_h, u, w.letter)
        return tr("*Your whole day is too long* for one charge. %(ends)s", ends=ends)
    values: dict[str, Any] = {
        "left": fig(w.job, "day.left", u, False),
        "end": marked(w.letter, "day.end", clock(out.need.day.start_h + v.hours)),
        "way": _way(w, u),
    }
    if not v.home:
        return tr(
            "Your boat gets home from *your day*, %(way)s, but with *%(left)s %%* of the charge:"
            " less than the %(kept)s %% that should stay.",
            kept=f"{100 * out.kept:.0f}",
            **values,
        )
    if not out.between[0].done:
        return tr(
            "Your boat does *your day*: %(way)s, home at %(end)s with *%(left)s %%* of the charge."
            " If it takes more power than expected, it may not get home.",
            **values,
        )
    return tr(
        "Your boat does *your day*: %(way)s, home at %(end)s with *%(left)s %%* of the charge,"
        " likely %(low)s to %(high)s %%.",
        low=fig(w.job, "day.left.low", u, False),
        high=fig(w.job, "day.left.high", u, False),
        **values,
    )


def _way(w: Worked, u: Units) -> str:
    """How far, and how fast where one speed is asked for all of it."""
    far = fig(w.job, "day.far", u)
    if len({leg.speed_m_s for leg in w.fitted.need.day.trip}) != 1:
        return str(far)
    return tr("%(far)s at *%(speed)s*", far=far, speed=fig(w.job, "wish.speed", u))


def _at(w: Worked, at: Point, u: Units, asked: bool) -> dict[str, str]:
    """Speed, running time and range of one way of running, each with what it may be between. At a
    speed that is asked, time and range follow what it may take; at full power the speed is open.
    """
    d, speed = w.fitted.doubt, float(at.speed_m_s or 0.0)
    power, time, far = (float(x or 0.0) for x in (at.power_w, at.runtime_s, at.range_m))
    ways = [float(x) for x in (d.range_band_m(speed) if asked else d.way_band_m(power))]
    seconds = [x * time / max(far, 1e-9) for x in ways]
    return {
        "speed": u.number(speed, "speed"),
        "speed_band": "" if asked else _between(d.speed_band_m_s(power), u, "speed"),
        "time": hours(time),
        "time_band": _band(hours(x) for x in seconds) if asked else "",
        "range": u.number(far, "distance"),
        "range_band": _between(ways, u, "distance"),
    }


def _between(ends: Iterable[Any], u: Units, quantity: str) -> str:
    return _band(u.number(float(x), quantity) for x in ends)


def _band(ends: Iterable[str]) -> str:
    """From what to what; nothing where both read the same."""
    low, high = ends
    return "" if low == high else f"{low}–{high}"


def pictures(w: Worked) -> dict[str, str]:
    """The boat with the setup, and its charge over the day."""
    return {"drawing": str(setup_view(w)), "charge": str(charge_picture(w.job.day))}


def turned(w: Worked, u: Units) -> dict[str, Any]:
    """What the sliders of the customer's page step through, and where the first one begins."""
    top, wish = w.performance.top_speed_m_s, float(w.wish_or_top_m_s)
    away = [v for v in np.linspace(0.25 * top, top, SPEEDS).tolist() if abs(v - wish) > SAME_M_S]
    speeds = sorted([*away, wish])
    points = [(v, w.performance.at_speed(v)) for v in speeds]
    known = [(v, at) for v, at in points if at.runtime_s is not None and at.range_m is not None]
    day = w.fitted.need.day
    planned = max((abs(leg.wind_m_s or 0.0) for leg in day.trip), default=0.0)
    first = (tr("As planned"), plain(sentence(w.job.day.planned, day.start_h, u, w.letter)))
    windier = [
        (tr("%(wind)s of wind", wind=u.full(x, "speed", 0)), windy(w, x, u))
        for x in WINDS_M_S
        if x > planned
    ]
    return {
        "winds": [{"wind": wind, "told": result} for wind, result in [first, *windier]],
        "speeds": [_at(w, at, u, v < top * (1 - 1e-6)) for v, at in known],
        "asked": sum(v < wish for v, _ in known),
    }


def described(w: Worked) -> list[str]:
    """What each bought part is, for a reader who knows no makers: in the order of the lines."""
    f = w.fitted
    bank, shaft = f.battery.spec, w.pinned.shaft_m
    charges = f.charge_h and long_hours(f.charge_h * 3600)
    words = {
        "motor": [
            tr("motor, %(power)s W", power=thousands(f.motor.spec.input_power_w)),
            tr("shaft %(mm)s mm", mm=f"{1000 * shaft:.0f}") if shaft else "",
        ],
        "battery": [
            tr(
                "battery, %(volts)s V %(amps)s Ah",
                volts=f"{bank.nominal_voltage_v:g}",
                amps=f"{bank.capacity_ah:g}",
            )
        ],
        "mount": [tr("mount")],
        "charger": [tr("charger"), tr("full in %(time)s", time=charges) if charges else ""],
    }
    kinds = [x.kind for x in (*w.pinned.parts, *w.pinned.extras)]
    return [", ".join(x for x in words.get(kind, []) if x) for kind in kinds]


@lru_cache(maxsize=128)
def _in_wind(fitted: Fitted, wind_m_s: float) -> Voyage:
    need, day = fitted.need, fitted.need.day
    if not day.legs:  # as Waters has it: against the boat on the way home, or all day
        return sail_out(replace(fitted, need=replace(need, day=replace(day, wind_m_s=wind_m_s))))
    return sail_out(fitted, Switches(wind_m_s=wind_m_s, wind_from_h=day.start_h))


def windy(w: Worked, wind_m_s: float, u: Units) -> str:
    """The day in a wind: to stay ashore where wind or waves are too much for the boat, whatever the
    battery says; else how it ends.
    """
    day = w.fitted.need.day
    legs = tuple(replace(leg, wind_m_s=wind_m_s) for leg in day.trip)
    stops = [f for f in seas(w.fitted, legs).findings if f.level == "block"]
    if stops:
        return tr("Stay ashore: %(why)s", why=u.rendered(stops[0]).text)
    return plain(sentence(_in_wind(w.fitted, wind_m_s), day.start_h, u))


def _asked(w: Worked) -> bool:
    """Whether it reaches the wanted speed with something to spare."""
    return w.wish_or_top_m_s < w.performance.top_speed_m_s * (1 - 1e-6)


def first_figures(w: Worked, u: Units) -> dict[str, str]:
    """Speed, running time and range as asked, with what each may be between."""
    return _at(w, w.wish_or_top, u, _asked(w))


SLOW_SHARE = 0.6  # of the wanted speed: an easy pace beside it; Jolvek's own


def two_speeds(w: Worked, u: Units) -> list[tuple[str, str, str]]:
    """How far the boat goes at the wanted speed and at an easy one: range, what it may be between,
    and the speed with its unit.
    """
    wish = w.wish_or_top_m_s
    points = [(w.wish_or_top, wish, _asked(w))]
    points.append((w.performance.at_speed(SLOW_SHARE * wish), SLOW_SHARE * wish, True))
    found = [(_at(w, at, u, asked), v) for at, v, asked in points if at.range_m is not None]
    return [(x["range"], x["range_band"], str(u.full(v, "speed"))) for x, v in found]


def beside(worked: list[Worked], totals: list[str], u: Units) -> list[list[Any]]:
    """The setups compared: rows of a name and a text a setup."""
    rows: list[tuple[str, Callable[[Worked], str]]] = [
        (tr("Home with"), lambda w: _left(w, u)),
        (
            tr("Likely range, %(unit)s", unit=u["distance"]),
            lambda w: first_figures(w, u)["range_band"] or fig(w.job, "wish.range", u, False),
        ),
        (tr("Full speed, %(unit)s", unit=u["speed"]), lambda w: fig(w.job, "top", u, False)),
        (tr("Heaviest lift, %(unit)s", unit=u["mass"]), lambda w: fig(w.job, "lift", u, False)),
        (tr("Full charge, h"), lambda w: fig(w.job, "charge.time", u, False)),
    ]
    table: list[list[Any]] = [[name, [str(of(w)) for w in worked]] for name, of in rows]
    return [*table, [tr("Price, fitted"), totals]]


def _left(w: Worked, u: Units) -> str:
    return str(fig(w.job, "day.left", u)) if w.job.day.planned.done else tr("not home")
