"""Sending an offer: number, paper, mail and record in one transaction, so that it is sent whole or
not at all; what waits in the outbox is handed on afterwards, and again until it is.
"""

from __future__ import annotations

import re
import sqlite3
from collections.abc import Callable
from dataclasses import dataclass
from datetime import UTC, datetime
from email.message import EmailMessage
from email.policy import SMTP
from email.utils import format_datetime, make_msgid
from typing import Any

import segno
from flask import render_template, url_for
from markupsafe import Markup

from jolvek.core.base.errors import JolvekError
from jolvek.standins.post import Post, Refused
from jolvek.store import enquiries, intake, offers, outbox
from jolvek.store.db import transaction
from jolvek.store.offers import Sent
from jolvek.store.shop import MAIL_SUBJECT, MAIL_WORDS, filled
from jolvek.web.pages.offer_revision import changed
from jolvek.web.view import language, pdf
from jolvek.web.view.language import tr

ADDRESS = re.compile(r"[^\s@<>,;:\"()\[\]\\]+@[^\s@<>,;:\"()\[\]\\]+")  # to be written to

TRIES = 5
NOBODY = "shop@shop.invalid"  # where the shop has typed no address of its own


def stamp(mail: EmailMessage) -> None:
    """Date and a number of its own, which no other mail has had (RFC 5322, 3.6.4)."""
    mail["Date"] = format_datetime(datetime.now(UTC))
    house = str(mail["From"]).rpartition("@")[2].rstrip(">")
    mail["Message-ID"] = make_msgid(domain=house)


class NotReady(JolvekError):
    """What keeps an offer from being sent."""


@dataclass(frozen=True)
class Sending:
    """Who sends what of which enquiry, when, and until when the link is good."""

    enquiry_id: int
    content: dict[str, Any]
    shop_data: dict[str, Any]
    at: str
    who: str
    to: str
    after: int  # the last offer that the page showed as sent; 0 for none
    way: Callable[[str], str]  # a token as the address of the customer's page
    words: tuple[str, str]  # subject and words of the mail, with names to be filled
    logo: str = ""  # as data, for the paper


def send(conn: sqlite3.Connection, s: Sending) -> tuple[Sent, str]:
    """Send it; returns what was sent and the customer's link. The paper is written before the
    database is held; where another was sent meanwhile, it is written again with the next number.
    Raises NotReady and NoPdf, and nothing is kept.
    """
    if s.to and not ADDRESS.fullmatch(s.to):
        raise NotReady(f"mail: read {s.to!r}, allowed is an address as name@house.example")
    for _ in range(TRIES):
        ready = _written(conn, s)
        with transaction(conn) as c:
            if _next(c, s) == (ready.sent.year, ready.sent.serial, ready.sent.revision):
                number = _kept(c, s, ready)
                break
    else:
        raise NotReady(tr("Others are sending at this moment: send it again."))
    made = offers.get(conn, number)
    assert made is not None
    return made, s.way(ready.token)


def customer_way(token: str) -> str:
    """The address of the customer's page, as it stands on paper and in a mail."""
    return url_for("customer.page", token=token, _external=True)


@dataclass(frozen=True)
class _Ready:
    """All that is kept of what is sent."""

    sent: Sent
    content: dict[str, Any]
    token: str
    paper: bytes


def _next(conn: sqlite3.Connection, s: Sending) -> tuple[int, int, int]:
    """The number; raises NotReady where the page did not show what was sent last."""
    before = offers.of_enquiry(conn, s.enquiry_id)
    if s.after != (before[0].id if before else 0):
        raise NotReady(tr("It was sent just now: look at what stands above before it is again."))
    return offers.next_number(conn, s.enquiry_id, int(s.content["date"][:4]))


def _written(conn: sqlite3.Connection, s: Sending) -> _Ready:
    year, serial, revision = _next(conn, s)
    before = offers.of_enquiry(conn, s.enquiry_id)
    valid = s.content["valid_to"]
    sent = Sent(0, s.enquiry_id, year, serial, revision, s.at, valid, s.who)
    with language.speaking(s.content["language"]):
        changes = changed(offers.content(conn, before[0].id), s.content) if before else []
    values = {**s.content, "number": sent.number, "sent_by": s.who, "changed": changes}
    token = offers.new_token()
    qr = Markup(segno.make(s.way(token)).svg_inline(scale=2, border=1))
    with language.speaking(s.content["language"]):
        paper = pdf.write(render_template("offer/paper.html", o=values, qr=qr, logo=s.logo))
    return _Ready(sent, values, token, paper)


def _kept(c: sqlite3.Connection, s: Sending, ready: _Ready) -> int:
    number = offers.add(c, ready.sent, ready.content, s.shop_data, ready.paper)
    # Links to earlier revisions stay good and lead to this one.
    offers.add_link(c, number, f"{ready.sent.valid_to}T23:59:59", ready.token)
    if s.to:
        with language.speaking(s.content["language"]):
            mail = letter(ready.content, s.way(ready.token), s.to, ready.paper, s.words)
        outbox.post(c, s.enquiry_id, s.at, s.to, mail, number)
    enquiries.set_stage(c, s.enquiry_id, "offered", s.at)
    intake.looked(c, s.enquiry_id, s.at, s.who)
    return number


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
