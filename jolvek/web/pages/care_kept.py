"""Keeping the list of what is due up to date: boats that changed are worked out anew."""

from __future__ import annotations

import sqlite3
from datetime import date

from jolvek.core.care.steps import Profile, profile_of
from jolvek.store import due_list, enquiries, setups
from jolvek.store.db import transaction
from jolvek.store.shop import Shop
from jolvek.web.pages.care_page import season_of
from jolvek.web.view.worked import work_out

AT_ONCE = 100  # boats worked out before a page is answered; the rest follow


def profile(conn: sqlite3.Connection, enquiry_id: int) -> Profile | None:
    """What decides a boat's care: of the setup in hand; None where she has none."""
    stored = enquiries.get(conn, enquiry_id)
    pinned = setups.of_enquiry(conn, enquiry_id)
    chosen = next((p for p in pinned if p.chosen), pinned[0] if pinned else None)
    if stored is None or chosen is None:
        return None
    return profile_of(work_out(stored.need, chosen).fitted)


def refresh(conn: sqlite3.Connection, shop: Shop, today: date, most: int = AT_ONCE) -> int:
    """Work out what changed, up to so many boats; returns how many are left."""
    if not due_list.left(conn, today):
        return 0
    with transaction(conn) as c:
        return due_list.refresh(c, season_of(shop), today, lambda n: profile(c, n), most)
