"""What the shop says of itself."""

from __future__ import annotations

import sqlite3
from collections.abc import Callable, Mapping
from typing import Any, TypeVar

from jolvek.store import shop
from jolvek.store.db import transaction
from jolvek.store.shop import Shop

R = TypeVar("R")


def change(
    conn: sqlite3.Connection,
    usual: Mapping[str, Any],
    edit: Callable[[Shop], tuple[Shop, R]],
) -> tuple[list[str], R]:
    """Keep what `edit` makes of the settings that stand (`usual` where nothing was set); returns
    the names of those that changed, and what else `edit` gives.
    """
    with transaction(conn) as c:
        before = shop.load(c, usual)
        after, result = edit(before)
        return shop.save(c, after, before), result
