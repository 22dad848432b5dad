"""The people behind the boats: a boat that changes hands, all that is kept of somebody, and its
erasure.
"""

from __future__ import annotations

import json
import sqlite3
from dataclasses import dataclass, replace
from typing import Any, ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.store import enquiries

REACHED = ("customer", "phone", "mail", "address")


@dataclass(frozen=True)
class Owner:
    """How somebody is reached."""

    TEXTS: ClassVar[checked.Counts] = {"customer": 120, "phone": 60, "mail": 200, "address": 300}

    customer: str
    phone: str = ""
    mail: str = ""
    address: str = ""

    def __post_init__(self) -> None:
        checked.check(self, "owner")


def pass_on(
    conn: sqlite3.Connection, enquiry_id: int, new: Owner, on: str, who: str, at: str
) -> None:
    """The boat has a new owner: her record stays with her; the old owner's name and the note leave
    it, and the old owner's link is shut. In a transaction. Raises ValueRefused for no name.
    """
    if not new.customer.strip():
        raise ValueRefused("owner.customer", new.customer, "the new owner's name")
    checked.date("owner.on_day", on)
    stored = enquiries.get(conn, enquiry_id)
    if stored is None:
        raise KeyError(enquiry_id)
    was = {key: getattr(stored.enquiry, key) for key in (*REACHED, "note")}
    conn.execute("DELETE FROM undo WHERE enquiry_id = :id", {"id": enquiry_id})  # it names them
    conn.execute(
        "INSERT INTO owner_change (enquiry_id, on_day, was, who, at) VALUES (:id, :on, :was, :who,"
        " :at)",
        {
            "id": enquiry_id,
            "on": on,
            "was": json.dumps(was, ensure_ascii=False),
            "who": who,
            "at": at,
        },
    )
    title = stored.title
    if was["customer"]:  # a title that names the old owner names the new one
        title = title.replace(was["customer"], new.customer)
    enquiries.change_within(
        conn, enquiry_id, lambda e: replace(e, note="", title=title, **vars(new)), at, who=who
    )
    shut(conn, "boat", enquiry_id)


def changes(conn: sqlite3.Connection, enquiry_id: int) -> list[tuple[str, str, str]]:
    """(day, who had her, by whom it was noted), the latest first."""
    rows = conn.execute(
        "SELECT on_day, was, who FROM owner_change WHERE enquiry_id = :id ORDER BY id DESC",
        {"id": enquiry_id},
    )
    return [(r["on_day"], json.loads(r["was"]).get("customer", ""), r["who"]) for r in rows]


def number_of(conn: sqlite3.Connection, kind: str, of_id: int) -> int:
    """Which signed address of a kind is the good one."""
    row = conn.execute(
        "SELECT number FROM signed_link WHERE kind = :kind AND of_id = :id",
        {"kind": kind, "id": of_id},
    ).fetchone()
    return int(row["number"]) if row else 0


def shut(conn: sqlite3.Connection, kind: str, of_id: int) -> None:
    """Signed addresses of a kind made so far lead nowhere any more."""
    conn.execute(
        "INSERT INTO signed_link (kind, of_id, number) VALUES (:kind, :id, 1) ON CONFLICT (kind,"
        " of_id) DO UPDATE SET number = number + 1",
        {"kind": kind, "id": of_id},
    )


PERSONAL = {  # tables that hold what one owner and the shop did, by when
    "enquiry_version": "at",
    "offer": "sent_at",
    "handover": "signed_at",
    "outbox": "at",
}
LAST = "9999"


@dataclass(frozen=True)
class Former:
    """Somebody who had a boat before: the change's number, from when and until when, how they were
    reached then.
    """

    id: int
    enquiry_id: int
    title: str
    since: str
    until: str
    was: dict[str, str]

    @property
    def customer(self) -> str:
        """Their name."""
        return self.was.get("customer", "")


def former(conn: sqlite3.Connection, enquiry_id: int | None = None) -> list[Former]:
    """Former owners of one boat, or of all, the latest first."""
    where = "WHERE c.enquiry_id = :id" if enquiry_id else ""
    rows = conn.execute(
        "SELECT c.id, c.enquiry_id, e.title, coalesce((SELECT max(b.at) FROM owner_change b WHERE"
        " b.enquiry_id = c.enquiry_id AND b.id < c.id), '') AS since, c.at AS until, c.was FROM"
        f" owner_change c JOIN enquiry e ON e.id = c.enquiry_id {where} ORDER BY c.id DESC",
        {"id": enquiry_id} if enquiry_id else {},
    )
    keys = ("id", "enquiry_id", "title", "since", "until")
    return [Former(**{k: row[k] for k in keys}, was=json.loads(row["was"])) for row in rows]


def since(conn: sqlite3.Connection, enquiry_id: int) -> str:
    """Since when the boat is its owner's; empty for the first."""
    found = former(conn, enquiry_id)
    return found[0].until if found else ""


def of_former(conn: sqlite3.Connection, f: Former) -> dict[str, Any]:
    """All that is kept of a former owner of a boat, by table; the boat's record is its own."""
    out: dict[str, Any] = {"owner_change": [{"until": f.until, **f.was}]}
    return out | _personal(conn, f.enquiry_id, f.since, f.until)


def _personal(
    conn: sqlite3.Connection, enquiry_id: int, since: str, until: str
) -> dict[str, list[dict[str, Any]]]:
    asked = {"id": enquiry_id, "since": since, "until": until}
    out = {}
    for table, at in PERSONAL.items():
        sql = (
            f"SELECT * FROM {table} WHERE enquiry_id = :id AND {at} >= :since AND {at} < :until"
            " ORDER BY rowid"
        )
        out[table] = [_plain(row) for row in conn.execute(sql, asked)]
    sql = (
        "SELECT v.* FROM offer_event v JOIN offer o ON o.id = v.offer_id WHERE o.enquiry_id = :id"
        " AND o.sent_at >= :since AND o.sent_at < :until"
    )
    out["offer_event"] = [_plain(row) for row in conn.execute(sql, asked)]
    return {table: rows for table, rows in out.items() if rows}


def enquiries_of(conn: sqlite3.Connection, name: str, mail: str) -> list[tuple[int, str, str]]:
    """(number, title, customer) of all that belongs to somebody: by name and mail where both are
    known, else by the one that is; letters' case does not matter.
    """
    if not name.strip() and not mail.strip():
        return []
    rows = conn.execute(
        "SELECT id, title, customer FROM enquiry WHERE (:name = '' OR lower(customer) = :name) AND"
        " (:mail = '' OR lower(mail) = :mail OR mail = '') ORDER BY id",
        {"name": name.strip().lower(), "mail": mail.strip().lower()},
    )
    return [(row["id"], row["title"], row["customer"]) for row in rows]


def _tables(conn: sqlite3.Connection) -> list[tuple[str, list[str]]]:
    """(table, its columns) of every table whose rows name an enquiry."""
    out = []
    for row in conn.execute("SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name"):
        columns = [c["name"] for c in conn.execute(f"PRAGMA table_info({row['name']})")]
        if "enquiry_id" in columns:
            out.append((row["name"], columns))
    return out


def everything(conn: sqlite3.Connection, enquiry_id: int) -> dict[str, Any]:
    """All rows that are kept of one enquiry and its owner, by table; papers as their size, keys
    left out, and what belongs to those who had the boat before.
    """
    out: dict[str, Any] = {}
    head = conn.execute("SELECT * FROM enquiry WHERE id = :id", {"id": enquiry_id}).fetchone()
    out["enquiry"] = [_plain(head)] if head else []
    asked = {"id": enquiry_id}
    for table, _ in _tables(conn):
        if table in PERSONAL or table == "owner_change":
            continue
        sql = f"SELECT * FROM {table} WHERE enquiry_id = :id ORDER BY rowid"
        out[table] = [_plain(row) for row in conn.execute(sql, asked)]
    out |= _personal(conn, enquiry_id, since(conn, enquiry_id), LAST)
    sql = (
        "SELECT r.* FROM trial_run r JOIN trial t ON t.id = r.trial_id WHERE t.enquiry_id = :id"
        " ORDER BY r.id"
    )
    out["trial_run"] = [_plain(row) for row in conn.execute(sql, asked)]
    return {table: rows for table, rows in out.items() if rows}


def _plain(row: sqlite3.Row) -> dict[str, Any]:
    out: dict[str, Any] = {}
    for key in row.keys():  # noqa: SIM118 - a Row is no mapping
        value = row[key]
        if key in ("token", "shop_data"):  # keys; the shop's own buying prices
            continue
        if isinstance(value, bytes):
            out[key] = f"{len(value)} bytes"
        elif isinstance(value, str) and value[:1] in "{[":
            out[key] = _json(value)
        else:
            out[key] = value
    return out


def _json(text: str) -> Any:
    try:
        return json.loads(text)
    except ValueError:
        return text


def language_of(conn: sqlite3.Connection, enquiry_id: int) -> str:
    """In which language the customer is written to; empty where nobody chose: the shop's."""
    row = conn.execute("SELECT language FROM enquiry WHERE id = :id", {"id": enquiry_id}).fetchone()
    return str(row["language"]) if row else ""


def set_language(conn: sqlite3.Connection, enquiry_id: int, language: str) -> None:
    """Write to the customer in another language; one the table does not know is refused there."""
    conn.execute(
        "UPDATE enquiry SET language = :language WHERE id = :id",
        {"language": language, "id": enquiry_id},
    )
