"""docs/screenshots anew from the demo data: one picture of each main view at 1280 × 800."""

from __future__ import annotations

import os
import shutil
import tempfile
import threading
from pathlib import Path

from playwright.sync_api import Page, sync_playwright
from waitress import create_server

from jolvek import demo
from jolvek.store import db
from jolvek.web import create_app
from jolvek.web.settings import Settings

OUT = Path(__file__).parents[1] / "docs" / "screenshots"
ARGS = ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run", "--disable-background-networking",
        "--disable-component-update", "--disable-sync"]


def pin(page: Page, root: str, enquiry: int, rows: tuple[int, ...]) -> None:
    """Pin rows of the shortlist and take the first in hand."""
    for row in rows:
        page.goto(f"{root}/enquiry/{enquiry}/shortlist")
        page.locator(f"form[action='/enquiry/{enquiry}/pin'] button").nth(row).click()
    page.goto(f"{root}/enquiry/{enquiry}/side-by-side")
    page.locator("button[data-choose=A]").click()


def shoot(page: Page, root: str) -> None:
    """Every main view."""
    pin(page, root, 2, (0, 0, 1))
    pin(page, root, 5, (0,))
    page.goto(f"{root}/enquiry/3/waters")
    page.get_by_role("button", name="Make legs: there and back").click()
    for name, path in (
        ("counter", "/"),
        ("boat", "/enquiry/2/boat"),
        ("waters", "/enquiry/3/waters"),
        ("shortlist", "/enquiry/2/shortlist"),
        ("side-by-side", "/enquiry/2/side-by-side"),
        ("day-out", "/enquiry/2/day-out?wind=15&from=9:30"),
        ("fitting", "/enquiry/2/fitting"),
        ("wiring", "/enquiry/5/fitting?tab=wiring&load=3"),
        ("offer", "/enquiry/2/offer"),
        ("shelf", "/shelf/"),
        ("rules", "/rules"),
    ):
        page.goto(root + path)
        page.wait_for_timeout(300)
        page.screenshot(path=str(OUT / f"{name}.png"))


def main() -> None:
    """Serve the demo, take the pictures, stop."""
    chromium = os.environ.get("CHROMIUM") or shutil.which("chromium") or shutil.which("chromium-browser")
    OUT.mkdir(parents=True, exist_ok=True)
    with tempfile.TemporaryDirectory() as folder:
        settings = Settings(Path(folder), "screenshots", demo.DEALER, demo=True)
        conn = db.connect(settings.database)
        db.migrate(conn)
        demo.fill(conn)
        conn.close()
        server = create_server(create_app(settings), host="127.0.0.1", port=0, threads=4)
        threading.Thread(target=server.run, daemon=True).start()
        with sync_playwright() as play:
            browser = play.chromium.launch(executable_path=chromium, args=ARGS)
            page = browser.new_page(viewport={"width": 1280, "height": 800}, reduced_motion="reduce")
            shoot(page, f"http://127.0.0.1:{server.effective_port}")
            browser.close()
        server.close()


if __name__ == "__main__":
    main()
