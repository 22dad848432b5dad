"""Speeds measured on the water that the model is held against: its residuals, in speed and in the
doubt's own measure.

Common practice, no source; sizes that were not told are as usual for the family.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from jolvek.core.base.units import KNOT_M_S
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.predict.doubt import doubt
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor

TRIMARAN = Setup(
    Hull("multihull", 6.7, 4.2, 750, bodies=3, body_beam_m=0.55),
    Load(2, 160, 20),
    Motor(1500, propeller_diameter_m=0.26, mass_kg=15),
)
SOFT = Setup(Hull("inflatable_soft", 2.9, 1.5, 32), Load(2, 155, 10), Motor(1100, mass_kg=18))
SKIFF = Setup(Hull("skiff", 4.3, 1.35, 68), Load(1, 100, 30), Motor(1100, mass_kg=18))
POINTS: tuple[tuple[str, Setup, float, float], ...] = (  # what, boat, W, kn
    ("6.7 m trimaran, 0.95 t", TRIMARAN, 300, 3.45),
    ("6.7 m trimaran, 0.95 t", TRIMARAN, 500, 4.0),
    ("6.7 m trimaran, 0.95 t", TRIMARAN, 1000, 5.0),
    ("6.7 m trimaran, 0.95 t", TRIMARAN, 1500, 5.2),
    ("2.9 m soft inflatable, two adults", SOFT, 1100, 4.05),
    ("4.3 m skiff, one adult, 4.5 to 5.4 kn told", SKIFF, 1100, 4.95),
)


@dataclass(frozen=True)
class Residual:
    """One point: measured and predicted m/s, the error as a share, and over the doubt's 1σ."""

    what: str
    power_w: float
    measured_m_s: float
    predicted_m_s: float
    error: float
    z: float


def residuals(points: Sequence[tuple[str, Setup, float, float]] = POINTS) -> list[Residual]:
    """All points as the model has them now.

    >>> rows = residuals()
    >>> len(rows), max(abs(r.error) for r in rows) < 0.1
    (6, True)
    """
    out = []
    for what, setup, power, knots in points:
        p = evaluate(setup)
        d, measured, predicted = doubt(p), knots * KNOT_M_S, float(p.speed_at_w(power))
        low, high = (float(v) for v in d.speed_band_m_s(power))
        sigma = (high - low) / 2 / d.z
        error = predicted / measured - 1
        z = (predicted - measured) / sigma
        out.append(Residual(what, power, measured, predicted, error, z))
    return out


def rms_z(rows: list[Residual]) -> float:
    """Root mean square of the z-scores: 1 where the doubt is what it says.

    >>> round(rms_z([Residual("", 1, 1, 1, 0, 1.0), Residual("", 1, 1, 1, 0, -1.0)]), 1)
    1.0
    """
    return float(np.sqrt(np.mean([r.z**2 for r in rows])))
