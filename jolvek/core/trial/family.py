"""What the trials of a family teach about her next boat: each factor's mean over the boats, drawn
towards nothing known, with the spread between boats; boats far off the others weigh little.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.base.messages import msg
from jolvek.core.hydro.hull import FACTORS, TRIED, UNKNOWNS, UNTRIED, Hull
from jolvek.core.predict.priors import PRIORS, WIDER

OF_ITS_KIND = "of its kind"
LEAST_TRIALS = 3  # from which a family may be gone by; Jolvek's own
ROBUST_Z, ROUNDS = 1.5, 12  # Huber's; of reweighting
LEAST_SPREAD = 0.03  # 1σ between boats of a family that is always left; Jolvek's own


@dataclass(frozen=True)
class Learned:
    """One family: how many trials, the ln of the four as the next boat will likely have them, and
    1σ of each for that boat.
    """

    family: str
    count: int
    mean: tuple[float, ...]
    sigma: tuple[float, ...]

    @property
    def factors(self) -> dict[str, float]:
        """The four as factors."""
        return dict(zip(FACTORS, np.exp(self.mean).tolist(), strict=True))


def learn(family: str, trials: Sequence[tuple[Sequence[float], Sequence[float]]]) -> Learned:
    """From (ln of the four, 1σ of each) of every boat, with the model's own priors between boats.

    >>> off = [((0.2, 0.0, 0.0, 0.0), (0.05, 0.1, 0.1, 0.05))] * 6
    >>> x = learn("rib", off)
    >>> x.count, 0.1 < x.mean[0] < 0.25, x.sigma[0] < 0.15
    (6, True, True)
    """
    known = {**PRIORS, **WIDER.get(family, {})}
    means, sigmas = [], []
    for k, name in enumerate(TRIED):
        values = np.array([t[0][k] for t in trials], dtype=float)
        own = np.array([t[1][k] for t in trials], dtype=float)
        mean, sigma = _one(values, own, known[name])
        means.append(mean)
        sigmas.append(sigma)
    return Learned(family, len(trials), tuple(means), tuple(sigmas))


def _one(values: Array, own: Array, prior: float) -> tuple[float, float]:
    """Mean and 1σ of one factor for the next boat.

    Each boat's value was itself drawn towards 1 by the prior; what the trial added is undone first:
    x = value/(1 − σ²/prior²), its own doubt r² = 1/(1/σ² − 1/prior²). Normal–normal with a spread
    between boats by moments, reweighted after Huber.
    """
    if not values.size:
        return 0.0, prior
    gain = np.clip(1 - own**2 / prior**2, 0.02, 1.0)
    x, r2 = values / gain, own**2 / gain
    weight, between = np.ones(values.size), prior**2
    mean = 0.0
    for _ in range(ROUNDS):
        w = weight / (r2 + between)
        mean = float((w @ x) / (w.sum() + 1 / prior**2))
        z = np.abs(x - mean) / np.sqrt(r2 + between)
        weight = np.minimum(1.0, ROBUST_Z / np.maximum(z, 1e-9))
        seen = float((w @ ((x - mean) ** 2 - r2)) / w.sum())
        shrunk = (values.size * seen + 2 * prior**2) / (values.size + 2)
        between = float(np.clip(shrunk, LEAST_SPREAD**2, prior**2))
    w = weight / (r2 + between)
    of_mean = 1 / (w.sum() + 1 / prior**2)
    return mean, float(min(np.sqrt(between + of_mean), prior))


def taught(hull: Hull, learned: Learned) -> Hull:
    """An untried boat as her family has her; one that was tried stays as she is.

    >>> x = learn("kayak", [((0.1, 0.0, 0.0, 0.0), (0.05, 0.1, 0.1, 0.05))] * 4)
    >>> h = taught(Hull("kayak", 3.7, 0.78, 34), x)
    >>> h.friction_factor > 1.03, h.tried_on, len(h.trial_spread)
    (True, '4 trials of its kind', 121)
    """
    plain = all(getattr(hull, k) == v for k, v in UNTRIED.items())
    if not plain or hull.family != learned.family or learned.count < LEAST_TRIALS:
        return hull
    known = {**PRIORS, **WIDER.get(hull.family, {})}
    known |= dict(zip(TRIED, learned.sigma, strict=True))
    spread = np.diag([known[key] ** 2 for key in UNKNOWNS])
    values: dict[str, Any] = dict(learned.factors)
    values |= {"trial_spread": tuple(spread.ravel().tolist())}
    values |= {
        "tried_on": msg(
            "%(count)s trials %(of_its_kind)s", count=learned.count, of_its_kind=OF_ITS_KIND
        )
    }
    return replace(hull, **values)
