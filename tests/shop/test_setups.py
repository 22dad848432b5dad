"""Setups pinned, chosen, fitted and brought up to date."""

from dataclasses import replace

import pytest

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.products.own import OwnGear
from jolvek.store import own_gear, setups
from tests.shop.conftest import PLANNED


def letters(conn, number=2):
    return [p.letter for p in setups.of_enquiry(conn, number)]


def chosen(conn, number=2):
    return [p.letter for p in setups.of_enquiry(conn, number) if p.chosen]


def test_a_setup_is_pinned_chosen_and_removed(fitted, by, items, touched):
    assert shop.setups.pin(fitted, by, 2, items, (1, 1, None), PLANNED) == "C"
    assert letters(fitted) == ["A", "B", "C"] and touched(2, by.at)
    shop.setups.choose(fitted, replace(by, at="later"), 2, "C")
    assert chosen(fitted) == ["C"] and touched(2, "later")
    gone = shop.setups.unpin(fitted, replace(by, at="last"), 2, "B")
    assert gone.letter == "B" and letters(fitted) == ["A", "C"] and touched(2, "last")
    assert shop.setups.unpin(fitted, by, 2, "B") is None


def test_what_is_not_pinned_is_not_chosen(fitted, by):
    with pytest.raises(JolvekError, match="“Q”; allowed is the letter of a pinned setup"):
        shop.setups.choose(fitted, by, 2, "Q")
    assert chosen(fitted) == ["A"]


def test_a_fitting_is_made_of_the_one_that_stands(fitted, by, touched):
    mine = setups.of_enquiry(fitted, 2)[0]
    seen = []

    def edit(stands):
        seen.append(stands.fitting.claims)
        return stands.shaft_m, replace(stands.fitting, claims=not stands.fitting.claims)

    shop.setups.fit(fitted, by, 2, mine.id, edit)
    shop.setups.fit(fitted, by, 2, mine.id, edit)
    assert seen == [False, True] and touched(2, by.at)
    with pytest.raises(JolvekError, match="removed meanwhile"):
        shop.setups.fit(fitted, by, 3, mine.id, edit)
    assert len(seen) == 2


def test_add_ons_go_in_and_out_and_parts_take_todays_price(fitted, by, shelf, touched):
    mine, extra = setups.of_enquiry(fitted, 2)[0], shelf.accessories[0]
    shop.setups.add_extra(fitted, by, 2, mine.id, "accessory", extra)
    (added,) = setups.of_enquiry(fitted, 2)[0].extras
    assert added.item.id == extra.id and touched(2, by.at)
    shop.setups.renew(
        fitted,
        replace(by, at="now"),
        2,
        [(mine.id, mine.parts[0], replace(mine.parts[0].item, price=1.5))],
    )
    assert setups.of_enquiry(fitted, 2)[0].parts[0].price == 1.5 and touched(2, "now")
    shop.setups.drop_extra(fitted, replace(by, at="end"), 2, mine.id, extra.id)
    assert setups.of_enquiry(fitted, 2)[0].extras == () and touched(2, "end")


def test_no_more_is_kept_of_what_a_customer_has_than_a_page_shows(fitted, by, shelf, touched):
    gear = OwnGear("batteries", shelf.batteries[0])
    for _ in range(own_gear.MOST):
        shop.setups.add_own_gear(fitted, by, 2, gear)
    with pytest.raises(JolvekError, match=f"{own_gear.MOST} things are kept already"):
        shop.setups.add_own_gear(fitted, by, 2, gear)
    kept = own_gear.of_enquiry(fitted, 2)
    shop.setups.drop_own_gear(fitted, replace(by, at="gone"), 2, kept[0].id)
    assert len(own_gear.of_enquiry(fitted, 2)) == own_gear.MOST - 1 and touched(2, "gone")
