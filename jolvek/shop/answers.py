"""What a customer does with an offer by its link."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable
from datetime import datetime

from jolvek.core.base.messages import msg
from jolvek.store import acceptance, offers
from jolvek.store.db import transaction
from jolvek.store.offers import Event, Sent


def opened(
    conn: sqlite3.Connection,
    token: str,
    now: datetime,
    note: Callable[[Callable[[], object]], object],
) -> Sent | None:
    """The offer behind a good link, in its latest revision; `note` notes that it was opened."""
    return offers.by_token(conn, token, now, note)


def answer(
    conn: sqlite3.Connection,
    sent: Sent,
    token: str,
    read: int,
    event: Event,
    check: Callable[[str], dict[str, str]],
) -> dict[str, str]:
    """Keep what a customer answers, and what a yes moves; returns what is refused, by field, and
    then nothing is kept. `read` is the offer that stood on the page, 0 for that of the link;
    `check` is given how the offer was answered before.
    """
    with transaction(conn) as c:
        refused = check(offers.answered(c, sent.id))
        linked = offers.linked(c, token)
        on_page = read or (linked.id if linked else 0)
        newest = offers.newest(c, sent).id
        if event.kind != "asked" and not on_page == sent.id == newest:
            refused["do"] = msg(
                "The offer was revised meanwhile. This is the revision: read it first."
            )
        if not refused:
            offers.record_event(c, sent.id, event)
            if event.kind == "accepted":
                acceptance.accept(c, sent, event.letter, event.at)
        return refused
