"""What stands on no disk for others to read, in no log, and what no guess gets past."""

import json
import logging
import stat
from datetime import datetime

import pyotp
import pytest

from jolvek.core.base.errors import JolvekError
from jolvek.formats import tables
from jolvek.formats.nmea import Reading
from jolvek.store import backups, db, offers, people
from jolvek.web import settings
from jolvek.web.kit.accounts import links
from jolvek.web.kit.accounts.signing import SessionCookies
from jolvek.web.stations.trial.live import MOST_WINDOW, Live
from jolvek.web.stations.trial.sources import own_net
from tests.web.conftest import WORD


def test_no_secret_of_an_address_is_logged_or_kept_in_the_trail(shop, conn, enter, caplog):
    with shop.test_request_context():
        boat, feed = links.token("boat", 2), links.token("calendar", 0)
    invited = people.invite(conn, people.by_name(conn, "reader").id, datetime.now().astimezone())
    offer = offers.new_token()
    client = shop.test_client()
    with caplog.at_level(logging.INFO, "jolvek"):
        ways = (f"/o/{offer}", f"/o/{offer}/offer.pdf", f"/b/{boat}", f"/welcome/{invited}")
        for way in (*ways, f"/care/feed/{feed}.ics", f"/o/{offer}/none", f"/b/{boat}/none"):
            client.get(way)
        client.post(f"/welcome/{invited}", data={"password": WORD * 2, "again": WORD * 2})
    text = caplog.text + json.dumps([tuple(x) for x in conn.execute("SELECT path FROM trail")])
    for secret in (offer, boat, invited, feed):
        assert secret not in text
    assert "/o/<token>" in text and "/welcome/<token>" in text


def test_a_short_secret_is_refused_with_a_way_to_make_one(tmp_path, monkeypatch):
    for secret, good in (("x", False), ("x" * 31, False), ("x" * 32, True)):
        monkeypatch.setenv("JOLVEK_SECRET_KEY", secret)
        if good:
            assert settings.from_environment(tmp_path).secret_key == secret
        else:
            with pytest.raises(JolvekError, match="allowed are 32 and more"):
                settings.from_environment(tmp_path)


def test_what_a_shop_keeps_is_for_its_owner_alone(tmp_path, filled):
    data = tmp_path / "shop"
    data.mkdir(mode=0o755)
    (data / "jolvek.db").write_bytes(filled.read_bytes())
    (data / "jolvek.db").chmod(0o644)
    db.shut_to_others(data)
    made = backups.make(data, datetime(2026, 12, 1))
    conn = db.connect(tmp_path / "new.db")
    conn.execute("CREATE TABLE t (x)")
    conn.close()
    for path in (data / "jolvek.db", made, tmp_path / "new.db"):
        assert stat.S_IMODE(path.stat().st_mode) == 0o600, path
    for folder in (data, made.parent):
        assert stat.S_IMODE(folder.stat().st_mode) == 0o700, folder


def test_a_new_key_for_each_try_is_a_try_all_the_same(shop):
    client, codes = shop.test_client(), []
    for i in range(25):
        head = {"Authorization": f"Bearer guess-{i}"}
        codes.append(client.post("/api/v1/predict", data="{}", headers=head).status_code)
    assert codes[:20] == [401] * 20 and codes[-1] == 429


@pytest.mark.parametrize(
    "host",
    ["127.0.0.1", "::1", "169.254.169.254", "fe80::1", "0.0.0.0", "::ffff:127.0.0.1", "8.8.8.8"],
)
def test_an_instrument_is_on_the_network_and_nowhere_else(host, app):
    with app.test_request_context(), pytest.raises(JolvekError, match="allowed is host:port"):
        own_net(host, "10110")
    with app.test_request_context():
        assert own_net("192.168.4.1", "10110") == "192.168.4.1"
        assert own_net("127.0.0.1", "10110", machine=True) == "127.0.0.1"


def test_an_instrument_whose_clock_stands_still_fills_no_memory():
    live = Live(1, "x")
    for _ in range(MOST_WINDOW + 500):
        live.read(Reading(speed_m_s=2.0, time_s=100.0, power_w=None), lambda: 0.0)
    assert len(live._window) == len(live._unkept) == MOST_WINDOW


def test_the_secret_of_one_time_codes_is_in_no_cookie_and_survives_an_invitation(enter, conn, shop):
    advisor, owner = enter("advisor"), enter("owner")
    advisor.post("/account/factor", data={"do": "start"})
    me = people.by_name(conn, "advisor")
    secret = people.offered_factor(conn, me.id)
    with advisor.session_transaction() as kept:
        assert secret and secret not in json.dumps(dict(kept))
    assert secret in advisor.get("/account").text
    code = pyotp.TOTP(secret).now()
    assert advisor.post("/account/factor", data={"do": "confirm", "code": code}).status_code == 303
    way = owner.post("/people/invite", data={"person": me.id}).text
    assert people.by_name(conn, "advisor").second_factor == secret
    token = way.split("/welcome/")[1].split("<")[0]
    new = {"password": WORD * 2, "again": WORD * 2}
    assert shop.test_client().post(f"/welcome/{token}", data=new).status_code == 303
    assert people.by_name(conn, "advisor").second_factor == ""


@pytest.mark.parametrize(
    "text", ["＝1+1", "＋1", "＠SUM(A1)", "\u200b=1+1", "\u2060+1", "\u202e-1a", "\ufeff\u00a0=1"]
)
def test_full_width_and_unseen_signs_of_a_formula_are_led_by_an_apostrophe(text):
    assert tables.as_csv([[text]]).startswith("'")


def test_a_clock_that_is_set_back_signs_nobody_out(shop, enter, monkeypatch):
    client = enter("advisor")
    assert client.get("/").status_code == 200
    import itsdangerous.timed

    usual = itsdangerous.timed.time.time
    monkeypatch.setattr(itsdangerous.timed.time, "time", lambda: usual() - 7200)
    assert client.get("/").status_code == 200
    assert isinstance(shop.session_interface, SessionCookies)


def test_the_api_says_everything_in_json(shop):
    client = shop.test_client()
    for way, code in (("/api/v1/none", 404), ("/api/none", 404)):
        answer = client.post(way, data="{}")
        assert answer.status_code == code and answer.is_json and answer.json["error"]
    strange = client.get("/api/v1/openapi.json", headers={"Host": "evil.example"})
    assert strange.status_code == 400 and strange.is_json
