"""Time, range, price and weights of all candidates; whether each does the wished day."""

from __future__ import annotations

from dataclasses import dataclass, replace

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.electric.bank import takes_charge
from jolvek.core.electric.chemistry import chemistry, temperature_factor
from jolvek.core.electric.discharge import delivered_share
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.enquiry.sun import mean_w, sun_at
from jolvek.core.match.banks import Supplies
from jolvek.core.match.drives import Drives
from jolvek.core.match.field import Field
from jolvek.core.match.motors import Motors
from jolvek.core.match.pairs import Pairs
from jolvek.core.match.speeds import Runs
from jolvek.core.predict.performance import DRIFT_W

LEAST_USED = 1e-3  # of a charge, where the sun gives all that a day takes


def days(
    need: Need,
    m: Motors,
    d: Drives,
    s: Supplies,
    p: Pairs,
    runs: Runs,
    work: Array | None = None,
    ranks_fitted: bool = True,
) -> Field:
    """Time, range, price and weights; whether each setup does the wished day. `work` is what cables
    and hours add to the parts (N,).

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> f = match(need, sample()).field
    >>> bool((f.range_m[f.does_day] > need.day.distance_m).all())
    True
    """
    day, usage = need.day, _usage(need, s, p, runs)
    energy = s.energy_wh[p.supply]
    share = _shares(need, s, p, runs.run_w / energy)
    run_w = np.maximum(runs.run_w, DRIFT_W)
    runtime = np.maximum(3600.0 * share * energy / run_w - day.keep_s, 0.0)
    parts = d.price[p.drive] + s.price[p.supply]
    fitted = parts if work is None else parts + work
    speed = np.where(np.isnan(runs.wish_w), runs.top_m_s, day.speed_m_s)
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
            runtime_s=runtime,
            price=fitted if ranks_fitted else parts,
            parts_price=parts,
            fitted_price=fitted,
            mass_kg=d.mass_kg[p.drive] + s.mass_kg[p.supply],
            lift_kg=np.maximum(m.mass_kg[d.motor[p.drive]], s.pack_kg[p.supply]),
            charge_h=s.charge_h[p.supply],
            noise_db=m.noise_db[d.motor[p.drive]],
            day_wh=usage.spent_wh,
            spare_wh=usage.spare_wh,
            does_day=np.zeros(p.drive.size, dtype=bool),
            curve_speed_m_s=runs.grid_m_s,
            curve_power_w=runs.curves,
        ),
    )


@dataclass(frozen=True)
class _Usage:
    """What the day takes of each bank (N,) between two charges, and what is left over it."""

    spent_wh: Array  # inf where a leg cannot be run
    spare_wh: Array


def _usage(need: Need, s: Supplies, p: Pairs, runs: Runs) -> _Usage:
    """The day's legs and waits drawn from each bank: each at its own power, so that what a hard leg
    loses is its own; less what the panels give in that time.
    """
    day, energy = need.day, s.energy_wh[p.supply]
    n = energy.size
    wh, hours, part = np.zeros(n), 0.0, np.zeros(n)
    known: dict[tuple[float, float], Array] = {}  # a bank's hours at the power of such a leg
    sun = sun_at(day)
    for i, leg in enumerate(day.trip):
        key = (leg.speed_m_s, leg.wind_m_s)
        watts = runs.leg_w(i, leg.speed_m_s) + day.hotel_w
        for seconds, draw in ((leg.seconds, watts), (leg.hold_s, np.full(n, day.hotel_w))):
            if seconds <= 0:
                continue
            wh += draw * seconds / 3600
            if sun is None and draw is watts and key in known:
                part += seconds / known[key]
            else:
                given = mean_w(sun, day.start_h + hours, seconds / 3600) if sun else 0.0
                lasts = _lasts_s(need, s, p, draw - given)
                part += seconds / lasts
                if draw is watts:
                    known[key] = lasts
            np.maximum(part, _full(day, s, p), out=part)
            hours += seconds / 3600
    spent = np.where(np.isfinite(wh), day.runs_a_charge * wh, np.inf)
    way_h = max(sum(leg.seconds for leg in day.trip) / 3600, 1e-3)
    mean = np.where(np.isfinite(wh), wh, energy) / way_h
    used = day.runs_a_charge * part
    if day.keep_s:
        used = used + day.keep_s / _lasts_s(need, s, p, mean)
    with np.errstate(invalid="ignore"):
        spare = np.where(
            np.isfinite(spent), spent * (1 / np.maximum(used, LEAST_USED) - 1), -np.inf
        )
    return _Usage(spent, spare)


def _full(day: Day, s: Supplies, p: Pairs) -> Array:
    """The part of what may be used that a full bank stands above its charge at the start, negative:
    no sun fills it over that.
    """
    usable = np.array([chemistry(c).usable for c in s.chemistry])[s.chem_index[p.supply]]
    window = np.minimum(day.start_charge - day.kept_share, day.start_charge - 1 + usable)
    return (day.start_charge - 1) / np.maximum(window, 0.01)


def _lasts_s(need: Need, s: Supplies, p: Pairs, watts: Array) -> Array:
    """Seconds (N,) that each bank holds a power until what must stay is left; negative where it is
    charged, by how long it takes to put as much back.
    """
    energy = s.energy_wh[p.supply]
    drawn = np.maximum(np.abs(watts), 1e-3)
    lasts = 3600 * _shares(need, s, p, drawn / energy) * energy / drawn
    if watts.min(initial=0.0) >= 0:
        return np.maximum(lasts, 1e-3)
    back = np.full(lasts.size, -np.inf)
    for k, name in enumerate(s.chemistry):
        chem = chemistry(name)
        if takes_charge(chem, need.day.temperature_c):
            rows = s.chem_index[p.supply] == k
            back[rows] = -lasts[rows] / chem.charge_efficiency
    return np.where(watts >= 0, np.maximum(lasts, 1e-3), back)


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
