"""Products as plain data: what files, tables and histories hold of them."""

from __future__ import annotations

import re
import unicodedata
from collections.abc import Container, Mapping
from dataclasses import fields
from itertools import chain, count
from typing import Any

from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.electric.sun_chain import SunController
from jolvek.core.products.accessories import Accessory, Panel, Propeller
from jolvek.core.products.boat_model import BoatModel
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from jolvek.core.products.shelf import Item

KINDS: dict[str, type] = {
    "motors": Motor,
    "batteries": Battery,
    "mounts": Mount,
    "chargers": Charger,
    "panels": Panel,
    "controllers": SunController,
    "propellers": Propeller,
    "accessories": Accessory,
    "boats": BoatModel,
}
_COMMON = ("id", "maker", "name", "price", "valid_to", "stock", "discontinued")
_OWN = {  # fields of an Item that only some kinds have
    "motors": (
        "style",
        "shafts_m",
        "pack_ids",
        "noise_db",
        "claimed_hp",
        "claimed_speed_m_s",
        "claimed_runtime_s",
        "claimed_half_runtime_s",
        "warranty_years",
        "ip_water",
        "display",
        "in_box",
    ),
    "batteries": ("claimed_energy_wh", "clip_on", "warranty_years", "ip_water"),
}
NOT_SOLD = ("boats",)  # known, not priced
_NAMED = ("id", "maker", "name")


def fields_of(kind: str) -> tuple[str, ...]:
    """The keys of a kind of product: in files, as columns, and in forms alike.

    >>> fields_of("panels")
    ('id', 'maker', 'name', 'price', 'valid_to', 'stock', 'discontinued', 'rated_w', 'length_m', \
'width_m', 'mass_kg', 'open_v', 'working_v')
    """
    own = _OWN.get(kind, ())
    spec = (f.name for f in fields(KINDS[kind]) if f.name != "name" and f.name not in own)
    return (*(_NAMED if kind in NOT_SOLD else _COMMON), *own, *spec)


def made_id(maker: str, name: str, taken: Container[str]) -> str:
    """An id for a new product out of its maker and name, that no other has.

    >>> made_id("Tallmarrow", "Owl 12/S", {"tallmarrow-owl-12-s"})
    'tallmarrow-owl-12-s-2'
    """
    plain = unicodedata.normalize("NFKD", f"{maker} {name}").encode("ascii", "ignore").decode()
    base = re.sub(r"[^a-z0-9]+", "-", plain.lower()).strip("-")[:52] or "product"
    numbers = (f"{base}-{i}" for i in count(2))
    return next(x for x in chain([base], numbers) if x not in taken)


def product_from_plain(kind: str, row: Mapping[str, Any]) -> Item[Any]:
    """One product from its plain data; raises ValueRefused.

    >>> row = {"id": "p1", "maker": "Made", "name": "Leaf", "price": 90.0, "rated_w": 80.0}
    >>> product_from_plain("panels", row).spec.rated_w
    80.0
    """
    values = {k: tuple(v) if isinstance(v, list) else v for k, v in row.items()}
    item_keys = {*_COMMON, *_OWN.get(kind, ())}
    spec = {k: v for k, v in values.items() if k not in item_keys}
    more: dict[str, Any] = {k: v for k, v in values.items() if k in item_keys}
    more |= {"price": 0.0} if kind in NOT_SOLD else {}
    return Item(spec=KINDS[kind](**spec, name=row["name"]), **more)


def product_plain(thing: Item[Any]) -> dict[str, Any]:
    """One product as plain data, defaults left out.

    >>> from jolvek.core.products.shelf import sample
    >>> product_plain(sample().chargers[0])["current_a"]
    20
    """
    head = _NAMED if isinstance(thing.spec, BoatModel) else (*_NAMED, "price")
    out: dict[str, Any] = {k: getattr(thing, k) for k in head}
    for f in (*fields(thing), *fields(thing.spec)):
        value = getattr(thing, f.name) if hasattr(thing, f.name) else getattr(thing.spec, f.name)
        if f.name not in (*out, "spec", "price") and value != f.default:
            out[f.name] = list(value) if isinstance(value, tuple) else value
    return out
