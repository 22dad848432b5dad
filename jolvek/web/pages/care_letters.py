"""Letters of Aftercare: reminders of what is due, and recalls; as mails and as paper."""

from __future__ import annotations

import sqlite3
from collections.abc import Sequence
from email.message import EmailMessage
from email.policy import SMTP
from itertools import groupby
from typing import Any

from flask import url_for

from jolvek.store import due_list, enquiries, outbox, owners, recalls
from jolvek.store.due_list import Line
from jolvek.store.recalls import Holder
from jolvek.store.shop import Shop
from jolvek.web.pages.sending import ADDRESS, NOBODY, stamp
from jolvek.web.view.dates import day
from jolvek.web.view.display import language_of_shop
from jolvek.web.view.language import speaking, tr


def mail(shop: Shop, to: str, subject: str, body: str) -> bytes:
    """A plain mail of the shop's."""
    m = EmailMessage(policy=SMTP)
    m["Subject"] = " ".join(subject.split())[:200]
    m["To"] = to
    m["From"] = shop.mail if ADDRESS.fullmatch(shop.mail) else NOBODY
    stamp(m)
    m.set_content(body + "\n")
    return bytes(m.as_bytes())


def reminder(shop: Shop, lines: Sequence[Line], way: str) -> tuple[str, str]:
    """Subject and words about what is due on one boat, in the language of the request."""
    first = lines[0]
    rows = []
    for x in lines:
        rows.append(f"- {tr(x.text)} " + tr("Due %(day)s.", day=day(x.on_day)))
        if x.hazard:
            rows.append(f"  {tr('Caution:')} {tr(x.hazard)}")
    parts = (
        tr("Dear %(customer)s,", customer=first.customer),
        tr("On your boat “%(boat)s” is due:", boat=first.title),
        "\n".join(rows),
        tr("The boat’s page, with care and log: %(link)s", link=way),
        tr("Call us for a day: %(phone)s", phone=shop.phone),
        tr("The maker’s manuals and local rules come first."),
        shop.name,
    )
    return tr("Care of %(boat)s", boat=first.title), "\n\n".join(parts)


def remind(
    conn: sqlite3.Connection, shop: Shop, lines: Sequence[Line], ways: Any, who: str, at: str
) -> tuple[int, int]:
    """Lay one mail a boat into the outbox for steps nobody was written to about, in a transaction;
    returns (mails, boats whose owner has no mail address). `ways` makes a boat's own address.
    """
    mails, without = 0, 0
    ordered = sorted(lines, key=lambda x: x.enquiry_id)
    for number, group in groupby(ordered, key=lambda x: x.enquiry_id):
        found = list(group)
        if not ADDRESS.fullmatch(found[0].mail):
            without += 1
            continue
        new = [x for x in found if due_list.remind(conn, x, at, who)]
        if new:
            with speaking(owners.language_of(conn, number) or language_of_shop()):
                subject, body = reminder(shop, new, ways(number))
            outbox.post(conn, number, at, new[0].mail, mail(shop, new[0].mail, subject, body))
            mails += 1
    return mails, without


def recall_body(shop: Shop, title: str, words: str, h: Holder, way: str) -> tuple[str, str]:
    """Subject and words of a recall's letter to one who has a piece."""
    piece = f"{h.what}, {h.piece}"
    parts = (
        tr("Dear %(customer)s,", customer=h.customer),
        tr(
            "On your boat “%(boat)s” is this part: %(piece)s, number %(number)s.",
            boat=h.title,
            piece=piece,
            number=h.number,
        ),
        words,
        f"{tr('Tell us what you did:')}\n{way}",
        f"{shop.name}, {shop.phone}",
    )
    return title, "\n\n".join(parts)


def write_all(
    conn: sqlite3.Connection,
    shop: Shop,
    recall: tuple[int, str, str],
    found: Sequence[tuple[int, Holder]],
    ways: Any,
    at: str,
) -> int:
    """Mails of a recall (number, title, words) to all who have an address, each letter (its number,
    who has it) once; returns how many. In a transaction.
    """
    mails = 0
    for letter, h in found:
        if not ADDRESS.fullmatch(h.mail):
            continue
        with speaking(owners.language_of(conn, h.enquiry_id) or language_of_shop()):
            subject, body = recall_body(shop, recall[1], recall[2], h, ways(letter))
        outbox.post(conn, h.enquiry_id, at, h.mail, mail(shop, h.mail, subject, body))
        recalls.mailed(conn, letter, h.mail)
        mails += 1
    return mails


def holder_of(conn: sqlite3.Connection, x: recalls.Letter) -> Holder:
    """Who a letter goes to, as they are reached now."""
    stored = enquiries.get(conn, x.enquiry_id)
    e = stored.enquiry if stored else None
    reached = (e.customer, e.phone, e.mail) if e else ("", "", "")
    address = e.address if e else ""
    what, _, piece = x.piece.partition(", ")
    title = stored.title if stored else ""
    return Holder(x.enquiry_id, title, *reached, what, x.number, "", piece, address)


def recall_way(token: str) -> str:
    """The address at which a letter is answered."""
    return url_for("boat_page.recalled", token=token, _external=True)
