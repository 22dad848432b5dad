"""A setup with one thing otherwise: each is no better than the plan, all of it the worst."""

from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.enquiry.need import Leg
from jolvek.core.job.changes import changes
from jolvek.core.job.job_setup import of_fitted
from jolvek.core.job.what_ifs import WHAT_IFS, what_if
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import ranked
from jolvek.core.match.whole import fitted_of


@pytest.fixture(scope="module", params=[1, 3])
def job(request):
    """The first of the list at a demo's boat."""
    found = match(demo.enquiries()[request.param].need, demo.shelf())
    return of_fitted(fitted_of(found, ranked(found, 1)[0]))


def test_whatever_is_worse_goes_slower_or_shorter_and_all_at_once_is_the_worst(job):
    at = {how: what_if(job, how).performance.at_power(400.0) for how in WHAT_IFS}
    plan = job.performance.at_power(400.0)
    for how in ("person", "heavier", "weed", "aged", "wind", "all"):
        assert at[how].speed_m_s <= plan.speed_m_s * (1 + 1e-9), how
        assert at[how].range_m <= plan.range_m * (1 + 1e-9), how
        assert changes(job, what_if(job, how)), how
    assert at["all"].range_m == min(x.range_m for x in at.values())
    assert at["aged"].speed_m_s == pytest.approx(plan.speed_m_s)


def test_a_person_more_weighs_what_a_person_weighs_and_sits_in_a_seat_of_her_own(job):
    more, need = what_if(job, "person").need.load, job.need.load
    assert (more.people, more.crew_kg) == (need.people + 1, need.crew_kg + 80)
    seated = replace(job.need, load=replace(need, seat_kg=(90.0,) * need.people, people_kg=None))
    known = replace(job, fitted=replace(job.fitted, need=seated))
    assert what_if(known, "person").need.load.crew_kg == seated.load.crew_kg + 80


def test_a_longer_shaft_hangs_the_propeller_deeper_and_a_pole_has_none(job):
    longer = what_if(job, "shaft")
    moved = {x.key: x for x in changes(job, longer).figures}
    assert (longer == job) is (job.fitted.shaft_m is None)
    assert longer == job or moved["leg.hub"].after.value > moved["leg.hub"].before.value


def test_more_wind_is_against_legs_that_had_none_and_leaves_those_it_helps(job):
    legs = (Leg("out", 1.5, 2000.0, wind_m_s=-3.0), Leg("home", 1.5, 2000.0))
    need = replace(job.need, day=replace(job.need.day, legs=legs))
    windy = what_if(replace(job, fitted=replace(job.fitted, need=need)), "wind").need.day.legs
    assert windy[0].wind_m_s == -3.0 and windy[1].wind_m_s == pytest.approx(10 * 1852 / 3600)
