"""Before an offer is sent: today's catalogue, the customer's language, wind that is too much, a
speed out of reach.
"""

from dataclasses import replace

import pytest

from jolvek.store import enquiries, offers, setups, shelf
from tests.web.stations.test_offer_sent import (  # noqa: F401
    DRAFT,
    HERE,
    PRICED,
    prepared,
    sent,
    shop,
    tick,
)


def motor(conn):
    """The motor of setup A, as it was pinned."""
    return next(p for p in setups.of_enquiry(conn, 5) if p.letter == "A").part("motor")


def moves(conn, **how):
    shelf.change(conn, [("motors", replace(motor(conn).item, **how))], "a new list", "2026-11-30")


def test_a_price_that_moved_keeps_the_draft_until_it_is_taken_over(shop, conn):  # noqa: F811
    then = motor(conn).price
    tick(shop)
    moves(conn, price=then + 250)
    refused = shop.post(f"{HERE}/send")
    assert refused.status_code == 422 and "now costs" in refused.text
    assert offers.of_enquiry(conn, 5) == []
    assert "Use today’s prices" in refused.text
    assert shop.post(f"{HERE}/today").status_code == 303
    assert motor(conn).price == motor(conn).item.price == then + 250
    tick(shop)
    assert shop.post(f"{HERE}/send").status_code == 303
    result = offers.content(conn, offers.of_enquiry(conn, 5)[0].id)["alternatives"][0]["lines"]
    assert any(x["price_minor"] == round(100 * (then + 250)) for x in result)


@pytest.mark.parametrize("column", [{"discontinued": True}, {"stock": "none"}])
def test_what_is_offered_no_more_is_not_sent(shop, conn, column):  # noqa: F811
    tick(shop)
    moves(conn, **column)
    refused = shop.post(f"{HERE}/send")
    assert refused.status_code == 422 and "is no longer available" in refused.text
    shop.post(f"{HERE}/today")  # no price mends that
    assert shop.post(f"{HERE}/send").status_code == 422 and offers.of_enquiry(conn, 5) == []


def test_the_customers_language_is_the_shops_until_the_draft_says_another(shop, conn):  # noqa: F811
    shop.post("/play", data={"role": "owner"})
    assert shop.post("/settings", data=PRICED | {"language": "German"}).status_code == 303
    shop.post("/play", data={"role": "advisor"})
    assert '<option value="de" selected>' in " ".join(shop.get(HERE).text.split())
    tick(shop)
    assert shop.post(f"{HERE}/send").status_code == 303
    first = offers.of_enquiry(conn, 5)[0]
    assert offers.content(conn, first.id)["language"] == "de"
    shop.post(HERE, data=DRAFT | {"language": "fr"})
    tick(shop)
    assert shop.post(f"{HERE}/send", data={"after": first.id}).status_code == 303
    again = offers.content(conn, offers.of_enquiry(conn, 5)[0].id)
    assert again["language"] == "fr" and again["changed"] == []  # another language is no change
    assert shop.post(HERE, data=DRAFT | {"language": "xx"}).status_code == 422


def test_the_customers_wind_says_when_to_stay_ashore(sent, conn):  # noqa: F811
    """Enquiry 5's boat goes out in no more wind than its length bears; Day out says stop there."""
    winds = offers.content(conn, sent.id)["alternatives"][0]["winds"]
    rows = [x["told"] for x in winds]
    assert rows[0].startswith("Home at") and rows[-1].startswith("Stay ashore: ")
    assert "stays ashore, whatever the battery says" in rows[-1] and "%" not in rows[-1]


def test_a_speed_out_of_reach_is_ticked_by_name(shop, conn):  # noqa: F811
    tick(shop)
    day = enquiries.get(conn, 5).need.day
    fast = replace(day, legs=(), speed_m_s=9.0)
    enquiries.change(
        conn, 5, lambda e: replace(e, need=replace(e.need, day=fast)), "2026-11-30T08:00:00"
    )
    refused = shop.post(f"{HERE}/send")
    assert refused.status_code == 422 and "so the day takes longer" in refused.text


def test_other_figures_at_the_same_price_are_told_at_the_setup(shop, conn):  # noqa: F811
    then = motor(conn)
    moves(conn, spec=replace(then.item.spec, mass_kg=then.item.spec.weight_kg + 4))
    for page in ("side-by-side", "offer"):
        assert "has other figures for" in shop.get(HERE.replace("offer", page)).text, page
    here = HERE.replace("offer", "side-by-side")
    part = f"A|motor|{then.item.id}"
    answer = shop.post(f"{HERE}/today", data={"part": part, "back": here}, follow_redirects=True)
    assert "has other figures for" not in answer.text and "What changed:" in answer.text
    assert motor(conn).item.spec.weight_kg == then.item.spec.weight_kg + 4
