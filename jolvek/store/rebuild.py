"""Rebuilding a table inside a migration: rows, indexes and references stay. Triggers are off then
(allowed.py makes them anew).
"""

from __future__ import annotations

import re
import sqlite3

# a list of allowed words in a CHECK: a new word would need the table rebuilt
_WORD_LIST = re.compile(r"\s*CHECK\s*\([^()]*\bIN\s*\(\s*'[^()]*\)\s*\)")


def rebuild(conn: sqlite3.Connection, table: str, sql: str) -> None:
    """Make a table anew by another CREATE TABLE statement with the same columns, as SQLite's manual
    says; foreign keys must be off, or rows that refer to it would go with it.

    >>> c = sqlite3.connect(":memory:")
    >>> _ = c.execute("CREATE TABLE hull (id INTEGER PRIMARY KEY, kind TEXT CHECK (kind IN ('a')))")
    >>> _ = c.execute("INSERT INTO hull VALUES (1, 'a')")
    >>> rebuild(c, "hull", without_word_lists(sql_of(c, "hull")))
    >>> _ = c.execute("INSERT INTO hull VALUES (2, 'b')")
    >>> c.close()
    """
    if conn.execute("PRAGMA foreign_keys").fetchone()[0]:
        raise RuntimeError("foreign keys are on: rows that refer to the table would be deleted")
    indexes = conn.execute(
        "SELECT sql FROM sqlite_master WHERE tbl_name = :table AND type = 'index' AND sql IS NOT"
        " NULL",
        {"table": table},
    ).fetchall()
    columns = ", ".join(f'"{row[1]}"' for row in conn.execute(f'PRAGMA table_info("{table}")'))
    made = re.sub(r"(?i)^CREATE TABLE\s+\S+", f'CREATE TABLE "{table}_rebuilt"', sql, count=1)
    conn.execute(made)
    conn.execute(f'INSERT INTO "{table}_rebuilt" ({columns}) SELECT {columns} FROM "{table}"')
    conn.execute(f'DROP TABLE "{table}"')
    conn.execute(f'ALTER TABLE "{table}_rebuilt" RENAME TO "{table}"')
    for row in indexes:
        conn.execute(row[0])


def sql_of(conn: sqlite3.Connection, table: str) -> str:
    """The statement that a table was made by.

    >>> c = sqlite3.connect(":memory:")
    >>> _ = c.execute("CREATE TABLE hull (id INTEGER)")
    >>> sql_of(c, "hull")
    'CREATE TABLE hull (id INTEGER)'
    >>> c.close()
    """
    row = conn.execute(
        "SELECT sql FROM sqlite_master WHERE type = 'table' AND name = :table", {"table": table}
    ).fetchone()
    return str(row[0])


def tables(conn: sqlite3.Connection) -> list[str]:
    """The names of all tables that hold rows of their own.

    >>> c = sqlite3.connect(":memory:")
    >>> tables(c), c.close()
    ([], None)
    """
    found = conn.execute(
        "SELECT name FROM pragma_table_list WHERE schema = 'main' AND type = 'table'"
        " AND name NOT LIKE 'sqlite_%' ORDER BY name"
    )
    return [row[0] for row in found]


def without_word_lists(sql: str) -> str:
    """A CREATE TABLE statement without its lists of allowed words; 0 or 1 stays checked.

    >>> without_word_lists("CREATE TABLE x (a TEXT CHECK (a IN ('b', 'c')), d CHECK (d IN (0, 1)))")
    'CREATE TABLE x (a TEXT, d CHECK (d IN (0, 1)))'
    """
    return _WORD_LIST.sub("", sql)


def drop_word_lists(conn: sqlite3.Connection) -> None:
    """Rebuild every table that has a list of allowed words; what is allowed, records and triggers
    say (allowed.py).
    """
    for table in tables(conn):
        sql = sql_of(conn, table)
        if (plain := without_word_lists(sql)) != sql:
            rebuild(conn, table, plain)
