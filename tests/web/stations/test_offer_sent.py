"""An offer is drafted, its cautions are ticked, it is sent whole or not at all, and nothing of it
moves afterwards; the customer answers by a link.
"""

import email
import io
import json
import re
import sqlite3
from dataclasses import replace
from datetime import UTC, datetime, timedelta
from email.policy import default
from html import unescape

import pytest
from pypdf import PdfReader

from jolvek.shop import letters
from jolvek.store import db, enquiries, finding, offers, outbox, trail
from jolvek.web.kit.figures import unmarked
from jolvek.web.stations.offer import sending
from tests.web.steps import boat_form

HERE = "/enquiry/5/offer"
DRAFT = {
    "letter_A": "A",
    "letter_B": "B",
    "discount": "5",
    "deposit": "30",
    "free0_text": "Launching",
    "free0_price": "150",
    "free0_tax": "12",
}
PRICED = {
    "fitting_rate": "80",
    "wiring_rate": "90",
    "tax_rates": "25",
    "tax_included": "1",
    "cable_price": "0.6",
    "piece_price": "12",
    "name": "Kelp & Oar",
    "currency": "EUR",
    "language": "English",
    "units": "sea: kn, m, kg",
    "reserve_school": "fifth",
    "mail": "shop@kelp.example",
    "terms": "Thirty days.",
    "follow_days": "7",
    "season_from": "4",
    "season_to": "10",
}


@pytest.fixture(scope="session")
def prepared(one_app, pinned, tmp_path_factory):
    """A shop with its prices and a draft of two setups, and the same with the offer sent; each made
    once and copied for each test.
    """
    folder, asked = tmp_path_factory.mktemp("offers"), dict(one_app.config)
    conn = db.connect(folder / "jolvek.db")
    pinned.backup(conn)
    own = replace(asked["SETTINGS"], data_dir=folder)
    one_app.config.update(SETTINGS=own, WTF_CSRF_ENABLED=False, TESTING=True)
    client = one_app.test_client()
    client.post("/play", data={"role": "owner"})
    assert client.post("/settings", data=PRICED).status_code == 303
    client.post("/play", data={"role": "advisor"})
    form = boat_form(client, 5) | {"mail": "runa@vik.example", "note": "inner note"}
    client.post("/enquiry/5/boat", data=form)
    client.post(HERE, data=DRAFT)
    drafted = db.connect(folder / "drafted.db")
    conn.backup(drafted)
    tick(client)
    assert client.post(f"{HERE}/send").status_code == 303
    one_app.config.clear()
    one_app.config.update(asked)
    yield drafted, conn
    drafted.close()
    conn.close()


@pytest.fixture
def shop(client, conn, prepared):
    prepared[0].backup(conn)
    return client


@pytest.fixture
def no_paper(monkeypatch):
    """Papers are written in other tests; here they only take time."""
    monkeypatch.setattr(sending.pdf, "write", lambda html: b"%PDF-1.7")


def tick(client, here=HERE):
    keys = re.findall(r'name="caution"\s+value="([^"]+)"', client.get(here).text)
    client.post(f"{here}/acknowledge", data={"caution": [unescape(k) for k in keys]})


@pytest.fixture
def sent(shop, conn, prepared):
    prepared[1].backup(conn)
    return offers.of_enquiry(conn, 5)[0]


def stranger(app):
    return app.test_client()


def way(conn, offer_id):
    return f"/o/{offers.make_link(conn, offer_id, '2099-01-01')}"


def words(pdf):
    return " ".join(page.extract_text() for page in PdfReader(io.BytesIO(pdf)).pages)


def test_an_open_caution_keeps_it_from_being_sent(shop, conn):
    page = shop.get(HERE).text
    assert "to be confirmed first" in page
    refused = shop.post(f"{HERE}/send")
    assert refused.status_code == 422 and "to be confirmed first" in refused.text
    assert offers.of_enquiry(conn, 5) == []
    tick(shop)
    assert "Eskil Holmgard" in shop.get(HERE).text
    form = boat_form(shop, 5) | {"customer": ""}
    shop.post("/enquiry/5/boat", data=form)
    assert "no name yet" in shop.post(f"{HERE}/send").text


def test_lines_are_those_of_the_setup_and_its_netlist_and_add_up(sent, conn, app):
    result = offers.content(conn, sent.id)
    assert [x["letter"] for x in result["alternatives"]] == ["A", "B"]
    for x in result["alternatives"]:
        kinds = {y["kind"] for y in x["lines"]}
        assert {"part", "wiring", "labour", "free"} <= kinds
        named = " ".join(y["text"] for y in x["lines"])
        assert all(
            w in named for w in ("Cable", "Lugs", "Fuse", "Battery switch", "Mounting", "Launching")
        )
        counted = [y for y in x["lines"] if y["ticked"] or not y["optional"]]
        total = sum(y["amount_minor"] for y in counted) - x["sums"]["off"]["minor"]
        assert total == x["sums"]["total"]["minor"] > 100_000
        assert x["sums"]["deposit"]["minor"] == pytest.approx(0.3 * total, abs=1)
        x = unmarked(x)
        assert "manage it" in x["verdict"] and "four such boats" in x["between"]
    assert result["differences"] and result["number"] == f"{datetime.now().year}-0001"


def test_what_the_customer_gets_holds_nothing_of_the_shops_own(sent, conn, app):
    page = stranger(app).get(way(conn, sent.id)).text
    result = json.dumps(offers.content(conn, sent.id))
    for text in (page, result, words(offers.pdf(conn, sent.id))):
        assert "inner note" not in text and "margin" not in text and "buying" not in text
        for other in ("Tolsen", "Averby", "Lindqvale"):  # other customers of the demo
            assert other not in text
    assert 'href="/enquiry' not in page and "Counter" not in page
    assert offers.shop_data(conn, sent.id)["note"] == "inner note"


def test_a_sent_offer_moves_no_more(sent, conn, shop):
    paper, result = offers.pdf(conn, sent.id), offers.content(conn, sent.id)
    shop.post("/enquiry/5/boat", data=boat_form(shop, 5) | {"beam": "2.9", "title": "Other"})
    conn.execute("UPDATE motor SET price = price * 2")
    shop.post(HERE, data={"letter_A": "A", "valid_days": "9"})
    assert offers.pdf(conn, sent.id) == paper and offers.content(conn, sent.id) == result
    got = shop.get(f"{HERE}/{sent.id}.pdf")
    assert got.data == paper and got.mimetype == "application/pdf"
    assert shop.get(f"{HERE}/{sent.id}.json").json == result
    rows = shop.get(f"{HERE}/{sent.id}.csv").text.splitlines()
    assert len(rows) == 1 + sum(len(x["lines"]) for x in result["alternatives"])
    assert shop.get(f"/enquiry/2/offer/{sent.id}.pdf").status_code == 404


def test_the_paper_is_tagged_and_says_whose_it_is(sent, conn):
    paper = offers.pdf(conn, sent.id)
    reader, text = PdfReader(io.BytesIO(paper)), words(offers.pdf(conn, sent.id))
    assert reader.trailer["/Root"]["/MarkInfo"]["/Marked"]
    for part in ("Kelp & Oar", sent.number, "Ullmere Boat Hire", "Thirty days.", "Total"):
        assert part in text
    assert f"1 / {len(reader.pages)}" in text


def test_a_revision_keeps_the_number_and_the_old_link_leads_to_it(sent, conn, shop, app):
    old = way(conn, sent.id)
    asked = {"do": "accepted", "name": "Runa", "agree": "1", "letter": "A", "offer": sent.id}
    assert stranger(app).get(old).status_code == 200
    assert f"Nothing has changed since {sent.number} was sent." in shop.get(HERE).text
    shop.post(HERE, data={"letter_A": "A", "discount": "10"})
    since = shop.get(HERE).text.split(f"Since {sent.number} was sent:")[1]
    assert "Setup B is left out." in since and " is now " in since
    tick(shop)
    assert shop.post(f"{HERE}/send", data={"after": sent.id}).status_code == 303
    again = offers.of_enquiry(conn, 5)[0]
    assert (again.serial, again.revision) == (sent.serial, 2) and "rev. 2" in again.number
    changes = offers.content(conn, again.id)["changed"]
    assert "Setup B is left out." in changes and any("is now" in x for x in changes)
    page = stranger(app).get(old).text
    assert f"Offer {sent.number} was revised" in page and again.number in page
    late = stranger(app).post(old, data=asked)  # from a page that was open before
    assert late.status_code == 422 and "revised meanwhile" in late.text
    link = shop.post(f"{HERE}/link", data={"offer": sent.id})
    assert link.status_code == 422 and "make the link on" in link.text
    for wrong in ({"letter": "C"}, {"letter": ""}):
        answer = stranger(app).post(old, data={**asked, "offer": again.id, **wrong})
        assert answer.status_code == 422 and "choose which of the setups" in answer.text
    assert offers.events(conn, sent.id) == offers.events(conn, again.id) == []
    shop.post(f"{HERE}/link", data={"offer": again.id, "shut": "1"})
    gone = stranger(app).get(old)
    assert gone.status_code == 404 and "Kelp &amp; Oar" in gone.text
    shop.post("/enquiry/2/offer", data={"letter_A": "A"})
    tick(shop, "/enquiry/2/offer")
    shop.post("/enquiry/2/offer/send")
    assert offers.of_enquiry(conn, 2)[0].serial == sent.serial + 1


def test_the_mail_carries_paper_and_link_and_is_written_once(shop, conn, app):
    tick(shop)
    shop.post(f"{HERE}/send", data={"mail": "1"})
    sent = offers.of_enquiry(conn, 5)[0]
    folder = app.config["SETTINGS"].data_dir / "outbox"
    (path,) = folder.glob("*.eml")
    mail = email.message_from_bytes(path.read_bytes(), policy=default)
    assert mail["X-Simulated"] and mail["To"] == "runa@vik.example"
    assert mail["Date"] and re.fullmatch(r"<\S+@kelp\.example>", mail["Message-ID"])
    assert mail.get_body().get_content().startswith("Dear Ullmere Boat Hire,")
    assert mail["From"] == "shop@kelp.example" and sent.number in mail["Subject"]
    (paper,) = mail.iter_attachments()
    assert paper.get_content() == offers.pdf(conn, sent.id)
    link = re.search(r"http://localhost(/o/[\w-]+)", mail.get_body().get_content())[1]
    assert stranger(app).get(link).status_code == 200
    assert letters.hand_on(conn, None, "x") == 0  # nothing waits


def test_it_is_sent_whole_or_not_at_all(shop, conn, monkeypatch, no_paper):
    tick(shop)
    for module, where in ((offers, "add_link"), (outbox, "post")):

        def broken(*_args, **_more):
            raise sqlite3.OperationalError("disk is full")

        with monkeypatch.context() as m:
            m.setattr(module, where, broken)
            assert shop.post(f"{HERE}/send", data={"mail": "1"}).status_code == 507
        assert offers.of_enquiry(conn, 5) == [] and outbox.unposted(conn) == []
        assert enquiries.get(conn, 5).stage == "open"
    shop.post(f"{HERE}/send", data={"mail": "1"})
    assert [x.serial for x in offers.of_enquiry(conn, 5)] == [1]


def test_the_customer_asks_accepts_once_and_the_enquiry_follows(sent, conn, app, shop):
    client, link = stranger(app), way(conn, sent.id)
    page = client.get(link)
    assert page.headers["X-Robots-Tag"].startswith("noindex") and "data-step" in page.text
    assert offers.link(conn, sent.id).opened_at
    for data, result in (
        ({"do": "asked"}, "write your question"),
        ({"do": "accepted", "agree": "1"}, "your name"),
        ({"do": "accepted", "name": "Runa"}, "read the cautions"),
        ({"do": "declined"}, "a word why"),
        ({"do": "stolen"}, "choose what to do"),
    ):
        answer = client.post(link, data=data)
        assert answer.status_code == 422 and result in answer.text
    client.post(link, data={"do": "asked", "text": "May I drill? <b>"})
    assert "the customer wrote" in shop.get("/").text
    shown = shop.get(HERE).text
    assert "the customer asked" in shown and "&lt;b&gt;" in shown
    client.post(link, data={"do": "accepted", "name": "Runa Vik", "agree": "1", "letter": "B"})
    assert enquiries.get(conn, 5).stage == "ordered"
    assert finding.listed(conn)[0].waits == "order"
    event = offers.events(conn, sent.id)[0]
    assert (event.kind, event.letter, event.who) == ("accepted", "B", "Runa Vik")
    again = client.post(link, data={"do": "declined", "text": "no"})
    assert again.status_code == 422 and "You have accepted this offer" in again.text
    shop.post(f"{HERE}/seen")
    assert offers.events(conn, sent.id)[0].seen_by == "Eskil Holmgard"
    assert "the customer wrote" not in shop.get("/").text
    assert client.get(f"{link}/offer.pdf").data == offers.pdf(conn, sent.id)


def test_a_link_that_is_guessed_shut_or_over_shows_nothing(sent, conn, app, shop):
    client = stranger(app)
    assert client.get("/o/guessed").status_code == 404
    link = way(conn, sent.id)
    shop.post(f"{HERE}/link", data={"offer": sent.id, "shut": "1"})
    over = f"/o/{offers.make_link(conn, sent.id, '2020-01-01')}"
    for dead in (link, over, f"{link}/offer.pdf"):
        answer = client.get(dead)
        assert answer.status_code == 404 and "no longer valid" in answer.text
        assert client.post(dead, data={"do": "asked", "text": "x"}).status_code in (404, 405)
    assert offers.events(conn, sent.id) == []
    page = shop.post(f"{HERE}/link", data={"offer": sent.id}, follow_redirects=True).text
    fresh = re.search(r'value="http://localhost(/o/[\w-]+)"', page)[1]
    assert client.get(fresh).status_code == 200
    token = conn.execute("SELECT token FROM offer_link ORDER BY rowid DESC").fetchone()["token"]
    assert token not in fresh
    later = datetime.now(UTC) + timedelta(days=400)
    assert offers.by_token(conn, fresh.removeprefix("/o/"), later) is None
    codes = [client.get("/o/guess").status_code for _ in range(70)]
    assert codes[-1] == 429
    assert {"offer sent", "link shut", "link made"} <= {s.action for s in trail.all_of(conn)}


REFUSED = [
    ({"discount": "101"}, "0 to 100"),
    ({"deposit": "-1"}, "0 to 100"),
    ({"instalments": "0"}, "1 to 60"),
    ({"valid_days": "many"}, "many"),
    ({"free0_text": "x", "free0_price": "a lot"}, "a lot"),
    ({"free0_text": "x", "free0_tax": "99"}, "0 to 50"),
]


@pytest.mark.parametrize(("change", "told"), REFUSED, ids=[str(c) for c, _ in REFUSED])
def test_a_refused_figure_of_the_draft_is_told_and_the_rest_is_kept(shop, conn, change, told):
    answer = shop.post(HERE, data={"letter_A": "A", "discount": "7"} | change)
    assert answer.status_code == 422 and told in answer.text
    kept = offers.draft(conn, 5)
    assert kept["letters"] == ["A"]
    assert kept["discount"] == (5.0 if "discount" in change else 7.0)


def test_units_are_those_it_was_sent_in_whoever_reads(sent, conn, shop, app):
    shop.post("/units", data={"speed": "km/h", "distance": "km"})
    assert "Speed, km/h" in shop.get(HERE).text
    shop.post(f"{HERE}/send", data={"after": str(sent.id)})
    again = offers.of_enquiry(conn, 5)[0]
    result = offers.content(conn, again.id)["alternatives"][0]
    page = stranger(app).get(way(conn, again.id)).text  # whose own units are knots
    assert "Speed, km/h" in page and "Range, km" in page and "Speed, kn" not in page
    result = unmarked(result)
    assert "km/h" in result["answer"] and result["expected"][0][1] in page


def test_a_second_press_sends_no_second_time(shop, conn, no_paper):
    tick(shop)
    first = {"after": "0", "mail": "1"}
    assert shop.post(f"{HERE}/send", data=first).status_code == 303
    again = shop.post(f"{HERE}/send", data=first)
    assert again.status_code == 422 and "It was sent just now" in again.text
    assert len(offers.of_enquiry(conn, 5)) == 1
    assert conn.execute("SELECT count(*) FROM outbox").fetchone()[0] == 1


def test_what_is_no_mail_address_is_not_written_to(shop, conn, no_paper):
    tick(shop)
    for mail in ("a@b\r\nBcc: x@y", "<a b@c>", "a@b,c@d"):
        rows = (mail, "One\r\nBcc: x")
        conn.execute("UPDATE enquiry SET mail = ?, title = ? WHERE id = 5", rows)
        refused = shop.post(f"{HERE}/send", data={"after": "0", "mail": "1"})
        assert refused.status_code == 422 and "allowed is an address" in refused.text, mail
        assert offers.of_enquiry(conn, 5) == []
    conn.execute("UPDATE enquiry SET mail = 'a@b.example' WHERE id = 5")
    assert shop.post(f"{HERE}/send", data={"after": "0", "mail": "1"}).status_code == 303
    mail = email.message_from_bytes(
        conn.execute("SELECT mail FROM outbox").fetchone()["mail"], policy=default
    )
    assert mail["Bcc"] is None and mail["To"] == "a@b.example" and "Bcc: x" in mail["Subject"]


def test_only_add_ons_that_were_offered_are_taken(shop, conn, app):
    shop.post("/enquiry/5/extra", data={"letter": "A", "product": "lodvern-shunt"})
    tick(shop)
    shop.post(f"{HERE}/send", data={"after": "0"})
    sent = offers.of_enquiry(conn, 5)[0]
    result = offers.content(conn, sent.id)["alternatives"][0]
    (name,) = [y["text"] for y in result["lines"] if y["optional"]]
    yes = {
        "do": "accepted",
        "letter": "A",
        "name": "Runa",
        "agree": "1",
        "addon-A": [name, "a yacht"],
        "addon-B": [name],
    }
    stranger(app).post(way(conn, sent.id), data=yes)
    assert offers.events(conn, sent.id)[0].ticked == (name,)


def test_two_who_tick_at_once_lose_neither(shop, conn):
    keys = [
        unescape(k) for k in re.findall(r'name="caution"\s+value="([^"]+)"', shop.get(HERE).text)
    ]
    assert len(keys) >= 2
    for key in keys[:2]:
        shop.post(f"{HERE}/acknowledge", data={"caution": [key]})
    shop.post(HERE, data=DRAFT | {"deposit": "20"})  # a draft page that was open before
    assert set(offers.draft(conn, 5)["acknowledged"]) == set(keys[:2])


def test_a_mail_that_a_crash_left_is_handed_on_by_itself_once(shop, conn, app, monkeypatch):
    from jolvek.web import edge
    from jolvek.web.stations.offer import page as offer

    tick(shop)
    monkeypatch.setattr(offer, "_post", lambda: None)  # the crash
    shop.post(f"{HERE}/send", data={"after": "0", "mail": "1"})
    assert len(outbox.unposted(conn)) == 1
    settings = app.config["SETTINGS"]
    for _ in range(2):
        edge.hand_on_mail(settings)
    assert len(list((settings.data_dir / "outbox").glob("*.eml"))) == 1
    assert outbox.unposted(conn) == []


def test_a_reader_sees_the_offer_and_no_draft(sent, shop):
    shop.post("/play", data={"role": "reader"})
    page = shop.get(HERE).text
    assert "Total" in page and "Save the draft" not in page and ">Send" not in page
