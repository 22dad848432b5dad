"""Runs of a sea trial: two opposite ones at like power make a point without current; what does not
belong is named with its reason.
"""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass, replace
from math import exp, log, sqrt
from typing import Any, ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.base.units import GRAVITY_M_S2

HEADINGS = ("", "out", "back")
LIKE_POWER = 0.12  # opposite runs may differ by that in power; Jolvek's own
MOST_CURRENT_M_S = 1.5  # half the difference of a pair above which it is no pair; Jolvek's own
GUST_M_S = 8.0  # mean wind from which a run says little; common practice, no source
# V/√(g h) between which no correction for shallow water holds (Lackenby 1963 below, none above
# it), from memory
NEAR_CRITICAL = (0.7, 1.2)
RISING = 0.03  # of the speed gained over the run: still accelerating; Jolvek's own
PAIR_NOISE, LONE_NOISE = 0.015, 0.035  # 1σ of ln speed: both ways; one run in still water
PAIRS_WORTH = 4.0  # so many pairs the usual noise counts beside those at hand; Jolvek's own
MOST_RUNS = 400


@dataclass(frozen=True)
class Run:
    """One run: W from the battery, m/s over ground; heading out or back where there is any current,
    when, wind in m/s, depth in m, what was gained in m/s over it, the propeller's rev/min and the
    volts at the motor where they were read.
    """

    RANGES: ClassVar[checked.Ranges] = {
        "power_w": (1, 200_000),
        "speed_m_s": (0.05, 30),
        "wind_m_s": (0, 40),
        "depth_m": (0.2, 1000),
        "gained_m_s": (-30, 30),
        "rpm": (30, 12_000),
        "volts_v": (3, 500),
    }
    CHOICES: ClassVar[checked.Choices] = {"heading": HEADINGS}
    TEXTS: ClassVar[checked.Counts] = {"at": 40, "note": 300}

    power_w: float
    speed_m_s: float
    heading: str = ""
    at: str = ""
    note: str = ""
    wind_m_s: float | None = None
    depth_m: float | None = None
    gained_m_s: float = 0.0
    rpm: float | None = None
    volts_v: float | None = None

    def __post_init__(self) -> None:
        checked.check(self, "run")


@dataclass(frozen=True)
class TrialPoint:
    """A point of the trial: W, m/s through the water, 1σ of ln speed, the runs that make it, the
    current that was taken out, the mean of rev/min and volts where all its runs have them.
    """

    power_w: float
    speed_m_s: float
    noise: float
    runs: tuple[int, ...]
    current_m_s: float = 0.0
    rpm: float | None = None
    volts_v: float | None = None


@dataclass(frozen=True)
class Sorted:
    """Points that belong, and why the other runs do not, by their place."""

    points: tuple[TrialPoint, ...]
    left_out: dict[int, str]


def unfit(run: Run) -> str:
    """Why one run says nothing of the boat; empty where it does.

    >>> unfit(Run(500, 2.0)), unfit(Run(500, 2.0, depth_m=0.8))
    ('', 'shallow water')
    """
    if run.gained_m_s > RISING * run.speed_m_s:
        return msg("still accelerating")
    if run.gained_m_s < -RISING * run.speed_m_s:
        return msg("slowing down")
    if run.wind_m_s is not None and run.wind_m_s > GUST_M_S:
        return "gusts"
    if run.depth_m is not None:
        low, high = NEAR_CRITICAL
        if low < run.speed_m_s / sqrt(GRAVITY_M_S2 * run.depth_m) < high:
            return msg("shallow water")
    return ""


def sort(runs: Sequence[Run]) -> Sorted:
    """Pair opposite runs at like powers, the nearest in power first, and name what is left out.

    Runs without a heading are taken as in still water. Raises ValueRefused for more than 400.

    >>> s = sort([Run(500, 2.3, "out"), Run(510, 1.7, "back"), Run(900, 2.9, "out")])
    >>> round(s.points[0].speed_m_s, 2), round(s.points[0].current_m_s, 2), s.left_out
    (2.0, -0.3, {2: 'one way only: the current is not known'})
    """
    if len(runs) > MOST_RUNS:
        raise ValueRefused("runs", len(runs), msg("at most %(most_runs)s", most_runs=MOST_RUNS))
    why = {i: reason for i, run in enumerate(runs) if (reason := unfit(run))}
    fit = [i for i in range(len(runs)) if i not in why]
    points = [
        TrialPoint(runs[i].power_w, runs[i].speed_m_s, LONE_NOISE, (i,), **_read(runs[i]))
        for i in fit
        if not runs[i].heading
    ]
    pairs = sorted(
        (abs(log(runs[i].power_w / runs[j].power_w)), i, j)
        for i in fit
        for j in fit
        if (runs[i].heading, runs[j].heading) == ("out", "back")
    )
    used: set[int] = set()
    for apart, i, j in pairs:
        if apart > LIKE_POWER or i in used or j in used:
            continue
        a, b = runs[i], runs[j]
        current = (b.speed_m_s - a.speed_m_s) / 2
        if abs(current) > MOST_CURRENT_M_S:
            continue
        used |= {i, j}
        power = exp((log(a.power_w) + log(b.power_w)) / 2)
        mean = (a.speed_m_s + b.speed_m_s) / 2
        points.append(TrialPoint(power, mean, PAIR_NOISE, (i, j), current, **_read(a, b)))
    alone = {
        i: msg("one way only: the current is not known")
        for i in fit
        if runs[i].heading and i not in used
    }
    return Sorted(tuple(sorted(_scattered(points), key=lambda p: p.power_w)), why | alone)


def _read(*runs: Run) -> dict[str, Any]:
    """What was read beside speed and power, the mean of runs that all have it."""
    out: dict[str, Any] = {}
    for key in ("rpm", "volts_v"):
        values = [getattr(run, key) for run in runs]
        out[key] = None if None in values else sum(values) / len(values)
    return out


def _scattered(points: Sequence[TrialPoint]) -> list[TrialPoint]:
    """The points with the noise that their own currents tell: half the difference of a pair is as
    far off as its mean, by noise, gusts and a current that drifts, and the current itself is one.
    A slow pair suffers more of a drift.
    """
    pairs = [p for p in points if len(p.runs) > 1]
    if len(pairs) < 2:
        return list(points)
    usual = sum(p.speed_m_s for p in pairs) / len(pairs)
    weight = [p.speed_m_s**-2 for p in pairs]
    mean = sum(w * p.current_m_s for w, p in zip(weight, pairs, strict=True)) / sum(weight)
    off = sum(((p.current_m_s - mean) / p.speed_m_s) ** 2 for p in pairs)
    noise = sqrt((PAIRS_WORTH * PAIR_NOISE**2 + off) / (PAIRS_WORTH + len(pairs) - 1))
    return [
        replace(p, noise=noise * sqrt((1 + (usual / p.speed_m_s) ** 2) / 2)) if p in pairs else p
        for p in points
    ]
