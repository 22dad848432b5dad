"""Time, range, price and weights of all candidates; whether each does the wished day."""

from __future__ import annotations

import numpy as np
from numpy.typing import NDArray

from jolvek.core.base.arrays import Array, Index
from jolvek.core.electric.chemistry import chemistry, temperature_factor
from jolvek.core.electric.discharge import delivered_share
from jolvek.core.enquiry.need import Need
from jolvek.core.match.banks import Supplies
from jolvek.core.match.drives import Drives
from jolvek.core.match.field import Field
from jolvek.core.match.motors import Motors


def _days(
    need: Need,
    m: Motors,
    d: Drives,
    s: Supplies,
    drive: Index,
    supply: Index,
    mass: Array,
    v: Array,
    top: Array,
    power_wish: Array,
    power_run: Array,
    curves: NDArray[np.float32] | None,
    day_wh: Array,
    hours: float,
) -> Field:
    """Time, range, price and weights; whether each setup does the wished day."""
    day = need.day
    speed = np.where(np.isnan(power_wish), top, day.speed_m_s)
    energy = s.energy_wh[supply]
    able = np.isfinite(day_wh)
    mean_w = np.where(able, day_wh, 1.0) / hours
    share, day_share = np.empty(drive.size), np.empty(drive.size)
    for k, chem in enumerate(s.chemistry):
        rows = s.chem_index[supply] == k
        if rows.any():
            cold = temperature_factor(chemistry(chem), day.temperature_c)
            share[rows] = delivered_share(
                chem, (power_run / energy)[rows], day.kept_share, 0.0, cold
            )
            day_share[rows] = delivered_share(
                chem, (mean_w / energy)[rows], day.kept_share, 0.0, cold
            )
    runtime = np.maximum(3600.0 * share * energy / power_run - day.keep_s, 0.0)
    way = np.maximum(speed - day.current_m_s, 0.0)
    reach = way * runtime
    motor = d.motor[drive]
    spare_wh = day_share * energy - np.where(able, day_wh, np.inf) - mean_w * day.keep_s / 3600
    does = ~np.isnan(power_wish) & (spare_wh >= 0) & (not need.day_blocked)
    if day.hands_free:
        does &= d.hands_free[drive]
    lift = np.maximum(m.mass_kg[motor], s.pack_kg[supply])
    if day.max_lift_kg is not None:
        does &= lift <= day.max_lift_kg
    price = d.price[drive] + s.price[supply]
    if day.budget is not None:
        does &= price <= day.budget
    noise = m.noise_db[motor]
    if day.max_noise_db is not None:
        does &= ~(noise > day.max_noise_db)
    return Field(
        drive,
        supply,
        mass,
        top,
        power_wish,
        reach,
        runtime,
        price,
        d.mass_kg[drive] + s.mass_kg[supply],
        lift,
        s.charge_h[supply],
        noise,
        day_wh,
        spare_wh,
        does,
        v,
        curves,
    )
