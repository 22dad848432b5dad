"""A shop with 20 000 boats in service and 400 000 trips: how long the list of what is due, finding
a boat and finding who has a product take. `make bench-care`; boats as argument.
"""

from __future__ import annotations

import random
import sys
import tempfile
import time
from collections.abc import Callable
from contextlib import closing
from dataclasses import replace
from datetime import date, timedelta
from pathlib import Path
from sqlite3 import Connection

from jolvek import demo
from jolvek.core.care.due import Season
from jolvek.core.care.steps import Profile
from jolvek.demo import at_work
from jolvek.store import care, db, due_list, enquiries, finding, recalls
from jolvek.store.recalls import Asked
from jolvek.web import create_app
from jolvek.web.demo_shop import shop

TRIPS, TODAY = 20, date.today()
SEASON, PROFILE = Season(4, 10), Profile(True, False, False, ("ovrek-o30", "murrane-48"))
PARTS = (("motor", 1), ("pack 1", 2), ("charger", 3))
RECALLED = 40  # products of each kind, so that one is on some hundred boats
_PIN = (
    "INSERT INTO setup (enquiry_id, letter, series, parallel, shaft_m, chosen) SELECT :id, letter,"
    " series, parallel, shaft_m, 1 FROM setup WHERE enquiry_id = :of"
)
_ITEMS = (
    "INSERT INTO setup_item (setup_id, kind, product_id, title, quantity, price, data) SELECT"
    " (SELECT id FROM setup WHERE enquiry_id = :id), i.kind, i.product_id, i.title, i.quantity,"
    " i.price, i.data FROM setup_item i JOIN setup s ON s.id = i.setup_id WHERE s.enquiry_id = :of"
)


def fill(conn: Connection, count: int) -> None:
    """Boats with a setup, serial numbers, trips and care done."""
    rng = random.Random(11)
    known = demo.enquiries()
    first = care.in_service(conn, 1)[0][0]
    for i in range(count):
        e = replace(known[i % len(known)], title=f"Boat {i}", customer=f"Somebody {i % 7000}")
        number = enquiries.add(conn, e, f"2026-01-01T00:00:00.{i:06d}")
        conn.execute(_PIN, {"id": number, "of": first})
        conn.execute(_ITEMS, {"id": number, "of": first})
        rows = [
            (number, (TODAY - timedelta(days=rng.randrange(700))).isoformat(), 2.0, 900.0, 0.9, 0.5)
            for _ in range(TRIPS)
        ]
        conn.executemany(
            "INSERT INTO trip (enquiry_id, on_day, hours, energy_wh, charge_from, charge_to, who,"
            " typed_at) VALUES (?, ?, ?, ?, ?, ?, 'x', '2026')",
            rows,
        )
        conn.executemany(
            "INSERT INTO serial (enquiry_id, what, title, product_id, number, who, at, batch)"
            " VALUES (?, ?, ?, ?, ?, 'x', '2026', ?)",
            [
                (number, w, "Part", f"{w}-{i % RECALLED}", f"S{k}-{i}", f"B{i // 500}")
                for w, k in PARTS
            ],
        )
        care.act(conn, number, "start", TODAY - timedelta(days=rng.randrange(300)), "x", "", "2026")
        enquiries.set_stage(conn, number, "delivered", "2026")


def clock(what: str, work: Callable[[], object], wanted_ms: int, runs: int = 5) -> None:
    """Print the slowest of some runs."""
    took = []
    for _ in range(runs):
        began = time.perf_counter()
        work()
        took.append(1000 * (time.perf_counter() - began))
    print(f"  {what}: {max(took):.0f} ms at worst of {runs} (wanted {wanted_ms})")


def main() -> int:
    """Print the times."""
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 20_000
    with tempfile.TemporaryDirectory() as name:
        settings = shop(Path(name), more=at_work.add)
        with closing(db.connect(settings.database)) as conn:
            began = time.perf_counter()
            with db.transaction(conn) as c:
                fill(c, count)
            made = time.perf_counter()
            with db.transaction(conn) as c:
                due_list.refresh(c, SEASON, TODAY, lambda n: PROFILE, 10**9)
            worked = time.perf_counter() - made
            size = settings.database.stat().st_size / 1e6
            print(
                f"{count} boats, {TRIPS * count} trips, {size:.0f} MB, {made - began:.0f} s to fill"
            )
            print(f"  all worked out anew in {worked:.1f} s, {1e3 * worked / count:.2f} ms a boat")
            month = TODAY + timedelta(days=31)
            clock("what is due this month", lambda: due_list.lines(conn, month), 150)
            clock("how much is due", lambda: due_list.count(conn, month), 150)
            clock("whether any changed", lambda: due_list.left(conn, TODAY), 150)
            clock("a boat by its name", lambda: finding.found(conn, f"boat {count - 7}"), 100)
            clock("who has a product", lambda: recalls.holders(conn, Asked("motor-7")), 300)
            clock("who has a batch", lambda: recalls.holders(conn, Asked(batch="B3")), 300)
            asked = Asked(first="S1-900", last="S1-15000")
            clock("who has a range of numbers", lambda: recalls.holders(conn, asked), 300)
        app = create_app(settings)
        client = app.test_client()
        client.get("/")
        for path, wanted in (
            ("/care", 150),
            (f"/find?q=boat+{count - 7}", 100),
            ("/care/recalls?product=motor-7", 300),
        ):
            clock(f"page {path}", lambda path=path: client.get(path).data, wanted)
    return 0


if __name__ == "__main__":
    sys.exit(main())
