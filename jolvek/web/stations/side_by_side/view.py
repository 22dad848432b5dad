"""What Side by side shows: the answer, the chart, the table, and each setup in words."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from markupsafe import Markup

from jolvek.core.base import typed_figures, units
from jolvek.core.base.messages import msg
from jolvek.core.day.summed import DayRun, carries
from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.schools import Reserve, reserve_schools
from jolvek.core.predict.knee import KNEE_EXPONENT
from jolvek.core.predict.likelihood import in_words
from jolvek.core.predict.performance import Point
from jolvek.web.kit.display import Units, energy, long_hours
from jolvek.web.kit.doubt_words import IN_FIVE, current_text, helps_most, tried_text, wind_text
from jolvek.web.kit.drawings import charts
from jolvek.web.kit.drawings.room import chart_px
from jolvek.web.kit.figures import fig, marked
from jolvek.web.kit.followed import Strip
from jolvek.web.kit.language import capital, tr
from jolvek.web.kit.what_if import scenarios
from jolvek.web.kit.worked import Worked
from jolvek.web.stations.side_by_side.curves import axes, cursor_data, curves, series
from jolvek.web.stations.side_by_side.streams import Streams, streams_panel
from jolvek.web.stations.side_by_side.table import TableRow, best_of, table, why

VIEWS = {
    "power": msg("Power and range"),
    "time": msg("Time and range"),
    "thrust": msg("Thrust and drag"),
}
MODES = {"speed": msg("same speed"), "power": msg("same power"), "day": msg("the day")}
LEAST_SHARE = 0.13  # of the top of the axis, where the cursor may stand


@dataclass(frozen=True)
class Asked:
    """What the address asks to see; `refused` is why a typed cursor was not taken."""

    mode: str
    view: str
    band: bool
    otherwise: bool
    quantity: str
    cursor: float
    refused: str


def asked_from(args: Mapping[str, str], need: Need, worked: list[Worked], u: Units) -> Asked:
    """Read the address: view, mode, band, and the cursor in SI within what the setups reach."""
    mode = args.get("by", "") if args.get("by", "") in MODES else "speed"
    view = args.get("view", "") if args.get("view", "") in VIEWS else "power"
    quantity = "power" if mode == "power" else "speed"
    tops = [
        w.performance.power_limit_w if quantity == "power" else w.performance.top_speed_m_s
        for w in worked
    ]
    value, refused = (0.5 * max(tops) if quantity == "power" else need.day.speed_m_s), ""
    if args.get(quantity):
        try:
            value = typed_figures.parse(args[quantity], quantity, u[quantity])
        except typed_figures.NotAQuantity as error:
            refused = str(error)
    at = min(max(value, LEAST_SHARE * max(tops)), max(tops))
    band, otherwise_too = bool(args.get("band")), bool(args.get("otherwise"))
    return Asked(mode, view, band, otherwise_too, quantity, at, refused=refused)


@dataclass(frozen=True)
class SideBySidePage:
    """Everything in shown units; `data` is what the cursor script reads."""

    answer: str
    said: str
    shown_cursor: str
    entry: str
    basis: str
    hand: Worked
    worked: list[Worked]
    chart: Markup
    data: dict[str, Any]
    rows: tuple[TableRow, ...]
    legs: tuple[tuple[str, ...], ...]
    whys: dict[str, str]
    streams: Streams
    schools: list[Reserve]
    school_speed: str
    cases: list[tuple[str, Strip]]
    knee: str  # per cent of power for one of speed, from where it no longer pays
    asked: Asked


def drawn(
    need: Need, worked: list[Worked], asked: Asked, u: Units
) -> tuple[charts.Chart, dict[str, Any]]:
    """The chart and the cursor's data."""
    all_curves = [curves(w, u) for w in worked]
    cursor = units.to_unit(asked.cursor, asked.quantity, u[asked.quantity])
    lines = [
        series(w, c, asked.view, asked.mode, asked.band, u)
        for w, c in zip(worked, all_curves, strict=True)
    ]
    chart = charts.compare(
        lines, axes(need, worked, asked.view, asked.mode, u, cursor), chart_px(570.0)
    )
    return chart, cursor_data(worked, all_curves, chart, u, asked.mode, cursor)


def side_by_side_page(need: Need, worked: list[Worked], asked: Asked, u: Units) -> SideBySidePage:
    """The setups under one cursor, at one power, or over the day."""
    hand = next((w for w in worked if w.pinned.chosen), worked[0])
    at = {w.letter: _at(w, asked, u) for w in worked}
    days = {w.letter: w.job.run for w in worked}
    best = best_of(worked, at, days)
    chart, data = drawn(need, worked, asked, u)
    return SideBySidePage(
        over_day(hand, days[hand.letter]) if asked.mode == "day" else "",
        said(hand, at[hand.letter], asked.mode, u),
        str(u.full(asked.cursor, asked.quantity)),
        u.entry(asked.cursor, asked.quantity),
        _basis(need, hand, u),
        hand,
        worked=worked,
        chart=chart.svg,
        data=data,
        rows=table(worked, at, days, best, asked.mode, u),
        legs=_legs(need, u),
        whys={w.letter: f"{why(w, worked, best)} {_in_words(w, u)}" for w in worked},
        streams=streams_panel(hand.performance, at[hand.letter].power_w, u),
        schools=reserve_schools(hand.performance, need.day.speed_m_s),
        school_speed=str(u.full(hand.wish_or_top_m_s, "speed")),
        cases=scenarios(hand.job, u) if asked.otherwise else [],
        knee=f"{KNEE_EXPONENT:g}",
        asked=asked,
    )


def _at(w: Worked, asked: Asked, u: Units) -> Point:
    """A setup at the cursor; one whose top is shown as the same figure does it."""
    p = w.performance
    if asked.quantity == "power":
        return p.at_power(min(asked.cursor, p.power_limit_w))
    same = u.number(asked.cursor, "speed") == u.number(p.top_speed_m_s, "speed")
    return p.at_speed(min(asked.cursor, p.top_speed_m_s) if same else asked.cursor)


def over_day(hand: Worked, d: DayRun) -> str:
    """The day in one sentence; `*words*` are the ones to stress."""
    first = tr("Over the day setup *%(letter)s*", letter=hand.letter)
    if not d.home and d.runs > 1:
        return tr(
            "%(first)s does *%(carries)s of the %(runs)s runs* on one charge, the reserve kept.",
            first=first,
            carries=carries(hand.fitted),
            runs=d.runs,
        )
    if not d.home:
        return tr("%(first)s does *not come home* with the reserve kept.", first=first)
    slower = "" if d.as_wished else tr(", slower than wanted on a leg")
    last = tr(" from the last of %(runs)s runs", runs=d.runs) if d.runs > 1 else ""
    return tr(
        "%(first)s uses *%(energy)s* in *%(hours)s* and comes home%(last)s with *%(left)s "
        "%%*%(slower)s.",
        first=first,
        energy=marked(hand.letter, "day.energy", energy(d.energy_wh, 2)),
        hours=marked(hand.letter, "day.hours", long_hours(d.hours * 3600)),
        last=last,
        left=marked(hand.letter, "day.left", f"{100 * d.left:.0f}"),
        slower=slower,
    )


def said(hand: Worked, at: Point, mode: str, u: Units) -> str:
    """What the setup in hand does at the cursor."""
    if at.power_w is None:
        top = u.full(hand.performance.top_speed_m_s, "speed")
        return tr("does not get there: its top is %(top)s.", top=top)
    if at.range_m is None or at.runtime_s is None:
        return tr(
            "makes %(speed)s: %(reason)s.",
            speed=u.full(at.speed_m_s, "speed"),
            reason=at.reason or "no battery is known",
        )
    runtime, far = long_hours(at.runtime_s), u.full(at.range_m, "distance")
    if mode != "power":
        text = "runs %(runtime)s and goes %(range)s, with the reserve kept."
        return tr(text, runtime=runtime, range=far)
    return tr(
        "makes %(speed)s, runs %(runtime)s and goes %(range)s, with the reserve kept.",
        speed=u.full(at.speed_m_s, "speed"),
        runtime=runtime,
        range=far,
    )


def _basis(need: Need, hand: Worked, u: Units) -> str:
    day, d = need.day, hand.fitted.doubt
    at = hand.wish_or_top
    out = tr(
        "%(who)s: %(in_five)s lie between the figures of “may be”",
        who=capital(tried_text(need.hull)),
        in_five=IN_FIVE,
    )
    if at.power_w is not None and at.speed_m_s is not None:
        helps = helps_most(d, at.power_w, at.speed_m_s, u).removesuffix(".")
        out += f". {helps}" if helps else ""
    if day.wind_m_s:
        out += f"; {wind_text(day, u)}"
    if day.current_m_s:
        out += f", {current_text(day, u)}"
    return out + "."


def _legs(need: Need, u: Units) -> tuple[tuple[str, ...], ...]:
    return tuple(
        (
            leg.name or "leg",
            u.number(leg.speed_m_s, "speed"),
            u.number(leg.metres, "distance"),
            u.number(leg.current_m_s, "speed"),
            u.number(leg.wind_m_s, "speed"),
        )
        for leg in need.day.trip
    )


def _in_words(w: Worked, u: Units) -> str:
    p = w.performance
    out = tr("Top %(top_speed)s", top_speed=fig(w.job, "top", u))
    d = w.fitted.doubt
    out += (
        tr("; planes: %(planing_chance)s", planing_chance=in_words(d.planing_chance))
        if d.planing_chance is not None
        else ""
    )
    if p.knee.speed_m_s is not None:
        out += tr(
            "; past %(speed)s speed is bought dearly", speed=u.full(p.knee.speed_m_s, "speed")
        )
    pitch = tr(" The propeller’s pitch limits the speed there.") if p.limited_by == "pitch" else ""
    return f"{out}.{pitch}"
