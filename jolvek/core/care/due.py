"""What is due on a boat on a day: from its steps of care, its log and what was done. Days are days
of the calendar, so that neither summer time nor a leap day moves anything.
"""

from __future__ import annotations

from bisect import bisect_right
from calendar import monthrange
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from datetime import date, timedelta

from jolvek.core.base.messages import msg
from jolvek.core.care.steps import LAID_UP, SEASON_START, SHELF, Care

SOON = timedelta(days=30)
LEAST_RATE_H = 0.02  # hours a day below which no day can be told
FAR = timedelta(days=3653)  # beyond which a day by hours would be a guess


@dataclass(frozen=True)
class Logged:
    """Hours under way on a day, as the log has them, whenever they were typed."""

    on: date
    hours: float


@dataclass(frozen=True)
class Spare:
    """A spare or piece of gear aboard that is good until a day: its row, what it is."""

    id: int
    what: str
    good_to: date

    @property
    def key(self) -> str:
        """Of its step of care."""
        return f"spare-{self.id}"


@dataclass(frozen=True)
class Due:
    """One step with the day on which it is due (None: not to be told yet), how it stands (overdue,
    soon, later), and why.
    """

    care: Care
    on: date | None
    state: str
    why: str


@dataclass(frozen=True)
class Season:
    """First and last month of a season; it may pass the new year."""

    first: int
    last: int

    def starts(self, year: int) -> date:
        """The first day of the season that begins in a year."""
        return date(year, self.first, 1)

    def ends(self, year: int) -> date:
        """The last day of the season that begins in a year."""
        over = year + (self.last < self.first)
        return date(over, self.last, monthrange(over, self.last)[1])


def add_months(day: date, months: int) -> date:
    """The same day so many months later, or the month's last.

    >>> add_months(date(2028, 2, 29), 12), add_months(date(2026, 8, 31), 6)
    (datetime.date(2029, 2, 28), datetime.date(2027, 2, 28))
    """
    at = day.month - 1 + months
    year, month = day.year + at // 12, at % 12 + 1
    return date(year, month, min(day.day, monthrange(year, month)[1]))


def due(
    care: Sequence[Care],
    began: date,
    log: Sequence[Logged],
    done: Mapping[str, Sequence[date]],
    season: Season,
    today: date,
    spares: Sequence[Spare] = (),
) -> list[Due]:
    """What is due, the most pressing first; each step once. `began` is the day of the handover.

    Steps after each trip are not among them. Hours count from the day on which a step was last
    done, by the days of the log, so that hours typed late count where they belong.

    >>> c = Care("shaft", "hours", "Propeller off", 50)
    >>> log = [Logged(date(2026, 7, d), 6.0) for d in range(1, 11)]
    >>> due([c], date(2026, 6, 1), log, {}, Season(4, 10), date(2026, 7, 12))[0].state
    'overdue'
    """
    out = []
    ordered = sorted(log, key=lambda x: x.on)
    for c in care:
        before = [d for d in done.get(c.key, ()) if d <= today]
        last = max(before, default=None)
        if c.kind == "hours":
            out.append(_by_hours(c, began, ordered, last, today))
        elif c.kind == "months":
            on = add_months(last or began, int(c.every))
            on = _laid_up(on, c, season) if c.at == LAID_UP else on
            text = msg("last done %(isoformat)s", isoformat=last) if last else msg("not done yet")
            out.append(Due(c, on, state_on(on, today), text))
        elif c.kind == "date":
            out.append(_by_season(c, began, last, season, today))
    out += [_by_shelf(s, today) for s in spares]
    order = ("overdue", "soon", "later")
    return sorted(out, key=lambda d: (order.index(d.state), d.on or date.max, d.care.key))


def _laid_up(on: date, c: Care, season: Season) -> date:
    """The day itself while the boat is laid up; else so many months into the next laying up."""
    for year in (on.year - 1, on.year):
        if season.starts(year) <= on <= season.ends(year):
            return add_months(season.ends(year), int(c.every))
    return on


def _by_shelf(s: Spare, today: date) -> Due:
    care = Care(s.key, SHELF, msg("%(what)s: replace, note the new date.", what=s.what))
    return Due(
        care,
        s.good_to,
        state_on(s.good_to, today),
        msg("good to %(isoformat)s", isoformat=s.good_to),
    )


def state_on(on: date | None, today: date) -> str:
    """How a day stands on another: overdue, soon or later.

    >>> state_on(date(2026, 8, 1), date(2026, 7, 20))
    'soon'
    """
    if on is None:
        return "later"
    return "overdue" if on <= today else "soon" if on <= today + SOON else "later"


def _by_hours(c: Care, began: date, log: Sequence[Logged], last: date | None, today: date) -> Due:
    since = last or date.min
    after = [x for x in log if x.on > since and x.on <= today]
    hours = sum(x.hours for x in after)
    why = f"{hours:.0f} of {c.every:.0f} h"
    if hours >= c.every:
        total = 0.0
        for x in after:
            total += x.hours
            if total >= c.every:
                return Due(c, x.on, "overdue", why)
    known = [x for x in log if x.on <= today]
    days = max((today - began).days, 1)
    rate = sum(x.hours for x in known) / days
    if rate < LEAST_RATE_H:
        return Due(c, None, "later", why)
    on = today + timedelta(days=int((c.every - hours) / rate) + 1)
    if on > today + FAR:
        return Due(c, None, "later", why)
    return Due(c, on, state_on(on, today), why)


def _by_season(c: Care, began: date, last: date | None, season: Season, today: date) -> Due:
    """The next turn of the season for which it is not done: done within half a year of that day
    counts for it.
    """
    turns = season.starts if c.at == SEASON_START else season.ends
    days = [turns(year) for year in range(began.year - 1, today.year + 3)]
    days = [d for d in days if d > began]
    reach = timedelta(days=182)
    passed = bisect_right(days, today)
    for i in range(max(passed - 1, 0), len(days)):
        if last is None or last < days[i] - reach:
            return Due(c, days[i], state_on(days[i], today), msg("by the season"))
    return Due(c, None, "later", msg("by the season"))
