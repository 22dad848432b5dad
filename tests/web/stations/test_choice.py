"""Shortlist, own setup, Side by side and Offer by client: narrowed, weighed, judged, compared,
priced.
"""

import re
from dataclasses import replace

import pytest

from jolvek.store import enquiries as store
from jolvek.store import setups
from tests.web.steps import forms_to, pin


def test_the_shortlist_gives_reasons_for_the_rest(client):
    text = client.get("/enquiry/2/shortlist").text
    assert (
        "does the day, cheapest" in text
        and "Why the others fell out" in text
        and "exceed the" in text
    )


def test_pinning_what_is_not_on_the_shelf_is_refused(client):
    answer = client.post(
        "/enquiry/2/pin",
        data={"motor": "none", "battery": "x", "mount": "y", "series": "1", "parallel": "1"},
    )
    assert answer.status_code == 422 and "not on the shelf" in answer.text


def test_side_by_side_answers_at_the_speed_in_the_address(client):
    pin(client)
    pin(client, index=3)
    slow, fast = (client.get(f"/enquiry/2/side-by-side?speed={v}").text for v in ("2", "3.4"))
    powers = [
        int(re.search(r'data-live="power-A">([\d\u202f]+)<', t)[1].replace("\u202f", ""))
        for t in (slow, fast)
    ]
    assert powers[1] > 3 * powers[0]
    wrong = client.get("/enquiry/2/side-by-side?speed=quick")
    assert wrong.status_code == 422 and "read “quick”" in wrong.text


def change_hull(conn, **values):
    def edit(e):
        return replace(e, need=replace(e.need, hull=replace(e.need.hull, **values)))

    store.change(conn, 2, edit, "2026")


def test_a_blocked_setup_stays_for_comparison_but_is_not_offered(client, conn):
    pin(client)
    client.post("/enquiry/2/choose", data={"letter": "A"})
    change_hull(conn, max_power_w=300)
    assert "Cannot be offered for this boat" in client.get("/enquiry/2/side-by-side").text
    offer = client.get("/enquiry/2/offer").text
    assert "cannot be offered" in offer and "data-print" not in offer


def test_the_offer_sums_its_parts_and_gives_a_band(client, conn):
    pin(client)
    client.post("/enquiry/2/choose", data={"letter": "A"})
    text = client.get("/enquiry/2/offer").text
    total = sum(p.quantity * p.price for p in setups.of_enquiry(conn, 2)[0].parts)
    assert (
        f"{total:,.0f}".replace(",", "\u202f") in text
        and "likely between" in text
        and "Life jackets" in text
    )


def test_the_shortlist_narrows_by_facet_price_and_range(client):
    def rows(query):
        return re.findall(
            r"<b>([^<]+)</b><span class=\"parts\">",
            client.get(f"/enquiry/2/shortlist?{query}").text,
        )

    assert 0 < len(set(rows("maker=Pellorin"))) and all(
        r.startswith("Pellorin") for r in rows("maker=Pellorin")
    )
    assert "Nothing is left" in client.get("/enquiry/2/shortlist?price_max=1").text
    assert rows("range_min=9") != rows("")
    far, cheap = rows("w_price=0&w_range=5&w_light=0"), rows("w_price=5&w_range=0&w_light=0")
    assert sorted(far) != far and far != cheap


def test_weights_on_trial_change_the_order_and_can_be_kept(client, conn):
    before = store.get(conn, 2).need.weight("price")
    client.post("/enquiry/2/shortlist/weights", data={"w_price": "0.5"})
    assert store.get(conn, 2).need.weight("price") == 0.5 != before


def test_what_if_answers_for_a_rejected_product(client, conn):
    text = client.get("/enquiry/2/shortlist").text
    address = re.search(r'href="(/enquiry/2/shortlist/what-if[^"]+)"', text)[1].replace(
        "&amp;", "&"
    )
    assert re.search(r"(it does the day|still not)", client.get(address).text)
    assert (
        client.get("/enquiry/2/shortlist/what-if?kind=motors&id=none&how=slower").status_code == 404
    )


def test_a_setup_by_hand_is_judged_and_pinned(client, conn, shelf):
    motor, battery = (
        shelf.motors[6],
        next(b for b in shelf.batteries if b.spec.nominal_voltage_v == 12),
    )
    query = {
        "motor": motor.id,
        "battery": battery.id,
        "mount": "own-clamp",
        "series": 2,
        "parallel": 1,
    }
    text = client.get("/enquiry/2/by-hand", query_string=query).text
    assert "Pin it" in text and "Life jackets" in text and motor.title in text
    assert "choose motor" in client.get("/enquiry/2/by-hand").text.lower()


@pytest.mark.parametrize(
    "query",
    [
        "by=power",
        "by=power&power=700+W",
        "by=day",
        "view=time",
        "view=thrust",
        "band=1",
        "doubt=1",
        "by=x&view=y",
    ],
)
def test_side_by_side_has_its_views(client, query):
    pin(client)
    pin(client, index=2)
    page = client.get(f"/enquiry/2/side-by-side?{query}")
    assert page.status_code == 200 and "It " in page.text and "Schools of reserve" in page.text


def test_side_by_side_gives_csv_and_svg(client):
    pin(client)
    rows = client.get("/enquiry/2/side-by-side.csv").text.splitlines()
    assert (
        rows[0].startswith("setup,speed_m_s,power_w")
        and len(rows) == 91
        and rows[1].startswith("A,")
    )
    svg = client.get("/enquiry/2/side-by-side.svg")
    assert (
        svg.mimetype == "image/svg+xml"
        and svg.text.startswith("<svg xmlns=")
        and "<style>" in svg.text
    )
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
    assert (
        client.post("/enquiry/2/extra", data={"letter": "A", "product": "none"}).status_code == 422
    )


def test_a_setup_taken_off_can_be_pinned_again(client, conn):
    pin(client)
    before = setups.of_enquiry(conn, 2)[0]
    text = client.post("/enquiry/2/unpin", data={"letter": "A"}, follow_redirects=True).text
    assert "Undo: pin A again" in text
    form = forms_to(client, "/enquiry/2/shortlist", "/enquiry/2/pin")[0]
    client.post("/enquiry/2/pin", data=form)
    assert setups.of_enquiry(conn, 2)[0].key == before.key


def test_the_setup_in_hand_is_offered_in_one_click_and_only_then_chosen(client):
    pin(client, 3)
    side = client.get("/enquiry/3/side-by-side").text
    assert "is-on" not in side[side.index('data-choose="A"') - 80 : side.index('data-choose="A"')]
    offer = client.get("/enquiry/3/offer").text
    assert "Offer setup A" in offer and "cautions" not in offer.lower()
    said = client.post(
        "/enquiry/3/choose", data={"letter": "A", "then": "offer"}, follow_redirects=True
    ).text
    assert "No setup is chosen" not in said and "Heron" in said


def test_what_stands_against_the_boat_is_the_shortlists_headline(client, conn):
    conn.execute("UPDATE boat SET max_people = 1 WHERE enquiry_id = 2")
    text = client.get("/enquiry/2/shortlist").text
    assert "<strong>Stop</strong>: 2 people aboard; the plate allows 1. Until that changes" in text
    assert "does the day" not in text.split('id="list"')[1]
