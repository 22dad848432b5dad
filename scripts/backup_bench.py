"""A shop of 20 000 enquiries with photos, backed up and read back: how long it takes, and whether
every row and photo is the same. `make bench-backup`; enquiries as argument.
"""

from __future__ import annotations

import hashlib
import os
import sqlite3
import sys
import tempfile
import time
from contextlib import closing
from dataclasses import replace
from datetime import datetime
from pathlib import Path

from jolvek import demo
from jolvek.store import backups, db, enquiries

PHOTO_BYTES, PHOTO_EVERY = 60_000, 10  # one enquiry in ten has a photo


def fill(folder: Path, count: int) -> None:
    """Enquiries like the demo's, each with a name of its own."""
    known, photos = demo.enquiries(), folder / "photos"
    photos.mkdir(parents=True)
    with closing(db.connect(folder / "jolvek.db")) as conn:
        db.migrate(conn)
        demo.fill(conn)
        with db.transaction(conn) as c:
            for i in range(count):
                e = replace(
                    known[i % len(known)], title=f"Boat {i}", customer=f"Somebody {i % 7000}"
                )
                number = enquiries.add(c, e, f"2026-01-01T00:00:00.{i:06d}")
                if i % PHOTO_EVERY == 0:
                    (photos / f"{number}.jpg").write_bytes(os.urandom(PHOTO_BYTES))
                    enquiries.set_photo(c, number, f"{number}.jpg")


def digest(folder: Path) -> str:
    """One hash over every row of every table, and every photo."""
    out = hashlib.sha256()
    with closing(sqlite3.connect(folder / "jolvek.db")) as c:
        names = "SELECT name FROM sqlite_master WHERE type = 'table' ORDER BY name"
        for (name,) in c.execute(names).fetchall():
            for row in c.execute(f'SELECT * FROM "{name}"'):
                out.update(repr(row).encode())
    for path in sorted((folder / "photos").iterdir()):
        out.update(path.name.encode() + path.read_bytes())
    return out.hexdigest()


def main() -> int:
    """Print the times; 1 where the restored shop is another."""
    count = int(sys.argv[1]) if len(sys.argv) > 1 else 20_000
    with tempfile.TemporaryDirectory() as name:
        data, new = Path(name) / "data", Path(name) / "new"
        times = {}
        for what, work in (
            ("filled", lambda: fill(data, count)),
            ("backed up", lambda: backups.make(data, datetime(2026, 11, 26))),
            ("checked", lambda: backups.check(data)),
            ("restored", lambda: backups.restore(backups.kept(data)[0].path, new)),
        ):
            began = time.perf_counter()
            work()
            times[what] = time.perf_counter() - began
        size = backups.kept(data)[0].size
        database = (data / "jolvek.db").stat().st_size
        same = digest(data) == digest(new)
    result = ", ".join(f"{what} in {seconds:.1f} s" for what, seconds in times.items())
    print(
        f"{count} enquiries, database {database / 1e6:.0f} MB, backup {size / 1e6:.0f} MB: {result}"
    )
    print("row by row and photo by photo the same" if same else "NOT the same")
    return not same


if __name__ == "__main__":
    sys.exit(main())
