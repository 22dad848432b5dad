"""What Day out shows: the day in a sentence, its events, getting home, and the sliders."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from jolvek.core.base import units
from jolvek.core.day.aboard import spare_of
from jolvek.core.day.outing import Outing
from jolvek.core.day.stepped import CUT_BACK
from jolvek.core.day.voyage import Event
from jolvek.core.hydro.seaway import most_wind_m_s
from jolvek.core.rules.findings import Finding
from jolvek.web.kit.display import Units
from jolvek.web.kit.drawings.day_chart import DayLines, clock, day_chart, way_strip
from jolvek.web.kit.drawings.room import chart_px
from jolvek.web.kit.language import tr
from jolvek.web.kit.worked import Worked
from jolvek.web.stations.day_out.figures import figures
from jolvek.web.stations.day_out.form import (
    MOST_STREAM_M_S,
    MOST_WIND_M_S,
    SWITCH_WORDS,
    WIND_FROM_H,
    Asked,
)
from jolvek.web.stations.day_out.text import (
    against_plan,
    cure,
    day_text,
    headline,
    planned_letter,
    setting_out,
    why,
)

LEVELS = {
    "empty": "block",
    "no-way": "block",
    "reserve": "caution",
    "warning": "caution",
    "cut-back": "caution",
}
SLOWEST_LEG = {"kn": 1, "km/h": 2, "mph": 1}
FASTEST_SHARE = 1.1  # of the top speed: a slider may ask for a little more than there is


@dataclass(frozen=True)
class EventRow:
    """One event: kind, level (empty: none), clock time, words, charge in %."""

    kind: str
    level: str
    at: str
    text: str
    charge: str


@dataclass(frozen=True)
class Slider:
    """One slider: its name, label and range in shown units."""

    name: str
    label: str
    low: float
    high: float
    step: float
    value: str


@dataclass(frozen=True)
class DayOutPage:
    """The whole page in shown units."""

    hand: Worked
    worked: list[Worked]
    asked: Asked
    answer: str
    basis: str
    against_plan: str
    cure: str
    wind_limit: str
    seas: tuple[Finding, ...]
    help_text: str
    chart: Markup
    strip: Markup
    events: tuple[EventRow, ...]
    figures: tuple[tuple[str, str], ...]
    wind: Slider
    stream: Slider
    legs: tuple[Slider, ...]
    switch_words: dict[str, str]
    wind_from: str
    planned_charge: str


def day_out_page(
    out: Outing, worked: list[Worked], asked: Asked, args: dict[str, str], u: Units
) -> DayOutPage:
    """The page of one outing."""
    v, start, px = out.voyage, out.need.day.start_h, chart_px(900.0)
    hand = next(w for w in worked if w.letter == out.letter)
    lines = DayLines(out.voyages, out.letter, out.planned, out.between, start, out.kept)
    return DayOutPage(
        hand,
        worked,
        asked,
        answer=headline(out, u),
        basis=_basis(out, asked, hand),
        against_plan=against_plan(out),
        cure=cure(out, u),
        wind_limit=str(u.full(most_wind_m_s(out.need.hull.length_m), "speed")),
        seas=out.seas.findings,
        help_text=_help(),
        chart=day_chart(lines, px),
        strip=way_strip(v, out.point, u, px),
        events=tuple(_event(ev, start) for ev in v.events),
        figures=figures(out, asked, u),
        wind=_speed_slider("wind", tr("Wind gets up to"), MOST_WIND_M_S / 2, 1, args, u),
        stream=_speed_slider(
            "stream", tr("More current against, home"), MOST_STREAM_M_S / 3, 0.1, args, u
        ),
        legs=_leg_sliders(out, hand, args, u),
        switch_words=SWITCH_WORDS,
        wind_from=args.get("from", f"{WIND_FROM_H:.0f}:00"),
        planned_charge=u.entry(out.need.day.start_charge, "share"),
    )


def _event(ev: Event, start_h: float) -> EventRow:
    at, charge = clock(start_h + ev.t_s / 3600), f"{100 * ev.soc:.0f}"
    return EventRow(ev.kind, LEVELS.get(ev.kind, ""), at, ev.text, charge)


def _help() -> str:
    return tr(
        "Each leg at its wanted speed in steps of a minute: power from resistance, wind and"
        " propeller, discharge with voltage and Peukert’s law, sun by the hour. Once the"
        " reserve is reached the motor falls to %(share)s %% of its power.",
        share=f"{100 * CUT_BACK:.0f}",
    )


def _basis(out: Outing, asked: Asked, hand: Worked) -> str:
    rows = [why(out), setting_out(out)]
    if asked.simulated:
        rows.append(tr("*Simulated tide and wind, true nowhere.*"))
    day = hand.fitted.need.day
    if not day.legs and (day.wind_m_s or day.current_m_s):
        rows.append(
            tr("Wind and current help on the way out and are against the boat on the way home.")
            if day.against == "home"
            else tr("Wind and current are against the boat all day.")
        )
    if asked.spare and spare_of(hand.fitted) is None:
        rows.append(tr("*No spare: this bank is wired in and cannot be swapped afloat.*"))
    rows.append(day_text(out, planned_letter(out)))
    return " ".join(x for x in rows if x)


def _speed_slider(
    name: str, label: str, most_m_s: float, step: float, args: dict[str, str], u: Units
) -> Slider:
    high = round(units.to_unit(most_m_s, "speed", u["speed"]))
    return Slider(name, label, 0, high, step, args.get(name) or "0")


def _leg_sliders(out: Outing, hand: Worked, args: dict[str, str], u: Units) -> tuple[Slider, ...]:
    most = FASTEST_SHARE * hand.performance.top_speed_m_s
    top = round(units.to_unit(most, "speed", u["speed"]), 1)
    low = SLOWEST_LEG[u["speed"]]
    return tuple(
        Slider(
            f"v{i}",
            leg.name or tr("leg %(i)s", i=i),
            low,
            top,
            0.1,
            args.get(f"v{i}") or u.plain(leg.speed_m_s, "speed"),
        )
        for i, leg in enumerate(out.need.day.trip, 1)
    )
