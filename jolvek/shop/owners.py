"""The people behind a boat: a new owner, the language they are written to, addresses given out,
a new battery, and what the law asks: erasure.
"""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Sequence
from dataclasses import replace

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.products.own import OwnGear
from jolvek.shop.acting import By
from jolvek.store import care, enquiries, erasing, own_gear, owners
from jolvek.store.db import transaction
from jolvek.store.owners import Former, Owner


def pass_on(
    conn: sqlite3.Connection, by: By, enquiry_id: int, new: Owner, on: str, seen: str
) -> None:
    """The boat has a new owner; `seen` is how many former ones the page showed, empty where it does
    not say. Raises JolvekError where it was passed on meanwhile.
    """
    with transaction(conn) as c:
        if seen not in ("", str(len(owners.former(c, enquiry_id)))):
            stored = enquiries.get(c, enquiry_id)
            name = stored.enquiry.customer if stored else ""
            raise JolvekError(msg("The boat was passed on to %(new)s meanwhile.", new=name))
        owners.pass_on(c, enquiry_id, new, on, by.who, by.at)


def set_language(conn: sqlite3.Connection, enquiry_id: int, edit: Callable[[], str]) -> str:
    """The customer is written to in the language that `edit` gives; returns it."""
    with transaction(conn) as c:
        wanted = edit()
        owners.set_language(c, enquiry_id, wanted)
        return wanted


def shut_addresses(conn: sqlite3.Connection, kind: str, of_id: int) -> None:
    """Addresses given out so far (`boat`: her stickers; `calendar`) lead nowhere any more."""
    with transaction(conn) as c:
        owners.shut(c, kind, of_id)


def quote_battery(
    conn: sqlite3.Connection, by: By, enquiry_id: int, enquiry: Enquiry, gear: Sequence[OwnGear]
) -> int:
    """An enquiry for a new battery: with this boat and day, motor and charger as her own, as old as
    the boat's service.
    """
    with transaction(conn) as c:
        number = enquiries.add(c, enquiry, by.at, by.who)
        began = care.began(c, enquiry_id)
        for x in gear:
            own_gear.add(c, number, replace(x, since_year=began.year if began else None))
        return number


def erase(conn: sqlite3.Connection, by: By, numbers: Sequence[int], law: str) -> list[str]:
    """Erase a customer from enquiries; returns the files that are to go with them."""
    with transaction(conn) as c:
        return erasing.erase(c, numbers, law, by.who, by.at)


def erase_former(conn: sqlite3.Connection, by: By, former: Former, law: str) -> list[str]:
    """Erase a former owner of a boat; returns the files that are to go with them."""
    with transaction(conn) as c:
        return erasing.erase_former(c, former, law, by.who, by.at)


def sweep(conn: sqlite3.Connection) -> None:
    """Remove what the database file still holds of what was erased."""
    erasing.sweep(conn)
