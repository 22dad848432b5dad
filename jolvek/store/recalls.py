"""Who has a product, batch or range of serial numbers; recalls, their letters, the answers."""

from __future__ import annotations

import re
import sqlite3
from dataclasses import dataclass
from typing import Any, ClassVar

from jolvek.core.base import checked
from jolvek.core.base.errors import ValueRefused
from jolvek.store.columns import select

HOLDER_SQL = (
    "SELECT e.id, e.title, e.customer, e.phone, e.mail, s.what, s.number, s.batch, s.title AS piece"
    " FROM serial s JOIN enquiry e ON e.id = s.enquiry_id WHERE {} ORDER BY s.number, s.id"
    " LIMIT :most"
)
MOST = 20_000
ANSWERS = {
    "stopped": "I have it and do not use it any more",
    "come": "I have it: call me for a day",
    "not_mine": "I do not have it any more",
}
_LETTER = (
    "id",
    "recall_id",
    "enquiry_id",
    "piece",
    "number",
    "mailed",
    "answer",
    "answered_at",
    "answered_by",
)


@dataclass(frozen=True)
class Holder:
    """A boat that has a piece: whose, how they are reached, which number of which batch."""

    enquiry_id: int
    title: str
    customer: str
    phone: str
    mail: str
    what: str
    number: str
    batch: str
    piece: str
    address: str = ""


@dataclass(frozen=True)
class Asked:
    """Which pieces: a product's id, a batch, serial numbers that begin so or lie in a range."""

    TEXTS: ClassVar[checked.Counts] = {"product": 80, "batch": 60, "first": 60, "last": 60}

    product: str = ""
    batch: str = ""
    first: str = ""
    last: str = ""

    def __post_init__(self) -> None:
        checked.check(self, "asked")
        if self.last:
            low, high = _split(self.first), _split(self.last)
            if low[0] != high[0] or not low[1] or not high[1]:
                text = "numbers that differ only in the figures at their end, as TM-100 to TM-250"
                raise ValueRefused("asked.last", self.last, text)
            if int(low[1]) > int(high[1]):
                raise ValueRefused("asked.last", self.last, f"{self.first} and above")

    @property
    def text(self) -> str:
        """In words."""
        numbers = f"numbers {self.first} to {self.last}" if self.last else f"numbers {self.first}…"
        rows = (self.product, self.batch and f"batch {self.batch}", self.first and numbers)
        return ", ".join(x for x in rows if x)


def _split(number: str) -> tuple[str, str]:
    """What stands before the figures at the end of a serial number, and they."""
    found = re.fullmatch(r"(.*?)(\d*)", number.strip())
    assert found is not None
    return found[1], found[2]


def holders(conn: sqlite3.Connection, a: Asked, most: int = MOST) -> list[Holder]:
    """Who has what is asked for, by number; nobody where nothing is asked. The figures at the end
    of serial numbers are compared as figures, so that TM-99 lies before TM-100.
    """
    asked: dict[str, str | int] = {"most": most}
    tests = []
    if a.product:
        tests.append("s.product_id = :product")
        asked["product"] = a.product
    if a.batch:
        tests.append("s.batch = :batch AND s.batch <> ''")
        asked["batch"] = a.batch
    if a.first:
        start = _split(a.first)[0] if a.last else a.first
        tests.append("s.number >= :start AND s.number < :end")
        asked |= {"start": start, "end": start + "\U0010ffff"}
    if not tests:
        return []
    rows = conn.execute(HOLDER_SQL.format(" AND ".join(tests)), asked)
    found = [Holder(*row) for row in rows]
    if not a.last:
        return found
    low, high = int(_split(a.first)[1]), int(_split(a.last)[1])
    return sorted(
        (h for h in found if _within(h.number, _split(a.first)[0], low, high)),
        key=lambda h: int(_split(h.number)[1]),
    )


def _within(number: str, start: str, low: int, high: int) -> bool:
    before, figures = _split(number)
    return before == start and bool(figures) and low <= int(figures) <= high


@dataclass(frozen=True)
class Recall:
    """One recall: which pieces, the letter's title and words; how many letters and answers."""

    id: int
    at: str
    who: str
    title: str
    asked: str
    words: str
    letters: int
    mailed: int
    answered: int


@dataclass(frozen=True)
class Letter:
    """One letter of a recall: of which boat and piece, the address it was mailed to (empty: to be
    printed), what was answered (a key of ANSWERS, or a word by the shop).
    """

    id: int
    recall_id: int
    enquiry_id: int
    piece: str
    number: str
    mailed: str
    answer: str
    answered_at: str
    answered_by: str

    @property
    def answer_told(self) -> str:
        """The answer in words."""
        return ANSWERS.get(self.answer, self.answer)


def begin(conn: sqlite3.Connection, title: str, asked: str, words: str, who: str, at: str) -> int:
    """Begin a recall; returns its number. Raises ValueRefused."""
    for key, value, most in (("title", title, 120), ("words", words, 4000)):
        checked.text(f"recall.{key}", value, most)
        if not value.strip():
            raise ValueRefused(f"recall.{key}", value, "some words")
    row = conn.execute(
        "INSERT INTO recall (at, who, title, asked, words) VALUES (:at, :who, :title, :asked,"
        " :words) RETURNING id",
        {"at": at, "who": who, "title": title, "asked": asked, "words": words},
    ).fetchone()
    return int(row["id"])


def add_letter(conn: sqlite3.Connection, recall_id: int, h: Holder) -> int:
    """A letter to one who has a piece; returns its number."""
    row = conn.execute(
        "INSERT INTO recall_letter (recall_id, enquiry_id, piece, number) VALUES (:recall, :id,"
        " :piece, :number) RETURNING id",
        {
            "recall": recall_id,
            "id": h.enquiry_id,
            "piece": f"{h.what}, {h.piece}",
            "number": h.number,
        },
    ).fetchone()
    return int(row["id"])


def mailed(conn: sqlite3.Connection, letter_id: int, to: str) -> None:
    """It was laid into the outbox."""
    conn.execute(
        "UPDATE recall_letter SET mailed = :to WHERE id = :id", {"to": to, "id": letter_id}
    )


def recalls(conn: sqlite3.Connection) -> list[Recall]:
    """All recalls, the latest first."""
    rows = conn.execute(
        "SELECT r.id, r.at, r.who, r.title, r.asked, r.words, count(l.id), sum(l.mailed <> ''),"
        " sum(l.answer <> '') FROM recall r LEFT JOIN recall_letter l ON l.recall_id = r.id GROUP"
        " BY r.id ORDER BY r.id DESC"
    )
    out = []
    for row in rows:
        texts: Any = [0 if x is None else x for x in row]
        out.append(Recall(*texts))
    return out


def letters(conn: sqlite3.Connection, recall_id: int) -> list[Letter]:
    """The letters of a recall, those without an answer first."""
    sql = select("recall_letter", _LETTER, "WHERE recall_id = :id ORDER BY answer <> '', id")
    return [Letter(*row) for row in conn.execute(sql, {"id": recall_id})]


def letter(conn: sqlite3.Connection, letter_id: int) -> Letter | None:
    """One letter."""
    sql = select("recall_letter", _LETTER, "WHERE id = :id")
    row = conn.execute(sql, {"id": letter_id}).fetchone()
    return Letter(*row) if row else None


def open_letters(conn: sqlite3.Connection, enquiry_id: int) -> list[tuple[Letter, str]]:
    """Letters of a boat that wait for an answer, with the recall's title."""
    rows = conn.execute(
        f"SELECT {', '.join('l.' + c for c in _LETTER)}, r.title FROM recall_letter l JOIN recall r"
        " ON r.id = l.recall_id WHERE l.enquiry_id = :id AND l.answer = '' ORDER BY l.id",
        {"id": enquiry_id},
    )
    return [(Letter(*tuple(row)[:-1]), row["title"]) for row in rows]


def answer(conn: sqlite3.Connection, letter_id: int, text: str, who: str, at: str) -> bool:
    """Keep what was answered; whether there is such a letter."""
    checked.text("recall.answer", text, 300)
    if not text.strip():
        raise ValueRefused("recall.answer", text, "one of the answers, or a word")
    done = conn.execute(
        "UPDATE recall_letter SET answer = :text, answered_at = :at, answered_by = :who WHERE id ="
        " :id",
        {"text": text, "at": at, "who": who, "id": letter_id},
    )
    return done.rowcount > 0
