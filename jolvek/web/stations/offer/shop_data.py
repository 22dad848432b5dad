"""What only the shop keeps of an offer: what it earns, when to ask again, which products."""

from __future__ import annotations

from datetime import date, timedelta
from typing import Any

from jolvek.core.deal.lines import sums
from jolvek.store import setups, stock
from jolvek.store.enquiries import Stored
from jolvek.web import data
from jolvek.web.data import conn
from jolvek.web.kit.worked import Worked
from jolvek.web.stations.offer.form import Draft
from jolvek.web.stations.offer.lines import lines


def margins(worked: list[Worked], draft: Draft) -> list[tuple[str, int, int, int]]:
    """What stays with the shop of the lines whose buying price is known: letter, minor units, of
    how many lines, of how many in all.
    """
    shop, out = data.shop(), []
    terms = draft.terms(shop)
    for w in worked:
        found = lines(w, draft, shop, lambda kind, key: stock.get(conn(), kind, key))
        known = [x for x in found if x.buying_minor is not None]
        margin = sums(known, terms).margin
        if margin is not None:
            out.append((w.letter, margin, len(known), len(found)))
    return out


def shop_data(stored: Stored, worked: list[Worked], draft: Draft) -> dict[str, Any]:
    """What only the shop keeps of it: note, margins, when to ask again, the products."""
    days = data.shop().follow_days
    again = (date.today() + timedelta(days=days)).isoformat() if days else ""
    parts = {
        w.letter: [
            {
                "kind": setups.KIND_OF_PART[x.kind],
                "id": x.item.id,
                "title": x.item.title,
                "quantity": x.quantity,
                "own": x.item.own or (x.kind == "mount" and not x.price),  # comes with the motor
                "optional": x in w.pinned.extras,
            }
            for x in (*w.pinned.parts, *w.pinned.extras)
        ]
        for w in worked
    }
    known = {x[0]: x[1:] for x in margins(worked, draft)}
    keys = {w.letter: w.pinned.key for w in worked}
    more = {"margins": known, "note": stored.note, "follow_up": again}
    return {**more, "parts": parts, "keys": keys}
