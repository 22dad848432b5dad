"""Wave resistance of slender bodies by thin-ship theory (Michell 1898), inner integrals in closed
form.

The stand-in hull has parabolic waterlines and sections, y = (B/2)(1−(2x/L)²)(1−(z/T)²), with T
taken from the volume (∇ = 4/9·L·B·T), so that the same volume makes the same waves.
"""

from __future__ import annotations

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array

G_M_S2 = 9.80665
_STEPS = 300
_U_MAX = 4.6
_U = np.linspace(0.0, 1.0, _STEPS)
_U = _U_MAX * (0.55 * _U + 0.45 * _U**2)  # denser where the long waves are
_WEIGHT = np.gradient(_U)
_WEIGHT[[0, -1]] *= 0.5
_COSH, _SINH = np.cosh(_U), np.sinh(_U)


def depth_factor(q: ArrayLike) -> Array:
    """∫₀¹ (1−t²) e^(−q t) dt for q ≥ 0, by closed form and, for small q, its series.

    >>> depth_factor([0.0, 1e-3, 2.0]).round(4).tolist()
    [0.6667, 0.6664, 0.3515]
    """
    x = np.asarray(q, dtype=float)
    small = x < 0.15
    s = np.where(small, 1.0, x)
    i = 1.0 / s
    cube = 2 * i * i * i
    closed = i - cube + np.exp(-s) * (2 * i * i + cube)
    if small.any():
        y = x[small]
        closed[small] = 2 / 3 + y * (-1 / 4 + y * (1 / 15 + y * (-1 / 72 + y / 420)))
    return np.asarray(closed)


def thin_ship_resistance_n(
    speed_m_s: ArrayLike,
    length_m: float,
    beam_m: float,
    thin_draught_m: ArrayLike,
    offsets_m: tuple[float, ...] = (0.0,),
    density_kg_m3: float = 1026.0,
    unlike: tuple[tuple[float, float, float], ...] | None = None,
) -> Array:
    """Wave resistance in N of one or more parabolic bodies with centre lines at `offsets_m`.

    Shapes: speeds (V,), draughts (D,) or scalar → (D, V). Bodies are equal, or `unlike`: of each,
    length, beam and draught over those given; all abreast. Speeds from Fn 0.08 up; slender bodies
    in deep water. Source: Michell 1898; R = 4ρg²/(πV²) ∫|ΣA exp(i k₀ y sec²θ sinθ)|² sec³θ dθ with
    secθ = cosh u.

    >>> round(float(thin_ship_resistance_n([3.0], 8.0, 0.8, 0.5)[0, 0]), 0) > 0
    True
    """
    v = np.atleast_1d(np.asarray(speed_m_s, dtype=float))[:, None]
    t = np.atleast_1d(np.asarray(thin_draught_m, dtype=float))
    k0 = G_M_S2 / v**2
    phase = k0 * _COSH * _SINH
    # past the grid's resolution the bodies' short waves add at random: their squares, no phases
    step = np.abs(np.gradient(phase, axis=1)) * (max(offsets_m) - min(offsets_m))
    kinds = unlike or ((1.0, 1.0, 1.0),) * len(offsets_m)
    along = {k: _along(k0 * _COSH, k[0] * length_m, k[1] * beam_m) for k in set(kinds)}
    turned = [np.exp(1j * phase * y) for y in offsets_m] if len(offsets_m) > 1 else [np.ones(1)]
    out = np.empty((t.size, v.shape[0]))
    for i, draught in enumerate(t):
        made = {k: _deep(k0 * _COSH**2, k[2] * draught) * a for k, a in along.items()}
        each = [made[k] for k in kinds]
        together = np.abs(sum(a * w for a, w in zip(each, turned, strict=True))) ** 2
        square = np.where(step < 1.5, together, sum(a * a for a in each))
        share = np.sum(square * _COSH**2 * _WEIGHT, axis=1)
        out[i] = 4 * density_kg_m3 * G_M_S2**2 / (np.pi * v[:, 0] ** 2) * share
    return out


def _along(a: Array, length: float, beam: float) -> Array:
    """The integral along a body of parabolic waterlines, wave numbers a (V, U)."""
    half = 0.5 * length
    return np.asarray(
        -8.0 * beam / length**2 * (np.sin(a * half) / a**2 - half * np.cos(a * half) / a)
    )


def _deep(b: Array, draught: float) -> Array:
    """The integral over the depth of parabolic sections."""
    return draught * depth_factor(b * draught)


def smoothed(log_speed: Array, resistance_n: Array, froude: Array, width: float = 0.07) -> Array:
    """Resistance (D, V) averaged over ±`width` of speed below Fn 0.42, fading out to Fn 0.58.

    Thin-ship humps and hollows are sharper than the sea shows them there. `log_speed` is an even
    grid; the average is taken on R/V⁴, which varies little.

    >>> grid = np.log(np.linspace(1, 1, 1)); smoothed(grid, np.ones((1, 1)), np.ones(1)).tolist()
    [[1.0]]
    """
    if log_speed.size < 5:
        return resistance_n
    step = float(log_speed[1] - log_speed[0])
    reach = int(np.ceil(width / step))
    offsets = np.arange(-reach, reach + 1)
    kernel = np.clip((width - np.abs(offsets) * step) / step + 0.5, 0.0, 1.0)
    kernel /= kernel.sum()
    coefficient = resistance_n / np.exp(4 * log_speed)
    padded = np.pad(coefficient, ((0, 0), (reach, reach)), mode="edge")
    mean = sum(
        w * padded[:, reach + o : reach + o + log_speed.size]
        for o, w in zip(offsets, kernel, strict=True)
    )
    fade = np.clip((0.58 - froude) / 0.16, 0.0, 1.0)
    return np.asarray((fade * mean + (1 - fade) * coefficient) * np.exp(4 * log_speed))
