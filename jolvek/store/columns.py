"""Rows and records: columns follow the fields of the records, and JSON in a column says its format
and version.
"""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Callable, Mapping
from dataclasses import fields
from typing import Any

from jolvek.core.base.errors import JolvekError

# (format, version found) → how to read its value as the next version; 0 is bare JSON of 0.5
UPGRADES: dict[tuple[str, int], Callable[[Any], Any]] = {}
VERSION = 1


class UnreadableColumn(JolvekError):
    """What a column holds cannot be read."""


def columns(record: type, without: tuple[str, ...] = ()) -> tuple[str, ...]:
    """The fields of a record that are columns of its table."""
    return tuple(f.name for f in fields(record) if f.name not in without)


def column_values(values: Mapping[str, Any], names: tuple[str, ...]) -> dict[str, Any]:
    """Plain values as SQLite keeps them: truths as 0 and 1, lists as JSON, None where not given."""
    return {name: _kept(values.get(name)) for name in names}


def _kept(value: Any) -> Any:
    if isinstance(value, bool):
        return int(value)
    return to_json("jolvek-list", list(value)) if isinstance(value, list | tuple) else value


def types_of(*records: type) -> dict[str, str]:
    """The types of the fields of records, as written in them."""
    return {f.name: str(f.type) for record in records for f in fields(record)}


def plain_row(
    row: Mapping[str, Any] | sqlite3.Row, names: tuple[str, ...], *records: type
) -> dict[str, Any]:
    """A row as the plain values of the records it is kept for, what is NULL left out."""
    types = types_of(*records)
    return {k: _read(row[k], types.get(k, "")) for k in names if row[k] is not None}


def _read(value: Any, kind: str) -> Any:
    """A column's value; a list that cannot be read stays text, which its record then refuses."""
    if kind == "bool":
        return bool(value)
    try:
        return from_json("jolvek-list", value) if kind.startswith("tuple") else value
    except UnreadableColumn:
        return value


def to_json(kind: str, value: Any) -> str:
    """A value as JSON that says what it is."""
    return json.dumps({"format": kind, "version": VERSION, "value": value}, ensure_ascii=False)


def from_json(kind: str, text: str) -> Any:
    """The value in a column, upgraded from older versions. Raises UnreadableColumn."""
    try:
        data = json.loads(text)
    except (ValueError, RecursionError):
        raise UnreadableColumn(f"{kind}: read {text[:40]!r}, allowed is JSON") from None
    version: Any = 0
    value = data
    if isinstance(data, dict) and "format" in data and "value" in data:
        version, value = data.get("version"), data["value"]
        if data["format"] != kind or not isinstance(version, int) or version > VERSION:
            found = f"{data['format']} {version}"
            raise UnreadableColumn(f"{kind}: read {found}, allowed is version {VERSION} and older")
    for older in range(version, VERSION):
        value = UPGRADES.get((kind, older), lambda same: same)(value)
    return value


def select(table: str, names: tuple[str, ...], rest: str) -> str:
    """A SELECT with its columns listed."""
    return f"SELECT {', '.join(names)} FROM {table} {rest}"


def insert(table: str, names: tuple[str, ...], verb: str = "INSERT") -> str:
    """An INSERT with its columns as named parameters."""
    return f"{verb} INTO {table} ({', '.join(names)}) VALUES ({', '.join(':' + c for c in names)})"
