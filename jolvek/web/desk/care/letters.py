"""Letters of Aftercare: reminders of what is due, and recalls; as mails and as paper."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Sequence
from email.message import EmailMessage
from email.policy import SMTP

from flask import url_for

from jolvek.core.fit.handover import piece_name
from jolvek.store import enquiries, owners, recalls
from jolvek.store.due_list import Line
from jolvek.store.recalls import Holder
from jolvek.store.shop import Shop
from jolvek.web.kit.dates import day
from jolvek.web.kit.display import language_of_shop
from jolvek.web.kit.language import shown, speaking, tr
from jolvek.web.stations.offer.sending import ADDRESS, NOBODY, stamp


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


def reminder_mail(
    conn: sqlite3.Connection, shop: Shop, found: Sequence[Line], way_of: Callable[[int], str]
) -> bytes:
    """The mail about what is due on one boat, in the language of her owner; empty where there is no
    address to write to. `way_of` makes a boat's own address.
    """
    to, number = found[0].mail, found[0].enquiry_id
    if not ADDRESS.fullmatch(to):
        return b""
    with speaking(owners.language_of(conn, number) or language_of_shop()):
        return mail(shop, to, *reminder(shop, found, way_of(number)))


def recall_body(shop: Shop, title: str, words: str, h: Holder, way: str) -> tuple[str, str]:
    """Subject and words of a recall's letter to one who has a piece."""
    piece = f"{shown(piece_name(h.what))}, {h.piece}"
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


def recall_mail(
    conn: sqlite3.Connection, shop: Shop, title: str, words: str, h: Holder, way: str
) -> bytes:
    """The mail of a recall to one who has a piece; empty where there is no address."""
    if not ADDRESS.fullmatch(h.mail):
        return b""
    with speaking(owners.language_of(conn, h.enquiry_id) or language_of_shop()):
        return mail(shop, h.mail, *recall_body(shop, title, words, h, way))


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
