"""What the Shortlist shows: the answer, the ranked rows with why they stand there, the rejected."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass, replace

import numpy as np
from markupsafe import Markup

from jolvek.core.base.arrays import Array
from jolvek.core.base.units import hours as clock
from jolvek.core.enquiry.need import WISHES, Need
from jolvek.core.job.job_setup import JobSetup
from jolvek.core.match.matching import Match
from jolvek.core.match.picks import Pick
from jolvek.core.match.ranking import ranked
from jolvek.core.predict.likelihood import in_words
from jolvek.core.predict.performance import DRIFT_W
from jolvek.core.rules.predicates import ROUNDING_M
from jolvek.web import data
from jolvek.web.kit.display import Units, money
from jolvek.web.kit.doubt_words import manages, tried_text
from jolvek.web.kit.drawings.field_chart import field_chart
from jolvek.web.kit.drawings.room import chart_px
from jolvek.web.kit.figures import fig
from jolvek.web.kit.language import capital, joined, tr
from jolvek.web.kit.matches import Answer, Row, row
from jolvek.web.stations.shortlist.answer import ShortRow, answer
from jolvek.web.stations.shortlist.money import budgets_text, house_text, steps_text
from jolvek.web.stations.shortlist.narrowed import facet_values, narrowed
from jolvek.web.stations.shortlist.narrowing import FACETS, Filters
from jolvek.web.stations.shortlist.rejected import Rejected, rejected_by_group
from jolvek.web.stations.waters.form import WISH_WORDS

MOST_MOTORS, MOST_BANKS = 14, 6  # shown, and of each motor what is folded under it
MOST_RANKED = 400


@dataclass(frozen=True)
class Results:
    """The list as narrowed and weighed."""

    answer: str
    rows: tuple[ShortRow, ...]
    left: int  # setups that do the day within what is chosen
    filters: Filters
    wished: str
    measure: str = ""  # what measuring the transom would decide


@dataclass(frozen=True)
class ShortlistPage:
    """The field, facets, what money buys, and the rejected by group."""

    any_setup: bool
    any_does: bool
    chart: Markup | str
    facets: dict[str, tuple[str, list[str]]]
    basis: str
    steps: tuple[tuple[str, str], ...]
    budgets: tuple[tuple[str, str], ...]
    house: str
    rejected: tuple[tuple[str, tuple[Rejected, ...], int], ...]


def results(
    need: Need, match: Answer, filters: Filters, jobs: dict[str, JobSetup], u: Units
) -> Results:
    """The ranked list by motor; named picks first, then by the weights on trial."""
    weighed = replace(match.match, need=replace(need, weights=tuple(filters.weights.items())))
    keep = narrowed(weighed, filters)
    numbers: dict[int, int] = {}
    named: dict[int, list[Pick]] = defaultdict(list)
    for pick in match.picks:
        numbers.setdefault(pick.index, len(numbers) + 1)
        if keep[pick.index]:
            named[pick.index].append(pick)
    best = ranked(weighed, MOST_RANKED, keep=keep, values=match.measures)
    rows = []
    for i, more, under in _by_motor(weighed, list(named), best, filters.unfold):
        why = because(match.measures, filters.weights, i)
        found = row(weighed, i, picked(named.get(i, []), u))
        rows.append(_row(found, numbers.get(i), why, jobs, need, u, more, under))
    total, left = int(keep.size), int((keep & match.match.field.does_day).sum())
    first = tuple(named)[:1]
    cheapest = bool(first) and any(p.id == "cheapest" for p in named[first[0]])
    result = answer(
        need,
        total,
        left,
        tuple(rows),
        u,
        match.match.need_findings,
        chosen(filters, u),
        cheapest,
    )
    wished = u.number(need.day.speed_m_s, "speed")
    return Results(result, tuple(rows), left, filters, wished, _measure(match.match))


def _measure(m: Match) -> str:
    """What measuring the transom would decide; empty where it is measured, or decides nothing."""
    if m.need.hull.transom_height_m:
        return ""
    short = np.nan_to_num(m.drives.plate_m[m.field.drive], nan=0.0) < -ROUNDING_M
    does = m.field.does_day if m.field.does_day.any() else np.ones_like(m.field.does_day)
    sure, most = int((does & ~short).sum()), int(does.sum())
    if sure == most:
        return ""
    return tr(
        "The transom’s height is only estimated, at %(height)s mm. Measure it: it decides between"
        " %(sure)s and %(most)s setups.",
        height=f"{1000 * m.need.hull.transom_m:.0f}",
        sure=sure,
        most=most,
    )


def _by_motor(
    match: Match, named: list[int], best: list[int], unfold: str
) -> list[tuple[int, int, bool]]:
    """Candidates as they stand: the named, then the best of each motor, each with how many more of
    its motor are folded under it; those of the motor that is unfolded follow it.
    """
    motor = match.drives.motor[match.field.drive]
    groups: dict[int, list[int]] = {}
    for i in (*named, *(k for k in best if k not in named)):
        groups.setdefault(int(motor[i]), []).append(i)
    out = []
    for which, members in list(groups.items())[:MOST_MOTORS]:
        heads = [i for i in members if i in named] or members[:1]
        rest = [i for i in members if i not in heads][:MOST_BANKS]
        out += [(i, 0, False) for i in heads[:-1]]
        if match.shelf.motors[which].id == unfold:
            out += [(heads[-1], 0, False), *((i, 0, True) for i in rest)]
        else:
            out.append((heads[-1], len(rest), False))
    order = {i: n for n, i in enumerate(named)}
    first = [x for x in out if x[0] in order]
    return sorted(first, key=lambda x: order[x[0]]) + [x for x in out if x[0] not in order]


def chosen(filters: Filters, u: Units) -> str:
    """What is narrowed to, in words; empty where nothing is."""
    facets = [(key, tr(name)) for key, name in filters.facets.items()]
    words = [name.lower() if key == "mount" else name for key, name in facets]
    sides = (("over", filters.price_min), (tr("up to"), filters.price_max))
    words += [f"{side} {money(round(x))}" for side, x in sides if x is not None]
    ways = ((tr("farther than"), filters.range_min_m), (tr("no farther than"), filters.range_max_m))
    words += [f"{way} {u.full(x, 'distance')}" for way, x in ways if x is not None]
    return ", ".join(words)


def picked(picks: list[Pick], u: Units) -> str:
    """What one setup is picked for, and once what it misses."""
    return str(joined((p.title for p in picks), "; ")) + (missed(picks[0], u) if picks else "")


def missed(pick: Pick, u: Units) -> str:
    """What a pick misses of the wishes, in words after its title."""
    words = {
        "given": lambda x, most: tr("not everything is given"),
        "charge": lambda x, most: tr(
            "fills in %(x)s h, not in %(most)s h", x=f"{x:.1f}", most=f"{most:g}"
        ),
        "kit": lambda x, most: tr(
            "weighs %(x)s\u00a0%% of the boat with its people", x=f"{100 * x:.0f}"
        ),
        "load": lambda x, most: tr(
            "%(x)s aboard, more than the %(most)s such a boat bears",
            x=u.full(x, "mass"),
            most=u.full(most, "mass"),
        ),
        "power": lambda x, most: tr(
            "%(x)s, more than the %(most)s such a boat bears",
            x=u.full(x, "power"),
            most=u.full(most, "power"),
        ),
    }
    result = ", and ".join(words[what](x, most) for what, x, most in pick.misses)
    return tr(", but %(text)s", text=result) if result else ""


def because(values: dict[str, Array], weights: dict[str, float], i: int) -> str:
    """Why a setup stands where it stands: the wishes that lift it most."""
    marks = sorted(
        ((weights[w] * float(values[w][i]), w) for w in WISHES if weights[w]), reverse=True
    )
    words = ", ".join(f"{tr(WISH_WORDS[w])} {100 * values[w][i]:.0f}" for _, w in marks[:3])
    return tr("%(marks)s of 100", marks=words) if words else ""


def _pin(r: Row) -> dict[str, str]:
    return {
        "motor": r.motor.id,
        "battery": r.battery.id,
        "mount": r.mount.id,
        "charger": r.charger.id if r.charger else "",
        "series": str(r.series),
        "parallel": str(r.parallel),
        "shaft_m": str(r.shaft_m or ""),
    }


def _row(
    r: Row,
    mark: int | None,
    why: str,
    jobs: dict[str, JobSetup],
    need: Need,
    u: Units,
    more: int = 0,
    under: bool = False,
) -> ShortRow:
    shaft = tr(", shaft %(shaft)s mm", shaft=f"{1000 * r.shaft_m:.0f}") if r.shaft_m else ""
    charger = r.charger.name if r.charger else tr("the customer’s own charger")
    packs = f"{r.series * r.parallel} × " if r.series * r.parallel > 1 else ""
    job = jobs.get(r.key)
    return ShortRow(
        mark if r.why else None,
        r.why,
        r.motor.title,
        (f"{packs}{r.battery.title}: {r.volts_text}", f"{r.mount.name}{shaft}; {charger}"),
        why,
        _of_job(job, u) if job else _of_list(r, u),
        lacks_range=r.range_m < need.day.distance_m and not r.does_day,
        price=money(r.price),
        does_day=r.does_day,
        day=_manages(r, job, u),
        open="; ".join(r.open),
        letter=job.letter if job else "",
        label=tr("Pin %(title)s with %(title2)s", title=r.motor.title, title2=r.battery.title),
        pin=_pin(r),
        motor_id=r.motor.id,
        more=more,
        under=under,
    )


def _of_list(r: Row, u: Units) -> tuple[str, ...]:
    """The figures of a candidate as matching has them."""
    drifts = r.power_w is not None and r.power_w < DRIFT_W  # the wind alone: no range of its own
    return (
        u.number(r.top_speed_m_s, "speed"),
        u.number(r.power_w, "power"),
        "–" if drifts else clock(r.runtime_s),
        "–" if drifts else u.number(r.range_m, "distance"),
        u.number(r.mass_kg, "mass"),
        u.number(r.lift_kg, "mass"),
        clock(r.charge_h * 3600) if r.charge_h else "–",
    )


def _manages(r: Row, job: JobSetup | None, u: Units) -> str:
    """Whether it manages the day; empty where something stands against every setup."""
    if r.chance is None:
        return ""
    if job:
        return fig(job, "day.likely", u)
    return manages(in_words(r.chance)) if r.as_wished else tr("is slower than requested")


def _of_job(job: JobSetup, u: Units) -> tuple[str, ...]:
    """The figures of a setup that is pinned, as every other page has them."""
    keys = ("top", "wish.power", "wish.time", "wish.range", "mass", "lift", "charge.time")
    return tuple(fig(job, key, u, False) for key in keys)


def shortlist_page(need: Need, match: Answer, first: Results, u: Units) -> ShortlistPage:
    """Everything round the list."""
    m, keep = match.match, narrowed(match.match, first.filters)
    total = int(m.field.price.size)
    currency = data.shop().currency
    picks, wide = match.picks, chart_px(900.0)
    chart = field_chart(m, match.front, picks, keep, u, currency, wide) if total else ""
    return ShortlistPage(
        bool(total),
        bool(first.rows and first.rows[0].does_day),
        chart,
        {k: (FACETS[k], names) for k, (_, names) in facet_values(m).items()},
        tr(
            "Numbers in the field mark the picks; the line is the front that nothing beats in "
            "price, weight, range and speed at once. Drag over the field to narrow. Time, range "
            "and power are at the wanted speed with the reserve kept; where that speed is out of "
            "reach, at the top speed. %(who)s: “open” is a day whose energy or speed lies "
            "within what is not known of the boat.",
            who=capital(tried_text(need.hull)),
        ),
        () if need.day.budgets else steps_text(match, u),
        budgets=budgets_text(match, u),
        house=house_text(m),
        rejected=rejected_by_group(m, u),
    )
