"""One judge: whatever matching lists, the rule book does not block, and whatever it leaves out, the
rule book blocks; over needs perturbed in every field.
"""

import itertools
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from jolvek import demo
from jolvek.core.fit.fitted import Fitted
from jolvek.core.match.matching import against_the_boat, allowed_pairs, match
from jolvek.core.products.shelf import Shelf

NEEDS = [e.need for e in demo.enquiries()]
SHELF = demo.shelf()
LAYOUTS = [(1, 1), (2, 1), (1, 2)]


def fitting(need):
    """(motor, mount, battery) of every setup that matching lists for a need as it stands."""
    m = match(need, SHELF)
    d, s, f = m.drives, m.supplies, m.field
    return list(
        dict.fromkeys(zip(d.motor[f.drive], d.mount[f.drive], s.battery[f.supply], strict=True))
    )


FITTING = [fitting(need) for need in NEEDS]


def rarely(values):
    return st.one_of(st.none(), st.none(), st.none(), values)


@st.composite
def cases(draw):
    """A need with some of its fields set anew, a few products of the shelf, and where to begin."""
    which = draw(st.integers(0, len(NEEDS) - 1))
    need, maybe = NEEDS[which], rarely(st.floats(0.3, 3.0))
    site, hull, load = need.site, need.hull, need.load
    scaled = {
        "max_motor_kg": 40.0,
        "max_load_kg": 350.0,
        "approval_power_w": 2500.0,
        "approval_thrust_n": 500.0,
        "transom_thickness_m": 0.04,
    }
    changes = {key: (x * at if (x := draw(maybe)) else None) for key, at in scaled.items()}
    changes["max_people"] = draw(rarely(st.integers(1, 6)))
    changes["model_year"] = draw(st.none() | st.integers(2000, 2020))
    changes["approval_from_year"] = draw(rarely(st.integers(2005, 2015)))
    changes["rudder_chord_m"] = draw(rarely(st.floats(0.1, 0.6)))
    changes["bays"] = draw(st.sampled_from([(), site.bays]))
    power = draw(rarely(st.floats(400, 8000)))
    height = draw(rarely(st.floats(0.25, 0.65))) or hull.transom_m
    hull = replace(hull, max_power_w=power, transom_height_m=height)
    day = replace(
        need.day,
        temperature_c=draw(st.floats(-10, 35)),
        reserve=draw(st.floats(0, 0.4)),
        wind_m_s=draw(st.floats(-5, 10)),
        legs=(),
    )
    load = replace(load, people=draw(st.integers(1, 4)), gear_kg=draw(st.floats(0, 120)))
    load = replace(load, people_kg=None, seat_kg=())
    motor, mount, battery = draw(st.sampled_from(FITTING[which]))
    other = draw(st.integers(0, len(SHELF.batteries) - 1))
    batteries = [SHELF.batteries[i] for i in dict.fromkeys((battery, other))]
    shelf = Shelf((SHELF.motors[motor],), tuple(batteries), (SHELF.mounts[mount],), ())
    need = replace(need, hull=hull, load=load, site=replace(site, **changes), day=day)
    return need, shelf, draw(st.integers(0, 3))


def listed(need, shelf):
    """What matching lists: (motor, shaft, mount, battery, series, parallel)."""
    _, d, s, _, pairs = allowed_pairs(need, shelf)
    if against_the_boat(need):
        return set()
    shaft = [None if np.isnan(x) else float(x) for x in d.shaft_m]
    return {
        (d.motor[i], shaft[i], d.mount[i], s.battery[k], s.series[k], s.parallel[k])
        for i, k in zip(pairs.drive, pairs.supply, strict=True)
    }


def every_setup(shelf):
    for (i, motor), (k, _), (b, _) in itertools.product(
        enumerate(shelf.motors), enumerate(shelf.mounts), enumerate(shelf.batteries)
    ):
        for shaft, (s, p) in itertools.product(motor.shafts_m or (None,), LAYOUTS):
            yield i, shaft, k, b, s, p


def blocks(need, shelf, setup):
    i, shaft, k, b, s, p = setup
    f = Fitted(
        need, shelf.motors[i], shelf.batteries[b], shelf.mounts[k], None, s, p, shaft_m=shaft
    )
    return [x for x in f.hard_findings if x.level == "block"]


def disagreements(need, shelf, start, every):
    """Over every so many setups from a start on."""
    allowed = listed(need, shelf)
    for setup in itertools.islice(every_setup(shelf), start % every, None, every):
        found = blocks(need, shelf, setup)
        if (setup in allowed) == bool(found):
            yield setup, [f.text for f in found]


quiet = {"deadline": None, "suppress_health_check": list(HealthCheck), "derandomize": True}


@settings(max_examples=2000, **quiet)
@given(cases())
def test_matching_lists_just_what_the_rule_book_does_not_block(case):
    assert list(disagreements(*case, every=4)) == []


@pytest.mark.thorough
@settings(max_examples=20_000, **{**quiet, "derandomize": False})
@given(cases())
def test_the_same_over_many_more(case):
    assert list(disagreements(*case, every=1)) == []
