"""Cases of core/rules/day_rules.py."""

from dataclasses import replace

from jolvek.core.day.season import season
from jolvek.core.enquiry.need import Leg
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.job.job_setup import of_fitted
from tests.core.rules.cases.made import NEED, at, fit, folded, ids, matched, thinned


def hired(runs):
    day = replace(NEED.day, runs_per_day=runs, days_a_season=90.0, distance_m=1500.0)
    need = replace(sample_fitted().need, day=day)
    return ids(season(replace(sample_fitted(), need=need)).findings)


def job(need):
    return ids(of_fitted(replace(sample_fitted(), need=need)).findings)


def reserved(share):
    day = replace(NEED.day, distance_m=9000.0, reserve=share)
    return job(replace(sample_fitted().need, day=day))


CASES = {
    "runs-a-charge": (hired, (1, 10), (40,)),
    "too-slow": (
        lambda v: matched(
            at(day={"speed_m_s": v}), ((400, 24, 500), (1900, 24, 1500)), ((25.6, 300, 800),)
        ),
        (1.2,),
        (1.95,),
    ),
    "too-slow-all": (lambda v: matched(at(day={"speed_m_s": v})), (1.6,), (6.0,)),
    "too-short": (lambda d: matched(at(day={"distance_m": d})), (4000,), (4e5,)),
    "speed-missed": (lambda v: fit(at(day={"speed_m_s": v})), (1.2, 1.6), (3.5,)),
    "day-ends-early": (lambda d: job(at(day={"distance_m": d})), (4000,), (4e5,)),
    "below-reserve": (reserved, (0.2,), (0.9,)),
    "day-energy": (
        lambda m: matched(
            replace(NEED, day=NEED.day.with_legs((Leg("out", 1.6, m), Leg("back", 1.6, m))))
        ),
        (2000,),
        (2e5,),
    ),
    "folded": (folded, (40,), (20,)),
    "beaten": (lambda most: thinned(most), (10**6,), (10,)),
    "too-dear": (lambda b: matched(at(day={"budget": b})), (2000.0, 1850.0), (1849.0,)),
}
