"""Time, range, price and weights of all candidates; whether each does the wished day."""

from __future__ import annotations

from dataclasses import replace

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.electric.chemistry import chemistry, temperature_factor
from jolvek.core.electric.discharge import delivered_share
from jolvek.core.enquiry.need import Need
from jolvek.core.match.banks import Supplies
from jolvek.core.match.drives import Drives
from jolvek.core.match.field import Field
from jolvek.core.match.motors import Motors
from jolvek.core.match.pairs import Pairs
from jolvek.core.match.speeds import Runs
from jolvek.core.predict.performance import DRIFT_W


def days(need: Need, m: Motors, d: Drives, s: Supplies, p: Pairs, runs: Runs) -> Field:
    """Time, range, price and weights; whether each setup does the wished day.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> f = match(need, sample()).field
    >>> bool((f.range_m[f.does_day] > need.day.distance_m).all())
    True
    """
    day = need.day
    able = np.isfinite(runs.day_wh)
    mean_w = np.where(able, runs.day_wh, 1.0) / runs.hours
    energy = s.energy_wh[p.supply]
    share, day_share = (
        _shares(need, s, p, runs.run_w / energy),
        _shares(need, s, p, mean_w / energy),
    )
    run_w = np.maximum(runs.run_w, DRIFT_W)
    runtime = np.maximum(3600.0 * share * energy / run_w - day.keep_s, 0.0)
    speed = np.where(np.isnan(runs.wish_w), runs.top_m_s, day.speed_m_s)
    spent = np.where(able, day.runs_a_charge * runs.day_wh, np.inf)
    return _judged(
        need,
        d,
        Field(
            p.drive,
            p.supply,
            p.displacement_kg,
            runs.top_m_s,
            runs.wish_w,
            np.maximum(speed - day.current_m_s, 0.0) * runtime,
            runtime,
            d.price[p.drive] + s.price[p.supply],
            d.mass_kg[p.drive] + s.mass_kg[p.supply],
            np.maximum(m.mass_kg[d.motor[p.drive]], s.pack_kg[p.supply]),
            s.charge_h[p.supply],
            m.noise_db[d.motor[p.drive]],
            spent,
            day_share * energy - spent - mean_w * day.keep_s / 3600,
            np.zeros(p.drive.size, dtype=bool),
            runs.grid_m_s,
            runs.curves,
        ),
    )


def _shares(need: Need, s: Supplies, p: Pairs, per_h: Array) -> Array:
    """Share of the rated energy (N,) that reaches the motor at a power per energy, by chemistry."""
    out = np.empty(p.supply.size)
    for k, chem in enumerate(s.chemistry):
        rows = s.chem_index[p.supply] == k
        if rows.any():
            cold = temperature_factor(chemistry(chem), need.day.temperature_c)
            out[rows] = delivered_share(
                chem, per_h[rows], need.day.kept_share, 0.0, cold, need.day.start_charge
            )
    return out


def _judged(need: Need, d: Drives, f: Field) -> Field:
    """The field with what does the day: speed, energy and the customer's must-haves."""
    day = need.day
    does = ~np.isnan(f.power_at_wish_w) & (f.spare_wh >= 0) & (not need.day_blocked)
    if day.hands_free:
        does &= d.hands_free[f.drive]
    if day.max_lift_kg is not None:
        does &= f.lift_kg <= day.max_lift_kg
    if day.budget is not None:
        does &= f.price <= day.budget
    if day.max_noise_db is not None:
        does &= ~(f.noise_db > day.max_noise_db)
    return replace(f, does_day=does)
