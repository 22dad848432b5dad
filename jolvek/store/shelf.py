"""The shelf in the database, as core items, with every change kept so that it can be undone."""

from __future__ import annotations

import json
import sqlite3
from dataclasses import dataclass
from typing import Any

from jolvek.core.products.shelf import Item, Shelf
from jolvek.formats import shelf_file

_LISTS = ("shafts_m", "pack_ids", "parts", "chemistries", "motor_ids")
_TRUTHS = ("hands_free", "monitor", "discontinued")
_ITEM = ("id", "maker", "name", "price", "valid_to", "stock", "discontinued")
_TABLES = {  # kind → table, columns, order
    "motors": (
        "motor",
        (
            *_ITEM,
            "style",
            "shafts_m",
            "pack_ids",
            "noise_db",
            "input_power_w",
            "peak_power_w",
            "voltage_v",
            "voltage_min_v",
            "voltage_max_v",
            "mass_kg",
            "shaft_length_m",
            "propeller_diameter_m",
            "propeller_pitch_m",
            "propeller_rpm",
            "static_thrust_n",
            "controller_max_a",
            "claimed_hp",
            "claimed_speed_m_s",
            "claimed_runtime_s",
        ),
        "input_power_w, id",
    ),
    "batteries": (
        "battery",
        (
            *_ITEM,
            "chemistry",
            "nominal_voltage_v",
            "capacity_ah",
            "mass_kg",
            "max_continuous_a",
            "max_peak_a",
            "full_voltage_v",
            "empty_voltage_v",
            "length_m",
            "width_m",
            "height_m",
            "bms_max_a",
            "connector_max_a",
            "monitor",
            "claimed_energy_wh",
        ),
        "nominal_voltage_v * capacity_ah, id",
    ),
    "mounts": (
        "mount",
        (
            *_ITEM,
            "kind",
            "max_motor_kg",
            "max_thrust_n",
            "mass_kg",
            "transom_min_m",
            "transom_max_m",
            "drop_m",
            "offset_m",
            "hours",
            "hands_free",
            "parts",
        ),
        "price, id",
    ),
    "chargers": (
        "charger",
        (*_ITEM, "voltage_v", "current_a", "chemistries", "mass_kg", "outputs"),
        "voltage_v * current_a, id",
    ),
    "panels": ("panel", (*_ITEM, "rated_w", "length_m", "width_m", "mass_kg"), "rated_w, id"),
    "propellers": (
        "propeller",
        (*_ITEM, "diameter_m", "pitch_m", "blades", "motor_ids"),
        "diameter_m, id",
    ),
    "accessories": ("accessory", (*_ITEM, "kind", "text", "mass_kg"), "kind, price, id"),
}
KINDS = tuple(_TABLES)
_SELECT = {
    kind: f"SELECT {', '.join(columns)} FROM {table} ORDER BY {order}"
    for kind, (table, columns, order) in _TABLES.items()
}
_PUT = {
    kind: (
        f"INSERT OR REPLACE INTO {table} ({', '.join(columns)}) VALUES"
        f" ({', '.join(':' + c for c in columns)})"
    )
    for kind, (table, columns, _) in _TABLES.items()
}
_GET = {
    kind: f"SELECT {', '.join(columns)} FROM {table} WHERE id = :id"
    for kind, (table, columns, _) in _TABLES.items()
}
_DELETE = {kind: f"DELETE FROM {table} WHERE id = :id" for kind, (table, _c, _o) in _TABLES.items()}


@dataclass(frozen=True)
class Batch:
    """One change of the shelf: an edit or a whole import."""

    id: int
    at: str
    what: str
    undone: bool
    products: int


@dataclass(frozen=True)
class Change:
    """One product before and after a batch, as plain data; None where it was not there."""

    at: str
    what: str
    before: dict[str, Any] | None
    after: dict[str, Any] | None


def _row(row: sqlite3.Row) -> dict[str, Any]:
    out = {
        key: json.loads(row[key]) if key in _LISTS else row[key]
        for key in row.keys()
        if row[key] is not None
    }
    return {key: bool(value) if key in _TRUTHS else value for key, value in out.items()}


def load(conn: sqlite3.Connection) -> Shelf:
    """Every product on the shelf, the discontinued ones too."""
    return Shelf(
        **{
            kind: tuple(shelf_file.item(kind, _row(row)) for row in conn.execute(sql))
            for kind, sql in _SELECT.items()
        }
    )


def get(conn: sqlite3.Connection, kind: str, product_id: str) -> Item[Any] | None:
    """One product, or None."""
    row = conn.execute(_GET[kind], {"id": product_id}).fetchone()
    return None if row is None else shelf_file.item(kind, _row(row))


def put(conn: sqlite3.Connection, kind: str, item: Item[Any]) -> None:
    """Put one product on the shelf, or in the place of the one with its id."""
    data = shelf_file.plain(item)
    conn.execute(
        _PUT[kind],
        {
            k: (
                json.dumps(v)
                if k in _LISTS and v is not None
                else int(v)
                if isinstance(v, bool)
                else v
            )
            for k, v in ((key, data.get(key)) for key in _TABLES[kind][1])
        },
    )


def add_all(conn: sqlite3.Connection, shelf: Shelf) -> None:
    """Put a whole shelf in, without history: for an empty database."""
    for kind in KINDS:
        for item in getattr(shelf, kind):
            put(conn, kind, item)


def change(
    conn: sqlite3.Connection, items: list[tuple[str, Item[Any]]], what: str, now: str
) -> int:
    """Put products in as one batch that can be undone; returns its number."""
    made = conn.execute(
        "INSERT INTO shelf_batch (at, what) VALUES (:at, :what) RETURNING id",
        {"at": now, "what": what},
    )
    batch = int(made.fetchone()[0])
    for kind, item in items:
        before = get(conn, kind, item.id)
        conn.execute(
            "INSERT OR REPLACE INTO shelf_change (batch_id, kind, product_id, before, after) VALUES"
            " (:batch, :kind, :id, :before, :after)",
            {
                "batch": batch,
                "kind": kind,
                "id": item.id,
                "after": json.dumps(shelf_file.plain(item)),
                "before": None if before is None else json.dumps(shelf_file.plain(before)),
            },
        )
        put(conn, kind, item)
    return batch


def undo(conn: sqlite3.Connection, batch_id: int) -> int:
    """Put back what stood before a batch; returns how many products. Products changed again since
    are left as they are.
    """
    rows = conn.execute(
        "SELECT kind, product_id, before, after FROM shelf_change WHERE batch_id = :id",
        {"id": batch_id},
    ).fetchall()
    done = 0
    for row in rows:
        now = get(conn, row["kind"], row["product_id"])
        if now != shelf_file.item(row["kind"], json.loads(row["after"])):
            continue
        if row["before"] is None:
            conn.execute(_DELETE[row["kind"]], {"id": row["product_id"]})
        else:
            put(conn, row["kind"], shelf_file.item(row["kind"], json.loads(row["before"])))
        done += 1
    conn.execute("UPDATE shelf_batch SET undone = 1 WHERE id = :id", {"id": batch_id})
    return done


def batches(conn: sqlite3.Connection, most: int = 20) -> list[Batch]:
    """The latest changes of the shelf."""
    rows = conn.execute(
        "SELECT b.id, b.at, b.what, b.undone, (SELECT count(*) FROM shelf_change c WHERE c.batch_id"
        " = b.id) AS products FROM shelf_batch b ORDER BY b.id DESC LIMIT :most",
        {"most": most},
    )
    return [Batch(**{**dict(row), "undone": bool(row["undone"])}) for row in rows]


def history(conn: sqlite3.Connection, kind: str, product_id: str) -> list[Change]:
    """What happened to one product, the latest first."""
    rows = conn.execute(
        "SELECT b.at, b.what, c.before, c.after FROM shelf_change c JOIN shelf_batch b ON b.id ="
        " c.batch_id WHERE c.kind = :kind AND c.product_id = :id ORDER BY b.id DESC",
        {"kind": kind, "id": product_id},
    )
    return [
        Change(
            r["at"],
            r["what"],
            json.loads(r["before"]) if r["before"] else None,
            json.loads(r["after"]) if r["after"] else None,
        )
        for r in rows
    ]


def version(conn: sqlite3.Connection) -> str:
    """A text that changes whenever the shelf does."""
    row = conn.execute(
        "SELECT coalesce(max(id), 0), coalesce(sum(undone), 0) FROM shelf_batch"
    ).fetchone()
    counts = [
        conn.execute(f"SELECT count(*) FROM {table}").fetchone()[0]
        for table, _, _ in _TABLES.values()
    ]
    return f"{row[0]}.{row[1]}.{'.'.join(map(str, counts))}"
