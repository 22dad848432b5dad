"""Columns, schema keys and the fields of the records are the same; the database checks what the
records check.
"""

import sqlite3
from dataclasses import fields

import pytest

from jolvek.core.enquiry.need import Day, Leg
from jolvek.core.enquiry.site import MOST_BAYS, Bay, Site
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.products.plain import KINDS, fields_of
from jolvek.core.products.shelf import Item
from jolvek.formats import schema, shelf_csv
from jolvek.store import allowed, columns, db, shelf

ENQUIRY = schema.schema("enquiry")["properties"]
SCHEMAS = {
    Hull: ENQUIRY["hull"],
    Load: ENQUIRY["load"],
    Site: ENQUIRY["site"],
    Day: ENQUIRY["day"],
    Bay: ENQUIRY["site"]["properties"]["bays"]["items"],
    Leg: ENQUIRY["day"]["properties"]["legs"]["items"],
}
TABLES = {Hull: "boat", Site: "boat", Load: "load", Day: "enquiry", Bay: "bay", Leg: "leg"}
ELSEWHERE = {"bays", "legs"}  # have tables of their own


def table(conn, name):
    return {row["name"] for row in conn.execute(f"PRAGMA table_info({name})")}


@pytest.mark.parametrize("record", SCHEMAS, ids=lambda r: r.__name__)
def test_an_enquirys_records_columns_and_schema_agree(conn, record):
    names = {f.name for f in fields(record)}
    assert names == set(SCHEMAS[record]["properties"])
    assert names - ELSEWHERE <= table(conn, TABLES[record])


@pytest.mark.parametrize("kind", KINDS)
def test_a_products_fields_columns_and_schema_agree(conn, kind):
    spec = {f.name for f in fields(KINDS[kind])} - {"name"}
    assert spec <= set(fields_of(kind))
    assert set(fields_of(kind)) == set(shelf_csv.columns(kind)) == table(conn, shelf.TABLES[kind])


@pytest.mark.parametrize("record", SCHEMAS, ids=lambda r: r.__name__)
def test_ranges_are_those_of_the_schema(record):
    for key, (low, high) in record.RANGES.items():
        rule = SCHEMAS[record]["properties"][key]
        rule = rule.get("items", rule)
        assert (rule["minimum"], rule["maximum"]) == (low, high), key


def test_forms_hold_as_many_rows_as_the_format():
    assert SCHEMAS[Site]["properties"]["bays"]["maxItems"] == MOST_BAYS
    assert SCHEMAS[Day]["properties"]["legs"]["maxItems"] == Day.COUNTS["legs"]


WHOLE = (
    "runs_per_day",
    "ip_water",
    "from_year",
    "to_year",
    "people",
    "bodies",
    "outputs",
    "blades",
    "max_people",
    "model_year",
)
RANGED = [
    (TABLES[r], key, *r.RANGES[key])
    for r in TABLES
    for key in r.RANGES
    if key not in ("seat_kg", "budgets")
]
RANGED += [
    (shelf.TABLES[kind], key, *limits)
    for kind in KINDS
    for key, limits in {**Item.RANGES, **KINDS[kind].RANGES}.items()
    if key in fields_of(kind) and key != "shafts_m"
]


def test_the_database_refuses_what_the_records_refuse(conn):
    conn.execute("INSERT INTO leg (enquiry_id, place, speed_m_s, distance_m) VALUES (1, 1, 1, 1)")
    let_in = []
    for name, key, low, high in RANGED:
        for value in (low - abs(low) * 0.01 - 1e-3, high * 1.01 + 1, float("inf")):
            if key in WHOLE and value < float("inf"):
                value = low - 1 if value < low else high + 1
            try:
                conn.execute(f"UPDATE {name} SET {key} = :value", {"value": value})
                let_in.append((name, key, value))
            except (sqlite3.IntegrityError, OverflowError):
                pass
    counted = {
        name for name, *_ in RANGED if conn.execute(f"SELECT count(*) FROM {name}").fetchone()[0]
    }
    assert [x for x in let_in if x[0] in counted] == []


def test_a_start_puts_missing_checks_back(conn):
    allowed.take_off(conn)
    conn.execute("UPDATE load SET gear_kg = 99999")
    db.migrate(conn)
    conn.execute("UPDATE load SET people = 2")  # what stands stays, and the rest can be changed
    with pytest.raises(sqlite3.IntegrityError, match="load.gear_kg"):
        conn.execute("UPDATE load SET gear_kg = 88888")


@pytest.mark.parametrize("date", ["2026-02-30", "soon", "2026-13-01"])
def test_the_database_refuses_what_is_no_day(conn, date):
    with pytest.raises(sqlite3.IntegrityError, match="enquiry.date"):
        conn.execute("UPDATE enquiry SET date = :date", {"date": date})


def test_json_in_a_column_says_what_it_is_and_old_json_is_read():
    kept = columns.to_json("jolvek-list", ["a"])
    assert '"format": "jolvek-list"' in kept and '"version": 1' in kept
    assert columns.from_json("jolvek-list", kept) == columns.from_json("jolvek-list", '["a"]')
    with pytest.raises(columns.UnreadableColumn):
        columns.from_json("jolvek-list", '{"format": "jolvek-list", "version": 9, "value": []}')
    columns.UPGRADES["jolvek-list", 0] = lambda old: [x.upper() for x in old]
    try:
        assert columns.from_json("jolvek-list", '["a"]') == ["A"]
    finally:
        columns.UPGRADES.clear()
