"""One kind of product as CSV: written so that it comes back unchanged, read with every faulty row
named by line and reason.

Reads UTF-8 with or without a byte-order mark and Windows-1252, commas, semicolons or tabs, decimal
points or commas. Cells that a spreadsheet would run as a formula are written with a leading
apostrophe and refused as input.
"""

from __future__ import annotations

import csv
import io
import re
from dataclasses import dataclass
from functools import cache
from itertools import islice
from typing import Any

from jsonschema import Draft202012Validator
from jsonschema.exceptions import best_match

from jolvek.core.base import typed_figures
from jolvek.core.base.errors import JolvekError
from jolvek.core.products.plain import KINDS, product_from_plain, product_plain
from jolvek.core.products.shelf import Item, Shelf
from jolvek.formats import decimals, schema
from jolvek.formats.shelf_schema import item_schema
from jolvek.formats.tables import FORMULA, MOST_ROWS
from jolvek.formats.unlikely import asked_about

_WORDS = re.compile(r"-\d[\w .,/-]*$|[^-=+@]")  # a dash before a figure, as in a name


class CsvRefused(JolvekError):
    """The file as a whole cannot be read."""


@dataclass(frozen=True)
class Row:
    """One row: its line, what it is (new, changed, same, wrong), the product or the reason against
    it, what changes.
    """

    line: int
    state: str
    item: Item[Any] | None = None
    reason: str = ""
    changes: tuple[tuple[str, str, str], ...] = ()
    title: str = ""
    ask: str = ""  # what of it is unlikely, and asked about before it is written


@cache
def columns(kind: str) -> dict[str, dict[str, Any]]:
    """Column → its schema, for one kind of product."""
    return dict(item_schema(kind)["properties"])


@cache
def needed(kind: str) -> list[str]:
    """The columns that a file must have."""
    return list(item_schema(kind)["required"])


@cache
def _validator(kind: str) -> Draft202012Validator:
    return Draft202012Validator(item_schema(kind))


def write(shelf: Shelf, kind: str) -> str:
    """All products of a kind as CSV text: comma, decimal point, UTF-8, lists joined by |."""
    out = io.StringIO()
    names = list(columns(kind))
    writer = csv.writer(out, lineterminator="\r\n")
    writer.writerow(names)
    for item in getattr(shelf, kind):
        plain = product_plain(item)
        writer.writerow([cell(plain.get(name)) for name in names])
    return out.getvalue()


def cell(value: Any) -> str:
    if value is None:
        return ""
    if isinstance(value, bool):
        return "yes" if value else "no"
    if isinstance(value, list):
        return "|".join(cell(x) for x in value)
    text = repr(value).removesuffix(".0") if isinstance(value, float) else str(value)
    return f"'{text}" if isinstance(value, str) and FORMULA.match(text) else text


def decoded(content: bytes) -> str:
    """Text of a file: UTF-8, else Windows-1252; refuses what is clearly no text."""
    if b"\x00" in content[:4096]:
        raise CsvRefused("not a CSV file: it holds bytes that no text has")
    try:
        return content.decode("utf-8-sig")
    except UnicodeDecodeError:
        return content.decode("cp1252", errors="replace")


def delimiter_of(text: str) -> str:
    """What stands between its cells: semicolon, tab or comma, whichever its first line has most."""
    first = text.split("\n", 1)[0]
    return max(";\t,", key=first.count) if any(c in first for c in ";\t,") else ","


MOST_LOOKED = 4000  # rows looked at for the decimal sign


def comma_in(text: str, delimiter: str) -> bool:
    """Whether the comma is the decimal sign of a table: by its cells, else by what stands between
    them, for where a semicolon does the comma is taken.
    """
    try:
        rows = islice(csv.reader(io.StringIO(text), delimiter=delimiter), 1, MOST_LOOKED)
        return decimals.is_comma((cell for row in rows for cell in row), delimiter == ";")
    except csv.Error:
        return delimiter == ";"


def read(content: bytes, kind: str, shelf: Shelf) -> list[Row]:
    """Every row of a CSV file against the shelf as it stands; raises CsvRefused for a file without
    usable header.
    """
    text = decoded(content)
    delimiter = delimiter_of(text)
    lines = csv.reader(io.StringIO(text), delimiter=delimiter)
    comma = comma_in(text, delimiter)
    try:
        header = [name.strip().lower() for name in next(lines)]
    except (StopIteration, csv.Error):
        raise CsvRefused("the file is empty; the first line must name the columns") from None
    known = columns(kind)
    strangers = [name for name in header if name and name not in known]
    missing = [name for name in needed(kind) if name not in header]
    if missing or strangers:
        what = (
            f"column {strangers[0]!r} is not known"
            if strangers
            else f"column {missing[0]!r} is missing"
        )
        raise CsvRefused(f"{what}; allowed are {', '.join(known)}")
    old = {item.id: item for item in getattr(shelf, kind)}
    taken = {item.id for other in KINDS if other != kind for item in getattr(shelf, other)}
    out: list[Row] = []
    seen: set[str] = set()
    try:
        for cells in lines:
            if not any(cell.strip() for cell in cells):
                continue
            if len(out) >= MOST_ROWS:
                raise CsvRefused(f"more than {MOST_ROWS} rows; split the file")
            out.append(_row(lines.line_num, header, cells, kind, old, taken, seen, comma))
    except csv.Error as error:
        raise CsvRefused(f"line {lines.line_num}: {error}") from None
    return out


def _row(
    line: int,
    header: list[str],
    cells: list[str],
    kind: str,
    old: dict[str, Item[Any]],
    taken: set[str],
    seen: set[str],
    comma_is_decimal: bool,
) -> Row:
    name = cells[header.index("name")] if len(cells) > header.index("name") else ""
    try:
        if len(cells) > len(header) and any(c.strip() for c in cells[len(header) :]):
            raise CsvRefused(f"{len(cells)} cells, but {len(header)} columns")
        plain = {}
        for key, cell in zip(header, cells, strict=False):
            value = value_of(cell, columns(kind)[key], key, comma_is_decimal) if key else None
            if value is not None:
                plain[key] = value
        item = _item(kind, plain)
        if plain["id"] in seen:
            raise CsvRefused(
                f"id: read {plain['id']!r} a second time, allowed is an id used once only"
            )
        if plain["id"] in taken:
            raise CsvRefused(f"id: read {plain['id']!r}, which is another kind of product here")
    except JolvekError as fault:
        return Row(line, "wrong", None, str(fault), (), name)
    seen.add(item.id)
    before = old.get(item.id)
    if before is None:
        return Row(line, "new", item, "", (), item.title, ask=asked_about(kind, item, None))
    changes = differences(before, item)
    state = "changed" if changes else "same"
    return Row(line, state, item, "", changes, item.title, ask=asked_about(kind, item, before))


def _item(kind: str, plain: dict[str, Any]) -> Item[Any]:
    """The product of a row. The record refuses what the schema refuses and is ten times quicker,
    so the schema is asked only to say a fault in the file's words.
    """
    try:
        if all(name in plain for name in needed(kind)):
            return product_from_plain(kind, plain)
    except JolvekError:
        pass
    error = best_match(_validator(kind).iter_errors(plain))
    if error is not None:
        raise schema.refused(error)
    return product_from_plain(kind, plain)


def value_of(cell: str, rule: dict[str, Any], key: str, comma_is_decimal: bool = True) -> Any:
    """A typed cell as the schema's type; None where it is empty. Raises CsvRefused."""
    text = cell.strip()
    if not text:
        return None
    kind = rule.get("type", "string")
    if kind in ("number", "integer"):
        return _number(text, key, kind == "integer", comma_is_decimal)
    if kind == "boolean":
        word = text.lower()
        if word not in ("yes", "no", "true", "false", "1", "0", "y", "n"):
            raise CsvRefused(f"{key}: read {text!r}, allowed is yes or no")
        return word in ("yes", "true", "1", "y")
    if kind == "array":
        inner = rule.get("items", {})
        return [value_of(part, inner, key, comma_is_decimal) for part in decimals.parts_of(text)]
    if text.startswith("'") and FORMULA.match(text[1:]):
        return text[1:].strip()
    if FORMULA.match(cell) and not _WORDS.match(text):
        raise CsvRefused(
            f"{key}: read {text[:40]!r}, allowed is plain text; a formula is not taken"
        )
    return text


def figure(text: str, key: str, comma_is_decimal: bool) -> float:
    """A typed figure of a cell. Raises CsvRefused."""
    return float(_number(text, key, False, comma_is_decimal))


def _number(text: str, key: str, whole: bool, comma_is_decimal: bool) -> float | int:
    bare = text.replace("\u00a0", "").replace("\u202f", "").replace(" ", "")
    if bare.startswith(("=", "+", "@")):
        raise CsvRefused(
            f"{key}: read {text[:40]!r}, allowed is a plain number; a formula is not taken"
        )
    try:
        value = float(decimals.plain(text, comma_is_decimal))
    except ValueError:
        return _with_unit(text, key)
    if value != value or abs(value) == float("inf"):
        raise CsvRefused(f"{key}: read {text[:40]!r}, allowed is a finite number")
    return int(value) if whole and value.is_integer() else value


QUANTITIES = {  # what a key's end says, its quantity and the unit it is kept in
    "_m_s": ("speed", "m/s"),
    "_w": ("power", "W"),
    "_kg": ("mass", "kg"),
    "_n": ("thrust", "N"),
    "_m": ("length", "m"),
    "_s": ("duration", "s"),
}


def quantity_of(key: str) -> tuple[str, str] | None:
    """The quantity of a key and the unit it is kept in; None for one without.

    >>> quantity_of("length_m"), quantity_of("blades")
    (('length', 'm'), None)
    """
    return next((q for end, q in QUANTITIES.items() if key.endswith(end)), None)


def _with_unit(text: str, key: str) -> float:
    """A figure typed with its unit: "55 lb", "600 mm", "2.4 kW", "1 h 20". Raises CsvRefused."""
    found = quantity_of(key)
    if found is None:
        raise CsvRefused(f"{key}: read {text[:40]!r}, allowed is a number")
    try:
        return typed_figures.parse(text, *found)
    except typed_figures.NotAQuantity:
        message = f"a number, or a {found[0]} with its unit"
        raise CsvRefused(f"{key}: read {text[:40]!r}, allowed is {message}") from None


def differences(before: Item[Any], after: Item[Any]) -> tuple[tuple[str, str, str], ...]:
    """What changes from one to the other: the field, its value before and after as in a file."""
    a, b = product_plain(before), product_plain(after)
    return tuple(
        (key, cell(a.get(key)), cell(b.get(key)))
        for key in sorted({*a, *b})
        if a.get(key) != b.get(key)
    )
