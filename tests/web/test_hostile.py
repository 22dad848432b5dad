"""Hostile values, typed or stored: every station still opens, and says what is wrong."""

import io
import re
from dataclasses import replace

import pytest

from jolvek.formats import gpx_file, schema, shelf_csv
from jolvek.store import allowed, enquiries, setups, shelf
from jolvek.web.kit import pdf, photos
from tests.web.steps import STATIONS, boat_form, picture, pin

HERE = (*STATIONS, "by-hand")
PAGES = ("/", "/catalogue/", "/find?q=a", "/rules", "/patterns")

GPX = "http://www.topografix.com/GPX/1/1"


def unguarded(conn, sql):
    """Change what is kept as an older version might have, without the database's own checks."""
    allowed.take_off(conn)
    conn.execute(sql)


def opened(client, number=2, pages=PAGES):
    """Every page answers; gives what the stations say."""
    for page in pages:
        assert client.get(page).status_code == 200, page
    answers = {station: client.get(f"/enquiry/{number}/{station}") for station in HERE}
    assert {s: a.status_code for s, a in answers.items()} == dict.fromkeys(HERE, 200)
    return {station: a.text for station, a in answers.items()}


@pytest.mark.parametrize("wind", [-3.1, -30.0])
def test_a_tail_wind_opens_every_station_and_no_range_is_infinite(client, conn, wind):
    pin(client)
    client.post("/enquiry/2/choose", data={"letter": "A"})

    def windy(e):
        return replace(e, need=replace(e.need, day=replace(e.need.day, wind_m_s=wind, legs=())))

    enquiries.change(conn, 2, windy, "2026")
    for station, text in opened(client, pages=()).items():
        odd = re.findall(r".{60}(?:\binf\b|\bnan\b|>None<).{30}", text, re.DOTALL)
        assert odd == [], f"{station} writes {odd[:3]}"


@pytest.mark.parametrize(
    "sql",
    [
        "UPDATE enquiry SET date = '2026-02-30', solar_w = 300 WHERE id = 2",
        "UPDATE setup SET shaft_m = 9e999 WHERE enquiry_id = 2",
        "UPDATE setup SET shaft_m = 0 WHERE enquiry_id = 2",
        "UPDATE setup_item SET data = '{}' WHERE kind = 'motor'",
        "UPDATE motor SET mass_kg = 0.2 WHERE id IN (SELECT id FROM motor LIMIT 1)",
        "UPDATE motor SET id = 'a/b' WHERE id IN (SELECT id FROM motor LIMIT 1)",
        "UPDATE boat SET length_m = 90, mass_kg = 1 WHERE enquiry_id = 2",
        "UPDATE load SET seat_kg = '[9000]' WHERE enquiry_id = 2",
        "UPDATE enquiry SET weights = '[1, 2]' WHERE id = 2",
    ],
)
def test_hostile_rows_leave_every_page_readable(client, conn, sql):
    pin(client)
    unguarded(conn, sql)
    opened(client, pages=PAGES if "motor" in sql else ("/",))


def test_a_motor_far_beyond_its_bank_pinned_by_hand_opens_every_station_and_is_stopped(client):
    parts = {"motor": "ovrek-o120", "battery": "grautt-a55", "mount": "own-clamp"}
    client.post("/enquiry/2/pin", data={**parts, "series": "1", "parallel": "1"})
    client.post("/enquiry/2/choose", data={"letter": "A"})
    result = opened(client, pages=())
    stops = result["side-by-side"]
    assert "Under load the bank gives 11" in stops and "largest known" in stops
    wiring = client.get("/enquiry/2/fitting?tab=wiring&run=30")
    assert wiring.status_code == 200 and "of the voltage is lost in the cable" in wiring.text


def test_a_product_that_cannot_be_read_is_shown_and_mended(client, conn):
    motor = shelf.load(conn).motors[0].id
    unguarded(conn, f"UPDATE motor SET mass_kg = 0.2 WHERE id = '{motor}'")
    text = client.get("/catalogue/").text
    assert "cannot be read" in text and f"/catalogue/motors/item/{motor}" in text
    page = client.get(f"/catalogue/motors/item/{motor}").text
    assert 'value="0.2"' in page and "allowed is 0.5 to 500" in page
    kept = shelf.stored_row(conn, "motors", motor)
    form = {k: shelf_csv.cell(v) for k, v in {**kept, "mass_kg": 14.0}.items()}
    assert client.post("/catalogue/motors/item", data=form).status_code == 303
    assert shelf.problems(conn) == []


def test_a_broken_setup_is_shown_with_its_reason_and_taken_off(client, conn):
    pin(client)
    unguarded(conn, "UPDATE setup SET shaft_m = 9e999")
    text = client.get("/enquiry/2/side-by-side").text
    assert "Setup A cannot be read" in text and "setup.shaft_m" in text
    client.post("/enquiry/2/unpin", data={"letter": "A"})
    assert setups.broken(conn, 2) == []


@pytest.mark.parametrize("shaft", ["inf", "1e308", "0", "-1", "nan", "9.9"])
def test_a_shaft_that_the_motor_does_not_come_with_is_refused(client, conn, shaft):
    item = shelf.load(conn)
    form = {"motor": item.motors[0].id, "battery": item.batteries[0].id, "mount": item.mounts[0].id}
    answer = client.post("/enquiry/2/pin", data={**form, "series": "1", "shaft_m": shaft})
    assert answer.status_code == 422 and setups.of_enquiry(conn, 2) == []


@pytest.mark.parametrize("fitting", ["{", "[" * 100_000, "3", '{"run_m": 1e999}', '{"pin": "x"}'])
def test_a_fitting_sent_with_a_setup_that_cannot_be_is_refused(client, conn, fitting):
    item = shelf.load(conn)
    form = {"motor": item.motors[0].id, "battery": item.batteries[0].id, "mount": item.mounts[0].id}
    answer = client.post("/enquiry/2/pin", data={**form, "series": "1", "fitting": fitting})
    assert answer.status_code == 422 and setups.of_enquiry(conn, 2) == []


@pytest.mark.parametrize(
    ("series", "parallel"), [("0", "1"), ("17", "1"), ("1", "x"), ("9" * 30, "1")]
)
def test_a_bank_that_there_cannot_be_is_refused_by_hand(client, conn, series, parallel):
    item = shelf.load(conn)
    query = {
        "motor": item.motors[0].id,
        "battery": item.batteries[0].id,
        "mount": item.mounts[0].id,
    }
    answer = client.get(
        "/enquiry/2/by-hand", query_string={**query, "series": series, "parallel": parallel}
    )
    assert answer.status_code == 422 and "allowed is 1 to 16" in answer.text


@pytest.mark.parametrize(
    ("address", "typed"),
    [
        ("fitting?tab=wiring&run=banana", "banana"),
        ("fitting?tab=wiring&run=35+m", "35 m"),
        ("fitting?tab=wiring&load=lots", "lots"),
        ("fitting?shaft=0.7", "0.7"),
        ("fitting?w-battery=far", "far"),
        ("day-out?arrive=banana", "banana"),
        ("day-out?from=late", "late"),
        ("shortlist?price_max=cheap", "cheap"),
        ("shortlist?w_price=99", "99"),
        ("side-by-side?speed=quick", "quick"),
    ],
)
def test_what_cannot_be_read_is_refused_at_its_field_with_422(client, address, typed):
    pin(client)
    answer = client.get(f"/enquiry/2/{address}")
    assert answer.status_code == 422 and f"read “{typed}”" in answer.text
    fragment = client.get(f"/enquiry/2/{address}", headers={"HX-Request": "true"})
    assert fragment.status_code == 422 or address.startswith("side-by-side")


def test_a_file_of_24_legs_and_12_bays_survives_the_first_save(client, conn, enquiries_data=None):
    e = enquiries.get(conn, 2).enquiry
    bay = e.need.site.bays[0]
    bays = tuple(replace(bay, name=f"bay {i}") for i in range(1, 13))
    leg = replace(e.need.day.trip[0], distance_m=1000.0, duration_s=None)
    legs = tuple(replace(leg, name=f"leg {i}") for i in range(1, 25))
    need = replace(e.need, site=replace(e.need.site, bays=bays), day=e.need.day.with_legs(legs))
    enquiries.change(conn, 2, lambda old: replace(old, need=need), "2026")
    for station in ("boat", "waters"):
        form = boat_form(client, 2, station)
        assert client.post(f"/enquiry/2/{station}", data=form).status_code == 303
    kept = enquiries.get(conn, 2).need
    assert [b.name for b in kept.site.bays] == [b.name for b in bays]
    assert len(kept.day.legs) == 24


def test_one_refused_field_does_not_stop_the_others(client, conn):
    form = {**boat_form(client), "bay1_length": "9999", "gear": "77", "title": "Kept all the same"}
    answer = client.post("/enquiry/2/boat", data=form, headers={"HX-Request": "true"})
    assert answer.status_code == 422 and "The rest is saved" in answer.text
    stored = enquiries.get(conn, 2)
    assert stored.title == "Kept all the same" and stored.need.load.gear_kg == 77
    assert stored.need.site.bays  # the bay stays as it was


def test_a_refusal_of_what_is_kept_is_a_logged_fault(client, app, monkeypatch, caplog):
    from jolvek.core.base.errors import ValueRefused
    from jolvek.web.stations.boat import page as boat

    def fault(*_args):
        raise ValueRefused("x", 1, "2")

    monkeypatch.setattr(boat, "boat_page", fault)
    answer = client.get("/enquiry/2/boat")
    assert answer.status_code == 500 and "/enquiry/2/boat" in caplog.text


@pytest.mark.parametrize("start", ["-", "=", "+", "@", "\t", "\r", " =", "\ufeff="])
def test_a_cell_that_a_spreadsheet_would_run_is_written_as_text(shelf, start):
    text = shelf_csv.cell(f"{start}1+1")
    assert (
        text.startswith("'")
        and shelf_csv.value_of(text, {"type": "string"}, "name") == f"{start}1+1".strip()
    )


@pytest.mark.parametrize(
    "text", ["1" * 5000, '{"a": ' + "9" * 5000 + "}", '"\\ud800"', '{"title": "\\ud800"}']
)
def test_odd_json_is_refused_in_one_sentence(text):
    with pytest.raises(schema.UnreadableFile) as error:
        schema.loads(text)
    assert "\n" not in str(error.value)


@pytest.mark.parametrize("lat", ["inf", "nan", "91", "-1e9"])
def test_a_way_off_the_earth_is_refused(lat):
    points = f'<rtept lat="{lat}" lon="1"/><rtept lat="1" lon="2"/>'
    text = f'<gpx version="1.1" creator="x" xmlns="{GPX}"><rte>{points}</rte></gpx>'
    with pytest.raises(gpx_file.WayRefused):
        gpx_file.read(text.encode(), 1.5)


@pytest.mark.parametrize(
    "path", ["/enquiry/{n}/boat", "/enquiry/{n}/photo", "/enquiry/{n}/day-out"]
)
def test_numbers_beyond_64_bits_lead_nowhere(client, path):
    assert client.get(path.format(n="9" * 30)).status_code == 404
    answer = client.post("/enquiry/2/boat/from", data={"other": "9" * 30})
    assert (
        answer.status_code == 404 and client.post(f"/catalogue/undo/{'9' * 30}").status_code == 404
    )


def test_a_phones_picture_is_taken_and_what_the_camera_wrote_is_not_kept(client, conn, tmp_path):
    from PIL import Image

    noise = Image.effect_noise((3000, 2000), 90).convert("RGB")
    out = io.BytesIO()
    noise.save(out, "JPEG", quality=92, comment=b"secret place", exif=b"Exif\x00\x00secret")
    assert out.tell() > 2_000_000
    out.seek(0)
    answer = client.post("/enquiry/2/boat/photo", data={"photo": (out, "boat.jpg")})
    assert answer.status_code == 303
    kept = (tmp_path / "photos" / enquiries.get(conn, 2).photo).read_bytes()
    assert b"secret" not in kept


def test_limits_are_by_route(client):
    big = b"x" * 1_500_000
    assert "1 MB" in client.post("/open", data={"file": (io.BytesIO(big), "e.json")}).text
    answer = client.post(
        "/catalogue/import", data={"file": (io.BytesIO(b"y" * 4_500_000), "p.csv")}
    )
    assert answer.status_code == 422 and "4 MB" in answer.text
    assert client.post("/enquiry/2/boat", data={"note": "x" * 1_500_000}).status_code == 422
    assert photos.MOST_PIXELS == 25_000_000


def test_a_large_picture_is_refused_at_its_field(client):
    answer = client.post("/enquiry/2/boat/photo", data={"photo": (picture((6000, 5000)), "b.png")})
    assert answer.status_code == 422 and "million" in answer.text


def test_a_weight_of_the_enquiry_cannot_be_nonsense(client, conn):
    before = enquiries.get(conn, 2).need.weights
    assert client.post("/enquiry/2/shortlist/weights", data={"w_price": "x"}).status_code == 422
    assert enquiries.get(conn, 2).need.weights == before


def test_no_text_brings_a_file_of_the_machine_onto_a_paper(fitted, tmp_path):
    secret = tmp_path / "secret.txt"
    secret.write_text("the shop's secret")
    evil = (
        f"x</style><link rel=attachment href={secret.as_uri()}>",
        f'x"; }} @import url({secret.as_uri()}); p {{ content: "',
        f"<img src={secret.as_uri()}>",
    )
    for title in evil:
        form = boat_form(fitted, 2) | {"title": title, "customer": title}
        fitted.post("/enquiry/2/boat", data=form)
        paper = fitted.get("/enquiry/2/fitting/sheet.pdf")
        assert paper.status_code == 200 and paper.data[:5] == b"%PDF-"
        for trace in (b"EmbeddedFile", b"secret.txt"):
            assert trace not in paper.data


@pytest.mark.parametrize(
    "query",
    ["endpoint=x", "kind=x", "enquiry_id=7", "_external=1&_scheme=evil", "_anchor=x&self=1"],
)
def test_what_an_address_asks_is_never_taken_for_a_part_of_the_way(fitted, query):
    for path in (
        "/catalogue/motors/compare",
        "/catalogue/motors",
        "/enquiry/2/side-by-side",
        "/enquiry/2/shortlist",
        "/enquiry/2/day-out",
        "/enquiry/2/fitting?tab=sheet",
    ):
        answer = fitted.get(path + ("&" if "?" in path else "?") + query)
        assert answer.status_code == 200, path
        assert "evil:" not in answer.text


def test_the_pdf_writer_reads_our_own_static_files_and_nothing_else(app, tmp_path):
    secret = tmp_path / "secret.txt"
    secret.write_text("the shop's secret")
    head = "<html lang=en><title>x</title>"
    with app.app_context():
        for url in (secret.as_uri(), "file://localhost" + str(secret), "vendor/../../../../x"):
            paper = pdf.write(f"{head}<link rel=attachment href={url}><p>x</p>")
            assert b"EmbeddedFile" not in paper, url
        assert b"EmbeddedFile" in pdf.write(f"{head}<link rel=attachment href=mark.svg><p>x</p>")
