"""The parts to order of an accepted offer: its setup's products with the add-ons that were ticked,
by supplier, against the stock; and the cable, fuses and lugs of the wiring.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass
from itertools import groupby
from typing import Any

from jolvek.core.base.messages import msg
from jolvek.store import offers, stock
from jolvek.store.offers import Event, Sent
from jolvek.store.stock import Wanted
from jolvek.web.kit.language import tr

HEAD = ("supplier", "part", "id", "needed", "unit", msg("in stock"), "reserved", msg("to order"))
OWN_STORE = msg("from the shop’s own store")


@dataclass(frozen=True)
class Row:
    """One part: how many are needed, how many of them are free or held, how many to order."""

    supplier: str
    title: str
    product_id: str
    needed: str
    unit: str
    in_stock: int | None
    held: int
    to_order: int | None


@dataclass(frozen=True)
class OrderList:
    """What an accepted offer asks for."""

    sent: Sent
    event: Event
    rows: tuple[Row, ...]
    wanted: tuple[Wanted, ...]

    @property
    def by_supplier(self) -> list[tuple[str, list[Row]]]:
        """Rows under their supplier."""
        return [(k, list(g)) for k, g in groupby(self.rows, key=lambda r: r.supplier)]


def of_enquiry(conn: sqlite3.Connection, enquiry_id: int) -> OrderList | None:
    """Of the offer that was accepted; None while none is."""
    for sent in offers.of_enquiry(conn, enquiry_id):
        accepted = [e for e in offers.events(conn, sent.id) if e.kind == "accepted"]
        if accepted:
            return _list(conn, sent, accepted[0])
    return None


def _list(conn: sqlite3.Connection, sent: Sent, event: Event) -> OrderList:
    parts = offers.shop_data(conn, sent.id).get("parts", {}).get(event.letter, [])
    taken = [x for x in parts if not x["own"]]
    taken = [x for x in taken if not x["optional"] or x["title"] in event.ticked]
    many: dict[tuple[str, str], int] = {}
    for x in taken:
        many[x["kind"], x["id"]] = many.get((x["kind"], x["id"]), 0) + x["quantity"]
    titles = {(x["kind"], x["id"]): x["title"] for x in taken}
    held = stock.reserved(conn, sent.id)
    rows = []
    for (kind, key), count in many.items():
        s = stock.get(conn, kind, key, but=sent.id)
        free, mine = s.free, held.get((kind, key), 0)
        lack = max(count - max(free, mine), 0)
        name = s.supplier or tr("no supplier named")
        rows.append(
            Row(name, titles[kind, key], key, str(count), "", s.in_stock, held=mine, to_order=lack)
        )
    rows.sort(key=lambda r: (r.supplier, r.title))
    wanted = tuple(Wanted(kind, key, count) for (kind, key), count in many.items())
    return OrderList(sent, event, (*rows, *_wiring(conn, sent, event)), wanted)


def _wiring(conn: sqlite3.Connection, sent: Sent, event: Event) -> list[Row]:
    result = offers.content(conn, sent.id)
    found: list[Any] = [x for x in result["alternatives"] if x["letter"] == event.letter]
    return [
        Row(OWN_STORE, y["text"], "", y["quantity"], y["unit"], None, held=0, to_order=None)
        for x in found
        for y in x["lines"]
        if y["kind"] == "wiring"
    ]


def rows(found: OrderList) -> Sequence[Sequence[str]]:
    """As a table of text."""
    out = [HEAD]
    for r in found.rows:
        there = "" if r.in_stock is None else str(r.in_stock)
        order = "" if r.to_order is None else str(r.to_order)
        key = (r.supplier, r.title, r.product_id, r.needed, r.unit)
        out.append((*key, there, str(r.held), order))
    return out
