"""The motors of a shelf in arrays."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.drive import Drive
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
    lug_n: Array
    loss_factor: Array
    idle_w: Array
    leg_m2: Array
    thrust_n: Array
    controller_a: Array
    noise_db: Array

    def drive(self, index: Any, axes: int = 0) -> Drive:
        """The drives of motors `index`, with so many axes after them to broadcast over."""
        ratio = self.pitch_m / self.diameter_m
        fields = (self.diameter_m, ratio, self.loss_factor, self.power_w, self.idle_w)
        return Drive(*(np.asarray(x[index])[(..., *(None,) * axes)] for x in fields))


def motors(shelf: Shelf, density: float, efficiency: float = 1.0) -> Motors:
    """The shelf's motors as arrays; missing data estimated as for a single prediction. `density` in
    kg/m³, `efficiency` as the boat's trial found it.

    >>> from jolvek.core.products.shelf import sample
    >>> motors(sample(), 1026.0).power_w.tolist()
    [1200.0]
    """
    rows = []
    for item in shelf.motors:
        m = item.spec
        prop = m.propulsor(density, efficiency)
        rows.append(
            (
                m.input_power_w,
                m.weight_kg,
                item.price,
                prop.diameter_m,
                prop.pitch_m,
                prop.shaft_rev_s,
                prop.lug_n,
                prop.loss_factor,
                prop.idle_w,
                m.leg_area_m2,
                np.nan,
                m.controller_max_a or np.inf,
                item.noise_db if item.noise_db is not None else np.nan,
            )
        )
    figures = np.array(rows, dtype=float).reshape(len(rows), 13).T
    made = Motors(motor_facts([item.spec for item in shelf.motors]), *figures)
    untried = replace(made, loss_factor=made.loss_factor / efficiency)  # as the rules hang it
    at_rest = untried.drive(slice(None)).thrust_n(made.power_w, 0.0, density)
    return replace(made, thrust_n=at_rest)
