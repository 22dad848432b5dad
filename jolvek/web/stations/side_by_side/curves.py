"""The curves of Side by side in shown units, and the chart and cursor data made of them."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Any

import numpy as np

from jolvek.core.base import units
from jolvek.core.enquiry.need import Need
from jolvek.core.predict.performance import DRIFT_W
from jolvek.web.kit.display import Units
from jolvek.web.kit.drawings import charts
from jolvek.web.kit.language import tr
from jolvek.web.kit.worked import Worked
from jolvek.web.stations.side_by_side.table import TIE

POINTS = 90
SLOWEST_SHARE = 0.12  # of the top speed, where the curves begin


Band = tuple[list[float], list[float]]


@dataclass(frozen=True)
class Curves:
    """One setup's figures in shown units over speed; every list has POINTS values."""

    speed: list[float]
    power: list[float]
    range_: list[float]
    runtime_h: list[float]
    drag: list[float]
    thrust: list[float]
    power_band: Band  # at that speed
    range_band: Band
    speed_band: Band  # at that power
    way_band: Band  # range at that power


def curves(worked: Worked, u: Units) -> Curves:
    """From an eighth of the top speed to the top."""
    p, d = worked.performance, worked.fitted.doubt
    speed = np.linspace(SLOWEST_SHARE, 1.0, POINTS) * p.top_speed_m_s
    needed = p.power_at_w(speed)
    drifts = (needed < DRIFT_W) & (p.setup.wind_m_s < 0)  # the wind alone: no range of hers
    seconds = np.where(drifts, 0.0, p.runtime_at_s(np.maximum(needed, DRIFT_W)))

    def by(quantity: str, values: Any) -> list[float]:
        return [units.to_unit(float(x), quantity, u[quantity]) for x in values]

    def ends(quantity: str, band: Any) -> Band:
        return by(quantity, band[0]), by(quantity, band[1])

    power = np.maximum.accumulate(needed)
    return Curves(
        by("speed", speed),
        by("power", np.where(drifts, 0.0, needed)),
        by("distance", np.maximum(speed - p.setup.current_m_s, 0.0) * seconds),
        [float(x) / 3600 for x in seconds],
        by("thrust", p.drag_at_n(speed)),
        by("thrust", p.thrust_available_n(speed)),
        power_band=ends("power", d.power_band_w(speed)),
        range_band=ends("distance", d.range_band_m(speed)),
        speed_band=ends("speed", d.speed_band_m_s(power)),
        way_band=ends("distance", d.way_band_m(power)),
    )


def series(w: Worked, c: Curves, view: str, mode: str, band: bool, u: Units) -> charts.Series:
    """One setup as the chart shows it."""
    p = w.performance
    if mode == "power":
        return charts.Series(w.letter, rising(c), c.speed, c.range_)
    if view == "time":
        return charts.Series(w.letter, c.speed, c.runtime_h, c.range_)
    if view == "thrust":
        return charts.Series(w.letter, c.speed, c.drag, c.power, second=c.thrust)
    knee, k = None, p.knee
    if k.speed_m_s is not None and k.power_w is not None:
        knee = (_shown(k.speed_m_s, "speed", u), _shown(k.power_w, "power", u))
    return charts.Series(w.letter, c.speed, c.power, c.range_, knee, c.speed_band if band else None)


def rising(c: Curves) -> list[float]:
    """The power as an axis: what has been needed up to each speed."""
    out: list[float] = np.maximum.accumulate(np.array(c.power)).tolist()
    return out


def _shown(value: float, quantity: str, u: Units) -> float:
    return units.to_unit(value, quantity, u[quantity])


def axes(
    need: Need, worked: list[Worked], view: str, mode: str, u: Units, cursor: float
) -> charts.Axes:
    """Axes with hull speed, speed limit and plate marked."""
    speed = tr("speed through the water, %(x)s", x=u["speed"])
    power = tr("input power, %(x)s", x=u["power"])
    far = tr("range with the reserve kept, %(x)s", x=u["distance"])
    plate = _shown(need.hull.max_power_w, "power", u) if need.hull.max_power_w else None
    if mode == "power":
        at = ((plate, "plate"),) if plate else ()
        return charts.Axes(power, speed, far, u["power"], at, cursor=cursor)
    marks = _marks(need, worked, u)
    if view == "time":
        left = tr("time with the reserve kept, h")
        return charts.Axes(speed, left, far, u["speed"], marks, cursor=cursor)
    if view == "thrust":
        left = tr("drag, and thrust to be had (thin), %(x)s", x=u["thrust"])
        return charts.Axes(speed, left, power, u["speed"], marks, cursor=cursor, low_rises=True)
    name = (
        tr("plate %(max_power)s", max_power=u.full(need.hull.max_power_w, "power")) if plate else ""
    )
    return charts.Axes(speed, power, far, u["speed"], marks, plate, plate_label=name, cursor=cursor)


def _marks(need: Need, worked: list[Worked], u: Units) -> tuple[tuple[float, str], ...]:
    hull = _shown(worked[0].performance.hull_speed_m_s, "speed", u)
    out = [(hull, tr("hull speed %(hull)s", hull=f"{hull:.1f}"))]
    if need.day.speed_limit_m_s:
        limit = _shown(need.day.speed_limit_m_s, "speed", u)
        out.append((limit, tr("speed limit %(limit)s", limit=f"{limit:.1f}")))
    return tuple(out)


def _bands(c: Curves, mode: str) -> dict[str, list[list[float]]]:
    """What the rows of doubt follow: what is read at the cursor, and the range."""
    first, far = (c.speed_band, c.way_band) if mode == "power" else (c.power_band, c.range_band)
    return {
        key: [[round(x, 4) for x in end] for end in band]
        for key, band in (("firstBand", first), ("rangeBand", far))
    }


def cursor_data(
    worked: list[Worked],
    all_curves: list[Curves],
    chart: charts.Chart,
    u: Units,
    mode: str,
    cursor: float,
) -> dict[str, Any]:
    """What the cursor script needs: per setup the axis and the live rows."""
    return {
        "at": round(cursor, 2),
        "x0": chart.frame.x0,
        "x1": chart.frame.x1,
        "xMax": chart.x_max,
        "mode": mode,
        "unit": u["power"] if mode == "power" else u["speed"],
        "tie": TIE,
        "places": {"power": 0 if u["power"] == "W" else 2, "speed": 1, "range": 1},
        "distanceUnit": u["distance"],
        "speedUnit": u["speed"],
        "setups": [
            {
                "letter": w.letter,
                "hold": bool(w.pinned.chosen),
                "x": [round(x, 4) for x in (rising(c) if mode == "power" else c.speed)],
                "speed": [round(x, 4) for x in c.speed],
                "power": [round(x, 3) for x in c.power],
                "range": [round(x, 3) for x in c.range_],
                "runtime": [round(3600 * x) for x in c.runtime_h],
                **_bands(c, mode),
            }
            for w, c in zip(worked, all_curves, strict=True)
        ],
    }
