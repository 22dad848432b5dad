"""The shop's settings and backups: typed, checked, noted, and used where they are said to be."""

import io
import re
from dataclasses import fields, replace

import pytest
from PIL import Image

from jolvek.store import backups, trail
from jolvek.store import shop as store
from jolvek.store.shop import Shop
from tests.web.steps import Forms

MINE = {
    "name": "Kelp & Oar",
    "address": "Quay 4\nMerrel",
    "phone": "555 020",
    "mail": "quay@kelp.example",
    "tax_number": "TX 77",
    "currency": "NOK",
    "fitting_rate": "80",
    "wiring_rate": "90",
    "tax_rates": "25; 12",
    "language": "German",
    "time_zone": "Europe/Oslo",
    "units": "mph, ft, lb",
    "reserve_school": "hour",
    "season_from": "11",
    "season_to": "2",
    "intake": "1",
    "opening": "Dear customer,",
    "closing": "Fair winds.",
    "terms": "Thirty days.",
    "thanks": "We call.",
}


@pytest.fixture
def owner(fitted):
    fitted.post("/play", data={"role": "owner"})
    return fitted


def form(client):
    return Forms(client.get("/settings").text).forms


def test_every_setting_has_its_entry_and_is_kept(owner, conn):
    page = owner.get("/settings").text
    for f in fields(Shop):
        assert f'name="{f.name}"' in page, f.name
    assert owner.post("/settings", data=MINE).status_code == 303
    kept = store.load(conn, {"intake": True})  # as the demo has it
    assert (kept.name, kept.tax_rates, kept.season_from, kept.intake) == (
        "Kelp & Oar",
        (25.0, 12.0),
        11,
        True,
    )
    assert not kept.tax_included  # its box was not ticked
    rows = [s.detail for s in trail.all_of(conn) if s.action == "settings changed"]
    assert len(rows) == 1 and "currency" in rows[0] and "name" in rows[0]
    owner.post("/settings", data=MINE)
    assert len([s for s in trail.all_of(conn) if s.action == "settings changed"]) == 1


def test_each_setting_is_used(owner, client):
    owner.post("/settings", data=MINE)
    offer = owner.get("/enquiry/2/offer").text
    rows = [
        "Kelp &amp; Oar",
        "Quay 4",
        "555 020",
        "quay@kelp.example",
        "TX 77",
        "NOK",
        "Dear customer,",
        "Fair winds.",
        "Thirty days.",
        "dazu Steuer von 25",  # screens speak as the shop writes its dates
        "Anbau",
        "mph",
        " ft",
    ]
    assert [text for text in rows if text not in offer] == []
    assert re.search(
        r"\d{1,2}\. (Januar|Februar|März|April|Mai|Juni|Juli|August|September|Oktober"
        r"|November|Dezember) \d{4}",
        offer,
    )
    made = owner.post(
        "/keep",
        data={"family": "kayak", "length": "12", "people": "1", "speed": "3", "distance": "4"},
    ).location
    number = re.search(r"/enquiry/(\d+)/", made).group(1)
    waters = Forms(owner.get(f"/enquiry/{number}/waters").text).by_id["station-form"]["fields"]
    assert waters["date"][5:7] in ("11", "12", "01", "02")
    assert 'value="hour"' in owner.get(f"/enquiry/{number}/waters").text.split("checked")[0][-120:]
    assert "We call." in owner.get("/ask/thanks").text


REFUSED = [
    ({"currency": "XYZW"}, "at most 3 characters"),
    ({"currency": "QQQ"}, "as EUR, NOK or USD"),
    ({"time_zone": "Mars/Dome"}, "a name as Europe/Oslo"),
    ({"fitting_rate": "-1"}, "0 to 10000"),
    ({"fitting_rate": "much"}, "much"),
    ({"tax_rates": "25; 99"}, "0 to 50"),
    ({"tax_rates": "1;2;3;4;5;6;7"}, "at most 6"),
    ({"season_from": "13"}, "1 to 12"),
    ({"season_from": "4.5"}, "a whole number"),
    ({"units": "furlongs"}, "one of"),
    ({"name": ""}, "a name"),
]


@pytest.mark.parametrize(("change", "told"), REFUSED, ids=[str(c) for c, _ in REFUSED])
def test_a_refused_setting_is_told_and_the_others_are_kept(owner, conn, change, told):
    answer = owner.post("/settings", data=MINE | change)
    assert answer.status_code == 422 and told in answer.text
    key = next(iter(change))
    assert getattr(store.load(conn, {}), key) == getattr(Shop(), key)
    assert store.load(conn, {}).terms == "Thirty days."


def test_a_setting_that_an_older_version_cannot_read_does_not_shut_the_shop(owner, conn):
    rows = (
        ("season_from", '{"format": "jolvek-setting", "version": 1, "value": 99}'),
        ("gone", "1"),
        ("tax_rates", '{"format": "x", "version": 9, "value": 1}'),
    )
    for row in rows:
        conn.execute("INSERT INTO setting (key, value) VALUES (?, ?)", row)
    assert owner.get("/settings").status_code == owner.get("/enquiry/2/offer").status_code == 200


def test_a_logo_stands_on_the_offer_and_comes_off(owner):
    out = io.BytesIO()
    Image.new("RGB", (80, 40), "teal").save(out, "PNG")
    data = {"logo": (io.BytesIO(out.getvalue()), "l.png")}
    assert owner.post("/settings/logo", data=data).status_code == 303
    assert 'src="/logo"' in owner.get("/enquiry/2/offer").text
    assert owner.get("/logo").mimetype == "image/jpeg"
    bad = owner.post("/settings/logo", data={"logo": (io.BytesIO(b"x"), "l.png")})
    assert bad.status_code == 422 and "not a PNG or JPEG" in bad.text
    owner.post("/settings/logo", data={"remove": "1"})
    assert owner.get("/logo").status_code == 404


def test_the_owner_backs_up_sees_it_and_takes_it_away(owner, app, conn):
    assert "None yet" in owner.get("/backups").text
    owner.post("/backups/make")
    page = owner.get("/backups").text
    name = re.search(r"/backups/(jolvek-[\d-]+\.zip)", page).group(1)
    assert "The last is of" in page and "are whole" in page
    got = owner.get(f"/backups/{name}")
    assert got.data[:2] == b"PK"
    steps = [s.action for s in trail.all_of(conn)]
    assert {"backup made", "backup downloaded"} <= set(steps)
    for path in ("/backups/jolvek.db", "/backups/..%2fjolvek.db", "/backups/none.zip"):
        assert owner.get(path).status_code == 404
    assert backups.check(app.config["SETTINGS"].data_dir).problems == ()


def test_seasons_wrap_the_year():
    winter = replace(Shop(), season_from=11, season_to=2)
    from datetime import date

    assert winter.day_of_season(date(2026, 6, 1)) == "2026-11-01"
    assert Shop().day_of_season(date(2026, 2, 28)) == "2026-04-01"
