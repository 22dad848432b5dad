"""Mails that wait to be handed on; each is laid in by the transaction of what it tells of."""

from __future__ import annotations

import sqlite3


def post(
    conn: sqlite3.Connection, enquiry_id: int, at: str, to: str, mail: bytes, offer_id: int = 0
) -> int:
    """Lay a mail of an enquiry, or of one of its offers, into the outbox."""
    row = conn.execute(
        "INSERT INTO outbox (enquiry_id, offer_id, at, recipient, mail) VALUES (:enquiry, :offer,"
        " :at, :to, :mail) RETURNING id",
        {"enquiry": enquiry_id, "offer": offer_id or None, "at": at, "to": to, "mail": mail},
    ).fetchone()
    return int(row["id"])


def waiting(conn: sqlite3.Connection, offer_id: int) -> bool:
    """Whether a mail of an offer has not been handed on yet."""
    sql = "SELECT 1 FROM outbox WHERE offer_id = :id AND written_at = ''"
    return conn.execute(sql, {"id": offer_id}).fetchone() is not None


def unposted(conn: sqlite3.Connection) -> list[tuple[int, str, bytes]]:
    """(number, recipient, mail) of what has not been handed on."""
    sql = "SELECT id, recipient, mail FROM outbox WHERE written_at = '' ORDER BY id"
    return [(row["id"], row["recipient"], bytes(row["mail"])) for row in conn.execute(sql)]


def posted(conn: sqlite3.Connection, number: int, at: str) -> None:
    """A mail was handed on."""
    conn.execute("UPDATE outbox SET written_at = :at WHERE id = :id", {"at": at, "id": number})
