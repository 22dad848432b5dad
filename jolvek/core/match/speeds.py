"""Speed and power of all candidates from a table per motor, power limit and displacement."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from jolvek.core.base.arrays import Array, Index
from jolvek.core.enquiry.need import Need
from jolvek.core.hydro.propulsor import pitch_limited_thrust_n
from jolvek.core.hydro.resistance import Resistance, total_n
from jolvek.core.match.banks import Supplies
from jolvek.core.match.drives import Drives
from jolvek.core.match.motors import Motors
from jolvek.core.match.pairs import Pairs
from jolvek.core.predict.hump import HUMP_MARGIN, PLANING_FROUDE

POINTS = 24  # speeds of the common grid
CHUNK = 4096  # candidates worked out at a time


def _grid(need: Need, r: Resistance, m: Motors, d: Drives, p: Pairs) -> Array:
    """A common grid of POINTS speeds up to what the strongest motor reaches, the wanted speed among
    them.
    """
    motor = d.motor[p.drive]
    i = motor[int(np.argmax(m.power_w[motor]))]
    v = np.linspace(0.05, 1.0, 80) * float(np.exp(r.log_speed[-1]))
    light = float(p.displacement_kg.min())
    thrust = np.maximum(total_n(r, v, light, need.day.wind_m_s, m.leg_m2[i]), 1e-6)
    power = m.drive(i).power_w(thrust, v, need.water.density_kg_m3)
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

    # power over limit or thrust over what pitch allows, whichever is more, from rest
    load: NDArray[np.float32]
    power_w: NDArray[np.float32]  # from rest
    # (L, R, K) steady power of each leg; inf where the pitch or the limit forbids it
    trip_w: Array
    wish_w: Array  # (R, K) steady power at the wanted speed
    row: Index  # (N,) row of each candidate
    limit_w: Array  # (N,)


@dataclass(frozen=True)
class _Rows:
    """Motors (R,) at their power limits, with what their propellers do at any speed."""

    motors: Motors
    index: Index
    limit_w: Array
    resistance: Resistance
    rho: float

    def column(self, values: Array, axes: int) -> Array:
        """Values of the motors (M,) as (R, 1, …) with so many axes after the first."""
        return values[self.index].reshape(-1, *(1,) * axes)

    def power_w(self, thrust: Array, speed: Array | float) -> Array:
        """Power (R, K, …) for a thrust at a speed."""
        return self.motors.drive(self.index, thrust.ndim - 1).power_w(thrust, speed, self.rho)

    def room_n(self, speed: Array | float, axes: int) -> Array:
        """Thrust that pitch and torque allow at a speed."""
        m = self.motors
        diameter, pitch, rev = (self.column(x, axes) for x in (m.diameter_m, m.pitch_m, m.rev_s))
        by_pitch = pitch_limited_thrust_n(speed, diameter, pitch, rev, self.rho)
        return np.asarray(np.minimum(by_pitch, self.column(m.lug_n, axes)))

    def thrust_n(self, speed: Array | float, wind: float) -> Array:
        """Resistance with the motor's leg, (R, K) at one speed or (R, K, P) at many."""
        at = np.asarray(speed)
        mass = self.resistance.displacement_kg.reshape(-1, *(1,) * at.ndim)
        leg_m2 = self.column(self.motors.leg_m2, 1 + at.ndim)
        return np.maximum(total_n(self.resistance, at, mass, wind, leg_m2), 1e-6)


def _tabulate(
    need: Need, m: Motors, s: Supplies, motor: Index, supply: Index, v: Array, r: Resistance
) -> Table:
    """Work out thrust and power once per motor, power limit and displacement node."""
    limits = np.minimum(m.power_w[motor], m.controller_a[motor] * s.nominal_v[supply])
    key, row = np.unique(motor * 1e6 + np.round(limits), return_inverse=True)
    rows = _Rows(m, (key // 1e6).astype(int), key % 1e6, r, need.water.density_kg_m3)
    day = need.day
    thrust = rows.thrust_n(v, day.wind_m_s)
    power = rows.power_w(thrust, v)
    climb = thrust
    if r.planing_capable:
        edge = np.array([r.planing_speed_m_s(x, PLANING_FROUDE) for x in r.displacement_kg])
        climb, power = _hump(v, edge[None, :, None], thrust, power, rows)
    room = np.maximum(rows.room_n(v, 2), 1e-9)
    limit = rows.limit_w[:, None, None]
    load = np.maximum.accumulate(np.maximum(power / limit, climb / room), axis=2)
    return Table(
        np.minimum(load, 1e6).astype(np.float32),
        np.maximum.accumulate(power, axis=2).astype(np.float32),
        np.array([_leg_power_w(rows, leg.speed_m_s, leg.wind_m_s) for leg in day.trip]),
        rows.power_w(rows.thrust_n(day.speed_m_s, day.wind_m_s), day.speed_m_s),
        row,
        limits,
    )


def _leg_power_w(rows: _Rows, speed: float, wind: float) -> Array:
    """Steady power (R, K) of one leg; inf where the pitch or the limit forbids it."""
    push = rows.thrust_n(speed, wind)
    watts = rows.power_w(push, speed)
    able = (watts <= rows.limit_w[:, None] * (1 + 1e-9)) & (push <= rows.room_n(speed, 1))
    return np.where(able, watts, np.inf)


@dataclass(frozen=True)
class Runs:
    """What each candidate (N,) does: top speed, power at the wanted speed (nan out of reach), power
    it then runs at; curves (N, P) where they were asked for.
    """

    grid_m_s: Array
    top_m_s: Array
    wish_w: Array
    run_w: Array
    curves: NDArray[np.float32] | None
    trip_w: Array  # of the table, with where each candidate reads it
    low: Index
    share: NDArray[np.float32]

    def leg_w(self, leg: int, speed_m_s: float) -> Array:
        """Power (N,) of a leg of the day; inf where it cannot be run."""
        watts = _read(self.trip_w[leg], self.low, self.share)
        return np.where(speed_m_s <= self.top_m_s * (1 + 1e-6), watts, np.inf)


def run(
    need: Need, m: Motors, d: Drives, s: Supplies, p: Pairs, r: Resistance, keep_curves: bool
) -> Runs:
    """Curves and day of all candidates, chunk by chunk so that each stays in the processor's cache.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> bool((match(need, sample()).field.top_speed_m_s > 1.5).all())
    True
    """
    v = _grid(need, r, m, d, p)
    t = _tabulate(need, m, s, d.motor[p.drive], p.supply, v, r)
    place, f = _between_nodes(r.displacement_kg, p.displacement_kg)
    low = t.row * r.displacement_kg.size + place
    top, at_wish, curves = _read_curves(t, v, need.day.speed_m_s, low, f, keep_curves)
    wish_w, reached = _read(t.wish_w, low, f), at_wish <= 1
    run_w = np.where(reached, wish_w, t.limit_w)
    return Runs(
        v, top, np.where(reached, wish_w, np.nan), run_w, curves, t.trip_w, low=low, share=f
    )


def _between_nodes(nodes_kg: Array, mass: Array) -> tuple[Index, NDArray[np.float32]]:
    """Each mass (N,) as the node below it and the share of the way to the next."""
    x = np.log(mass / nodes_kg[0]) / np.log(nodes_kg[1] / nodes_kg[0])
    place = np.clip(x.astype(int), 0, nodes_kg.size - 2)
    return place, (x - place).astype(np.float32)


def _read(lines: Array, low: Index, f: NDArray[np.float32]) -> Array:
    """Figures (R, K) read for each candidate between two nodes."""
    flat = lines.reshape(-1)
    with np.errstate(invalid="ignore"):
        return np.asarray(np.where(f > 0, flat[low] * (1 - f) + flat[low + 1] * f, flat[low]))


def _read_curves(
    t: Table, v: Array, wish_m_s: float, low: Index, f: NDArray[np.float32], keep: bool
) -> tuple[Array, Array, NDArray[np.float32] | None]:
    """Top speed, load at the wanted speed (N,), and the curves where they are to be kept."""
    wish, n = int(np.argmin(np.abs(v - wish_m_s))), low.size
    load_lines, power_lines = t.load.reshape(-1, v.size), t.power_w.reshape(-1, v.size)
    top, at_wish = np.empty(n), np.empty(n)
    curves = np.empty((n, v.size), dtype=np.float32) if keep else None
    for a in range(0, n, CHUNK):
        c = slice(a, a + CHUNK)
        load = _blend(load_lines, low[c], f[c])
        top[c] = _first_over(v, load)
        at_wish[c] = load[:, wish]
        if curves is not None:
            curves[c] = _blend(power_lines, low[c], f[c])
    return top, at_wish, curves


def _blend(lines: NDArray[np.float32], low: Index, f: NDArray[np.float32]) -> NDArray[np.float32]:
    """Lines (L, P) read between `low` and the next at a share f, (n,) → (n, P)."""
    out = lines[low + 1]
    below = lines[low]
    out -= below
    out *= f[:, None]
    out += below
    return out


def _hump(v: Array, edge: Array, thrust: Array, power: Array, rows: _Rows) -> tuple[Array, Array]:
    """Thrust and power (R, K, P) with the hump climbed with 10 % to spare before what lies past
    it.
    """
    h = np.argmax(np.where(v > edge, 0.0, power), axis=-1)[..., None]
    beyond = np.arange(v.size) > h
    crest = np.take_along_axis(power, h, -1)
    humped = (np.where(beyond, power, np.inf).min(axis=-1, keepdims=True) < crest) & beyond
    peak = (1 + HUMP_MARGIN) * np.take_along_axis(thrust, h, -1)
    climb = rows.power_w(peak, v[h])
    thrust = np.where(humped, np.maximum(thrust, peak), thrust)
    return thrust, np.where(humped, np.maximum(power, climb), power)


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
