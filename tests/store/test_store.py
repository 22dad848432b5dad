"""The database: migrations once, transactions whole, nouns come back as they went in."""

import sqlite3
from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.enquiry.need import Leg
from jolvek.demo import at_work
from jolvek.store import db, enquiries, finding, jobs, setups
from jolvek.store import shelf as shelf_store


def test_migrations_run_once_and_tables_are_strict(conn):
    before = conn.execute("PRAGMA user_version").fetchone()[0]
    assert db.migrate(conn) == before >= 1
    tables = conn.execute(
        "SELECT name, strict FROM pragma_table_list WHERE schema = 'main' AND name NOT LIKE"
        " 'sqlite_%' AND name NOT LIKE 'enquiry_find%'"
    ).fetchall()
    assert len(tables) >= 10 and all(row["strict"] for row in tables)


def test_wal_and_foreign_keys_are_on(conn):
    assert conn.execute("PRAGMA journal_mode").fetchone()[0] == "wal"
    assert conn.execute("PRAGMA foreign_keys").fetchone()[0] == 1


def test_an_error_rolls_the_whole_transaction_back(conn):
    with pytest.raises(RuntimeError), db.transaction(conn):
        conn.execute("DELETE FROM motor")
        raise RuntimeError
    assert conn.execute("SELECT count(*) FROM motor").fetchone()[0] == len(demo.shelf().motors)


def test_the_shelf_comes_back(conn, shelf):
    loaded = shelf_store.load(conn)
    for kind in shelf_store.KINDS:
        assert set(getattr(loaded, kind)) == set(getattr(shelf, kind))


def test_enquiries_come_back(conn, enquiries_data=demo.enquiries):
    for i, e in enumerate(enquiries_data(), 1):
        assert enquiries.get(conn, i).need == e.need


def test_a_saved_change_is_kept_and_pinned_setups_stay(conn, shelf):
    stored = enquiries.get(conn, 2)
    items = {
        "motor": shelf.motors[0],
        "battery": shelf.batteries[0],
        "mount": shelf.mounts[0],
        "charger": shelf.chargers[0],
    }
    assert setups.pin(conn, 2, items, 2, 1, 0.381) == "A"
    need = replace(stored.need, load=replace(stored.need.load, people=3))
    enquiries.change(conn, 2, lambda e: replace(e, need=need), "2026-01-01")
    assert enquiries.get(conn, 2).need.load.people == 3
    pinned = setups.of_enquiry(conn, 2)[0]
    assert (
        pinned.part("battery").quantity == 2
        and pinned.part("motor").item == shelf.motors[0]
        and pinned.shaft_m == 0.381
    )


def test_letters_are_reused_and_a_sixth_setup_is_refused(conn, shelf):
    items = {"motor": shelf.motors[0], "battery": shelf.batteries[0], "mount": shelf.mounts[0]}
    assert [setups.pin(conn, 1, items, 1, 1, None) for _ in range(5)] == list("ABCDE")
    with pytest.raises(setups.TooManyPinned):
        setups.pin(conn, 1, items, 1, 1, None)
    setups.unpin(conn, 1, "B")
    assert setups.pin(conn, 1, items, 1, 1, None) == "B"


def test_an_old_setup_keeps_its_price_when_the_shelf_changes(conn, shelf):
    items = {"motor": shelf.motors[0], "battery": shelf.batteries[0], "mount": shelf.mounts[0]}
    setups.pin(conn, 1, items, 1, 1, None)
    conn.execute("DELETE FROM motor")
    assert setups.of_enquiry(conn, 1)[0].part("motor").price == shelf.motors[0].price


def test_a_negative_mass_does_not_enter_the_database(conn):
    with pytest.raises(sqlite3.IntegrityError):
        conn.execute("UPDATE boat SET mass_kg = -1 WHERE enquiry_id = 1")


def test_legs_seats_and_words_come_back(conn):
    stored = enquiries.get(conn, 2)
    day = stored.need.day.with_legs(
        (Leg("out", 1.8, 4000.0, None, -0.2, 2.0, hold_s=600.0), Leg("home", 1.5, None, 3600.0))
    )
    day = replace(day, reserve_school="thirds", hotel_w=20.0)
    need = replace(stored.need, day=day, load=replace(stored.need.load, seat_kg=(90.0, 60.0)))
    enquiries.change(
        conn, 2, lambda e: replace(e, need=need, model="Skerry 29", storage="davit"), "2026-01-01"
    )
    again = enquiries.get(conn, 2)
    assert again.need == need and (again.enquiry.model, again.enquiry.storage) == (
        "Skerry 29",
        "davit",
    )
    assert finding.same_model(conn, "skerry") == [2]
    assert finding.same_model(conn, "%") == []


def test_enquiries_are_found_by_customer_boat_and_product(conn, shelf):
    assert [line.id for line in finding.found(conn, "averb")] == [3]
    assert {line.id for line in finding.found(conn, "kayak")} == {1}
    setups.pin(
        conn,
        4,
        {"motor": shelf.motors[0], "battery": shelf.batteries[0], "mount": shelf.mounts[0]},
        1,
        1,
        None,
    )
    enquiries.touch(conn, 4, "2026-12-01")
    assert 4 in {line.id for line in finding.found(conn, shelf.motors[0].name)}
    assert finding.found(conn, '" OR 1') == [] and finding.found(conn, "  ") == []


def test_what_an_enquiry_waits_for_follows_its_work(conn, shelf):
    def waits():
        return {line.id: line.waits for line in finding.listed(conn)}[5]

    assert waits() == "choice"
    setups.pin(
        conn,
        5,
        {"motor": shelf.motors[0], "battery": shelf.batteries[0], "mount": shelf.mounts[0]},
        1,
        1,
        None,
    )
    setups.choose(conn, 5, "A")
    assert waits() == "offer"
    for stage, expected in (
        ("offered", "answer"),
        ("ordered", "handover"),
        ("delivered", "service"),
    ):
        enquiries.set_stage(conn, 5, stage, "2026")
        assert waits() == expected
    enquiries.archive(conn, 5)
    assert 5 not in {line.id for line in finding.listed(conn)} and [
        line.id for line in finding.listed(conn, archived=True)
    ] == [5]


def test_a_batch_of_changes_is_undone_whole_and_its_history_stays(conn, shelf):
    motor = shelf.motors[0]
    batch = shelf_store.change(
        conn,
        [("motors", replace(motor, price=1.0)), ("motors", replace(motor, id="new"))],
        "edit",
        "2026",
    )
    assert (
        shelf_store.get(conn, "motors", motor.id).price == 1.0
        and shelf_store.get(conn, "motors", "new") is not None
    )
    assert shelf_store.undo(conn, batch) == 2
    assert (
        shelf_store.get(conn, "motors", motor.id) == motor
        and shelf_store.get(conn, "motors", "new") is None
    )
    assert [c.before["price"] for c in shelf_store.history(conn, "motors", motor.id)] == [
        motor.price
    ]


def test_filling_twice_changes_nothing(conn):
    demo.fill(conn)
    assert len(finding.listed(conn)) == 6


def test_the_demo_shop_is_at_work_at_every_stage(conn):
    at_work.add(conn)
    lines = finding.listed(conn)
    assert {line.waits for line in lines} >= {"choice", "offer", "answer", "handover", "service"}
    assert all(setups.of_enquiry(conn, line.id) for line in lines if line.pinned)
    assert sum(bool(line.chosen) for line in lines) == len(at_work.JOBS) + len(at_work.LAUNCHES)
    by_title = {line.title: line.id for line in lines}
    assert len(jobs.boats(conn, by_title[at_work.TWO_BOATS])) == 2
    day = enquiries.get(conn, by_title[at_work.FOR_HIRE]).need.day
    assert (day.runs_a_charge, day.days_a_season) == (2, 120)
