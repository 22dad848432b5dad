"""The pages that no job of test_jobs.py looks at fit every width and read in both themes."""

import pytest
from playwright.sync_api import expect

from tests.browser.looks import fits_and_reads

PAGES = [
    "/",
    "/rules",
    "/patterns",
    "/find?q=boat",
    "/enquiry/2/shortlist",
    "/enquiry/2/by-hand?motor=tallmarrow-o12",
    "/enquiry/2/own",
    "/enquiry/4/side-by-side?by=day&otherwise=1",
    "/enquiry/4/day-out?wind=18&from=9:30&all=1",
    "/enquiry/4/fitting",
    "/enquiry/4/fitting?tab=sheet",
    "/catalogue/",
    "/catalogue/motors/item/tallmarrow-o12",
    "/catalogue/motors/compare",
    "/catalogue/import",
    "/account",
    "/enquiry/2/history",
]
OWNERS = ("/people", "/trail", "/settings", "/backups", "/exchange", "/keys", "/ask", "/families")


@pytest.mark.parametrize("path", PAGES)
def test_a_page_fits_and_reads(page, fitted_server, path):
    fits_and_reads(page, fitted_server + path)


def test_the_owners_pages_fit_and_read(page, fitted_server):
    page.goto(fitted_server)
    page.get_by_role("button", name="owner").click()
    expect(page.locator(".demo-bar")).to_contain_text(", owner.")
    for path in OWNERS:
        fits_and_reads(page, fitted_server + path)
    page.get_by_role("button", name="advisor").click()
    expect(page.locator(".demo-bar")).to_contain_text(", advisor.")


def test_six_setups_stand_on_the_first_screen(page, fitted_server):
    page.set_viewport_size({"width": 1280, "height": 800})
    for number in range(1, 7):
        page.goto(f"{fitted_server}/enquiry/{number}/shortlist")
        bottoms = page.locator("#list tbody tr").evaluate_all(
            "rows => rows.map(r => r.getBoundingClientRect().bottom)"
        )
        assert sum(bottom <= 800 for bottom in bottoms) >= 6, number
