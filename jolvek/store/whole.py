"""An enquiry with all that hangs on it (stage, setups, the customer's own gear, photos) as plain
data, and back into a shop.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Mapping
from dataclasses import replace
from typing import Any

from jolvek.core.base.errors import ValueRefused
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.fit.as_set import AS_PLANNED, as_set_from, as_set_plain
from jolvek.core.products.own import OwnGear
from jolvek.core.products.plain import product_from_plain, product_plain
from jolvek.core.products.shelf import Item
from jolvek.store import enquiries, intake, own_gear, setups
from jolvek.store.enquiries import Stored
from jolvek.store.setups import Bought, Pinned


def rest_of(conn: sqlite3.Connection, stored: Stored) -> dict[str, Any]:
    """What a jolvek-enquiry says besides the enquiry; names of photos, not the photos."""
    names = [stored.photo] if stored.photo else []
    names += [name for _, name in intake.photos_of(conn, stored.id)]
    own = [kept.gear for kept in own_gear.of_enquiry(conn, stored.id) if kept.gear]
    return {
        "stage": stored.stage,
        "archived": stored.archived,
        "setups": [_setup(p) for p in setups.of_enquiry(conn, stored.id)],
        "own": [_own(gear) for gear in own],
        "photos": names,
    }


def _setup(p: Pinned) -> dict[str, Any]:
    out: dict[str, Any] = {
        "chosen": p.chosen,
        "series": p.series,
        "parallel": p.parallel,
        "shaft_m": p.shaft_m,
        "parts": [_part(x) for x in p.parts],
        "extras": [_part(x) for x in p.extras],
    }
    return out if p.fitting == AS_PLANNED else {**out, "fitting": as_set_plain(p.fitting)}


def _part(x: Bought) -> dict[str, Any]:
    product = product_plain(replace(x.item, price=x.price))
    return {"kind": x.kind, "quantity": x.quantity, "product": product}


def _own(gear: OwnGear) -> dict[str, Any]:
    values = {"since_year": gear.since_year, "health": gear.health, "count": gear.count}
    return {"kind": gear.kind, **values, "product": product_plain(gear.item)}


def add(
    conn: sqlite3.Connection, enquiry: Enquiry, rest: Mapping[str, Any], now: str, who: str
) -> int:
    """A new enquiry with all that hangs on it but photos, inside a transaction; returns its number.

    Raises ValueRefused for what cannot be read.
    """
    number = enquiries.add(conn, enquiry, now, who)
    for row in rest.get("own", ()):
        item = _item(row["kind"], row["product"])
        rows = (row.get("since_year"), row.get("health", 1.0), row.get("count", 1))
        own_gear.add(conn, number, OwnGear(row["kind"], item, *rows))
    for row in rest.get("setups", ()):
        _pin(conn, number, row)
    conn.execute(
        "UPDATE enquiry SET stage = :stage, archived = :archived WHERE id = :id",
        {
            "stage": rest.get("stage", "open"),
            "archived": int(rest.get("archived", False)),
            "id": number,
        },
    )
    return number


def _pin(conn: sqlite3.Connection, number: int, row: Mapping[str, Any]) -> None:
    items = {x["kind"]: _part_item(x) for x in row["parts"]}
    for kind in ("motor", "battery", "mount"):
        if kind not in items:
            raise ValueRefused("setups.parts", f"no {kind}", "motor, battery and mount")
    layout = (row.get("series", 1), row.get("parallel", 1), row.get("shaft_m"))
    fitting = as_set_from(row["fitting"]) if "fitting" in row else AS_PLANNED
    letter = setups.pin(conn, number, items, *layout, fitting)
    if row.get("chosen"):
        setups.choose(conn, number, letter)
    made = next(p for p in setups.of_enquiry(conn, number) if p.letter == letter)
    for x in row.get("extras", ()):
        setups.add_extra(conn, made.id, x["kind"], _part_item(x), x["quantity"])


def _part_item(x: Mapping[str, Any]) -> Item[Any]:
    return _item(setups.KIND_OF_PART[x["kind"]], x["product"])


def _item(kind: str, data: Mapping[str, Any]) -> Item[Any]:
    try:
        return product_from_plain(kind, dict(data))
    except (TypeError, KeyError):
        raise ValueRefused("product", str(data)[:60], "a product as in jolvek-shelf") from None
