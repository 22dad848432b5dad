"""What budgets buy: never dearer, as good as any within them, the house battery apart."""

from dataclasses import replace

import numpy as np
import pytest

from jolvek import demo
from jolvek.core.enquiry.need import Day
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.match.budgets import MOST_HOUSE_PACKS, house_battery, what_budgets_buy
from jolvek.core.match.hand_options import bank_options
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import score, steps
from jolvek.core.match.sensible import KIT_SHARE, sensible
from jolvek.core.products.own import OwnGear, own_item

NEEDS, SHELF = [e.need for e in demo.enquiries()], demo.shelf()


@pytest.mark.parametrize("which", range(6))
def test_a_budget_buys_the_best_that_it_pays_for(which):
    m = match(NEEDS[which], SHELF)
    f, marks = m.field, score(m)
    budgets = np.geomspace(f.price.min() * 0.9, f.price.max() * 1.1, 8)
    for b in what_budgets_buy(m, budgets.tolist()):
        within = f.price <= b.budget
        suits = np.zeros_like(f.does_day)
        suits[sensible(m, within & ~np.isnan(f.power_at_wish_w))] = True
        within = within & suits
        assert b.does_day == bool((within & f.does_day).any())
        if b.index is None:
            assert not within.any()
        else:
            assert f.price[b.index] <= b.budget
            if b.does_day:
                assert marks[b.index] == marks[within & f.does_day].max()
            else:
                able = within & ~np.isnan(f.power_at_wish_w)
                assert f.range_m[b.index] == f.range_m[able].max()


def test_no_step_or_budget_puts_half_a_boats_weight_or_a_bank_that_does_not_fill_on_it():
    """Eight lead batteries of 212 kg stood on a kayak of 36 kg, and a bank that fills in 35 h."""
    for need in NEEDS:
        m = match(need, SHELF)
        boat = need.hull.mass_kg + need.load.total_kg
        bought = [b.index for b in what_budgets_buy(m, (800.0, 2e3, 5e3, 2e4)) if b.index]
        for i in [*bought, *(s.index for s in steps(m))]:
            assert m.field.mass_kg[i] <= KIT_SHARE * boat * (1 + 1e-9)
            hours = m.field.charge_h[i]
            assert np.isnan(hours) or hours <= need.day.charge_h * (1 + 1e-9)


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


def test_the_customers_own_battery_is_no_house_battery():
    day = Day(hotel_w=40.0)
    usual = house_battery(day, SHELF.batteries)
    own = own_item(OwnGear("batteries", usual.battery), 1)
    assert house_battery(day, (own, *SHELF.batteries)) == usual


def test_by_hand_takes_no_more_of_his_own_packs_than_he_has():
    f = sample_fitted()
    small = replace(f.battery.spec, nominal_voltage_v=12.8, mass_kg=6.0)
    two = own_item(OwnGear("batteries", replace(f.battery, spec=small), count=2), 1)
    bought = replace(f.battery, spec=small)
    made = {
        item.own: {
            (o.series, o.parallel)
            for o in bank_options(f.need, f.motor, f.mount, [item], [f.charger])
            if not o.why
        }
        for item in (two, bought)
    }
    assert (2, 1) in made[True] and (2, 2) in made[False]
    assert all(s * p <= 2 for s, p in made[True])
