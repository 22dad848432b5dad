"""The request's database connection, the application's settings, and the shop's own."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable
from typing import Any

from flask import current_app, g

from jolvek.store import db
from jolvek.store import shop as store
from jolvek.store.shop import Shop
from jolvek.web.settings import Settings


def settings() -> Settings:
    """The application's settings."""
    found: Settings = current_app.config["SETTINGS"]
    return found


def conn() -> sqlite3.Connection:
    """The request's database connection."""
    if "conn" not in g:
        g.conn, g.cannot_write = db.connect_to_read(settings().database)
    opened: sqlite3.Connection = g.conn
    return opened


def optional(write: Callable[[], Any]) -> Any:
    """Write what a page can do without, and give what comes of it; where nothing can be written,
    the page says so and opens all the same.
    """
    try:
        return write()
    except sqlite3.OperationalError as error:
        if conn().in_transaction:
            conn().execute("ROLLBACK")
        g.cannot_write = g.get("cannot_write") or str(error)
        return None


def close(_error: BaseException | None) -> None:
    """Close the request's connection."""
    opened = g.pop("conn", None)
    if opened is not None:
        opened.close()


def usual_shop() -> Shop:
    """The shop before anybody set anything on its page: as the environment says."""
    s = settings()
    return Shop(name=s.dealer, currency=s.currency, time_zone=s.time_zone, intake=s.demo)


def shop() -> Shop:
    """What the shop says of itself, read once a request."""
    if "shop" not in g:
        usual = usual_shop()
        try:
            g.shop = store.load(conn(), vars(usual))
        except sqlite3.Error:  # the page that tells of a fault asks nothing of the database
            return usual
    found: Shop = g.shop
    return found
