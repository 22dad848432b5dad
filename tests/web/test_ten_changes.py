"""Ten changes of a pinned job: nothing that reads otherwise on any page is missing in the strip.

`pytest tests/web/test_ten_changes.py -s` prints what the strip said.
"""

import re
from dataclasses import replace

import pytest

from jolvek.store import setups, shelf
from jolvek.web.kit.followed import label
from tests.web.stations.test_followed import strip_of
from tests.web.steps import boat_form, forms_to
from tests.web.test_one_job import gathered

JOB = 3
HERE = f"/enquiry/{JOB}"
PAGES = ("side-by-side", "day-out", "fitting", "fitting?tab=wiring", "shortlist")


def station(name, **fields):
    def act(client, conn):
        form = boat_form(client, JOB, name) | fields
        assert client.post(f"{HERE}/{name}", data=form).status_code == 303

    return act


def fitting(**fields):
    def act(client, conn):
        assert client.post(f"{HERE}/fitting", data=fields).status_code == 303

    return act


def longer_shaft(client, conn):
    hand = setups.of_enquiry(conn, JOB)[0]
    other = next(s for s in hand.part("motor").item.shafts_m if s != hand.shaft_m)
    fitting(shaft=f"{other:g}")(client, conn)


def in_catalogue(**change):
    """A change in the catalogue, taken over where it can be."""

    def act(client, conn):
        part = setups.of_enquiry(conn, JOB)[0].part("motor")
        shelf.change(conn, [("motors", replace(part.item, **change))], "a new list", "2026-11-30")
        text = client.get(f"{HERE}/side-by-side").text
        assert part.item.title in re.search(r'class="lacks moved">(.*?)</div>', text, re.S)[1]
        forms = forms_to(client, f"{HERE}/side-by-side", f"{HERE}/offer/today")
        assert bool(forms) is ("price" in change)  # what is sold no more cannot be taken over
        for form in forms:
            assert client.post(f"{HERE}/offer/today", data=form).status_code == 303

    return act


CHANGES = {
    "one more person": station("boat", people="4", people_kg=""),
    "120 kg of gear": station("boat", gear="120"),
    "a boat of 5.2 m": station("boat", length="5.2"),
    "a transom of 480 mm": station("boat", transom_height="0.48"),
    "wind of 14 kn": station("waters", wind="14"),
    "a wish for 4.9 kn": station("waters", speed="4.9"),
    "the battery moved forward": fitting(**{"w-battery": "2.10"}),
    "another shaft": longer_shaft,
    "dearer in the catalogue": in_catalogue(price=2222.0),
    "no longer sold": in_catalogue(discontinued=True),
}


@pytest.mark.parametrize("name", CHANGES)
def test_nothing_that_reads_otherwise_on_a_page_is_missing_in_the_strip(fitted, conn, app, name):
    def texts():
        return {k: next(iter(t)) for k, t in gathered(fitted, JOB, pages=PAGES).items()}

    was = texts()
    CHANGES[name](fitted, conn)
    now, result = texts(), strip_of(fitted.get(f"{HERE}/side-by-side"))
    moved = [k[2:] for k in was if k.startswith("A.") and k in now and was[k] != now[k]]
    with app.test_request_context():
        missing = {k: (was[f"A.{k}"], now[f"A.{k}"]) for k in moved if label(k) not in result}
    assert not missing, result
    assert moved or name == "no longer sold"
    print(f"{name} ({len(moved)} figures): {result}")
