"""Connecting, transactions and forward-only migrations."""

from __future__ import annotations

import re
import sqlite3
from collections.abc import Iterator
from contextlib import contextmanager
from importlib import resources
from pathlib import Path


def connect(path: str | Path) -> sqlite3.Connection:
    """A connection with foreign keys, WAL, a busy timeout and named rows; the caller closes it."""
    conn = sqlite3.connect(path, timeout=10, isolation_level=None, check_same_thread=False)
    conn.row_factory = sqlite3.Row
    conn.execute("PRAGMA foreign_keys = ON")
    conn.execute("PRAGMA journal_mode = WAL")
    conn.execute("PRAGMA synchronous = NORMAL")
    return conn


@contextmanager
def transaction(conn: sqlite3.Connection) -> Iterator[sqlite3.Connection]:
    """BEGIN IMMEDIATE … COMMIT; rolled back on any error."""
    conn.execute("BEGIN IMMEDIATE")
    try:
        yield conn
    except BaseException:
        conn.execute("ROLLBACK")
        raise
    conn.execute("COMMIT")


def migrations() -> list[tuple[int, str]]:
    """(number, SQL) of every migration, in order."""
    folder = resources.files("jolvek.store").joinpath("migrations")
    files = sorted(
        (f for f in folder.iterdir() if re.match(r"\d{3}_.*\.sql$", f.name)), key=lambda f: f.name
    )
    return [(int(f.name[:3]), f.read_text(encoding="utf-8")) for f in files]


def migrate(conn: sqlite3.Connection) -> int:
    """Apply what is missing, each migration with its number in one transaction; returns the
    version.
    """
    version = conn.execute("PRAGMA user_version").fetchone()[0]
    for number, sql in migrations():
        if number > version:
            with transaction(conn):
                for statement in _statements(sql):
                    conn.execute(statement)
                conn.execute(f"PRAGMA user_version = {number:d}")
            version = number
    return int(version)


def _statements(sql: str) -> Iterator[str]:
    """Single statements: executescript would commit what is pending."""
    part = ""
    for line in sql.splitlines(keepends=True):
        part += line
        if sqlite3.complete_statement(part):
            yield part
            part = ""
