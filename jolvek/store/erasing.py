"""Erasure on request: names and words of a customer leave the records; what is left is figures of
boats and sales without a name. What local law asks to keep with a name is kept elsewhere, by the
shop's bookkeeping.
"""

from __future__ import annotations

import json
import sqlite3
from collections.abc import Sequence
from typing import Any

from jolvek.store import finding, owners

ERASED = "erased"
_PHOTOS = (
    "SELECT photo AS name FROM boat WHERE enquiry_id = :id AND photo <> '' UNION SELECT name FROM"
    " photo WHERE enquiry_id = :id UNION SELECT photo FROM handover_act WHERE enquiry_id = :id AND"
    " photo <> '' UNION SELECT photo FROM fault WHERE enquiry_id = :id AND photo <> ''"
)
_STEPS = (
    "UPDATE enquiry SET customer = :erased, phone = '', mail = '', address = '', note = '',"
    " title = 'Boat ' || :id, archived = 1, touched_at = :at WHERE id = :id",
    "UPDATE boat SET photo = '' WHERE enquiry_id = :id",
    "DELETE FROM enquiry_version WHERE enquiry_id = :id",
    "DELETE FROM photo WHERE enquiry_id = :id",
    "DELETE FROM offer_draft WHERE enquiry_id = :id",
    "DELETE FROM outbox WHERE enquiry_id = :id OR offer_id IN (SELECT id FROM offer WHERE"
    " enquiry_id = :id)",
    "DELETE FROM offer_link WHERE offer_id IN (SELECT id FROM offer WHERE enquiry_id = :id)",
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
    """Erase a customer from enquiries, all in the caller's transaction; returns the names of photo
    files that are to be removed once it is done. `told` says what the shop decided, without names.
    """
    files: list[str] = []
    for number in numbers:
        key: dict[str, Any] = {"id": number, "at": at, "erased": ERASED}
        files += [row["name"] for row in conn.execute(_PHOTOS, key)]
        for sql in _STEPS:
            conn.execute(sql, {k: v for k, v in key.items() if f":{k}" in sql})
        for table in ("offer", "handover"):
            _nameless(conn, table, number)
        owners.shut(conn, "boat", number)
        finding.index(conn, number)
    conn.execute(
        "INSERT INTO erasure (at, who, enquiries, told) VALUES (:at, :who, :numbers, :told)",
        {"at": at, "who": who, "numbers": json.dumps(list(numbers)), "told": told[:300]},
    )
    return files


def _nameless(conn: sqlite3.Connection, table: str, number: int) -> None:
    """The frozen figures of an offer or handover without names, words and signatures."""
    sql = f"SELECT id, data FROM {table} WHERE enquiry_id = :id"
    for row in conn.execute(sql, {"id": number}).fetchall():
        data = json.loads(row["data"])
        data["customer"] = dict.fromkeys(data.get("customer", {}), "") | {"customer": ERASED}
        for key in ("title", "opening", "closing", "words"):
            if key in data:
                data[key] = ""
        data.pop("signatures", None)
        for step in data.get("steps", []):
            step["note"] = ""
        conn.execute(
            f"UPDATE {table} SET data = :data WHERE id = :id",
            {"data": json.dumps(data, ensure_ascii=False), "id": row["id"]},
        )


def erasures(conn: sqlite3.Connection) -> list[tuple[str, str, list[int], str]]:
    """(when, who, numbers, what was decided) of all erasures, the latest first."""
    rows = conn.execute("SELECT at, who, enquiries, told FROM erasure ORDER BY id DESC")
    return [(r["at"], r["who"], json.loads(r["enquiries"]), r["told"]) for r in rows]
