"""A shop packed and taken in elsewhere is the same shop; its tables read back in other programs;
its API says what the document says.
"""

import csv
import io
import json
import zipfile

import jsonschema
import pytest
import vobject
from icalendar import Calendar
from openapi_spec_validator import validate
from openpyxl import load_workbook

from jolvek import demo
from jolvek.core.job.parts import total
from jolvek.formats import enquiry_file, openapi, setup_file
from jolvek.store import db, enquiries, intake, own_gear, setups, trail
from jolvek.web import create_app
from jolvek.web.settings import Settings
from tests.web.desk.test_ask import picture

AT = "2026-11-26T08:00:00"


@pytest.fixture
def owner(fitted, conn):
    fitted.post("/play", data={"role": "owner"})
    conn.execute(
        "UPDATE enquiry SET phone = '555 010', mail = 'a@b.example', address = 'Quay 4'"
        " WHERE id = 2"
    )
    conn.execute("UPDATE enquiry SET stage = 'ordered' WHERE id = 3")
    return fitted


def shops(conn):
    """What a shop holds, as its own files say it, without numbers and times."""
    out = []
    for (number,) in conn.execute("SELECT id FROM enquiry ORDER BY id").fetchall():
        stored = enquiries.get(conn, number)
        pinned = [
            (p.key, total(p.parts), total(p.extras), p.chosen, p.fitting)
            for p in setups.of_enquiry(conn, number)
        ]
        own = [k.gear for k in own_gear.of_enquiry(conn, number)]
        out.append((stored.enquiry, stored.stage, stored.archived, pinned, own))
    return out


def test_a_packed_shop_taken_in_elsewhere_is_the_same(owner, conn, tmp_path_factory):
    owner.post(
        "/enquiry/2/own",
        data={
            "kind": "batteries",
            "name": "Old",
            "voltage": "12",
            "capacity": "80",
            "mass": "20",
            "chemistry": "agm",
        },
    )
    owner.post("/enquiry/2/boat/photo", data={"photo": (picture(), "a.png")})
    owner.post("/enquiry/4/archive")
    body = owner.get("/exchange/shop.zip").data
    folder = tmp_path_factory.mktemp("other")
    other = create_app(Settings(folder, "s", demo=True))
    other.config["WTF_CSRF_ENABLED"] = False
    client = other.test_client()
    client.post("/play", data={"role": "owner"})
    page = client.post("/exchange/shop", data={"file": (io.BytesIO(body), "shop.zip")}).text
    assert "6 enquiries" in page and "1 photos" in page and "Left out" not in page
    there = db.connect(folder / "jolvek.db")
    assert shops(there) == shops(conn)
    assert len(intake.photos_of(there, 2)) == 1
    assert client.get("/catalogue/export.json").json == owner.get("/catalogue/export.json").json
    assert "data taken in" in [s.action for s in trail.all_of(there)]
    there.close()


def packed(**files):
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w") as z:
        for name, text in files.items():
            z.writestr(name.replace("__", "/"), text)
    return {"file": (io.BytesIO(out.getvalue()), "shop.zip")}


def test_what_cannot_be_read_is_left_out_and_told(owner, conn):
    whole = enquiry_file.write(demo.enquiries()[0])
    setup = {"parts": [{"kind": "motor", "quantity": 1, "product": {"id": "x"}}]}
    files = {
        "enquiries__1.json": json.dumps(whole),
        "enquiries__2.json": "{",
        "enquiries__3.json": json.dumps(whole | {"setups": [setup]}),
        "enquiries__4.json": json.dumps(whole | {"photos": ["gone.jpg"]}),
    }
    before = conn.execute("SELECT count(*) FROM enquiry").fetchone()[0]
    page = owner.post("/exchange/shop", data=packed(**files)).text
    assert "Taken in: 2 enquiries" in page.replace("\n", " ")
    for result in ("enquiries/2.json", "enquiries/3.json", "photos/gone.jpg is missing"):
        assert result in page
    assert conn.execute("SELECT count(*) FROM enquiry").fetchone()[0] == before + 2
    for data, result in (
        (packed(readme="x"), "neither shelf.json"),
        ({}, "choose a packed shop"),
        ({"file": (io.BytesIO(b"no zip"), "x.zip")}, "no zip that can be read"),
    ):
        answer = owner.post("/exchange/shop", data=data)
        assert answer.status_code == 422 and result in answer.text


def test_one_enquiry_travels_with_its_setups(owner, conn):
    text = owner.get("/enquiry/2/enquiry.json").data
    owner.post("/open", data={"file": (io.BytesIO(text), "e.json")})
    made = conn.execute("SELECT max(id) FROM enquiry").fetchone()[0]
    mine, theirs = (setups.of_enquiry(conn, n) for n in (2, made))
    assert [p.key for p in mine] == [p.key for p in theirs] and len(mine) == 2
    assert [p.chosen for p in mine] == [p.chosen for p in theirs]


def test_customers_enquiries_and_dates_read_back_elsewhere(owner, conn):
    cards = list(vobject.readComponents(owner.get("/exchange/customers.vcf").text))
    assert len(cards) == 6
    one = next(c for c in cards if hasattr(c, "tel"))
    assert (one.tel.value, one.email.value, one.adr.value.street) == (
        "555 010",
        "a@b.example",
        "Quay 4",
    )
    rows = list(csv.DictReader(io.StringIO(owner.get("/exchange/enquiries.csv").text)))
    assert len(rows) == 6 and rows[2]["stage"] == "ordered"
    book = load_workbook(io.BytesIO(owner.get("/exchange/enquiries.xlsx").data))
    assert book.active.max_row == 7
    events = Calendar.from_ical(owner.get("/exchange/dates.ics").data).walk("VEVENT")
    need = enquiries.get(conn, 3).need
    assert [str(e["dtstart"].dt) for e in events] == [need.day.date]
    assert owner.get("/exchange/customers.pdf").status_code == 404
    took = [s.detail for s in trail.all_of(conn) if s.action == "data taken out"]
    assert {"customers.vcf", "enquiries.csv", "dates.ics"} <= set(took)


@pytest.fixture
def ask(owner, app):
    page = owner.post("/keys/make", data={"name": "our site"}).text
    key = page.split('class="mono">')[1].split("<")[0].strip()
    app.config["WTF_CSRF_ENABLED"] = True  # a key needs no token
    client = app.test_client()

    def asked(path, body, key=key, **more):
        text = body if isinstance(body, str) else json.dumps(body)
        head = {"Authorization": f"Bearer {key}"} if key else {}
        return client.post(f"/api/v1{path}", data=text, headers=head, **more)

    return asked


SETUP = {
    "format": "jolvek-setup",
    "version": 1,
    "hull": {"family": "kayak", "length_m": 3.7, "beam_m": 0.78, "mass_kg": 34},
    "load": {"people": 1, "people_kg": 85},
    "motor": {"input_power_w": 500},
    "ask": {"powers_w": [100]},
}


def test_the_document_is_valid_and_says_what_there_is(client, app):
    document = client.get("/api/v1/openapi.json").json
    validate(document)
    posts = {
        r.rule.removeprefix(openapi.PREFIX)
        for r in app.url_map.iter_rules()
        if r.endpoint.startswith("api.") and "POST" in r.methods
    }
    assert set(document["paths"]) == posts


def test_answers_are_those_of_the_commands_and_as_the_document_says(ask, client):
    kinds = client.get("/api/v1/openapi.json").json["components"]["schemas"]
    result = ask("/predict", SETUP)
    assert result.json == json.loads(
        json.dumps(setup_file.answer(setup_file.read(json.dumps(SETUP))))
    )
    jsonschema.validate(result.json, kinds["Prediction"])
    matched = ask("/match?most=3", enquiry_file.write(demo.enquiries()[0]))
    jsonschema.validate(matched.json, kinds["Matched"])
    assert len(matched.json["setups"]) == 3
    jsonschema.validate(SETUP, kinds["Setup"])


def test_without_a_good_key_nothing_is_answered(ask, owner, app, conn):
    for key in ("", "jk_wrong"):
        answer = ask("/predict", SETUP, key=key)
        assert answer.status_code == 401 and "key" in answer.json["error"]
    assert ask("/predict", "{").status_code == 400
    assert (
        "hull.length_m"
        in ask("/predict", SETUP | {"hull": {**SETUP["hull"], "length_m": -1}}).json["error"]
    )
    assert ask("/match?most=0", "{}").status_code == 400
    app.config["WTF_CSRF_ENABLED"] = False
    token = conn.execute("SELECT token FROM api_key").fetchone()["token"]
    owner.post("/keys/drop", data={"token": token})
    assert ask("/predict", SETUP).status_code == 401
    assert owner.post("/keys/make", data={"name": ""}).status_code == 422


def test_a_key_may_ask_so_often_and_no_more(ask):
    codes = [ask("/predict", "{").status_code for _ in range(openapi.PER_MINUTE + 2)]
    assert codes[0] == 400 and codes[-1] == 429


def test_the_apis_own_refusals_are_sentences_too(ask, client):
    kinds = client.get("/api/v1/openapi.json").json["components"]["schemas"]
    large = ask("/predict", "x" * 1_100_000)
    codes = [ask("/predict", "{") for _ in range(openapi.PER_MINUTE + 1)]
    for answer, code in ((large, 413), (codes[-1], 429), (ask("/nothing", "{}"), 404)):
        assert answer.status_code == code
        jsonschema.validate(answer.json, kinds["Refusal"])
