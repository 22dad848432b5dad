"""How many statements a page asks of the database, whatever it shows."""

from contextlib import closing
from dataclasses import replace

import pytest

from jolvek import shop
from jolvek.core.fit.as_set import AsSet
from jolvek.store import care, db, enquiries, setups
from tests.web.steps import pin

MOST = {
    "/": 10,
    "/enquiry/2/boat": 15,
    "/enquiry/2/waters": 12,
    "/enquiry/2/shortlist": 15,
    "/enquiry/2/side-by-side": 12,
    "/enquiry/2/day-out": 12,
    "/enquiry/2/fitting": 12,
    "/enquiry/2/offer": 20,
    "/catalogue/": 15,
    "/care": 10,
}


@pytest.fixture
def asked(monkeypatch):
    """The statements of each request, those alone that read or write rows."""
    seen, opened = [], db.connect_to_read

    def note(sql):
        if not sql.startswith(("PRAGMA", "BEGIN", "COMMIT")):
            seen.append(sql)

    def connect(path):
        conn, why = opened(path)
        conn.set_trace_callback(note)
        return conn, why

    monkeypatch.setattr(db, "connect_to_read", connect)
    return seen


def test_a_fleet_of_sixty_asks_no_more_than_one_of_three(fitted, asked, app):
    fitted.get("/care/fleet")
    with closing(db.connect(app.config["SETTINGS"].database)) as conn:
        found = enquiries.get(conn, 2)
        items = {p.kind: p.item for p in setups.of_enquiry(conn, 2)[0].parts}
        trips = [
            care.Trip(0, f"2026-10-{i:02d}", 2.0, 900.0, 0.9, 0.5, note="", who="Tove")
            for i in (2, 9)
        ]
        for i in range(60):
            by = shop.By("Tove", f"2026-11-{1 + i % 28:02d}T08:00:00")
            number = shop.enquiries.begin(conn, by, replace(found.enquiry, title=f"Launch {i}"))
            shop.setups.pin(conn, by, number, items, (1, 1, None), AsSet())
            shop.care.log_trips(conn, by, number, trips)
            shop.offers.set_stage(conn, by, number, "delivered")
    fitted.get("/care/fleet")
    asked.clear()
    page = fitted.get("/care/fleet")
    assert page.text.count("Launch ") >= 50
    assert 10 < len(asked) <= 30, "\n".join(x[:120] for x in asked)


@pytest.mark.parametrize("path", MOST)
def test_a_page_asks_no_more_than_it_needs(fitted, asked, path):
    pin(fitted, 2, 3)  # three setups
    fitted.get(path)
    asked.clear()
    assert fitted.get(path).status_code == 200
    assert 2 < len(asked) <= MOST[path], "\n".join(x[:120] for x in asked)
