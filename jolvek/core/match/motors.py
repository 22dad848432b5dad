"""The motors of a shelf in arrays."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.propulsor import static_thrust_n
from jolvek.core.products.pair_facts import motor_facts
from jolvek.core.products.shelf import Shelf
from jolvek.core.rules.facts import MotorFacts


@dataclass(frozen=True)
class Motors:
    """Motor data in arrays (M,)."""

    facts: MotorFacts
    power_w: Array
    mass_kg: Array
    price: Array
    diameter_m: Array
    pitch_m: Array
    rev_s: Array
    loss_factor: Array
    leg_m2: Array
    thrust_n: Array
    controller_a: Array
    noise_db: Array


def motors(shelf: Shelf, density: float) -> Motors:
    """The shelf's motors as arrays; missing data estimated as for a single prediction. `density` in
    kg/m³.

    >>> from jolvek.core.products.shelf import sample
    >>> motors(sample(), 1026.0).power_w.tolist()
    [1200.0]
    """
    rows = []
    for item in shelf.motors:
        m = item.spec
        prop = m.propulsor(density)
        rows.append(
            (
                m.input_power_w,
                m.weight_kg,
                item.price,
                prop.diameter_m,
                prop.pitch_m,
                prop.shaft_rev_s,
                prop.loss_factor,
                m.leg_area_m2,
                float(static_thrust_n(m.input_power_w, prop.diameter_m, prop.loss_factor, density)),
                m.controller_max_a or np.inf,
                item.noise_db if item.noise_db is not None else np.nan,
            )
        )
    figures = np.array(rows, dtype=float).reshape(len(rows), 11).T
    return Motors(motor_facts([item.spec for item in shelf.motors]), *figures)
