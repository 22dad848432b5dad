"""Enquiries as the counter lists them, and finding them again by words and by model."""

from __future__ import annotations

import re
import sqlite3
from dataclasses import dataclass

WAITS = {
    "look": "Waiting for a look",
    "data": "Waiting for data",
    "choice": "Waiting for a choice",
    "offer": "Waiting for an offer",
    "answer": "Waiting for the customer",
    "order": "Accepted, to be ordered",
    "handover": "Waiting for handover",
    "service": "In service",
}
_LIST = (
    "SELECT e.id, e.customer, e.title, b.family, b.length_m, l.people,"
    " max(e.changed_at, e.touched_at) AS changed_at, e.stage, e.ordered_at, b.transom_height_m,"
    " b.places,"
    " (SELECT count(*) FROM setup s WHERE s.enquiry_id = e.id) AS pinned,"
    " (SELECT letter FROM setup s WHERE s.enquiry_id = e.id AND s.chosen = 1) AS chosen,"
    " EXISTS (SELECT 1 FROM intake c WHERE c.enquiry_id = e.id AND c.looked_at = '') AS unseen,"
    " EXISTS (SELECT 1 FROM offer_event v JOIN offer o ON o.id = v.offer_id WHERE o.enquiry_id ="
    " e.id AND v.seen_by = '') AS news,"
    " (SELECT v.kind FROM offer_event v WHERE v.kind <> 'asked' AND v.offer_id = o.id ORDER BY v.id"
    " DESC LIMIT 1) AS answered, EXISTS (SELECT 1 FROM offer_link k WHERE k.offer_id = o.id AND"
    " k.opened_at <> '') AS opened, json_extract(o.shop_data, '$.follow_up') AS follow_up"
    " FROM enquiry e JOIN boat b ON b.enquiry_id = e.id JOIN load l ON l.enquiry_id = e.id"
    " LEFT JOIN offer o ON o.id = (SELECT max(id) FROM offer WHERE enquiry_id = e.id)"
)


@dataclass(frozen=True)
class Line:
    """One enquiry as listed, with how many setups are pinned, whether one is chosen, and what it
    waits for.
    """

    id: int
    customer: str
    title: str
    family: str
    length_m: float
    people: int
    changed_at: str
    stage: str
    ordered_at: str  # when the parts of an accepted offer were ordered
    transom_height_m: float | None
    places: str
    pinned: int
    chosen: str | None
    unseen: int  # came in from the customer, and nobody has looked
    news: int  # the customer did something with an offer that nobody has read
    answered: str | None  # of the offer sent last: accepted or declined
    opened: int
    follow_up: str | None  # the day on which to ask again

    @property
    def waits(self) -> str:
        """One of WAITS."""
        if self.unseen:
            return "look"
        if self.answered == "accepted" and not self.ordered_at and self.stage != "delivered":
            return "order"
        if self.stage != "open":
            return {"offered": "answer", "ordered": "handover", "delivered": "service"}[self.stage]
        if self.chosen:
            return "offer"
        lacking = not self.title or (self.transom_height_m is None and '"transom"' in self.places)
        return "data" if lacking and not self.pinned else "choice"


A_PAGE = 100  # enquiries of the counter


def listed(
    conn: sqlite3.Connection, archived: bool = False, most: int = A_PAGE, skip: int = 0
) -> list[Line]:
    """Open (or archived) enquiries, those nobody has looked at and the latest changed first."""
    rows = conn.execute(
        f"{_LIST} WHERE e.archived = :archived ORDER BY unseen DESC, news DESC,"
        " max(e.changed_at, e.touched_at) DESC, e.id LIMIT :most OFFSET :skip",
        {"archived": int(archived), "most": most, "skip": skip},
    )
    return [Line(**dict(row)) for row in rows]


def found(conn: sqlite3.Connection, text: str, most: int = 40) -> list[Line]:
    """Enquiries, open or not, in which every word typed begins a word of customer, title, note,
    boat or products.
    """
    words = re.findall(r"\w+", text)
    if not words:
        return []
    query = " ".join(f'"{word}"*' for word in words[:12])
    rows = conn.execute(
        f"{_LIST} JOIN enquiry_find f ON f.rowid = e.id WHERE enquiry_find MATCH :query"
        " ORDER BY e.archived, rank LIMIT :most",
        {"query": query, "most": most},
    )
    return [Line(**dict(row)) for row in rows]


def same_model(conn: sqlite3.Connection, text: str, most: int = 8) -> list[int]:
    """Numbers of earlier enquiries whose make and model hold the text, the latest first."""
    if not text.strip():
        return []
    escaped = re.sub(r"([\\%_])", r"\\\1", text.strip())
    rows = conn.execute(
        "SELECT b.enquiry_id AS id FROM boat b JOIN enquiry e ON e.id = b.enquiry_id WHERE b.model"
        " LIKE :like ESCAPE '\\' GROUP BY b.model ORDER BY max(e.changed_at) DESC LIMIT :most",
        {"like": f"%{escaped}%", "most": most},
    )
    return [row["id"] for row in rows]


def index(conn: sqlite3.Connection, enquiry_id: int) -> None:
    """Write the words by which an enquiry is found."""
    conn.execute("DELETE FROM enquiry_find WHERE rowid = :id", {"id": enquiry_id})
    conn.execute(
        "INSERT INTO enquiry_find (rowid, customer, title, note, boat, products) SELECT e.id,"
        " e.customer, e.title, e.note, replace(b.family, '_', ' ') || ' ' || b.model,"
        " coalesce((SELECT group_concat(i.title, ' ') FROM setup s JOIN setup_item i ON i.setup_id"
        " = s.id WHERE s.enquiry_id = e.id), '') FROM enquiry e JOIN boat b ON b.enquiry_id = e.id"
        " WHERE e.id = :id",
        {"id": enquiry_id},
    )


def forget(conn: sqlite3.Connection) -> None:
    """Write the index whole, so that no segment of it still holds words that were taken out."""
    conn.execute("INSERT INTO enquiry_find (enquiry_find) VALUES ('optimize')")


@dataclass(frozen=True)
class Use:
    """One pinned setup in which a product stands."""

    enquiry_id: int
    title: str
    letter: str


def using(conn: sqlite3.Connection, product_id: str, most: int = 40) -> tuple[Use, ...]:
    """The pinned setups in which a product stands, the latest first."""
    rows = conn.execute(
        "SELECT e.id AS enquiry_id, e.title, s.letter FROM setup s JOIN enquiry e"
        " ON e.id = s.enquiry_id WHERE s.id IN (SELECT setup_id FROM setup_item"
        " WHERE product_id = :id UNION SELECT setup_id FROM setup_extra WHERE product_id = :id)"
        " ORDER BY e.id DESC, s.letter LIMIT :most",
        {"id": product_id, "most": most},
    )
    return tuple(Use(**dict(row)) for row in rows)
