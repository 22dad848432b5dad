"""docs/screenshots anew from the demo data: one picture of each main view at 1280 × 800."""

from __future__ import annotations

import tempfile
from pathlib import Path

from playwright.sync_api import Page, sync_playwright

from jolvek.demo import at_work
from jolvek.web import demo_offers
from jolvek.web.demo_shop import served, shop
from scripts import chromium

OUT = Path(__file__).parents[1] / "docs" / "screenshots"


def pin(page: Page, root: str, enquiry: int, rows: tuple[int, ...]) -> None:
    """Pin rows of the shortlist and take the first in hand."""
    for row in rows:
        page.goto(f"{root}/enquiry/{enquiry}/shortlist")
        page.locator(f"form[action='/enquiry/{enquiry}/pin'] button").nth(row).click()
    page.goto(f"{root}/enquiry/{enquiry}/side-by-side")
    page.locator("button[data-choose=A]").click()


def shoot(page: Page, root: str) -> None:
    """Every main view."""
    page.goto(f"{root}/ask")  # as a stranger
    page.screenshot(path=str(OUT / "ask.png"))
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
        ("customer", "/enquiry/9/offer/page"),
        ("handover", "/enquiry/9/handover"),
        ("trial", "/enquiry/14/trial"),
        ("aftercare", "/enquiry/14/aftercare"),
        ("care", "/care"),
        ("catalogue", "/catalogue/"),
        ("rules", "/rules"),
        ("settings", "/settings"),
        ("people", "/people"),
    ):
        if name == "settings":
            page.get_by_role("button", name="owner").click()
        page.goto(root + path)
        page.wait_for_timeout(300)
        page.screenshot(path=str(OUT / f"{name}.png"))


def main() -> None:
    """Serve the demo, take the pictures, stop."""
    OUT.mkdir(parents=True, exist_ok=True)
    with (
        tempfile.TemporaryDirectory() as folder,
        served(shop(Path(folder), more=at_work.add, last=demo_offers.send)) as root,
        sync_playwright() as play,
    ):
        browser = play.chromium.launch(executable_path=chromium.path(), args=chromium.ARGS)
        shoot(
            browser.new_page(viewport={"width": 1280, "height": 800}, reduced_motion="reduce"), root
        )
        browser.close()


if __name__ == "__main__":
    main()
