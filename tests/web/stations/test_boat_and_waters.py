"""Boat and Waters by client: kept in SI, refused at the field, never lost, never overwritten."""

import io
import re
from dataclasses import replace

import pytest
from PIL import Image

from jolvek.store import enquiries as store
from jolvek.web.kit import learning
from tests.web.steps import boat_form, picture


@pytest.mark.parametrize(
    ("field", "value", "says"),
    [
        ("length", "long", "read “long”"),
        ("mass", "-20", "read “-20”"),
        ("length", "400 m", "allowed is"),
        ("beam", "", "needed"),
        ("people", "61", "allowed is 0"),
        ("deadrise", "140", "allowed is"),
        ("mass", "38 m", "expected a mass"),
        ("bay1_length", "9 m", "allowed is"),
    ],
)
def test_a_wrong_boat_comes_back_with_422_the_message_and_everything_typed(
    client, conn, field, value, says
):
    before = store.get(conn, 2)
    form = {**boat_form(client), "title": "typed title", "gear": "77 lb", field: value}
    answer = client.post("/enquiry/2/boat", data=form)
    assert answer.status_code == 422
    block = re.search(
        rf'name="{field}" value="{re.escape(value)}".*?</div>\s*<p class="wrong"[^>]*>([^<]*)',
        answer.text,
        re.S,
    )
    assert block and says in block[1].replace("&#34;", '"')
    assert 'value="77 lb"' in answer.text and 'value="typed title"' in answer.text
    after = store.get(conn, 2)
    assert after.title == "typed title" and after.need.load.gear_kg == pytest.approx(
        34.93, abs=0.01
    )
    assert replace(after.need, load=before.need.load) == before.need  # the refused one stays


def test_a_right_boat_is_kept_in_si(client, conn):
    form = {
        **boat_form(client),
        "length": "11 ft 7",
        "gear": "30 lb",
        "seats": "90, 11 st",
        "model": "Skerry 29",
        "storage": "davit",
    }
    assert client.post("/enquiry/2/boat", data=form).status_code == 303
    need = store.get(conn, 2).need
    assert need.hull.length_m == pytest.approx(3.5306) and need.load.gear_kg == pytest.approx(
        13.608, abs=1e-3
    )
    assert (
        need.load.seat_kg == pytest.approx((90.0, 69.853), abs=1e-3)
        and len(need.site.bays) == 1
        and need.hull.max_power_w == 2200
    )
    assert store.get(conn, 2).enquiry.model == "Skerry 29"


def test_what_is_not_touched_stays_to_the_last_digit(client, conn):
    before = store.get(conn, 4).enquiry
    client.post(
        "/units",
        data={"speed": "mph", "length": "ft", "mass": "lb", "power": "hp", "distance": "mi"},
    )
    for station in ("boat", "waters"):
        assert (
            client.post(f"/enquiry/4/{station}", data=boat_form(client, 4, station)).status_code
            == 303
        )
    assert store.get(conn, 4).enquiry == before


def test_the_day_is_kept_with_its_legs(client, conn):
    form = {
        **boat_form(client, 2, "waters"),
        "speed": "7,5 km/h",
        "start": "9:30",
        "reserve_school": "thirds",
        "leg1_name": "out",
        "leg1_distance": "2 nm",
        "leg1_current": "-0.5",
        "leg1_hold": "30 min",
        "leg2_name": "home",
        "leg2_duration": "1 h",
        "leg2_speed": "3",
    }
    assert client.post("/enquiry/2/waters", data=form).status_code == 303
    day = store.get(conn, 2).need.day
    assert (
        day.start_h == 9.5
        and day.reserve == pytest.approx(1 / 3)
        and [leg.name for leg in day.legs] == ["out", "home"]
    )
    assert (
        day.legs[0].speed_m_s == pytest.approx(2.0833, abs=1e-3)
        and day.legs[0].hold_s == 1800
        and day.legs[1].duration_s == 3600
    )
    assert day.distance_m == pytest.approx(3704 + day.legs[1].metres)


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"speed": "fast"}, "read “fast”"),
        ({"start": "25"}, "allowed is"),
        ({"date": "soon"}, "2026-07-01"),
        ({"leg1_speed": "3"}, "a distance or a time"),
        ({"temperature": "90"}, "allowed is"),
    ],
)
def test_a_wrong_day_comes_back_with_422_and_what_was_typed(client, change, says):
    answer = client.post(
        "/enquiry/2/waters", data={**boat_form(client, 2, "waters"), "hotel": "33", **change}
    )
    assert answer.status_code == 422 and says in answer.text and 'value="33"' in answer.text
    assert all(f'value="{v}"' in answer.text for v in change.values())


def test_there_and_back_is_one_gesture(client, conn):
    client.post("/enquiry/2/waters/legs", data={"make": "there"})
    legs = store.get(conn, 2).need.day.legs
    assert [leg.name for leg in legs] == ["out", "home"] and legs[0].wind_m_s == -legs[1].wind_m_s
    client.post("/enquiry/2/waters/legs", data={"make": "none"})
    assert store.get(conn, 2).need.day.legs == ()


def test_the_hardest_leg_is_named(client, conn):
    form = {
        **boat_form(client, 2, "waters"),
        "leg1_name": "the way out",
        "leg1_distance": "2 nm",
        "leg1_current": "-0.5",
        "leg2_name": "the run home",
        "leg2_distance": "2 nm",
        "leg2_current": "1.2",
    }
    client.post("/enquiry/2/waters", data=form)
    assert re.search(
        r"<strong>The run home</strong> decides, against 1.2\xa0kn of current",
        client.get("/enquiry/2/waters").text,
    )


def test_an_unknown_family_and_a_kayak_of_fourteen_metres_are_refused(client):
    assert (
        "read “submarine”"
        in client.post("/enquiry/2/boat", data={**boat_form(client), "family": "submarine"}).text
    )
    answer = client.post(
        "/enquiry/2/boat", data={**boat_form(client), "family": "kayak", "length": "14 m"}
    )
    assert answer.status_code == 422 and "2.4 to 8 m for this kind of boat (Kayak)" in answer.text


def test_a_second_save_over_a_changed_enquiry_is_refused_with_what_was_typed(client, conn):
    form, other = boat_form(client), boat_form(client)
    assert client.post("/enquiry/2/boat", data={**other, "title": "first"}).status_code == 303
    answer = client.post("/enquiry/2/boat", data={**form, "title": "second"})
    assert (
        answer.status_code == 422
        and "changed in another window" in answer.text
        and 'value="second"' in answer.text
    )
    assert re.search(r"Title</th><td>first</td><td>second</td>", answer.text)
    seen = re.search(r'name="override" value="([^"]+)">\s*keep yours', answer.text)[1]
    assert (
        client.post(
            "/enquiry/2/boat", data={**form, "title": "second", "override": seen}
        ).status_code
        == 303
    )
    client.post("/enquiry/2/boat", data={**boat_form(client), "title": "first"})
    assert store.get(conn, 2).title == "first"


def test_autosave_keeps_and_says_when_and_keeps_nothing_wrong(client, conn):
    form, htmx = boat_form(client), {"HX-Request": "true"}
    answer = client.post("/enquiry/2/boat", data={**form, "gear": "120"}, headers=htmx)
    assert (
        answer.status_code == 200
        and "Saved" in answer.text
        and store.get(conn, 2).need.load.gear_kg == 120
        and "<html" not in answer.text
    )
    changed = re.search(r'name="changed" value="([^"]+)"', answer.text)[1]
    assert changed == store.get(conn, 2).changed_at
    refused = client.post(
        "/enquiry/2/boat", data={**form, "changed": changed, "gear": "much"}, headers=htmx
    )
    assert (
        refused.status_code == 422
        and "read “much”" in refused.text
        and store.get(conn, 2).need.load.gear_kg == 120
    )


def test_an_earlier_boat_of_the_model_is_a_start(client, conn):
    for number in (2, 5):
        store.change(conn, number, lambda e: replace(e, model="Skerry 29"), "2026")
    assert "Start from it" in client.get("/enquiry/5/boat").text
    client.post("/enquiry/5/boat/from", data={"other": "2"})
    assert (
        store.get(conn, 5).need.hull == store.get(conn, 2).need.hull
        and store.get(conn, 5).need.load.people == 8
    )


def test_a_photo_is_made_smaller_kept_outside_the_web_root_and_taken_off(client, conn, tmp_path):
    client.post("/enquiry/2/boat/photo", data={"photo": (picture(), "boat.png")})
    name = store.get(conn, 2).photo
    with Image.open(tmp_path / "photos" / name) as kept:
        assert kept.format == "JPEG" and kept.size == (1600, 800)
    with client.get("/enquiry/2/photo") as answer:
        assert answer.mimetype == "image/jpeg"
    client.post("/enquiry/2/boat/photo", data={"remove": "1"})
    assert store.get(conn, 2).photo == "" and not (tmp_path / "photos" / name).exists()


@pytest.mark.parametrize("content", [b"<svg/>", b"", b"\x89PNG\r\n\x1a\nbroken"])
def test_what_is_no_photo_is_refused_at_its_field(client, content):
    answer = client.post("/enquiry/2/boat/photo", data={"photo": (io.BytesIO(content), "x.png")})
    assert answer.status_code == 422 and re.search(
        r'id="photo-error">[^<]*(not a PNG or JPEG)', answer.text
    )


def test_a_planing_boat_is_sized_about_her_wished_speed(client):
    rib, tender = (
        re.findall(r"<tr[^>]*>\s*<td class=\"n\">([\d.]+)</td>", html)
        for html in (client.get(f"/enquiry/{n}/boat").text for n in (6, 2))
    )
    assert rib == ["3", "6", "9", "12.0", "15"] and tender == ["2", "3", "3.5", "5", "6"]


def test_sixty_quick_presses_of_keep_never_clash_with_the_pages_own_saving(client, conn):
    form = boat_form(client)
    for i in range(5):
        typed = form | {"gear": f"{20 + i} kg"}
        saved = client.post("/enquiry/2/boat", data=typed, headers={"HX-Request": "true"})
        assert saved.status_code == 200
        for press in range(12):  # pressed before the answer was there
            pressed = client.post("/enquiry/2/boat", data=form | {"gear": f"{20 + i + press} kg"})
            assert pressed.status_code == 303, (i, press)
    assert store.get(conn, 2).need.load.gear_kg == 20 + 4 + 11


@pytest.mark.parametrize(("station", "field"), [("boat", "gear"), ("waters", "distance")])
def test_an_answer_while_one_types_keeps_nothing_and_is_the_one_that_is_kept(
    client, conn, station, field
):
    form = boat_form(client, 3, station)
    before = store.get(conn, 3)
    typed = {**form, field: "61"}
    text = client.post(f"/enquiry/3/{station}/answer", data=typed).text
    assert store.get(conn, 3) == before
    kept = client.post(f"/enquiry/3/{station}", data=typed, headers={"HX-Request": "true"}).text
    head = re.compile(r'<h1 class="answer".*?</h1>', re.S)
    assert head.search(text)[0] == head.search(kept)[0]
    assert head.search(text)[0] not in client.get(f"/enquiry/4/{station}").text
    wrong = client.post(f"/enquiry/3/{station}/answer", data={**typed, field: "banana"})
    assert wrong.status_code == 200 and head.search(wrong.text)[0] == head.search(kept)[0]
    assert client.post(f"/enquiry/999/{station}/answer", data=typed).status_code == 404


def test_the_answer_while_one_types_is_of_the_boat_as_the_shop_has_learned_it(client, monkeypatch):
    def heavier(_conn, stored):
        need = stored.need
        heavy = replace(need, hull=replace(need.hull, mass_kg=need.hull.mass_kg + 333))
        return replace(stored, enquiry=replace(stored.enquiry, need=heavy))

    head = re.compile(r'<h1 class="answer".*?</h1>', re.S)
    form = boat_form(client, 3)
    plain = head.search(client.post("/enquiry/3/boat/answer", data=form).text)[0]
    monkeypatch.setattr(learning, "with_fleet_fit", heavier)
    taught = head.search(client.post("/enquiry/3/boat/answer", data=form).text)[0]
    assert taught == head.search(client.get("/enquiry/3/boat").text)[0] != plain


def test_a_powers_band_in_the_table_is_the_one_in_words(client):
    page = client.get("/enquiry/2/boat").text
    wanted = re.search(r'<tr class="preferred">(.*?)</tr>', page, re.S)[1]
    low, high = re.findall(r'<td class="n">([^<]*)</td>', wanted)[2].strip().split("–")
    words = re.sub(r"<[^>]+>", "", page)
    assert re.search(rf"four such boats in five take {low} to {high}\sW", words)
    assert int(low) < int(high)
