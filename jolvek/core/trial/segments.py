"""Steady stretches of a track: from samples of time, speed, course and power to runs both ways."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from jolvek.core.base.arrays import Array
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.trial.runs import Run

STEADY_S = 20.0  # s that speed and power must hold; Jolvek's own
STEADY_SPEED, STEADY_POWER = 0.05, 0.08  # standard deviation over the mean within them
STEADY_GAIN = 0.03  # of the speed, gained over them
JUMP = 4 * STEADY_SPEED  # of the mean, by which one reading ends a stretch
TURN_DEG = 25.0  # of course, within a stretch
LEAST_M_S = 0.3
OPPOSITE_DEG = 90.0


@dataclass(frozen=True)
class Sample:
    """One reading: s, m/s over ground, course in degrees (None: not known), W (None: not known)."""

    t_s: float
    speed_m_s: float
    course_deg: float | None = None
    power_w: float | None = None


@dataclass(frozen=True)
class Stretch:
    """A steady stretch: from and to in s, means, and what was gained in speed over it."""

    from_s: float
    to_s: float
    speed_m_s: float
    course_deg: float | None
    power_w: float | None
    gained_m_s: float


def apart_deg(a: float, b: float) -> float:
    """The angle between two courses, 0 to 180.

    >>> apart_deg(350, 20), apart_deg(10, 190)
    (30.0, 180.0)
    """
    return abs((a - b + 180.0) % 360.0 - 180.0)


def mean_course_deg(courses: Sequence[float]) -> float:
    """The mean of courses round the compass.

    >>> round(mean_course_deg([350, 10])) % 360
    0
    """
    way = np.radians(courses)
    return float(np.degrees(np.arctan2(np.sin(way).mean(), np.cos(way).mean())) % 360)


def steady(samples: Sequence[Sample], least_s: float = STEADY_S) -> Stretch | None:
    """Whether the last `least_s` of the samples are steady, and their means.

    >>> one = [Sample(float(t), 2.0, 90.0, 500.0) for t in range(30)]
    >>> steady(one).speed_m_s, steady(one[:10]) is None
    (2.0, True)
    """
    if not samples:
        return None
    end = samples[-1].t_s
    last = [s for s in samples if s.t_s >= end - least_s]
    if len(last) < 5 or end - last[0].t_s < 0.9 * least_s:
        return None
    return _stretch(last)


def _stretch(last: Sequence[Sample]) -> Stretch | None:
    v = np.array([s.speed_m_s for s in last])
    t = np.array([s.t_s for s in last])
    mean = float(v.mean())
    if mean < LEAST_M_S or v.std() > STEADY_SPEED * mean:
        return None
    gained = float(np.polyfit(t - t[0], v, 1)[0] * (t[-1] - t[0]))
    if abs(gained) > STEADY_GAIN * mean:
        return None
    courses = [s.course_deg for s in last if s.course_deg is not None]
    course = mean_course_deg(courses) if courses else None
    if course is not None and max(apart_deg(c, course) for c in courses) > TURN_DEG:
        return None
    powers = np.array([s.power_w for s in last if s.power_w is not None])
    power = float(powers.mean()) if powers.size else None
    if power is not None and powers.std() > STEADY_POWER * max(power, 1.0):
        return None
    return Stretch(last[0].t_s, last[-1].t_s, mean, course, power, gained)


def stretches(samples: Sequence[Sample], least_s: float = STEADY_S) -> list[Stretch]:
    """All steady stretches, each as long as it stays steady.

    >>> track = [Sample(float(t), 2.0 if t < 60 else 3.0, 0.0, 400.0) for t in range(120)]
    >>> [round(s.speed_m_s, 1) for s in stretches(track)]
    [2.0, 3.0]
    """
    times: Array = np.array([s.t_s for s in samples])
    out: list[Stretch] = []
    i = 0
    while i < len(samples):
        j = int(np.searchsorted(times, times[i] + least_s))
        if j >= len(samples):
            break
        found = _stretch(samples[i : j + 1]) if j - i >= 4 else None
        if found is None:
            i += 1
            continue
        while j + 1 < len(samples):
            more = _stretch(samples[i : j + 2])
            off = abs(samples[j + 1].speed_m_s - found.speed_m_s)
            if more is None or off > JUMP * found.speed_m_s:
                break
            found, j = more, j + 1
        out.append(found)
        i = j + 1
    return out


def powers_for(found: Sequence[Stretch], powers_w: Sequence[float]) -> list[float | None]:
    """The power typed for each stretch: one for all, one for each, or one for each two, out and
    back. Raises ValueRefused that says how many stretches there are.

    >>> s = Stretch(0, 30, 2.0, 10.0, None, 0.0)
    >>> powers_for([s, s, s, s], [300.0, 600.0])
    [300.0, 300.0, 600.0, 600.0]
    """
    many = len(found)
    if not powers_w:
        return [None] * many
    for times in (many, 2, 1):
        if len(powers_w) * times == many or (times == many and len(powers_w) == 1):
            return [p for p in powers_w for _ in range(times)]
    text = f"1, {many}" + (f" or {many // 2}" if many % 2 == 0 else "")
    raise ValueRefused(
        "powers",
        len(powers_w),
        msg("%(text)s: there are %(many)s steady stretches", text=text, many=many),
    )


def runs_of(found: Sequence[Stretch], powers_w: Sequence[float] = ()) -> list[Run]:
    """Stretches as runs: out along the course of the first, back against it; across it they are
    left away. `powers_w` stand where stretches have none.

    >>> s = Stretch(0, 30, 2.0, 10.0, 500.0, 0.0)
    >>> [r.heading for r in runs_of([s, Stretch(60, 90, 1.8, 195.0, 500.0, 0.0)])]
    ['out', 'back']
    """
    out = []
    ahead = next((s.course_deg for s in found if s.course_deg is not None), None)
    for s, typed in zip(found, powers_for(found, powers_w), strict=True):
        power = s.power_w if s.power_w is not None else typed
        if power is None or power < 1:
            continue
        heading = ""
        if s.course_deg is not None and ahead is not None:
            off = apart_deg(s.course_deg, ahead)
            if abs(off - OPPOSITE_DEG) < 90.0 - 2 * TURN_DEG:
                continue  # across
            heading = "out" if off < OPPOSITE_DEG else "back"
        out.append(Run(power, s.speed_m_s, heading, gained_m_s=s.gained_m_s))
    return out
