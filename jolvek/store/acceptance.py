"""What a customer's yes moves: the setup that was accepted becomes the current one, the job is
ordered, and the handover is of that setup and of nothing else.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Sequence
from dataclasses import dataclass
from typing import Any

from jolvek.store import enquiries, intake, offers, setups
from jolvek.store.offers import Sent
from jolvek.store.setups import Pinned


@dataclass(frozen=True)
class Agreed:
    """What stands between shop and customer: the setup that was accepted, of which offer; `revised`
    names a later revision that nobody has accepted.
    """

    number: str
    letter: str
    key: str  # what the setup was made of; empty where an older version sent the offer
    parts: frozenset[tuple[str, str, int]]  # kind, product, quantity
    revised: str = ""

    def is_of(self, setup: Pinned) -> bool:
        """Whether a setup is made of what was accepted."""
        if self.key:
            return setup.key == self.key
        mine = {(setups.KIND_OF_PART[p.kind], p.item.id, p.quantity) for p in setup.parts}
        return mine == self.parts


def accept(conn: sqlite3.Connection, sent: Sent, letter: str, at: str) -> None:
    """Make what was accepted the current setup and the job an ordered one. In a transaction."""
    number = sent.enquiry_id
    if letter in {p.letter for p in setups.of_enquiry(conn, number)}:
        setups.choose(conn, number, letter)
        draft = offers.draft(conn, number)
        if draft:
            offers.keep_draft(conn, number, {**draft, "letters": [letter]})
    enquiries.set_stage(conn, number, "ordered", at)
    intake.looked(conn, number, at, "")


def agreed(conn: sqlite3.Connection, enquiry_id: int) -> Agreed | None:
    """What was accepted last; None where no offer was accepted."""
    sent = offers.of_enquiry(conn, enquiry_id)
    for x in sent:
        yes = next((v for v in offers.events(conn, x.id) if v.kind != "asked"), None)
        if yes is None or yes.kind != "accepted":
            continue
        kept = offers.shop_data(conn, x.id)
        return Agreed(
            x.number,
            yes.letter,
            str(kept.get("keys", {}).get(yes.letter, "")),
            _essentials(kept.get("parts", {}).get(yes.letter, [])),
            sent[0].number if sent[0].id != x.id else "",
        )
    return None


def _essentials(parts: Sequence[dict[str, Any]]) -> frozenset[tuple[str, str, int]]:
    return frozenset(
        (x["kind"], x["id"], int(x["quantity"])) for x in parts if not x.get("optional")
    )
