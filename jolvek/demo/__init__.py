"""An invented dealer on invented waters: shelf and enquiries that screens, screenshots and tests
start from.
"""

from __future__ import annotations

import sqlite3
from importlib import resources

from jolvek import shop
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.products.shelf import Shelf
from jolvek.formats import enquiry_file, shelf_file

DEALER = "Ferrowick Slip, Merrel Sound"


def shelf() -> Shelf:
    """The dealer's products."""
    return shelf_file.read(
        resources.files(__package__).joinpath("shelf.json").read_text(encoding="utf-8")
    )


def enquiries() -> list[Enquiry]:
    """The six enquiries, in the order of their file names."""
    folder = resources.files(__package__).joinpath("enquiries")
    files = sorted((f for f in folder.iterdir() if f.name.endswith(".json")), key=lambda f: f.name)
    return [enquiry_file.read(f.read_text(encoding="utf-8")) for f in files]


def fill(conn: sqlite3.Connection) -> bool:
    """Put shelf and enquiries into an empty database, dated so that the list has an order; whether
    it was empty.
    """
    asked = [(f"2026-11-{20 - i:02d}T09:{10 + 7 * i:02d}:00", e) for i, e in enumerate(enquiries())]
    return shop.exchange.fill_empty(conn, shelf(), asked)
