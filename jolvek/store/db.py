"""Connecting, transactions and forward-only migrations."""

from __future__ import annotations

import re
import sqlite3
import time
from collections.abc import Callable, Iterator
from contextlib import closing, contextmanager, suppress
from importlib import resources
from pathlib import Path
from urllib.parse import quote

from jolvek.core.base.errors import JolvekError
from jolvek.store import allowed, once, rebuild, trail

BUSY_S = 10
SYNC = "FULL"  # what is committed is on the disk; tests, which lose nothing, wait for no disk
KEPT_BACKUPS = 30


class DatabaseRefused(JolvekError):
    """The database cannot be used by this version."""


def connect(path: str | Path) -> sqlite3.Connection:
    """A connection with foreign keys, WAL, full sync, a busy timeout and named rows; the caller
    closes it.
    """
    _only_ours(Path(path))
    conn = _open(str(path))
    try:
        conn.execute("PRAGMA foreign_keys = ON")
        _patiently(conn, "PRAGMA journal_mode = WAL")
        conn.execute(f"PRAGMA synchronous = {SYNC}")
    except sqlite3.Error:
        conn.close()
        raise
    return conn


def _only_ours(path: Path) -> None:
    """A new database is nobody else's to read, and with it what SQLite lays beside it."""
    if not path.exists() and path.parent.is_dir():
        with suppress(OSError):
            path.touch(mode=0o600)


def shut_to_others(data: Path) -> None:
    """Folders of a shop's data for their owner alone, and the files in them; what an older version
    made is put right.
    """
    for folder in (data, data / "photos", data / "backups", data / "outbox"):
        with suppress(OSError):
            folder.chmod(0o700)
            for path in folder.iterdir():
                if path.is_file():
                    path.chmod(0o600)


def _open(path: str, uri: bool = False) -> sqlite3.Connection:
    conn = sqlite3.connect(
        path,
        timeout=BUSY_S,
        isolation_level=None,
        check_same_thread=False,
        uri=uri,
        factory=once.Connection,
    )
    conn.row_factory = sqlite3.Row
    return conn


def connect_to_read(path: str | Path) -> tuple[sqlite3.Connection, str]:
    """A connection for a page, and why nothing can be written by it; empty where all is well. On a
    full disk, or one that is read-only, what was saved can still be read.
    """
    try:
        return _read_once(connect(path)), ""
    except sqlite3.OperationalError as error:
        why, full = str(error), Path(path).resolve()
        if not full.is_file():
            raise
    for mode in ("mode=ro", "immutable=1"):
        with suppress(sqlite3.OperationalError):
            return _read_once(_open(f"file:{quote(full.as_posix())}?{mode}", uri=True)), why
    raise sqlite3.OperationalError(why)


def _read_once(conn: sqlite3.Connection) -> sqlite3.Connection:
    """A connection that has read something; closed where it cannot."""
    try:
        conn.execute("SELECT 1 FROM sqlite_master LIMIT 1").fetchone()
    except sqlite3.Error:
        conn.close()
        raise
    return conn


def _patiently(conn: sqlite3.Connection, sql: str) -> None:
    """Run what the busy timeout does not cover, again while another process is at it."""
    until = time.monotonic() + BUSY_S
    while True:
        try:
            conn.execute(sql)
            return
        except sqlite3.OperationalError as error:
            if "locked" not in str(error) or time.monotonic() > until:
                raise
            time.sleep(0.05)


@contextmanager
def transaction(conn: sqlite3.Connection) -> Iterator[sqlite3.Connection]:
    """BEGIN IMMEDIATE … COMMIT; rolled back on any error, a failing COMMIT too: the first error is
    the one that is raised.
    """
    conn.execute("BEGIN IMMEDIATE")
    try:
        yield conn
        conn.execute("COMMIT")
    except BaseException:
        if conn.in_transaction:
            conn.execute("ROLLBACK")
        raise


def migrations() -> list[tuple[int, str]]:
    """(number, SQL) of every migration, in order."""
    folder = resources.files("jolvek.store").joinpath("migrations")
    files = sorted(
        (f for f in folder.iterdir() if re.match(r"\d{3}_.*\.sql$", f.name)), key=lambda f: f.name
    )
    return [(int(f.name[:3]), f.read_text(encoding="utf-8")) for f in files]


def migrate(conn: sqlite3.Connection) -> int:
    """Apply what is missing, all in one transaction that reads the version first, so that of
    several processes one migrates and the others find it done; returns the version.

    A database that holds something is copied before it is changed. Foreign keys are off meanwhile,
    so that a table may be rebuilt; before COMMIT every key must hold and no table have fewer rows.
    Raises DatabaseRefused where one has, and for a database that a newer Jolvek has written.
    """
    steps = migrations()
    newest = steps[-1][0]
    if _version(conn) < newest:
        _copy_before(conn)
    conn.execute("PRAGMA foreign_keys = OFF")  # does nothing inside a transaction
    try:
        with transaction(conn):
            _apply(conn, steps)
    finally:
        conn.execute("PRAGMA foreign_keys = ON")
    return newest


def _apply(conn: sqlite3.Connection, steps: list[tuple[int, str]]) -> None:
    version, newest = _version(conn), steps[-1][0]
    if version > newest:
        raise DatabaseRefused(
            f"The data were written by a newer Jolvek (their version is {version}, this one"
            f" knows {newest}): start that one, or take a backup from before."
        )
    before = _rows_by_table(conn) if version < newest else {}
    if version < newest:
        allowed.take_off(conn)
    for number, sql in steps:
        if number > version:
            if number in _REPAIRS:
                _REPAIRS[number](conn)
            for statement in _statements(sql):
                conn.execute(statement)
            conn.execute(f"PRAGMA user_version = {number:d}")
    allowed.put(conn)
    if before:
        _check_nothing_lost(conn, before)


def _rows_by_table(conn: sqlite3.Connection) -> dict[str, int]:
    names = rebuild.tables(conn)
    return {x: conn.execute(f'SELECT count(*) FROM "{x}"').fetchone()[0] for x in names}


def _check_nothing_lost(conn: sqlite3.Connection, before: dict[str, int]) -> None:
    after = _rows_by_table(conn)
    fewer = [f"{t} {n} → {after[t]}" for t, n in before.items() if t in after and after[t] < n]
    loose = {row["table"] for row in conn.execute("PRAGMA foreign_key_check")}
    if fewer or loose:
        lost = "; ".join([*fewer, *(f"{t} refers to rows that are gone" for t in sorted(loose))])
        raise DatabaseRefused(
            f"Bringing the data up to date would lose rows ({lost}). Nothing was changed; a copy"
            " from before stands in the folder backups."
        )


def ready(path: str | Path) -> int:
    """Look whether a database can be used at all, and bring it up to date; returns its version.

    Raises DatabaseRefused in one sentence for one that is damaged, may not be written, is held by
    another program, or was written by a newer Jolvek.
    """
    try:
        with closing(connect(path)) as conn:
            found = conn.execute("PRAGMA quick_check(1)").fetchone()[0]
            if found != "ok":
                raise sqlite3.DatabaseError(found)
            return migrate(conn)
    except sqlite3.Error as error:
        text, what = " ".join(str(error).split()), f"The database {path} cannot be used"
        if "readonly" in text or "unable to open" in text or "permission" in text.lower():
            raise DatabaseRefused(
                f"{what}: it or its folder may not be written ({text})."
            ) from None
        if "locked" in text or "busy" in text:
            raise DatabaseRefused(f"{what}: another program holds it ({text}).") from None
        raise DatabaseRefused(
            f"{what}: the file is damaged ({text}). Put it aside and read a backup back: jolvek"
            " restore."
        ) from None


def _version(conn: sqlite3.Connection) -> int:
    return int(conn.execute("PRAGMA user_version").fetchone()[0])


def _copy_before(conn: sqlite3.Connection) -> None:
    """A copy beside the database, named by its version and the time; the latest 30 stay."""
    path = conn.execute("PRAGMA database_list").fetchone()["file"]
    version = _version(conn)
    if not path or not version:
        return
    folder = Path(path).parent / "backups"
    folder.mkdir(mode=0o700, exist_ok=True)
    target = folder / f"version-{version:03d}-{time.strftime('%Y%m%d-%H%M%S')}.db"
    target.touch(mode=0o600)
    copy = sqlite3.connect(target)
    conn.backup(copy)
    copy.close()
    for old in sorted(folder.glob("version-*.db"))[:-KEPT_BACKUPS]:
        old.unlink(missing_ok=True)


def _places_of_legs(conn: sqlite3.Connection) -> None:
    """Version 003 was edited after it had been applied: legs made before have no places."""
    there = {row["name"] for row in conn.execute("PRAGMA table_info(leg)")}
    for column in ("latitude_deg", "longitude_deg"):
        if column not in there:
            conn.execute(f"ALTER TABLE leg ADD COLUMN {column} REAL")


def _names_in_the_trail(conn: sqlite3.Connection) -> None:
    """Titles of jobs, which may name their customers, stood in the trail's details."""
    named = "'handover signed', 'boat passed on', 'trial taken over', 'trial taken back'"
    trail.blank(conn, f"action IN ({named})", {})


_REPAIRS: dict[int, Callable[[sqlite3.Connection], None]] = {
    4: _places_of_legs,
    21: _names_in_the_trail,
    23: rebuild.drop_word_lists,
}


def _statements(sql: str) -> Iterator[str]:
    """Single statements: executescript would commit what is pending."""
    part = ""
    for line in sql.splitlines(keepends=True):
        part += line
        if sqlite3.complete_statement(part):
            yield part
            part = ""
