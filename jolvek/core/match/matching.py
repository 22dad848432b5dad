"""Matching: every setup that a shelf allows on a boat, worked out together in arrays, with reasons.

Hard rules first (`candidates`), then speed, time, range, price and weight of all survivors at once,
then the ranking (`ranking`). The figures are those of `performance`, on a coarser grid of speeds.
"""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from jolvek.core.electric.battery import chemistry, delivered_share, temperature_factor
from jolvek.core.enquiry.need import Need
from jolvek.core.hydro.hull import awash_kg
from jolvek.core.hydro.propulsor import pitch_limited_thrust_n, power_for_thrust_w
from jolvek.core.hydro.resistance import Resistance, table, total_n
from jolvek.core.match.candidates import (
    Drives,
    Motors,
    Supplies,
    compatible,
    drives,
    motors,
    supplies,
)
from jolvek.core.match.why_not import (
    Field,
    battery_reasons,
    charger_reasons,
    motor_reasons,
    mount_reasons,
)
from jolvek.core.predict.hump import HUMP_MARGIN, PLANING_FROUDE
from jolvek.core.products.shelf import Shelf
from jolvek.core.rules.findings import Finding

Array = NDArray[np.float64]
Index = NDArray[np.intp]
Mask = NDArray[np.bool_]
POINTS = 24
CHUNK = 4096
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


def _thin(pairs: Mask, d: Drives, s: Supplies, most: int) -> Mask:
    """Fewer pairs where there are too many, the least loss first.

    Each motor's cheapest two drives and each bank's cheapest charger; then banks that another of
    the same voltage beats in every figure go; then one drive a motor; at last banks evenly over
    their energy.
    """
    bank = s.battery * 10_000 + s.series * 100 + s.parallel
    order = np.lexsort((s.price, bank))
    keep_s = np.zeros(s.battery.size, dtype=bool)
    keep_s[order[np.concatenate(([True], bank[order][1:] != bank[order][:-1]))]] = True
    keep_d = _cheapest_drives(d, 2)
    if _count(pairs, keep_d, keep_s) > most:
        keep_s &= ~_beaten(s, keep_s)
    if _count(pairs, keep_d, keep_s) > most:
        keep_d = _cheapest_drives(d, 1)
    left = _count(pairs, keep_d, keep_s)
    if left > most:
        rows = np.nonzero(keep_s)[0]
        rows = rows[np.argsort(s.energy_wh[rows])]
        keep_s[:] = False
        keep_s[rows[np.linspace(0, rows.size - 1, int(rows.size * most / left)).astype(int)]] = True
    return np.asarray(pairs & keep_d[:, None] & keep_s[None, :])


def _count(pairs: Mask, keep_d: Mask, keep_s: Mask) -> int:
    return int(pairs[keep_d][:, keep_s].sum())


def _cheapest_drives(d: Drives, most: int) -> Mask:
    order = np.lexsort((d.price, d.motor))
    motor = d.motor[order]
    start = np.concatenate(([True], motor[1:] != motor[:-1]))
    place = np.arange(order.size) - np.maximum.accumulate(np.where(start, np.arange(order.size), 0))
    keep = np.zeros(order.size, dtype=bool)
    keep[order[place < most]] = True
    return keep


def _beaten(s: Supplies, among: Mask) -> Mask:
    """Banks (B,) than which another of the same voltage is no worse in price, weight, energy, amps
    and charge time, and better in one.
    """
    out = np.zeros(among.size, dtype=bool)
    cost = np.stack(
        [
            s.price,
            s.mass_kg,
            -s.energy_wh,
            -s.continuous_a,
            s.pack_kg,
            np.nan_to_num(s.charge_h, nan=1e9),
        ],
        axis=1,
    )
    for volts in np.unique(s.nominal_v[among]):
        rows = np.nonzero(among & (s.nominal_v == volts))[0]
        rows = rows[np.argsort(s.price[rows], kind="stable")]
        for a in range(0, rows.size, 256):
            mine = cost[rows[a : a + 256]]
            no_worse = np.logical_and.reduce(
                [cost[rows, k][None, :] <= mine[:, k][:, None] for k in range(cost.shape[1])]
            )
            better = np.logical_or.reduce(
                [cost[rows, k][None, :] < mine[:, k][:, None] for k in range(cost.shape[1])]
            )
            out[rows[a : a + 256]] = (no_worse & better).any(axis=1)
    return out


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


def _speeds(need: Need, r: Resistance, m: Motors, d: Drives, drive: Index, mass: Array) -> Array:
    """A common grid of POINTS speeds up to what the strongest motor reaches, the wished speed among
    them.
    """
    strongest = drive[int(np.argmax(m.power_w[d.motor[drive]]))]
    i = d.motor[strongest]
    light = float(mass.min())
    v = np.linspace(0.05, 1.0, 80) * float(np.exp(r.log_speed[-1]))
    thrust = total_n(r, v, light, need.day.wind_m_s, m.leg_m2[i])
    power = power_for_thrust_w(
        np.maximum(thrust, 1e-6), v, m.diameter_m[i], m.loss_factor[i], need.water.density_kg_m3
    )
    over = power > 1.25 * m.power_w[i]
    last_under = int(np.nonzero(~over)[0][-1]) if (~over).any() else 0
    end = float(v[min(last_under + 1, v.size - 1)])
    wish = need.day.speed_m_s
    grid = np.linspace(min(0.12 * end, 0.5 * wish), max(end, 1.02 * wish), POINTS)
    grid[int(np.argmin(np.abs(grid - wish)))] = wish
    return grid


@dataclass(frozen=True)
class Table:
    """Rows of (motor, power limit) worked out at every displacement node: (R, K, P), float32.

    A candidate is a row and a displacement between two nodes; its curve is a blend of two lines.
    """

    load: NDArray[
        np.float32
    ]  # power over limit or thrust over what pitch allows, whichever is more, from rest
    power_w: NDArray[np.float32]  # from rest
    trip_w: NDArray[
        np.float64
    ]  # (L, R, K) steady power of each leg; inf where the pitch or the limit forbids it
    wish_w: NDArray[np.float64]  # (R, K) steady power at the wished speed
    row: Index  # (N,) row of each candidate
    limit_w: Array  # (N,)


def _tabulate(
    need: Need, m: Motors, s: Supplies, motor: Index, supply: Index, v: Array, r: Resistance
) -> Table:
    """Work out thrust and power once per motor, power limit and displacement node."""
    limits = np.minimum(m.power_w[motor], m.controller_a[motor] * s.nominal_v[supply])
    key, row = np.unique(motor * 1e6 + np.round(limits), return_inverse=True)
    mi, limit = (key // 1e6).astype(int), key % 1e6
    rho = need.water.density_kg_m3
    hull = total_n(r, v[None, :], r.displacement_kg[:, None], need.day.wind_m_s)  # (K, P)
    thrust = np.maximum(hull[None] + 0.5 * rho * v * v * m.leg_m2[mi][:, None, None], 1e-6)
    diameter, loss = m.diameter_m[mi][:, None, None], m.loss_factor[mi][:, None, None]
    power = power_for_thrust_w(thrust, v, diameter, loss, rho)
    climb = thrust
    if r.planing_capable:
        edge = np.array([r.planing_speed_m_s(x, PLANING_FROUDE) for x in r.displacement_kg])
        climb, power = _hump(v, edge[None, :, None], thrust, power, diameter, loss, rho)
    room = np.maximum(
        pitch_limited_thrust_n(
            v, diameter, m.pitch_m[mi][:, None, None], m.rev_s[mi][:, None, None], rho
        ),
        1e-9,
    )
    load = np.maximum.accumulate(np.maximum(power / limit[:, None, None], climb / room), axis=2)

    def steady(speed: float, wind: float) -> tuple[Array, Array]:
        """Thrust and power (R, K) at one speed in one wind."""
        push = (
            total_n(r, speed, r.displacement_kg, wind)[None]
            + 0.5 * rho * speed**2 * m.leg_m2[mi][:, None]
        )
        push = np.maximum(push, 1e-6)
        return push, power_for_thrust_w(
            push, speed, m.diameter_m[mi][:, None], m.loss_factor[mi][:, None], rho
        )

    trip = []
    for leg in need.day.trip:
        push, watts = steady(leg.speed_m_s, leg.wind_m_s)
        most = pitch_limited_thrust_n(
            leg.speed_m_s, m.diameter_m[mi], m.pitch_m[mi], m.rev_s[mi], rho
        )[:, None]
        trip.append(
            np.where((watts <= limit[:, None] * (1 + 1e-9)) & (push <= most), watts, np.inf)
        )
    return Table(
        np.minimum(load, 1e6).astype(np.float32),
        np.maximum.accumulate(power, axis=2).astype(np.float32),
        np.array(trip),
        steady(need.day.speed_m_s, need.day.wind_m_s)[1],
        row,
        limits,
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


def _blend(lines: NDArray[np.float32], low: Index, f: NDArray[np.float32]) -> NDArray[np.float32]:
    """Lines (L, P) read between `low` and the next at a share f, (n,) → (n, P)."""
    out = lines[low + 1]
    below = lines[low]
    out -= below
    out *= f[:, None]
    out += below
    return out


def _hump(
    v: Array, edge: Array, thrust: Array, power: Array, diameter: Array, loss: Array, rho: float
) -> tuple[Array, Array]:
    """Thrust and power (R, K, P) with the hump climbed with 10 % to spare before what lies past
    it.
    """
    h = np.argmax(np.where(v > edge, 0.0, power), axis=-1)[..., None]
    beyond = np.arange(v.size) > h
    humped = (
        np.where(beyond, power, np.inf).min(axis=-1, keepdims=True)
        < np.take_along_axis(power, h, -1)
    ) & beyond
    peak = (1 + HUMP_MARGIN) * np.take_along_axis(thrust, h, -1)
    need = power_for_thrust_w(peak, v[h], diameter, loss, rho)
    return np.where(humped, np.maximum(thrust, peak), thrust), np.where(
        humped, np.maximum(power, need), power
    )


def _first_over(v: Array, load: NDArray[np.float32]) -> Array:
    """Speed where a non-decreasing load (n, P) first passes 1, between grid points on cube
    roots.
    """
    i = np.count_nonzero(load <= 1, axis=1)
    hi = np.minimum(i, v.size - 1)
    lo = np.maximum(hi - 1, 0)
    rows = np.arange(load.shape[0])
    y0, y1 = np.cbrt(load[rows, lo]), np.cbrt(load[rows, hi])
    part = np.where(y1 > y0, (1 - y0) / np.where(y1 > y0, y1 - y0, 1), 1.0)
    between = v[lo] + np.clip(part, 0, 1) * (v[hi] - v[lo])
    return np.asarray(
        np.where(
            i == 0, v[0] / np.cbrt(np.maximum(load[:, 0], 1)), np.where(i == v.size, v[-1], between)
        )
    )


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
