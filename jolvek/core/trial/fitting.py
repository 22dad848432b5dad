"""The boat's own factors from a trial: friction, waves, planing drag, efficiency and the form of
her curve, as the likeliest with what was known before (MAP), so that one point is safe.

The points are told in ln power at the measured speed, which holds on both sides of a hump:
ln P = ln P model(θ) + δ(ln V) − n (b + e), with δ the form's departure (`hydro.shape`), b what the
day's speedometer is off, e the point's noise and n = d ln P/d ln V (Kennedy and O'Hagan 2001). What
is left of all doubt, sizes, weights, leg and air included, follows from the same points.
"""

from __future__ import annotations

import math
from collections.abc import Sequence
from dataclasses import dataclass, replace
from typing import Any

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.hydro import shape
from jolvek.core.hydro.hull import FACTORS, TRIED, UNKNOWNS, UNTRIED, Hull
from jolvek.core.hydro.resistance import Resistance, remembered_table
from jolvek.core.predict.doubt import Doubt, doubt, first_speed_m_s
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.fit_slopes import all_slopes, fitted_slopes, prior_covariance
from jolvek.core.predict.setup import Setup
from jolvek.core.trial.in_calm import calm_points
from jolvek.core.trial.runs import Run, Sorted, TrialPoint

ROUNDS = 6
MOST_STEP = 0.5  # of ln, in a round
LEAST_EXPONENT = 1.0  # of power over speed, for the noise of a point
MODEL_NOISE = 0.005  # 1σ of ln power that nothing in the model stands for; Jolvek's own
BIAS = 0.015  # 1σ of ln speed that an instrument is off all day; common practice, no source
MOST_FORM = 0.9  # of ln resistance at a node
FOUR, NODES = len(TRIED), len(shape.NODES)
ODD_Z = 3.0  # from which a point does not belong to the others; Jolvek's own
ODD_FROM = 3  # points, from which one may be told from the others


@dataclass(frozen=True)
class RunFit:
    """One run beside the prediction: with the fit, the share it is off, and why it is left out."""

    run: Run
    predicted_m_s: float
    error: float
    used: bool
    why: str


@dataclass(frozen=True)
class Fit:
    """What a trial found: the boat with it, the points it rests on, each run beside it, 1σ of the
    four, and half the band of speed at the highest power tried, before and after.
    """

    hull: Hull
    points: tuple[TrialPoint, ...]
    paired: tuple[TrialPoint, ...]  # with those that lie off the others
    run_fits: tuple[RunFit, ...]
    before: float
    after: float

    @property
    def factors(self) -> dict[str, float]:
        """The four, by name."""
        return {name: getattr(self.hull, name) for name in FACTORS}

    @property
    def sigma(self) -> dict[str, float]:
        """1σ of the ln of the four."""
        spread = np.array(self.hull.trial_spread)
        side = math.isqrt(spread.size)
        own = np.sqrt(np.diag(spread.reshape(side, side))).tolist()
        return {k: s for k, s in zip(UNKNOWNS, own, strict=False) if k in TRIED}


def untried(hull: Hull) -> Hull:
    """The boat as predicted.

    >>> untried(Hull("kayak", 3.7, 0.78, 34, friction_factor=1.2)).friction_factor
    1.0
    """
    return replace(hull, **UNTRIED)


def fit(setup: Setup, runs: Sequence[Run], on: str = "") -> Fit:
    """Fit a setup's boat to the runs, from the boat untried.

    Raises ValueRefused where no run belongs. Validity as `evaluate`; runs at speeds she makes.

    >>> from jolvek.core.predict.measured import TRIMARAN
    >>> f = fit(TRIMARAN, [Run(300, 1.62), Run(500, 1.91), Run(1000, 2.4)])
    >>> 0.8 < f.hull.friction_factor < 1.25, f.after < f.before / 1.5
    (True, True)
    """
    plain = replace(setup, hull=untried(setup.hull))
    table = remembered_table(plain.hull, plain.water, plain.displacement_kg, plain.load)
    first = doubt(evaluate(plain, table))
    prior = _prior(first)
    found = calm_points(plain, runs)
    points, odd = list(found.points), dict(found.left_out)
    paired = tuple(points)
    if not points:
        raise ValueRefused(
            "runs",
            msg("%(runs)s runs, none of which belongs", runs=len(runs)),
            msg("both ways, steady"),
        )
    most = max(len(points) // 3, 1) if len(points) >= ODD_FROM else 0
    for _ in range(most):
        worst = _odd(plain, table, points, prior)
        if worst is None:
            break
        i, off = worst
        odd |= dict.fromkeys(
            points[i].runs, msg("%(off)s %% of speed off the others", off=f"{100 * off:+.0f}")
        )
        points.pop(i)
    x, _ = _likeliest(plain, table, points, prior)
    spread = tuple(_left(plain, table, x, points, first).ravel().tolist())
    hull = replace(_with(plain.hull, x), trial_spread=spread, tried_on=on)
    return _said(plain, table, hull, runs, Sorted(tuple(points), odd), first, paired)


def _prior(first: Doubt) -> Array:
    """Covariance of what is found: the ln of the four, of the form at its nodes, of the
    instrument.
    """
    form = shape.covariance(first.performance.setup.hull.fam.planes)
    out = np.zeros((FOUR + NODES + 1, FOUR + NODES + 1))
    out[:FOUR, :FOUR] = prior_covariance(first.slopes, first.priors)
    out[FOUR:-1, FOUR:-1] = form + 1e-8 * np.eye(NODES)
    out[-1, -1] = BIAS**2
    return out


def _with(hull: Hull, x: Array) -> Hull:
    values = np.exp(x[:FOUR])
    low_high = [Hull.RANGES[name] for name in FACTORS]
    clipped: list[Any] = [
        float(np.clip(v, low, high)) for v, (low, high) in zip(values, low_high, strict=True)
    ]
    form = tuple(np.clip(x[FOUR : FOUR + NODES], -MOST_FORM, MOST_FORM).tolist())
    return replace(hull, **dict(zip(FACTORS, clipped, strict=True)), trial_shape=form)


def _seen(setup: Setup, table: Resistance, x: Array, speeds: Array) -> tuple[Array, Array, Array]:
    """ln power at speeds (N,), its slopes by what is found (N, 17), and d ln P/d ln V there."""
    hull = _with(setup.hull, x)
    p = evaluate(replace(setup, hull=hull), replace(table, hull=hull))
    d = doubt(p)
    log_v, log_p = np.log(p.speed_m_s), np.log(np.maximum(p.power_w, 1e-6))
    at = np.log(speeds)
    steep = np.interp(at, log_v, np.gradient(log_p, log_v))
    steep = np.maximum(np.abs(steep), LEAST_EXPONENT)
    g = np.concatenate([fitted_slopes(d.slopes), d.shape_slopes], axis=-1)
    return np.interp(at, log_v, log_p), _with_bias(g, log_v, at, steep), steep


def _with_bias(g: Array, log_v: Array, at: Array, steep: Array) -> Array:
    """Slopes at points, with that of what the instrument is off as the last."""
    columns = [np.interp(at, log_v, g[:, k]) for k in range(g.shape[1])]
    return np.stack([*columns, -steep], axis=-1)


def _left(
    setup: Setup, table: Resistance, x: Array, points: Sequence[TrialPoint], first: Doubt
) -> Array:
    """What is left of the doubt about all unknowns and the form: the priors, and what the points
    tell.
    """
    hull = _with(setup.hull, x)
    p = evaluate(replace(setup, hull=hull), replace(table, hull=hull))
    d, side = doubt(p), len(UNKNOWNS)
    known = np.zeros((side + NODES + 1,) * 2)
    known[:side, :side] = np.diag([first.priors[key] ** 2 for key in UNKNOWNS])
    known[side:, side:] = _prior(first)[FOUR:, FOUR:]
    log_v, log_p = np.log(p.speed_m_s), np.log(np.maximum(p.power_w, 1e-6))
    at = np.log([point.speed_m_s for point in points])
    steep = np.maximum(np.abs(np.interp(at, log_v, np.gradient(log_p, log_v))), LEAST_EXPONENT)
    g = np.concatenate([all_slopes(d.slopes), d.shape_slopes], axis=-1)
    g = _with_bias(g, log_v, at, steep)
    left = _told(known, g, steep * [point.noise for point in points])
    return left[:-1, :-1]


def _told(known: Array, g: Array, noise: Array) -> Array:
    """A covariance once points (N,) with slopes (N, K) and noise of ln power have told theirs."""
    seen = g @ known @ g.T + np.diag(noise**2 + MODEL_NOISE**2)
    gain = np.linalg.solve(seen, g @ known)
    left = known - (g @ known).T @ gain
    return np.asarray((left + left.T) / 2)


def _likeliest(
    setup: Setup, table: Resistance, points: Sequence[TrialPoint], prior: Array
) -> tuple[Array, Array]:
    """Mean and covariance of what is found, by Gauss and Newton."""
    x = np.zeros(len(prior))
    wanted = np.log([p.power_w for p in points])
    speeds = np.array([p.speed_m_s for p in points])
    g, noise = np.zeros((len(points), len(prior))), np.ones(len(points))
    for _ in range(ROUNDS):
        log_p, g, steep = _seen(setup, table, x, speeds)
        log_p = log_p - steep * x[-1]
        noise = steep * [p.noise for p in points]
        seen = g @ prior @ g.T + np.diag(noise**2 + MODEL_NOISE**2)
        step = prior @ g.T @ np.linalg.solve(seen, wanted - log_p + g @ x) - x
        x = x + np.clip(step, -MOST_STEP, MOST_STEP)
        if np.abs(step).max() < 1e-3:
            break
    return x, _told(prior, g, noise)


def _odd(
    setup: Setup,
    table: Resistance,
    points: Sequence[TrialPoint],
    prior: Array,
) -> tuple[int, float] | None:
    """The point that is furthest off the others beyond what noise and doubt allow: which, and by
    what share of speed.
    """
    worst: tuple[float, int, float] | None = None
    x, _ = _likeliest(setup, table, points, prior)
    log_p, _, steep = _seen(setup, table, x, np.array([p.speed_m_s for p in points]))
    off_all = np.abs(np.log([p.power_w for p in points]) - log_p + steep * x[-1])
    noises = steep * [p.noise for p in points]
    for i, point in enumerate(points):
        if off_all[i] < noises[i]:
            continue  # it lies with the others
        others = [p for k, p in enumerate(points) if k != i]
        x, spread = _likeliest(setup, table, others, prior)
        log_p, g, steep = _seen(setup, table, x, np.array([point.speed_m_s]))
        exponent = float(steep[0])
        sigma = np.sqrt(
            (exponent * point.noise) ** 2 + float(g[0] @ spread @ g[0]) + MODEL_NOISE**2
        )
        off = float(np.log(point.power_w) - log_p[0] + exponent * x[-1])
        z = abs(off) / sigma
        if z > ODD_Z and (worst is None or z > worst[0]):
            worst = (float(z), i, -off / exponent)
    return worst[1:] if worst else None


def speed_at(d: Doubt, power_w: float) -> float:
    """Speed in m/s at a power on the curve as predicted, the limit of the motor left out.

    >>> from jolvek.core.predict.measured import TRIMARAN
    >>> round(speed_at(doubt(evaluate(TRIMARAN)), 500.0), 1)
    2.0
    """
    return float(first_speed_m_s(d.performance.power_w, d.performance, power_w))


def shortfalls(points: Sequence[TrialPoint], promised: Doubt) -> list[tuple[float, float]]:
    """(W, share of speed short of the promise) of points; below 0 where she is faster.

    >>> from jolvek.core.predict.measured import TRIMARAN
    >>> d = doubt(evaluate(TRIMARAN))
    >>> point = TrialPoint(500.0, 0.9 * speed_at(d, 500.0), 0.01, (0,))
    >>> [(w, round(s, 2)) for w, s in shortfalls([point], d)]
    [(500.0, 0.1)]
    """
    return [(p.power_w, 1 - p.speed_m_s / speed_at(promised, p.power_w)) for p in points]


def _said(
    plain: Setup,
    table: Resistance,
    hull: Hull,
    runs: Sequence[Run],
    found: Sorted,
    first: Doubt,
    paired: tuple[TrialPoint, ...],
) -> Fit:
    p = evaluate(replace(plain, hull=hull), replace(table, hull=hull))
    d = doubt(p)
    through = {i: point.speed_m_s for point in found.points for i in point.runs}
    rows = []
    for i, run in enumerate(runs):
        predicted = speed_at(d, run.power_w)
        measured = through.get(i, run.speed_m_s)
        rows.append(
            RunFit(
                run, predicted, predicted / measured - 1, i in through, found.left_out.get(i, "")
            )
        )
    most = max(point.power_w for point in found.points)
    shares = (first.speed_share(most), d.speed_share(most))
    return Fit(hull, found.points, paired, tuple(rows), *shares)
