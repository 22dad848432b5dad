"""Processes killed in the middle of their work, over and over: saves, imports, migrations, backups,
restores. What was acknowledged is there, what was not is whole or absent. `make kill`; rounds as
argument.
"""

from __future__ import annotations

import gzip
import html
import random
import re
import shutil
import sqlite3
import subprocess
import sys
import tempfile
import threading
import time
from collections import Counter
from contextlib import closing, suppress
from datetime import datetime
from http.client import HTTPException
from pathlib import Path

from jolvek import demo
from jolvek.core.predict.measured import SOFT
from jolvek.demo import at_work
from jolvek.standins.instrument import Hidden, Server
from jolvek.store import backups, db
from scripts.load import Person
from scripts.shops import start, token

OLD = sorted((Path(__file__).parents[1] / "tests/data/old_databases").glob("*.db.gz"))
HEAD = "import sys, pathlib\nfrom jolvek.store import backups, db, shelf\n"
IMPORTS = (
    HEAD
    + """
from dataclasses import replace
from jolvek import demo
conn = db.connect(sys.argv[1] + "/jolvek.db")
panel = demo.shelf().panels[0]
for n in range(1000):
    items = [("panels", replace(panel, id=f"kill-{n}-{i}")) for i in range(400)]
    with db.transaction(conn) as c:
        shelf.change(c, items, f"kill {n}", "2026")
    print(n, flush=True)
"""
)
MIGRATES = HEAD + "print(0, flush=True)\ndb.ready(sys.argv[1] + '/jolvek.db')\n"
RESTORES = (
    HEAD
    + "print(0, flush=True)\n"
    + "backups.restore(pathlib.Path(sys.argv[2]), pathlib.Path(sys.argv[1]))\n"
)
BACKS_UP = (
    HEAD
    + """
from datetime import datetime, timedelta
for n in range(1000):
    backups.make(pathlib.Path(sys.argv[1]), datetime(2026, 1, 1) + timedelta(seconds=n))
    print(n, flush=True)
"""
)


def killed(script: str, folder: Path, after_s: float, *more: str) -> int:
    """Run a script, kill it so long after it began to work; how much it acknowledged."""
    command = [sys.executable, "-c", script, str(folder), *more]
    process = subprocess.Popen(command, stdout=subprocess.PIPE, text=True, stderr=subprocess.PIPE)
    assert process.stdout is not None
    first = process.stdout.readline()
    time.sleep(after_s)
    process.kill()
    rest = process.communicate()[0]
    return len((first + rest).split())


def whole(folder: Path) -> list[str]:
    """What is wrong of a data folder."""
    with closing(db.connect(folder / "jolvek.db")):
        pass  # what the log holds is read back
    return list(backups.check(folder).problems)


def imports(folder: Path, chance: random.Random) -> list[str]:
    """Price lists: every one is in whole, or not at all, and the acknowledged ones are."""
    result = killed(IMPORTS, folder, chance.uniform(0.0, 0.4))
    with closing(sqlite3.connect(folder / "jolvek.db")) as c:
        rows = c.execute("SELECT count(*) FROM panel WHERE id LIKE 'kill-%'").fetchone()[0]
        lists = c.execute("SELECT count(*) FROM shelf_batch WHERE what LIKE 'kill %'").fetchone()[0]
        for table in ("panel", "shelf_batch", "shelf_change"):
            key = "product_id" if table == "shelf_change" else "id"
            like = "what LIKE 'kill %'" if table == "shelf_batch" else f"{key} LIKE 'kill-%'"
            c.execute(f"DELETE FROM {table} WHERE {like}")
        c.commit()
    wrong = [] if rows == 400 * lists else [f"{rows} products of {lists} lists"]
    return wrong + ([] if lists >= result else [f"{result} told, {lists} there"])


def migrations(folder: Path, chance: random.Random) -> list[str]:
    """An old database: it opens afterwards, with all it held."""
    for part in folder.glob("jolvek.db*"):
        part.unlink()
    (folder / "jolvek.db").write_bytes(gzip.decompress(chance.choice(OLD).read_bytes()))
    with closing(sqlite3.connect(folder / "jolvek.db")) as c:
        before = c.execute("SELECT count(*), group_concat(title) FROM enquiry").fetchone()
    killed(MIGRATES, folder, chance.uniform(0.0, 0.12))
    db.ready(folder / "jolvek.db")
    with closing(sqlite3.connect(folder / "jolvek.db")) as c:
        after = c.execute("SELECT count(*), group_concat(title) FROM enquiry").fetchone()
    return [] if before == after else ["an enquiry is gone"]


def restores(folder: Path, chance: random.Random) -> list[str]:
    """A backup read back: the folder holds a whole shop, or none and can be tried again."""
    with closing(db.connect(folder / "jolvek.db")):
        pass
    path, new = backups.make(folder, datetime.now()), folder / "restored"
    killed(RESTORES, new, chance.uniform(0.0, 0.15), str(path))
    wrong = whole(new) if (new / "jolvek.db").exists() else []
    if not wrong and not (new / "jolvek.db").exists():
        wrong = list(backups.restore(path, new).problems)
    shutil.rmtree(new, ignore_errors=True)
    for left in folder.glob("jolvek-restore-*"):
        shutil.rmtree(left)
    path.unlink()
    return wrong


def backing_up(folder: Path, chance: random.Random) -> list[str]:
    """Every backup that stands in the folder can be read back."""
    result = killed(BACKS_UP, folder, chance.uniform(0.0, 0.3))
    kept = backups.kept(folder)
    wrong = [p for b in kept for p in backups.restore(b.path, folder / "x", dry=True).problems]
    for left in backups.folder_of(folder).iterdir():
        shutil.rmtree(left) if left.is_dir() else left.unlink()
    return wrong + (
        [] if len(kept) >= min(result, backups.KEPT) else [f"{result} told, {len(kept)}"]
    )


def saves(folder: Path, chance: random.Random) -> list[str]:
    """People at work on the server: each acknowledged copy of an enquiry is there."""
    count = "SELECT count(*) FROM enquiry"
    with closing(sqlite3.connect(folder / "jolvek.db")) as c:
        before = c.execute(count).fetchone()[0]
    process, root = start(folder, 8792)
    rows: list[int] = []
    threads = [threading.Thread(target=copies, args=(root, i, rows)) for i in range(4)]
    for t in threads:
        t.start()
    time.sleep(chance.uniform(0.3, 1.2))
    process.kill()
    process.wait()
    for t in threads:
        t.join()
    with closing(sqlite3.connect(folder / "jolvek.db")) as c:
        there = c.execute(count).fetchone()[0] - before
    return [] if there >= len(rows) else [f"{len(rows)} told, {there} there"]


def copies(root: str, seed: int, told: list[int]) -> None:
    """Copy an enquiry until nobody answers."""
    with suppress(OSError, ValueError, HTTPException):
        p = Person(root, seed)
        page = p.ask("enquiry/2/own")
        while True:
            p.ask("enquiry/2/copy", {"csrf_token": token(page)})
            told.append(seed)


def sends(folder: Path, chance: random.Random) -> list[str]:
    """Offers sent by a server that dies: each is there whole (paper, link, mail, stage) or not at
    all, and no number twice or left out.
    """
    with closing(sqlite3.connect(folder / "jolvek.db")) as c:
        c.execute("UPDATE enquiry SET mail = 'runa@vik.example'")
        chosen = [r[0] for r in c.execute("SELECT enquiry_id FROM setup WHERE chosen")]
        c.commit()
    process, root = start(folder, 8793)
    texts: list[str] = []
    thread = threading.Thread(target=offers_of, args=(root, chosen, texts))
    thread.start()
    time.sleep(chance.uniform(1.0, 7.0))
    process.kill()
    process.wait()
    thread.join()
    with closing(sqlite3.connect(folder / "jolvek.db")) as c:
        rows = c.execute(
            "SELECT o.enquiry_id, o.serial, o.revision, substr(o.pdf, 1, 5), e.stage, (SELECT"
            " count(*) FROM offer_link k WHERE k.offer_id = o.id), (SELECT count(*) FROM outbox b"
            " WHERE b.offer_id = o.id) FROM offer o JOIN enquiry e ON e.id = o.enquiry_id"
        ).fetchall()
    wrong = [f"offer {r}" for r in rows if (r[3:]) != (b"%PDF-", "offered", 1, 1)]
    serials = sorted({r[1] for r in rows})
    if serials != list(range(1, len(serials) + 1)):
        wrong.append(f"numbers {serials}")
    return wrong + ([] if len(rows) >= len(texts) else [f"{len(texts)} told, {len(rows)} there"])


def offers_of(root: str, numbers: list[int], told: list[str]) -> None:
    """Send offers of enquiries in turn, again and again, until nobody answers."""
    with suppress(OSError, ValueError, HTTPException):
        p = Person(root, 1)
        for number in numbers:
            page = p.ask(f"enquiry/{number}/offer")
            keys = re.findall(r'name="caution"\s+value="([^"]+)"', page)
            form = {"csrf_token": token(page), "caution": [html.unescape(k) for k in keys]}
            p.ask(f"enquiry/{number}/offer/acknowledge", form)
        while True:
            for number in numbers:
                page = p.ask(f"enquiry/{number}/offer")
                after = re.search(r'name="after"\s+value="(\d+)"', page)
                form = {"csrf_token": token(page), "after": after[1] if after else "0", "mail": "1"}
                if "is sent" in p.ask(f"enquiry/{number}/offer/send", form):
                    told.append(str(number))


def live_trials(folder: Path, chance: random.Random) -> list[str]:
    """A live trial on a server that dies: each run that its page told as taken is there, and each
    step that was answered as kept.
    """
    boat = Server(SOFT, Hidden(), (200.0, 400.0, 600.0, 800.0, 1000.0), faster=400)
    process, root = start(folder, 8794)
    values: dict[str, int] = {}
    thread = threading.Thread(target=tried, args=(root, boat.port, values))
    thread.start()
    time.sleep(chance.uniform(0.8, 4.0))
    process.kill()
    process.wait()
    thread.join()
    boat.close()
    with closing(sqlite3.connect(folder / "jolvek.db")) as c:
        runs = c.execute("SELECT count(*) FROM trial_run").fetchone()[0]
        acts = c.execute("SELECT count(*) FROM handover_act").fetchone()[0]
    wrong = [] if runs >= values.get("runs", 0) else [f"{values['runs']} runs told, {runs} there"]
    return wrong + (
        [] if acts >= values.get("acts", 0) else [f"{values['acts']} acts, {acts} there"]
    )


def tried(root: str, port: int, told: dict[str, int]) -> None:
    """Listen to a boat and tick steps until nobody answers; what was told is counted."""
    with suppress(OSError, ValueError, HTTPException):
        p = Person(root, 1)
        page = p.ask("enquiry/9/trial")
        form = {"csrf_token": token(page), "address": f"127.0.0.1:{port}"}
        p.ask("enquiry/9/trial/live", form)
        while True:
            found = re.search(r"(\d+) runs? in all", p.ask("enquiry/9/trial/live"))
            told["runs"] = max(told.get("runs", 0), int(found[1]) if found else 0)
            act = {"csrf_token": token(page), "step": "unpack", "state": "done"}
            p.ask("enquiry/9/handover/step", act)
            told["acts"] = told.get("acts", 0) + 1


KINDS = (imports, migrations, saves, restores, backing_up, sends, live_trials)


def main() -> int:
    """Kill, and say what came of it; 1 where something is lost or broken."""
    rounds = int(sys.argv[1]) if len(sys.argv) > 1 else 200
    chance, wrong, done = random.Random(1), [], Counter[str]()
    with tempfile.TemporaryDirectory() as name:
        for i in range(rounds):
            kind = KINDS[i % len(KINDS)]
            folder = Path(name) / kind.__name__
            folder.mkdir(exist_ok=True)
            if kind is not migrations:
                with closing(db.connect(folder / "jolvek.db")) as conn:
                    db.migrate(conn)
                    demo.fill(conn)
                    if (
                        kind in (sends, live_trials)
                        and not conn.execute("SELECT 1 FROM setup").fetchone()
                    ):
                        at_work.add(conn)
            found = kind(folder, chance) + whole(folder)
            wrong += [f"{kind.__name__}, round {i}: {x}" for x in found]
            done[kind.__name__] += 1
            if i % 20 == 19:
                print(f"{i + 1} of {rounds} killed, {len(wrong)} wrong", flush=True)
    print(dict(done), *wrong, sep="\n")
    return bool(wrong)


if __name__ == "__main__":
    sys.exit(main())
