"""Coming in, staying in and going out: sessions, throttling, one-time codes and addresses."""

import re
import sqlite3
from datetime import UTC, datetime, timedelta

import pyotp
import pytest

from jolvek.store import people, trail
from jolvek.web import create_app
from jolvek.web.kit.accounts import guessing, passwords
from jolvek.web.settings import Settings
from tests.web.conftest import AT, WORD

NOW = datetime.now(UTC)


def cookie(client):
    found = client.get_cookie(client.application.config["SESSION_COOKIE_NAME"])
    return found.value if found else ""


def may_in(client):
    return client.get("/account").status_code == 200


def test_who_comes_in_gets_a_new_session_and_goes_where_they_wanted(shop):
    client = shop.test_client()
    asked = client.get("/enquiry/2/boat?x=1")
    assert asked.location == "/sign-in?back=/enquiry/2/boat?x%3D1"
    client.post("/units", data={"speed": "km/h"})
    before = cookie(client)
    answer = client.post(
        "/sign-in", data={"name": "ADVISOR", "password": WORD, "back": "/enquiry/2/boat?x=1"}
    )
    assert (answer.status_code, answer.location) == (303, "/enquiry/2/boat?x=1")
    assert cookie(client) != before and may_in(client)
    flags = answer.headers["Set-Cookie"]
    assert "HttpOnly" in flags and "SameSite=Lax" in flags and "Secure" not in flags
    tls = shop.test_client().post(
        "/sign-in", data={"name": "advisor", "password": WORD}, base_url="https://localhost"
    )
    assert "Secure" in tls.headers["Set-Cookie"] and "Strict-Transport-Security" in tls.headers


def test_a_session_set_by_somebody_else_is_never_ones_own(shop, enter):
    attacker = enter("reader")
    victim = shop.test_client()
    victim.set_cookie(shop.config["SESSION_COOKIE_NAME"], cookie(attacker))
    victim.post("/sign-in", data={"name": "owner", "password": WORD})
    assert victim.get("/people").status_code == 200
    assert attacker.get("/people").status_code != 200


def test_two_shops_on_one_machine_keep_their_own_sessions(shop, enter, tmp_path):
    other = create_app(Settings(tmp_path / "other", "secret", demo=True))
    answer = other.test_client().post("/units", data={"speed": "km/h"})
    name = answer.headers["Set-Cookie"].split("=")[0]
    assert name == other.config["SESSION_COOKIE_NAME"] != shop.config["SESSION_COOKIE_NAME"]
    client = enter("advisor")
    client.set_cookie(name, "of the other shop")
    assert may_in(client)


def test_a_cookie_is_worth_nothing_after_signing_out(shop, enter):
    client = enter("advisor")
    old = cookie(client)
    client.post("/sign-out")
    assert not may_in(client)
    again = shop.test_client()
    again.set_cookie(shop.config["SESSION_COOKIE_NAME"], old)
    assert not may_in(again)


def test_a_session_that_is_revoked_ends_at_once_everywhere(enter, conn):
    owner, one, two = enter("owner"), enter("advisor"), enter("advisor")
    number = people.by_name(conn, "advisor").id
    assert may_in(one) and may_in(two)
    owner.post("/people/sign-out", data={"person": number})
    assert not may_in(one) and not may_in(two)
    third = enter("advisor")
    owner.post("/people/change", data={"person": number, "role": "advisor"})  # not active
    assert not may_in(third) and enter("advisor").answer.status_code == 422
    owner.post("/people/change", data={"person": number, "role": "reader", "active": "1"})
    fourth = enter("advisor")
    assert fourth.post("/enquiry/2/copy").status_code == 403
    fourth.post("/account/sign-out-everywhere")
    assert not may_in(fourth)


@pytest.mark.parametrize(
    "back",
    [
        "//evil.example",
        "https://evil.example/",
        "/\\evil.example",
        "javascript:alert(1)",
        "http:evil",
        "\\\\evil",
        "/%0d%0aX: y",
    ],
)
def test_the_way_back_stays_in_the_house(enter, back):
    answer = enter("reader", back=back).answer
    assert answer.location == "/" or answer.location.startswith("/%0d")
    assert "X" not in answer.headers


def test_wrong_words_are_refused_alike_and_throttled(shop, enter):
    for name in ("advisor", "nobody at all"):
        result = enter(name, "wrong wrong wrong").answer
        assert result.status_code == 422 and "is not right" in result.text
    codes = [enter("advisor", f"guess {i}").answer.status_code for i in range(10)]
    assert codes[:3] == [422] * 3 and codes[-1] == 429  # ten a minute from one address


def guesses(shop, n):
    """Wrong tries at one name, each from another address."""
    client = shop.test_client()
    for i in range(n):
        where = {"REMOTE_ADDR": f"10.0.0.{i}"}
        data = {"name": "Advisor", "password": f"guess {i}"}
        assert client.post("/sign-in", data=data, environ_base=where).status_code == 422


def test_one_name_is_slowed_from_anywhere_and_its_owner_is_never_locked_out(shop, monkeypatch):
    waited = []
    monkeypatch.setattr(guessing.time, "sleep", waited.append)
    known, right = shop.test_client(), {"name": "advisor", "password": WORD}
    assert known.post("/sign-in", data=right).status_code == 303
    known.post("/sign-out")
    guesses(shop, 14)
    assert waited == [0.25, 0.5, 1.0, 2.0, 4.0, 4.0]
    del waited[:]
    assert known.post("/sign-in", data=right).status_code == 303 and waited == []
    guesses(shop, 9)
    far = {"REMOTE_ADDR": "10.9.9.9"}
    new = shop.test_client().post("/sign-in", data=right, environ_base=far)
    assert new.status_code == 303 and waited[-1] > 0  # the right password enters, later


def test_a_known_device_enters_though_its_address_is_used_up(shop, monkeypatch):
    monkeypatch.setattr(guessing.time, "sleep", lambda _: None)
    known, right = shop.test_client(), {"name": "advisor", "password": WORD}
    known.post("/sign-in", data=right)
    codes = [
        shop.test_client().post("/sign-in", data={"name": "x", "password": "y"}).status_code
        for _ in range(12)
    ]
    assert codes[-1] == 429
    assert known.post("/sign-in", data=right).status_code == 303
    other = known.post("/sign-in", data={"name": "owner", "password": WORD})
    assert other.status_code == 429  # it is known for one name only


def test_who_may_wait_at_once_is_bounded(shop, monkeypatch):
    monkeypatch.setattr(guessing, "seconds_for", lambda _name: 1.0)
    monkeypatch.setattr(guessing._WAITING, "acquire", lambda blocking: False)
    answer = shop.test_client().post("/sign-in", data={"name": "advisor", "password": "x"})
    assert answer.status_code == 429 and "Try again" in answer.text


def test_a_session_runs_out(conn):
    number = people.add(conn, "x", "X", "reader", AT)
    token = people.sign_in(conn, number, NOW, "here", "device")
    later = people.IDLE - timedelta(minutes=1)
    assert people.who_is(conn, token, NOW + later).shown == "X"
    assert people.who_is(conn, token, NOW + later + later) is not None  # used in between
    assert people.who_is(conn, token, NOW + 2 * later + people.IDLE + later) is None
    day = timedelta(hours=11)
    used = [people.who_is(conn, token, NOW + 2 * later + i * day) for i in range(40)]
    assert used[0] and used[-1] is None  # used daily, and over after two weeks
    assert conn.execute("SELECT token FROM signed_in").fetchone()["token"] != token


def test_one_time_codes_are_asked_for_and_good_once(enter, conn):
    client = enter("owner")
    client.post("/account/factor", data={"do": "start"})
    page = client.get("/account").text
    secret = re.search(r"or type (\w+)\.", page).group(1)
    assert "<svg" in page
    assert client.post("/account/factor", data={"do": "confirm", "code": "1"}).status_code == 422
    totp = pyotp.TOTP(secret)
    client.post("/account/factor", data={"do": "confirm", "code": totp.now()})
    assert enter("owner").answer.status_code == 422
    code = totp.at(int(datetime.now(UTC).timestamp()) + 30)  # a clock half a minute ahead
    assert enter("owner", code=code).answer.status_code == 303
    assert enter("owner", code=code).answer.status_code == 422  # once
    off = client.post("/account/factor", data={"do": "off", "now": "not it"})
    assert off.status_code == 422 and "not the password" in off.text
    client.post("/account/factor", data={"do": "off", "now": WORD})
    assert enter("owner").answer.status_code == 303


def test_a_one_time_address_is_good_once_and_lets_choose_a_good_password(shop, enter, conn):
    owner = enter("owner")
    page = owner.post("/people/add", data={"name": "nils", "shown": "Nils", "role": "rigger"}).text
    way = re.search(r"http://[^/]+(/welcome/\S+?)<", page).group(1)
    again = owner.post("/people/add", data={"name": "NILS", "role": "rigger"})
    assert again.status_code == 422 and "taken" in again.text
    client = shop.test_client()
    for word, result in (
        ("short", "5 characters"),
        ("passwordpassword", "words that do not"),
        ("nilsnilsnils", "words that do not"),
    ):
        answer = client.post(way, data={"password": word, "again": word})
        assert answer.status_code == 422 and result in answer.text
    assert client.post(way, data={"password": WORD, "again": "x"}).status_code == 422
    assert client.post(way, data={"password": WORD, "again": WORD}).status_code == 303
    assert client.get(way).status_code == 404
    assert enter("nils").answer.status_code == 303
    lost = owner.post("/people/invite", data={"person": people.by_name(conn, "nils").id}).text
    assert "/welcome/" in lost
    stale = people.invite(conn, people.by_name(conn, "nils").id, NOW - people.INVITED * 2)
    assert client.get(f"/welcome/{stale}").status_code == 404


def test_the_first_owner_is_made_once(shop, conn):
    conn.execute("DELETE FROM person")
    client, token = shop.test_client(), people.invite(conn, None, NOW)
    data = {"name": "marit", "shown": "Marit", "password": WORD, "again": WORD}
    assert client.post(f"/welcome/{token}", data=data | {"name": ""}).status_code == 422
    assert client.post(f"/welcome/{token}", data=data).status_code == 303
    assert people.by_name(conn, "marit").role == "owner"
    second = people.invite(conn, None, NOW)
    assert client.get(f"/welcome/{second}").status_code == 404  # there is an owner


def test_the_last_owner_stays(enter, conn):
    client, number = enter("owner"), people.by_name(conn, "owner").id
    for data in ({"role": "reader", "active": "1"}, {"role": "owner"}):
        answer = client.post("/people/change", data={"person": number, **data})
        assert answer.status_code == 422 and "One owner must stay" in answer.text
    assert client.post("/people/change", data={"person": 77, "role": "owner"}).status_code == 404


def test_a_new_password_ends_all_other_sessions(enter):
    one, two, new = enter("rigger"), enter("rigger"), "kelp ladder orbit seven"
    assert one.post("/account/password", data={"now": "x", "new": new}).status_code == 422
    assert one.post("/account/password", data={"now": WORD, "new": "kelp"}).status_code == 422
    assert one.post("/account/password", data={"now": WORD, "new": new}).status_code == 303
    assert may_in(one) and not may_in(two)
    assert enter("rigger", new).answer.status_code == 303


def test_what_is_done_stands_in_the_trail_with_its_author(enter, conn):
    advisor = enter("advisor")
    advisor.post("/enquiry/2/copy")
    for _ in range(3):
        advisor.post("/enquiry/2/shortlist/weights", data={"wish_price": "5"})
    advisor.post("/units", data={})
    steps = [(s.who, s.action, s.path) for s in trail.all_of(conn)]
    who = "The advisor"
    assert steps == [
        (who, "signed in", "/sign-in"),
        (who, "counter.copy", "/enquiry/2/copy"),
        (who, "shortlist.keep_weights", "/enquiry/2/shortlist/weights"),
    ]
    owner = enter("owner")
    page = owner.get("/trail").text
    assert "counter.copy" in page and "the chain holds" in page
    assert "The advisor,advisor,127.0.0.1,counter.copy" in owner.get("/trail/trail.csv").text


def test_a_trail_that_was_changed_shows_where(enter, conn):
    for i in range(5):
        step = trail.Step(f"2026-11-26T0{i}:00", "X", "owner", "", "did", "/", detail=str(i))
        trail.add(conn, step)
    assert trail.broken_at(conn) is None
    for sql in ("UPDATE trail SET who = 'Y'", "DELETE FROM trail WHERE id = 3"):
        with pytest.raises(sqlite3.IntegrityError, match="only added to"):
            conn.execute(sql)
    conn.execute("DROP TRIGGER trail_delete")
    conn.execute("DELETE FROM trail WHERE id = 3")
    assert trail.broken_at(conn) == 4
    assert "The chain breaks at step 4" in enter("owner").get("/trail").text


def test_versions_say_who_and_one_goes_back(enter, conn):
    from tests.web.steps import boat_form

    advisor = enter("advisor")
    form = boat_form(advisor, 2)
    advisor.post("/enquiry/2/boat", data=form | {"title": "Renamed", "beam": "1.7"})
    page = advisor.get("/enquiry/2/history").text
    assert "The advisor" in page and "→ Renamed" in page and "Beam overall" in page
    first = re.findall(r'name="version"\s+value="(\d+)"', page)[-1]
    advisor.post("/enquiry/2/history", data={"version": first})
    assert "Renamed" not in advisor.get("/enquiry/2/boat").text
    assert "→ Renamed" in advisor.get("/enquiry/2/history").text  # nothing is lost
    assert advisor.post("/enquiry/3/history", data={"version": first}).status_code == 404
    assert enter("reader").get("/enquiry/2/history").status_code == 200


def test_a_reader_finds_the_entries_shut(enter):
    assert '<fieldset class="shut" disabled' in enter("reader").get("/enquiry/2/boat").text
    assert "disabled" not in enter("advisor").get("/enquiry/2/boat").text


def test_the_demo_signs_in_says_so_and_plays_any_role(client):
    page = client.get("/").text
    assert "you are Eskil Holmgard, advisor" in page
    assert client.get("/people").status_code == 403
    answer = client.post("/play", data={"role": "owner", "back": "/people"})
    assert answer.location == "/people" and client.get("/people").status_code == 200
    assert client.post("/play", data={"role": "king"}).status_code == 404


def test_the_demos_roles_are_nothing_in_a_real_shop(enter):
    assert enter("reader").post("/play", data={"role": "owner"}).status_code == 404


def test_passwords_are_kept_as_argon2_and_never_twice_alike():
    one, two = (passwords.kept(WORD, "x", "y") for _ in range(2))
    assert one.startswith("$argon2id$") and one != two
    assert passwords.is_right(WORD, one) and not passwords.is_right(WORD, "")
    assert not passwords.is_right(WORD, "damaged")
