"""What moving weights does to her speed."""

from __future__ import annotations

from dataclasses import dataclass

from jolvek.core.fit.fitted import Fitted
from jolvek.core.fit.stowage import holding
from jolvek.core.fit.trim import attitude, moved
from jolvek.core.hydro.resistance import remembered_table
from jolvek.core.predict.evaluate import evaluate


def top_at_centre_m_s(fitted: Fitted, ahead_m: float) -> float:
    """Top speed in m/s with the centre of all weights so far ahead of the transom.

    Validity as `evaluate`; the boat's own table takes people where they usually sit.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> top_at_centre_m_s(f, 1.15) > top_at_centre_m_s(f, 0.7)
    True
    """
    s = fitted.setup
    table = remembered_table(s.hull, s.water, float(s.displacement_kg), s.load, round(ahead_m, 3))
    return evaluate(s, table).top_speed_m_s


@dataclass(frozen=True)
class Move:
    """The battery in the bay that makes her fastest: its name, m ahead of the stern, and m/s more
    than where it is.
    """

    bay: str
    ahead_m: float
    gain_m_s: float


def best_move(fitted: Fitted) -> Move | None:
    """The bay that gives the highest top speed of those that hold the bank; None where it rides on
    the motor, or none holds it.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> best_move(sample_fitted()) is None
    True
    """
    bays = holding(fitted)
    if not bays:
        return None
    now = top_at_centre_m_s(fitted, fitted.attitude.ahead_m)
    found = []
    for bay in bays:
        weights = moved(fitted.weights, "battery", float(bay.ahead_m or 0.0))
        aft = fitted.fitting.hull_aft_m
        lying = attitude(fitted.need.hull, weights, fitted.need.water, aft)
        there = top_at_centre_m_s(fitted, lying.ahead_m)
        found.append(Move(bay.name, float(bay.ahead_m or 0.0), there - now))
    return max(found, key=lambda m: m.gain_m_s)
