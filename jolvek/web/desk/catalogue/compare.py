"""Products of one kind in one table: chosen columns, the user's units, for page and files."""

from __future__ import annotations

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from jolvek.core.products.plain import product_plain
from jolvek.core.products.shelf import Item
from jolvek.formats import shelf_csv
from jolvek.web.desk.catalogue.view import COLUMNS
from jolvek.web.kit.display import Units
from jolvek.web.kit.words import key_unit, key_words, plain_value

QUANTITIES = {"W": "power", "kg": "mass", "N": "thrust", "m/s": "speed", "m": "length"}
# what follows from what is stated, by kind
DERIVED: Mapping[str, Mapping[str, Callable[[Item[Any]], float]]] = {
    "motors": {"shaft_hp": lambda x: x.spec.shaft_hp},
    "batteries": {
        "energy_wh": lambda x: x.spec.energy_wh,
        "price_per_kwh": lambda x: 1000 * x.price / x.spec.energy_wh,
        "wh_per_kg": lambda x: x.spec.energy_wh / x.spec.weight_kg,
    },
    "panels": {"price_per_w": lambda x: x.price / x.spec.rated_w},
}
LEFT_OUT = ("id", "maker", "name")


@dataclass(frozen=True)
class Column:
    """One column: its key, words, unit, and whether it is shown."""

    key: str
    words: str
    unit: str
    shown: bool


@dataclass(frozen=True)
class ComparePage:
    """The table: all columns there are, the rows (id, title, cells) of those shown."""

    kind: str
    columns: tuple[Column, ...]
    rows: tuple[tuple[str, str, tuple[str, ...]], ...]

    @property
    def shown(self) -> tuple[Column, ...]:
        """The columns that are shown."""
        return tuple(c for c in self.columns if c.shown)

    @property
    def plain(self) -> list[list[str]]:
        """The table as rows of text, its head first."""
        head = ["", *(f"{c.words}, {c.unit}" if c.unit else c.words for c in self.shown)]
        return [head, *([title, *cells] for _, title, cells in self.rows)]


def compare_page(
    kind: str, items: Sequence[Item[Any]], chosen: Sequence[str], u: Units
) -> ComparePage:
    """Products beside each other; without a choice the usual columns and what follows from them."""
    derived = DERIVED.get(kind, {})
    plain = [product_plain(x) | {k: f(x) for k, f in derived.items()} for x in items]
    keys = [k for k in (*shelf_csv.columns(kind), *derived) if k not in LEFT_OUT]
    stated = [k for k in keys if any(p.get(k) not in (None, "", [], ()) for p in plain)]
    wanted = [k for k in chosen if k in keys] or ["price", *COLUMNS[kind], *derived]
    columns = tuple(Column(k, key_words(k), _unit(k, u), k in wanted) for k in stated or keys)
    shown = [c.key for c in columns if c.shown]
    rows = tuple(
        (x.id, x.title, tuple(_cell(k, p.get(k), u) for k in shown))
        for x, p in zip(items, plain, strict=True)
    )
    return ComparePage(kind, columns, rows)


def _unit(key: str, u: Units) -> str:
    unit = key_unit(key)
    return u[QUANTITIES[unit]] if unit in QUANTITIES else unit


def _cell(key: str, value: Any, u: Units) -> str:
    unit = key_unit(key)
    if unit in QUANTITIES and isinstance(value, int | float):
        return u.number(value, QUANTITIES[unit])
    if isinstance(value, float):
        value = float(f"{value:.4g}")
    return plain_value(value)
