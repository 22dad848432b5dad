"""Days and times as the language of the page writes them, where the shop is."""

from __future__ import annotations

from datetime import UTC, date, datetime
from zoneinfo import ZoneInfo

from babel.dates import format_date

from jolvek.web import data
from jolvek.web.kit import language
from jolvek.web.kit.display import DATES, locale_of_page


def _local(at: str) -> datetime:
    """A time as kept (UTC, or without zone as 0.5 kept it) in the shop's time zone."""
    moment = datetime.fromisoformat(at)
    moment = moment if moment.tzinfo else moment.replace(tzinfo=UTC)
    zone = data.shop().time_zone
    return moment.astimezone(ZoneInfo(zone) if zone else None)


def day(on: date | str) -> str:
    """A day (a date, or its ISO text) as the language of the page writes it.

    >>> day("2026-11-26")
    '26 Nov 2026'
    """
    try:
        result = date.fromisoformat(on) if isinstance(on, str) else on
    except ValueError:  # what an older version or another program kept
        return str(on)
    return str(format_date(result, "medium", locale=DATES[language.current()]))


def clock(hours: float) -> str:
    """Hours since a midnight as a clock shows them.

    >>> clock(9.5), clock(26.25)
    ('09:30', '02:15')
    """
    minutes = round(60 * hours)
    return f"{minutes // 60 % 24:02d}:{minutes % 60:02d}"


def clock_time(at: str) -> str:
    """The clock time of a moment as kept, where the shop is."""
    return _local(at).strftime("%H:%M")


def saved_at(at: str) -> str:
    """When a thing was saved: the clock time today, else the day; empty where it cannot be read."""
    try:
        moment = _local(at)
    except ValueError:  # what another program kept
        return ""
    today = _local(datetime.now(UTC).isoformat()).date()
    if moment.date() == today:
        return language.tr("Saved %(at)s", at=f"{moment:%H:%M}")
    return language.tr("Saved on %(day)s", day=day(moment.date()))


def date_time(at: str) -> str:
    """Date and clock time of a moment as kept, where the shop is."""
    moment = _local(at)
    return f"{day(moment.date())}, {moment:%H:%M}"


def long_date(day: date) -> str:
    """A date in words, as 5 July 2026, in the language of the shop's dates."""
    return format_date(day, "long", locale=locale_of_page())


def made() -> datetime:
    """When a calendar is made: now."""
    return datetime.now().astimezone()
