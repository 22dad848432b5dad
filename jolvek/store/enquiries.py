"""Enquiries with their boat, load, bays and day: kept, read for ever, changed in one way."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable
from dataclasses import dataclass, replace
from typing import Any

from jolvek.core.base.plain import plain
from jolvek.core.enquiry.enquiry import Enquiry, read_mended
from jolvek.core.enquiry.merging import Merged, merge
from jolvek.core.enquiry.need import Day, Leg, Need
from jolvek.core.enquiry.site import Bay, Site
from jolvek.core.hydro.hull import Hull, Load
from jolvek.store import finding, versions
from jolvek.store.columns import (
    UnreadableColumn,
    column_values,
    columns,
    from_json,
    insert,
    plain_row,
    select,
    to_json,
)
from jolvek.store.db import transaction
from jolvek.store.once import each, once

HULL, LOAD = columns(Hull), columns(Load)
SITE, BAY = columns(Site, without=("bays",)), columns(Bay)
DAY, LEG = columns(Day, without=("legs",)), columns(Leg)
WORDS = ("customer", "phone", "mail", "address", "title", "note")
BOAT_WORDS = ("model", "storage")
ENQUIRY = (*WORDS, "changed_at", "water", *DAY, "weights")
BOAT = (*HULL, *SITE, *BOAT_WORDS)
STAGES = ("open", "offered", "ordered", "delivered")

_READ = {
    "enquiry": ("id", "stage", "archived", *ENQUIRY),
    "boat": ("photo", *BOAT),
    "load": LOAD,
}
_GET = select(
    "enquiry",
    tuple(f"{table}.{name}" for table, names in _READ.items() for name in names),
    "JOIN boat ON boat.enquiry_id = enquiry.id JOIN load ON load.enquiry_id = enquiry.id"
    " WHERE enquiry.id = :id",
)
_GET_BAYS = select("bay", BAY, "WHERE enquiry_id = :id ORDER BY place")
_GET_LEGS = select("leg", LEG, "WHERE enquiry_id = :id ORDER BY place")
_ADD_ENQUIRY = insert("enquiry", ENQUIRY) + " RETURNING id"
_SAVE_ENQUIRY = f"UPDATE enquiry SET {', '.join(f'{c} = :{c}' for c in ENQUIRY)} WHERE id = :id"
_PUT_BOAT = insert("boat", ("enquiry_id", *BOAT)) + (
    f" ON CONFLICT (enquiry_id) DO UPDATE SET {', '.join(f'{c} = excluded.{c}' for c in BOAT)}"
)
_PUT_LOAD = insert("load", ("enquiry_id", *LOAD), "INSERT OR REPLACE")
_ADD_BAY = insert("bay", ("enquiry_id", "place", *BAY))
_ADD_LEG = insert("leg", ("enquiry_id", "place", *LEG))


@dataclass(frozen=True)
class Stored:
    """One enquiry as kept; `problems` says what of it could not be read and what was taken."""

    id: int
    changed_at: str
    stage: str
    archived: bool
    photo: str
    enquiry: Enquiry
    problems: tuple[str, ...] = ()

    @property
    def need(self) -> Need:
        """Boat, load, site and day."""
        return self.enquiry.need

    @property
    def title(self) -> str:
        """Its title."""
        return self.enquiry.title

    @property
    def customer(self) -> str:
        """Who asks."""
        return self.enquiry.customer

    @property
    def note(self) -> str:
        """What else was said."""
        return self.enquiry.note


def get(conn: sqlite3.Connection, enquiry_id: int) -> Stored | None:
    """One enquiry, or None. What it holds is always readable: a value that this version does not
    allow is replaced by what is usual, and said.
    """
    return once(conn, ("enquiry", enquiry_id), lambda: _got(conn, enquiry_id))


def _got(conn: sqlite3.Connection, enquiry_id: int) -> Stored | None:
    found = each(conn, _GET, enquiry_id, "enquiry.id")
    if not found:
        return None
    values = iter(found[0])
    e, b, load = ({name: next(values) for name in names} for names in _READ.values())
    bays = [plain_row(row, BAY, Bay) for row in each(conn, _GET_BAYS, enquiry_id)]
    legs = [plain_row(row, LEG, Leg) for row in each(conn, _GET_LEGS, enquiry_id)]
    enquiry, problems = read_mended(
        {
            **{k: e[k] for k in WORDS},
            **{k: b[k] for k in BOAT_WORDS},
            "hull": plain_row(b, HULL, Hull),
            "load": plain_row(load, LOAD, Load),
            "water": e["water"],
            "site": {**plain_row(b, SITE, Site), "bays": bays},
            "day": {**plain_row(e, DAY, Day), "legs": legs},
            "weights": _weights(e["weights"]),
        }
    )
    archived = bool(e["archived"])
    return Stored(
        e["id"], e["changed_at"], e["stage"], archived, b["photo"], enquiry, problems=problems
    )


def _weights(text: str) -> dict[str, float]:
    try:
        return dict(from_json("jolvek-weights", text))
    except (UnreadableColumn, TypeError, ValueError):
        return {}


def add(conn: sqlite3.Connection, enquiry: Enquiry, now: str, who: str = "") -> int:
    """A new enquiry; returns its number."""
    number = int(conn.execute(_ADD_ENQUIRY, _values(enquiry, now)).fetchone()["id"])
    _write_rest(conn, number, enquiry)
    versions.keep(conn, number, enquiry, now, who=who)
    return number


@dataclass(frozen=True)
class Changed:
    """What a change came to: the enquiry and its time, and the fields that two people changed."""

    enquiry: Enquiry
    changed_at: str
    merged: Merged


def change(
    conn: sqlite3.Connection,
    enquiry_id: int,
    edit: Callable[[Enquiry], Enquiry],
    now: str,
    seen: str = "",
    page: str = "",
    who: str = "",
    turn: int = 0,
) -> Changed:
    """The one way to change an enquiry: read, edited, merged and written in one transaction.

    `edit` is given the enquiry to start from and returns what it should be. A form says which
    version it was filled from (`seen`) and which open page it is (`page`): its edit starts from
    there, and what somebody else changed meanwhile stays. Where both changed the same field,
    theirs stays and `merged.clashes` says both. A page numbers its saves (`turn`): one that comes
    after a later one changes nothing. Raises KeyError where there is none.
    """
    with transaction(conn):
        return change_within(conn, enquiry_id, edit, now, seen, page, who, turn)


def change_within(
    conn: sqlite3.Connection,
    enquiry_id: int,
    edit: Callable[[Enquiry], Enquiry],
    now: str,
    seen: str = "",
    page: str = "",
    who: str = "",
    turn: int = 0,
) -> Changed:
    """The same within a transaction that is the caller's."""
    stored = _there(conn, enquiry_id)
    versions.keep_first(conn, stored.id, stored.enquiry, stored.changed_at)
    mine, merged = _edited(conn, stored, edit, seen, page)
    if versions.is_late(conn, enquiry_id, page, turn):
        return Changed(stored.enquiry, stored.changed_at, Merged(stored.enquiry))
    if merged.enquiry != stored.enquiry or stored.problems:
        conn.execute(_SAVE_ENQUIRY, {**_values(merged.enquiry, now), "id": enquiry_id})
        _write_rest(conn, enquiry_id, merged.enquiry)
        versions.keep(conn, enquiry_id, merged.enquiry, now, mine, page, who, turn)
        return Changed(merged.enquiry, now, merged)
    if page:
        at = stored.changed_at
        versions.keep(conn, enquiry_id, merged.enquiry, at, mine, page, who, turn)
    return Changed(stored.enquiry, stored.changed_at, merged)


def tried(
    conn: sqlite3.Connection,
    enquiry_id: int,
    edit: Callable[[Enquiry], Enquiry],
    seen: str = "",
    page: str = "",
) -> Stored:
    """The enquiry as `change` would leave it; nothing is kept."""
    stored = _there(conn, enquiry_id)
    return replace(stored, enquiry=_edited(conn, stored, edit, seen, page)[1].enquiry)


def _there(conn: sqlite3.Connection, enquiry_id: int) -> Stored:
    stored = get(conn, enquiry_id)
    if stored is None:
        raise KeyError(enquiry_id)
    return stored


def _edited(
    conn: sqlite3.Connection,
    stored: Stored,
    edit: Callable[[Enquiry], Enquiry],
    seen: str,
    page: str,
) -> tuple[Enquiry, Merged]:
    """What an edit makes of the version it was begun from, and that merged into what stands."""
    row = versions.base(conn, stored.id, seen, page) if seen or page else None
    base = row or stored.enquiry
    mine = edit(base)
    return mine, merge(base, mine, stored.enquiry)


def touch(conn: sqlite3.Connection, enquiry_id: int, now: str) -> None:
    """Mark what is pinned as changed, and take its products into what can be found."""
    conn.execute(
        "UPDATE enquiry SET touched_at = :now WHERE id = :id", {"now": now, "id": enquiry_id}
    )
    finding.index(conn, enquiry_id)


def set_stage(conn: sqlite3.Connection, enquiry_id: int, stage: str, now: str) -> None:
    """How far it has come: one of STAGES. An offer that is accepted orders no parts yet."""
    conn.execute(
        "UPDATE enquiry SET stage = :stage, touched_at = :now WHERE id = :id",
        {"stage": stage, "now": now, "id": enquiry_id},
    )


def parts_ordered(conn: sqlite3.Connection, enquiry_id: int, now: str) -> None:
    """The parts are ordered: what waits now is the handover."""
    set_stage(conn, enquiry_id, "ordered", now)
    conn.execute(
        "UPDATE enquiry SET ordered_at = :now WHERE id = :id", {"now": now, "id": enquiry_id}
    )


def archive(conn: sqlite3.Connection, enquiry_id: int, yes: bool = True) -> None:
    """Put an enquiry away, or take it out again; nothing is deleted."""
    conn.execute(
        "UPDATE enquiry SET archived = :yes WHERE id = :id", {"yes": int(yes), "id": enquiry_id}
    )


def set_photo(conn: sqlite3.Connection, enquiry_id: int, name: str) -> None:
    """The file name of the boat's photo in the data folder; empty for none."""
    conn.execute(
        "UPDATE boat SET photo = :name WHERE enquiry_id = :id", {"name": name, "id": enquiry_id}
    )


def _values(enquiry: Enquiry, now: str) -> dict[str, Any]:
    need = enquiry.need
    return {
        **{k: getattr(enquiry, k) for k in WORDS},
        "changed_at": now,
        "water": need.water.kind,
        **column_values(plain(need.day), DAY),
        "weights": to_json("jolvek-weights", dict(need.weights)),
    }


def _write_rest(conn: sqlite3.Connection, enquiry_id: int, enquiry: Enquiry) -> None:
    need, key = enquiry.need, {"enquiry_id": enquiry_id}
    words = {k: getattr(enquiry, k) for k in BOAT_WORDS}
    boat = {"places": [], **plain(need.hull), **plain(need.site), **words}
    conn.execute(_PUT_BOAT, {**key, **column_values(boat, BOAT)})
    conn.execute(_PUT_LOAD, {**key, **column_values({"seat_kg": [], **plain(need.load)}, LOAD)})
    for table in ("bay", "leg"):
        conn.execute(f"DELETE FROM {table} WHERE enquiry_id = :enquiry_id", key)
    for sql, names, rows in ((_ADD_BAY, BAY, need.site.bays), (_ADD_LEG, LEG, need.day.legs)):
        conn.executemany(
            sql,
            [{**key, "place": i, **column_values(plain(row), names)} for i, row in enumerate(rows)],
        )
    finding.index(conn, enquiry_id)
