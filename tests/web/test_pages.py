"""Pages by client: every one opens, refusals come back at their field with what was typed, units follow the user."""

import io
import json
import re
from dataclasses import replace

import pytest
from PIL import Image

from jolvek.formats import enquiry_file
from jolvek.store import enquiries as store
from jolvek.store import setups

QUICK = {"family": "inflatable_air", "length": "2.9 m", "people": "2", "speed": "3.5", "distance": "5"}
STATIONS = ("boat", "waters", "shortlist", "side-by-side", "offer", "own")
OTHERS = ("/", "/rules", "/patterns", "/find", "/find?q=kayak", "/shelf/", "/shelf/batteries", "/shelf/mounts", "/shelf/chargers",
          "/shelf/panels", "/shelf/propellers", "/shelf/accessories", "/shelf/motors/new", "/shelf/import", "/shelf/export.json",
          "/shelf/motors/export.csv", "/shelf/motors/compare")


def boat_form(client, number=2, station="boat"):
    """What a browser would send of a station's form."""
    html = client.get(f"/enquiry/{number}/{station}").text
    form = {}
    for tag in re.findall(r"<input[^>]*>", html.split('id="find"')[0] + html.split('id="main"')[1]):
        name, value = re.search(r'name="([^"]+)"', tag), re.search(r'value="([^"]*)"', tag)
        if not name or 'type="file"' in tag or name[1] in ("q", "csrf_token"):
            continue
        if 'type="radio"' in tag or 'type="checkbox"' in tag:
            if " checked" in tag and name[1] != "places":
                form[name[1]] = value[1]
        else:
            form[name[1]] = value[1] if value else ""
    for name, options in re.findall(r'<select[^>]*name="([^"]+)"[^>]*>(.*?)</select>', html.split('id="main"')[1], re.S):
        chosen = re.search(r'value="([^"]*)" selected', options)
        form[name] = chosen[1] if chosen else ""
    form["places"] = re.findall(r'name="places" value="(\w+)" checked', html)
    return {k: v for k, v in form.items() if k not in ("other", "letter", "make")}


def pin(client, number=2, index=0):
    html = client.get(f"/enquiry/{number}/shortlist").text
    form = re.findall(rf'action="/enquiry/{number}/pin">(.*?)</form>', html, re.S)[index]
    return client.post(f"/enquiry/{number}/pin", data=dict(re.findall(r'name="(\w+)" value="([^"]*)"', form)))


@pytest.mark.parametrize("path", [*OTHERS, *(f"/enquiry/{n}/{s}" for n in range(1, 7) for s in STATIONS)])
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
        ("deadrise", "140", "allowed is"),
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
    form = {**boat_form(client), "length": "11 ft 7", "gear": "30 lb", "seats": "90, 11 st", "model": "Skerry 29", "storage": "davit"}
    assert client.post("/enquiry/2/boat", data=form).status_code == 303
    need = store.get(conn, 2).need
    assert need.hull.length_m == pytest.approx(3.5306) and need.load.gear_kg == pytest.approx(13.608, abs=1e-3)
    assert need.load.seat_kg == pytest.approx((90.0, 69.853), abs=1e-3) and len(need.site.bays) == 1 and need.hull.max_power_w == 2200
    assert store.get(conn, 2).enquiry.model == "Skerry 29"


def test_what_is_not_touched_stays_to_the_last_digit(client, conn):
    before = store.get(conn, 4).enquiry
    client.post("/units", data={"speed": "mph", "length": "ft", "mass": "lb", "power": "hp", "distance": "mi"})
    for station in ("boat", "waters"):
        assert client.post(f"/enquiry/4/{station}", data=boat_form(client, 4, station)).status_code == 303
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
    assert day.start_h == 9.5 and day.reserve == pytest.approx(1 / 3) and [leg.name for leg in day.legs] == ["out", "home"]
    assert day.legs[0].speed_m_s == pytest.approx(2.0833, abs=1e-3) and day.legs[0].hold_s == 1800 and day.legs[1].duration_s == 3600
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
    answer = client.post("/enquiry/2/waters", data={**boat_form(client, 2, "waters"), "hotel": "33", **change})
    assert answer.status_code == 422 and says in answer.text and 'value="33"' in answer.text
    assert all(f'value="{v}"' in answer.text for v in change.values())


def test_there_and_back_is_one_gesture(client, conn):
    client.post("/enquiry/2/waters/legs", data={"make": "there"})
    legs = store.get(conn, 2).need.day.legs
    assert [leg.name for leg in legs] == ["out", "home"] and legs[0].wind_m_s == -legs[1].wind_m_s
    client.post("/enquiry/2/waters/legs", data={"make": "none"})
    assert store.get(conn, 2).need.day.legs == ()


def test_the_hardest_leg_is_named(client, conn):
    form = {**boat_form(client, 2, "waters"), "leg1_name": "the way out", "leg1_distance": "2 nm", "leg1_current": "-0.5",
            "leg2_name": "the run home", "leg2_distance": "2 nm", "leg2_current": "1.2"}
    client.post("/enquiry/2/waters", data=form)
    assert re.search(r"<strong>The run home</strong> decides, against 1.2\xa0kn of stream", client.get("/enquiry/2/waters").text)


def test_an_unknown_family_and_a_kayak_of_fourteen_metres_are_refused(client):
    assert "read “submarine”" in client.post("/enquiry/2/boat", data={**boat_form(client), "family": "submarine"}).text
    answer = client.post("/enquiry/2/boat", data={**boat_form(client), "family": "kayak", "length": "14 m"})
    assert answer.status_code == 422 and "2.4 to 8 m for a kayak" in answer.text


def test_a_second_save_over_a_changed_enquiry_is_refused_with_what_was_typed(client, conn):
    form = boat_form(client)
    assert client.post("/enquiry/2/boat", data={**form, "title": "first"}).status_code == 303
    answer = client.post("/enquiry/2/boat", data={**form, "title": "second"})
    assert answer.status_code == 422 and "somebody else changed" in answer.text and 'value="second"' in answer.text
    assert re.search(r'title</th><td>first</td><td>second</td>', answer.text)
    seen = re.search(r'name="override" value="([^"]+)">keep yours', answer.text)[1]
    assert client.post("/enquiry/2/boat", data={**form, "title": "second", "override": seen}).status_code == 303
    client.post("/enquiry/2/boat", data={**boat_form(client), "title": "first"})
    assert store.get(conn, 2).title == "first"


def test_autosave_keeps_and_says_when_and_keeps_nothing_wrong(client, conn):
    form, htmx = boat_form(client), {"HX-Request": "true"}
    answer = client.post("/enquiry/2/boat", data={**form, "gear": "120"}, headers=htmx)
    assert (
        answer.status_code == 200 and "Kept" in answer.text and store.get(conn, 2).need.load.gear_kg == 120 and "<html" not in answer.text
    )
    changed = re.search(r'name="changed" value="([^"]+)"', answer.text)[1]
    assert changed == store.get(conn, 2).changed_at
    refused = client.post("/enquiry/2/boat", data={**form, "changed": changed, "gear": "much"}, headers=htmx)
    assert refused.status_code == 422 and "read “much”" in refused.text and store.get(conn, 2).need.load.gear_kg == 120


def test_units_are_the_users_choice(client):
    client.post("/units", data={"speed": "km/h", "length": "ft", "mass": "lb", "power": "hp", "distance": "km", "back": "/rules"})
    text = client.get("/enquiry/2/boat").text
    assert "9 ft 6" in text and "lb" in text and "Speed, km/h" in text and 'value="6.5"' in client.get("/enquiry/2/waters").text


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


def test_enquiries_are_copied_put_away_and_taken_out_again(client, conn):
    number = int(client.post("/enquiry/3/copy").location.split("/")[2])
    assert store.get(conn, number).need == store.get(conn, 3).need and store.get(conn, number).customer == ""
    client.post("/enquiry/3/archive", data={})
    text = client.get("/").text
    assert "Undo: take it out again" in text and "Put away" in text and store.get(conn, 3).archived
    client.post("/enquiry/3/archive", data={"undo": "1"})
    assert not store.get(conn, 3).archived


def test_find_looks_through_enquiries_and_products(client):
    text = client.get("/find?q=tall+her").text
    assert "Tallmarrow Heron" in text and "/shelf/motors/item/" in text
    assert "Pontoon boat for eight" in client.get("/find?q=hire").text and "Nothing." in client.get("/find?q=zzz").text


def test_the_shortlist_narrows_by_facet_price_and_range(client):
    def rows(query):
        return re.findall(r"<b>([^<]+)</b><span class=\"parts\">", client.get(f"/enquiry/2/shortlist?{query}").text)

    assert 0 < len(set(rows("maker=Pellorin"))) and all(r.startswith("Pellorin") for r in rows("maker=Pellorin"))
    assert "Nothing is left" in client.get("/enquiry/2/shortlist?price_max=1").text
    assert rows("range_min=9") != rows("") and rows("w_price=0&w_range=5&w_light=0")[0:1] is not None


def test_weights_on_trial_change_the_order_and_can_be_kept(client, conn):
    before = store.get(conn, 2).need.weight("price")
    client.post("/enquiry/2/shortlist/weights", data={"w_price": "0.5"})
    assert store.get(conn, 2).need.weight("price") == 0.5 != before


def test_what_if_answers_for_a_rejected_product(client, conn):
    text = client.get("/enquiry/2/shortlist").text
    address = re.search(r'href="(/enquiry/2/shortlist/what-if[^"]+)"', text)[1].replace("&amp;", "&")
    assert re.search(r"(it does the day|still not)", client.get(address).text)
    assert client.get("/enquiry/2/shortlist/what-if?kind=motors&id=none&how=slower").status_code == 404


def test_a_setup_by_hand_is_judged_and_pinned(client, conn, shelf):
    motor, battery = shelf.motors[6], next(b for b in shelf.batteries if b.spec.nominal_voltage_v == 12)
    query = {"motor": motor.id, "battery": battery.id, "mount": "own-clamp", "series": 2, "parallel": 1}
    text = client.get("/enquiry/2/own", query_string=query).text
    assert "Pin it" in text and "Life jackets" in text and motor.title in text
    assert "choose motor" in client.get("/enquiry/2/own").text.lower()


@pytest.mark.parametrize(
    "query", ["by=power", "by=power&power=700+W", "by=day", "view=time", "view=thrust", "band=1", "doubt=1", "by=x&view=y"]
)
def test_side_by_side_has_its_views(client, query):
    pin(client)
    pin(client, index=2)
    page = client.get(f"/enquiry/2/side-by-side?{query}")
    assert page.status_code == 200 and "It " in page.text and "Schools of reserve" in page.text


def test_side_by_side_gives_csv_and_svg(client):
    pin(client)
    rows = client.get("/enquiry/2/side-by-side.csv").text.splitlines()
    assert rows[0].startswith("setup,speed_m_s,power_w") and len(rows) == 91 and rows[1].startswith("A,")
    svg = client.get("/enquiry/2/side-by-side.svg")
    assert svg.mimetype == "image/svg+xml" and svg.text.startswith("<svg xmlns=") and "<style>" in svg.text
    assert client.get("/enquiry/3/side-by-side.svg").status_code == 404


def test_add_ons_are_priced_apart_and_offered(client, conn):
    pin(client)
    client.post("/enquiry/2/choose", data={"letter": "A"})
    client.post("/enquiry/2/extra", data={"letter": "A", "product": "lodvern-shunt"})
    assert setups.of_enquiry(conn, 2)[0].extras_price == 119
    text = client.get("/enquiry/2/offer").text
    assert "Shunt monitor" in text and "Essentials together" in text
    client.post("/enquiry/2/extra", data={"letter": "A", "product": "lodvern-shunt", "off": "1"})
    assert setups.of_enquiry(conn, 2)[0].extras == ()
    assert client.post("/enquiry/2/extra", data={"letter": "A", "product": "none"}).status_code == 422


def test_stages_move_an_enquiry_on_the_counter(client):
    pin(client)
    client.post("/enquiry/2/choose", data={"letter": "A"})
    client.post("/enquiry/2/stage", data={"stage": "offered"})
    assert "Waiting for the customer" in client.get("/").text
    assert client.post("/enquiry/2/stage", data={"stage": "eaten"}).status_code == 422


def test_an_earlier_boat_of_the_model_is_a_start(client, conn):
    for number in (2, 5):
        stored = store.get(conn, number)
        store.save(conn, number, replace(stored.enquiry, model="Skerry 29"), "2026")
    assert "Start from it" in client.get("/enquiry/5/boat").text
    client.post("/enquiry/5/boat/from", data={"other": "2"})
    assert store.get(conn, 5).need.hull == store.get(conn, 2).need.hull and store.get(conn, 5).need.load.people == 8


def picture(size=(2400, 1200), kind="PNG"):
    out = io.BytesIO()
    Image.new("RGB", size, "#2F6B57").save(out, kind)
    out.seek(0)
    return out


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
    assert answer.status_code == 422 and re.search(r'id="photo-error">[^<]*(not a PNG or JPEG)', answer.text)


def test_a_setup_taken_off_can_be_pinned_again(client, conn):
    pin(client)
    before = setups.of_enquiry(conn, 2)[0]
    text = client.post("/enquiry/2/unpin", data={"letter": "A"}, follow_redirects=True).text
    form = re.search(r'<form[^>]*>((?:(?!</form>).)*)<button[^>]*>Undo: pin A again', text, re.S)[1].rsplit("<form", 1)[-1]
    client.post("/enquiry/2/pin", data=dict(re.findall(r'name="(\w+)" value="([^"]*)"', form)))
    assert setups.of_enquiry(conn, 2)[0].key == before.key


def test_a_planing_boat_is_sized_about_her_wished_speed(client):
    rib, tender = (re.findall(r"<tr><td>([\d.]+)</td>", client.get(f"/enquiry/{n}/boat").text) for n in (6, 2))
    assert rib == ["3", "6", "9", "12", "15"] and tender == ["2", "3", "4", "5", "6"]


def test_the_setup_in_hand_is_offered_in_one_click_and_only_then_chosen(client):
    pin(client, 3)
    side = client.get("/enquiry/3/side-by-side").text
    assert "is-on" not in side[side.index('data-choose="A"') - 80:side.index('data-choose="A"')]
    offer = client.get("/enquiry/3/offer").text
    assert "Offer setup A" in offer and "cautions" not in offer.lower()
    said = client.post("/enquiry/3/choose", data={"letter": "A", "then": "offer"}, follow_redirects=True).text
    assert "No setup is chosen" not in said and "Heron" in said
