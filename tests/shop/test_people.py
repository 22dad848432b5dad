"""People, their roles, one-time addresses and codes, keys."""

from datetime import UTC, datetime

import pytest

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.shop.people import Gone, NameTaken
from jolvek.store import api_keys, people

AT, NOW = "2026-11-03T09:00:00+00:00", datetime(2026, 11, 3, 9, tzinfo=UTC)


@pytest.fixture
def owner(conn):
    shop.people.make_owner(conn, AT, "marit", "Marit", "hash")
    return people.by_name(conn, "marit")


def test_one_owner_always_stays(conn, owner):
    for new in (("reader", True), ("owner", False)):
        with pytest.raises(JolvekError, match="One owner must stay"):
            shop.people.change(conn, owner.id, lambda who, new=new: new)
    assert people.by_id(conn, owner.id).role == "owner"
    shop.people.make_owner(conn, AT, "tove", "Tove", "hash")
    changed = shop.people.change(conn, owner.id, lambda who: ("reader", True))
    assert (changed.role, changed.active) == ("reader", True)
    with pytest.raises(Gone):
        shop.people.change(conn, 999, lambda who: ("reader", True))


def test_a_name_is_given_once_and_a_one_time_address_used_once(conn, owner):
    with pytest.raises(NameTaken, match="“marit”; that name is taken"):
        shop.people.add(conn, AT, "marit", "Other", "reader")
    number = shop.people.add(conn, AT, "ivar", "Ivar", "rigger")
    token, ivar = shop.people.invite(conn, number, NOW), people.by_id(conn, number)
    shop.people.offer_codes(conn, number, "SECRET")
    shop.people.switch_codes_on(conn, number, "SECRET", 5)
    assert people.by_id(conn, number).second_factor == "SECRET"
    assert not shop.people.use_code(conn, number, 5) and shop.people.use_code(conn, number, 6)
    shop.people.accept_invitation(conn, AT, token, ivar, ("", ""), "new hash")
    kept = people.by_id(conn, number)
    assert (kept.password, kept.second_factor, kept.role) == ("new hash", "", "rigger")
    with pytest.raises(Gone):
        shop.people.accept_invitation(conn, AT, token, ivar, ("", ""), "third")
    assert people.by_id(conn, number).password == "new hash"


def test_the_first_owner_is_made_by_the_address_that_the_start_says(conn):
    token = shop.people.invite(conn, None, NOW)
    shop.people.accept_invitation(conn, AT, token, None, ("marit", "Marit"), "hash")
    assert people.by_name(conn, "marit").role == "owner" and people.owners(conn) == 1


def test_a_session_ends_alone_or_with_all_others(conn, owner):
    first = shop.people.sign_in(conn, owner.id, NOW, "10.0.0.1", "phone")
    second = shop.people.sign_in(conn, owner.id, NOW, "10.0.0.2", "desk")
    known = lambda token: shop.people.who_is(conn, token, NOW, lambda write: write())  # noqa: E731
    assert known(first).id == owner.id
    shop.people.sign_out(conn, first)
    assert known(first) is None and known(second).id == owner.id
    shop.people.sign_out_everywhere(conn, owner.id)
    assert known(second) is None


def test_keys_are_few_and_refused_once_taken_away(conn):
    keys = [shop.people.make_key(conn, AT, f"site {i}") for i in range(api_keys.MOST)]
    with pytest.raises(JolvekError, match="are there already"):
        shop.people.make_key(conn, AT, "one more")
    assert shop.people.use_key(conn, keys[0], "2026-11-03")
    shop.people.drop_key(conn, people.hashed(keys[0]))
    assert not shop.people.use_key(conn, keys[0], "2026-11-03")


def test_the_demo_is_played_by_one_person_a_role(conn):
    first = shop.people.play(conn, AT, "demo-rigger", "Tove", "rigger")
    assert shop.people.play(conn, AT, "demo-rigger", "Tove", "rigger").id == first.id
