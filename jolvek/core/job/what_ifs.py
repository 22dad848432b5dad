"""A setup of a job with one thing otherwise: heavier, fouler, older, windier, on a longer shaft."""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import replace
from typing import Any

from jolvek.core.base.units import KNOT_M_S
from jolvek.core.hydro.hull import ADULT_KG, Load
from jolvek.core.job.job_setup import JobSetup
from jolvek.core.products.shelf import Item

HEAVIER_KG = 40.0
AGED = 0.2  # of the battery's energy gone
MORE_WIND_M_S = 10 * KNOT_M_S
SHAFTS_M = (0.381, 0.508, 0.635, 0.762)  # 15, 20, 25 and 30 in; common practice, no source
STEP_M = 0.127


def longer_shaft_m(item: Item[Any], than_m: float) -> float:
    """The next longer shaft of a motor: one that it is made with, or else the next usual one.

    >>> from jolvek.core.products.shelf import sample
    >>> longer_shaft_m(sample().motors[0], 0.4)
    0.508
    """
    made = sorted(s for s in item.shafts_m if s > than_m + 1e-6)
    usual = [s for s in SHAFTS_M if s > than_m + 1e-6]
    return (made or usual or [than_m + STEP_M])[0]


def _loaded(job: JobSetup, load: Load) -> JobSetup:
    return replace(job, fitted=replace(job.fitted, need=replace(job.need, load=load)))


def _person(job: JobSetup) -> JobSetup:
    load = job.need.load
    crew = None if load.people_kg is None else load.people_kg + ADULT_KG
    return _loaded(job, replace(load, people=load.people + 1, people_kg=crew))


def _heavier(job: JobSetup) -> JobSetup:
    load = job.need.load
    return _loaded(job, replace(load, gear_kg=load.gear_kg + HEAVIER_KG))


def _shaft(job: JobSetup) -> JobSetup:
    fitted = job.fitted
    if fitted.shaft_m is None:  # a pole is set by hand, a pod has no shaft
        return job
    longer = longer_shaft_m(fitted.motor, fitted.shaft_m)
    return replace(job, fitted=replace(fitted, shaft_m=longer))


def _weed(job: JobSetup) -> JobSetup:
    need = replace(job.need, hull=replace(job.need.hull, bottom="weed"))
    return replace(job, fitted=replace(job.fitted, need=need))


def _aged(job: JobSetup) -> JobSetup:
    return replace(job, fitted=replace(job.fitted, ageing=min(job.fitted.ageing + AGED, 0.9)))


def _wind(job: JobSetup) -> JobSetup:
    day = replace(job.need.day, wind_m_s=job.need.day.wind_m_s + MORE_WIND_M_S)
    legs = tuple(  # wind that helps stays as it is
        replace(x, wind_m_s=x.wind_m_s + MORE_WIND_M_S) if x.wind_m_s >= 0 else x for x in day.legs
    )
    need = replace(job.need, day=replace(day, legs=legs))
    return replace(job, fitted=replace(job.fitted, need=need))


def _all(job: JobSetup) -> JobSetup:
    return _wind(_aged(_weed(_heavier(job))))


WHAT_IFS: dict[str, Callable[[JobSetup], JobSetup]] = {
    "person": _person,
    "heavier": _heavier,
    "shaft": _shaft,
    "weed": _weed,
    "aged": _aged,
    "wind": _wind,
    "all": _all,
}


def what_if(job: JobSetup, how: str) -> JobSetup:
    """The setup with one thing of `WHAT_IFS` otherwise, or itself where that does not apply; raises
    KeyError for another word.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> from jolvek.core.job.job_setup import of_fitted
    >>> one = of_fitted(sample_fitted())
    >>> what_if(one, "heavier").performance.top_speed_m_s < one.performance.top_speed_m_s
    True
    """
    return WHAT_IFS[how](job)
