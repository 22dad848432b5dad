"""How many statements a page asks of the database, whatever it shows."""

import pytest

from jolvek.store import db
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


@pytest.mark.parametrize("path", MOST)
def test_a_page_asks_no_more_than_it_needs(fitted, asked, path):
    pin(fitted, 2, 3)  # three setups
    fitted.get(path)
    asked.clear()
    assert fitted.get(path).status_code == 200
    assert 2 < len(asked) <= MOST[path], "\n".join(x[:120] for x in asked)
