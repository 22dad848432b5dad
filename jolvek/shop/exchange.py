"""A whole shop taken in from a packed file."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from typing import Any

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.products.shelf import Shelf
from jolvek.shop.acting import By
from jolvek.store import enquiries, finding, intake, shelf, whole
from jolvek.store.db import transaction
from jolvek.store.shelf import KINDS


def fill_empty(
    conn: sqlite3.Connection, products: Shelf, asked: Iterable[tuple[str, Enquiry]]
) -> bool:
    """The catalogue and the enquiries (when they came, each) that a new shop begins with; whether
    it had neither.
    """
    with transaction(conn) as c:
        if finding.listed(c, most=1) or finding.listed(c, True, most=1) or shelf.titles(c):
            return False
        shelf.add_all(c, products)
        for at, enquiry in asked:
            enquiries.add(c, enquiry, at)
    return True


Read = Callable[[], tuple[Enquiry, dict[str, Any]]]


def take_in(
    conn: sqlite3.Connection,
    by: By,
    products: Callable[[], Shelf] | None,
    files: Iterable[tuple[str, Read]],
    photos_of: Callable[[dict[str, Any], list[str]], Iterable[str]],
    problems: list[str],
    name: str,
) -> tuple[int, int, int]:
    """Take in what can be read, in one transaction: products as one batch that replaces those of
    the same id, every enquiry as a new one. What cannot be read is added to `problems`. Returns how
    many products, enquiries and photos.
    """
    made, count, pictures = 0, 0, 0
    with transaction(conn) as c:
        if products is not None:
            with _told(problems, name):
                read = products()
                items = [(kind, item) for kind in KINDS for item in getattr(read, kind)]
                title = msg("a packed shop of %(items)s products", items=len(items))
                shelf.change(c, items, title, by.at)
                made = len(items)
        for file, read_one in files:
            c.execute("SAVEPOINT one")
            try:
                enquiry, rest = read_one()
                number = whole.add(c, enquiry, rest, by.at, by.who)
                for photo in photos_of(rest, problems):
                    intake.add_photo(c, number, photo)
                    pictures += 1
                count += 1
            except JolvekError as error:
                c.execute("ROLLBACK TO one")
                problems.append(f"{file}: {error}")
            c.execute("RELEASE one")
    return made, count, pictures


@contextmanager
def _told(problems: list[str], file: str) -> Iterator[None]:
    try:
        yield
    except JolvekError as error:
        problems.append(f"{file}: {error}")
