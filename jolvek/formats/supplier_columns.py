"""A supplier's own table read as ours: which column is which key, in which unit, at which rate."""

from __future__ import annotations

import csv
import io
import re
from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from jolvek.core.base import typed_figures
from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.core.products.plain import KINDS, made_id
from jolvek.core.products.shelf import Item, Shelf
from jolvek.formats import decimals, shelf_csv

LEFT_OUT = ""
CALLED = {  # what suppliers call ours
    "brand": "maker",
    "make": "maker",
    "manufacturer": "maker",
    "model": "name",
    "type": "name",
    "net": "price",
    "weight": "mass",
}
RATE = (1e-4, 1e4)  # of a currency, in the shop's own


@dataclass(frozen=True)
class Column:
    """What one column of a supplier is: our key (empty: left out), the unit of figures without one,
    and for prices the rate to the shop's currency.
    """

    key: str = LEFT_OUT
    unit: str = ""
    rate: float = 1.0

    def __post_init__(self) -> None:
        if self.rate != 1.0 and self.key != "price":
            raise ValueRefused("rate", self.rate, "a rate of the price alone")
        if not RATE[0] <= self.rate <= RATE[1]:
            raise ValueRefused("rate", self.rate, f"{RATE[0]:g} to {RATE[1]:g}")
        if self.unit:
            quantity = shelf_csv.quantity_of(self.key)
            if quantity is None:
                raise ValueRefused("unit", self.unit, f"no unit: {self.key or 'it'} has none")
            try:
                typed_figures.parse(f"1 {self.unit}", *quantity)
            except typed_figures.NotAQuantity:
                raise ValueRefused("unit", self.unit, f"a unit of {quantity[0]}") from None


def table(content: bytes) -> tuple[list[str], list[list[str]], str]:
    """Head, rows and delimiter of a CSV file, names that come twice told apart. Raises CsvRefused
    for an empty one.
    """
    text = shelf_csv.decoded(content)
    delimiter = shelf_csv.delimiter_of(text)
    try:
        rows = list(csv.reader(io.StringIO(text), delimiter=delimiter))
    except csv.Error as error:
        raise shelf_csv.CsvRefused(f"it cannot be read as a table: {error}") from None
    if not rows:
        raise shelf_csv.CsvRefused("the file is empty; the first line must name the columns")
    head: list[str] = []
    for name in map(str.strip, rows[0]):
        twice = head.count(name) if name else 0
        head.append(f"{name} ({twice + 1})" if twice else name)
    return head, rows[1:], delimiter


def fits(head: Sequence[str], kind: str) -> bool:
    """Whether a head is ours already: every column known, none that is needed missing but the id.

    >>> fits(["id", "maker", "name", "price", "rated_w"], "panels"), fits(["Art.", "W"], "panels")
    (True, False)
    """
    names = {name.strip().lower() for name in head if name.strip()}
    known = shelf_csv.columns(kind)
    return names <= set(known) and set(shelf_csv.needed(kind)) - {"id"} <= names


def guessed(head: Sequence[str], kind: str) -> dict[str, Column]:
    """What each column most likely is: by its name, with the unit in brackets or after a comma.

    >>> guess = guessed(["Maker", "Rated (W)", "Length [cm]"], "panels")
    >>> [(c.key, c.unit) for c in guess.values()]
    [('maker', ''), ('rated_w', 'W'), ('length_m', 'cm')]
    """
    out, taken = {}, set[str]()
    for name in head:
        found = re.fullmatch(r"\s*(.*?)\s*(?:[\[(,]\s*(.*?)\s*[\])]?)?\s*", name)
        words, unit = (found[1], found[2] or "") if found else (name, "")
        plain = re.sub(r"[^a-z0-9]+", "_", words.lower()).strip("_")
        keys = [k for k in shelf_csv.columns(kind) if k in (plain, name.lower())]
        first = plain.split("_")[0]
        plain = CALLED.get(first, plain)
        keys += [k for k in shelf_csv.columns(kind) if plain and f"{k}_".startswith(f"{plain}_")]
        keys = [k for k in keys if k not in taken]
        taken |= set(keys[:1])
        try:
            out[name] = Column(keys[0] if keys else LEFT_OUT, unit)
        except JolvekError:
            out[name] = Column(keys[0] if keys else LEFT_OUT)
    return out


def translated(content: bytes, kind: str, columns: Mapping[str, Column], shelf: Shelf) -> bytes:
    """The file as ours: our names above, units behind bare figures, prices at their rate, and an id
    where there is none (that of the product of that maker and name, or a new one). Lines stay where
    they were. Raises CsvRefused for two columns of one key.
    """
    head, rows, delimiter = table(content)
    cells_of = (x for row in rows[: shelf_csv.MOST_LOOKED] for x in row)
    comma = decimals.is_comma(cells_of, delimiter == ";")
    used = [columns.get(name, Column()) for name in head]
    keys = [c.key for c in used if c.key]
    double = next((k for k in keys if keys.count(k) > 1), None)
    if double:
        raise shelf_csv.CsvRefused(f"two columns are {double}; leave one out")
    out, ids = io.StringIO(), _Ids(shelf, kind)
    writer = csv.writer(out, delimiter=delimiter, lineterminator="\n")
    writer.writerow([*(["id"] if "id" not in keys else []), *keys])
    for row in rows:
        cells = {c.key: _cell(x, c, comma) for c, x in zip(used, row, strict=False) if c.key}
        blank = not any(cells.values())
        first = [] if "id" in keys else ["" if blank else ids.of(cells)]
        writer.writerow([*first, *(cells.get(k, "") for k in keys)])
    return out.getvalue().encode()


KINDS_OF = {
    key: rule.get("type", "") for kind in KINDS for key, rule in shelf_csv.columns(kind).items()
}


def _cell(cell: str, column: Column, comma: bool) -> str:
    text = cell.strip()
    if column.unit and re.fullmatch(r"[-+\d.,\s]+", text):
        return f"{decimals.plain(text, comma)} {column.unit}"
    if column.unit and re.fullmatch(r"[\d.,\s]+([/|;][\d.,\s]+)+", text):
        parts = (decimals.plain(x, comma) for x in decimals.parts_of(text))
        return "|".join(f"{x} {column.unit}" for x in parts)
    if column.rate != 1.0 and text:
        try:
            price = shelf_csv.figure(text, column.key, comma)
        except JolvekError:
            return text  # refused where it is read, by its line
        return f"{price * column.rate:.2f}".replace(".", "," if comma else ".")
    rule = KINDS_OF.get(column.key, "")
    if rule in ("number", "integer") and re.fullmatch(r"[-+]?[\d.,\s]+", decimals.bare(text)):
        return decimals.sure(decimals.plain(text, comma))
    return text


class _Ids:
    """Ids for rows that bring none."""

    def __init__(self, shelf: Shelf, kind: str) -> None:
        mine: tuple[Item[Any], ...] = getattr(shelf, kind)
        self.known = {(x.maker.lower(), x.name.lower()): x.id for x in mine}
        self.taken = {x.id for k in KINDS for x in getattr(shelf, k)}

    def of(self, cells: Mapping[str, str]) -> str:
        """The id of the product of that maker and name, else a new one."""
        maker, name = cells.get("maker", ""), cells.get("name", "")
        key = maker.lower(), name.lower()
        if key not in self.known:
            self.known[key] = made_id(maker, name, self.taken)
            self.taken.add(self.known[key])
        return self.known[key]
