"""The shelf in the database, as core items."""

from __future__ import annotations

import json
import sqlite3
from typing import Any

from jolvek.core.shelf import Item, Shelf
from jolvek.formats import shelf_file

_LISTS = ("shafts_m", "pack_ids", "parts", "chemistries")
_TRUTHS = ("hands_free", "monitor")
_ITEM = ("id", "maker", "name", "price")
_TABLES = {  # kind → table, columns, order
    "motors": ("motor", (*_ITEM, "style", "shafts_m", "pack_ids", "noise_db", "input_power_w", "peak_power_w", "voltage_v",
                         "voltage_min_v", "voltage_max_v", "mass_kg", "shaft_length_m", "propeller_diameter_m", "propeller_pitch_m",
                         "propeller_rpm", "static_thrust_n", "controller_max_a"), "input_power_w, id"),
    "batteries": ("battery", (*_ITEM, "chemistry", "nominal_voltage_v", "capacity_ah", "mass_kg", "max_continuous_a", "max_peak_a",
                              "full_voltage_v", "empty_voltage_v", "length_m", "width_m", "height_m", "bms_max_a", "connector_max_a",
                              "monitor"), "nominal_voltage_v * capacity_ah, id"),
    "mounts": ("mount", (*_ITEM, "kind", "max_motor_kg", "max_thrust_n", "mass_kg", "transom_min_m", "transom_max_m", "drop_m",
                         "offset_m", "hours", "hands_free", "parts"), "price, id"),
    "chargers": ("charger", (*_ITEM, "voltage_v", "current_a", "chemistries", "mass_kg", "outputs"), "voltage_v * current_a, id"),
}
_SELECT = {kind: f"SELECT {', '.join(columns)} FROM {table} ORDER BY {order}" for kind, (table, columns, order) in _TABLES.items()}
_INSERT = {kind: f"INSERT INTO {table} ({', '.join(columns)}) VALUES ({', '.join(':' + c for c in columns)})"
           for kind, (table, columns, _) in _TABLES.items()}


def _row(row: sqlite3.Row) -> dict[str, Any]:
    out = {key: json.loads(row[key]) if key in _LISTS else row[key] for key in row.keys() if row[key] is not None}
    return {key: bool(value) if key in _TRUTHS else value for key, value in out.items()}


def load(conn: sqlite3.Connection) -> Shelf:
    """Every product on the shelf."""
    return Shelf(**{kind: tuple(shelf_file.item(kind, _row(row)) for row in conn.execute(sql)) for kind, sql in _SELECT.items()})


def add(conn: sqlite3.Connection, kind: str, item: Item[Any]) -> None:
    """Put one product on the shelf."""
    data = shelf_file.plain(item)
    values = {key: data.get(key) for key in _TABLES[kind][1]}
    conn.execute(_INSERT[kind], {k: json.dumps(v) if k in _LISTS and v is not None else int(v) if isinstance(v, bool) else v
                                 for k, v in values.items()})


def add_all(conn: sqlite3.Connection, shelf: Shelf) -> None:
    """Put a whole shelf in."""
    for kind in _INSERT:
        for item in getattr(shelf, kind):
            add(conn, kind, item)
