"""The charging plan of the setup in hand, as Waters and Day out show it."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.day.charging_plan import ChargingPlan, FromShore
from jolvek.core.day.season import Season
from jolvek.core.enquiry.need import Day
from jolvek.core.fit.fitted import Fitted
from jolvek.core.job.job_setup import JobSetup
from jolvek.core.rules.findings import Finding
from jolvek.web.kit import display
from jolvek.web.kit.display import Units, counted, energy, kwh, long_hours
from jolvek.web.kit.language import tr
from jolvek.web.kit.worked import Worked

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
    return charging_panel(hand.job, display.current())


def charging_panel(job: JobSetup, u: Units) -> ChargingPanel:
    """What the plan says, in the reader's units."""
    plan = job.charging
    months = tuple((m.name, kwh(m.day_wh, 1), f"{m.charges:.1f}") for m in plan.months)
    hire = job.season
    held = (
        tr(
            "Its full battery holds %(station_holds)s charges.",
            station_holds=f"{plan.station_holds:.1f}",
        )
        if months
        else ""
    )
    return ChargingPanel(
        answer(job.fitted, plan),
        tuple(_row(s, u) for s in plan.shore),
        _sun(plan, u),
        held,
        months,
        season_text(hire) if hire else "",
        findings=(*plan.findings, *(hire.findings if hire else ())),
    )


def season_text(s: Season) -> str:
    """A hire season in two sentences; `*words*` are the ones to stress."""
    lasts = f"{s.battery_years:.0f}" if s.battery_years >= 1.5 else f"{s.battery_years:.1f}"
    years = (
        tr("*%(lasts)s years*", lasts=lasts)
        if s.battery_years < MANY_YEARS
        else tr("more than %(many_years)s years", many_years=MANY_YEARS)
    )
    one = tr(
        "One charge carries *%(carries)s*, %(asked)s are needed between charges.",
        carries=counted(s.carries, "run"),
        asked=s.asked,
    )
    seals = (
        f"{s.seal_years:.1f}"
        if s.seal_years < MANY_YEARS
        else tr("more than %(many_years)s", many_years=MANY_YEARS)
    )
    return tr(
        "%(one)s A season takes %(energy_kwh)s kWh and %(hours)s h of the motor: %(cycles)s "
        "cycles, so the battery lasts about %(years)s by its cycles, and the propeller shaft’s "
        "seals are due after %(seals)s years.",
        one=one,
        energy_kwh=f"{s.energy_kwh:.0f}",
        hours=f"{s.hours:.0f}",
        cycles=f"{s.cycles:.0f}",
        years=years,
        seals=seals,
    )


def share(x: float) -> str:
    """A share in per cent."""
    return f"{100 * x:.0f}\u00a0%"


def answer(f: Fitted, plan: ChargingPlan) -> str:
    """How the bank is filled, in one sentence; `*words*` are the ones to stress."""
    day = f.need.day
    each = tr("a charge takes *%(charge)s*", charge=energy(plan.charge_wh))
    if not day.shore_power:
        return tr("No shore power: %(each)s, from the sun or ashore.", each=each)
    if not plan.shore:
        own = tr("the customer’s own charger, whose amps are not known")
        return tr(
            "From shore %(each)s, with %(own_charger)s.",
            each=each,
            own_charger=own if day.own_charger_v else tr("no charger chosen"),
        )
    one = plan.shore[0]
    if not f.bank.takes_charge:
        return tr(
            "Below 0 °C a lithium battery must *not be charged aboard*, from shore or sun. In a "
            "frost-free place %(each)s; it is full in %(hours)s.",
            each=each,
            hours=long_hours(3600 * one.hours),
        )
    return _of_one(plan, one, each, day)


def _of_one(plan: ChargingPlan, one: FromShore, each: str, day: Day) -> str:
    """What one charger does."""
    often = (
        tr(", %(charges_per_day)s times a day", charges_per_day=day.charges_per_day)
        if day.charges_per_day > 1
        else ""
    )
    if one.in_time:
        return tr(
            "From shore %(each)s%(often)s: full in *%(hours)s*.",
            each=each,
            often=often,
            hours=long_hours(3600 * one.hours),
        )
    return tr(
        "From shore %(each)s%(often)s: *%(reached)s* after the %(hours_each)s h given; full "
        "takes %(hours)s.",
        each=each,
        often=often,
        reached=share(one.reached),
        hours_each=f"{plan.hours_each:g}",
        hours=long_hours(3600 * one.hours),
    )


def _row(s: FromShore, u: Units) -> tuple[str, ...]:
    held = tr(", held back by the quay") if s.held_back else ""
    full = tr("full") if s.in_time else share(s.reached)
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
    return tr(
        "The panels aboard give *%(aboard)s* a day, %(part)s of a charge; the noon sun alone "
        "holds *%(sun_speed)s*.",
        aboard=energy(plan.aboard_wh),
        part=part,
        sun_speed=u.full(plan.sun_speed_m_s, "speed"),
    )
