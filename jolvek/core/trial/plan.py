"""The plan of a sea trial: steps of power both ways, how long, and what the water must be."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.base.messages import msg
from jolvek.core.base.units import GRAVITY_M_S2
from jolvek.core.predict.doubt import doubt
from jolvek.core.predict.performance import Performance
from jolvek.core.trial.runs import GUST_M_S

SHARES = (0.25, 0.5, 0.75, 1.0)  # of the power limit; common practice, no source
STEADY_S, SETTLE = 40.0, 12.0  # s that a run is measured; boat lengths before it; common practice
CALM_M_S = 4.0  # wind to wait for; common practice, no source

DEPTH_FROUDE = 0.6  # V/√(g h) above which shallow water would slow her; common practice, no source


@dataclass(frozen=True)
class Step:
    """One step: W, the speed promised with its band in m/s, seconds and metres of one run, least
    depth in m.
    """

    power_w: float
    speed_m_s: float
    low_m_s: float
    high_m_s: float
    seconds: float
    metres: float
    depth_m: float


def plan(p: Performance) -> list[Step]:
    """The steps, lowest first, so that the battery is fullest for the surest of them.

    >>> from jolvek.core.predict.measured import TRIMARAN
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> [round(s.power_w) for s in plan(evaluate(TRIMARAN))]
    [375, 750, 1125, 1500]
    """
    d = doubt(p)
    out = []
    for share in SHARES:
        power = share * p.power_limit_w
        speed = float(p.speed_at_w(power))
        low, high = (float(x) for x in d.speed_band_m_s(power))
        settle_s = SETTLE * p.setup.hull.length_m / max(speed, 0.3)
        seconds = settle_s + STEADY_S
        depth = (speed / DEPTH_FROUDE) ** 2 / GRAVITY_M_S2
        out.append(Step(power, speed, low, high, seconds, seconds * speed, depth_m=max(depth, 1.0)))
    return out


def waits_for(wind_m_s: float) -> str:
    """What the wind says to a trial: empty, wait, or no trial.

    >>> waits_for(2.0), waits_for(6.0) != "", waits_for(20.0)
    ('', True, 'too much wind for a trial')
    """
    if wind_m_s <= CALM_M_S:
        return ""
    return (
        msg("wait for less wind, or the lee")
        if wind_m_s <= GUST_M_S
        else msg("too much wind for a trial")
    )
