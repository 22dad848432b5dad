"""What moving weights, and another wind, do to her speed."""

from __future__ import annotations

from dataclasses import replace

from jolvek.core.fit.fitted import Fitted
from jolvek.core.hydro.resistance import remembered_table
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.performance import Performance
from jolvek.core.predict.setup import raised


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


def in_wind(fitted: Fitted, wind_m_s: float) -> Performance:
    """Her figures in another wind against her, m/s, with the waves that it raises.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> in_wind(f, 8.0).top_speed_m_s < in_wind(f, 0.0).top_speed_m_s == f.performance.top_speed_m_s
    True
    """
    if wind_m_s == fitted.setup.wind_m_s:
        return fitted.performance
    other = replace(fitted.setup, wind_m_s=wind_m_s, **raised(wind_m_s, fitted.fetch_m))
    return evaluate(other, fitted.performance.resistance)
