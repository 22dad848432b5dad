"""What budgets buy: never dearer, as good as any within them, the house battery apart."""

from dataclasses import replace

import numpy as np
import pytest

from jolvek import demo
from jolvek.core.enquiry.need import Day
from jolvek.core.match.budgets import MOST_HOUSE_PACKS, house_battery, what_budgets_buy
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import score

NEEDS, SHELF = [e.need for e in demo.enquiries()], demo.shelf()


@pytest.mark.parametrize("which", range(6))
def test_a_budget_buys_the_best_that_it_pays_for(which):
    m = match(NEEDS[which], SHELF)
    f, marks = m.field, score(m)
    budgets = np.geomspace(f.price.min() * 0.9, f.price.max() * 1.1, 8)
    for b in what_budgets_buy(m, budgets.tolist()):
        within = f.price <= b.budget
        assert b.does_day == bool((within & f.does_day).any())
        if b.index is None:
            assert not (within & ~np.isnan(f.power_at_wish_w)).any()
        else:
            assert f.price[b.index] <= b.budget
            if b.does_day:
                assert marks[b.index] == marks[within & f.does_day].max()
            else:
                able = within & ~np.isnan(f.power_at_wish_w)
                assert f.range_m[b.index] == f.range_m[able].max()


def test_the_house_battery_feeds_the_day_and_none_cheaper_does():
    day = replace(NEEDS[4].day, hotel_w=60.0)
    found = house_battery(day, SHELF.batteries)
    needed = 60.0 * sum(leg.seconds + leg.hold_s for leg in day.trip) / 3600
    assert found is not None and found.needed_wh == pytest.approx(needed)
    spec = found.battery.spec
    assert found.packs * spec.energy_wh * spec.chem.usable >= needed
    for item in SHELF.batteries:
        if 11 <= item.spec.nominal_voltage_v <= 14 and not item.clip_on:
            packs = np.ceil(needed / (item.spec.energy_wh * item.spec.chem.usable))
            assert packs > MOST_HOUSE_PACKS or packs * item.price >= found.price


def test_nothing_asked_needs_no_house_battery_and_too_much_finds_none():
    assert house_battery(Day(hotel_w=0.0), SHELF.batteries) is None
    assert house_battery(Day(hotel_w=20_000.0, distance_m=90_000), SHELF.batteries) is None
