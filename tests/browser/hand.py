"""What an advisor's hand does in the browser, by mouse and by keyboard."""

import re
from dataclasses import replace

from playwright.sync_api import expect

from jolvek import demo
from jolvek.store import enquiries, setups
from tests.browser.looks import no_violations, reads

PIN = re.compile("^Pin ")
WIDE, NARROW = 1280, 390


class Hand:
    """One job: its enquiry, the page it stands on, what is said there."""

    def __init__(self, page, server, conn):
        self.page, self.server, self.conn, self.number = page, server, conn, 0

    def begin(self, need, title="A job"):
        """An enquiry on the counter with what was said on the phone, opened by a click on it."""
        with self.conn:
            made = replace(demo.enquiries()[0], title=title, need=need, note="", model="")
            self.number = enquiries.add(self.conn, made, "2026-11-26T09:00:00")
        self.go("boat")
        return self

    def go(self, path):
        self.page.goto(f"{self.server}/enquiry/{self.number}/{path}")

    def narrow(self):
        """The same on a phone; nothing scrolls sideways."""
        self.page.set_viewport_size({"width": NARROW, "height": 800})
        self.fits()

    def fits(self):
        width = self.page.viewport_size["width"]
        assert self.page.evaluate("document.documentElement.scrollWidth") <= width

    def looked_at(self):
        """No fault that axe finds, and text reads in both themes."""
        no_violations(self.page)
        reads(self.page)

    def type(self, label, text):
        """Into a field by keyboard, over what stands there; it is saved by itself."""
        field = self.page.get_by_label(label, exact=True).first
        field.focus()
        self.page.keyboard.press("Control+a")
        with self.page.expect_response(
            lambda r: r.request.method == "POST" and not r.url.endswith("/answer")
        ):
            self.page.keyboard.type(text)
            self.page.keyboard.press("Tab")

    def station(self, key, name):
        """By the station's key, as one who has no mouse."""
        self.page.locator("h1").first.click(position={"x": 1, "y": 1})
        self.page.keyboard.press(key)
        expect(self.page).to_have_url(re.compile(f"/{name}"))

    def tab(self, name):
        self.page.get_by_role("link", name=name, exact=True).press("Enter")

    def says(self, *words, where="main"):
        shown = self.page.locator(where)
        for word in words:
            expect(shown).to_contain_text(word)

    def pin(self, motor=""):
        """By mouse, the first row, or the first that names the motor; it is then in hand."""
        rows = self.page.locator("#list tbody tr").filter(has_text=motor)
        rows.filter(has=self.page.get_by_role("button", name=PIN)).first.get_by_role(
            "button", name=PIN
        ).click()
        expect(self.page.get_by_role("status").first).to_contain_text("Pinned as")
        return self.setup

    @property
    def setup(self):
        return setups.of_enquiry(self.conn, self.number)[-1]

    @property
    def need(self):
        return enquiries.get(self.conn, self.number).need

    def sheet(self):
        """Fitting's sheet on a phone, by keyboard alone."""
        self.station("6", "fitting")
        self.narrow()
        self.tab("Sheet")
        self.says("Unpack, compare with the parts list", "of work")
        expect(self.page.locator("main")).not_to_contain_text("Not ready")
        self.fits()
