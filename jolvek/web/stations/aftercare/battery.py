"""How a boat's battery ages, in words and as a picture, and what that does to her day."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import date

from markupsafe import Markup

from jolvek.core.care.health import DEPTH_STEP as STEP
from jolvek.core.care.health import END, Health, Used, by_depth, health, of_charge
from jolvek.core.electric.chemistry import temperature_factor
from jolvek.store.care import Charge, Trip
from jolvek.web.kit.display import energy
from jolvek.web.kit.drawings.health_chart import Trend, health_chart
from jolvek.web.kit.language import tr
from jolvek.web.kit.worked import Worked

YEAR_DAYS = 365.25
AHEAD_YEARS = 5  # for which the planned day is worked out
FAR_YEARS = 30  # ahead, of which nothing is said
SHOWN_YEARS = 12  # at most, until the battery is worn out


@dataclass(frozen=True)
class Battery:
    """Its health; in words its capacity, wear, end and the day then; how deep its uses went (empty
    without any); its picture; years since it was new.
    """

    health: Health
    lines: tuple[str, ...]
    depths: str
    chart: Markup
    years: float


def battery(
    hand: Worked, trips: Sequence[Trip], charges: Sequence[Charge], began: date, today: date
) -> Battery:
    """The battery of one boat, new at `began` (the day of the handover, or of its replacement)."""
    age, uses, h = health_of(hand, trips, charges, began, today)
    chart = _chart(h, hand, uses, began, age)
    return Battery(h, battery_lines(h, hand, today), depth_text(uses), chart, age)


def health_of(
    hand: Worked, trips: Sequence[Trip], charges: Sequence[Charge], began: date, today: date
) -> tuple[float, list[Used], Health]:
    """Years since it was new at `began`, its uses, its health."""
    uses, drawn_wh = uses_of(hand, trips, charges, began)
    bank = hand.fitted.bank
    age = max((today - began).days, 1) / YEAR_DAYS
    depths = [u.depth for u in uses if u.depth > 0]
    depth = sum(depths) / len(depths) if depths else 0.5
    return age, uses, health(bank, uses, age, drawn_wh / bank.energy_wh / max(depth, 0.1))


def uses_of(
    hand: Worked, trips: Sequence[Trip], charges: Sequence[Charge], began: date
) -> tuple[list[Used], float]:
    """Uses between known charges, of trips and of charges; Wh drawn in all since `began`."""
    out, drawn = [], 0.0
    for t in (t for t in trips if t.day >= began and t.energy_wh):
        years = (t.day - began).days / YEAR_DAYS
        drawn += t.energy_wh or 0.0
        if t.charge_from is not None and t.charge_to is not None and t.energy_wh:
            warm = 20.0 if t.temperature_c is None else t.temperature_c
            out.append(Used(years, t.energy_wh, t.charge_from, t.charge_to, warm))
    for c in (c for c in charges if c.day >= began and c.wall_wh):
        if c.charge_from is not None and c.wall_wh:
            years = (c.day - began).days / YEAR_DAYS
            out.append(of_charge(hand.fitted.bank, years, c.wall_wh, c.charge_from, c.charge_to))
    return out, drawn


def depth_text(uses: Sequence[Used]) -> str:
    """Uses by their depth, in words; empty without any."""
    found = by_depth(uses)
    parts = [
        tr(
            "%(n)s × %(low)s to %(high)s %%",
            n=n,
            low=f"{100 * STEP * i:.0f}",
            high=f"{100 * STEP * (i + 1):.0f}",
        )
        for i, n in enumerate(found)
        if n
    ]
    return tr("Charge used on a trip: %(list)s.", list=", ".join(parts)) if parts else ""


def battery_lines(h: Health, hand: Worked, today: date) -> tuple[str, ...]:
    """The battery in words: capacity, what wore it, its end, and the customer's day then."""
    out = [
        tr(
            "Capacity about *%(share)s %%* of the rated %(rated)s, between %(low)s and %(high)s"
            " %%; from %(n)s uses with charge and energy known.",
            share=f"{100 * h.capacity:.0f}",
            rated=energy(hand.fitted.bank.energy_wh),
            low=f"{100 * h.low:.0f}",
            high=f"{100 * h.high:.0f}",
            n=h.count,
        ),
        tr(
            "Wear so far: %(cycles)s %% of its life by use, %(years)s %% by age.",
            cycles=f"{100 * h.by_cycles:.0f}",
            years=f"{100 * h.by_years:.0f}",
        ),
    ]
    if h.years_left < FAR_YEARS:
        out.append(_end(h, today))
    out.append(_day_then(h, hand, today))
    return tuple(x for x in out if x)


def calendar_years(on: date) -> float:
    """A day as calendar years.

    >>> int(calendar_years(date(2026, 12, 31)) + 0.5)
    2027
    """
    return on.year + (on.timetuple().tm_yday - 1) / YEAR_DAYS


def _end(h: Health, today: date) -> str:
    """When it should be worn out, and from when to when it may be."""
    values = {
        "end": f"{100 * END:.0f}",
        "year": int(calendar_years(today) + h.years_left),
        "sooner": int(calendar_years(today) + h.sooner),
        "later": int(calendar_years(today) + h.later),
    }
    if h.later > FAR_YEARS:
        return tr(
            "It should be down to %(end)s %% in about %(year)s, at the soonest in %(sooner)s.",
            **values,
        )
    return tr(
        "It should be down to %(end)s %% in about %(year)s (%(sooner)s to %(later)s).", **values
    )


def _day_then(h: Health, hand: Worked, today: date) -> str:
    """What the day leaves now and in some years."""
    years = int(min(max(h.years_left, 1.0), AHEAD_YEARS))
    now = hand.job.run.left
    then = hand.aged(min(max(1 - h.capacity_in(years), 0.0), 0.5)).job.run
    if not then.makes_way:
        return ""
    values: dict[str, object] = {
        "year": today.year + years,
        "then": f"{100 * then.left:.0f}",
        "now": f"{100 * now:.0f}",
    }
    if then.home:
        return tr(
            "In %(year)s the planned day should end with %(then)s %% of the charge (today"
            " %(now)s %%).",
            **values,
        )
    return tr(
        "In %(year)s the planned day should end with %(then)s %% of the charge (today %(now)s %%):"
        " less than the reserve.",
        **values,
    )


def _chart(h: Health, hand: Worked, uses: Sequence[Used], began: date, age: float) -> Markup:
    chem, rated = hand.fitted.bank.chem, hand.fitted.bank.energy_wh
    points = [
        (u.years, 100 * u.energy_wh / u.depth / rated / temperature_factor(chem, u.temperature_c))
        for u in uses
        if u.depth > 0.1
    ]
    last = age + min(max(h.years_left + 1, AHEAD_YEARS), SHOWN_YEARS)
    trend = []
    for i in range(21):
        at = last * i / 20
        mean = h.fresh + (h.capacity - h.fresh) * at / age
        low, high = mean - (h.capacity - h.low), mean + (h.high - h.capacity)
        if at > age:
            low, mean, high = h.in_years(at - age)
        trend.append((at, 100 * mean, 100 * low, 100 * high))
    return health_chart(Trend(calendar_years(began), points, trend, 100 * END))
