"""The list's fitted price is the bill of the setup, whatever the wiring."""

from dataclasses import replace
from decimal import Decimal

import numpy as np
import pytest

from jolvek import demo
from jolvek.core.enquiry.site import Bay, Site
from jolvek.core.job.job_setup import of_fitted
from jolvek.core.match.matching import match
from jolvek.core.match.whole import fitted_of
from jolvek.core.products.rates import Rates

RATES = Rates(78_00, 85_00, 61, 13_50, Decimal(25))
LOCKERS = (Bay("aft", 0.8, 0.5, 0.5, 60.0, 0.4), Bay("bow", 0.9, 0.6, 0.5, 90.0, 2.6, off_m=0.2))


def asked(which):
    need = demo.enquiries()[which % 6].need
    if which >= 6:
        need = replace(need, site=replace(need.site, bays=LOCKERS))
    if which == 3:
        need = replace(need, day=replace(need.day, solar_w=300.0))
    return need


@pytest.mark.parametrize("which", range(8))
def test_the_price_of_the_list_is_the_bill_of_the_setup(which):
    m = match(asked(which), demo.shelf(), most=30_000, rates=RATES)
    f = m.field
    assert f.price.size and (f.fitted_price >= f.parts_price).all()
    for i in np.linspace(0, f.price.size - 1, 60).astype(int):
        bill = replace(of_fitted(fitted_of(m, int(i))), rates=RATES)
        assert bill.parts_price == pytest.approx(float(f.parts_price[i]), abs=0.005)
        assert bill.fitted_price == pytest.approx(float(f.fitted_price[i]), abs=0.011), i


def test_the_shop_chooses_which_price_ranks_and_counts_against_a_budget():
    need = asked(1)
    least = match(need, demo.shelf(), rates=RATES).field
    budget = float(least.parts_price[least.does_day].min()) + 1
    tight = replace(need, day=replace(need.day, budget=budget))
    by_parts = match(tight, demo.shelf(), rates=replace(RATES, ranks_fitted=False)).field
    fitted = match(tight, demo.shelf(), rates=RATES).field
    assert by_parts.does_day.any() and not fitted.does_day.any()
    assert (by_parts.price == by_parts.parts_price).all()


def test_a_bay_makes_a_kit_built_in():
    need = replace(asked(0), site=Site())
    built_in = replace(need, site=Site(bays=LOCKERS))
    assert any(
        fitted_of(match(n, demo.shelf()), 0).carried != n.site.bays for n in (need, built_in)
    )
