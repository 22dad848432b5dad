"""Doubt in words: from what to what, and what would narrow it."""

from __future__ import annotations

from collections.abc import Iterable

from jolvek.core.base.messages import msg
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.enquiry.sizing import Sizing
from jolvek.core.hydro.hull import FACTORS, Hull
from jolvek.core.predict.doubt import Doubt
from jolvek.core.predict.likelihood import CONFIDENCE
from jolvek.core.trial.family import OF_ITS_KIND
from jolvek.web.kit.dates import day
from jolvek.web.kit.display import Units, about, band
from jolvek.web.kit.language import tr

IN_FIVE = {0.8: msg("four such boats in five")}[CONFIDENCE]

MANAGES = {  # the three words of likelihood, as everybody says them
    "likely": msg("should manage it"),
    "open": msg("may not manage it"),
    "unlikely": msg("is unlikely to manage it"),
}


def manages(likely: str) -> str:
    """Whether the boat manages the day, in everyday words."""
    return tr(MANAGES[likely])


def from_to(ends: Iterable[float], quantity: str, u: Units) -> str:
    """A band with its unit: 460 to 760 W."""
    low, high = (about(float(x)) if quantity == "power" else float(x) for x in ends)
    return tr("%(low)s to %(high)s", low=u.number(low, quantity), high=u.full(high, quantity))


def tried_text(hull: Hull) -> str:
    """Whether the boat was tried, as it stands beside her figures.

    >>> tried_text(Hull("kayak", 3.7, 0.78, 34))
    'not yet tried on the water'
    >>> tried_text(Hull("kayak", 3.7, 0.78, 34, tried_on="2026-07-01"))
    'tried on the water, 1 Jul 2026'
    """
    if hull.tried_on.endswith(OF_ITS_KIND):
        return tr("not yet tried, going by %(tried_on)s", tried_on=hull.tried_on)
    if hull.tried_on:
        return tr("tried on the water, %(tried_on)s", tried_on=day(hull.tried_on))
    plain = all(getattr(hull, name) == 1.0 for name in FACTORS)
    return tr("not yet tried on the water") if plain else tr("tried on the water")


def power_text(need: Need, sizing: Sizing, u: Units) -> str:
    """What the wanted speed may take, before any motor is chosen."""
    took = from_to(sizing.power_band_w(need), "power", u)
    return tr(
        "At %(speed)s %(in_five)s take %(took)s.",
        speed=u.full(need.day.speed_m_s, "speed"),
        in_five=IN_FIVE,
        took=took,
    )


def helps_most(d: Doubt, power_w: float, at_speed_m_s: float, u: Units) -> str:
    """The one measurement that narrows the doubt most at a speed, and what it leaves; afloat and
    ashore.
    """
    now, ways = d.speed_share(power_w), d.narrowed(power_w)
    if not ways:
        return ""
    best, left = ways[0]
    first = tr(
        "At %(at_speed)s %(best)s: %(left)s of speed instead of %(now)s",
        at_speed=u.full(at_speed_m_s, "speed"),
        best=best,
        left=band(left),
        now=band(now),
    )
    ashore = next((w for w in ways[1:] if now - w[1] > 0.005), None)
    more = f"; {ashore[0]}: {band(ashore[1])}" if ashore else ""
    return f"{first}{more}."


def wind_text(day: Day, u: Units) -> str:
    """The wind of a day, and from where."""
    speed = u.full(abs(day.wind_m_s), "speed")
    if day.wind_m_s > 0 and day.against == "home" and not day.legs:
        return tr("%(speed)s of wind against on the way home", speed=speed)
    if day.wind_m_s > 0:
        return tr("%(speed)s of wind against", speed=speed)
    return tr("%(speed)s of wind behind", speed=speed)


def current_text(day: Day, u: Units) -> str:
    """The current of a day, and which way it sets."""
    speed = u.full(abs(day.current_m_s), "speed")
    if day.current_m_s > 0 and day.against == "home" and not day.legs:
        return tr("%(speed)s of current against on the way home", speed=speed)
    if day.current_m_s > 0:
        return tr("%(speed)s of current against", speed=speed)
    return tr("%(speed)s of current with the boat", speed=speed)
