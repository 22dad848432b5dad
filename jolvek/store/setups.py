"""Setups pinned to an enquiry, with their parts as they were when pinned."""

from __future__ import annotations

import sqlite3
from dataclasses import dataclass
from typing import Any

from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.core.fit.as_set import AS_PLANNED, AsSet, as_set_from, as_set_plain
from jolvek.core.job.parts import Bought as Bought
from jolvek.core.products.plain import product_from_plain, product_plain
from jolvek.core.products.shelf import Item
from jolvek.store.columns import from_json, to_json
from jolvek.store.once import OF, each, once

LETTERS = "ABCDE"
PART_TABLES = ("setup_item", "setup_extra")
_PART = "setup_id, kind, product_id, title, quantity, price, data"
_PARTS = " UNION ALL ".join(
    f"SELECT '{table}' AS of_table, enquiry_id, {_PART} FROM {table} JOIN setup ON setup.id ="
    " setup_id"
    for table in PART_TABLES
)
_PARTS = (
    f"SELECT of_table, {_PART} FROM ({_PARTS}) WHERE enquiry_id = :id"
    " ORDER BY of_table, kind, product_id"
)
FITTING = "jolvek-fitting"  # what a setup's fitting is kept as
MOST = 5
MOST_PACKS_A_SIDE = 16  # in series, and in parallel
SHAFT_M = (0.1, 2.0)
ESSENTIALS = {
    "motor": "motors",
    "battery": "batteries",
    "mount": "mounts",
    "charger": "chargers",
}
EXTRAS = {
    "panel": "panels",
    "controller": "controllers",
    "propeller": "propellers",
    "accessory": "accessories",
}
KIND_OF_PART = {**ESSENTIALS, **EXTRAS}


class TooManyPinned(JolvekError):
    """No letter is free."""


@dataclass(frozen=True)
class Pinned:
    """One setup with its letter."""

    id: int
    enquiry_id: int
    letter: str
    series: int
    parallel: int
    shaft_m: float | None
    chosen: bool
    parts: tuple[Bought, ...]
    extras: tuple[Bought, ...] = ()
    fitting: AsSet = AS_PLANNED

    def part(self, kind: str) -> Bought | None:
        """The part of that kind, or None."""
        return next((p for p in self.parts if p.kind == kind), None)

    @property
    def key(self) -> str:
        """What it is made of, as one text: the same parts have the same key."""
        ids = [f"{p.kind}:{p.item.id}" for p in self.parts]
        layout = f"{self.series}s{self.parallel}p"
        return "|".join([*sorted(ids), layout, f"{self.shaft_m or 0:.3f}"])


@dataclass(frozen=True)
class Broken:
    """A pinned setup that cannot be read, and why: it can be taken off, nothing else."""

    letter: str
    reason: str


def of_enquiry(conn: sqlite3.Connection, enquiry_id: int) -> list[Pinned]:
    """The pinned setups by letter, those that can be read."""
    return [x for x in _all(conn, enquiry_id) if isinstance(x, Pinned)]


def broken(conn: sqlite3.Connection, enquiry_id: int) -> list[Broken]:
    """The pinned setups that cannot be read, with the reason."""
    return [x for x in _all(conn, enquiry_id) if isinstance(x, Broken)]


def _all(conn: sqlite3.Connection, enquiry_id: int) -> list[Pinned | Broken]:
    return once(conn, ("setups", enquiry_id), lambda: [of_row(x) for x in rows(conn, enquiry_id)])


def rows(conn: sqlite3.Connection, enquiry_id: int) -> list[dict[str, Any]]:
    """The rows of an enquiry's setups by letter, each with those of its parts by table."""
    return once(conn, ("setup rows", enquiry_id), lambda: _rows(conn, enquiry_id))


def _rows(conn: sqlite3.Connection, enquiry_id: int) -> list[dict[str, Any]]:
    found = each(conn, "SELECT * FROM setup WHERE enquiry_id = :id ORDER BY letter", enquiry_id)
    by_setup: dict[int, dict[str, Any]] = {
        row["id"]: {**_plain(row), **{table: [] for table in PART_TABLES}} for row in found
    }
    for part in each(conn, _PARTS, enquiry_id):
        values = _plain(part)
        by_setup[part["setup_id"]][values.pop("of_table")].append(values)
    return list(by_setup.values())


def _plain(row: sqlite3.Row) -> dict[str, Any]:
    return {k: row[k] for k in row.keys() if k != OF}


def of_row(row: dict[str, Any]) -> Pinned | Broken:
    """A setup of its row with the rows of its parts and add-ons."""
    items, extras = (sorted(row[table], key=_order) for table in PART_TABLES)
    try:
        check_layout(row["series"], row["parallel"], row["shaft_m"])
        parts = _parts(items)
        lacking = {"motor", "battery", "mount"} - {p.kind for p in parts}
        if lacking:
            raise ValueRefused("setup", "no " + min(lacking), "motor, battery and mount")
        added = _parts(extras)
        kept = row["fitting"]
        fitting = as_set_from(from_json(FITTING, kept)) if kept else AS_PLANNED
    except (JolvekError, TypeError, KeyError) as error:
        return Broken(row["letter"], str(error))
    names = ("id", "enquiry_id", "letter", "series", "parallel", "shaft_m")
    known = {**{k: row[k] for k in names}, "chosen": bool(row["chosen"]), "fitting": fitting}
    return Pinned(**known, parts=parts, extras=added)


def check_layout(series: int, parallel: int, shaft_m: float | None) -> None:
    """Raise ValueRefused for a bank or a shaft that there cannot be."""
    for key, packs in (("series", series), ("parallel", parallel)):
        if not 1 <= packs <= MOST_PACKS_A_SIDE:
            raise ValueRefused(f"setup.{key}", packs, f"1 to {MOST_PACKS_A_SIDE}")
    if shaft_m is not None and not SHAFT_M[0] <= shaft_m <= SHAFT_M[1]:
        raise ValueRefused("setup.shaft_m", shaft_m, f"{SHAFT_M[0]:g} to {SHAFT_M[1]:g} m")


def _order(part: dict[str, Any]) -> tuple[int, str, str]:
    first = ("motor", "battery", "mount")
    place = first.index(part["kind"]) if part["kind"] in first else len(first)
    return place, part["kind"], part["title"]


def _parts(rows: list[dict[str, Any]]) -> tuple[Bought, ...]:
    return tuple(
        Bought(
            row["kind"],
            product_from_plain(KIND_OF_PART[row["kind"]], from_json("jolvek-product", row["data"])),
            row["quantity"],
            row["price"],
        )
        for row in rows
    )


def add_extra(
    conn: sqlite3.Connection, setup_id: int, kind: str, item: Item[Any], quantity: int = 1
) -> None:
    """Put an add-on to a setup; once more of it raises the number."""
    conn.execute(
        "INSERT INTO setup_extra (setup_id, product_id, kind, title, quantity, price, data) VALUES"
        " (:setup, :product, :kind, :title, :quantity, :price, :data) ON CONFLICT (setup_id,"
        " product_id) DO UPDATE SET quantity = quantity + 1",
        _row(setup_id, kind, item, quantity),
    )


def _row(setup_id: int, kind: str, item: Item[Any], quantity: int) -> dict[str, Any]:
    return {
        "setup": setup_id,
        "product": item.id,
        "kind": kind,
        "title": item.title,
        "quantity": quantity,
        "price": item.price,
        "data": to_json("jolvek-product", product_plain(item)),
    }


def drop_extra(conn: sqlite3.Connection, setup_id: int, product_id: str) -> None:
    """Take an add-on off."""
    conn.execute(
        "DELETE FROM setup_extra WHERE setup_id = :setup AND product_id = :product",
        {"setup": setup_id, "product": product_id},
    )


def pin(
    conn: sqlite3.Connection,
    enquiry_id: int,
    items: dict[str, Item[Any]],
    series: int,
    parallel: int,
    shaft_m: float | None,
    fitting: AsSet = AS_PLANNED,
) -> str:
    """Pin a setup under the next free letter; returns the letter. Raises TooManyPinned, and
    ValueRefused for a bank or a shaft that there cannot be.
    """
    check_layout(series, parallel, shaft_m)
    used = {
        row["letter"]
        for row in conn.execute(
            "SELECT letter FROM setup WHERE enquiry_id = :id", {"id": enquiry_id}
        )
    }
    if len(used) >= MOST:
        raise TooManyPinned(f"{MOST} setups are pinned already; take one off first")
    letter = next(x for x in LETTERS if x not in used)
    setup_id = conn.execute(
        "INSERT INTO setup (enquiry_id, letter, series, parallel, shaft_m, fitting) VALUES"
        " (:enquiry, :letter, :series, :parallel, :shaft, :fitting) RETURNING id",
        {
            "enquiry": enquiry_id,
            "letter": letter,
            "series": series,
            "parallel": parallel,
            "shaft": shaft_m,
            "fitting": _kept(fitting),
        },
    ).fetchone()["id"]
    conn.executemany(
        "INSERT INTO setup_item (setup_id, kind, product_id, title, quantity, price, data) VALUES"
        " (:setup, :kind, :product, :title, :quantity, :price, :data)",
        [
            _row(setup_id, kind, item, series * parallel if kind == "battery" else 1)
            for kind, item in items.items()
        ],
    )
    return letter


def _kept(fitting: AsSet) -> str | None:
    return to_json(FITTING, as_set_plain(fitting)) if fitting != AS_PLANNED else None


def fit(conn: sqlite3.Connection, setup_id: int, shaft_m: float | None, fitting: AsSet) -> None:
    """Keep how a setup is fitted. Raises ValueRefused for a shaft there cannot be."""
    check_layout(1, 1, shaft_m)
    conn.execute(
        "UPDATE setup SET shaft_m = :shaft, fitting = :fitting WHERE id = :id",
        {"id": setup_id, "shaft": shaft_m, "fitting": _kept(fitting)},
    )


def renew(conn: sqlite3.Connection, setup_id: int, part: Bought, item: Item[Any]) -> None:
    """A part of a setup as the catalogue has it now; how many stays."""
    table = "setup_item" if part.kind in ESSENTIALS else "setup_extra"
    conn.execute(
        f"UPDATE {table} SET title = :title, price = :price, data = :data WHERE setup_id = :setup"
        " AND kind = :kind AND product_id = :product",
        _row(setup_id, part.kind, item, part.quantity),
    )


def unpin(conn: sqlite3.Connection, enquiry_id: int, letter: str) -> None:
    """Take a setup off."""
    conn.execute(
        "DELETE FROM setup WHERE enquiry_id = :id AND letter = :letter",
        {"id": enquiry_id, "letter": letter},
    )


def choose(conn: sqlite3.Connection, enquiry_id: int, letter: str) -> None:
    """Make one setup the chosen one."""
    conn.execute(
        "UPDATE setup SET chosen = (letter = :letter) WHERE enquiry_id = :id",
        {"id": enquiry_id, "letter": letter},
    )
