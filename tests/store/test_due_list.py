"""What is due, kept by day: it says the same as working each boat out, and is marked where a log,
a setup or the shop's rules change; who has what, recalls, owners and erasure.
"""

import random
from datetime import date, timedelta

import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.care.due import Season
from jolvek.core.care.steps import Care, Edit, Profile
from jolvek.store import (
    care,
    care_edits,
    due_list,
    enquiries,
    erasing,
    handovers,
    owners,
    recalls,
    shop,
    spares,
)
from jolvek.store.care import Trip
from jolvek.store.db import transaction
from jolvek.store.handovers import Serial
from jolvek.store.owners import Owner
from jolvek.store.recalls import Asked
from jolvek.store.spares import SpareKept

SEASON, TODAY = Season(4, 10), date(2026, 11, 26)
PROFILE = Profile(True, False, False, ("m1",))


@pytest.fixture
def fleet(conn, working):
    working.backup(conn)
    return conn


def refresh(conn, today=TODAY, most=1000):
    with transaction(conn):
        return due_list.refresh(conn, SEASON, today, lambda n: PROFILE, most)


def state(conn, number):
    sql = "SELECT state FROM care_stand WHERE enquiry_id = :id"
    return conn.execute(sql, {"id": number}).fetchone()["state"]


def service(conn):
    return [n for n, _ in care.in_service(conn, 100)]


def test_the_kept_list_says_what_working_each_boat_out_says(fleet):
    assert refresh(fleet) == 0
    rows = due_list.lines(fleet, date(2099, 1, 1), 1000)
    for number in service(fleet):
        worked = due_list.worked(fleet, number, PROFILE, SEASON, TODAY)
        kept = {(x.step, x.on_day) for x in rows if x.enquiry_id == number}
        assert kept == {(d.care.key, d.on.isoformat()) for d in worked if d.on}
    assert [x.on_day for x in rows] == sorted(x.on_day for x in rows)
    near = due_list.lines(fleet, TODAY, 1000)
    assert due_list.count(fleet, TODAY)[0] == len(near) < len(rows)
    assert [x.on_day for x in due_list.lines(fleet, TODAY, 2, 1)] == [x.on_day for x in near[1:3]]


def test_every_change_that_moves_a_day_marks_the_boat(fleet):
    number, other = service(fleet)[:2]
    trip = Trip(0, "2026-11-01", 60.0, None, None, None, note="", who="x")
    log = [
        lambda: care.add_trip(fleet, number, trip, "2026"),
        lambda: care.drop_trip(fleet, number, care.trips(fleet, number)[0].id),
        lambda: care.act(fleet, number, "shaft", TODAY, "x", "", "2026"),
        lambda: spares.add(fleet, number, SpareKept(0, "Flares", "2026-12-01"), "x", "2026"),
    ]
    for change in log:
        refresh(fleet)
        change()
        assert (state(fleet, number), state(fleet, other)) == ("log", "good")
    setup = [
        "UPDATE setup SET shaft_m = 0.5 WHERE enquiry_id = :id",
        "UPDATE enquiry SET water = 'fresh' WHERE id = :id",
        "UPDATE enquiry SET runs_per_day = 2 WHERE id = :id",
    ]
    for sql in setup:
        refresh(fleet)
        fleet.execute(sql, {"id": number})
        assert (state(fleet, number), state(fleet, other)) == ("setup", "good")
    everywhere = [
        lambda: care_edits.keep(fleet, Edit("", "cord", None), "x", "2026"),
        lambda: shop.save(fleet, shop.Shop(season_from=6), shop.Shop()),
    ]
    for change in everywhere:
        refresh(fleet)
        change()
        assert {state(fleet, n) for n in service(fleet)} == {"log"}
    refresh(fleet)
    shop.save(fleet, shop.Shop(phone="1"), shop.Shop())
    assert state(fleet, number) == "good"


def test_a_boat_handed_over_comes_onto_the_list_and_a_new_day_is_worked_out_anew(fleet):
    refresh(fleet)
    enquiries.set_stage(fleet, 3, "delivered", "2026")
    assert state(fleet, 3) == "setup"
    assert due_list.left(fleet, TODAY) == 1
    refresh(fleet)
    assert due_list.left(fleet, TODAY) == 0
    tomorrow = TODAY + timedelta(days=1)
    everyone = len(service(fleet))
    assert due_list.left(fleet, tomorrow) == everyone
    assert refresh(fleet, tomorrow, most=2) == everyone - 2


def test_a_boat_without_a_setup_is_passed_by_and_asked_again(fleet):
    number = service(fleet)[0]
    for profile in (None, PROFILE):
        with transaction(fleet):
            due_list.refresh(fleet, SEASON, TODAY, lambda n, p=profile: p, 1000)
        assert due_list.left(fleet, TODAY) == 0
        rows = due_list.lines(fleet, date(2099, 1, 1), 1000)
        assert any(x.enquiry_id == number for x in rows) == (profile is not None)
        fleet.execute("UPDATE setup SET shaft_m = 0.6 WHERE enquiry_id = :id", {"id": number})


def test_a_boat_put_away_or_not_delivered_is_not_listed(fleet):
    refresh(fleet)
    first, second = service(fleet)[:2]
    enquiries.archive(fleet, first)
    enquiries.set_stage(fleet, second, "ordered", "2026")
    listed = {x.enquiry_id for x in due_list.lines(fleet, date(2099, 1, 1), 1000)}
    assert listed == set(service(fleet)) and not listed & {first, second}
    assert due_list.count(fleet, date(2099, 1, 1))[1] == len(listed)


def test_the_shops_step_for_a_product_is_due_where_the_product_is(fleet):
    record = Edit("m1", "bung", Care("bung", "months", "Bung", 1, source="its manual"))
    care_edits.keep(fleet, record, "x", "2026")
    refresh(fleet)
    assert sum(x.step == "bung" for x in due_list.lines(fleet, TODAY, 1000)) == len(service(fleet))
    care_edits.back(fleet, "m1", "bung")
    refresh(fleet)
    assert not any(x.step == "bung" for x in due_list.lines(fleet, TODAY, 1000))


def test_many_changes_in_any_order_leave_the_list_as_if_worked_out_anew(fleet):
    rng, day = random.Random(7), date(2026, 5, 1)
    numbers = service(fleet)
    for i in range(120):
        number, on = rng.choice(numbers), day + timedelta(days=rng.randrange(-200, 1))
        if rng.random() < 0.6:
            record = Trip(
                0, on.isoformat(), rng.random() * 9, None, None, None, note="", who="x", op=f"o{i}"
            )
            care.add_trip(fleet, number, record, "2026")
        else:
            step = rng.choice(["shaft", "cord", "lay-up", "start", "anode", "charge-check"])
            care.act(fleet, number, step, on, "x", "", "2026")
        if rng.random() < 0.3:
            refresh(fleet, day, most=rng.choice([1, 2, 9]))
        day += timedelta(days=rng.randrange(3))
    refresh(fleet, day)
    rows = due_list.lines(fleet, date(2099, 1, 1), 1000)
    for number in numbers:
        worked = due_list.worked(fleet, number, PROFILE, SEASON, day)
        kept = {(x.step, x.on_day, x.why) for x in rows if x.enquiry_id == number}
        assert kept == {(d.care.key, d.on.isoformat(), d.why) for d in worked if d.on}


def plan(conn, sql, asked):
    rows = conn.execute("EXPLAIN QUERY PLAN " + sql, asked)
    return " | ".join(row["detail"] for row in rows)


def test_the_lists_use_their_indexes(fleet):
    asked = {"until": "2026-11-26", "most": 100, "skip": 0, "told": True}
    result = plan(fleet, due_list.DUE_SQL, asked)
    assert "care_due_by_day" in result and "SCAN d" not in result and "TEMP B-TREE" not in result
    tests = {
        "serial_by_product": "s.product_id = 'x'",
        "serial_by_batch": "s.batch = 'x' AND s.batch <> ''",
        "serial_by_number": "s.number >= 'T' AND s.number < 'U'",
    }
    for index, test in tests.items():
        result = plan(fleet, recalls.HOLDER_SQL.format(test), {"most": 10})
        assert index in result and "SCAN s" not in result, result
    stand = "SELECT count(*) FROM care_stand WHERE state = 'good' AND worked_on < '2026'"
    assert "care_stand_by_state" in plan(fleet, stand, {})
    result = plan(fleet, "SELECT hours FROM trip WHERE enquiry_id = 3 ORDER BY on_day", {})
    assert "trip_of" in result and "SCAN trip" not in result


def serial(conn, enquiry_id, number, batch="", product="m1", what="motor"):
    record = Serial(0, what, "Motor", product, number, "", who="x", at="2026", batch=batch)
    handovers.add_serial(conn, enquiry_id, record)


def test_holders_by_product_batch_and_a_range_counted_as_figures(conn):
    for i, number in enumerate(("TM-9", "TM-99", "TM-100", "TM-101", "XM-100"), start=1):
        serial(conn, i, number, "B1" if i < 3 else "")

    def found(**asked):
        return [h.number for h in recalls.holders(conn, Asked(**asked))]

    assert found(first="TM-50", last="TM-100") == ["TM-99", "TM-100"]
    assert found(first="TM-10") == ["TM-100", "TM-101"]
    assert found(batch="B1") == ["TM-9", "TM-99"]
    assert len(found(product="m1")) == 5 and found(product="m1", batch="B1", first="TM-99")
    assert found() == [] and found(product="m2") == []
    for first, last in (("TM-1", "XM-2"), ("TM-5", "TM-1"), ("TM-", "TM-5"), ("", "TM-5")):
        with pytest.raises(ValueRefused):
            Asked(first=first, last=last)


def test_a_recall_is_answered_letter_by_letter(conn):
    serial(conn, 1, "TM-1")
    serial(conn, 2, "TM-2")
    number = recalls.begin(conn, "Plug", "m1", "Do not use it.", "x", "2026")
    first, second = [
        recalls.add_letter(conn, number, h) for h in recalls.holders(conn, Asked(product="m1"))
    ]
    assert recalls.answer(conn, first, "stopped", "owner", "2026")
    assert not recalls.answer(conn, 999, "stopped", "owner", "2026")
    (r,) = recalls.recalls(conn)
    assert (r.letters, r.mailed, r.answered) == (2, 0, 1)
    assert [x.id for x in recalls.letters(conn, number)] == [second, first]
    assert recalls.letter(conn, first).answer_told.startswith("I have it and do not")
    assert [x.id for x, _ in recalls.open_letters(conn, 2)] == [second]
    with pytest.raises(ValueRefused):
        recalls.begin(conn, " ", "m1", "words", "x", "2026")


def test_a_boat_passed_on_keeps_her_record_and_loses_the_old_owners_name(fleet):
    number = service(fleet)[0]
    trips = len(care.trips(fleet, number))
    before, way = enquiries.get(fleet, number).enquiry, owners.number_of(fleet, "boat", number)
    with transaction(fleet):
        owners.pass_on(fleet, number, Owner("Runa Vik", "555 1"), "2026-11-01", "x", "2026-11-26")
    after = enquiries.get(fleet, number).enquiry
    assert (after.customer, after.mail, after.note) == ("Runa Vik", "", "")
    assert after.need == before.need and len(care.trips(fleet, number)) == trips
    assert owners.number_of(fleet, "boat", number) == way + 1
    assert owners.changes(fleet, number) == [("2026-11-01", before.customer, "x")]
    with pytest.raises(ValueRefused), transaction(fleet):
        owners.pass_on(fleet, number, Owner(" "), "2026-11-01", "x", "2026")


def everything_as_text(conn):
    out = []
    for row in conn.execute("SELECT name FROM sqlite_master WHERE type = 'table'").fetchall():
        if not row["name"].startswith("sqlite_"):
            out += [tuple(r) for r in conn.execute(f"SELECT * FROM {row['name']}")]
    return repr(out)


def test_a_customer_erased_is_in_no_row_of_the_database_any_more(fleet):
    number = service(fleet)[0]
    enquiries.change(
        fleet,
        number,
        lambda e: e.__class__(**{**vars(e), "customer": "Runa Vik", "note": "Runa’s sister"}),
        "2026-11-26T10:00:00",
    )
    record = Trip(0, "2026-11-01", 1.0, None, None, None, note="Runa’s dog aboard", who="x")
    care.add_trip(fleet, number, record, "2026")
    with transaction(fleet):
        owners.pass_on(fleet, number, Owner("Siv Holt"), "2026-11-01", "x", "2026-11-26")
    assert "Runa" in everything_as_text(fleet) and "Siv Holt" in everything_as_text(fleet)
    hours = sum(t.hours for t in care.trips(fleet, number))
    with transaction(fleet):
        erasing.erase(fleet, [number], "asked by letter", "x", "2026-11-26")
    left = everything_as_text(fleet)
    assert "Runa" not in left and "Siv Holt" not in left
    assert sum(t.hours for t in care.trips(fleet, number)) == hours
    assert erasing.erasures(fleet)[0][2:] == ([number], "asked by letter")


def test_all_that_is_kept_of_a_customer_holds_every_table_and_no_keys(fleet):
    number = service(fleet)[0]
    rows = owners.everything(fleet, number)
    assert {"enquiry", "boat", "setup", "trip", "care_act", "serial", "fault", "spare"} <= set(rows)
    assert len(rows["trip"]) == len(care.trips(fleet, number))
    assert "token" not in repr(rows) and rows["setup"][0]["enquiry_id"] == number
    name = rows["enquiry"][0]["customer"]
    found = owners.enquiries_of(fleet, name.upper(), "")
    assert number in [n for n, _, _ in found] and owners.enquiries_of(fleet, "", " ") == []
