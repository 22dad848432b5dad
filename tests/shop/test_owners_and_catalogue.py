"""A boat passed on, a battery quoted, products as batches, a shop that begins."""

from dataclasses import replace

import pytest

from jolvek import demo, shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.products.own import OwnGear
from jolvek.store import enquiries, own_gear, owners, shelf
from jolvek.store.owners import Owner


def test_a_boat_is_passed_on_by_who_saw_the_owner_before(fitted, by):
    new = Owner(customer="Runa", phone="", mail="", address="")
    shop.owners.pass_on(fitted, by, 2, new, "2026-11-02", "0")
    assert enquiries.get(fitted, 2).customer == "Runa"
    with pytest.raises(JolvekError, match="passed on to Runa meanwhile"):
        shop.owners.pass_on(fitted, by, 2, replace(new, customer="Odd"), "2026-11-03", "0")
    shop.owners.pass_on(fitted, by, 2, replace(new, customer="Odd"), "2026-11-03", "1")
    assert enquiries.get(fitted, 2).customer == "Odd" and len(owners.former(fitted, 2)) == 2


def test_the_language_is_made_of_what_stands_and_addresses_are_shut(fitted):
    assert shop.owners.set_language(fitted, 2, lambda: "fr") == "fr"
    assert owners.language_of(fitted, 2) == "fr"
    before = owners.number_of(fitted, "boat", 2)
    shop.owners.shut_addresses(fitted, "boat", 2)
    assert owners.number_of(fitted, "boat", 2) == before + 1


def test_a_new_battery_is_quoted_with_the_rest_as_the_customers_own(fitted, by, items):
    enquiry = enquiries.get(fitted, 2).enquiry
    gear = [OwnGear("motors", items["motor"])]
    number = shop.owners.quote_battery(fitted, by, 2, enquiry, gear)
    (kept,) = own_gear.of_enquiry(fitted, number)
    assert kept.gear.kind == "motors" and kept.gear.since_year is None


def test_products_are_written_with_what_they_were_read_from_or_not_at_all(fitted, by, items):
    motor = items["motor"]
    seen = []

    def dearer(stands):
        seen.append(stands["price"])
        return "kept", replace(motor, price=motor.price + 1), "dearer"

    assert shop.catalogue.save(fitted, by, "motors", motor.id, dearer) == "kept"
    assert seen == [motor.price]
    refused = shop.catalogue.save(fitted, by, "motors", motor.id, lambda _: ("no", None, ""))
    assert refused == "no" and shelf.get(fitted, "motors", motor.id).price == motor.price + 1
    cheap = [("motors", replace(motor, price=1.0))]
    shop.catalogue.take_in(fitted, by, lambda stands: (None, cheap, "a list"))
    shop.catalogue.take_in(fitted, by, lambda stands: (None, [], "nothing"))
    assert [b.what for b in shelf.batches(fitted, 5)] == ["a list", "dearer"]
    assert shop.catalogue.undo(fitted, shelf.batches(fitted, 1)[0].id) == 1
    assert shelf.get(fitted, "motors", motor.id).price == motor.price + 1


def test_a_shop_begins_once(fitted, by):
    assert not shop.exchange.fill_empty(fitted, demo.shelf(), [(by.at, demo.enquiries()[0])])
    shop.enquiries.archive(fitted, 2, True)
    stored = enquiries.get(fitted, 2)
    assert stored.archived
    copied = enquiries.get(fitted, shop.enquiries.copy(fitted, by, stored, "Again"))
    assert (copied.title, copied.customer, copied.archived) == ("Again", "", False)


def test_settings_are_made_of_those_that_stand(fitted):
    names, other = shop.settings.change(fitted, {}, lambda s: (replace(s, deposit=12.0), "more"))
    assert names == ["deposit"] and other == "more"
    again = shop.settings.change(fitted, {}, lambda s: (replace(s, phone="555"), s.deposit))
    assert again == (["phone"], 12.0)
