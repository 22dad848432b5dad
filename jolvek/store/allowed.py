"""What the records allow, held in the database too: triggers made from the records' own ranges, so
that another program cannot store what Jolvek would refuse.

They look at what a write changes: what an older version kept stays readable and can be mended.
Lists are checked by their records.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Iterator, Mapping
from typing import Any

from jolvek.core.enquiry.need import Day, Leg
from jolvek.core.enquiry.site import Bay, Site
from jolvek.core.hydro.families import FAMILIES
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.products.plain import KINDS, fields_of
from jolvek.core.products.shelf import Item
from jolvek.store import due_list, trail
from jolvek.store.columns import types_of
from jolvek.store.setups import SHAFT_M
from jolvek.store.shelf import TABLES

_SPECS: dict[str, Any] = {table: KINDS[kind] for kind, table in TABLES.items()}
_TYPES = types_of(Day, Hull, Load, Site, Item, *KINDS.values())
_RANGES: dict[str, Mapping[str, tuple[float, float]]] = {
    "boat": {**Hull.RANGES, **Site.RANGES},
    "load": Load.RANGES,
    "bay": Bay.RANGES,
    "leg": Leg.RANGES,
    "enquiry": Day.RANGES,
    "setup": {"shaft_m": SHAFT_M},
    **{table: {**Item.RANGES, **spec.RANGES} for table, spec in _SPECS.items()},
}
_CHOICES: dict[str, Mapping[str, Any]] = {
    "boat": {**Hull.CHOICES, **Site.CHOICES, "family": tuple(FAMILIES)},
    "enquiry": Day.CHOICES,
    **{t: {**Item.CHOICES, **getattr(spec, "CHOICES", {})} for t, spec in _SPECS.items()},
}
_DATES = {"enquiry": ("date",), **dict.fromkeys(TABLES.values(), ("valid_to",))}
_COLUMNS = {table: fields_of(kind) for kind, table in TABLES.items()}


def put(conn: sqlite3.Connection) -> None:
    """Make the triggers anew where the records allow something else than when they were made."""
    wanted = {f"{table}_{verb}": _trigger(table, verb) for table in _RANGES for verb in _VERBS}
    wanted |= trail.TRIGGERS | due_list.TRIGGERS
    if wanted != dict(conn.execute("SELECT name, sql FROM sqlite_master WHERE type = 'trigger'")):
        take_off(conn)
        for sql in wanted.values():
            conn.execute(sql)


def take_off(conn: sqlite3.Connection) -> None:
    """Drop them, so that tables can be altered."""
    for row in conn.execute("SELECT name FROM sqlite_master WHERE type = 'trigger'").fetchall():
        conn.execute(f"DROP TRIGGER {row['name']}")


_VERBS = {"insert": "", "update": "NEW.{key} IS NOT OLD.{key} AND "}


def _trigger(table: str, verb: str) -> str:
    cases = [
        f"WHEN {_VERBS[verb].format(key=key)}{broken}"
        f" THEN RAISE(ABORT, '{table}.{key} is not allowed')"
        for key, broken in _broken(table)
    ]
    head = f"CREATE TRIGGER {table}_{verb} BEFORE {verb.upper()} ON {table}"
    return f"{head} BEGIN SELECT CASE {' '.join(cases)} END; END"


def _broken(table: str) -> Iterator[tuple[str, str]]:
    """(column, condition under which it is refused)."""
    columns = _COLUMNS.get(table)

    def there(key: str) -> bool:
        return not _TYPES.get(key, "").startswith("tuple") and (columns is None or key in columns)

    for key, (low, high) in _RANGES[table].items():
        if there(key):
            yield key, f"NEW.{key} NOT BETWEEN {low!r} AND {high!r}"
    for key, known in _CHOICES.get(table, {}).items():
        if there(key):
            words = ", ".join(f"'{word}'" for word in known)
            yield key, f"NEW.{key} NOT IN ({words})"
    for key in filter(there, _DATES.get(table, ())):
        yield key, f"NEW.{key} <> '' AND NEW.{key} IS NOT date(NEW.{key}, '+0 days')"
