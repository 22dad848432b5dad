"""Where nothing can be written, or a row is past today's limits, pages open and say what is wrong;
what strangers may send is bounded for each offer, boat and shop, from wherever they send it.
"""

import sqlite3
from datetime import UTC, datetime, timedelta

import pytest

from jolvek.store import db, people
from jolvek.web import templating
from jolvek.web.kit.accounts import links, signing
from jolvek.web.public.ask import page as ask
from tests.web.steps import STATIONS, boat_form

WAYS = ("/", "/care", "/catalogue/", "/rules", "/care/fleet", "/health")


@pytest.fixture
def desk(client, conn, working):
    working.backup(conn)
    client.get("/")  # somebody is in
    return client


@pytest.mark.parametrize(
    ("why", "says"),
    [
        ("attempt to write a readonly database", "can be read"),
        ("unable to open database file", "can be read"),
        ("database or disk is full", "The disk is full"),
    ],
)
def test_reading_goes_on_where_nothing_can_be_written(desk, monkeypatch, why, says):
    def broken(_path):
        raise sqlite3.OperationalError(why)

    monkeypatch.setattr(db, "connect", broken)
    for way in (*WAYS, *(f"/enquiry/2/{s}" for s in STATIONS)):
        answer = desk.get(way)
        assert answer.status_code == (503 if way == "/health" else 200), way
        assert says in answer.text
    assert desk.get("/health").json["status"] == "read only"
    refused = desk.post("/enquiry/2/boat", data=boat_form(desk) | {"title": "Other"})
    assert refused.status_code in (503, 507) and "not saved" in refused.text


def test_a_session_is_read_though_its_use_cannot_be_noted(desk, conn, monkeypatch):
    before = (datetime.now(UTC) - people.SEEN_EVERY - timedelta(minutes=1)).isoformat()
    conn.execute("UPDATE signed_in SET seen_at = ?", (before,))
    usual = db.connect

    def limited(path):
        opened = usual(path)
        opened.execute("PRAGMA query_only = ON")
        return opened

    monkeypatch.setattr(db, "connect", limited)
    answer = desk.get("/enquiry/2/boat")
    assert answer.status_code == 200
    assert signing.DEMO_PEOPLE["advisor"] in answer.text


def test_templates_are_compiled_where_none_can_be_kept(tmp_path):
    cache = templating.Compiled(str(tmp_path / "gone"), "%s.cache")

    class Bucket:
        key = "a"

        def write_bytecode(self, _file):
            raise OSError("No space left on device")

    cache.dump_bytecode(Bucket())  # raises nothing


def test_a_row_past_its_limit_is_cut_and_keeps_no_page_from_opening(desk, conn):
    conn.execute(
        "INSERT INTO spare (enquiry_id, what, good_to, who, typed_at) VALUES (14, ?, '2027-01-01',"
        " 'x', 'x')",
        ("flare " * 40,),
    )
    conn.execute("UPDATE fault SET why = ? WHERE in_service = 1", ("long " * 400,))
    for way in ("/care", "/enquiry/14/aftercare", "/", "/care/figures"):
        assert desk.get(way).status_code == 200
    assert "flare flare" in desk.get("/enquiry/14/aftercare").text


def from_anywhere(client, n, send):
    """Codes of n sends, each from another address."""
    return [
        send(client, {"REMOTE_ADDR": f"10.1.{i // 250}.{i % 250}"}).status_code for i in range(n)
    ]


def test_one_boat_takes_no_more_faults_than_its_owner_tells(desk, app):
    with app.test_request_context():
        way = f"/b/{links.token('boat', 14)}/fault"

    def send(client, where):
        return client.post(way, data={"kind": "slow", "why": str(where)}, environ_base=where)

    codes = from_anywhere(app.test_client(), 20, send)
    assert codes == [303] * 12 + [429] * 8


def test_the_shops_own_page_takes_no_flood_from_many_addresses(desk, app, monkeypatch):
    monkeypatch.setattr(ask, "_kept", lambda *_: ("", 303))
    monkeypatch.setattr(ask.first_word_form, "read", lambda *_: ("said", {}))
    form = {"family": "kayak", "length": "3.7", "people": "1", "speed": "3", "distance": "4"}
    form |= {"name": "Runa", "mail": "runa@vik.example", "phone": "1"}

    def send(client, where):
        return client.post("/ask", data=form, environ_base=where)

    codes = from_anywhere(app.test_client(), 45, send)
    assert codes[:40] == [303] * 40 and codes[-1] == 429
