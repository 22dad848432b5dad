"""How power depends on what a trial fits, and on all that is not known; and what the fitted factors
stand for besides themselves.
"""

from __future__ import annotations

from collections.abc import Mapping

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.hull import TRIED, UNKNOWNS

RIDGE = 0.01  # on shares of what a trial fits; Jolvek's own


def fitted_slopes(slopes: Mapping[str, Array]) -> Array:
    """∂ ln P/∂ ln of what a trial fits, in the order of `hull.TRIED` (…, 4): the transom follows
    the waves.

    >>> from jolvek.core.predict.doubt import doubt
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.measured import SOFT
    >>> slopes = doubt(evaluate(SOFT)).slopes
    >>> fitted_slopes(slopes).shape[-1]
    4
    """
    waves = slopes["waves"] + slopes["transom"]
    return np.stack([slopes["friction"], waves, slopes["planing"], -slopes["efficiency"]], axis=-1)


def absorbed(slopes: Mapping[str, Array], key: str) -> Array:
    """How far what a trial fits can stand for another unknown: its shares of the four, by least
    squares over the grid, held down by a ridge.

    >>> from jolvek.core.predict.doubt import doubt
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.measured import SOFT
    >>> slopes = doubt(evaluate(SOFT)).slopes
    >>> absorbed(slopes, "waves").tolist(), absorbed(slopes, "mass").shape
    ([0.0, 1.0, 0.0, 0.0], (4,))
    """
    if key in TRIED:
        return np.array([float(key == name) for name in TRIED])
    g = fitted_slopes(slopes)
    held = g.T @ g / len(g) + RIDGE * np.eye(g.shape[1])
    return np.asarray(np.linalg.solve(held, g.T @ slopes[key] / len(g)), dtype=float)


def prior_covariance(slopes: Mapping[str, Array], known: Mapping[str, float]) -> Array:
    """Covariance of the ln of the four before a trial, what they stand for besides included.

    >>> from jolvek.core.predict.doubt import doubt
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.measured import SOFT
    >>> slopes = doubt(evaluate(SOFT)).slopes
    >>> bool(prior_covariance(slopes, {"friction": 0.15})[0, 0] > 0.15**2)
    True
    """
    out = np.zeros((len(TRIED), len(TRIED)))
    for key, s in known.items():
        share = absorbed(slopes, key)
        out += s * s * np.outer(share, share)
    return out + 1e-8 * np.eye(len(out))


def all_slopes(slopes: Mapping[str, Array]) -> Array:
    """∂ ln P/∂ ln of each of `hull.UNKNOWNS` (…, 11).

    >>> from jolvek.core.predict.doubt import doubt
    >>> from jolvek.core.predict.evaluate import evaluate
    >>> from jolvek.core.predict.measured import SOFT
    >>> slopes = doubt(evaluate(SOFT)).slopes
    >>> all_slopes(slopes).shape[-1]
    11
    """
    signed = {**slopes, "efficiency": -slopes["efficiency"]}
    return np.stack([signed[key] for key in UNKNOWNS], axis=-1)
