"""Twenty people at work on the demo, on loopback: how long answers take; and fifty writers, each of
whose acknowledged saves must be found. `make load`; seconds as argument.
"""

from __future__ import annotations

import json
import random
import sqlite3
import sys
import tempfile
import threading
import time
import urllib.error
import urllib.parse
import urllib.request
from contextlib import closing
from http.cookiejar import CookieJar
from pathlib import Path
from typing import Any

from scripts.shops import start, token

PEOPLE, THINK_S, WRITERS, SAVES = 20, 2.0, 50, 6
PAGES = ["", "shelf/", "find?q=boat", "enquiry/2/boat", "enquiry/2/waters", "enquiry/3/shortlist"]
PAGES += ["enquiry/4/day-out", "enquiry/4/side-by-side", "enquiry/9/fitting", "enquiry/2/shortlist"]


class Person:
    """One of the people, with a session of their own."""

    def __init__(self, root: str, seed: int) -> None:
        self.root, self.random = root, random.Random(seed)
        self.opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(CookieJar()))
        self.took: list[float] = []

    def ask(self, path: str, data: dict[str, Any] | None = None) -> str:
        """One request; how long it took is kept."""
        body = urllib.parse.urlencode(data, doseq=True).encode() if data is not None else None
        began = time.perf_counter()
        with self.opener.open(f"{self.root}/{path}", body, timeout=60) as answer:
            text: str = answer.read().decode()
        self.took.append(time.perf_counter() - began)
        return text

    def work(self, until: float) -> None:
        """Read and change, with pauses to think."""
        while time.monotonic() < until:
            time.sleep(self.random.expovariate(1 / THINK_S))
            if self.random.random() < 0.3:
                number = self.random.choice((2, 3, 4, 5, 6))
                page = self.ask(f"enquiry/{number}/shortlist")
                weights = {"wish_price": str(self.random.randrange(6)), "csrf_token": token(page)}
                self.ask(f"enquiry/{number}/shortlist/weights", weights)
            else:
                self.ask(self.random.choice(PAGES))


def write(root: str, seed: int, one: bool, kept: list[int]) -> None:
    """Own gear typed at one enquiry, or a copy made of many; what was acknowledged is counted."""
    p = Person(root, seed)
    number = 2 if one else 1 + seed % 6
    for i in range(SAVES):
        page = p.ask(f"enquiry/{number}/waters" if one else f"enquiry/{number}/own")
        try:
            if one:
                legs = {"csrf_token": token(page), "make": ("there", "back", "none")[i % 3]}
                p.ask(f"enquiry/{number}/waters/legs", legs)
            p.ask(f"enquiry/{number}/copy", {"csrf_token": token(page)})
            kept.append(seed)
        except urllib.error.HTTPError:
            continue


def loop_s() -> float:
    """Seconds for a loop of 20 million additions: how quick the machine is at that moment."""
    began, total = time.perf_counter(), 0
    for i in range(20_000_000):
        total += i
    return time.perf_counter() - began


def main() -> int:
    """Load, and say what came of it; 1 where something acknowledged is not found."""
    seconds = float(sys.argv[1]) if len(sys.argv) > 1 else 60.0
    quick = loop_s()
    with tempfile.TemporaryDirectory() as folder:
        second, (process, root) = None, start(Path(folder), 8791)
        try:
            people = [Person(root, i) for i in range(PEOPLE)]
            until = time.monotonic() + seconds
            run([lambda p=p: p.work(until) for p in people])
            took = sorted(t for p in people for t in p.took)
            second, other = start(Path(folder), 8793)
            lost = [writers((root, other), Path(folder), one) for one in (True, False)]
        finally:
            for server in (process, second):
                if server is not None:
                    server.kill()
                    server.wait()
    p50, p95, p99 = (took[int(len(took) * q)] for q in (0.5, 0.95, 0.99))
    print(f"a loop of 20 million additions: {quick:.1f} s before, {loop_s():.1f} s after")
    print(
        f"{PEOPLE} people, {THINK_S:g} s to think, {len(took)} requests: p50 {1000 * p50:.0f} ms,"
        f" p95 {1000 * p95:.0f} ms (wanted 300), p99 {1000 * p99:.0f} ms (wanted 800)"
    )
    print(f"{WRITERS} writers at two servers, on one and on many enquiries: {json.dumps(lost)}")
    return any(x["acknowledged"] != x["found"] for x in lost)


def run(tasks: list[object]) -> None:
    """All at once, until all are done."""
    threads = [threading.Thread(target=task) for task in tasks]  # type: ignore[arg-type]
    for t in threads:
        t.start()
    for t in threads:
        t.join()


def writers(roots: tuple[str, str], folder: Path, one: bool) -> dict[str, int]:
    """Fifty at once, on two servers over one folder; how many saves were acknowledged, and how
    many are there.
    """
    count = "SELECT count(*) FROM enquiry"
    with closing(sqlite3.connect(folder / "jolvek.db")) as conn:
        before = conn.execute(count).fetchone()[0]
    kept: list[int] = []
    run([lambda i=i: write(roots[i % 2], i, one, kept) for i in range(WRITERS)])
    with closing(sqlite3.connect(folder / "jolvek.db")) as conn:
        after = conn.execute(count).fetchone()[0]
    return {"acknowledged": len(kept), "found": after - before}


if __name__ == "__main__":
    sys.exit(main())
