"""What the Shortlist shows: the answer, the ranked rows with why they stand there, the rejected."""

from __future__ import annotations

from collections import defaultdict
from dataclasses import dataclass, replace

from markupsafe import Markup

from jolvek.core.base.arrays import Array
from jolvek.core.base.units import hours as clock
from jolvek.core.enquiry.need import WISHES, Need
from jolvek.core.match.matching import Match
from jolvek.core.match.picks import Pick
from jolvek.core.match.ranking import ranked
from jolvek.core.predict.likelihood import in_words
from jolvek.core.predict.performance import DRIFT_W
from jolvek.core.rules.findings import Finding
from jolvek.core.rules.rulebook import RULES
from jolvek.web.drawings.field_chart import field_chart
from jolvek.web.forms.day_form import WISH_WORDS
from jolvek.web.forms.narrowing import FACETS, Filters
from jolvek.web.pages.narrowed import facet_values, narrowed
from jolvek.web.view.display import Units, money
from jolvek.web.view.matches import Answer, Row, row
from jolvek.web.view.what_if import TRIALS, WHAT_IFS

GROUPS = {
    "day": "Does not do the day",
    "limits": "Plate and approvals",
    "fitting": "Does not fit",
    "electrics": "Volts and amps",
}
MOST_ROWS, MOST_RANKED = 16, 14


@dataclass(frozen=True)
class ShortRow:
    """One setup in shown units: its pick, parts, figures, and what pinning it would send."""

    mark: int | None
    why: str
    name: str
    parts: tuple[str, str]
    because: str
    figures: tuple[str, ...]
    lacks_range: bool
    price: str
    does_day: bool
    day: str  # how likely it does the day
    letter: str
    label: str
    pin: dict[str, str]


@dataclass(frozen=True)
class Results:
    """The list as narrowed and weighed."""

    rows: tuple[ShortRow, ...]
    left: int
    filters: Filters
    wished: str


@dataclass(frozen=True)
class Rejected:
    """One product that fell out: why, what cures it, and what may be tried."""

    kind: str
    id: str
    title: str
    text: str
    cure: str
    trial: str
    question: str


@dataclass(frozen=True)
class ShortlistPage:
    """The answer, the field, facets, steps of money, and the rejected by group."""

    answer: str
    any_setup: bool
    any_does: bool
    chart: Markup | str
    facets: dict[str, tuple[str, list[str]]]
    basis: str
    steps: tuple[tuple[str, str], ...]
    rejected: tuple[tuple[str, tuple[Rejected, ...]], ...]


def results(
    need: Need, match: Answer, filters: Filters, letters: dict[str, str], u: Units
) -> Results:
    """The ranked list; named picks first, then by the weights on trial."""
    weighed = replace(match.match, need=replace(need, weights=tuple(filters.weights.items())))
    keep = narrowed(weighed, filters)
    numbers: dict[int, int] = {}
    named: dict[int, list[Pick]] = defaultdict(list)
    for pick in match.picks:
        numbers.setdefault(pick.index, len(numbers) + 1)
        if keep[pick.index]:
            named[pick.index].append(pick)
    best = ranked(weighed, MOST_RANKED, keep=keep, values=match.measures)
    order = [*named, *(i for i in best if i not in named)][:MOST_ROWS]
    rows = tuple(
        _row(
            row(weighed, i, picked(named.get(i, []), u)),
            numbers.get(i),
            because(match.measures, filters.weights, i),
            letters,
            need,
            u,
        )
        for i in order
    )
    left = int((keep & match.match.field.does_day).sum())
    return Results(rows, left, filters, u.number(need.day.speed_m_s, "speed"))


def picked(picks: list[Pick], u: Units) -> str:
    """What one setup is picked for, and once what it misses."""
    return "; ".join(p.title for p in picks) + (missed(picks[0], u) if picks else "")


def missed(pick: Pick, u: Units) -> str:
    """What a pick misses of the wishes, in words after its title."""
    words = {
        "charge": lambda x, most: f"fills in {x:.1f} h, not in {most:g} h",
        "kit": lambda x, most: f"weighs {100 * x:.0f}\u00a0% of the boat with her people",
        "power": lambda x, most: (
            f"{u.full(x, 'power')}, more than the {u.full(most, 'power')} such a boat bears"
        ),
    }
    told = ", and ".join(words[what](x, most) for what, x, most in pick.misses)
    return f", but {told}" if told else ""


def because(values: dict[str, Array], weights: dict[str, float], i: int) -> str:
    """Why a setup stands where it stands: the wishes that lift it most."""
    marks = sorted(
        ((weights[w] * float(values[w][i]), w) for w in WISHES if weights[w]), reverse=True
    )
    words = ", ".join(f"{WISH_WORDS[w]} {100 * values[w][i]:.0f}" for _, w in marks[:3])
    return f"{words} of 100" if words else ""


def _row(
    r: Row, mark: int | None, why: str, letters: dict[str, str], need: Need, u: Units
) -> ShortRow:
    shaft = f", shaft {1000 * r.shaft_m:.0f} mm" if r.shaft_m else ""
    charger = r.charger.name if r.charger else "the customer’s own charger"
    drifts = r.power_w is not None and r.power_w < DRIFT_W  # the wind alone: no range of hers
    figures = (
        u.number(r.top_speed_m_s, "speed"),
        u.number(r.power_w, "power"),
        "–" if drifts else clock(r.runtime_s),
        "–" if drifts else u.number(r.range_m, "distance"),
        u.number(r.mass_kg, "mass"),
        u.number(r.lift_kg, "mass"),
        clock(r.charge_h * 3600) if r.charge_h else "–",
    )
    return ShortRow(
        mark if r.why else None,
        r.why,
        r.motor.title,
        (f"{r.battery.title}: {r.bank_text}", f"{r.mount.name}{shaft}; {charger}"),
        why,
        figures,
        r.range_m < need.day.distance_m and not r.does_day,
        money(r.price),
        r.does_day,
        "" if r.chance is None else in_words(r.chance),
        letters.get(r.key, ""),
        f"Pin {r.motor.title} with {r.battery.title}",
        {
            "motor": r.motor.id,
            "battery": r.battery.id,
            "mount": r.mount.id,
            "charger": r.charger.id if r.charger else "",
            "series": str(r.series),
            "parallel": str(r.parallel),
            "shaft_m": str(r.shaft_m or ""),
        },
    )


def shortlist_page(need: Need, match: Answer, first: Results, u: Units) -> ShortlistPage:
    """Everything round the list."""
    m, keep = match.match, narrowed(match.match, first.filters)
    total, doing = int(m.field.price.size), int(m.field.does_day.sum())
    chart = field_chart(m, match.front, match.picks, keep, u) if total else ""
    return ShortlistPage(
        answer(need, total, doing, first.rows, u, m.need_findings),
        bool(total),
        bool(first.rows and first.rows[0].does_day),
        chart,
        {k: (FACETS[k], names) for k, (_, names) in facet_values(m).items()},
        "Numbers in the field mark the picks; the line is the front that nothing beats in price,"
        " weight, range and speed at once. Drag over the field to narrow. Time, range and power"
        " are at the wished speed with the reserve kept; where that speed is out of reach, at the"
        " top speed. Not tried on the water: “open” is a day whose energy or speed lies within"
        " what is not known of the boat.",
        _steps(match, u),
        _rejected(m, u),
    )


def answer(
    need: Need,
    total: int,
    doing: int,
    rows: tuple[ShortRow, ...],
    u: Units,
    against: tuple[Finding, ...] = (),
) -> str:
    """How many setups do the day, and the first of them, or what stands against every setup;
    `*words*` are the ones to stress.
    """
    if against:
        first = u.said(against[0])
        return f"*Stop*: {first.text} Until that changes no setup can be offered. {first.cure}"
    if not total:
        return "Nothing on the shelf fits this boat. The reasons are below."
    day = f"{u.full(need.day.distance_m, 'distance')} at {u.full(need.day.speed_m_s, 'speed')}"
    if not (rows and rows[0].does_day):
        return (
            f"*None* of {total} setups does the day of {day}. The nearest are below, with what is"
            " missing."
        )
    best = rows[0]
    which = "cheapest" if "cheapest" in best.why else "first"
    bank = best.parts[0].split(": ", 1)[1]
    return (
        f"*{doing}* of {total} setups do the day: {day}. The {which} is {best.name} with {bank},"
        f" *{best.price}*; that it does the day is *{best.day}*."
    )


def _steps(match: Answer, u: Units) -> tuple[tuple[str, str], ...]:
    out = []
    for step in match.steps:
        r = row(match.match, step.index)
        out.append(
            (
                money(step.budget),
                f"{u.full(step.range_m, 'distance')} at the wished speed, top"
                f" {u.full(step.top_speed_m_s, 'speed')}: {r.motor.title}, {r.bank_text}",
            )
        )
    return tuple(out) if len(out) > 1 else ()


def _rejected(match: Match, u: Units) -> tuple[tuple[str, tuple[Rejected, ...]], ...]:
    groups: dict[str, list[Rejected]] = defaultdict(list)
    for kind, reasons in (
        ("motors", match.motor_reasons),
        ("batteries", match.battery_reasons),
        ("mounts", match.mount_reasons),
        ("chargers", match.charger_reasons),
    ):
        for i, found in reasons.items():
            item, said = getattr(match.shelf, kind)[i], u.said(found)
            trial = TRIALS.get(found.rule, "")
            groups[RULES[found.rule].topic].append(
                Rejected(
                    kind, item.id, item.title, said.text, said.cure, trial, WHAT_IFS.get(trial, "")
                )
            )
    topics = [t for t in (*GROUPS, *sorted(set(groups) - set(GROUPS))) if t in groups]
    return tuple((GROUPS.get(t, t.capitalize()), tuple(groups[t])) for t in topics)
