"""Keys by which a dealer's own site asks; kept hashed, good until they are taken away."""

from __future__ import annotations

import secrets
import sqlite3
from dataclasses import dataclass

from jolvek.store.people import hashed

MOST = 20


@dataclass(frozen=True)
class Key:
    """One key: what is kept of it, what it is for, when it was made and last used."""

    token: str
    name: str
    made_at: str
    used_at: str


def make(conn: sqlite3.Connection, name: str, at: str) -> str:
    """A new key, shown only now."""
    key = "jk_" + secrets.token_urlsafe(32)
    conn.execute(
        "INSERT INTO api_key (token, name, made_at) VALUES (:token, :name, :at)",
        {"token": hashed(key), "name": name, "at": at},
    )
    return key


def every(conn: sqlite3.Connection) -> list[Key]:
    """All of them, the latest first."""
    rows = conn.execute("SELECT token, name, made_at, used_at FROM api_key ORDER BY made_at DESC")
    return [Key(*row) for row in rows]


def use(conn: sqlite3.Connection, key: str, day: str) -> bool:
    """Whether a key is good; the day of its use is noted once."""
    row = conn.execute(
        "SELECT used_at FROM api_key WHERE token = :token", {"token": hashed(key)}
    ).fetchone()
    if row is not None and row["used_at"] != day:
        conn.execute(
            "UPDATE api_key SET used_at = :day WHERE token = :token",
            {"day": day, "token": hashed(key)},
        )
    return row is not None


def drop(conn: sqlite3.Connection, token: str) -> None:
    """Take one away, by what is kept of it; it is refused from then on."""
    conn.execute("DELETE FROM api_key WHERE token = :token", {"token": token})
