"""The edge: hosts, proxies, headers, files by their hash, long lists, the cost of one request."""

import importlib.util
import json
import logging
import re
import sys
import time
from dataclasses import replace
from shutil import copyfile

import pytest

from jolvek import demo
from jolvek.cli.shop import LATE, read_late
from jolvek.core.day.stepped import sail_out
from jolvek.core.enquiry.need import Leg
from jolvek.core.fit.fitted import sample_fitted
from jolvek.store import backups, db, enquiries, shelf, versions
from jolvek.web import create_app, edge
from jolvek.web.settings import Settings
from tests.web.steps import boat_form


@pytest.mark.parametrize("host", ["evil.example", "127.0.0.1.evil.example", "jolvek.invalid:8642"])
def test_a_host_that_is_not_ones_own_is_refused(client, host):
    assert client.get("/health", headers={"Host": host}).status_code == 400
    for own in ("localhost", "127.0.0.1:8642"):
        assert client.get("/health", headers={"Host": own}).status_code == 200


def test_hosts_and_proxies_are_those_that_were_set(tmp_path):
    app = create_app(Settings(tmp_path, "s", hosts="shop.example, boats.example", proxies=1))
    values = {
        "Host": "shop.example",
        "X-Forwarded-For": "203.0.113.9",
        "X-Forwarded-Proto": "https",
    }
    answer = app.test_client().get("/health", headers=values)
    assert answer.status_code == 200 and "Strict-Transport-Security" in answer.headers
    bare = create_app(Settings(tmp_path, "s", hosts="shop.example")).test_client()
    assert "Strict-Transport-Security" not in bare.get("/health", headers=values).headers
    assert oct(tmp_path.stat().st_mode)[-3:]


@pytest.mark.parametrize("path", ["/", "/enquiry/2/boat", "/nothing", "/health", "/ask"])
def test_every_answer_carries_its_headers(client, path):
    headers = client.get(path).headers
    assert {k: headers[k] for k in edge.HEADERS} == edge.HEADERS
    assert "unsafe" not in headers["Content-Security-Policy"]
    assert headers["Cache-Control"] == "no-store" and len(headers["X-Request-Id"]) == 16
    assert "HX-Request" in headers["Vary"]


def test_files_are_asked_for_by_their_hash_and_kept_for_ever(client):
    page = client.get("/").text
    address = page.split('href="/static/app.css')[1].split('"')[0]
    assert address.startswith("?v=") and page.count("?v=") > 10
    plain = [x for x in re.findall(r"/static/[^\"]+", page) if "?v=" not in x]
    assert all("/vendor/fonts/" in x for x in plain)  # named without by the style sheet too
    with client.get(f"/static/app.css{address}") as now:
        assert "immutable" in now.headers["Cache-Control"]
    for other in ("", "?v=0000"):
        with client.get(f"/static/app.css{other}") as old:
            assert "immutable" not in old.headers["Cache-Control"]


def test_the_log_has_a_line_for_each_request_and_nothing_typed(client, caplog):
    with caplog.at_level(logging.INFO, logger="jolvek"):
        client.get("/find?q=secret+words")
        client.get("/static/app.css").close()
    lines = [json.loads(r.message) for r in caplog.records if r.name == "jolvek"]
    assert len(lines) == 1 and "secret" not in caplog.text
    assert (lines[0]["path"], lines[0]["status"], lines[0]["who"]) == (
        "/find",
        200,
        "Eskil Holmgard",
    )


def test_a_fault_is_logged_with_its_path_and_user_and_shows_no_trace(app, client, caplog, conn):
    conn.execute("DROP TABLE enquiry_find")
    answer = client.get("/find?q=x")
    assert answer.status_code == 500 and "Traceback" not in answer.text
    assert "no such table" not in answer.text
    assert "GET /find by Eskil Holmgard" in caplog.text and "no such table" in caplog.text


def test_a_damaged_database_answers_by_a_page(app, client, conn):
    client.get("/")
    path = app.config["SETTINGS"].database
    conn.close()
    for part in path.parent.glob("jolvek.db-*"):
        part.unlink()
    path.write_bytes(b"damaged " * 1000)
    for where in ("/", "/health", "/enquiry/2/boat", "/sign-in", "/ask"):
        answer = client.get(where)
        assert answer.status_code in (500, 503) and "Something went wrong" in answer.text, where


def test_long_lists_come_page_by_page(client, conn):
    one = demo.enquiries()[0]
    for i in range(120):
        at = f"2026-10-01T00:{i // 60:02d}:{i % 60:02d}"
        enquiries.add(conn, replace(one, title=f"Boat {i:03d}"), at)
    first = client.get("/").text
    assert first.count("<li>") < 140 and "skip=100" in first and "Boat 119" in first
    second = client.get("/?skip=100").text
    assert "Boat 000" in second and "Boat 119" not in second and "Newer" in second
    assert client.get("/?skip=-5").status_code == client.get("/?skip=9e99").status_code == 200
    motor = demo.shelf().motors[0]
    many = [("motors", replace(motor, id=f"m{i}")) for i in range(230)]
    shelf.change(conn, many, "many", "2026-11-26T08:00:00")
    page = client.get("/catalogue/motors?by=price&q=m")
    assert page.text.count("<tr") < 215 and "skip=200" in page.text and "q=m" in page.text
    assert "Newer" in client.get("/catalogue/motors?q=m&skip=200").text


def test_no_day_takes_more_than_some_thousand_steps():
    f = sample_fitted()
    holds = tuple(Leg(f"l{i}", 1.5, 100.0, None, 0.0, i * 0.5, hold_s=432_000.0) for i in range(24))
    slow = tuple(Leg(f"l{i}", 0.2, 40_000.0, None, 0.17) for i in range(24))
    for legs in (holds, slow):
        need = replace(f.need, day=replace(f.need.day.with_legs(legs), hotel_w=0.0))
        v = sail_out(replace(f, need=need), sun_at=lambda _hour: 3000.0)
        assert len(v.soc) < 9_000  # 170 000 it was, and half a minute for the page
        assert v.balance < 1e-3


@pytest.mark.parametrize(
    ("pragma", "told", "code"),
    [
        ("max_page_count = 1", "The disk is full", 507),
        ("query_only = ON", "cannot be written just now", 503),
        ("busy_timeout = 50", "holds the data just now", 503),
    ],
)
def test_a_database_that_takes_no_change_says_so_and_keeps_what_it_has(
    client, conn, monkeypatch, pragma, told, code
):
    client.get("/")
    before = enquiries.get(conn, 2)
    if "busy" in pragma:
        conn.execute("BEGIN IMMEDIATE")  # somebody who never ends
    usual = db.connect

    def limited(path):
        opened = usual(path)
        opened.execute(f"PRAGMA {pragma}")
        return opened

    monkeypatch.setattr(db, "connect", limited)
    note = {"note": "x" * 4000, "title": "Other"}
    answer = client.post("/enquiry/2/boat", data=boat_form(client, 2) | note)
    assert answer.status_code == code and told in answer.text
    assert "This change was not saved" in answer.text
    assert client.get("/enquiry/2/boat").status_code == 200
    monkeypatch.undo()
    if conn.in_transaction:
        conn.execute("ROLLBACK")
    assert enquiries.get(conn, 2) == before
    assert client.post("/enquiry/2/boat", data=boat_form(client, 2) | note).status_code == 303


def test_a_clock_set_back_loses_no_save(client, conn):
    first = enquiries.change(conn, 2, lambda e: replace(e, title="A"), "2026-11-26T08:00:00")
    enquiries.change(conn, 2, lambda e: replace(e, note="B"), "2020-01-01T00:00:00")
    # a form that was filled from the first, sent after the clock went back
    seen = (first.changed_at, "page-1")
    done = enquiries.change(conn, 2, lambda e: replace(e, customer="C"), "2019-01-01", *seen)
    assert (done.enquiry.title, done.enquiry.note, done.enquiry.customer) == ("A", "B", "C")
    rows = [[c.mine for c in v.changed] for v in versions.of_enquiry(conn, 2)]
    assert rows[:3] == [["C"], ["B"], ["A"]]


def test_it_backs_itself_up_while_it_serves(tmp_path, filled):
    copyfile(filled, tmp_path / "jolvek.db")
    with edge.daily(Settings(tmp_path, "s")):
        until = time.monotonic() + 20
        while not backups.kept(tmp_path) and time.monotonic() < until:
            time.sleep(0.02)
    assert len(backups.kept(tmp_path)) == 1
    with edge.daily(Settings(tmp_path, "s")):
        time.sleep(0.1)
    assert len(backups.kept(tmp_path)) == 1  # once a day
    with edge.daily(Settings(tmp_path / "demo", "s", demo=True)):
        pass
    assert not (tmp_path / "demo").exists()


def test_what_few_pages_need_is_read_after_the_start_and_a_lack_of_it_stops_nothing():
    read_late(("not_there.at_all", "xml.sax.saxutils"))
    assert "xml.sax.saxutils" in sys.modules
    assert all(importlib.util.find_spec(name) for name in LATE)


def test_addresses_of_earlier_versions_lead_on(client):
    for old, new in (("/shelf/", "/catalogue/"), ("/shelf/motors?q=x", "/catalogue/motors?q=x")):
        answer = client.get(old)
        assert (answer.status_code, answer.headers["Location"]) == (301, new)
    assert client.get("/shelf/motors", follow_redirects=True).status_code == 200
