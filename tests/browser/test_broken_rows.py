"""Rows that cannot be read: told on a banner that fits and reads, and mended where they stand."""

import pytest
from playwright.sync_api import expect

from jolvek.store import allowed
from jolvek.web.demo_shop import served, shop
from tests.browser.looks import fits_and_reads
from tests.browser.test_nothing_lost import kept

BROKEN = """
    UPDATE enquiry SET date = '2026-02-30', solar_w = 300 WHERE id = 3;
    INSERT INTO setup (enquiry_id, letter, series, parallel) VALUES (3, 'A', 1, 1);
    UPDATE motor SET mass_kg = 0.2 WHERE id IN (SELECT id FROM motor LIMIT 1);
"""


@pytest.fixture(scope="module")
def broken_server(tmp_path_factory):
    def broken(conn):
        allowed.take_off(conn)
        conn.executescript(BROKEN)

    with served(shop(tmp_path_factory.mktemp("broken"), more=broken)) as root:
        yield root


@pytest.mark.parametrize("path", ["/enquiry/3/waters"])
def test_the_banner_fits_and_reads(page, broken_server, path):
    fits_and_reads(page, broken_server + path)
    expect(
        page.get_by_text("ould not be read").or_(page.get_by_text("cannot be read")).first
    ).to_be_visible()


def test_a_broken_enquiry_is_mended_where_it_stands(page, broken_server):
    page.goto(f"{broken_server}/enquiry/3/waters")
    result = page.locator("article, p, div.told, .note").filter(has_text="Could not be read").last
    expect(result).to_contain_text("2026-02-30")
    page.get_by_role("textbox", name="Date").fill("2026-07-01")
    expect(kept(page)).to_be_visible()
    page.reload()
    expect(result).to_have_count(0)
    page.get_by_role("button", name="Remove A").click()
    expect(page.get_by_text("Setup A cannot be read")).to_have_count(0)
