"""How a page is looked at: at three widths and in both themes."""

from axe_playwright_python.sync_playwright import Axe

WIDTHS = (390, 768, 1280)


def no_violations(page):
    result = Axe().run(page)
    assert result.violations_count == 0, result.generate_report()


def fits_and_reads(page, address):
    """No width scrolls sideways, and axe finds nothing in either theme."""
    for scheme in ("light", "dark"):
        page.emulate_media(color_scheme=scheme)
        page.goto(address)  # anew, since colours take a moment to change on an open page
        for width in WIDTHS:
            page.set_viewport_size({"width": width, "height": 800})
            assert page.evaluate("document.documentElement.scrollWidth") <= width
        no_violations(page)
