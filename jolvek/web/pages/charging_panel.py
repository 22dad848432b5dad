"""The charging plan of the setup in hand, as Waters and Day out show it."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.day.charging_plan import ChargingPlan, FromShore, charging_plan
from jolvek.core.day.season import Season, season
from jolvek.core.fit.fitted import Fitted
from jolvek.core.rules.findings import Finding
from jolvek.web.view import display
from jolvek.web.view.display import Units, counted, energy, kwh, long_hours
from jolvek.web.view.worked import Worked

MANY_YEARS = 25  # nobody counts further


@dataclass(frozen=True)
class ChargingPanel:
    """The panel: a sentence, rows for one charger and more, months of the dock, what is said."""

    answer: str
    shore: tuple[tuple[str, ...], ...]
    sun: str
    station: str
    months: tuple[tuple[str, str, str], ...]
    season: str
    findings: tuple[Finding, ...]


def charging_of(hand: Worked | None) -> ChargingPanel | None:
    """The panel of the setup in hand; None where there is none."""
    if hand is None:
        return None
    return charging_panel(hand.fitted, hand.solar_w, display.current())


def charging_panel(f: Fitted, solar_w: float, u: Units) -> ChargingPanel:
    """What the plan says, in the reader's units."""
    plan = charging_plan(f, solar_w)
    months = tuple((m.name, kwh(m.day_wh, 1), f"{m.charges:.1f}") for m in plan.months)
    hire = season(f)
    held = f"Its full battery holds {plan.station_holds:.1f} charges." if months else ""
    return ChargingPanel(
        answer(f, plan),
        tuple(_row(s, u) for s in plan.shore),
        _sun(plan, u),
        held,
        months,
        season_told(hire) if hire else "",
        (*plan.findings, *(hire.findings if hire else ())),
    )


def season_told(s: Season) -> str:
    """A hire season in two sentences; `*words*` are the ones to stress."""
    lasts = f"{s.battery_years:.0f}" if s.battery_years >= 1.5 else f"{s.battery_years:.1f}"
    years = f"*{lasts} years*" if s.battery_years < MANY_YEARS else f"more than {MANY_YEARS} years"
    one = f"One charge carries *{counted(s.carries, 'run')}*, {s.asked} asked between charges."
    seals = f"{s.seal_years:.1f}" if s.seal_years < MANY_YEARS else f"more than {MANY_YEARS}"
    return (
        f"{one} A season takes {s.energy_kwh:.0f} kWh and {s.hours:.0f} h of the motor:"
        f" {s.cycles:.0f} cycles, so the battery lasts about {years} by its cycles, and the"
        f" propeller shaft’s seals are due after {seals} years."
    )


def share(x: float) -> str:
    """A share in per cent."""
    return f"{100 * x:.0f}\u00a0%"


def answer(f: Fitted, plan: ChargingPlan) -> str:
    """How the bank is filled, in one sentence; `*words*` are the ones to stress."""
    day = f.need.day
    each = f"a charge takes *{energy(plan.charge_wh)}*"
    if not day.shore_power:
        return f"No shore power: {each}, from the sun or ashore."
    if not plan.shore:
        own = "the customer’s own charger, whose amps are not known"
        return f"From shore {each}, with {own if day.own_charger_v else 'no charger chosen'}."
    one = plan.shore[0]
    often = f", {day.charges_per_day} times a day" if day.charges_per_day > 1 else ""
    if one.in_time:
        return f"From shore {each}{often}: full in *{long_hours(3600 * one.hours)}*."
    return (
        f"From shore {each}{often}: *{share(one.reached)}* after the {plan.hours_each:g} h given;"
        f" full takes {long_hours(3600 * one.hours)}."
    )


def _row(s: FromShore, u: Units) -> tuple[str, ...]:
    held = ", held back by the quay" if s.held_back else ""
    full = "full" if s.in_time else share(s.reached)
    return (
        str(s.chargers),
        f"{u.full(round(s.shore_w, -1), 'power')}{held}",
        long_hours(3600 * s.hours),
        full,
    )


def _sun(plan: ChargingPlan, u: Units) -> str:
    if plan.sun_speed_m_s is None:
        return ""
    part = share(plan.aboard_wh / plan.charge_wh)
    return (
        f"The panels aboard give *{energy(plan.aboard_wh)}* a day, {part} of a charge; the"
        f" noon sun alone holds *{u.full(plan.sun_speed_m_s, 'speed')}*."
    )
