"""What the Shelf shows: one kind of product, a product's form, and what an import would change."""

from __future__ import annotations

from dataclasses import dataclass, field
from datetime import date
from typing import Any

from markupsafe import Markup

from jolvek.core.base.messages import msg
from jolvek.core.predict.claims import Claim, check_claims
from jolvek.core.products.plain import NOT_SOLD
from jolvek.core.products.shelf import Item, Shelf
from jolvek.formats import shelf_csv
from jolvek.store import finding
from jolvek.store import shelf as store
from jolvek.web.desk.catalogue.facts import Facts, follows, missing
from jolvek.web.kit.display import Units, counted
from jolvek.web.kit.drawings.product_drawing import product_view
from jolvek.web.kit.language import decimal, figure, tr
from jolvek.web.kit.words import field_change, plain_value

COLUMNS = {
    "motors": (
        "input_power_w",
        "voltage_v",
        "mass_kg",
        "static_thrust_n",
        "propeller_diameter_m",
        "noise_db",
    ),
    "batteries": ("chemistry", "nominal_voltage_v", "capacity_ah", "mass_kg", "max_continuous_a"),
    "mounts": ("kind", "max_motor_kg", "max_thrust_n", "mass_kg", "hours"),
    "chargers": ("voltage_v", "current_a", "outputs", "mass_kg"),
    "panels": ("rated_w", "open_v", "working_v", "mass_kg"),
    "controllers": ("output_a", "input_max_v", "bank_min_v", "bank_max_v"),
    "propellers": ("diameter_m", "pitch_m", "blades"),
    "accessories": ("kind", "text", "mass_kg"),
    "boats": (
        "family",
        "length_m",
        "mass_kg",
        "from_year",
        "to_year",
        "max_power_w",
        "approval_power_w",
    ),
}
STOCK = {
    "shelf": msg("in stock"),
    "order": msg("on order"),
    "none": msg("not to be had"),
    "": "",
}
SHOWN_CHANGES = 300  # rows of an import shown in full


@dataclass(frozen=True)
class ProductRow:
    """One product as listed: figures as text, doubt of its claims, state and whether that warns."""

    id: str
    title: str
    price: float | None  # None: not sold
    cells: tuple[str, ...]
    doubt: str
    state: str
    warns: bool
    discontinued: bool


@dataclass(frozen=True)
class CataloguePage:
    """One kind of product, filtered."""

    kind: str
    columns: tuple[str, ...]
    items: tuple[ProductRow, ...]
    makers: list[str]
    counts: dict[str, int]
    newer: int | None  # how many to skip for the page before, and for the one after
    older: int | None


A_PAGE = 200  # products of one page


def catalogue_page(
    shelf: Shelf,
    kind: str,
    words: str,
    maker: str,
    everything: bool,
    order: str,
    skip: int = 0,
) -> CataloguePage:
    """Products of a kind whose title or id holds every word, by maker, in an order."""
    all_items = getattr(shelf, kind)
    wanted = words.lower().split()
    items = [
        x
        for x in all_items
        if all(w in f"{x.title} {x.id}".lower() for w in wanted)
        and (not maker or x.maker == maker)
        and (everything or not x.discontinued)
    ]
    if order in COLUMNS[kind] or order == "price":
        items.sort(key=lambda x: _sort_key(_value(x, order)))
    return CataloguePage(
        kind,
        COLUMNS[kind],
        tuple(_row(x, kind) for x in items[skip : skip + A_PAGE]),
        sorted({x.maker for x in all_items}),
        {k: len(getattr(shelf, k)) for k in store.KINDS},
        max(skip - A_PAGE, 0) if skip else None,
        older=skip + A_PAGE if len(items) > skip + A_PAGE else None,
    )


def _sort_key(value: Any) -> tuple[bool, str, float]:
    if isinstance(value, str):
        return False, value, 0.0
    return value is None, "", float(value or 0)


def _value(item: Item[Any], key: str) -> Any:
    return getattr(item if key in ("price", "noise_db", "stock") else item.spec, key)


def _cell(x: Item[Any], key: str) -> str:
    """A figure or word; a year is no figure to be grouped."""
    value = _value(x, key)
    return str(value) if value and key.endswith("year") else str(figure(plain_value(value)))


def _row(x: Item[Any], kind: str) -> ProductRow:
    ended = bool(x.valid_to) and x.valid_to < date.today().isoformat()
    state = tr("price ended %(valid_to)s", valid_to=x.valid_to) if ended else STOCK[x.stock]
    levels = {c.level for c in check_claims(x)}
    return ProductRow(
        x.id,
        x.title,
        None if kind in NOT_SOLD else x.price,
        tuple(_cell(x, key) for key in COLUMNS[kind]),
        next((level for level in ("block", "caution") if level in levels), ""),
        tr("discontinued") if x.discontinued else state,
        warns=ended and not x.discontinued,
        discontinued=x.discontinued,
    )


@dataclass(frozen=True)
class Field:
    """One field of a product's form: key, the schema's rule, value as typed, message."""

    key: str
    rule: dict[str, Any]
    value: str
    error: str


@dataclass(frozen=True)
class ProductPage:
    """A product's form, its claims checked, and what happened to it, with each change in words."""

    kind: str
    title: str
    price: float | None
    is_new: bool
    fields: tuple[Field, ...]
    claims: list[Claim]
    follows: Facts
    missing: tuple[str, ...]
    drawing: Markup | str
    used: tuple[finding.Use, ...]
    history: tuple[tuple[str, str, tuple[str, ...]], ...]


def product_values(kind: str, kept: dict[str, Any]) -> dict[str, Any]:
    """What the form of a product is filled with, as kept."""
    out: dict[str, Any] = {}
    for key, rule in shelf_csv.columns(kind).items():
        text = _shown(kept.get(key))
        several = rule.get("type") == "array"
        out[key] = text.split("|") if several and rule["items"].get("enum") else text
        if several and not rule["items"].get("enum"):
            out[key] = text.replace("|", "; ")
    return out


def product_page(
    kind: str,
    item: Item[Any] | None,
    kept: dict[str, Any],
    typed: dict[str, str],
    errors: dict[str, str],
    history: list[store.Change],
    used: tuple[finding.Use, ...],
    u: Units,
) -> ProductPage:
    """The page of a product as kept (readable or not), with what was typed over it."""
    fields = tuple(
        Field(key, rule, typed.get(key, _shown(kept.get(key))), errors.get(key, ""))
        for key, rule in shelf_csv.columns(kind).items()
        if key != "id" or kept
    )
    title = item.title if item else f"{kept.get('maker', '')} {kept.get('name', '')}".strip()
    return ProductPage(
        kind,
        title or tr("New product"),
        item.price if item and kind not in NOT_SOLD else None,
        not kept,
        fields,
        check_claims(item) if item else [],
        follows=follows(item, u) if item else (),
        missing=missing(item) if item else (),
        drawing=product_view(item, u) if item else "",
        used=used,
        history=tuple((c.at, c.what, differences(c)) for c in history),
    )


def differences(change: store.Change) -> tuple[str, ...]:
    """What a change changed, in words."""
    a, b = change.before or {}, change.after or {}
    return tuple(
        field_change((key, shelf_csv.cell(a.get(key)), shelf_csv.cell(b.get(key))))
        for key in sorted({*a, *b})
        if a.get(key) != b.get(key)
    )


@dataclass(frozen=True)
class Preview:
    """What an import would change: (kind, row) by state, and how many are not shown."""

    wrong: list[tuple[str, shelf_csv.Row]]
    changed: list[tuple[str, shelf_csv.Row]]
    new: list[tuple[str, shelf_csv.Row]]
    same: int
    answer: str
    to_import: int
    asked: list[tuple[str, shelf_csv.Row]] = field(default_factory=list)  # unlikely ones

    @property
    def to_import_text(self) -> str:
        """How many would be written, in words."""
        return counted(self.to_import, "product")

    @property
    def lists(self) -> tuple[tuple[str, list[tuple[str, shelf_csv.Row]], int], ...]:
        """(heading, rows shown, how many more) of what would be written."""
        return tuple(
            (heading, rows[:SHOWN_CHANGES], max(len(rows) - SHOWN_CHANGES, 0))
            for heading, rows in ((tr("Changed"), self.changed), (tr("New"), self.new))
            if rows
        )


def _shown(value: Any) -> str:
    """A value as it stands in its field, figures with the decimal sign of the page."""
    text = shelf_csv.cell(value)
    figures = value if isinstance(value, list) else [value]
    return decimal(text) if all(isinstance(x, float) for x in figures) else text


def preview(rows: list[tuple[str, shelf_csv.Row]]) -> Preview:
    """The rows of a file by what they would do."""
    wrong, changed, new, same = (
        [r for r in rows if r[1].state == state] for state in ("wrong", "changed", "new", "same")
    )
    answer = tr(
        "*%(new)s* new, *%(changed)s* changed, *%(same)s* as they are, *%(wrong)s* wrong.",
        new=len(new),
        changed=len(changed),
        same=len(same),
        wrong=len(wrong),
    )
    asked = [r for r in rows if r[1].ask and r[1].state in ("new", "changed")]
    return Preview(wrong, changed, new, len(same), answer, len(new) + len(changed), asked=asked)
