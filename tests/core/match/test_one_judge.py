"""One judge: whatever matching lists, the rule book does not block, and whatever it leaves out, the
rule book blocks; over needs perturbed in every field.
"""

import itertools
import random
from dataclasses import replace

import numpy as np
import pytest
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as st

from jolvek import demo
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.charging import matches
from jolvek.core.enquiry.site import Bay
from jolvek.core.fit.fitted import Fitted
from jolvek.core.hydro.hull import Load
from jolvek.core.match.hand_options import bank_options
from jolvek.core.match.matching import against_the_boat, allowed_pairs, match
from jolvek.core.products.shelf import Shelf
from jolvek.core.rules import judge

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


def case(seed):
    """A need with some of its fields set anew, a few products of the shelf, and where to begin."""
    dice = random.Random(seed)

    def rarely(make):
        return make() if dice.random() < 0.25 else None

    which = dice.randrange(len(NEEDS))
    need = NEEDS[which]
    usual = {
        "max_motor_kg": 40.0,
        "max_load_kg": 350.0,
        "approval_power_w": 2500.0,
        "approval_thrust_n": 500.0,
        "transom_thickness_m": 0.04,
    }
    changes = {key: rarely(lambda at=at: at * dice.uniform(0.3, 3.0)) for key, at in usual.items()}
    changes |= {
        "max_people": rarely(lambda: dice.randint(1, 6)),
        "model_year": dice.choice([None, dice.randint(2000, 2020)]),
        "approval_from_year": rarely(lambda: dice.randint(2005, 2015)),
        "rudder_chord_m": rarely(lambda: dice.uniform(0.1, 0.6)),
        "bays": dice.choice([(), need.site.bays, odd_bays(dice)]),
    }
    height = rarely(lambda: dice.uniform(0.25, 0.65)) or need.hull.transom_m
    power = rarely(lambda: dice.uniform(400, 8000))
    need = replace(
        need,
        hull=replace(need.hull, max_power_w=power, transom_height_m=height),
        load=Load(dice.randint(1, 4), gear_kg=dice.uniform(0, 120)),
        site=replace(need.site, **changes),
        day=replace(
            need.day,
            temperature_c=dice.uniform(-10, 35),
            reserve=dice.uniform(0, 0.4),
            wind_m_s=dice.uniform(-5, 10),
            own_charger_v=rarely(lambda: dice.choice([14.6, 29.2, 29.4, 58.4])),
            legs=(),
        ),
    )
    motor, mount, battery = dice.choice(FITTING[which])
    if dice.random() < 0.2:  # a plate that this setup just meets or just misses
        parts = (SHELF.motors[motor], SHELF.mounts[mount], SHELF.batteries[battery])
        kilos = need.load.total_kg + parts[1].spec.mass_kg + dice.uniform(-2, 2)
        kilos += parts[0].spec.weight_kg + parts[2].spec.weight_kg
        need = replace(need, site=replace(need.site, max_load_kg=kilos))
    other = dice.randrange(len(SHELF.batteries))
    batteries = [SHELF.batteries[i] for i in dict.fromkeys((battery, other))]
    shelf = Shelf(
        (SHELF.motors[motor],),
        tuple(batteries),
        (SHELF.mounts[mount],),
        tuple(dice.sample(SHELF.chargers, 3)),
    )
    return need, shelf, dice.randrange(4)


def odd_bays(dice):
    """One bay anywhere, so that she may lie badly."""
    ahead, off = dice.uniform(0, 3), dice.choice([0.0, dice.uniform(-1, 1)])
    return (Bay("odd", 0.9, 0.6, 0.5, None, ahead, off_m=off, above_m=dice.uniform(0, 1)),)


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
    parts = (shelf.motors[i], shelf.batteries[b], shelf.mounts[k])
    bank = Bank(parts[1].spec, s, p)
    charger = next((c for c in shelf.chargers if matches(bank, c.spec)), None)
    f = Fitted(need, *parts, charger, s, p, shaft_m=shaft)
    return [x for x in f.hard_findings if x.level == "block"]


def disagreements(need, shelf, start, every):
    """Over every so many setups from a start on."""
    allowed = listed(need, shelf)
    for setup in itertools.islice(every_setup(shelf), start % every, None, every):
        found = blocks(need, shelf, setup)
        if (setup in allowed) == bool(found):
            yield setup, [f.text for f in found]


quiet = {"deadline": None, "suppress_health_check": list(HealthCheck), "derandomize": True}


@settings(max_examples=300, **quiet)
@given(st.integers(0, 2**32))
def test_matching_lists_just_what_the_rule_book_does_not_block(seed):
    assert list(disagreements(*case(seed), every=4)) == []


@pytest.mark.thorough
@settings(max_examples=20_000, **{**quiet, "derandomize": False})
@given(st.integers(0, 2**32))
def test_the_same_over_many_more(seed):
    assert list(disagreements(*case(seed), every=1)) == []


def against(need, motor, mount, item, layout, charger=None):
    """What blocks a bank put together by hand, one by one."""
    f = Fitted(need, motor, item, mount, charger, *layout)
    result = judge.findings("pair", f.pair) + ([f.stowed[1]] if f.stowed[1] else [])
    return [x.text for x in result if x.level == "block"]


TIGHT = Bay("box", 0.4, 0.25, 0.25, 16.0)


@pytest.mark.parametrize(
    ("which", "own_charger_v", "bays", "chargers"),
    [(0, None, (), 20), (1, 29.2, (TIGHT,), 0), (2, None, (TIGHT,), 1), (5, 14.6, (), 0)],
)
def test_a_bank_by_hand_is_judged_as_the_setup_that_it_makes(which, own_charger_v, bays, chargers):
    usual, mount, sold = NEEDS[which], SHELF.mounts[0], SHELF.chargers[:chargers]
    day = replace(usual.day, own_charger_v=own_charger_v)
    need = replace(usual, day=day, site=replace(usual.site, bays=bays))
    clipped = next(m for m in SHELF.motors if m.pack_ids)
    for motor in (clipped, *SHELF.motors[which::6]):
        found = bank_options(need, motor, mount, SHELF.batteries, sold)
        for item in SHELF.batteries:
            alone = {
                at: against(need, motor, mount, item, at, serving(item, at, sold))
                for at in itertools.product((1, 2, 3, 4), (1, 2, 3))
            }
            offered = [o for o in found if o.item is item]
            goes = [(o.series, o.parallel) for o in offered if not o.why]
            assert goes == [at for at, blocks in alone.items() if not blocks]
            for o in offered:
                blocks = alone[o.series, o.parallel]
                assert (o.why.text if o.why else None) == (blocks[0] if blocks else None)
                assert not blocks or len(blocks) == min(len(b) for b in alone.values())


def serving(item, layout, chargers):
    """The first charger that serves a bank."""
    return next((c for c in chargers if matches(Bank(item.spec, *layout), c.spec)), None)
