"""The knee of a power curve: past it a little speed costs a lot of power."""

from __future__ import annotations

import numpy as np

from jolvek.core.base.arrays import Array

KNEE_EXPONENT = 4.0


def knee(speed: Array, power: Array, limit_w: float, top_m_s: float) -> tuple[float, float] | None:
    """Power in W and speed in m/s where curves (N,) of both first rise with d ln P / d ln V ≥ 4,
    averaged over ±14 % of speed; None where they do not below the top speed.

    Common practice, no source.

    >>> v = np.linspace(0.1, 4.0, 200)
    >>> knee(v, 10 * v**3, 600.0, 4.0) is None, knee(v, 10 * v**3 + v**6, 5000.0, 4.0)[1] < 3.0
    (True, True)
    """
    grid = np.linspace(np.log(speed[0]), np.log(speed[-1]), 160)
    log_p = np.interp(grid, np.log(speed), np.log(np.maximum(power, 1e-9)))
    reach = max(1, int(round(0.14 / (grid[1] - grid[0]))))
    slope = (log_p[2 * reach :] - log_p[: -2 * reach]) / (grid[2 * reach :] - grid[: -2 * reach])
    at = np.exp(grid[reach:-reach])
    p_at = np.exp(log_p[reach:-reach])
    steep = (slope >= KNEE_EXPONENT) & (p_at > 0.03 * limit_w)
    i = int(np.argmax(steep))
    if not steep[i] or at[i] > top_m_s:
        return None
    return float(p_at[i]), float(at[i])
