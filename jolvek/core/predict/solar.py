"""Sun on flat panels by pvlib: power over a day at a place, the day's yield, and the speed it
carries.

pvlib is imported on first use: it is large, and most questions need no sun.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.predict.performance import Performance
from jolvek.core.rules.findings import Finding, find

STANDARD_SUN_W_M2 = 1000.0
TURBIDITY = 3.5  # Linke; clean sea air about 3, hazy summer 5; common practice, no source
PANEL_LOSS = 0.88  # heat, salt, flat cells' angle; common practice, no source
CONTROLLER = 0.95  # tracking controller; a plain one about 0.8
CLOUDS = {
    "clear": 1.0,
    "fair": 0.75,
    "mixed": 0.5,
    "overcast": 0.2,
}  # of clear sky; common practice, no source


@dataclass(frozen=True)
class Panels:
    """Flat panels: rated W together, the controller's efficiency, the sky as one of CLOUDS."""

    rated_w: float
    sky: str = "fair"
    controller: float = CONTROLLER

    def __post_init__(self) -> None:
        if not 0 <= self.rated_w <= 50_000:
            raise ValueRefused("panels.rated_w", self.rated_w, "0 to 50000 W")
        if self.sky not in CLOUDS:
            raise ValueRefused("panels.sky", self.sky, msg("one of ") + ", ".join(CLOUDS))


@dataclass(frozen=True)
class Sunshine:
    """A day's sun: hours of the local day (N,) and what the panels put into the bank then, W."""

    hour: Array
    power_w: Array

    @property
    def energy_wh(self) -> float:
        """The day's yield."""
        return float(np.trapezoid(self.power_w, self.hour))

    @property
    def noon_w(self) -> float:
        """The best moment."""
        return float(self.power_w.max(initial=0.0))

    def at_w(self, hour: float) -> float:
        """Power at a clock hour of the day; nights are dark."""
        return float(np.interp(hour % 24.0, self.hour, self.power_w))


def clear_sky_w_m2(
    latitude_deg: float,
    longitude_deg: float,
    date: str,
    utc_offset_h: float = 0.0,
    step_min: int = 15,
) -> tuple[Array, Array]:
    """(hours of the local day, horizontal clear-sky irradiance in W/m²) at a place on a date (ISO,
    2026-07-01).

    Source: pvlib, solar position (NREL SPA) and the Ineichen–Perez clear sky with a Linke turbidity
    of 3.5. Raises ValueRefused for a place or date that is none.

    >>> hour, sun = clear_sky_w_m2(55.0, 10.0, "2026-06-21", 1.0)
    >>> 750 < float(sun.max()) < 900, 11.0 < float(hour[sun.argmax()]) < 13.0
    (True, True)
    """
    if not (-90 <= latitude_deg <= 90 and -180 <= longitude_deg <= 180):
        raise ValueRefused(
            "place", (latitude_deg, longitude_deg), "latitude −90 to 90, longitude −180 to 180"
        )
    import pandas as pd
    from pvlib import atmosphere, clearsky, solarposition

    try:
        start = pd.Timestamp(date, tz="UTC").normalize() - pd.Timedelta(hours=utc_offset_h)
    except ValueError:
        raise ValueRefused("date", date, msg("a date as 2026-07-01")) from None
    times = pd.date_range(start, start + pd.Timedelta(hours=24), freq=f"{step_min}min")
    position = solarposition.get_solarposition(times, latitude_deg, longitude_deg)
    zenith = position["apparent_zenith"]
    mass = atmosphere.get_absolute_airmass(atmosphere.get_relative_airmass(zenith))
    sky = clearsky.ineichen(zenith, mass, TURBIDITY)
    hours = np.arange(len(times)) * step_min / 60.0
    return hours, np.nan_to_num(sky["ghi"].to_numpy(dtype=float))


def sunshine(
    panels: Panels, latitude_deg: float, longitude_deg: float, date: str, utc_offset_h: float = 0.0
) -> Sunshine:
    """What the panels give over a day: rated power × sun / 1000 W/m² × sky × losses × controller.

    Errors as `clear_sky_w_m2`.

    >>> day = sunshine(Panels(500), 55.0, 10.0, "2026-06-21", 1.0)
    >>> 2000 < day.energy_wh < 3000, day.at_w(1.0)
    (True, 0.0)
    """
    hours, sun = clear_sky_w_m2(latitude_deg, longitude_deg, date, utc_offset_h)
    return Sunshine(
        hours,
        panels.rated_w
        * sun
        / STANDARD_SUN_W_M2
        * CLOUDS[panels.sky]
        * PANEL_LOSS
        * panels.controller,
    )


def check_sun(day: Sunshine) -> list[Finding]:
    """The finding where a day has no sun worth the name.

    >>> [f.rule for f in check_sun(sunshine(Panels(200), 78.0, 15.0, "2026-12-21"))]
    ['solar-none']
    """
    return [find("solar-none", day.energy_wh, 1.0)] if day.energy_wh < 1.0 else []


def sun_neutral_speed_m_s(performance: Performance, sun_w: float, hotel_w: float = 0.0) -> float:
    """The speed in m/s that the sun alone holds, other loads (W) served first; 0 where they take it
    all.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.products.motor import Motor
    >>> from jolvek.core.predict.setup import Setup
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> p = evaluate(Setup(Hull("multihull", 6.7, 4.2, 750), Load(2, 160), Motor(1500)))
    >>> 1.4 < sun_neutral_speed_m_s(p, 300.0) < 2.2
    True
    """
    left = sun_w - hotel_w
    return float(performance.speed_at_w(left)) if left > 0 else 0.0
