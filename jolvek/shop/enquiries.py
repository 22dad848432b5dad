"""Enquiries: begun, asked by a customer, opened from a file, copied, changed, put away."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Iterable, Mapping
from dataclasses import replace
from typing import Any

from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.shop.acting import By
from jolvek.store import enquiries, intake, whole
from jolvek.store.db import transaction
from jolvek.store.enquiries import Changed, Stored


def begin(conn: sqlite3.Connection, by: By, enquiry: Enquiry) -> int:
    """A new enquiry; returns its number."""
    with transaction(conn) as c:
        return enquiries.add(c, enquiry, by.at, by.who)


def ask(
    conn: sqlite3.Connection,
    by: By,
    enquiry: Enquiry,
    estimated: tuple[str, ...],
    photos: Iterable[str],
) -> int:
    """What a customer asked by the shop's page, with photos; it waits for somebody to look."""
    with transaction(conn) as c:
        number = enquiries.add(c, enquiry, by.at, by.who)
        intake.add(c, number, by.at, estimated)
        for name in photos:
            intake.add_photo(c, number, name)
        return number


def looked(conn: sqlite3.Connection, by: By, enquiry_id: int) -> None:
    """Somebody has looked at what a customer asked."""
    with transaction(conn) as c:
        intake.looked(c, enquiry_id, by.at, by.who)


def open_file(conn: sqlite3.Connection, by: By, enquiry: Enquiry, rest: Mapping[str, Any]) -> int:
    """An enquiry of a jolvek-enquiry file with its setups and all else that the file says."""
    named = replace(enquiry, title=enquiry.title or enquiry.need.hull.fam.name)
    with transaction(conn) as c:
        return whole.add(c, named, rest, by.at, by.who)


def copy(conn: sqlite3.Connection, by: By, stored: Stored, title: str) -> int:
    """A copy with boat and day, without customer and setups."""
    nobody = replace(stored.enquiry, customer="", phone="", mail="", address="", title=title)
    return begin(conn, by, nobody)


def archive(conn: sqlite3.Connection, enquiry_id: int, away: bool) -> None:
    """Put an enquiry away, or take it out again."""
    with transaction(conn) as c:
        enquiries.archive(c, enquiry_id, away)


def set_photo(conn: sqlite3.Connection, enquiry_id: int, name: str) -> None:
    """The boat's photo; empty for none."""
    with transaction(conn) as c:
        enquiries.set_photo(c, enquiry_id, name)


def change(
    conn: sqlite3.Connection,
    by: By,
    enquiry_id: int,
    edit: Callable[[Enquiry], Enquiry],
    seen: str = "",
    page: str = "",
    turn: int = 0,
) -> Changed:
    """Change boat, load, site, day or words from what stands, or from what a form was filled with
    (`store.enquiries.change`, which merges). Raises KeyError where there is none.
    """
    return enquiries.change(conn, enquiry_id, edit, by.at, seen, page, by.who, turn)
