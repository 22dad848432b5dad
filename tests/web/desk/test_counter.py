"""Counter by client: quick start, files, copies, stages; refusals come back at their field with
what was typed.
"""

import html
import io
import json
import re

import pytest

from jolvek.core.hydro.families import FAMILIES
from jolvek.formats import enquiry_file
from jolvek.store import enquiries as store
from tests.web.steps import pin

QUICK = {
    "family": "inflatable_air",
    "length": "2.9 m",
    "people": "2",
    "speed": "3.5",
    "distance": "5",
}


def test_quick_start_answers_in_power_and_energy(client):
    text = client.get("/", query_string=QUICK).text
    assert (
        re.search(r"takes about <strong>\d+\xa0W</strong>", text)
        and "kWh</strong>" in text
        and "From the catalogue" in text
    )


def test_quick_start_answers_htmx_with_its_fragment_alone(client):
    text = client.get("/", query_string=QUICK, headers={"HX-Request": "true"}).text
    assert text.lstrip().startswith('<div id="quick-answer"') and "<html" not in text


def test_what_the_catalogue_has_follows_the_answer_with_the_same_words(client):
    part = client.get("/", query_string=QUICK, headers={"HX-Request": "true"}).text
    assert "From the catalogue" not in part
    asked = html.unescape(re.search(r'hx-get="(/from-catalogue[^"]+)"', part)[1])
    line = client.get(asked, headers={"HX-Request": "true"}).text
    whole = client.get("/", query_string=QUICK).text
    assert "From the catalogue" in line and " ".join(line.split()) in " ".join(whole.split())


def test_the_catalogue_asked_with_what_is_no_length_says_so(client):
    answer = client.get("/from-catalogue", query_string=QUICK | {"length": "long"})
    assert answer.status_code == 422 and "read “long”" in answer.text


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"length": "abc"}, "read “abc”"),
        ({"length": "400 m"}, "allowed is 1.50"),
        ({"people": "-1"}, "allowed is 0"),
        ({"length": ""}, "needed"),
        ({"family": "submarine"}, "read “submarine”"),
        ({"family": "kayak", "length": "14 m"}, "2.4 to 8 m for this kind of boat (Kayak)"),
        ({"speed": "fast"}, "read “fast”"),
        ({"people": "2.5"}, "whole number"),
    ],
)
def test_a_wrong_quick_start_comes_back_with_422_and_what_was_typed(client, change, says):
    for answer in (
        client.get("/", query_string={**QUICK, **change}),
        client.post("/keep", data={**QUICK, **change}),
    ):
        assert answer.status_code == 422 and says in answer.text
        for name, value in {**QUICK, **change}.items():
            if name != "family" and value:
                assert f'value="{value}"' in answer.text


def test_an_empty_quick_start_names_every_field(client):
    answer = client.post("/keep", data={"csrf_token": "any"})
    assert answer.status_code == 422 and answer.text.count("needed") >= 4


def test_keeping_makes_an_enquiry_with_that_boat(client, conn):
    answer = client.post("/keep", data=QUICK)
    assert answer.status_code == 303
    stored = store.get(conn, int(answer.location.split("/")[2]))
    assert stored.need.hull.length_m == 2.9 and stored.need.load.people == 2


def test_an_enquiry_file_opens_and_comes_out_the_same(client, enquiries):
    data = json.dumps(enquiry_file.write(enquiries[0])).encode()
    answer = client.post("/open", data={"file": (io.BytesIO(data), "e.json")})
    number = int(answer.location.split("/")[2])
    assert enquiry_file.read(client.get(f"/enquiry/{number}/enquiry.json").data) == enquiries[0]


@pytest.mark.parametrize(
    ("content", "says"),
    [
        (b"not json", "not JSON"),
        (b"{}", "format"),
        (b"\xff\xfe\x00", "UTF-8"),
        (b"", "not JSON"),
        (b"x" * 1_200_000, "larger than 1 MB"),
    ],
    ids=["text", "empty object", "bytes", "empty", "oversize"],
)
def test_a_wrong_file_comes_back_with_422_at_the_field(client, content, says):
    answer = client.post("/open", data={"file": (io.BytesIO(content), "e.json")})
    assert answer.status_code == 422 and re.search(rf'id="file-error">[^<]*{says}', answer.text)


def test_enquiries_are_copied_put_away_and_taken_out_again(client, conn):
    number = int(client.post("/enquiry/3/copy").location.split("/")[2])
    assert (
        store.get(conn, number).need == store.get(conn, 3).need
        and store.get(conn, number).customer == ""
    )
    client.post("/enquiry/3/archive", data={})
    text = client.get("/").text
    assert "Undo: take it out again" in text and "Archive" in text and store.get(conn, 3).archived
    client.post("/enquiry/3/archive", data={"undo": "1"})
    assert not store.get(conn, 3).archived


def test_find_looks_through_enquiries_and_products(client):
    text = client.get("/find?q=tall+her").text
    assert "Tallmarrow Heron" in text and "/catalogue/motors/item/" in text
    assert (
        "Pontoon boat for eight" in client.get("/find?q=hire").text
        and "Nothing." in client.get("/find?q=zzz").text
    )


def test_stages_move_an_enquiry_on_the_counter(client):
    pin(client)
    client.post("/enquiry/2/choose", data={"letter": "A"})
    client.post("/enquiry/2/stage", data={"stage": "offered"})
    assert "Waiting for the customer" in client.get("/").text
    assert client.post("/enquiry/2/stage", data={"stage": "eaten"}).status_code == 422


def test_another_kind_of_boat_brings_its_usual_figures_and_never_an_error(client):
    for family in FAMILIES.values():
        query = {"was": "inflatable_air", "family": family.id, "length": "2.9", "people": "2"}
        query |= {"speed": "3.5", "distance": "5"}
        answer = client.get("/", query_string=query, headers={"HX-Request": "true"})
        assert answer.status_code == 200, family.id
        if family.id != "inflatable_air":
            assert 'id="quick-entries" hx-swap-oob="true"' in answer.text
            assert f'value="{family.typical_length_m:g}"' in answer.text
            assert f'name="was" value="{family.id}"' in answer.text


def test_the_answer_survives_leaving_in_the_units_of_now(client):
    client.get("/?family=kayak&length=3.8&people=1&speed=3&distance=4")
    client.get("/catalogue/")
    back = client.get("/").text
    assert 'value="kayak" checked' in back or re.search(r'value="kayak"[^>]*checked', back)
    assert 'name="speed" value="3"' in back
    back = "/?family=kayak&length=3.8&people=1&speed=3&distance=4"
    to = client.post("/units", data={"speed": "km/h", "back": back}).headers["Location"]
    assert re.search(r'name="speed" value="5\.[56]\d*"', client.get(to).text)
    with client.session_transaction() as session:
        session["quick"] = {"family": "kayak", "length": "long"}
    assert client.get("/").status_code == 200


def test_the_answer_names_setups_of_unlike_motors(client, shelf):
    text = client.get("/").text
    result = text[text.index("From the catalogue") : text.index("Save as an enquiry")]
    named = [m.title for m in shelf.motors if f"<strong>{m.title}</strong>" in result]
    assert len(named) == len(set(named)) == 3 and "cheapest" in result
