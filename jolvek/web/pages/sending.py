"""Sending an offer: number, paper, mail and record in one transaction, so that it is sent whole or
not at all; what waits in the outbox is handed on afterwards, and again until it is.
"""

from __future__ import annotations

import re
import sqlite3
from collections.abc import Callable
from dataclasses import dataclass
from email.message import EmailMessage
from email.policy import SMTP
from typing import Any

import segno
from flask import render_template
from markupsafe import Markup

from jolvek.core.base.errors import JolvekError
from jolvek.standins.post import Post
from jolvek.store import enquiries, offers
from jolvek.store.db import transaction
from jolvek.store.offers import Sent
from jolvek.web.pages.offer_content import changed
from jolvek.web.view import pdf

ADDRESS = re.compile(r"[^\s@<>,;:\"()\[\]\\]+@[^\s@<>,;:\"()\[\]\\]+")  # to be written to


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


def send(conn: sqlite3.Connection, s: Sending) -> Sent:
    """Send it; returns what was sent. Raises NotReady and NoPdf, and nothing is kept."""
    if s.to and not ADDRESS.fullmatch(s.to):
        raise NotReady(f"mail: read {s.to!r}, allowed is an address as name@house.example")
    with transaction(conn) as c:
        before = offers.of_enquiry(c, s.enquiry_id)
        if s.after != (before[0].id if before else 0):
            raise NotReady("It was sent just now: look at what stands above before it is again.")
        year, serial, revision = offers.next_number(c, s.enquiry_id, int(s.content["date"][:4]))
        valid = s.content["valid_to"]
        sent = Sent(0, s.enquiry_id, year, serial, revision, s.at, valid, s.who)
        then = offers.content(c, before[0].id) if before else None
        changes = changed(then, s.content) if then else []
        told = {**s.content, "number": sent.number, "sent_by": s.who, "changed": changes}
        token = offers.new_token()
        qr = Markup(segno.make(s.way(token)).svg_inline(scale=2, border=1))
        paper = pdf.write(render_template("offer/paper.html", o=told, qr=qr))
        number = offers.add(c, sent, told, s.shop_data, paper)
        for old in before:
            offers.revoke(c, old.id)
        offers.make_link(c, number, f"{valid}T23:59:59", token)
        if s.to:
            mail = letter(told, s.way(token), s.to, paper)
            offers.post(c, number, s.at, s.to, mail)
        enquiries.set_stage(c, s.enquiry_id, "offered", s.at)
    made = offers.get(conn, number)
    assert made is not None
    return made


def letter(told: dict[str, Any], way: str, to: str, paper: bytes) -> bytes:
    """The mail with the paper in it."""
    mail = EmailMessage(policy=SMTP)
    mail["Subject"] = " ".join(f"Offer {told['number']}: {told['title']}".split())[:200]
    mine = told["shop"]["mail"]
    mail["To"], mail["From"] = to, mine if ADDRESS.fullmatch(mine) else "shop@shop.invalid"
    words = [
        told["opening"],
        f"Your offer {told['number']}, valid to {told['dates_told'][1]}:",
        way,
        told["closing"],
        told["shop"]["name"],
    ]
    mail.set_content("\n\n".join(x for x in words if x) + "\n")
    name = f"offer-{told['number'].replace(' ', '-')}.pdf"
    mail.add_attachment(paper, maintype="application", subtype="pdf", filename=name)
    return mail.as_bytes()


def hand_on(conn: sqlite3.Connection, post: Post, at: str) -> int:
    """Hand on what waits in the outbox; returns how many. What cannot be handed on waits."""
    done = 0
    for number, recipient, mail in offers.unposted(conn):
        try:
            post.hand_on(number, recipient, mail)
        except OSError:
            break
        offers.posted(conn, number, at)
        done += 1
    return done
