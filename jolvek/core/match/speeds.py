"""Speed and power of all candidates from a table per motor, power limit and displacement."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from jolvek.core.base.arrays import Array, Index
from jolvek.core.enquiry.need import Need
from jolvek.core.hydro.propulsor import pitch_limited_thrust_n, power_for_thrust_w
from jolvek.core.hydro.resistance import Resistance, total_n
from jolvek.core.match.banks import Supplies
from jolvek.core.match.drives import Drives
from jolvek.core.match.motors import Motors
from jolvek.core.predict.hump import HUMP_MARGIN, PLANING_FROUDE

POINTS = 24


CHUNK = 4096


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
