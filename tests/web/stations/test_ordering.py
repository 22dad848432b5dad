"""An offer's services, discounts, years' cost, signature and add-ons; the parts to order once it is
accepted, against a stock that is promised only once.
"""

import json
import re
from contextlib import closing

import pytest
from icalendar import Calendar

from jolvek.store import db, enquiries, finding, offers, stock
from jolvek.web.stations.offer import sending
from jolvek.web.stations.offer.lines import with_add_ons
from tests.web.stations.test_offer_sent import (  # noqa: F401
    DRAFT,
    HERE,
    PRICED,
    no_paper,
    prepared,
    sent,
    shop,
    stranger,
    tick,
    way,
    words,
)

YES = {"do": "accepted", "name": "Runa", "agree": "1", "letter": "A"}


def settings(client, **more):
    client.post("/play", data={"role": "owner"})
    assert client.post("/settings", data=PRICED | more).status_code == 303
    client.post("/play", data={"role": "advisor"})


def send(client, conn, **more):
    tick(client)
    after = offers.of_enquiry(conn, 5)
    data = {"after": after[0].id if after else "0"} | more
    assert client.post(f"{HERE}/send", data=data).status_code == 303
    return offers.of_enquiry(conn, 5)[0]


def told_of(conn, offer):
    return offers.content(conn, offer.id)["alternatives"]


def test_services_and_discounts_by_line_stand_on_it(shop, conn, no_paper):  # noqa: F811
    settings(shop, delivery="120", training="0")
    page = shop.get(HERE).text
    assert 'name="service_delivery"' in page and 'name="service_training"' not in page
    motor = re.search(r'name="(off_[^"]+)"', page)[1]
    shop.post(HERE, data=DRAFT | {"service_delivery": "1", motor: "12.5", "free0_discount": "50"})
    first = told_of(conn, send(shop, conn))[0]
    named = {x["text"]: x for x in first["lines"]}
    assert named["Delivery"]["amount_minor"] == 12_000
    line = named[motor.removeprefix("off_")]
    assert line["discount"] == "12.5"
    assert line["amount_minor"] == round(line["price_minor"] * int(line["quantity"]) * 0.875)
    assert named["Launching"]["amount_minor"] == 7_500
    refused = shop.post(HERE, data=DRAFT | {motor: "101"})
    assert refused.status_code == 422 and "0 to 100" in refused.text
    assert offers.draft(conn, 5)["line_discounts"] == {motor.removeprefix("off_"): 12.5}


def test_money_without_cents_and_with_three_decimals(shop, conn, no_paper):  # noqa: F811
    for currency, total in (("JPY", 1), ("KWD", 1000)):
        settings(shop, currency=currency)
        x = told_of(conn, send(shop, conn))[0]
        launch = next(y for y in x["lines"] if y["text"] == "Launching")
        assert launch["amount_minor"] == 150 * total
        assert re.sub(r"\D", "", x["sums"]["total"]["text"]) == str(x["sums"]["total"]["minor"])


def test_the_years_stand_on_page_and_paper_and_are_frozen(shop, conn, app):  # noqa: F811
    settings(shop, kwh_price="0.5", litre_price="2.5")
    shop.post(HERE, data=DRAFT | {"years_shown": "1", "y_years": "7", "y_outings": "55"})
    offer = send(shop, conn)
    years = told_of(conn, offer)[0]["years"]
    assert [r[0] for r in years["rows"]] == [str(i) for i in range(8)]
    assert years["answer"].startswith("Over 7 years:") and "55 days a year" in years["used"]
    printed = dict(years["assumptions"])
    assert "0.50" in printed["Electricity, a kWh"] and "2.50" in printed["Petrol, a litre"]
    for text in (words(offers.pdf(conn, offer.id)), stranger(app).get(way(conn, offer.id)).text):
        plain = " ".join(text.split())
        assert "Assumptions:" in plain and "Petrol outboard" in plain
    assert "sum-line" in stranger(app).get(way(conn, offer.id)).text
    refused = shop.post(HERE, data=DRAFT | {"years_shown": "1", "y_years": "99"})
    assert refused.status_code == 422 and "1 to 40" in refused.text
    assert offers.draft(conn, 5)["assumed"] == {"years": 7.0}  # an emptied entry is as worked out
    shop.post(HERE, data=DRAFT)
    assert told_of(conn, send(shop, conn))[0]["years"] is None


def test_the_mail_says_what_the_shop_wrote(shop, conn, no_paper):  # noqa: F811
    for bad in ("Dear {friend}, {link}", "no way to it"):
        shop.post("/play", data={"role": "owner"})
        assert shop.post("/settings", data=PRICED | {"mail_words": bad}).status_code == 422
    subject = "{customer}, your boat {number}"
    settings(shop, mail_subject=subject, mail_words="Look here:\n\n{link}\n\n{closing}\n\n{shop}")
    offer = send(shop, conn, mail="1")
    mail = conn.execute("SELECT mail FROM outbox").fetchone()["mail"].decode()
    assert f"your boat {offer.number}" in mail and "Look here:" in mail and "/o/" in mail


def test_the_day_to_ask_again_is_a_date(sent, conn, shop):  # noqa: F811
    day = offers.shop_data(conn, sent.id)["follow_up"]
    got = shop.get(f"{HERE}/{sent.id}.ics")
    (event,) = Calendar.from_ical(got.data).walk("VEVENT")
    assert event["dtstart"].dt.isoformat() == day and sent.number in event["summary"]
    link = f'href="{HERE}/{sent.id}.ics"'
    assert link in shop.get(HERE).text and "follow_up" not in json.dumps(told_of(conn, sent))
    conn.execute("UPDATE offer SET shop_data = json_set(shop_data, '$.follow_up', '2020-01-01')")
    assert "to be asked again" in shop.get("/").text
    page = shop.get(f"{HERE}/{sent.id}.html").text
    assert sent.number in page and "Kelp &amp; Oar" in page


def test_a_signature_is_strokes_and_nothing_else(sent, conn, app, shop):  # noqa: F811
    link, client = way(conn, sent.id), stranger(app)
    for bad in ("1,2<script>", "9999,1 2,2", "1,1 " * 9000):
        answer = client.post(link, data=YES | {"signature": bad})
        assert answer.status_code == 422 and "draw it again" in answer.text
    assert offers.events(conn, sent.id) == []
    client.post(link, data=YES | {"signature": "10,10 60,80;70,70 90,20"})
    assert offers.events(conn, sent.id)[0].signature == "10,10 60,80;70,70 90,20"
    page = shop.get(HERE).text
    assert 'aria-label="Signature as drawn"' in page and "M10.0 10.0L60.0 80.0" in page


def test_add_ons_that_are_ticked_are_summed_anew(shop, conn, app, no_paper):  # noqa: F811
    shop.post("/enquiry/5/extra", data={"letter": "A", "product": "lodvern-shunt"})
    offer = send(shop, conn)
    result = offers.content(conn, offer.id)
    (add_on,) = [y for y in result["alternatives"][0]["lines"] if y["optional"]]
    with app.app_context():
        sums = [with_add_ons(result, "A", ticked)["total"] for ticked in ((add_on["text"],), ())]
    both, bare = [x["minor"] for x in sums], sums[1]["text"]
    off = round(add_on["amount_minor"] * 0.95)  # 5 % in all
    assert both[0] - both[1] == pytest.approx(off, abs=1)
    assert both[0] == result["alternatives"][0]["sums"]["total"]["minor"]
    client, link = stranger(app), way(conn, offer.id)
    without = client.post(f"{link}/total/A", data={}).text
    assert bare in without
    assert client.post(f"{link}/total/Z").status_code == 404
    client.post(link, data=YES)
    assert f"In all {bare}" in shop.get(HERE).text


def test_parts_of_an_accepted_offer_are_ordered_by_stock(sent, conn, shop, app):  # noqa: F811
    assert "No offer is accepted yet" in shop.get("/enquiry/5/order").text
    assert shop.get("/enquiry/5/order.csv").status_code == 404
    stranger(app).post(way(conn, sent.id), data=YES)
    parts = offers.shop_data(conn, sent.id)["parts"]["A"]
    motor, battery = (next(x for x in parts if x["kind"] == k) for k in ("motors", "batteries"))
    for x, many in ((motor, 1), (battery, 0)):
        data = {"supplier": "Northern Parts", "in_stock": many, "buying": "500"}
        where = f"/catalogue/{x['kind']}/stock/{x['id']}"
        assert shop.post(where, data=data).status_code == 303
    page = shop.get("/enquiry/5/order").text
    assert "Northern Parts" in page and "own store" in page
    rows = shop.get("/enquiry/5/order.csv").text.splitlines()
    named = {r.split(",")[2].strip('"'): r.replace('"', "").split(",") for r in rows}
    assert named[motor["id"]][-1] == "0" and named[battery["id"]][-1] == str(battery["quantity"])
    shop.post("/enquiry/5/order", data={"do": "reserve"})
    assert stock.get(conn, "motors", motor["id"]).free == 0
    other = [stock.Wanted("motors", motor["id"], 1)]
    copy = conn.execute(
        "INSERT INTO offer SELECT NULL, 2, 2026, 99, 1, sent_at, valid_to, sent_by, data,"
        " shop_data, pdf FROM offer RETURNING id"
    ).fetchone()["id"]
    assert stock.reserve(conn, copy, other, "now") == 0  # promised once
    shop.post("/enquiry/5/order", data={"do": "ordered"})
    assert enquiries.get(conn, 5).stage == "ordered"
    assert [x.waits for x in finding.listed(conn) if x.id == 5] == ["handover"]
    shop.post("/enquiry/5/stage", data={"stage": "delivered"})
    left = stock.get(conn, "motors", motor["id"])
    assert (left.in_stock, left.reserved) == (0, 0)
    assert shop.post("/enquiry/5/order", data={"do": "steal"}).status_code == 422


def test_what_was_paid_is_the_shops_own(sent, conn, shop, app):  # noqa: F811
    parts = offers.shop_data(conn, sent.id)["parts"]["A"]
    for x in parts:
        data = {"supplier": "S", "in_stock": "2", "buying": "321.09"}
        shop.post(f"/catalogue/{x['kind']}/stock/{x['id']}", data=data)
    page = shop.get(HERE).text
    assert "this appears on no document" in page
    again = send(shop, conn)
    known = offers.shop_data(conn, again.id)["margins"]["A"]
    assert known[1] >= 4
    for text in (
        stranger(app).get(way(conn, again.id)).text,
        json.dumps(offers.content(conn, again.id)),
        words(offers.pdf(conn, again.id)),
    ):
        assert "321.09" not in text and "32109" not in text and "Northern" not in text
    shop.post("/play", data={"role": "reader"})
    kind, key = parts[0]["kind"], parts[0]["id"]
    assert "321.09" not in shop.get(f"/catalogue/{kind}/item/{key}").text
    shop.post("/play", data={"role": "advisor"})
    bad = {"in_stock": "many"}
    message = shop.post(f"/catalogue/{kind}/stock/{key}", data=bad, follow_redirects=True).text
    assert "Stock is not saved" in message and "321.09" in message


def test_two_who_send_at_once_get_two_numbers(shop, conn, app, monkeypatch, no_paper):  # noqa: F811
    tick(shop)
    shop.post("/enquiry/2/offer", data={"letter_A": "A"})
    tick(shop, "/enquiry/2/offer")
    written = sending.written

    def slow(c, s, going, *rest):
        ready = written(c, s, going, *rest)
        if going.enquiry_id == 5 and not offers.of_enquiry(c, 2):
            monkeypatch.setattr(sending, "written", written)
            with closing(db.connect(app.config["SETTINGS"].database)) as other:
                assert other.execute("PRAGMA database_list").fetchone()
            assert stranger_sends(app)
        return ready

    def stranger_sends(app):
        client = app.test_client()
        client.post("/play", data={"role": "advisor"})
        return client.post("/enquiry/2/offer/send", data={"after": "0"}).status_code == 303

    monkeypatch.setattr(sending, "written", slow)
    assert shop.post(f"{HERE}/send", data={"after": "0"}).status_code == 303
    numbers = conn.execute("SELECT enquiry_id, serial FROM offer ORDER BY serial").fetchall()
    assert [tuple(x) for x in numbers] == [(2, 1), (5, 2)]
