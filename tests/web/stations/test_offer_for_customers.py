"""What the customer reads: their day first, figures with what they may be between, prices in rows,
each caution once and none of the shop's own, on few pages and in their language.
"""

import io
import re
from dataclasses import replace

import pytest
from pypdf import PdfReader

from jolvek.core.rules.readers import FOR_SHOP, for_customer
from jolvek.core.rules.rulebook import RULES
from jolvek.store import enquiries, offers, owners
from jolvek.web.kit import language
from jolvek.web.kit.figures import unmarked
from jolvek.web.shared import frame
from jolvek.web.stations.offer.customers_page import shown
from jolvek.web.stations.offer.drafted import drafted, sheet
from jolvek.web.stations.offer.sending import paper_page

HIRE = 9  # a launch with three setups pinned


@pytest.fixture
def desk(client, conn, working):
    working.backup(conn)
    return client


def draft(client, number, letters):
    named = {f"letter_{x}": x for x in letters}
    assert client.post(f"/enquiry/{number}/offer", data=named).status_code == 303


def main(page):
    return re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", page.split("<main")[1].split("</main")[0]))


@pytest.mark.parametrize(
    ("number", "letters", "most"), [(HIRE, "A", 2), (13, "A", 2), (HIRE, "ABC", 3)]
)
def test_an_offer_is_signed_on_its_second_page_or_third_where_three_are_offered(
    desk, number, letters, most
):
    draft(desk, number, letters)
    paper = PdfReader(io.BytesIO(desk.get(f"/enquiry/{number}/offer/draft.pdf").data))
    texts = [re.sub(r"\s+", " ", p.extract_text()) for p in paper.pages]
    signed = next(i for i, text in enumerate(texts, 1) if "Accepted: place, date, name" in text)
    assert signed <= most and len(texts) <= most + (len(letters) > 1)
    assert texts[0].count("Total") == 1 and "Your boat" in texts[0]
    assert len(texts[-1]) > 600  # no page with a rest alone


def test_the_first_words_are_the_day_and_no_watt_or_lug_stands_before_the_price(desk):
    draft(desk, HIRE, "AB")
    page = desk.get(f"/enquiry/{HIRE}/offer/page").text
    assert re.search(r"<h1 class=\"answer\">Your boat does <strong>your day</strong>", page)
    before = main(page).split("Cables, fuses and fitting")[0]
    first = before.split("How fast would you go?")[0]
    assert re.search(r"likely \d", first) and not re.search(r"\d W\b|\bA\b.*\bmm²", first)
    assert "Lugs" not in before and page.count("<details") >= 4
    assert 'href="/enquiry' not in page.split("<main")[1]  # nothing of the shop's leads on


def test_each_caution_stands_once_and_the_shops_own_hints_not_at_all(desk):
    draft(desk, HIRE, "ABC")
    desk.get(f"/enquiry/{HIRE}/offer")
    paper = main(desk.get(f"/enquiry/{HIRE}/offer").text).split("Please know")[1]
    assert paper.count("Life jackets on, kill cord clipped") == 1
    assert set(FOR_SHOP) <= set(RULES)
    assert {x for x in FOR_SHOP if RULES[x].level != "note"} == {
        "thrust-claim",
        "thrust-impossible",
        "throttle-cable",
    }
    assert not for_customer("beyond-tried") and for_customer("below-reserve")


@pytest.mark.parametrize(
    ("share", "says"),
    [(1.0, "Your boat does <strong>your"), (2.2, "<strong>Your whole day is too long</strong>")],
)
def test_a_day_that_is_too_long_is_said_so(desk, conn, share, says):
    def longer(e):
        day = e.need.day
        return replace(e, need=replace(e.need, day=replace(day, distance_m=share * day.distance_m)))

    enquiries.change(conn, 7, longer, "2026")
    assert says in desk.get("/enquiry/7/offer/page").text


def test_an_offer_of_an_earlier_year_still_opens(desk, conn):
    draft(desk, HIRE, "AB")
    with desk.application.test_request_context():
        f = frame(HIRE, "offer")
        made = unmarked(sheet(f, *drafted(f), "en").content)
        for x in made["alternatives"]:
            for key in ("figures", "drawing", "charge", "what"):
                x.pop(key, None)
            x["findings"] = [{k: v for k, v in y.items() if k != "about"} for y in x["findings"]]
            x["lines"] = [{k: v for k, v in y.items() if k != "what"} for y in x["lines"]]
        made.pop("beside")
        page, paper = shown({**made, "number": "2025-0007"}), paper_page(made)
    assert "2025-0007" in page and "Cables, fuses and fitting" in paper


def test_what_would_stay_english_is_named_and_keeps_it_from_being_sent(desk, conn, monkeypatch):
    owners.set_language(conn, HIRE, "fr")
    here = f"/enquiry/{HIRE}/offer"
    assert "is not complete" not in desk.get(here).text
    french = language._catalogue("fr")
    monkeypatch.delitem(french._catalog, "Please know")
    page = desk.get(here).text
    assert "Français is not complete: “Please know” would be English." in page
    keys = re.findall(r'name="caution"\s+value="([^"]+)"', page)
    assert any(x.startswith("own words: en for fr") for x in keys)
    desk.post(f"{here}/acknowledge", data={"caution": keys})
    refused = desk.post(f"{here}/send", data={"after": "0"})
    assert refused.status_code == 422 and offers.of_enquiry(conn, HIRE) == []
