"""Offers: the draft, sending it, its link, what the customer answers, how far the job has come."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable
from dataclasses import dataclass
from typing import Any

from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.shop.acting import By
from jolvek.store import enquiries, intake, offers, outbox, owners, stock
from jolvek.store.db import transaction
from jolvek.store.offers import Sent
from jolvek.store.stock import Wanted

TRIES = 5
Draft = dict[str, Any]
LAST_MINUTE = "T23:59:59"


class NotReady(JolvekError):
    """What keeps an offer from being sent."""


def keep_draft(
    conn: sqlite3.Connection, enquiry_id: int, edit: Callable[[Draft], tuple[Draft, str]]
) -> None:
    """Keep the draft that `edit` makes of the one that stands, and the language that the customer
    is written to; an empty language leaves that as it is.
    """
    with transaction(conn) as c:
        draft, language = edit(offers.draft(c, enquiry_id))
        if language:
            owners.set_language(c, enquiry_id, language)
        offers.keep_draft(c, enquiry_id, draft)


@dataclass(frozen=True)
class Written:
    """An offer as it goes out: the page's content, the shop's own data, the paper, the mail (empty
    where none is sent) and whom it goes to.
    """

    content: dict[str, Any]
    shop_data: dict[str, Any]
    paper: bytes
    to: str = ""
    mail: bytes = b""


def send(
    conn: sqlite3.Connection,
    by: By,
    enquiry_id: int,
    after: int,
    valid_to: str,
    write: Callable[[Sent, Sent | None, str], Written],
) -> tuple[Sent, str]:
    """Send an offer; returns it and the token of the customer's link. `after` is the offer that the
    page showed as the last one sent, 0 for none. `write` makes the paper of a number, the offer
    before it and a token, while the database is free; where another was sent meanwhile, it is asked
    again with the next number. Raises NotReady, and nothing is kept.
    """
    for _ in range(TRIES):
        before, year, serial, revision = _next(conn, enquiry_id, after, by)
        sent = Sent(0, enquiry_id, year, serial, revision, by.at, valid_to=valid_to, sent_by=by.who)
        token = offers.new_token()
        written = write(sent, before, token)
        with transaction(conn) as c:
            if _next(c, enquiry_id, after, by)[1:] == (year, serial, revision):
                number = offers.add(c, sent, written.content, written.shop_data, written.paper)
                # Links to earlier revisions stay good and lead to this one.
                offers.add_link(c, number, valid_to + LAST_MINUTE, token)
                if written.to:
                    outbox.post(c, enquiry_id, by.at, written.to, written.mail, number)
                enquiries.set_stage(c, enquiry_id, "offered", by.at)
                intake.looked(c, enquiry_id, by.at, by.who)
                made = offers.get(c, number)
                assert made is not None
                return made, token
    raise NotReady(msg("Others are sending at this moment: send it again."))


def _next(
    conn: sqlite3.Connection, enquiry_id: int, after: int, by: By
) -> tuple[Sent | None, int, int, int]:
    """The offer sent last, and the next number; raises NotReady where the page showed another."""
    before = next(iter(offers.of_enquiry(conn, enquiry_id)), None)
    if after != (before.id if before else 0):
        raise NotReady(msg("It was sent just now: look at what stands above before it is again."))
    return before, *offers.next_number(conn, enquiry_id, int(by.at[:4]))


def new_link(conn: sqlite3.Connection, sent: Sent) -> str:
    """A new link for the customer, the old one shut; returns its token. Raises JolvekError where
    the offer was revised.
    """
    with transaction(conn) as c:
        newest = offers.newest(c, sent)
        if newest.id != sent.id:
            names = {"old": sent.number, "new": newest.number}
            raise JolvekError(msg("Offer %(old)s was revised: make the link on %(new)s.", **names))
        offers.revoke(c, sent.id)
        return offers.make_link(c, sent.id, sent.valid_to + LAST_MINUTE)


def shut_link(conn: sqlite3.Connection, sent: Sent) -> None:
    """The customer's link leads nowhere any more."""
    with transaction(conn) as c:
        offers.revoke(c, sent.id)


def mark_read(conn: sqlite3.Connection, by: By, enquiry_id: int) -> None:
    """Somebody has read what the customer did."""
    with transaction(conn) as c:
        offers.seen(c, enquiry_id, by.who)


def set_stage(conn: sqlite3.Connection, by: By, enquiry_id: int, stage: str) -> None:
    """How far the job has come; its parts are ordered, or leave the stock, with it."""
    with transaction(conn) as c:
        enquiries.set_stage(c, enquiry_id, stage, by.at)
        if stage == "ordered":
            enquiries.parts_ordered(c, enquiry_id, by.at)
        if stage == "delivered":
            stock.take(c, enquiry_id)


def order_parts(
    conn: sqlite3.Connection, by: By, sent: Sent, wanted: tuple[Wanted, ...], do: str
) -> None:
    """The parts of an accepted offer: `reserve` what is there, `release` it, or mark the rest as
    `ordered`.
    """
    with transaction(conn) as c:
        if do == "release":
            stock.release(c, sent.id)
        else:
            stock.reserve(c, sent.id, wanted, by.at)
        if do == "ordered":
            enquiries.parts_ordered(c, sent.enquiry_id, by.at)
