"""What the Waters page shows beside its form: which leg decides, the legs as rows, the sun."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.enquiry.battery_schools import Choice, battery_schools
from jolvek.core.enquiry.demands import Demand, demands, hardest, over_limit
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.enquiry.sizing import size
from jolvek.core.enquiry.sun import sun_of
from jolvek.core.fit.fit_facts import need_facts
from jolvek.core.predict.solar import Sunshine
from jolvek.core.rules import judge
from jolvek.web.kit.display import Units, about, energy, long_hours
from jolvek.web.kit.doubt_words import power_text
from jolvek.web.kit.language import capital, tr


@dataclass(frozen=True)
class Row:
    """One leg in shown units; `deciding` and `too_fast` mark it."""

    name: str
    deciding: bool
    too_fast: bool
    figures: tuple[str, ...]


@dataclass(frozen=True)
class WatersPage:
    """The answer in one sentence, the legs, what it rests on, and the ways to do it."""

    answer: str
    rows: tuple[Row, ...]
    basis: str
    ways: list[Choice]


def waters_page(need: Need, u: Units) -> WatersPage:
    """What the day asks, leg by leg."""
    day, sizing = need.day, size(need)
    rows = demands(need, sizing)
    hard, several = hardest(rows), len(rows) > 1
    too_fast = over_limit(day)
    return WatersPage(
        stop(need, u) + answer(hard, several, whole_day(day, sizing.energy_wh), u),
        tuple(_row(r, r is hard and several, r.leg in too_fast, u) for r in rows),
        _basis(need, sun_of(need.day), u),
        battery_schools(need),
    )


def stop(need: Need, u: Units) -> str:
    """What stands against the day whatever the setup, before all that it takes."""
    found = [
        u.rendered(f).text for f in judge.findings("need", need_facts(need)) if f.level == "block"
    ]
    return tr("*Stop*: %(found)s ", found=found[0]) if found else ""


def whole_day(day: Day, energy_wh: float) -> str:
    """The battery that the day asks, or all runs of a hire boat's charge."""
    runs = day.runs_a_charge
    what = tr("%(runs)s runs on one charge take", runs=runs) if runs > 1 else tr("The day takes")
    return tr("%(what)s *%(energy)s* with the reserve", what=what, energy=energy(energy_wh))


def answer(hard: Demand, several: bool, takes: str, u: Units) -> str:
    """Which demand decides, and what the day takes; `*words*` are the ones to stress."""
    leg = hard.leg
    if not hard.possible:
        return tr(
            "On *%(name)s* the current of %(current)s is as fast as the wanted %(speed)s: no way "
            "is made.",
            name=leg.name,
            current=u.full(leg.current_m_s, "speed"),
            speed=u.full(leg.speed_m_s, "speed"),
        )
    if leg.stays:
        return tr(
            "On *%(name)s* the boat holds its place against %(current)s of current: *%(power)s*"
            " for *%(seconds)s*. %(takes)s.",
            name=leg.name,
            current=u.full(leg.current_m_s, "speed"),
            power=u.full(about(hard.power_w), "power"),
            seconds=long_hours(hard.seconds),
            takes=takes,
        )
    reasons = {
        "current": tr(", against %(current)s of current", current=u.full(leg.current_m_s, "speed")),
        "wind": tr(", against %(wind)s of wind", wind=u.full(leg.wind_m_s, "speed")),
        "length": tr(", for its length"),
    }
    first = tr("*%(who)s* decides", who=capital(leg.name)) if several else ""
    text = tr(
        "%(takes)s%(hard_by)s: *%(power)s* for *%(seconds)s*.",
        takes=first or takes,
        hard_by=reasons.get(hard.hard_by, ""),
        power=u.full(about(hard.power_w), "power"),
        seconds=long_hours(hard.seconds),
    )
    return text + (f" {takes}." if several else "")


def _row(r: Demand, deciding: bool, too_fast: bool, u: Units) -> Row:
    ground = max(r.leg.speed_m_s - r.leg.current_m_s, 0.0)
    time = f"{int(r.seconds // 3600)}:{int(r.seconds // 60) % 60:02d}" if r.possible else "–"
    figures = (
        u.number(r.leg.speed_m_s, "speed"),
        u.number(ground, "speed"),
        u.number(r.leg.metres, "distance"),
        time,
        u.number(about(r.power_w), "power"),
        f"{r.energy_wh:.0f}" if r.possible else "–",
    )
    return Row(r.leg.name, deciding, too_fast, figures)


def _basis(need: Need, sun: Sunshine | None, u: Units) -> str:
    out = [tr("Figures of wind and current are against the boat; a minus is behind it.")]
    if sun is not None:
        noon = u.full(about(sun.noon_w), "power")
        out.append(
            tr(
                "The panels give about %(energy)s on %(date)s, at most %(noon)s at noon.",
                energy=energy(sun.energy_wh),
                date=need.day.date,
                noon=noon,
            )
        )
    if need.day.electric_only:
        out.append(tr("Electric-only water: petrol is no way out."))
    out.append(tr("Motor and battery are counted in as usual for the day."))
    sizing = size(need)
    if not sizing.no_way:
        out.append(power_text(need, sizing, u))
    return " ".join(out)
