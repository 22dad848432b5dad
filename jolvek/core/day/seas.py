"""The day's wind and waves against this boat: too much, held, or blown sideways."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.enquiry.need import Leg
from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.hung_leg import hung_leg
from jolvek.core.hydro.floating import draws_m, float_at
from jolvek.core.hydro.seaway import (
    HOLDS_DEG,
    drift_deg,
    most_wind_m_s,
    side_force_n,
    wave_height_m,
)
from jolvek.core.rules.findings import Finding, find

WAVE_SHARE = 0.1  # most significant height over the length; common practice, no source


@dataclass(frozen=True)
class Seas:
    """The strongest wind of the day, its waves, and the leeway it gives at the slowest leg."""

    wind_m_s: float
    wave_m: float
    drift_deg: float
    findings: tuple[Finding, ...]

    @property
    def holds(self) -> bool:
        """Whether she is steered rather than blown with the wind abeam."""
        return self.drift_deg <= HOLDS_DEG


def seas(fitted: Fitted, legs: tuple[Leg, ...], extra_wind_m_s: float = 0.0) -> Seas:
    """What wind and waves of some legs do to her; `extra_wind_m_s` is a wind that may get up.

    Limits by length are common practice and defer to the local watch and the builder's category.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> [x.rule for x in seas(f, f.need.day.trip, 15.4).findings]
    ['wind-limit', 'drift']
    """
    hull, rho = fitted.need.hull, fitted.need.water.density_kg_m3
    wind = max([abs(leg.wind_m_s) for leg in legs] + [extra_wind_m_s])
    most = most_wind_m_s(hull.length_m)
    wave = float(wave_height_m(wind, fitted.fetch_m)) if fitted.fetch_m and wind else 0.0
    slowest = min((leg.speed_m_s for leg in legs), default=1.0)
    speed = max(min(slowest, fitted.performance.top_speed_m_s), 0.3)
    floats = float_at(hull, fitted.displacement_kg, rho)
    side = side_force_n(hull, fitted.need.load.people, wind)
    angle = float(drift_deg(hull, float(draws_m(hull, floats)), side, speed, rho)) if wind else 0.0
    out = []
    if wind > most:
        out.append(find("wind-limit", wind, most, length=hull.length_m))
    if wave > WAVE_SHARE * hull.length_m:
        size = {"length": hull.length_m, "fetch": fitted.fetch_m}
        out.append(find("waves-limit", wave, WAVE_SHARE * hull.length_m, **size))
    if angle > HOLDS_DEG:
        out.append(find("drift", angle, HOLDS_DEG, speed=speed))
    needs = max(hung_leg(fitted)[0].needs_m, float(draws_m(hull, floats)))
    if fitted.depth_m is not None and fitted.depth_m < needs:
        out.append(find("shallow", needs, fitted.depth_m))
    return Seas(wind, wave, angle, tuple(out))
