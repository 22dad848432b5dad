"""A customer asks on the public page: in their words, with photos, kept and waiting for a look."""

import io
from dataclasses import replace

import pytest
from PIL import Image

from jolvek.core.enquiry.first_word import FirstWord, enquiry_of, speed_m_s
from jolvek.core.enquiry.need import Day
from jolvek.store import enquiries, intake
from jolvek.store import shop as store
from jolvek.web.public.ask.form import WATER_WORDS
from tests.web.conftest import WORD

SAID = {
    "family": "rigid_dinghy",
    "customer": "Runa Vik",
    "phone": "555 010",
    "length": "12 ft",
    "people": "3",
    "distance": "10 km",
    "water": "lake",
    "pace": "walk",
    "charge": "no",
    "budget": "2 500",
    "note": "It must fit under the bow.",
}


def picture():
    out = io.BytesIO()
    Image.new("RGB", (300, 200), "navy").save(out, "PNG")
    return io.BytesIO(out.getvalue())


@pytest.fixture
def stranger(shop, conn):
    """Somebody from outside, in a shop whose page is open."""
    conn.execute("BEGIN")
    store.save(conn, store.Shop(intake=True), store.Shop())
    conn.execute("COMMIT")
    return shop.test_client()


def last(conn):
    number = conn.execute("SELECT max(id) FROM enquiry").fetchone()[0]
    return enquiries.get(conn, number), intake.get(conn, number)


def test_what_is_said_waits_on_the_counter_with_photos_and_what_was_estimated(stranger, conn):
    page = stranger.get("/ask")
    assert page.status_code == 200 and "Counter" not in page.text
    photos = [(picture(), f"{i}.png") for i in range(6)]
    sent = stranger.post("/ask", data=SAID | {"photos": photos})
    assert sent.location == "/ask/thanks" and "We look at it" in stranger.get("/ask/thanks").text
    stored, came = last(conn)
    need = stored.need
    assert (stored.customer, stored.enquiry.phone, stored.note) == (
        "Runa Vik",
        "555 010",
        "It must fit under the bow.",
    )
    assert need.hull.length_m == pytest.approx(3.6576) and need.load.people == 3
    assert need.day.distance_m == 10_000 and need.water.kind == "fresh"
    assert need.day.budget == 2500 and not need.day.shore_power
    assert came.estimated == ("beam", "weight") and len(came.photos) == 6
    stranger.post("/sign-in", data={"name": "advisor", "password": WORD})
    counter = stranger.get("/").text
    assert "Waiting for a look" in counter and "Rowing or rigid" in counter or "Runa Vik" in counter
    boat = stranger.get(f"/enquiry/{stored.id}/boat").text
    assert "Estimated: beam, weight." in boat and boat.count('class="thumb"') == 6
    shown = stranger.get(f"/enquiry/{stored.id}/photos/{came.photos[0]}")
    assert shown.mimetype == "image/jpeg"
    assert stranger.get(f"/enquiry/2/photos/{came.photos[0]}").status_code == 404
    stranger.post(f"/enquiry/{stored.id}/looked")
    assert "Waiting for a look" not in stranger.get("/").text
    assert "Looked at by The advisor" in stranger.get(f"/enquiry/{stored.id}/boat").text


REFUSED = [
    ({"family": ""}, "most like yours"),
    ({"customer": " "}, "your name"),
    ({"phone": "", "mail": ""}, "telephone number or a mail"),
    ({"length": "long"}, "read “long”"),
    ({"length": "-3"}, "allowed is"),
    ({"people": "9999"}, "allowed is"),
    ({"pace": "warp"}, "read “warp”"),
    ({"note": "x" * 5000}, "at most 4000"),
    ({"photos": [(io.BytesIO(b"no picture"), "a.png")]}, "not a PNG or JPEG"),
]


@pytest.mark.parametrize(("change", "told"), REFUSED, ids=[told for _, told in REFUSED])
def test_what_cannot_be_read_is_told_at_its_entry_and_nothing_typed_is_lost(
    stranger, conn, change, told
):
    before = last(conn)[0].id
    answer = stranger.post("/ask", data=SAID | change)
    assert answer.status_code == 422 and told in answer.text and "Not sent yet" in answer.text
    if "note" not in change:
        assert "It must fit under the bow." in answer.text
    assert last(conn)[0].id == before


def test_seven_photos_robots_and_floods_leave_nothing(stranger, conn):
    before = last(conn)[0].id
    seven = [(picture(), f"{i}.png") for i in range(7)]
    assert "at most 6" in stranger.post("/ask", data=SAID | {"photos": seven}).text
    robot = stranger.post("/ask", data=SAID | {"website": "http://x"})
    assert robot.location == "/ask/thanks" and last(conn)[0].id == before
    for _ in range(12):  # a customer who does not get on with the form may go on
        assert stranger.post("/ask", data=SAID | {"people": "x"}).status_code == 422
    codes = [stranger.post("/ask", data=SAID).status_code for _ in range(11)]
    assert codes == [303] * 9 + [429] * 2  # the robot was one


def test_a_shop_that_is_not_open_has_no_such_page(shop):
    client = shop.test_client()
    for path in ("/ask", "/ask/thanks"):
        assert client.get(path).status_code == 404
    assert client.post("/ask", data=SAID).status_code == 404


def test_words_become_speeds_that_the_boat_can_have():
    speeds = [speed_m_s("kayak", 3.7, pace) for pace in ("walk", "steady", "all")]
    assert speeds == sorted(speeds) and speed_m_s("kayak", 3.7, "over") == speeds[-1]
    assert speed_m_s("rib", 3.6, "over") > 2 * speed_m_s("rib", 3.6, "all")


def test_nothing_said_is_all_estimated():
    e, estimated = enquiry_of(FirstWord("pontoon", "X"), replace(Day(), reserve=0.3))
    assert estimated == ("length", "beam", "weight", "people", "distance", "speed", "water")
    assert e.need.day.reserve == 0.3 and e.need.water.kind == "salt"
    assert {
        enquiry_of(FirstWord("kayak", "X", water=w), Day())[0].need.water.kind for w in WATER_WORDS
    } == {"fresh", "salt"}


def test_photos_of_a_refused_form_are_asked_for_again_and_none_is_left_behind(stranger, app):
    folder = app.config["SETTINGS"].data_dir / "photos"
    photos = [(picture(), "a.png")]
    text = stranger.post("/ask", data=SAID | {"people": "x", "photos": photos}).text
    assert "choose your photos once more" in text
    bad = [(picture(), "a.png"), (io.BytesIO(b"no picture"), "b.png")]
    assert "not a PNG or JPEG" in stranger.post("/ask", data=SAID | {"photos": bad}).text
    assert not folder.exists() or list(folder.iterdir()) == []
