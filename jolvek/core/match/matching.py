"""Matching: every setup that a shelf allows on a boat, worked out together in arrays, with reasons.

Hard rules first (`candidates`), then speed, time, range, price and weight of all survivors at once,
then the ranking (`ranking`). The figures are those of `performance`, on a coarser grid of speeds.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from jolvek.core.base.arrays import Array, Index
from jolvek.core.enquiry.need import Need
from jolvek.core.hydro.floating import awash_kg
from jolvek.core.hydro.resistance import Resistance, table
from jolvek.core.match.banks import Supplies, supplies
from jolvek.core.match.candidate_days import _days
from jolvek.core.match.drives import Drives, drives
from jolvek.core.match.field import Field
from jolvek.core.match.motors import Motors, motors
from jolvek.core.match.pairs import compatible
from jolvek.core.match.speeds import CHUNK, _blend, _first_over, _speeds, _tabulate
from jolvek.core.match.thinning import _thin
from jolvek.core.match.why_not import battery_reasons, charger_reasons, motor_reasons, mount_reasons
from jolvek.core.products.shelf import Shelf
from jolvek.core.rules.findings import Finding

MOST = 400_000
NODES = 7


@dataclass(frozen=True)
class Match:
    """The answer: the parts in arrays, the field of candidates, and why products fell out."""

    need: Need
    shelf: Shelf
    motors: Motors
    drives: Drives
    supplies: Supplies
    field: Field
    resistance: Resistance | None
    motor_reasons: dict[int, Finding]
    battery_reasons: dict[int, Finding]
    mount_reasons: dict[int, Finding]
    charger_reasons: dict[int, Finding]
    thinned: bool = False


def nodes(need: Need, lightest_kg: float, heaviest_kg: float) -> Array:
    """Displacements in kg at which the resistance is tabled, evenly in their logarithm.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> nodes(Need(Hull("kayak", 3.7, 0.78, 34), Load(1)), 100.0, 200.0).size
    7
    """
    return np.geomspace(lightest_kg * 0.999, max(heaviest_kg, lightest_kg * 1.02) * 1.001, NODES)


def match(need: Need, shelf: Shelf, keep_curves: bool = False, most: int | None = None) -> Match:
    """Work out every setup of `shelf` for `need`, thinned to about `most`. Never raises for an
    empty shelf or an odd boat.

    Valid as `performance.evaluate`; speeds agree with it within about 1 %.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> match(Need(Hull("kayak", 3.7, 0.78, 34), Load(1)), Shelf()).field.price.size
    0
    """
    rho = need.water.density_kg_m3
    m = motors(shelf, rho)
    d = drives(need, shelf, m)
    s = supplies(need, shelf, m)
    passes = compatible(shelf, m, s)
    fits = np.logical_and.reduce(list(passes.values()))
    pairs = (
        fits[d.motor]
        if d.motor.size and s.battery.size
        else np.zeros((d.motor.size, s.battery.size), dtype=bool)
    )
    most = most or MOST
    thinned = int(pairs.sum()) > most
    beaten: set[int] = set()
    if thinned:
        before = set(s.battery[pairs.any(axis=0)].tolist())
        pairs = _thin(pairs, d, s, most)
        beaten = before - set(s.battery[pairs.any(axis=0)].tolist())
    drive, supply = np.nonzero(pairs)
    resistance, field = None, _empty()
    if drive.size:
        base = need.hull.mass_kg + need.load.total_kg
        mass = base + d.mass_kg[drive] + s.mass_kg[supply]
        afloat = mass < awash_kg(need.hull, rho)
        if need.site.max_load_kg is not None:
            afloat &= mass - need.hull.mass_kg <= need.site.max_load_kg
        drive, supply, mass = drive[afloat], supply[afloat], mass[afloat]
        if drive.size:
            resistance = table(
                need.hull,
                need.water,
                nodes(need, float(mass.min()), float(mass.max())),
                need.load.people,
            )
            field = _evaluate(need, m, d, s, drive, supply, mass, resistance, keep_curves)
    return Match(
        need,
        shelf,
        m,
        d,
        s,
        field,
        resistance,
        motor_reasons(need, shelf, m, d, s, passes, field),
        battery_reasons(need, m, d, s, passes, field, shelf, beaten),
        mount_reasons(need, shelf, d),
        charger_reasons(shelf, s),
        thinned,
    )


def _empty() -> Field:
    none, index = np.zeros(0), np.zeros(0, dtype=int)
    return Field(
        index,
        index,
        *(none,) * 12,
        does_day=np.zeros(0, dtype=bool),
        curve_speed_m_s=none,
        curve_power_w=None,
    )


def _evaluate(
    need: Need,
    m: Motors,
    d: Drives,
    s: Supplies,
    drive: Index,
    supply: Index,
    mass: Array,
    r: Resistance,
    keep_curves: bool,
) -> Field:
    """Curves and day of all candidates, chunk by chunk so that each stays in the processor's
    cache.
    """
    v = _speeds(need, r, m, d, drive, mass)
    wish = int(np.argmin(np.abs(v - need.day.speed_m_s)))
    motor = d.motor[drive]
    t = _tabulate(need, m, s, motor, supply, v, r)
    nodes_n = r.displacement_kg.size
    step = np.log(r.displacement_kg[1] / r.displacement_kg[0])
    x = np.log(mass / r.displacement_kg[0]) / step
    j = np.clip(x.astype(int), 0, nodes_n - 2)
    f = (x - j).astype(np.float32)
    low = t.row * nodes_n + j
    load_lines, power_lines = t.load.reshape(-1, v.size), t.power_w.reshape(-1, v.size)
    n = drive.size
    top, at_wish = np.empty(n), np.empty(n)
    curves = np.empty((n, v.size), dtype=np.float32) if keep_curves else None
    for a in range(0, n, CHUNK):
        c = slice(a, a + CHUNK)
        load = _blend(load_lines, low[c], f[c])
        top[c] = _first_over(v, load)
        at_wish[c] = load[:, wish]
        if curves is not None:
            curves[c] = _blend(power_lines, low[c], f[c])

    def read(lines: Array) -> Array:
        flat = lines.reshape(-1)
        with np.errstate(invalid="ignore"):
            return np.asarray(np.where(f > 0, flat[low] * (1 - f) + flat[low + 1] * f, flat[low]))

    power_wish, reached = read(t.wish_w), at_wish <= 1
    day_wh, hours = (
        np.full(
            n, need.day.hotel_w * sum(leg.seconds + leg.hold_s for leg in need.day.trip) / 3600
        ),
        0.0,
    )
    for leg, lines in zip(need.day.trip, t.trip_w, strict=True):
        watts = read(lines)
        day_wh += np.where(leg.speed_m_s <= top * (1 + 1e-6), watts, np.inf) * leg.seconds / 3600
        hours += leg.seconds / 3600
    return _days(
        need,
        m,
        d,
        s,
        drive,
        supply,
        mass,
        v,
        top,
        np.where(reached, power_wish, np.nan),
        np.where(reached, power_wish, t.limit_w),
        curves,
        day_wh,
        max(hours, 1e-3),
    )
