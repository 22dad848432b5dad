"""After each change the stations say what followed, in words with both values, and take it back."""

import re
from dataclasses import replace
from html import unescape

import pytest

from jolvek.core.job.changes import Changes, MovedFigure, changes
from jolvek.core.job.figures import Figure
from jolvek.store import enquiries, setups, undo
from jolvek.web.kit.display import current
from jolvek.web.kit.followed import LABELS, label, strip
from jolvek.web.kit.worked import work_out
from tests.web.steps import boat_form, pin

HERE = "/enquiry/2"


def strip_of(answer):
    """The strip's text on a page, or of a fragment."""
    html = answer.get_data(as_text=True)
    found = re.search(r'<div id="strip".*?(?=<h1|<article|<section|<form id=|$)', html, re.S)
    return re.sub(r"\s+", " ", unescape(re.sub(r"<[^>]+>", " ", found[0]))).replace("\u202f", "")


def state(conn):
    return undo.state(conn, 2)


def post(client, path, **data):
    assert client.post(f"{HERE}/{path}", data=data).status_code in (200, 303)


@pytest.mark.parametrize(
    ("station", "field", "value", "told"),
    [
        ("boat", "gear", "95", ("Range at the wanted speed", "Loaded weight")),
        ("boat", "length", "3.6", ("Top speed",)),
        ("waters", "wind", "12", ("Charge left at home", "New:")),
        ("waters", "distance", "16", ("Charge left at home", "New:")),
    ],
)
def test_a_change_is_told_with_both_values_and_undone(fitted, conn, station, field, value, told):
    before = state(conn)
    form = boat_form(fitted, 2, station) | {field: value}
    assert fitted.post(f"{HERE}/{station}", data=form).status_code == 303
    text = strip_of(fitted.get(f"{HERE}/{station}"))
    for words in told:
        assert words in text, text
    assert "→" in text and "Undo" in text
    fitted.post(f"{HERE}/undo", data={"back": f"{HERE}/{station}"})
    assert state(conn) == before


def test_the_strip_stands_on_every_station_and_with_the_answer_to_a_save(fitted, conn):
    form = boat_form(fitted, 2, "boat") | {"gear": "60"}
    answer = fitted.post(f"{HERE}/boat", data=form, headers={"HX-Request": "true"})
    assert "hx-swap-oob" in answer.text and "Loaded weight" in strip_of(answer)
    for page in ("waters", "shortlist", "side-by-side", "day-out", "fitting", "offer"):
        assert "Loaded weight" in strip_of(fitted.get(f"{HERE}/{page}")), page


def test_nothing_that_reads_otherwise_is_missing(fitted, conn):
    def job():
        return work_out(enquiries.get(conn, 2).need, setups.of_enquiry(conn, 2)[0]).job

    was = job()
    form = boat_form(fitted, 2, "boat") | {"people": "1", "gear": "5"}
    fitted.post(f"{HERE}/boat", data=form)
    result = strip_of(fitted.get(f"{HERE}/boat"))
    moved = [x.key for x in changes(was, job()).figures]
    assert len(moved) > 15
    html = unescape(fitted.get(f"{HERE}/boat").get_data(as_text=True))
    with fitted.application.test_request_context():
        from jolvek.web.kit.figures import written

        for x in changes(was, job()).figures:
            both = written(x.before, current()), written(x.after, current())
            assert both[0] == both[1] or f"{label(x.key)} {both[0]} → {both[1]}" in html, x.key
    assert "more" in result


def test_every_figure_has_a_name():
    from jolvek.core.job.figures import FIGURES  # noqa: PLC0415

    ways = ("wish.", "full.", "half.", "lowest.")
    assert {k for k in FIGURES if not k.startswith(ways)} == set(LABELS)


def test_a_pin_a_pick_an_add_on_and_a_moved_battery_are_told_and_undone(fitted, conn):
    before = state(conn)
    post(fitted, "choose", letter="B", then="side-by-side")
    assert "is now" in strip_of(fitted.get(f"{HERE}/side-by-side"))
    post(fitted, "undo", back=HERE)
    assert state(conn) == before
    letter = setups.of_enquiry(conn, 2)[0].letter
    post(fitted, "unpin", letter=letter)
    post(fitted, "undo", back=HERE)
    assert state(conn) == before
    battery = {"setup": letter, "tab": "drawing", "w-battery": "2.6"}
    fitted.post(f"{HERE}/fitting", data=battery)
    if state(conn) != before:
        assert "Trim" in strip_of(fitted.get(f"{HERE}/fitting"))
        post(fitted, "undo", back=HERE)
        assert state(conn) == before


def test_what_somebody_changed_since_is_never_undone(fitted, conn):
    form = boat_form(fitted, 2, "boat") | {"gear": "60"}
    fitted.post(f"{HERE}/boat", data=form)
    enquiries.change(
        conn, 2, lambda e: replace(e, note="a colleague's"), "2099-01-01T00:00:00+00:00"
    )
    now = state(conn)
    answer = fitted.post(f"{HERE}/undo", data={"back": f"{HERE}/boat"}, follow_redirects=True)
    assert "Nothing was undone" in answer.text and state(conn) == now


@pytest.mark.parametrize(
    ("station", "field", "value"), [("boat", "gear", "70"), ("waters", "wind", "8")]
)
def test_the_card_beside_a_form_keeps_up_with_each_save(fitted, station, field, value):
    form = boat_form(fitted, 2, station) | {field: value}
    answer = fitted.post(f"{HERE}/{station}", data=form, headers={"HX-Request": "true"}).text
    card = re.compile(r'id="boat-card".*?data-figure="A.wish.range">([^<]+)', re.S)
    now = card.search(fitted.get(f"{HERE}/{station}").text)[1]
    assert card.search(answer)[1] == now and 'hx-swap-oob="true"' in answer


@pytest.mark.parametrize(("before", "after", "sign"), [(900.0, 1020.0, "+"), (1020.0, 900.0, "−")])
def test_a_price_says_which_way_it_went(app, before, after, sign):
    moved = MovedFigure("price.fitted", Figure(before, "money"), Figure(after, "money"))
    with app.test_request_context():
        result = strip(Changes((moved,)), current()).first[0]
    assert f"({sign} €120)" in result


def test_a_change_that_moves_no_figure_is_named_beside_its_undo(client):
    pin(client, 2)
    page = client.get("/enquiry/2/side-by-side").text
    strip = page.split('id="strip"')[1].split("</form>")[0]
    assert "A setup was pinned." in strip and "Undo the last change" in strip
