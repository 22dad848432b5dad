"""jolvek-shelf: a shop's products as JSON, read into core items and written back unchanged."""

from __future__ import annotations

from dataclasses import fields
from typing import Any

from jolvek.core.base.errors import ValueRefused
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.products.accessories import Accessory, Panel, Propeller
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from jolvek.core.products.shelf import Item, Shelf
from jolvek.formats import schema

KINDS: dict[str, type] = {
    "motors": Motor,
    "batteries": Battery,
    "mounts": Mount,
    "chargers": Charger,
    "panels": Panel,
    "propellers": Propeller,
    "accessories": Accessory,
}
_ITEM = (
    "style",
    "shafts_m",
    "pack_ids",
    "noise_db",
    "valid_to",
    "stock",
    "discontinued",
    "claimed_hp",
    "claimed_speed_m_s",
    "claimed_runtime_s",
    "claimed_energy_wh",
)


def read(text: str | bytes) -> Shelf:
    """A shelf from JSON text; raises ValueRefused or UnreadableFile with one sentence."""
    data = schema.loads(text)
    schema.check(data, "shelf")
    seen: set[str] = set()
    for kind in KINDS:
        for i, row in enumerate(data.get(kind, [])):
            if row["id"] in seen:
                raise ValueRefused(f"{kind}.{i}.id", row["id"], "an id used once only")
            seen.add(row["id"])
    return Shelf(**{kind: tuple(item(kind, row) for row in data.get(kind, [])) for kind in KINDS})


def item(kind: str, row: dict[str, Any]) -> Item[Any]:
    """One product from its plain data."""
    spec_type = KINDS[kind]
    names = {f.name for f in fields(spec_type)} - {"name"}
    spec = spec_type(
        **{k: tuple(v) if isinstance(v, list) else v for k, v in row.items() if k in names},
        name=row["name"],
    )
    more = {k: tuple(row[k]) if isinstance(row[k], list) else row[k] for k in _ITEM if k in row}
    return Item(row["id"], row["maker"], row["name"], row["price"], spec, **more)


def plain(thing: Item[Any]) -> dict[str, Any]:
    """One product as plain data, defaults left out."""
    out: dict[str, Any] = {
        "id": thing.id,
        "maker": thing.maker,
        "name": thing.name,
        "price": thing.price,
    }
    for key in _ITEM:
        value = getattr(thing, key)
        if value not in ("", (), None, False):
            out[key] = list(value) if isinstance(value, tuple) else value
    for f in fields(thing.spec):
        value = getattr(thing.spec, f.name)
        if f.name != "name" and value != f.default:
            out[f.name] = list(value) if isinstance(value, tuple) else value
    return out


def write(shelf: Shelf, currency: str = "EUR") -> dict[str, Any]:
    """A shelf as the plain data of the format."""
    return {
        "format": "jolvek-shelf",
        "version": 1,
        "currency": currency,
        **{kind: [plain(x) for x in getattr(shelf, kind)] for kind in KINDS},
    }
