"""Pages by client: every one opens, refusals come back at their field with what was typed, units follow the user."""

import io
import json
import re
from dataclasses import replace

import pytest

from jolvek.formats import enquiry_file
from jolvek.store import enquiries as store
from jolvek.store import setups

QUICK = {"family": "inflatable_air", "length": "2.9 m", "people": "2", "speed": "3.5", "distance": "5"}
STATIONS = ("boat", "shortlist", "side-by-side", "offer")


def boat_form(client, number=2):
    html = client.get(f"/enquiry/{number}/boat").text
    form = dict(re.findall(r'<input[^>]*name="(\w+)" value="([^"]*)"', html.replace('class="input" ', "")))
    for name, value in re.findall(r'<input class="input" id="\w+" name="(\w+)" value="([^"]*)"', html):
        form[name] = value
    checked = re.findall(r'type="(?:radio|checkbox)" name="(\w+)" value="(\w+)" checked', html)
    places = [v for n, v in checked if n == "places"]
    return {**form, **dict(checked), "places": places}


def pin(client, number=2, index=0):
    html = client.get(f"/enquiry/{number}/shortlist").text
    form = re.findall(rf'action="/enquiry/{number}/pin">(.*?)</form>', html, re.S)[index]
    return client.post(f"/enquiry/{number}/pin", data=dict(re.findall(r'name="(\w+)" value="([^"]*)"', form)))


@pytest.mark.parametrize("path", ["/", "/rules", *(f"/enquiry/{n}/{s}" for n in range(1, 7) for s in STATIONS)])
def test_every_page_opens_before_and_after_pinning(client, path):
    assert client.get(path).status_code == 200
    if path.startswith("/enquiry"):
        number = int(path.split("/")[2])
        pin(client, number)
        client.post(f"/enquiry/{number}/choose", data={"letter": "A"})
        page = client.get(path)
        assert page.status_code == 200 and "Traceback" not in page.text


def test_quick_start_answers_in_power_and_energy(client):
    text = client.get("/", query_string=QUICK).text
    assert re.search(r"takes about <strong>\d+\xa0W</strong>", text) and "kWh</strong>" in text and "From the shelf" in text


def test_quick_start_answers_htmx_with_its_fragment_alone(client):
    text = client.get("/", query_string=QUICK, headers={"HX-Request": "true"}).text
    assert text.lstrip().startswith('<div id="quick-answer"') and "<html" not in text


@pytest.mark.parametrize(
    ("change", "says"),
    [
        ({"length": "abc"}, "read “abc”"),
        ({"length": "400 m"}, "allowed is 1.50"),
        ({"people": "-1"}, "allowed is 0"),
        ({"length": ""}, "needed"),
        ({"family": "submarine"}, "read “submarine”"),
        ({"family": "kayak", "length": "14 m"}, "2.4 to 8 m for a kayak"),
        ({"speed": "fast"}, "read “fast”"),
        ({"people": "2.5"}, "whole number"),
    ],
)
def test_a_wrong_quick_start_comes_back_with_422_and_what_was_typed(client, change, says):
    for answer in (client.get("/", query_string={**QUICK, **change}), client.post("/keep", data={**QUICK, **change})):
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


@pytest.mark.parametrize(
    ("field", "value", "says"),
    [
        ("length", "long", "read “long”"),
        ("mass", "-20", "read “-20”"),
        ("length", "400 m", "allowed is"),
        ("beam", "", "needed"),
        ("people", "61", "allowed is 0"),
        ("reserve", "140", "allowed is"),
        ("mass", "38 m", "expected a mass"),
        ("bay1_length", "9 m", "allowed is"),
    ],
)
def test_a_wrong_boat_comes_back_with_422_the_message_and_everything_typed(client, conn, field, value, says):
    before = store.get(conn, 2)
    form = {**boat_form(client), "title": "typed title", "gear": "77 lb", field: value}
    answer = client.post("/enquiry/2/boat", data=form)
    assert answer.status_code == 422
    block = re.search(rf'name="{field}" value="{re.escape(value)}".*?</div>\s*<p class="wrong"[^>]*>([^<]*)', answer.text, re.S)
    assert block and says in block[1].replace("&#34;", '"')
    assert 'value="77 lb"' in answer.text and 'value="typed title"' in answer.text
    assert store.get(conn, 2) == before


def test_a_right_boat_is_kept_in_si(client, conn):
    form = {**boat_form(client), "length": "11 ft 7", "gear": "30 lb", "speed": "7,5 km/h"}
    assert client.post("/enquiry/2/boat", data=form).status_code == 303
    need = store.get(conn, 2).need
    assert need.hull.length_m == pytest.approx(3.5306) and need.load.gear_kg == pytest.approx(13.608, abs=1e-3)
    assert need.day.speed_m_s == pytest.approx(2.0833, abs=1e-3) and len(need.site.bays) == 1 and need.hull.max_power_w == 2200


def test_an_unknown_family_and_a_kayak_of_fourteen_metres_are_refused(client):
    assert "read “submarine”" in client.post("/enquiry/2/boat", data={**boat_form(client), "family": "submarine"}).text
    answer = client.post("/enquiry/2/boat", data={**boat_form(client), "family": "kayak", "length": "14 m"})
    assert answer.status_code == 422 and "2.4 to 8 m for a kayak" in answer.text


def test_a_second_save_over_a_changed_enquiry_is_refused_with_what_was_typed(client, conn):
    form = boat_form(client)
    assert client.post("/enquiry/2/boat", data={**form, "title": "first"}).status_code == 303
    answer = client.post("/enquiry/2/boat", data={**form, "title": "second"})
    assert answer.status_code == 422 and "Somebody else changed" in answer.text and 'value="second"' in answer.text
    assert store.get(conn, 2).title == "first"


def test_figures_follow_the_form_without_keeping(client, conn):
    form = boat_form(client)
    text = client.post("/enquiry/2/boat/figures", data={**form, "gear": "120"}).text
    assert "not kept yet" in text and store.get(conn, 2).need.load.gear_kg == 15
    refused = client.post("/enquiry/2/boat/figures", data={**form, "gear": "much"})
    assert refused.status_code == 422 and "read “much”" in refused.text


def test_units_are_the_users_choice(client):
    client.post("/units", data={"speed": "km/h", "length": "ft", "mass": "lb", "power": "hp", "distance": "km", "back": "/rules"})
    text = client.get("/enquiry/2/boat").text
    assert "9 ft 6" in text and "lb" in text and 'value="6.5"' in text and "Speed, km/h" in text


def test_units_never_send_one_away(client):
    assert client.post("/units", data={"back": "https://example.org/x"}).location == "/x"
    assert client.post("/units", data={"back": "//example.org"}).location == "/"


def test_the_shortlist_gives_reasons_for_the_rest(client):
    text = client.get("/enquiry/2/shortlist").text
    assert "does the day, cheapest" in text and "Why the others fell out" in text and "exceed the" in text


def test_pinning_what_is_not_on_the_shelf_is_refused(client):
    answer = client.post("/enquiry/2/pin", data={"motor": "none", "battery": "x", "mount": "y", "series": "1", "parallel": "1"})
    assert answer.status_code == 422 and "not on the shelf" in answer.text


def test_side_by_side_answers_at_the_speed_in_the_address(client):
    pin(client)
    pin(client, index=3)
    slow, fast = (client.get(f"/enquiry/2/side-by-side?speed={v}").text for v in ("2", "3.4"))
    powers = [int(re.search(r'data-live="power-A">([\d\u202f]+)<', t)[1].replace("\u202f", "")) for t in (slow, fast)]
    assert powers[1] > 3 * powers[0]
    wrong = client.get("/enquiry/2/side-by-side?speed=quick")
    assert wrong.status_code == 422 and "read “quick”" in wrong.text


def test_a_blocked_setup_stays_for_comparison_but_is_not_offered(client, conn):
    pin(client)
    client.post("/enquiry/2/choose", data={"letter": "A"})
    stored = store.get(conn, 2)
    store.save(conn, 2, replace(stored.enquiry, need=replace(stored.need, hull=replace(stored.need.hull, max_power_w=300))), "2026")
    assert "Cannot be offered for this boat" in client.get("/enquiry/2/side-by-side").text
    offer = client.get("/enquiry/2/offer").text
    assert "cannot be offered" in offer and "data-print" not in offer


def test_the_offer_sums_its_parts_and_gives_a_band(client, conn):
    pin(client)
    client.post("/enquiry/2/choose", data={"letter": "A"})
    text = client.get("/enquiry/2/offer").text
    total = sum(p.quantity * p.price for p in setups.of_enquiry(conn, 2)[0].parts)
    assert f"{total:,.0f}".replace(",", "\u202f") in text and "likely between" in text and "Life jackets" in text


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
        (b"x" * 1_200_000, "larger than 1000 kB"),
    ],
    ids=["text", "empty object", "bytes", "empty", "oversize"],
)
def test_a_wrong_file_comes_back_with_422_at_the_field(client, content, says):
    answer = client.post("/open", data={"file": (io.BytesIO(content), "e.json")})
    assert answer.status_code == 422 and re.search(rf'id="file-error">[^<]*{says}', answer.text)


@pytest.mark.parametrize("path", ["/nothing", "/enquiry/999/boat", "/enquiry/999/offer", "/enquiry/abc/boat"])
def test_what_is_not_there_is_said_without_a_trace(client, path):
    answer = client.get(path)
    assert answer.status_code == 404 and "nothing at this address" in answer.text
