"""The shelf in the database, as core items, with every change kept so that it can be undone."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from typing import Any

from jolvek.core.base.errors import JolvekError
from jolvek.core.products.plain import KINDS as SPECS
from jolvek.core.products.plain import fields_of, product_from_plain, product_plain
from jolvek.core.products.shelf import Item, Shelf
from jolvek.store.columns import column_values, from_json, insert, plain_row, select, to_json
from jolvek.store.once import once

TABLES = {
    "motors": "motor",
    "batteries": "battery",
    "mounts": "mount",
    "chargers": "charger",
    "panels": "panel",
    "controllers": "sun_controller",
    "propellers": "propeller",
    "accessories": "accessory",
    "boats": "boat_model",
}
_ORDER = {
    "motors": "input_power_w, id",
    "batteries": "nominal_voltage_v * capacity_ah, id",
    "mounts": "price, id",
    "chargers": "voltage_v * current_a, id",
    "panels": "rated_w, id",
    "controllers": "output_a, id",
    "propellers": "diameter_m, id",
    "accessories": "kind, price, id",
    "boats": "maker, name, from_year, id",
}
KINDS = tuple(TABLES)
_SELECT = {k: select(t, fields_of(k), f"ORDER BY {_ORDER[k]}") for k, t in TABLES.items()}
_PUT = {k: insert(t, fields_of(k), "INSERT OR REPLACE") for k, t in TABLES.items()}
_GET = {k: select(t, fields_of(k), "WHERE id = :id") for k, t in TABLES.items()}
_DELETE = {k: f"DELETE FROM {t} WHERE id = :id" for k, t in TABLES.items()}
assert set(SPECS) == set(TABLES)


@dataclass(frozen=True)
class Problem:
    """A product that cannot be read, and why: its page shows what is kept, to be mended."""

    kind: str
    id: str
    title: str
    reason: str


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


def _row(row: sqlite3.Row, kind: str) -> dict[str, Any]:
    return plain_row(row, fields_of(kind), Item, SPECS[kind])


def load(conn: sqlite3.Connection) -> Shelf:
    """Every product on the shelf that can be read, the discontinued ones too."""
    return _loaded(conn)[0]


def titles(conn: sqlite3.Connection) -> dict[str, str]:
    """Maker and name of every product, by id."""
    one = "SELECT id, maker || ' ' || name AS title FROM {}"
    sql = " UNION ALL ".join(one.format(table) for table in TABLES.values())
    return {row["id"]: row["title"] for row in conn.execute(sql)}


def problems(conn: sqlite3.Connection) -> list[Problem]:
    """The products that cannot be read."""
    return _loaded(conn)[1]


def _loaded(conn: sqlite3.Connection) -> tuple[Shelf, list[Problem]]:
    return once(conn, "shelf", lambda: _read_all(conn))


def _read_all(conn: sqlite3.Connection) -> tuple[Shelf, list[Problem]]:
    good: dict[str, list[Item[Any]]] = {kind: [] for kind in KINDS}
    bad = []
    for kind, sql in _SELECT.items():
        for row in conn.execute(sql):
            try:
                good[kind].append(product_from_plain(kind, _row(row, kind)))
            except (JolvekError, TypeError) as error:
                title = f"{row['maker']} {row['name']}"
                bad.append(Problem(kind, row["id"], title, str(error)))
    return Shelf(**{kind: tuple(items) for kind, items in good.items()}), bad


def get(conn: sqlite3.Connection, kind: str, product_id: str) -> Item[Any] | None:
    """One product, or None where there is none or it cannot be read."""
    row = stored_row(conn, kind, product_id)
    try:
        return None if row is None else product_from_plain(kind, row)
    except (JolvekError, TypeError):
        return None


def stored_row(conn: sqlite3.Connection, kind: str, product_id: str) -> dict[str, Any] | None:
    """What is kept of a product, readable or not, as plain data; None where there is none."""
    row = conn.execute(_GET[kind], {"id": product_id}).fetchone()
    return None if row is None else _row(row, kind)


def put(conn: sqlite3.Connection, kind: str, item: Item[Any]) -> None:
    """Put one product on the shelf, or in the place of the one with its id."""
    conn.execute(_PUT[kind], column_values(product_plain(item), fields_of(kind)))


def add_all(conn: sqlite3.Connection, shelf: Shelf) -> None:
    """Put a whole shelf in, without history: for an empty database."""
    for kind in KINDS:
        for item in getattr(shelf, kind):
            put(conn, kind, item)


def change(
    conn: sqlite3.Connection, items: list[tuple[str, Item[Any]]], what: str, now: str
) -> int:
    """Put products in as one batch that can be undone; returns its number."""
    batch = int(
        conn.execute(
            "INSERT INTO shelf_batch (at, what) VALUES (:at, :what) RETURNING id",
            {"at": now, "what": what},
        ).fetchone()["id"]
    )
    for kind, item in items:
        before = stored_row(conn, kind, item.id)
        conn.execute(
            "INSERT OR REPLACE INTO shelf_change (batch_id, kind, product_id, before, after) VALUES"
            " (:batch, :kind, :id, :before, :after)",
            {
                "batch": batch,
                "kind": kind,
                "id": item.id,
                "after": to_json("jolvek-product", product_plain(item)),
                "before": None if before is None else to_json("jolvek-product", before),
            },
        )
        put(conn, kind, item)
    return batch


def undo(conn: sqlite3.Connection, batch_id: int) -> int:
    """Put back what stood before a batch; returns how many products. Products changed again since
    are left as they are.
    """
    done = 0
    for row in conn.execute(
        "SELECT kind, product_id, before, after FROM shelf_change WHERE batch_id = :id",
        {"id": batch_id},
    ).fetchall():
        kind, now = row["kind"], get(conn, row["kind"], row["product_id"])
        if now != product_from_plain(kind, _product(row["after"]) or {}):
            continue
        before = _product(row["before"])
        if before is None:
            conn.execute(_DELETE[kind], {"id": row["product_id"]})
        else:
            conn.execute(_PUT[kind], column_values(before, fields_of(kind)))
        done += 1
    conn.execute("UPDATE shelf_batch SET undone = 1 WHERE id = :id", {"id": batch_id})
    return done


def _product(text: str | None) -> dict[str, Any] | None:
    return None if text is None else dict(from_json("jolvek-product", text))


def batches(conn: sqlite3.Connection, most: int = 20) -> list[Batch]:
    """The latest changes of the shelf."""
    rows = conn.execute(
        "SELECT b.id, b.at, b.what, b.undone, (SELECT count(*) FROM shelf_change c WHERE"
        " c.batch_id = b.id) AS products FROM shelf_batch b ORDER BY b.id DESC LIMIT :most",
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
    return [Change(r["at"], r["what"], _product(r["before"]), _product(r["after"])) for r in rows]


def version(conn: sqlite3.Connection) -> str:
    """A text that changes whenever the shelf does."""
    counts = "".join(f", (SELECT count(*) FROM {table})" for table in TABLES.values())
    batches = "SELECT coalesce(max(id), 0), coalesce(sum(undone), 0)"
    asked = f"{batches}{counts} FROM shelf_batch"
    row = once(conn, "shelf version", lambda: tuple(conn.execute(asked).fetchone()))
    return ".".join(map(str, row))
