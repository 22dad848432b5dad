"""Sending an offer: number, paper, mail and record in one transaction, so that it is sent whole or
not at all; what waits in the outbox is handed on afterwards, and again until it is.
"""

from __future__ import annotations

import re
import sqlite3
from dataclasses import dataclass
from datetime import UTC, datetime
from email.message import EmailMessage
from email.policy import SMTP
from email.utils import format_datetime, make_msgid
from typing import Any

import segno
from flask import render_template, url_for
from markupsafe import Markup

from jolvek.shop.offers import NotReady, Written
from jolvek.store import offers
from jolvek.store.offers import Sent
from jolvek.store.shop import MAIL_SUBJECT, MAIL_WORDS, filled
from jolvek.web.kit import language, pdf
from jolvek.web.kit.language import tr
from jolvek.web.stations.offer import lines
from jolvek.web.stations.offer.revision import changed

ADDRESS = re.compile(r"[^\s@<>,;:\"()\[\]\\]+@[^\s@<>,;:\"()\[\]\\]+")  # to be written to

NOBODY = "shop@shop.invalid"  # where the shop has typed no address of its own


def stamp(mail: EmailMessage) -> None:
    """Date and a number of its own, which no other mail has had (RFC 5322, 3.6.4)."""
    mail["Date"] = format_datetime(datetime.now(UTC))
    house = str(mail["From"]).rpartition("@")[2].rstrip(">")
    mail["Message-ID"] = make_msgid(domain=house)


@dataclass(frozen=True)
class Sending:
    """What is sent: content and the shop's own data, to whom by mail (empty for nobody), by which
    subject and words with names to be filled, and the logo as data, for the paper.
    """

    content: dict[str, Any]
    shop_data: dict[str, Any]
    to: str
    words: tuple[str, str]
    logo: str = ""


def written(
    conn: sqlite3.Connection, s: Sending, sent: Sent, before: Sent | None, way: str
) -> Written:
    """Paper and mail of an offer, in its customer's language; `way` is the customer's page. Raises
    NotReady for an address that is none, and NoPdf.
    """
    if s.to and not ADDRESS.fullmatch(s.to):
        raise NotReady(f"mail: read {s.to!r}, allowed is an address as name@house.example")
    qr = Markup(segno.make(way).svg_inline(scale=2, border=1))
    with language.speaking(s.content["language"]):
        changes = changed(offers.content(conn, before.id), s.content) if before else []
        more = {"number": sent.number, "sent_by": sent.sent_by, "changed": changes}
        values = {**s.content, **more}
        paper = pdf.write(paper_page(values, qr, s.logo))
        mail = letter(values, way, s.to, paper, s.words) if s.to else b""
    return Written(values, s.shop_data, paper, s.to, mail)


def paper_page(told: dict[str, Any], qr: str = "", logo: str = "") -> str:
    """The paper of a frozen offer as a page that holds all of itself."""
    seen = lines.seen(told)
    return render_template("stations/offer/paper.html", o=told, seen=seen, qr=qr, logo=logo)


def customer_way(token: str) -> str:
    """The address of the customer's page, as it stands on paper and in a mail."""
    return url_for("customer.page", token=token, _external=True)


def letter(told: dict[str, Any], way: str, to: str, paper: bytes, words: tuple[str, str]) -> bytes:
    """The mail with the paper in it, by the shop's own subject and words; the usual ones are in the
    language of the request.
    """
    mail, shop = EmailMessage(policy=SMTP), told["shop"]
    names = {
        "number": told["number"],
        "title": told["title"],
        "customer": told["customer"]["customer"],
        "greeting": tr("Dear %(customer)s,", customer=told["customer"]["customer"]),
        "valid_to": told["dates_told"][1],
        "link": way,
        "shop": shop["name"],
        "opening": told["opening"],
        "closing": told["closing"],
    }
    own = (tr(x) if x in (MAIL_SUBJECT, MAIL_WORDS) else x for x in words)
    subject, body = (filled(x, names) for x in own)
    mail["Subject"] = " ".join(subject.split())[:200]
    mine = shop["mail"]
    mail["To"], mail["From"] = to, mine if ADDRESS.fullmatch(mine) else NOBODY
    stamp(mail)
    mail.set_content(body + "\n")
    name = f"offer-{told['number'].replace(' ', '-')}.pdf"
    mail.add_attachment(paper, maintype="application", subtype="pdf", filename=name)
    return mail.as_bytes()
