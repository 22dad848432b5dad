"""The JSON Schema of a shelf, made from the product records: their fields, ranges and choices."""

from __future__ import annotations

from dataclasses import MISSING, Field, fields
from typing import Any

from jolvek.core.products.plain import KINDS, fields_of
from jolvek.core.products.shelf import Item

MOST_PRODUCTS = 20000
_DATE = r"^\d{4}-\d{2}-\d{2}$"
_TYPES = {"float": "number", "int": "integer", "bool": "boolean", "str": "string"}
_ALSO_NEEDED = {"motors": ("style",)}  # a file says what a motor is, whatever the record supposes
NOTES = {
    "price": "in the shelf's currency",
    "valid_to": "last day of the price",
    "stock": "on the shelf, on order, or not to be had",
    "discontinued": "no longer offered; stays in old setups",
    "claimed_hp": "horsepower the catalogue speaks of",
    "claimed_speed_m_s": "top speed the catalogue claims",
    "claimed_runtime_s": "time at full power the catalogue claims with its own battery",
    "claimed_energy_wh": "watt-hours the catalogue claims",
    "claimed_half_runtime_s": "the same at half of full power",
    "ip_water": "second figure of its IP code, IEC 60529",
    "warranty_years": "the maker's",
    "in_box": "what comes with it",
    "display": "what its own display tells",
    "input_power_w": "continuous electrical input",
    "peak_power_w": "for moments",
    "voltage_min_v": "lowest permitted",
    "voltage_max_v": "highest permitted",
    "shaft_length_m": "seat to anti-ventilation plate",
    "propeller_rpm": "at full power",
    "static_thrust_n": "claimed bollard thrust",
    "controller_max_a": "controller's limit",
    "nominal_voltage_v": "of one pack",
    "capacity_ah": "of one pack, rated",
    "max_continuous_a": "of one pack",
    "max_peak_a": "of one pack",
    "full_voltage_v": "straight off the charger",
    "empty_voltage_v": "under load when empty",
    "bms_max_a": "what the battery management lets through",
    "connector_max_a": "rating of its connector",
    "monitor": "shows its own charge",
}


def shelf_schema() -> dict[str, Any]:
    """The whole schema.

    >>> shelf_schema()["properties"]["panels"]["items"]["properties"]["rated_w"]
    {'type': 'number', 'minimum': 1, 'maximum': 2000}
    """
    lists = {
        kind: {"type": "array", "maxItems": MOST_PRODUCTS, "items": item_schema(kind)}
        for kind in KINDS
    }
    head = {
        "format": {"const": "jolvek-shelf"},
        "version": {"const": 1},
        "currency": {"type": "string", "pattern": "^[A-Z]{3}$"},
    }
    return {
        "$schema": "https://json-schema.org/draft/2020-12/schema",
        "title": "jolvek-shelf",
        "description": "A shop's products, SI.",
        "type": "object",
        "additionalProperties": False,
        "required": ["format", "version"],
        "properties": {**head, **lists},
    }


def item_schema(kind: str) -> dict[str, Any]:
    """The schema of one product of a kind."""
    known = {f.name: f for record in (KINDS[kind], Item) for f in fields(record)}
    names = fields_of(kind)
    needed = [n for n in names if known[n].default is MISSING or n in _ALSO_NEEDED.get(kind, ())]
    return {
        "type": "object",
        "additionalProperties": False,
        "required": needed,
        "properties": {n: _property(known[n], KINDS[kind]) for n in names},
    }


def _property(f: Field[Any], spec: type) -> dict[str, Any]:
    """One field's rule, from its type, range, choices and longest text."""
    kind = str(f.type).removesuffix(" | None")
    if kind.startswith("tuple["):
        inner = _rule(f.name, kind[6:].split(",")[0], spec)
        return {"type": "array", "items": inner}
    note = {"description": NOTES[f.name]} if f.name in NOTES else {}
    return {**_rule(f.name, kind, spec), **note}


def _rule(name: str, kind: str, spec: type) -> dict[str, Any]:
    def told(what: str) -> Any:
        return {**getattr(Item, what, {}), **getattr(spec, what, {})}.get(name)

    if choices := told("CHOICES"):
        return {"enum": [word for word in choices if word]}
    rule: dict[str, Any] = {"type": _TYPES[kind]}
    if limits := told("RANGES"):
        rule |= {"minimum": limits[0], "maximum": limits[1]}
    if kind == "str":
        rule |= {"pattern": _DATE} if name == "valid_to" else {"maxLength": told("TEXTS") or 200}
    return rule | ({"minLength": 1} if name == "id" else {})
