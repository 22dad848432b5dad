"""The Shortlist's answer: how many setups do the day, and the first of them."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.enquiry.need import Need
from jolvek.core.rules.findings import Finding
from jolvek.web.kit.display import Units, counted
from jolvek.web.kit.language import counted_text, tr
from jolvek.web.kit.rates import price_name


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
    open: str  # what of it nobody has said
    letter: str
    label: str
    pin: dict[str, str]
    motor_id: str
    more: int = 0  # banks and mounts of the same motor, folded under it
    under: bool = False


def answer(
    need: Need,
    total: int,
    doing: int,
    rows: tuple[ShortRow, ...],
    u: Units,
    against: tuple[Finding, ...] = (),
    narrow: str = "",
    cheapest: bool = False,
) -> str:
    """How many setups do the day within what is chosen, and the first of them, or what stands
    against every setup; `*words*` are the ones to stress.
    """
    if against:
        first = u.rendered(against[0])
        return tr(
            "*Stop*: %(text)s Until that changes no setup can be offered. %(cure)s",
            text=first.text,
            cure=first.cure,
        )
    if not total:
        return tr("Nothing in the catalogue fits this boat. The reasons are below.")
    day = tr(
        "%(far)s at %(speed)s",
        far=u.full(need.day.distance_m, "distance"),
        speed=u.full(need.day.speed_m_s, "speed"),
    )
    within = tr(" within what is chosen (*%(narrow)s*)", narrow=narrow) if narrow else ""
    if not rows:
        return tr(
            "*None* of %(total)s is left%(within)s: widen what is chosen.",
            total=counted(total, "setup"),
            within=within,
        )
    if not rows[0].does_day:
        return tr(
            "*None* of %(total)s manages the whole day of %(day)s%(within)s. The nearest are below,"
            " with what is missing.",
            total=counted(total, "setup"),
            day=day,
            within=within,
        )
    return f"{_do(doing, total, day, within)} {_first(rows[0], cheapest)}"


def _do(doing: int, total: int, day: str, within: str) -> str:
    return counted_text(
        "*%(n)s* of %(total)s manages the day: %(day)s%(within)s.",
        "*%(n)s* of %(total)s manage the day: %(day)s%(within)s.",
        doing,
        total=counted(total, "setup"),
        day=day,
        within=within,
    )


def _first(best: ShortRow, cheapest: bool) -> str:
    what = {
        "name": best.name,
        "bank": best.parts[0].split(": ", 1)[1],
        "price": best.price,
        "which": price_name(short=True),
        "likely": best.day,
    }
    if cheapest:
        return tr(
            "The cheapest is %(name)s with %(bank)s, *%(price)s* %(which)s; it *%(likely)s*.",
            **what,
        )
    return tr(
        "The first is %(name)s with %(bank)s, *%(price)s* %(which)s; it *%(likely)s*.",
        **what,
    )
