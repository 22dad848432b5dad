"""The handover of a boat: steps, serial numbers, faults, the signed record."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Sequence
from dataclasses import replace
from typing import Any

from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.trial.diagnosis import FAULTS
from jolvek.core.trial.fitting import untried
from jolvek.shop.acting import By
from jolvek.store import enquiries, handovers, stock, trials
from jolvek.store.db import transaction
from jolvek.store.handovers import Act, FaultKept, Serial

MOST_WHY = 300
OF_THE_CURVE = ("slow", "slow_high")  # faults that a trial's curve has in it


def act(conn: sqlite3.Connection, by: By, enquiry_id: int, done: Act) -> None:
    """Keep one act on a step; the same act sent again is the same act. Raises JolvekError once the
    handover is signed.
    """
    with transaction(conn) as c:
        handovers.act(c, enquiry_id, done, by.at)


def set_serial(
    conn: sqlite3.Connection,
    enquiry_id: int,
    what: str,
    edit: Callable[[Serial | None], Serial],
) -> None:
    """Keep the serial number of a part that `edit` makes of the one that stands. Raises
    JolvekError, as where it was signed or the number is another boat's.
    """
    with transaction(conn) as c:
        handovers.check_open(c, enquiry_id)
        handovers.add_serial(c, enquiry_id, edit(handovers.serials(c, enquiry_id).get(what)))


def add_fault(conn: sqlite3.Connection, by: By, enquiry_id: int, kind: str, why: str) -> None:
    """Record a fault that must be closed or accepted before it is signed. Raises JolvekError."""
    if kind not in FAULTS:
        raise ValueRefused("fault", kind, "one of the faults listed")
    with transaction(conn) as c:
        handovers.check_open(c, enquiry_id)
        handovers.add_fault(c, enquiry_id, kind, why[:MOST_WHY], by.who, by.at)


def settle_fault(
    conn: sqlite3.Connection,
    by: By,
    enquiry_id: int,
    number: int,
    state: str,
    cure: str,
    in_service: bool = False,
) -> bool:
    """Close a fault or accept it, by name; one seen in service may be settled after signing.

    Where a boat that was slow is cured, a trial that was run before then no longer speaks of her:
    she counts as untried again, and True is returned.
    """
    settled = FaultKept(number, "", "", state, "", "", done_at=by.at, done_by=by.who, cure=cure)
    with transaction(conn) as c:
        if not in_service:
            handovers.check_open(c, enquiry_id)
        handovers.settle_fault(c, enquiry_id, settled)
        found = handovers.fault(c, enquiry_id, number)
        trial = trials.latest(c, enquiry_id)
        cured = state == "closed" and found is not None and found.kind in OF_THE_CURVE
        if not cured or trial is None or trial.factors is None:
            return False
        if found is None or trial.began_at > found.found_at:
            return False  # tried again since
        enquiries.change_within(c, enquiry_id, _untried, by.at, who=by.who)
        trials.keep_factors(c, trial.id, None)
        return True


def _untried(e: Enquiry) -> Enquiry:
    return replace(e, need=replace(e.need, hull=untried(e.need.hull)))


def sign(
    conn: sqlite3.Connection,
    by: By,
    enquiry_id: int,
    record: dict[str, Any],
    paper: bytes,
    against: Callable[[], Sequence[str]],
) -> None:
    """Freeze record and paper: the boat is handed over and its parts leave the stock. `against`
    says what is still open by then. Raises JolvekError for that, and where it was signed meanwhile.
    """
    with transaction(conn) as c:
        if why := against():
            raise JolvekError(" ".join(why))
        handovers.sign(c, enquiry_id, record["signed_at"], record, paper)
        enquiries.set_stage(c, enquiry_id, "delivered", by.at)
        stock.take(c, enquiry_id)
