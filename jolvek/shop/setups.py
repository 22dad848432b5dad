"""The setups of an enquiry: pinned, chosen, fitted, completed with add-ons, brought up to date."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Iterable, Mapping
from typing import Any

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.fit.as_set import AsSet
from jolvek.core.job.parts import Bought
from jolvek.core.products.own import OwnGear
from jolvek.core.products.shelf import Item
from jolvek.shop.acting import By
from jolvek.store import enquiries, own_gear, setups
from jolvek.store.db import transaction
from jolvek.store.setups import Pinned

Layout = tuple[int, int, float | None]  # packs in series, in parallel, shaft in m


def pin(
    conn: sqlite3.Connection,
    by: By,
    enquiry_id: int,
    items: Mapping[str, Item[Any]],
    layout: Layout,
    fitting: AsSet,
) -> str:
    """Pin a setup; returns its letter. Raises TooManyPinned, ValueRefused."""
    with transaction(conn) as c:
        letter = setups.pin(c, enquiry_id, dict(items), *layout, fitting=fitting)
        enquiries.touch(c, enquiry_id, by.at)
        return letter


def unpin(conn: sqlite3.Connection, by: By, enquiry_id: int, letter: str) -> Pinned | None:
    """Remove a setup; returns it as it was, or None where there was none."""
    with transaction(conn) as c:
        gone = next((p for p in setups.of_enquiry(c, enquiry_id) if p.letter == letter), None)
        setups.unpin(c, enquiry_id, letter)
        enquiries.touch(c, enquiry_id, by.at)
        return gone


def choose(conn: sqlite3.Connection, by: By, enquiry_id: int, letter: str) -> None:
    """Make one setup the current one. Raises JolvekError where no setup has that letter."""
    with transaction(conn) as c:
        if letter not in {p.letter for p in setups.of_enquiry(c, enquiry_id)}:
            raise JolvekError(
                msg("Read “%(letter)s”; allowed is the letter of a pinned setup.", letter=letter)
            )
        setups.choose(c, enquiry_id, letter)
        enquiries.touch(c, enquiry_id, by.at)


def fit(
    conn: sqlite3.Connection,
    by: By,
    enquiry_id: int,
    setup_id: int,
    edit: Callable[[Pinned], tuple[float | None, AsSet]],
) -> None:
    """Set how a setup is fitted: `edit` gives its shaft in m and the rest from what stands. Raises
    JolvekError where the setup was removed.
    """
    with transaction(conn) as c:
        now = next((p for p in setups.of_enquiry(c, enquiry_id) if p.id == setup_id), None)
        if now is None:
            raise JolvekError(msg("That setup was removed meanwhile."))
        setups.fit(c, setup_id, *edit(now))
        enquiries.touch(c, enquiry_id, by.at)


def add_extra(
    conn: sqlite3.Connection, by: By, enquiry_id: int, setup_id: int, kind: str, item: Item[Any]
) -> None:
    """Put an add-on into a setup."""
    with transaction(conn) as c:
        setups.add_extra(c, setup_id, kind, item)
        enquiries.touch(c, enquiry_id, by.at)


def drop_extra(
    conn: sqlite3.Connection, by: By, enquiry_id: int, setup_id: int, product: str
) -> None:
    """Take an add-on out of a setup."""
    with transaction(conn) as c:
        setups.drop_extra(c, setup_id, product)
        enquiries.touch(c, enquiry_id, by.at)


def renew(
    conn: sqlite3.Connection,
    by: By,
    enquiry_id: int,
    parts: Iterable[tuple[int, Bought, Item[Any]]],
) -> None:
    """Parts (of which setup, which, as the catalogue has it today) at today's price and figures."""
    with transaction(conn) as c:
        for setup_id, part, item in parts:
            setups.renew(c, setup_id, part, item)
        enquiries.touch(c, enquiry_id, by.at)


def add_own_gear(conn: sqlite3.Connection, by: By, enquiry_id: int, gear: OwnGear) -> None:
    """What the customer has already, and matching may use."""
    with transaction(conn) as c:
        if len(own_gear.of_enquiry(c, enquiry_id)) >= own_gear.MOST:
            raise JolvekError(
                msg("%(most)s things are kept already; take one off first", most=own_gear.MOST)
            )
        own_gear.add(c, enquiry_id, gear)
        enquiries.touch(c, enquiry_id, by.at)


def drop_own_gear(conn: sqlite3.Connection, by: By, enquiry_id: int, gear_id: int) -> None:
    """The customer has it no more."""
    with transaction(conn) as c:
        own_gear.drop(c, enquiry_id, gear_id)
        enquiries.touch(c, enquiry_id, by.at)
