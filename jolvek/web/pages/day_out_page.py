"""What Day out shows: the day in a sentence, its events, getting home, and the sliders."""

from __future__ import annotations

from dataclasses import dataclass

from markupsafe import Markup

from jolvek.core.base import units
from jolvek.core.day.aboard import spare_of
from jolvek.core.day.outing import Outing
from jolvek.core.day.stepped import CUT_BACK
from jolvek.core.day.voyage import Voyage
from jolvek.core.rules.findings import Finding
from jolvek.web.drawings.day_chart import clock, day_chart, way_strip
from jolvek.web.forms.outing_form import (
    MOST_STREAM_M_S,
    MOST_WIND_M_S,
    SWITCH_WORDS,
    WIND_FROM_H,
    Asked,
)
from jolvek.web.view.display import Units, energy, long_hours
from jolvek.web.view.doubt_words import IN_FIVE
from jolvek.web.view.language import counted_said, listed, tr
from jolvek.web.view.worked import Worked

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
    v, start = out.voyage, out.need.day.start_h
    hand = next(w for w in worked if w.letter == out.letter)
    return DayOutPage(
        hand,
        worked,
        asked,
        headline(out, u),
        _basis(out, asked, hand),
        out.seas.findings,
        tr(
            "Each leg at its wanted speed in steps of a minute: power from resistance, wind and"
            " propeller, discharge with voltage and Peukert’s law, sun by the hour. Once the"
            " reserve is reached the motor falls to %(share)s %% of its power.",
            share=f"{100 * CUT_BACK:.0f}",
        ),
        day_chart(out.voyages, out.letter, start, out.kept),
        way_strip(v, out.point, u),
        tuple(
            EventRow(
                ev.kind,
                LEVELS.get(ev.kind, ""),
                clock(start + ev.t_s / 3600),
                ev.text,
                f"{100 * ev.soc:.0f}",
            )
            for ev in v.events
        ),
        _figures(out, asked, u),
        _speed_slider("wind", tr("Wind gets up to"), MOST_WIND_M_S / 2, 1, args, u),
        _speed_slider(
            "stream", tr("More current against, home"), MOST_STREAM_M_S / 3, 0.1, args, u
        ),
        _leg_sliders(out, hand, args, u),
        SWITCH_WORDS,
        args.get("from", f"{WIND_FROM_H:.0f}:00"),
        u.entry(out.need.day.start_charge, "share"),
    )


def headline(out: Outing, u: Units) -> str:
    """What the day comes to; wind and waves that are too much for her stand before it."""
    told = sentence(out.voyage, out.need.day.start_h, u)
    stops = [u.said(f).text for f in out.seas.findings if f.level == "block"]
    return (
        tr("*Stop*: %(stops)s By the battery alone: %(told)s", stops=stops[0], told=told)
        if stops
        else told
    )


def sentence(v: Voyage, start_h: float, u: Units) -> str:
    """The day in one sentence; `*words*` are the ones to stress."""
    end = clock(start_h + v.hours)
    if v.home:
        far = u.full(v.distance_m[-1], "distance")
        return tr(
            "Home at *%(end)s* with *%(left)s %%* of the charge, %(far)s in %(hours)s h.",
            end=end,
            left=f"{100 * v.left:.0f}",
            far=far,
            hours=f"{v.hours:.1f}",
        )
    stop = v.first("no-way") or v.first("empty")
    if stop is None:
        reserve, percent = v.first("reserve"), f"{100 * v.left:.0f}"
        if reserve is None:
            return tr(
                "Home at *%(end)s*, but with *%(left)s %%*, below the reserve.",
                end=end,
                left=percent,
            )
        return tr(
            "Home at *%(end)s*, but with *%(left)s %%*, below the reserve; it goes at %(at)s.",
            end=end,
            left=percent,
            at=clock(start_h + reserve.t_s / 3600),
        )
    total = sum(leg.metres for leg in v.legs)
    left = max(total - float(v.distance_m[-1]), 0.0)
    at = clock(start_h + stop.t_s / 3600)
    far = u.full(left, "distance")
    return tr(
        "The boat does *not get home*: at *%(at)s* %(text)s, %(far)s before the end.",
        at=at,
        text=stop.text,
        far=far,
    )


def why(out: Outing) -> str:
    """The reason, against the day as planned: what the switches cost."""
    s, v, plain = out.switches, out.voyage, out.planned
    words = (
        (s.wind_m_s is not None, tr("the wind")),
        (s.fetch_m > 0 and out.seas.wave_m > 0, tr("the waves")),
        (s.stream_m_s > 0, tr("the current")),
        (s.heavier > 0, tr("the load")),
        (bool(s.months), tr("what grows on the bottom")),
        (s.aged > 0, tr("the old battery")),
        (s.temperature_c is not None, tr("the cold")),
        (s.start_charge is not None, tr("the charge at the start")),
        (s.depth_m is not None, tr("the shallow water")),
        (s.tow_length_m is not None, tr("the dinghy in tow")),
    )
    causes = [word for on, word in words if on]
    if not causes:
        return ""
    told, n = listed(causes), len(causes)
    left = f"{100 * plain.left:.0f}"
    if not plain.done:
        return counted_said(
            "As planned the boat does not get home either; %(causes)s makes it worse.",
            "As planned the boat does not get home either; %(causes)s make it worse.",
            n,
            causes=told,
        )
    if not v.done:
        return counted_said(
            "As planned the boat comes home with %(left)s %%; %(causes)s keeps it from that.",
            "As planned the boat comes home with %(left)s %%; %(causes)s keep it from that.",
            n,
            causes=told,
            left=left,
        )
    points = 100 * (plain.left - v.left)
    if round(points) == 0:
        return counted_said(
            "The boat comes home with %(left)s %% as planned; %(causes)s takes nothing of it.",
            "The boat comes home with %(left)s %% as planned; %(causes)s take nothing of it.",
            n,
            causes=told,
            left=left,
        )
    return counted_said(
        "As planned the boat comes home with %(left)s %%; %(causes)s takes %(points)s points of "
        "it.",
        "As planned the boat comes home with %(left)s %%; %(causes)s take %(points)s points of it.",
        n,
        causes=told,
        left=left,
        points=f"{points:.0f}",
    )


def setting_out(out: Outing) -> str:
    """What she sets out with, where it is not a full charge."""
    runs, soc = out.need.day.runs_a_charge, f"{100 * out.voyage.soc[0]:.0f} %"
    if runs > 1:
        return tr(
            "This is run %(runs)s of %(runs)s on one charge: the earlier ones leave *%(soc)s*.",
            runs=runs,
            soc=soc,
        )
    return (
        tr("The boat sets out with *%(soc)s* of the charge.", soc=soc)
        if out.voyage.soc[0] < 1
        else ""
    )


def day_told(out: Outing) -> str:
    """What may be left, with what is not known of the boat."""
    hard, easy = out.between
    if not easy.done:
        return tr(
            "Home with the reserve: %(likely)s, even for a boat that is easier to drive than said.",
            likely=out.likely,
        )
    high = f"{100 * easy.left:.0f}"
    if not hard.done:
        return tr(
            "Home with the reserve: %(likely)s; of %(in_five)s the best end with %(high)s %%, the"
            " worst do not get home.",
            likely=out.likely,
            in_five=IN_FIVE,
            high=high,
        )
    return tr(
        "Home with the reserve: %(likely)s; %(in_five)s end between %(low)s %% and %(high)s %%.",
        likely=out.likely,
        in_five=IN_FIVE,
        low=f"{100 * hard.left:.0f}",
        high=high,
    )


def _basis(out: Outing, asked: Asked, hand: Worked) -> str:
    told = [why(out), setting_out(out)]
    if asked.simulated:
        told.append(tr("*Simulated tide and wind, true nowhere.*"))
    if not hand.fitted.need.day.legs:
        told.append(
            tr(
                "A day without legs runs out with wind and current behind the boat, and home "
                "against "
                "them."
            )
        )
    if asked.spare and spare_of(hand.fitted) is None:
        told.append(tr("*No spare: this bank is wired in and cannot be swapped afloat.*"))
    told.append(day_told(out))
    return " ".join(x for x in told if x)


def _seas(out: Outing, u: Units) -> list[tuple[str, str]]:
    rows, s = [], out.seas
    if s.wind_m_s:
        side = "held" if s.holds else tr("not held")
        rows.append((tr("Leeway with the wind abeam"), f"{s.drift_deg:.0f}°, {side}"))
    if s.wave_m:
        rows.append((tr("Waves there"), str(u.full(s.wave_m, "length"))))
    return rows


def _figures(out: Outing, asked: Asked, u: Units) -> tuple[tuple[str, str], ...]:
    point, h, v = out.point, out.homing, out.voyage
    turn = tr(", before the turn at %(planned)s", planned=u.full(point.planned_m, "distance"))
    last = f"{u.full(point.distance_m, 'distance')}{'' if point.safe else turn}"
    slow, fast = (str(u.full(x, "speed")) for x in (h.slowest_m_s, h.fastest_m_s))
    if out.sunless is not None:
        dark, dark_h = out.sunless
        last += tr("; %(distance)s without the sun", distance=u.full(dark.distance_m, "distance"))
        fast += tr("; %(fastest)s without the sun", fastest=u.full(dark_h.fastest_m_s, "speed"))
    rows = [
        (tr("Last point from which the boat gets home"), last),
        (tr("Slowest speed that brings the boat home"), slow),
        (tr("Fastest speed that brings the boat home"), fast),
        (tr("Speed of least energy"), str(u.full(h.cheapest_m_s, "speed"))),
    ]
    if out.against is not None:
        best = out.against.best_m_s
        name = tr(
            "Best speed against %(stream)s of current",
            stream=u.full(out.against.stream_m_s, "speed"),
        )
        rows.append((name, str(u.full(best, "speed")) if best else tr("none makes way")))
    if asked.arrive_h:
        name, at = (
            tr("To be home after %(arrive)s", arrive=long_hours(asked.arrive_h * 3600)),
            out.arrive_m_s,
        )
        rows.append((name, str(u.full(at, "speed")) if at else tr("the boat is not that fast")))
    rows += _seas(out, u)
    rows.append((tr("Used, motor and loads"), energy(v.energy_wh, 2)))
    if v.sun_wh > 1:
        straight = v.energy_wh - v.battery_wh
        rows.append((tr("of it from the battery"), energy(v.battery_wh, 2)))
        rows.append((tr("of it straight from the sun"), energy(straight, 2)))
        rows.append((tr("From the sun into the battery"), energy(v.stored_wh, 2)))
    if out.regeneration is not None:
        less = u.full(out.regeneration.lost_m_s, "speed")
        text = tr(
            "%(power)s W for %(less)s less", power=f"{out.regeneration.power_w:.0f}", less=less
        )
        rows.append((tr("Under sail the propeller gives about"), text))
    return tuple(rows)


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
            args.get(f"v{i}") or u.entry(leg.speed_m_s, "speed"),
        )
        for i, leg in enumerate(out.need.day.legs, 1)
    )
