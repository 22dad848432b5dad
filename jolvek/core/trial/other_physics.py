"""Boats of other physics than ours, tried with instruments and water as they are: whether the bands
after a trial are honest is asked of these, not only of boats drawn from our own model.

The hidden boat's curve of power is ours times a smooth random factor (waves of random length and
phase in ln V, a tilt, a bump near the hump), of sizes and weights that are off by laws other than
the priors. A speedometer reads wrong all day, the current drifts, gusts come and go.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import replace

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.performance import Performance
from jolvek.core.predict.setup import Setup
from jolvek.core.trial.runs import Run
from jolvek.core.trial.study import BOATS, STEPS, Result, outcome

MORE_BOATS: tuple[tuple[Hull, Load, float], ...] = (  # with those of the study, ten families
    (Hull("canoe", 4.8, 0.9, 32), Load(2), 500),
    (Hull("keelboat", 7.0, 2.4, 1500), Load(3), 3000),
    (Hull("flat_bottom", 4.2, 1.6, 130), Load(2), 1500),
    (Hull("sailing_dinghy", 4.5, 1.7, 130), Load(2), 1000),
)
ALL_BOATS = (*BOATS, *MORE_BOATS)
WAVINESS = 0.055  # 1σ of ln power of the smooth factor; as boats of one type differ, from memory
TILT, BUMP = 0.05, 0.06  # 1σ of ln power by e-fold of speed; near the hump
LEVEL = 0.3  # half width of ln power, even: all that is the same at each speed
OFF = {"mass": 0.09, "length": 0.05, "beam": 0.1, "efficiency": 0.12}  # half widths, even
BIAS, RUN_NOISE, GUST, DRIFT_M_S = 0.012, 0.012, 0.01, 0.04  # of speed, a day; a run; between runs
CURRENT_M_S = 0.25


def tried_otherwise(
    count: int = 200, seed: int = 1, points: Sequence[int] = (0, 1, 2, 3, 5)
) -> list[Result]:
    """As `study`, with boats of other physics.

    >>> [r.points for r in tried_otherwise(2, points=(0, 1))]
    [0, 1]
    """
    return outcome(ALL_BOATS, other_boat, other_runs, count, seed, points)


def other_boat(believed: Setup, chance: np.random.Generator) -> Performance:
    """A boat as she may really be, by laws that are not the priors'.

    >>> from jolvek.core.predict.measured import SOFT
    >>> other_boat(SOFT, np.random.default_rng(1)).top_speed_m_s != evaluate(SOFT).top_speed_m_s
    True
    """

    def even(key: str) -> float:
        return float(np.exp(OFF[key] * chance.uniform(-1, 1)))

    h, load = believed.hull, believed.load
    sizes = {"mass_kg": h.mass_kg * even("mass") * float(chance.choice([1.0, 1.0, 1.0, 1.15]))}
    sizes["waterline_length_m"] = min(h.waterline_m * even("length"), h.length_m)
    wide = h.body_waterline_beam_m * even("beam")
    if h.body_count > 1:
        sizes["body_beam_m"] = wide
    else:
        sizes["waterline_beam_m"] = min(wide, h.beam_m)
    hull = replace(h, **sizes, efficiency_factor=even("efficiency"))  # type: ignore[arg-type]
    people = replace(load, people_kg=load.total_kg * even("mass"), gear_kg=0.0)
    p = evaluate(replace(believed, hull=hull, load=people))
    power = p.power_w * np.exp(_smooth(p, chance))
    rest = np.maximum.accumulate(np.maximum(power, p.power_from_rest_w / p.power_w * power))
    top = float(np.interp(p.power_limit_w, rest, p.speed_m_s))
    top = min(p.top_speed_m_s, top) if p.limited_by == "pitch" else top
    return replace(p, power_w=power, power_from_rest_w=rest, top_speed_m_s=top)


def _smooth(p: Performance, chance: np.random.Generator) -> Array:
    """ln of a smooth factor over the speeds of a performance (N,)."""
    x = np.log(p.speed_m_s / p.hull_speed_m_s)
    out = TILT * chance.standard_normal() * x + LEVEL * chance.uniform(-1, 1)
    waves = chance.integers(2, 5)
    for _ in range(waves):
        length = chance.uniform(0.7, 2.2)  # in ln V, crest to crest
        size = WAVINESS * np.sqrt(2 / waves) * chance.standard_normal()
        out = out + size * np.sin(2 * np.pi * (x / length + chance.uniform()))
    return np.asarray(out + BUMP * chance.standard_normal() * np.exp(-((x / 0.25) ** 2)))


def other_runs(
    true: Performance, watts: float, points: int, chance: np.random.Generator
) -> list[Run]:
    """Runs both ways, by a speedometer that is off all day in a current that drifts.

    >>> from jolvek.core.predict.measured import SOFT
    >>> runs = other_runs(evaluate(SOFT), 1100.0, 2, np.random.default_rng(1))
    >>> [r.heading for r in runs]
    ['out', 'back', 'out', 'back']
    """
    bias = BIAS * chance.standard_normal()
    current, out = CURRENT_M_S * chance.standard_normal(), []
    for step in STEPS[:points]:
        through = float(true.speed_at_w(step * watts))
        for heading, sign in (("out", 1), ("back", -1)):
            current = float(current + DRIFT_M_S * chance.standard_normal())
            current = float(np.clip(current, -0.6 * through, 0.6 * through))
            power = step * watts * np.exp(0.01 * chance.standard_normal())
            noise = RUN_NOISE * chance.standard_normal() + GUST * chance.standard_t(4)
            speed = (through + sign * current) * np.exp(bias + noise)
            out.append(Run(float(power), max(float(speed), 0.06), heading))
    return out
