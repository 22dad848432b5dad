"""A fitted setup's figures in another wind."""

from __future__ import annotations

from dataclasses import replace

from jolvek.core.fit.fit import Fit
from jolvek.core.predict.evaluate import evaluate, evaluated
from jolvek.core.predict.performance import Performance
from jolvek.core.predict.setup import raised


def in_wind(fitted: Fit, wind_m_s: float) -> Performance:
    """Her figures in another wind against her, m/s, with the waves that it raises.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> in_wind(f, 8.0).top_speed_m_s < in_wind(f, 0.0).top_speed_m_s == f.performance.top_speed_m_s
    True
    """
    if wind_m_s == fitted.setup.wind_m_s:
        return fitted.performance
    other = replace(fitted.setup, wind_m_s=wind_m_s, **raised(wind_m_s, fitted.fetch_m))
    if fitted.table is None:
        return evaluated(other)
    return evaluate(other, fitted.performance.resistance)
