"""Aftercare: trips, care that is due and done, the battery's health, all boats, who has what."""

from datetime import date, timedelta

import pytest
from icalendar import Calendar

from jolvek.store import care, enquiries, handovers
from jolvek.store.handovers import Serial

HERE = "/enquiry/5/aftercare"


@pytest.fixture
def shop(client, conn, pinned):
    pinned.backup(conn)
    client.post("/play", data={"role": "advisor"})
    return client


def ago(days):
    return (date.today() - timedelta(days=days)).isoformat()


def test_trips_make_care_due_and_what_is_done_is_due_no_more(shop, conn):
    assert "not in service yet" in shop.get(HERE).text
    for i in range(12):
        form = {"on_day": ago(60 - i), "hours": "5 h", "energy_wh": "400", "note": "reeds"}
        assert shop.post(f"{HERE}/trip", data=form).status_code == 303
    page = shop.get(HERE).text
    assert "60 h in all" in page and "Propeller off" in page and "60 of 50 h" in page
    assert "Magnet or kill cord out" in page and "common practice, no source" in page
    shop.post(f"{HERE}/done", data={"step": "shaft"})
    assert "0 of 50 h" in shop.get(HERE).text
    late = shop.post(f"{HERE}/done", data={"step": "shaft", "on_day": ago(-3)})
    assert late.status_code == 422 and "a day that has been" in late.text
    assert shop.post(f"{HERE}/done", data={"step": "paint"}).status_code == 404
    trip = care.trips(conn, 5)[0].id
    shop.post(f"{HERE}/drop", data={"trip": trip})
    assert len(care.trips(conn, 5)) == 11
    events = Calendar.from_ical(shop.get(f"{HERE}/due.ics").data).walk("VEVENT")
    uids = [e["uid"] for e in events]
    assert events and len(set(uids)) == len(uids)


BAD = [
    ({"hours": ""}, "needed"),
    ({"hours": "long"}, "long"),
    ({"hours": "2 h", "on_day": "soon"}, "a day as"),
    ({"hours": "2 h", "on_day": "2199-01-01"}, "a day that has been"),
    ({"hours": "2 h", "charge_from": "40 %", "charge_to": "90 %"}, "at most the 40 %"),
    ({"hours": "2 h", "energy_wh": "much"}, "much"),
]


@pytest.mark.parametrize(("form", "told"), BAD)
def test_a_refused_trip_is_told(shop, conn, form, told):
    answer = shop.post(f"{HERE}/trip", data=form)
    assert answer.status_code == 422 and told in answer.text
    assert care.trips(conn, 5) == []


def test_the_battery_tells_its_age_and_what_the_day_will_leave(shop, conn):
    from jolvek.store import setups
    from jolvek.web.view.worked import work_out

    e = enquiries.get(conn, 5)
    bank = work_out(e.need, next(p for p in setups.of_enquiry(conn, 5) if p.chosen)).fitted.bank
    for i in range(10):
        wh = 0.85 * 0.5 * bank.energy_wh
        form = {"on_day": ago(700 - 60 * i), "hours": "3 h", "energy_wh": f"{wh:.0f}"}
        shop.post(f"{HERE}/trip", data=form | {"charge_from": "90 %", "charge_to": "40 %"})
    page = shop.get(HERE).text
    assert "Capacity about" in page and "from 10 trips" in page
    assert "the day leaves" in page and "of power against the day" in page
    share = int(page.split("Capacity about <strong>")[1].split(" %")[0])
    assert 82 <= share <= 90


def test_all_boats_in_service_and_who_has_what(shop, conn):
    assert "No boat is handed over yet" in shop.get("/care").text
    enquiries.set_stage(conn, 5, "delivered", "2026")
    shop.post(f"{HERE}/trip", data={"on_day": ago(400), "hours": "60 h"})
    title = enquiries.get(conn, 5).title
    page = shop.get("/care").text
    assert title in page and "Propeller off" in page
    told = Serial(0, "motor", "M12", "tallmarrow-o12", "TM-2044", "", "x", "2026")
    handovers.add_serial(conn, 5, told)
    for text in ("TM-20", "tallmarrow-o12"):
        found = shop.get(f"/care/holders?q={text}").text
        assert title in found and "TM-2044" in found and "1 piece" in found
    assert "0 pieces" in shop.get("/care/holders?q=TM-3").text
    rows = shop.get("/care/holders?q=TM-20&form=csv").text.splitlines()
    assert len(rows) == 2 and "TM-2044" in rows[1]
