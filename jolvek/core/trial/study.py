"""A simulation of trials: boats whose hidden factors, sizes and weights differ from the prediction
by the priors, tried with noise, gusts and a current, and predicted afterwards.
"""

from __future__ import annotations

from collections.abc import Callable, Sequence
from dataclasses import dataclass, replace

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.predict.doubt import doubt
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.performance import Performance
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor
from jolvek.core.trial.fitting import fit
from jolvek.core.trial.runs import Run

BOATS: tuple[tuple[Hull, Load, float], ...] = (  # of an invented harbour, with watts
    (Hull("inflatable_air", 2.9, 1.5, 32), Load(2), 1000),
    (Hull("rigid_dinghy", 3.2, 1.45, 65), Load(2), 1000),
    (Hull("kayak", 3.7, 0.78, 34), Load(1), 400),
    (Hull("cabin", 6.0, 2.2, 900), Load(4), 3000),
    (Hull("multihull", 6.7, 4.2, 750, bodies=3, body_beam_m=0.55), Load(2), 1500),
    (Hull("rib", 3.8, 1.8, 130), Load(2), 9000),
)
STEPS = (1.0, 0.5, 0.25, 0.75, 0.12)  # of the power, in the order in which they are run
CLEARLY = 0.01
ASKED = (0.3, 0.6, 0.9)
NOISE, GUST, CURRENT_M_S = 0.015, 0.01, 0.25  # 1σ of ln speed of a run, twice; of the current


@dataclass(frozen=True)
class Result:
    """After so many points both ways: median and 90th centile of the error of speed, the share of
    bands that hold, the shares of boats predicted worse than untried at all, and by more than 1 %.
    """

    points: int
    median: float
    most: float
    covered: float
    worse: float
    clearly_worse: float


def study(count: int = 200, seed: int = 1, points: Sequence[int] = (0, 1, 2, 3, 5)) -> list[Result]:
    """Try `count` hidden boats with each number of points.

    >>> rows = study(4, points=(0, 3))
    >>> [r.points for r in rows], rows[1].median < rows[0].median
    ([0, 3], True)
    """

    def true(believed: Setup, chance: np.random.Generator) -> Performance:
        return besides(evaluate(hidden(believed, chance)), chance)

    return outcome(BOATS, true, tried, count, seed, points)


def outcome(
    boats: Sequence[tuple[Hull, Load, float]],
    true_of: Callable[[Setup, np.random.Generator], Performance],
    runs_of: Callable[[Performance, float, int, np.random.Generator], list[Run]],
    count: int,
    seed: int,
    points: Sequence[int],
) -> list[Result]:
    """What trials of `count` hidden boats do for their prediction: `true_of` draws a boat as she
    is, `runs_of` tries her.

    >>> as_said = lambda believed, chance: evaluate(believed)
    >>> outcome(BOATS[:1], as_said, tried, 1, 1, (0,))[0].median
    0.0
    """
    chance = np.random.default_rng(seed)
    errors: dict[int, list[Array]] = {n: [] for n in points}
    held: dict[int, list[Array]] = {n: [] for n in points}
    for i in range(count):
        hull, load, watts = boats[i % len(boats)]
        believed = Setup(hull, load, Motor(watts))
        true = true_of(believed, chance)
        runs = runs_of(true, watts, max(points), chance)
        asked = np.array(ASKED) * watts
        real = np.asarray(true.speed_at_w(asked))
        for n in points:
            tried_hull = fit(believed, runs[: 2 * n]).hull if n else hull
            d = doubt(evaluate(replace(believed, hull=tried_hull)))
            errors[n].append(np.log(d.performance.speed_at_w(asked) / real))
            low, high = d.speed_band_m_s(asked)
            held[n].append(np.asarray((low <= real) & (real <= high), dtype=float))
    out, before = [], np.abs(np.array(errors[points[0]]))
    for n in points:
        off = np.abs(np.array(errors[n]))
        more = off.mean(axis=1) - before.mean(axis=1)
        worse = (float(np.mean(more > 1e-9)), float(np.mean(more > CLEARLY)))
        ends = (float(np.median(off)), float(np.quantile(off, 0.9)))
        out.append(Result(n, *ends, float(np.mean(held[n])), *worse))
    return out


def hidden(s: Setup, chance: np.random.Generator) -> Setup:
    """A boat as she may really be: sizes, weight and all that a trial finds drawn by the priors.

    >>> from jolvek.core.predict.measured import SOFT
    >>> chance = np.random.default_rng(1)
    >>> hidden(SOFT, chance).hull.friction_factor != 1.0
    True
    """
    known = doubt(evaluate(s)).priors

    def drawn(key: str) -> float:
        return float(np.exp(known[key] * chance.standard_normal()))

    h = s.hull
    length = min(h.waterline_m * drawn("length"), h.length_m)
    beam = drawn("beam")
    sizes: dict[str, float] = {"waterline_length_m": length, "mass_kg": h.mass_kg * drawn("mass")}
    if h.body_count > 1:
        sizes["body_beam_m"] = h.body_waterline_beam_m * beam
    else:
        sizes["waterline_beam_m"] = min(h.body_waterline_beam_m * beam, h.beam_m)
    if h.fam.planes:
        sizes["chine_beam_m"] = min(h.chine_m * beam, h.beam_m)
    factors = {
        "friction_factor": drawn("friction"),
        "wave_factor": drawn("waves"),
        "planing_factor": drawn("planing"),
        "efficiency_factor": drawn("efficiency"),
    }
    load = replace(s.load, people_kg=s.load.total_kg * drawn("mass"), gear_kg=0.0)
    made: dict[str, object] = {**sizes, **factors}
    return replace(s, hull=replace(h, **made), load=load)  # type: ignore[arg-type]


UNSEEN = ("transom", "leg", "air")  # of what nothing in a setup says more


def besides(p: Performance, chance: np.random.Generator) -> Performance:
    """What no factor stands for, drawn by the priors onto the curve of power.

    >>> from jolvek.core.predict.measured import SOFT
    >>> chance = np.random.default_rng(1)
    >>> p = evaluate(SOFT)
    >>> besides(p, chance).top_speed_m_s != p.top_speed_m_s
    True
    """
    d = doubt(p)
    more = sum(d.slopes[key] * d.priors[key] * chance.standard_normal() for key in UNSEEN)
    power = p.power_w * np.exp(more)
    rest = np.maximum.accumulate(p.power_from_rest_w * np.exp(more))
    top = float(np.interp(p.power_limit_w, rest, p.speed_m_s))
    top = min(p.top_speed_m_s, top) if p.limited_by == "pitch" else top
    return replace(p, power_w=power, power_from_rest_w=rest, top_speed_m_s=top)


def tried(true: Performance, watts: float, points: int, chance: np.random.Generator) -> list[Run]:
    """Runs both ways at the steps, with what the water and the instruments do to them.

    >>> from jolvek.core.predict.measured import SOFT
    >>> chance = np.random.default_rng(1)
    >>> [r.heading for r in tried(evaluate(SOFT), 1100.0, 1, chance)]
    ['out', 'back']
    """
    current, out = CURRENT_M_S * chance.standard_normal(), []
    for step in STEPS[:points]:
        through = float(true.speed_at_w(step * watts))
        current = float(np.clip(current, -0.6 * through, 0.6 * through))
        for heading, sign in (("out", 1), ("back", -1)):
            power = step * watts * np.exp(0.01 * chance.standard_normal())
            gust = GUST * chance.standard_normal()
            speed = (through + sign * current) * np.exp(NOISE * chance.standard_normal() + gust)
            out.append(Run(float(power), max(float(speed), 0.06), heading))
    return out
