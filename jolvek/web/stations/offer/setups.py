"""What the Offer shows: parts with prices, what to expect on the water, the cautions."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from typing import Any

from jolvek.core.base.messages import msg
from jolvek.core.predict.claims import check_claims
from jolvek.core.predict.performance import Point
from jolvek.web.kit.display import Units, long_hours
from jolvek.web.kit.doubt_words import current_text, tried_text, wind_text
from jolvek.web.kit.figures import fig
from jolvek.web.kit.language import capital, tr
from jolvek.web.kit.worked import Worked


@dataclass(frozen=True)
class Expected:
    """One way of running: its name, and figures with what they may be between."""

    name: str
    figures: tuple[str, ...]


@dataclass(frozen=True)
class OfferPage:
    """What one setup does, in shown units."""

    expected: tuple[Expected, ...]
    basis: str
    claims: tuple[tuple[str, str], ...]


AS_ASKED = msg("as asked")


def offer_page(w: Worked, u: Units) -> OfferPage:
    """The offer of one setup."""
    p = w.performance
    at, (full, half, _) = w.wish_or_top, w.job.settings
    wanted = tr("the wanted speed")
    if w.fitted.need.day.speed_m_s > p.top_speed_m_s:
        wanted = tr(
            "the most there is; %(speed)s was wanted",
            speed=u.full(w.fitted.need.day.speed_m_s, "speed"),
        )
    ways = (
        (wanted, "wish", at, w.wish_or_top_m_s < p.top_speed_m_s),
        (tr("half power"), "half", half, False),
        (tr("full power"), "full", full, False),
    )
    return OfferPage(
        tuple(
            expected(name, key, x, w, u, asked)
            for name, key, x, asked in ways
            if x.power_w is not None
        ),
        _basis(w, u),
        _claims(w),
    )


def _claims(w: Worked) -> tuple[tuple[str, str], ...]:
    """What the makers of motor and battery say, and what is held of it; nothing unless it is asked
    for.
    """
    if not w.fitted.fitting.claims:
        return ()
    rows = [c for x in (w.fitted.motor, w.fitted.battery) for c in check_claims(x)]
    return tuple((capital(c.about), c.says) for c in rows if c.about != "missing data")


def expected(name: str, key: str, at: Point, w: Worked, u: Units, asked: bool = False) -> Expected:
    """One way of running with what it may be between: at a power the speed, and range by it; at a
    speed that is asked the range by what it may take.
    """
    d, power, speed = w.fitted.doubt, at.power_w or 0.0, at.speed_m_s or 0.0

    def between(ends: Iterable[Any], quantity: str) -> str:
        return " – ".join(u.number(float(x), quantity) for x in ends)

    ways = d.range_band_m(speed) if asked else d.way_band_m(power)
    return Expected(
        f"{name}, {fig(w.job, f'{key}.power', u)}",
        (
            fig(w.job, f"{key}.speed", u, False),
            AS_ASKED if asked else between(d.speed_band_m_s(power), "speed"),
            fig(w.job, f"{key}.time", u, False),
            fig(w.job, f"{key}.range", u, False),
            between(ways, "distance") if at.range_m is not None else "–",
        ),
    )


def _basis(w: Worked, u: Units) -> str:
    day = w.fitted.need.day
    loaded = tr("loaded to %(mass)s", mass=fig(w.job, "loaded", u))
    given = [loaded]
    if day.wind_m_s:
        given.append(wind_text(day, u))
    if day.current_m_s:
        given.append(current_text(day, u))
    out = tr(
        "Worked out %(given)s, %(tried)s; waves, a foul bottom and more load cost speed.",
        given=", ".join(given),
        tried=tried_text(w.fitted.need.hull),
    )
    kept = tr("Time and range leave %(kept)s in reserve.", kept=w.kept_text)
    out = f"{out} {kept}"
    if w.charge_h:
        full = long_hours(w.charge_h * 3600)
        back = tr("Charging back to full takes about %(hours)s.", hours=full)
        out = f"{out} {back}"
    return out
