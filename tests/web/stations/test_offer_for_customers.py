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
from jolvek.web.kit import display, language
from jolvek.web.kit.drawings.charge_picture import charge_picture
from jolvek.web.kit.figures import unmarked
from jolvek.web.shared import frame
from jolvek.web.stations.offer.customers_page import shown
from jolvek.web.stations.offer.drafted import drafted, sheet
from jolvek.web.stations.offer.for_customer import SLOW_SHARE, headline, two_speeds
from jolvek.web.stations.offer.lines import grouped
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


@pytest.fixture
def made(desk):
    """The content of the hire launch's draft with what its sliders step through."""
    draft(desk, HIRE, "ABC")
    with desk.application.test_request_context():
        f = frame(HIRE, "offer")
        return unmarked(sheet(f, *drafted(f), "en", whole=True).content)


def test_the_rows_that_a_customer_reads_add_up_to_the_total(made, one_app):
    with one_app.app_context():
        rows_of = {x["letter"]: grouped(x, made["currency"]) for x in made["alternatives"]}
    for x in made["alternatives"]:
        rows = rows_of[x["letter"]]
        small = next(r for r in rows if r["inside"])
        inside = sum(y["amount_minor"] for y in small["inside"])
        assert int(re.sub(r"\D", "", small["amount"])) == inside > 0
        parts = sum(r["amount_minor"] for r in rows if not r["inside"] and not r["optional"])
        assert parts + inside - x["sums"]["off"]["minor"] == x["sums"]["total"]["minor"]


def hours_of(text):
    h, minutes = text.split(":")
    return int(h) + int(minutes) / 60


def test_speed_time_and_range_fit_each_other_on_every_step_of_the_slider(made):
    for x in made["alternatives"]:
        at = x["speeds"][x["asked"]]
        assert {k: at[k] for k in at} == x["figures"]
        assert at["range"] == x["expected"][0][4] and at["time"] == x["expected"][0][3]
        for s in x["speeds"]:
            speed, far, time = float(s["speed"]), float(s["range"]), hours_of(s["time"])
            assert far == pytest.approx(speed * time, rel=0.06, abs=0.3)
            if s["time_band"]:
                times = [hours_of(t) for t in s["time_band"].split("–")]
                ways = [float(t) for t in s["range_band"].split("–")]
                assert times[0] < time < times[1] and ways[0] < far < ways[1]
                assert times[1] / times[0] == pytest.approx(ways[1] / ways[0], rel=0.05)
        fast = [float(s["speed"]) for s in x["speeds"]]
        assert fast == sorted(fast) and float(x["speeds"][0]["range"]) > float(at["range"])


def test_the_first_sentence_is_that_of_the_day_worked_out(desk, conn):
    """Longer and longer: well home, home if all goes well, below the reserve, not home."""
    seen_of = set()
    day = enquiries.get(conn, 7).need.day

    def ending(out):
        if not out.planned.done:
            return "is too long"
        if not out.planned.home:
            return "gets home from"
        return "likely" if out.between[0].done else "more power than expected"

    for share in (1.0, 1.6, 1.8, 1.9, 2.0, 2.1, 2.3, 2.6, 3.5):
        far = share * day.distance_m
        change = lambda e, m=far: replace(  # noqa: E731
            e, need=replace(e.need, day=replace(e.need.day, distance_m=m))
        )
        enquiries.change(conn, 7, change, "2026")
        with desk.application.test_request_context():
            f = frame(7, "offer")
            _, worked = drafted(f)
            says = unmarked(headline(worked[0], display.current()))
            out = worked[0].job.day
        assert ending(out) in says
        seen_of.add(ending(out))
        if out.planned.done:
            assert f"*{100 * out.planned.left:.0f}\u00a0%*" in says
    assert len(seen_of) >= 3


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
    assert "is incomplete" not in desk.get(here).text
    french = language._catalogue("fr")
    monkeypatch.delitem(french._catalog, "Please know")
    page = desk.get(here).text
    assert "The offer in Français is incomplete: “Please know” has no translation." in page
    keys = re.findall(r'name="caution"\s+value="([^"]+)"', page)
    assert any(x.startswith("own words: en for fr") for x in keys)
    desk.post(f"{here}/acknowledge", data={"caution": keys})
    refused = desk.post(f"{here}/send", data={"after": "0"})
    assert refused.status_code == 422 and offers.of_enquiry(conn, HIRE) == []


def test_the_owners_two_speeds_are_the_asked_one_and_an_easy_one(desk):
    with desk.application.test_request_context():
        f = frame(HIRE, "offer")
        w = drafted(f)[1][0]
        (far, band, fast), (further, _, slow) = unmarked(two_speeds(w, display.current()))
    speeds = [float(x.split("\u00a0")[0]) for x in (fast, slow)]
    assert speeds[1] == pytest.approx(SLOW_SHARE * speeds[0], abs=0.06)
    at = w.performance.at_speed(SLOW_SHARE * w.wish_or_top_m_s)
    assert float(further) == pytest.approx(at.range_m / 1852, abs=0.06) and further > far
    low, high = (float(x) for x in band.split("–"))
    assert low < float(far) < high


def test_the_picture_of_the_charge_ends_at_what_is_left(desk):
    with desk.application.test_request_context():
        out = drafted(frame(HIRE, "offer"))[1][0].job.day
        svg = str(charge_picture(out))
    line = re.search(r'<path d="M([^"]+)" class="sum-line"', svg)[1]
    ys = [float(p.split()[1]) for p in re.split("[ML]", line)]
    full, empty = 24.0, 174.0  # the panel's top and bottom
    shares = [(empty - y) / (empty - full) for y in ys]
    assert shares[0] == pytest.approx(out.planned.soc[0], abs=0.01)
    assert shares[-1] == pytest.approx(out.planned.left, abs=0.01)
    assert f"from {100 * out.planned.soc[0]:.0f} %" in svg
