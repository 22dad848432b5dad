"""Keeping the list of what is due up to date: boats that changed are worked out anew."""

from __future__ import annotations

import sqlite3
from datetime import date

from jolvek import shop
from jolvek.core.base.errors import JolvekError
from jolvek.core.care.steps import Profile, profile_of
from jolvek.store.shop import Shop
from jolvek.web.desk.care.fleet_view import hand_of
from jolvek.web.stations.aftercare.view import season_of

AT_ONCE = 100  # boats worked out before a page is answered; the rest follow


def profile(conn: sqlite3.Connection, enquiry_id: int) -> Profile | None:
    """What decides a boat's care: of the setup in hand; None where none can be read."""
    try:
        hand = hand_of(conn, enquiry_id)
    except JolvekError:
        return None
    return profile_of(hand[1].fitted) if hand else None


def refresh(conn: sqlite3.Connection, says: Shop, today: date, most: int = AT_ONCE) -> int:
    """Work out what changed, up to so many boats; returns how many are left."""
    season = season_of(says)
    return shop.care.refresh_due(conn, season, today, lambda n: profile(conn, n), most)
