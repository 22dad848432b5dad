"""How a hull floats: draught, wetted area, stability, and when it is awash."""

from __future__ import annotations

from dataclasses import dataclass, field
from typing import Any

import numpy as np
from numpy.typing import ArrayLike

from jolvek.core.base.arrays import Array
from jolvek.core.base.units import FOOT_M, KNOT_M_S
from jolvek.core.hydro.hull import Hull

WATERPLANE_COEFFICIENT = 0.72  # of L·B; transom-sterned small craft, common practice, no source


@dataclass(frozen=True)
class Floating:
    """How a hull floats at a displacement; every field broadcasts over displacement (kg)."""

    displacement_kg: Array
    volume_m3: Array  # of all bodies
    draught_m: Array
    wetted_m2: Array  # of all bodies
    waterplane_m2: float
    transom_m2: Array
    immersion_kg_per_mm: float
    freeboard_m: Array
    extras: dict[str, Any] = field(default_factory=dict)


def float_at(hull: Hull, displacement_kg: ArrayLike, density_kg_m3: float = 1026.0) -> Floating:
    """Draught, wetted surface and freeboard of `hull` at `displacement_kg` (any shape).

    ∇ = m/(ρ n), T = ∇/(L B C_b), S = 0.85 L (B + 1.6 T) per body. Valid while the sheer is dry;
    past that the figures go on smoothly and `limits` says that the boat is awash. Source:
    definitions of the form coefficients (ITTC symbols); the wetted-surface form is Jolvek's own fit
    for small craft.

    >>> f = float_at(Hull("kayak", 3.7, 0.78, 34), 130.0)
    >>> round(float(f.draught_m), 3)
    0.107
    """
    mass = np.asarray(displacement_kg, dtype=float)
    length, beam, n = hull.waterline_m, hull.body_waterline_beam_m, hull.body_count
    volume = mass / density_kg_m3
    draught = volume / (n * length * beam * hull.fam.block_coefficient)
    plane = n * WATERPLANE_COEFFICIENT * length * beam
    return Floating(
        displacement_kg=mass,
        volume_m3=volume,
        draught_m=draught,
        wetted_m2=n * 0.85 * length * (beam + 1.6 * draught),
        waterplane_m2=plane,
        transom_m2=hull.fam.transom_share * beam * draught * n,
        immersion_kg_per_mm=plane * density_kg_m3 / 1000.0,
        freeboard_m=hull.depth_m - draught,
    )


def awash_kg(hull: Hull, density_kg_m3: float = 1026.0) -> float:
    """Mass in kg at which the sheer amidships is about level with the water; Jolvek's own estimate.

    >>> round(awash_kg(Hull("kayak", 3.7, 0.78, 34)))
    618
    """
    top = 0.5 * (1.0 + hull.fam.block_coefficient)  # sections fill out towards the sheer
    per_body = hull.waterline_m * hull.body_waterline_beam_m * hull.depth_m * top
    return float(density_kg_m3 * hull.body_count * per_body)


def hull_speed_m_s(waterline_m: ArrayLike) -> Any:
    """Hull speed in m/s of a waterline length in m (any shape): 1.34 √(L in ft) knots, a label
    only.

    Source: common practice (wave as long as the waterline), no single source.

    >>> round(float(hull_speed_m_s(4.0)) / KNOT_M_S, 2)
    4.85
    """
    return 1.34 * np.sqrt(np.asarray(waterline_m, dtype=float) / FOOT_M) * KNOT_M_S
