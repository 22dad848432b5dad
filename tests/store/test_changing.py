"""One way to change an enquiry: two people lose nothing, a page never stands against itself, and
what is kept can be read for ever.
"""

from dataclasses import replace

import pytest

from jolvek.store import allowed, enquiries


def loaded(**values):
    return lambda e: replace(e, need=replace(e.need, load=replace(e.need.load, **values)))


def day(**values):
    return lambda e: replace(e, need=replace(e.need, day=replace(e.need.day, **values)))


def test_two_people_who_change_different_fields_both_keep_theirs(conn):
    seen = enquiries.get(conn, 2).changed_at
    enquiries.change(conn, 2, loaded(gear_kg=77.0), "t1", seen, "page-a")
    done = enquiries.change(conn, 2, day(distance_m=4321.0), "t2", seen, "page-b")
    kept = enquiries.get(conn, 2).need
    assert (kept.load.gear_kg, kept.day.distance_m) == (77.0, 4321.0)
    assert done.merged.clashes == () and done.merged.theirs == ("load.gear_kg",)


def test_the_same_field_changed_twice_asks_with_both_values_and_keeps_the_first(conn):
    seen = enquiries.get(conn, 2).changed_at
    enquiries.change(conn, 2, loaded(gear_kg=77.0), "t1", seen, "page-a")
    done = enquiries.change(conn, 2, loaded(gear_kg=50.0, people=3), "t2", seen, "page-b")
    clash = done.merged.clashes[0]
    assert (clash.key, clash.theirs, clash.mine) == ("load.gear_kg", 77.0, 50.0)
    assert enquiries.get(conn, 2).need.load.gear_kg == 77.0
    assert enquiries.get(conn, 2).need.load.people == 3  # the rest is kept


def test_a_page_never_clashes_with_what_it_saved_itself(conn):
    seen = enquiries.get(conn, 2).changed_at
    for i, kilos in enumerate((60.0, 61.0, 62.0)):
        done = enquiries.change(conn, 2, loaded(gear_kg=kilos), f"t{i}", seen, "page-a")
        assert done.merged.clashes == ()
    assert enquiries.get(conn, 2).need.load.gear_kg == 62.0


def test_what_a_page_did_not_touch_stays_as_somebody_else_made_it(conn):
    seen = enquiries.get(conn, 2).changed_at
    enquiries.change(conn, 2, loaded(gear_kg=60.0), "t1", seen, "page-a")
    enquiries.change(conn, 2, day(hotel_w=33.0), "t2")
    enquiries.change(conn, 2, loaded(gear_kg=61.0), "t3", seen, "page-a")
    kept = enquiries.get(conn, 2).need
    assert (kept.load.gear_kg, kept.day.hotel_w) == (61.0, 33.0)


def test_equal_content_is_no_change_whatever_was_seen(conn):
    before = enquiries.get(conn, 2)
    done = enquiries.change(conn, 2, lambda e: e, "t1", "long ago", "page-a")
    assert done.changed_at == before.changed_at and done.merged.clashes == ()


def test_a_change_by_gesture_starts_from_what_stands_now(conn):
    enquiries.change(conn, 2, loaded(gear_kg=77.0), "t1")
    enquiries.change(conn, 2, day(distance_m=4321.0), "t2")
    assert enquiries.get(conn, 2).need.load.gear_kg == 77.0
    with pytest.raises(KeyError):
        enquiries.change(conn, 999, lambda e: e, "t3")


@pytest.mark.parametrize(
    ("sql", "said"),
    [
        ("UPDATE enquiry SET date = '2026-02-30', solar_w = 300", "day.date"),
        ("UPDATE boat SET mass_kg = 1", "hull.mass_kg"),
        ("UPDATE boat SET beam_m = 7.9", "hull.beam_m"),
        ("UPDATE boat SET places = '[\"attic\"]'", "site.places"),
        ('UPDATE boat SET places = \'{"format": "x", "version": 7, "value": 1}\'', "places"),
        ("UPDATE enquiry SET temperature_c = 9e999", "day.temperature_c"),
    ],
)
def test_what_this_version_does_not_allow_is_mended_on_reading_and_told(conn, sql, said):
    allowed.take_off(conn)
    conn.execute(f"{sql} WHERE {'id' if 'enquiry' in sql else 'enquiry_id'} = 2")
    stored = enquiries.get(conn, 2)
    assert any(said in problem for problem in stored.problems)
    enquiries.change(conn, 2, lambda e: e, "t1")  # keeping it mends what is kept
    assert enquiries.get(conn, 2).problems == ()
