"""Mail: reminders and recalls laid into the outbox, and handed on."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Sequence
from itertools import groupby

from jolvek.shop.acting import By
from jolvek.standins.post import Post, Refused
from jolvek.store import due_list, outbox, recalls
from jolvek.store.db import transaction
from jolvek.store.due_list import Line
from jolvek.store.recalls import Asked, Holder


def remind(
    conn: sqlite3.Connection,
    by: By,
    lines: Sequence[Line],
    write: Callable[[Sequence[Line]], bytes],
) -> tuple[int, int]:
    """One mail a boat about steps nobody was written to about yet; `write` gives an empty one for
    an owner without an address. Returns (mails, boats whose owner has none).
    """
    mails, without = 0, 0
    with transaction(conn) as c:
        ordered = sorted(lines, key=lambda x: x.enquiry_id)
        for number, group in groupby(ordered, key=lambda x: x.enquiry_id):
            found = list(group)
            if not write(found):
                without += 1
                continue
            new = [x for x in found if due_list.remind(c, x, by.at, by.who)]
            if new:
                outbox.post(c, number, by.at, new[0].mail, write(new))
                mails += 1
    return mails, without


def recall(
    conn: sqlite3.Connection,
    by: By,
    title: str,
    words: str,
    asked: Asked,
    write: Callable[[int, Holder], bytes],
) -> tuple[int, int, int]:
    """A recall to all who have a piece: one letter each, mailed where there is an address; `write`
    gives an empty mail where there is none. Returns (number, letters, mails). Raises JolvekError.
    """
    mails = 0
    with transaction(conn) as c:
        found = recalls.holders(c, asked)
        number = recalls.begin(c, title, asked.text, words, by.who, by.at)
        for h in found:
            letter = recalls.add_letter(c, number, h)
            mail = write(letter, h)
            if mail:
                outbox.post(c, h.enquiry_id, by.at, h.mail, mail)
                recalls.mailed(c, letter, h.mail)
                mails += 1
    return number, len(found), mails


def answer_recall(conn: sqlite3.Connection, by: By, letter: int, answer: str) -> None:
    """What came back of a recall's letter. Raises JolvekError."""
    with transaction(conn) as c:
        recalls.answer(c, letter, answer, by.who, by.at)


def hand_on(conn: sqlite3.Connection, post: Post, at: str) -> int:
    """Hand on what waits in the outbox; returns how many. What cannot be handed on waits."""
    done = 0
    for number, recipient, mail in outbox.unposted(conn):
        try:
            post.hand_on(number, recipient, mail)
        except Refused:
            continue
        except OSError:
            break
        outbox.posted(conn, number, at)
        done += 1
    return done
