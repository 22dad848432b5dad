"""Latency in the browser: 50 changes of cursor, weight, part and entry, with the demo shelf and a
large one. Prints, does not judge.
"""

from __future__ import annotations

import sys
import tempfile
import time
from dataclasses import replace
from pathlib import Path
from sqlite3 import Connection

from playwright.sync_api import Page, sync_playwright

from jolvek.cli.bench import made_shelf
from jolvek.store import db
from jolvek.store import shelf as shelf_store
from jolvek.web.demo_shop import served, shop
from scripts import chromium

WAIT = """([trigger, watch]) => new Promise((done) => {
  const was = document.querySelector(watch), text = was.textContent, start = performance.now();
  const seen = new MutationObserver(() => {
    if (document.querySelector(watch) === was && was.textContent === text) return;
    seen.disconnect(); requestAnimationFrame(() => done(performance.now() - start));
  });
  seen.observe(was.parentElement, { subtree: true, childList: true, characterData: true });
  setTimeout(() => { seen.disconnect(); done(NaN); }, 3000);
  new Function(trigger)();
})"""


def measure(page: Page, name: str, watch: str, triggers: list[str]) -> None:
    """Run each trigger, wait for the watched part to change, print median and 95th percentile."""
    times = sorted(t for trigger in triggers if (t := page.evaluate(WAIT, [trigger, watch])) == t)
    if times:
        print(
            f"  {name:34} p50 {times[len(times) // 2]:6.0f} ms   p95"
            f" {times[int(0.95 * (len(times) - 1))]:6.0f} ms   of {len(times)}"
        )


def slide(field: str, values: list[float]) -> list[str]:
    """Triggers that set a field and tell the page."""
    tell = "e.dispatchEvent(new Event('input', {bubbles: true}));"
    return [
        f"const e = document.getElementById('{field}'); e.value = '{v}'; {tell}" for v in values
    ]


CHANGE = (
    "const e = document.getElementById('{}'); e.selectedIndex = {}; e.dispatchEvent(new"
    " Event('change', {{bubbles: true}}));"
)
STEP = "document.dispatchEvent(new CustomEvent('jolvek:step', {{detail: {}}}));"


def shortlist_and_curves(page: Page, here: str) -> None:
    """The Shortlist cold and its slider; two setups kept; the cursor."""
    start = time.perf_counter()
    page.goto(f"{here}/shortlist")
    print(f"  shortlist, cold                    {1e3 * (time.perf_counter() - start):6.0f} ms")
    weights = slide("w_range", [0.5 * (i % 9) for i in range(50)])
    measure(page, "weight slider on the Shortlist", "#results", weights)
    for _ in range(2):
        page.goto(f"{here}/shortlist")
        page.locator("form[action$='/pin'] button").first.click()
    page.goto(f"{here}/side-by-side")
    steps = [STEP.format(-1 if i % 20 < 10 else 1) for i in range(50)]
    measure(page, "cursor on Side by side", "[data-live]", steps)


def by_hand(page: Page, here: str) -> None:
    """A setup by hand whose motor changes."""
    page.goto(f"{here}/by-hand")
    for name in ("motor", "battery", "mount"):
        page.locator(f"#{name}").select_option(index=3)
        page.wait_for_timeout(300)
    changes = [CHANGE.format("motor", 1 + i % 4) for i in range(1, 9)]
    measure(page, "part changed by hand", "#by-hand", changes)


def run(page: Page, root: str, enquiry: int) -> None:
    """All measures on one enquiry."""
    page.goto(root)
    lengths = slide("length", [2.5 + 0.03 * i for i in range(50)])
    measure(page, "entry on the Counter", "#quick-answer", lengths)
    line = ".from-catalogue:not([aria-busy])"
    start = time.perf_counter()
    page.locator(line).wait_for()
    print(f"  what the catalogue has, after it   {1e3 * (time.perf_counter() - start):6.0f} ms")
    here = f"{root}/enquiry/{enquiry}"
    shortlist_and_curves(page, here)
    page.goto(f"{here}/day-out")
    measure(page, "wind slider on Day out", "#day", slide("wind", [2 + i % 20 for i in range(50)]))
    page.goto(f"{here}/fitting")
    moves = slide("w-battery", [0.3 + 0.05 * (i % 40) for i in range(50)])
    measure(page, "battery moved on Fitting", "#fitting", moves)
    for name, field in (("boat", "gear"), ("waters", "hotel")):
        page.goto(f"{here}/{name}")
        title = f"entry on {name.capitalize()}"
        measure(page, title, "#figures", slide(field, [20 + i for i in range(50)]))
    by_hand(page, here)


def large(conn: Connection) -> None:
    """400 motors and 400 batteries onto the shelf."""
    made = made_shelf(400, 400)
    with db.transaction(conn):
        shelf_store.add_all(conn, replace(made, mounts=(), chargers=made.chargers[-1:]))


def main() -> None:
    """Serve both shelves and measure."""
    with sync_playwright() as play:
        browser = play.chromium.launch(executable_path=chromium.path(), args=chromium.ARGS)
        for title, more in (("Demo shelf", None), ("400 motors and 400 batteries", large)):
            with (
                tempfile.TemporaryDirectory(ignore_cleanup_errors=True) as folder,
                served(shop(Path(folder), more=more)) as root,
            ):
                print(title)
                page = browser.new_page(viewport={"width": 1280, "height": 800})
                run(page, root, 3)
                page.wait_for_load_state("networkidle")
                page.close()
        browser.close()
    sys.stdout.flush()


if __name__ == "__main__":
    main()
