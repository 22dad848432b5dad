"""A whole shop as one file of open formats, and back; customers, enquiries and dates as tables."""

from __future__ import annotations

import io
import json
import sqlite3
import zipfile
from collections.abc import Iterator
from contextlib import suppress
from dataclasses import dataclass
from datetime import date
from functools import partial
from pathlib import Path
from typing import IO, Any

from werkzeug.datastructures import FileStorage

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.enquiry.enquiry import Enquiry
from jolvek.core.products.shelf import Shelf
from jolvek.formats import enquiry_file, shelf_file
from jolvek.formats.contacts import Customer, Dated
from jolvek.shop import By
from jolvek.store import enquiries, finding, shelf, whole
from jolvek.web.kit import photos
from jolvek.web.kit.language import tr

SHELF, ENQUIRIES, PHOTOS = "shelf.json", "enquiries/", "photos/"
MOST_FILES, MOST_BYTES, MOST_ONE = 100_000, 2_000_000_000, 25_000_000
STAGES_DATED = ("offered", "ordered")
HEAD = (
    "number",
    "title",
    "customer",
    "telephone",
    "mail",
    "address",
    "stage",
    "archived",
    "family",
    "length_m",
    "people",
    "day",
    "changed",
)


@dataclass(frozen=True)
class Taken:
    """What came of an import: products, enquiries, photos, and what could not be read."""

    products: int
    enquiries: int
    photos: int
    problems: tuple[str, ...]


class ImportRefused(JolvekError):
    """The file is no shop."""


def pack(conn: sqlite3.Connection, folder: Path, currency: str, out: IO[bytes]) -> None:
    """Write the shop as a zip: jolvek-shelf, a jolvek-enquiry each, photos."""
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED, compresslevel=3) as z:
        z.writestr(SHELF, _json(shelf_file.write(shelf.load(conn), currency)))
        for number in _numbers(conn):
            stored = enquiries.get(conn, number)
            if stored is None:
                continue
            rest = whole.rest_of(conn, stored)
            z.writestr(
                f"{ENQUIRIES}{number:06d}.json", _json(enquiry_file.write(stored.enquiry, rest))
            )
            for name in rest["photos"]:
                with suppress(FileNotFoundError):
                    z.write(folder / name, PHOTOS + name, zipfile.ZIP_STORED)


def _json(data: Any) -> str:
    return json.dumps(data, ensure_ascii=False, indent=1)


def _numbers(conn: sqlite3.Connection) -> list[int]:
    return [row["id"] for row in conn.execute("SELECT id FROM enquiry ORDER BY id").fetchall()]


def unpack(conn: sqlite3.Connection, content: Any, folder: Path, by: By) -> Taken:
    """Take in what can be read of a packed shop, in one transaction; enquiries become new ones,
    products replace those of the same id as one batch that can be undone.

    Raises ImportRefused for what is no such file.
    """
    try:
        with zipfile.ZipFile(content) as z:
            _refuse_bombs(z)
            return _taken(conn, z, folder, by)
    except (zipfile.BadZipFile, EOFError, RuntimeError, NotImplementedError):
        raise ImportRefused(tr("file: no zip that can be read, allowed is a packed shop")) from None


def _refuse_bombs(z: zipfile.ZipFile) -> None:
    sizes = [item.file_size for item in z.infolist()]
    if len(sizes) > MOST_FILES or sum(sizes) > MOST_BYTES or max(sizes, default=0) > MOST_ONE:
        raise ImportRefused(tr("file: it holds more than a shop does"))
    if SHELF not in z.namelist() and not any(n.startswith(ENQUIRIES) for n in z.namelist()):
        raise ImportRefused(
            tr("file: neither %(shelf)s nor %(enquiries)s in it", shelf=SHELF, enquiries=ENQUIRIES)
        )


def _taken(conn: sqlite3.Connection, z: zipfile.ZipFile, folder: Path, by: By) -> Taken:
    problems: list[str] = []
    names = sorted(n for n in z.namelist() if n.startswith(ENQUIRIES))
    files = [(n, partial(_enquiry, z, n)) for n in names]
    products = partial(_products, z) if SHELF in z.namelist() else None
    found = partial(_photos, z, folder)
    counts = shop.exchange.take_in(conn, by, products, files, found, problems, SHELF)
    return Taken(*counts, tuple(problems))


def _products(z: zipfile.ZipFile) -> Shelf:
    return shelf_file.read(z.read(SHELF))


def _enquiry(z: zipfile.ZipFile, name: str) -> tuple[Enquiry, dict[str, Any]]:
    return enquiry_file.read_whole(z.read(name))


def _photos(
    z: zipfile.ZipFile, folder: Path, rest: dict[str, Any], problems: list[str]
) -> Iterator[str]:
    """Photos are read as pictures and kept anew, under names of our own."""
    for name in rest.get("photos", ()):
        if PHOTOS + name not in z.namelist():
            problems.append(tr("%(photos)s%(name)s is missing", photos=PHOTOS, name=name))
            continue
        try:
            yield photos.keep(FileStorage(io.BytesIO(z.read(PHOTOS + name)), name), folder)
        except JolvekError as error:
            problems.append(str(error))


def customers(conn: sqlite3.Connection) -> list[Customer]:
    """Everybody with a name, once for each boat."""
    rows = conn.execute(
        "SELECT customer, phone, mail, address, title FROM enquiry WHERE customer <> '' ORDER BY"
        " customer COLLATE NOCASE, id"
    )
    return [Customer(*row) for row in rows]


def table(conn: sqlite3.Connection) -> list[tuple[str, ...]]:
    """All enquiries as rows of text."""
    rows = conn.execute(
        "SELECT e.id, e.title, e.customer, e.phone, e.mail, e.address, e.stage, e.archived,"
        " b.family, b.length_m, l.people, e.date, e.changed_at FROM enquiry e JOIN boat b ON"
        " b.enquiry_id = e.id JOIN load l ON l.enquiry_id = e.id ORDER BY e.id"
    )
    return [HEAD, *(tuple(str(cell) for cell in row) for row in rows)]


def dates(conn: sqlite3.Connection) -> list[Dated]:
    """Days on the water of what is offered or ordered."""
    out = []
    for archived in (False, True):
        for line in finding.listed(conn, archived, most=100_000):
            stored = enquiries.get(conn, line.id) if line.stage in STAGES_DATED else None
            if stored:
                day = date.fromisoformat(stored.need.day.date)
                out.append(
                    Dated(
                        line.id, day, tr("On the water: %(title)s", title=line.title), line.customer
                    )
                )
    return out
