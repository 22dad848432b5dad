"""Offers as sent: numbered by the year, revised, frozen; the draft of the next; the customer's link
and what the customer did.
"""

from __future__ import annotations

import json
import secrets
import sqlite3
from collections.abc import Callable, Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any

from jolvek.store.columns import UnreadableColumn, from_json, select, to_json
from jolvek.store.people import hashed

DRAFT = "jolvek-offer-draft"
KINDS = ("asked", "accepted", "declined")
_OFFER = ("id", "enquiry_id", "year", "serial", "revision", "sent_at", "valid_to", "sent_by")
_EVENT = ("id", "at", "kind", "who", "text", "letter", "ticked", "seen_by", "signature")


@dataclass(frozen=True)
class Sent:
    """One revision of an offer as it went out."""

    id: int
    enquiry_id: int
    year: int
    serial: int
    revision: int
    sent_at: str
    valid_to: str
    sent_by: str

    @property
    def number(self) -> str:
        """Its number, with its revision from the second on."""
        again = f" rev. {self.revision}" if self.revision > 1 else ""
        return f"{self.year}-{self.serial:04d}{again}"


@dataclass(frozen=True)
class Event:
    """What a customer did: asked, accepted or declined."""

    id: int
    at: str
    kind: str
    who: str
    text: str
    letter: str
    ticked: tuple[str, ...]
    seen_by: str
    signature: str = ""  # as drawn: strokes of points


@dataclass(frozen=True)
class Link:
    """The customer's link as kept: until when, whether revoked, when last opened."""

    token: str
    until: str
    revoked: bool
    opened_at: str


def draft(conn: sqlite3.Connection, enquiry_id: int) -> dict[str, Any]:
    """The draft of the next offer; empty where there is none, or it cannot be read."""
    row = conn.execute(
        "SELECT data FROM offer_draft WHERE enquiry_id = :id", {"id": enquiry_id}
    ).fetchone()
    try:
        found = from_json(DRAFT, row["data"]) if row else {}
        return found if isinstance(found, dict) else {}
    except UnreadableColumn:
        return {}


def keep_draft(conn: sqlite3.Connection, enquiry_id: int, data: Mapping[str, Any]) -> None:
    """Keep the draft."""
    conn.execute(
        "INSERT INTO offer_draft (enquiry_id, data) VALUES (:id, :data) ON CONFLICT (enquiry_id)"
        " DO UPDATE SET data = excluded.data",
        {"id": enquiry_id, "data": to_json(DRAFT, dict(data))},
    )


def next_number(conn: sqlite3.Connection, enquiry_id: int, year: int) -> tuple[int, int, int]:
    """(year, serial, revision) of what is sent next, inside the transaction that sends it: the
    enquiry's own number with the next revision, or the next number of the year.
    """
    row = conn.execute(
        "SELECT year, serial, max(revision) AS revision FROM offer WHERE enquiry_id = :id GROUP BY"
        " year, serial ORDER BY year DESC, serial DESC LIMIT 1",
        {"id": enquiry_id},
    ).fetchone()
    if row:
        return row["year"], row["serial"], row["revision"] + 1
    last = conn.execute(
        "SELECT coalesce(max(serial), 0) AS last FROM offer WHERE year = :year", {"year": year}
    ).fetchone()
    return year, last["last"] + 1, 1


def add(
    conn: sqlite3.Connection,
    sent: Sent,
    content: Mapping[str, Any],
    shop_data: Mapping[str, Any],
    pdf: bytes,
) -> int:
    """Keep what is sent, for ever as it is; `shop_data` is for the shop alone."""
    values = {name: getattr(sent, name) for name in _OFFER if name != "id"}
    row = conn.execute(
        "INSERT INTO offer (enquiry_id, year, serial, revision, sent_at, valid_to, sent_by, data,"
        " shop_data, pdf) VALUES (:enquiry_id, :year, :serial, :revision, :sent_at, :valid_to,"
        " :sent_by, :data, :shop_data, :pdf) RETURNING id",
        {
            **values,
            "data": json.dumps(content, ensure_ascii=False),
            "shop_data": json.dumps(shop_data, ensure_ascii=False),
            "pdf": pdf,
        },
    ).fetchone()
    return int(row["id"])


def of_enquiry(conn: sqlite3.Connection, enquiry_id: int) -> list[Sent]:
    """All that was sent of an enquiry, the latest first."""
    sql = select("offer", _OFFER, "WHERE enquiry_id = :id ORDER BY id DESC")
    return [Sent(*row) for row in conn.execute(sql, {"id": enquiry_id})]


def get(conn: sqlite3.Connection, offer_id: int) -> Sent | None:
    """One of them."""
    row = conn.execute(select("offer", _OFFER, "WHERE id = :id"), {"id": offer_id}).fetchone()
    return Sent(*row) if row else None


def content(conn: sqlite3.Connection, offer_id: int) -> dict[str, Any]:
    """What the customer got; raises KeyError where there is none."""
    row = conn.execute("SELECT data FROM offer WHERE id = :id", {"id": offer_id}).fetchone()
    if row is None:
        raise KeyError(offer_id)
    found: dict[str, Any] = json.loads(row["data"])
    return found


def shop_data(conn: sqlite3.Connection, offer_id: int) -> dict[str, Any]:
    """What only the shop sees of it."""
    row = conn.execute("SELECT shop_data FROM offer WHERE id = :id", {"id": offer_id}).fetchone()
    found: dict[str, Any] = json.loads(row["shop_data"]) if row else {}
    return found


def pdf(conn: sqlite3.Connection, offer_id: int) -> bytes:
    """The paper as it went out."""
    row = conn.execute("SELECT pdf FROM offer WHERE id = :id", {"id": offer_id}).fetchone()
    return bytes(row["pdf"]) if row else b""


def new_token() -> str:
    """A token for a link: 192 bits that nobody guesses."""
    return secrets.token_urlsafe(24)


def make_link(conn: sqlite3.Connection, offer_id: int, until: str, token: str = "") -> str:
    """A new link to one offer; those before it are revoked. Its token is not kept."""
    token = token or new_token()
    revoke(conn, offer_id)
    add_link(conn, offer_id, until, token)
    return token


def add_link(conn: sqlite3.Connection, offer_id: int, until: str, token: str) -> None:
    """One more link to one offer; those to earlier revisions stay good and lead there too."""
    conn.execute(
        "INSERT INTO offer_link (token, offer_id, until) VALUES (:token, :id, :until)",
        {"token": hashed(token), "id": offer_id, "until": until},
    )


def revoke(conn: sqlite3.Connection, offer_id: int) -> None:
    """Shut all links to an offer, and those to its earlier revisions."""
    conn.execute(
        "UPDATE offer_link SET revoked = 1 WHERE offer_id IN (SELECT o.id FROM offer o"
        " JOIN offer me ON me.year = o.year AND me.serial = o.serial"
        " AND o.revision <= me.revision WHERE me.id = :id)",
        {"id": offer_id},
    )


def newest(conn: sqlite3.Connection, sent: Sent) -> Sent:
    """The latest revision of an offer."""
    sql = select(
        "offer", _OFFER, "WHERE year = :year AND serial = :serial ORDER BY id DESC LIMIT 1"
    )
    row = conn.execute(sql, {"year": sent.year, "serial": sent.serial}).fetchone()
    return Sent(*row)


def link(conn: sqlite3.Connection, offer_id: int) -> Link | None:
    """The latest link of an offer."""
    row = conn.execute(
        "SELECT token, until, revoked, opened_at FROM offer_link WHERE offer_id = :id ORDER BY"
        " rowid DESC LIMIT 1",
        {"id": offer_id},
    ).fetchone()
    return Link(row[0], row[1], bool(row[2]), row[3]) if row else None


def linked(conn: sqlite3.Connection, token: str) -> Sent | None:
    """The revision that a link was made for."""
    sql = "SELECT offer_id FROM offer_link WHERE token = :token"
    row = conn.execute(sql, {"token": hashed(token)}).fetchone()
    return get(conn, row["offer_id"]) if row else None


def by_token(
    conn: sqlite3.Connection,
    token: str,
    now: datetime,
    note: Callable[[Callable[[], object]], object] = lambda write: write(),
) -> Sent | None:
    """The offer behind a link that is good, in its latest revision; `note` notes its opening."""
    row = conn.execute(
        "SELECT offer_id, until FROM offer_link WHERE token = :token AND NOT revoked",
        {"token": hashed(token)},
    ).fetchone()
    first = get(conn, row["offer_id"]) if row else None
    if first is None:
        return None
    found = newest(conn, first)
    until = row["until"] if found.id == first.id else f"{found.valid_to}T23:59:59"
    if until < now.isoformat():
        return None
    sql = "UPDATE offer_link SET opened_at = :now WHERE token = :token"
    values = {"now": now.isoformat(), "token": hashed(token)}
    note(lambda: conn.execute(sql, values))
    return found


def record_event(conn: sqlite3.Connection, offer_id: int, event: Event) -> None:
    """Keep what the customer did; the counter follows."""
    conn.execute(
        "INSERT INTO offer_event (offer_id, at, kind, who, text, letter, ticked, signature) VALUES"
        " (:id, :at, :kind, :who, :text, :letter, :ticked, :signature)",
        {
            "id": offer_id,
            "at": event.at,
            "kind": event.kind,
            "who": event.who,
            "text": event.text,
            "letter": event.letter,
            "ticked": json.dumps(list(event.ticked)),
            "signature": event.signature,
        },
    )
    conn.execute(
        "UPDATE enquiry SET touched_at = :at WHERE id = (SELECT enquiry_id FROM offer WHERE id ="
        " :id)",
        {"at": event.at, "id": offer_id},
    )


def events(conn: sqlite3.Connection, offer_id: int) -> list[Event]:
    """What the customer did, the latest first."""
    sql = select("offer_event", _EVENT, "WHERE offer_id = :id ORDER BY id DESC")
    rows = [dict(row) for row in conn.execute(sql, {"id": offer_id})]
    return [Event(**{**row, "ticked": tuple(json.loads(row["ticked"]))}) for row in rows]


def answered(conn: sqlite3.Connection, offer_id: int) -> str:
    """accepted or declined, whichever came last; empty for neither."""
    sql = (
        "SELECT kind FROM offer_event WHERE offer_id = :id AND kind <> 'asked' ORDER BY id DESC"
        " LIMIT 1"
    )
    row = conn.execute(sql, {"id": offer_id}).fetchone()
    return str(row["kind"]) if row else ""


def seen(conn: sqlite3.Connection, enquiry_id: int, who: str) -> None:
    """Somebody has read what the customer did."""
    conn.execute(
        "UPDATE offer_event SET seen_by = :who WHERE seen_by = '' AND offer_id IN (SELECT id FROM"
        " offer WHERE enquiry_id = :id)",
        {"who": who, "id": enquiry_id},
    )
