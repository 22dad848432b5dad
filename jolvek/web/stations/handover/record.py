"""What a handover's record says, as one plain record that is frozen when it is signed:
jolvek-handover.
"""

from __future__ import annotations

import sqlite3
from dataclasses import asdict, dataclass
from datetime import date
from typing import Any

from jolvek.core.care.due import add_months
from jolvek.core.fit.handover import Piece, piece_name, pieces, steps
from jolvek.core.fit.handover_step import Step
from jolvek.core.trial.diagnosis import FAULTS
from jolvek.store import acceptance, handovers
from jolvek.store.enquiries import Stored
from jolvek.store.handovers import Act, FaultKept, Serial
from jolvek.store.shop import Shop
from jolvek.web.kit.display import Units
from jolvek.web.kit.language import resolved, shown, tr
from jolvek.web.kit.worked import Worked

FORMAT, VERSION = "jolvek-handover", 1
NEEDED_SERIALS = ("motor", "pack", "charger")  # keys and magnets need not have one


@dataclass(frozen=True)
class Row:
    """One step with the last act on it."""

    step: Step
    act: Act | None

    @property
    def state(self) -> str:
        """done, not_needed or open."""
        return self.act.state if self.act else "open"


@dataclass(frozen=True)
class Sheet:
    """All that stands before a handover."""

    groups: tuple[tuple[str, tuple[Row, ...]], ...]
    pieces: tuple[tuple[Piece, Serial | None], ...]
    faults: tuple[tuple[FaultKept, Any], ...]
    not_agreed: str = ""  # why this setup is not the one to hand over

    @property
    def rows(self) -> list[Row]:
        """All steps."""
        return [row for _, rows in self.groups for row in rows]

    @property
    def left(self) -> int:
        """Steps that are open."""
        return sum(row.state == "open" for row in self.rows)

    @property
    def against(self) -> list[str]:
        """What keeps it from being signed."""
        out = [self.not_agreed] if self.not_agreed else []
        if self.left:
            out.append(
                tr("%(left)s of %(rows)s steps are open.", left=self.left, rows=len(self.rows))
            )
        lacking = [
            str(shown(piece_name(p.what)))
            for p, s in self.pieces
            if s is None and p.what.split()[0] in NEEDED_SERIALS
        ]
        if lacking:
            out.append(tr("No serial number yet: %(lacking)s.", lacking=", ".join(lacking)))
        open_ones = [f.seen for kept, f in self.faults if kept.state == "open"]
        if open_ones:
            out.append(tr("A fault is open: %(open_ones)s.", open_ones="; ".join(open_ones)))
        return out


def sheet(conn: sqlite3.Connection, enquiry_id: int, hand: Worked) -> Sheet:
    """The list of the setup in hand with what was done of it."""
    done, numbers = handovers.acts(conn, enquiry_id), handovers.serials(conn, enquiry_id)
    groups: dict[str, list[Row]] = {}
    for step in steps(hand.fitted):
        groups.setdefault(step.group, []).append(Row(step, done.get(step.key)))
    found = tuple((p, numbers.get(p.what)) for p in pieces(hand.fitted))
    kept = handovers.faults(conn, enquiry_id)
    return Sheet(
        tuple((k, tuple(v)) for k, v in groups.items()),
        found,
        tuple((x, FAULTS[x.kind]) for x in kept if x.kind in FAULTS),
        not_agreed(conn, enquiry_id, hand),
    )


def not_agreed(conn: sqlite3.Connection, enquiry_id: int, hand: Worked) -> str:
    """Why the current setup may not be handed over: the customer accepted another."""
    found = acceptance.agreed(conn, enquiry_id)
    if found is None:
        return ""
    names = {"offer": found.number, "letter": found.letter, "mine": hand.letter}
    if found.revised:
        return tr(
            "Offer %(new)s revises the accepted one, and the customer has not accepted it yet.",
            new=found.revised,
        )
    if found.letter != hand.letter:
        return tr(
            "The customer accepted setup %(letter)s of offer %(offer)s, not %(mine)s. Work with"
            " %(letter)s, or send a revision with %(mine)s.",
            **names,
        )
    if not found.is_of(hand.pinned):
        return tr(
            "Setup %(letter)s has changed since the customer accepted it in offer %(offer)s. Send a"
            " revision for them to accept.",
            **names,
        )
    return ""


def warranty_end(shop: Shop, on: date) -> str:
    """The last day of a warranty that begins with a handover; empty where the shop tells none.

    >>> warranty_end(Shop(warranty_months=24), date(2028, 2, 29))
    '2030-02-28'
    """
    if not shop.warranty_months:
        return ""
    return add_months(on, shop.warranty_months).isoformat()


def record(
    stored: Stored,
    hand: Worked,
    found: Sheet,
    shop: Shop,
    u: Units,
    signatures: dict[str, dict[str, str]],
    trial: dict[str, Any] | None,
    at: str,
) -> dict[str, Any]:
    """The record as it is signed."""
    mine = ("name", "address", "phone", "mail", "tax_number")
    asked = ("customer", "address", "phone", "mail")
    need = stored.need
    made = {
        "format": FORMAT,
        "version": VERSION,
        "signed_at": at,
        "title": stored.title,
        "shop": {k: getattr(shop, k) for k in mine},
        "customer": {k: getattr(stored.enquiry, k) for k in asked},
        "boat": f"{need.hull.fam.name}, {u.full(need.hull.length_m, 'length')}",
        "setup": f"{hand.fitted.motor.title}, {hand.bank_text}, {hand.fitted.mount.name}",
        "steps": [_step_record(row) for row in found.rows],
        "serials": [
            {**asdict(s), "piece": piece_name(p.what), "title": p.title}
            for p, s in found.pieces
            if s
        ],
        "faults": [{**asdict(kept), "seen": f.seen} for kept, f in found.faults],
        "trial": trial,
        "signatures": signatures,
    }
    frozen: dict[str, Any] = resolved(made)
    return frozen


def _step_record(row: Row) -> dict[str, str]:
    texts = ("group", "text", "details", "hazard", "signal")
    acted = ("who", "at", "note", "photo")
    of_step = {name: getattr(row.step, name) for name in texts}
    return of_step | {"state": row.state} | {name: getattr(row.act, name, "") for name in acted}
