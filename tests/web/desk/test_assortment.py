"""What to stock, through its page: worked out with progress, chosen, changed, as a table."""

import re
import time

import pytest

from jolvek.store import stock
from jolvek.store.stock import Stock
from jolvek.web.desk.catalogue.stocking import STOCKING


@pytest.fixture
def buyer(client, conn, app):
    client.post("/play", data={"role": "advisor"})
    return client


def worked(client, app, **form):
    client.post("/assortment", data=form)
    work = STOCKING.get(app.config["SETTINGS"].database)
    for _ in range(600):
        if work.ready:
            return work
        time.sleep(0.1)
    raise AssertionError("it does not end")


def test_the_choice_serves_what_it_says_and_follows_the_money(buyer, app, conn):
    assert "which few products" in buyer.get("/assortment").text
    assert buyer.get("/assortment/stock.csv").status_code == 404
    work = worked(buyer, app, of="own")
    assert work.count == work.done == 6
    page = buyer.get("/assortment").text
    result = re.search(r"<strong>(\d+) of 6</strong> customers’ days with (\d+) products", page)
    assert 0 < int(result[1]) <= 6 and int(result[2]) >= 3
    all_of_it = buyer.get("/assortment?budget=100000").text
    assert "6 of 6" in all_of_it and "No other choice for that money serves more" in all_of_it
    few = buyer.get("/assortment?budget=100000&most_motors=1").text
    rows = buyer.get("/assortment/stock.csv?budget=100000&most_motors=1").text.splitlines()
    stocked = [r for r in rows if r.startswith("yes")]
    assert sum(",motors," in r for r in stocked) == 1 and "6 of 6" not in few
    assert all(float(r.split(",")[-1]) < 0 for r in stocked)  # none is there for nothing
    assert "0 of 6" in buyer.get("/assortment?budget=1").text
    dear = max(work.demand.products, key=lambda p: p.stock_value)
    kept = buyer.get(f"/assortment/stock.csv?budget=100000&keep={dear.id}").text.splitlines()
    assert any(r.startswith("yes") and dear.title in r for r in kept)
    middle = work.front[len(work.front) // 2]  # the page is never worse than its own picture
    here = buyer.get(f"/assortment?budget={middle.value + 1:.0f}").text
    assert int(re.search(r"<strong>(\d+) of 6", here)[1]) >= middle.coverage
    bad = buyer.get("/assortment?budget=much").text
    assert "read “much”" in bad and "of 6" in bad


def test_what_a_product_costs_the_shop_is_what_it_ties_up(buyer, app, conn):
    rows = worked(buyer, app, of="own").demand.products
    one = max(rows, key=lambda p: p.stock_value)
    stock.keep(conn, one.kind, one.id, Stock(buying_minor=12345))
    again = worked(buyer, app, of="own").demand.products
    assert next(p for p in again if p.id == one.id).stock_value == 123.45


def test_typical_enquiries_and_what_nothing_serves(buyer, app):
    work = worked(buyer, app, of="typical", count="10")
    assert work.count == 10
    page = buyer.get("/assortment").text
    assert "of 10" in page and "Nothing in the catalogue does these" in page
    assert "kWh (lithium), light enough for a" in page
    assert buyer.post("/assortment", data={"of": "typical", "count": "3"}).status_code == 422
    assert buyer.post("/assortment", data={"of": "else"}).status_code == 422
