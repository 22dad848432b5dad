"""Erasure on request: names and words of a customer leave the records; what is left is figures of
boats and sales without a name. What local law asks to keep with a name is kept elsewhere, by the
shop's bookkeeping.
"""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Sequence
from contextlib import suppress
from typing import Any

from jolvek.store import finding, owners, trail
from jolvek.store.owners import Former

ERASED = "erased"
_PHOTOS = (
    "SELECT photo AS name FROM boat WHERE enquiry_id = :id AND photo <> '' UNION SELECT name FROM"
    " photo WHERE enquiry_id = :id UNION SELECT photo FROM handover_act WHERE enquiry_id = :id AND"
    " photo <> '' UNION SELECT photo FROM fault WHERE enquiry_id = :id AND photo <> ''"
)
_MAILS = (
    "SELECT id FROM outbox WHERE enquiry_id = :id OR offer_id IN (SELECT id FROM offer WHERE"
    " enquiry_id = :id)"
)
_STEPS = (
    "UPDATE enquiry SET customer = :erased, phone = '', mail = '', address = '', note = '',"
    " title = 'Boat ' || :id, archived = 1, touched_at = :at WHERE id = :id",
    "UPDATE boat SET photo = '' WHERE enquiry_id = :id",
    "DELETE FROM enquiry_version WHERE enquiry_id = :id",
    "DELETE FROM undo WHERE enquiry_id = :id",
    "DELETE FROM photo WHERE enquiry_id = :id",
    "DELETE FROM offer_draft WHERE enquiry_id = :id",
    "DELETE FROM outbox WHERE enquiry_id = :id OR offer_id IN (SELECT id FROM offer WHERE"
    " enquiry_id = :id)",
    "DELETE FROM offer_link WHERE offer_id IN (SELECT id FROM offer WHERE enquiry_id = :id)",
    "UPDATE offer SET shop_data = json_remove(shop_data, '$.note') WHERE enquiry_id = :id",
    "UPDATE leg SET name = 'leg ' || place, latitude_deg = NULL, longitude_deg = NULL WHERE"
    " enquiry_id = :id",
    "UPDATE enquiry SET latitude_deg = round(latitude_deg), longitude_deg = round(longitude_deg)"
    " WHERE id = :id",
    "UPDATE booking SET who = :erased WHERE enquiry_id = :id",
    "UPDATE trial SET data = json_remove(data, '$.title', '$.note') WHERE enquiry_id = :id",
    "UPDATE trial_run SET data = json_replace(data, '$.note', '') WHERE trial_id IN (SELECT id FROM"
    " trial WHERE enquiry_id = :id)",
    "UPDATE offer_event SET who = :erased, text = '', signature = '' WHERE offer_id IN (SELECT id"
    " FROM offer WHERE enquiry_id = :id)",
    "UPDATE offer SET pdf = x'' WHERE enquiry_id = :id",
    "UPDATE handover SET pdf = x'' WHERE enquiry_id = :id",
    "UPDATE handover_act SET note = '', photo = '' WHERE enquiry_id = :id",
    "UPDATE trip SET note = '' WHERE enquiry_id = :id AND note <> ''",
    "UPDATE charge SET note = '' WHERE enquiry_id = :id",
    "UPDATE care_act SET note = '' WHERE enquiry_id = :id AND note <> ''",
    "UPDATE fault SET why = '', photo = '' WHERE enquiry_id = :id",
    "UPDATE part_swap SET why = :erased WHERE enquiry_id = :id",
    "UPDATE recall_letter SET mailed = :erased WHERE enquiry_id = :id AND mailed <> ''",
    "DELETE FROM owner_change WHERE enquiry_id = :id",
    "DELETE FROM live_sample WHERE trial_id IN (SELECT id FROM trial WHERE enquiry_id = :id)",
)


def erase(
    conn: sqlite3.Connection, numbers: Sequence[int], told: str, who: str, at: str
) -> list[str]:
    """Erase a customer from enquiries, all in the caller's transaction; returns the files below the
    data folder that are to be removed once it is done. `told` says what the shop decided, without
    names.
    """
    files: list[str] = []
    for number in numbers:
        key: dict[str, Any] = {"id": number, "at": at, "erased": ERASED}
        files += [f"photos/{row['name']}" for row in conn.execute(_PHOTOS, key)]
        files += [f"outbox/{row['id']:06d}.eml" for row in conn.execute(_MAILS, key)]
        for sql in _STEPS:
            conn.execute(sql, {k: v for k, v in key.items() if f":{k}" in sql})
        for table in ("offer", "handover"):
            _nameless(conn, table, number)
        owners.shut(conn, "boat", number)
        trail.blank(conn, "path LIKE :here", {"here": f"/enquiry/{int(number)}/%"})
        finding.index(conn, number)
    finding.forget(conn)
    _note(conn, numbers, told, who, at)
    return files


def _nameless(
    conn: sqlite3.Connection,
    table: str,
    number: int,
    span: tuple[str, str, str] = ("id", "", owners.LAST),
) -> None:
    """The frozen figures of an offer or handover without names, words and signatures; of those in a
    span of time (column, since, until).
    """
    when = f" AND {span[0]} >= :since AND {span[0]} < :until" if span[0] != "id" else ""
    key: dict[str, Any] = {"id": number}
    key |= {"since": span[1], "until": span[2]} if when else {}
    sql = f"SELECT id, data FROM {table} WHERE enquiry_id = :id{when}"
    for row in conn.execute(sql, key).fetchall():
        data = json.loads(row["data"])
        data["customer"] = dict.fromkeys(data.get("customer", {}), "") | {"customer": ERASED}
        data |= {k: "" for k in ("title", "opening", "closing", "words") if k in data}
        if "signatures" in data:
            data["signatures"]["customer"] = {"name": ERASED, "drawn": ""}
        for step in data.get("steps", []):
            step["note"] = ""
        conn.execute(
            f"UPDATE {table} SET data = :data WHERE id = :id",
            {"data": json.dumps(data, ensure_ascii=False), "id": row["id"]},
        )


def erase_former(conn: sqlite3.Connection, f: Former, told: str, who: str, at: str) -> list[str]:
    """Erase somebody who had a boat before: how they were reached, what the shop sent them and what
    they signed; the boat's record stays with it. As `erase`.
    """
    key: dict[str, Any] = {"id": f.enquiry_id, "since": f.since, "until": f.until}
    span = "enquiry_id = :id AND {0} >= :since AND {0} < :until"
    offers = f"(SELECT id FROM offer WHERE {span.format('sent_at')})"
    mails = conn.execute(f"SELECT id FROM outbox WHERE {span.format('at')}", key).fetchall()
    nothing = dict.fromkeys(f.was, "") | {"customer": ERASED}
    conn.execute(
        "UPDATE owner_change SET was = :was WHERE id = :change",
        {"was": json.dumps(nothing), "change": f.id},
    )
    for sql in (
        f"DELETE FROM enquiry_version WHERE {span.format('at')}",
        "DELETE FROM undo WHERE enquiry_id = :id",
        f"DELETE FROM outbox WHERE {span.format('at')}",
        f"UPDATE offer_event SET who = '{ERASED}', text = '', signature = '' WHERE offer_id IN"
        f" {offers}",
        f"UPDATE offer SET pdf = x'', shop_data = json_remove(shop_data, '$.note') WHERE id IN"
        f" {offers}",
        f"UPDATE handover SET pdf = x'' WHERE {span.format('signed_at')}",
    ):
        conn.execute(sql, key)
    for table, column in (("offer", "sent_at"), ("handover", "signed_at")):
        _nameless(conn, table, f.enquiry_id, (column, f.since, f.until))
    trail.blank(
        conn,
        "path LIKE :here AND at >= :since AND at < :until",
        {"here": f"/enquiry/{f.enquiry_id}/%", "since": f.since, "until": f.until},
    )
    finding.forget(conn)
    _note(conn, [f.enquiry_id], told, who, at)
    return [f"outbox/{row['id']:06d}.eml" for row in mails]


def _note(conn: sqlite3.Connection, numbers: Sequence[int], told: str, who: str, at: str) -> None:
    conn.execute(
        "INSERT INTO erasure (at, who, enquiries, told) VALUES (:at, :who, :numbers, :told)",
        {"at": at, "who": who, "numbers": json.dumps(list(numbers)), "told": told[:300]},
    )


def sweep(conn: sqlite3.Connection) -> None:
    """Write the database anew, so that no page of it still holds what was erased: outside of a
    transaction. Where others are at work just now, it is left to the next erasure.
    """
    with suppress(sqlite3.OperationalError):
        conn.execute("VACUUM")
    conn.execute("PRAGMA wal_checkpoint(TRUNCATE)")


def erased_on(conn: sqlite3.Connection, enquiry_id: int) -> str:
    """When an enquiry's customer was erased; empty where nobody was."""
    row = conn.execute(
        "SELECT max(r.at) AS at FROM erasure r, json_each(r.enquiries) n WHERE n.value = :id",
        {"id": enquiry_id},
    ).fetchone()
    return str(row["at"] or "")


def erasures(conn: sqlite3.Connection) -> list[tuple[str, str, list[int], str]]:
    """(when, who, numbers, what was decided) of all erasures, the latest first."""
    rows = conn.execute("SELECT at, who, enquiries, told FROM erasure ORDER BY id DESC")
    return [(r["at"], r["who"], json.loads(r["enquiries"]), r["told"]) for r in rows]
