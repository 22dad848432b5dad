"""Residuary resistance of keel sailing boats, by the regression of a systematic series of hulls."""

from __future__ import annotations

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.base.units import GRAVITY_M_S2
from jolvek.core.hydro.floating import Floating

# centre of buoyancy and of the waterplane aft of the forward end, and the prismatic coefficient:
# usual for such hulls; common practice, no source
LCB, LCF, PRISMATIC = 0.533, 0.56, 0.56
RANGES = {"slender": (4.3, 8.5), "beam_draught": (2.46, 19.4), "beam": (0.2, 0.366)}
RANGES |= {"midship": (0.64, 0.79), "loading": (0.079, 0.265)}
_FROUDE = np.arange(0.15, 0.751, 0.05)
# Keuning and Katgert 2008, from memory: a0 to a7 over the Froude numbers above
_ROWS = (
    "-.0005 -.0003 -.0002 -.0009 -.0026 -.0064 -.0218 -.0388 -.0347 -.0361 .0008 .0108 .1023",
    ".0023 .0059 -.0156 .0016 -.0567 -.4034 -.5261 -.5986 -.4764 .0037 .3728 -.1238 .7726",
    "-.0086 -.0064 .0031 .0337 .0446 -.1250 -.2945 -.3038 -.2361 -.2960 -.3667 -.2026 .5040",
    "-.0015 .0070 -.0021 -.0285 -.1091 .0273 .2485 .6033 .8726 .9661 1.3957 1.1282 1.7867",
    ".0061 .0014 -.0070 -.0367 -.0707 -.1341 -.2428 -.0430 .4219 .6123 1.0343 1.1836 2.1934",
    ".0010 .0013 .0148 .0218 .0914 .3578 .6293 .8332 .8990 .7534 .3230 .4973 -1.5479",
    ".0001 .0005 .0010 .0015 .0021 .0045 .0081 .0106 .0096 .0100 .0072 .0038 -.0115",
    ".0052 -.0020 -.0043 -.0172 -.0078 .1115 .2086 .1336 -.2272 -.3352 -.4632 -.4477 -.0977",
)
_A = np.array([[float(x) for x in row.split()] for row in _ROWS])
WITH_KEEL = 1.28  # with keel and rudder: what the series' first hull shows, see the reference test


def residuary_share(
    froude: Array,
    lcb: float,
    prismatic: float,
    loading: Array,
    beam: float,
    beam_draught: Array,
    midship: Array,
    slender: Array,
) -> Array:
    """Residuary resistance with keel and rudder over the weight of the hull's displacement.

    `froude` (N,) by waterline length L; the rest scalar or (D,) → (D, N): LCB/L and C_p; ∇^⅔/A_w,
    B/L, B/T, C_m, L/∇^⅓, each held to the series' range. Below Fn 0.15 by the fourth power of
    speed, above 0.75 level. Source: Keuning and Katgert 2008, from memory.

    >>> share = residuary_share(np.array([0.35]), 0.523, 0.568, 0.2, 0.315, 3.99, 0.646, 4.78)
    >>> round(1000 * float(share[0, 0]), 1)
    7.5
    """
    loading, beam_draught, midship, slender = (
        np.clip(np.atleast_1d(x), *RANGES[name])
        for name, x in (
            ("loading", loading),
            ("beam_draught", beam_draught),
            ("midship", midship),
            ("slender", slender),
        )
    )
    wide = np.full_like(slender, np.clip(beam, *RANGES["beam"]))
    of_hull = np.stack(
        [
            np.full_like(slender, lcb),
            np.full_like(slender, prismatic),
            loading,
            wide,
            np.full_like(slender, lcb / LCF),
            beam_draught,
            midship,
        ]
    )
    share = WITH_KEEL * (_A[0] + (of_hull.T @ _A[1:]) / slender[:, None])
    share = np.maximum.accumulate(np.maximum(share, 1e-5), axis=1)
    held = np.clip(froude, _FROUDE[0], _FROUDE[-1])
    read = np.exp(np.stack([np.interp(held, _FROUDE, np.log(row)) for row in share]))
    return np.asarray(read * np.minimum(froude / _FROUDE[0], 1.0) ** 4)


def residuary_n(
    length_m: float, beam_m: float, froude: Array, floating: Floating, density_kg_m3: float
) -> Array:
    """Residuary resistance in N (D, N) of a keel boat of that waterline, at displacements (D,).

    >>> from jolvek.core.hydro.floating import float_at; from jolvek.core.hydro.hull import Hull
    >>> floats = float_at(Hull("keelboat", 7.5, 2.5, 2400), np.array([2700.0]))
    >>> residuary_n(6.4, 2.1, np.array([0.2, 0.35]), floats, 1026.0).round().tolist()
    [[15.0, 204.0]]
    """
    volume = np.atleast_1d(floating.volume_m3)
    draught, plane = np.atleast_1d(floating.draught_m), np.atleast_1d(floating.waterplane_m2)
    midship = volume / (length_m * beam_m * draught) / PRISMATIC
    share = residuary_share(
        froude,
        LCB,
        PRISMATIC,
        volume ** (2 / 3) / plane,
        beam_m / length_m,
        beam_m / draught,
        midship,
        length_m / volume ** (1 / 3),
    )
    return np.asarray(share * (density_kg_m3 * GRAVITY_M_S2 * volume)[:, None])
