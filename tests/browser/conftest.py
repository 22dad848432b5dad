"""Headless Chromium against the real server over a temporary demo database; every test asserts a
silent console.
"""

from __future__ import annotations

from contextlib import contextmanager
from os import environ
from pathlib import Path
from shutil import copyfile

import pytest
from playwright.sync_api import expect

from jolvek import demo
from jolvek.store import db
from jolvek.web.demo_shop import served, shop
from jolvek.web.settings import Settings
from scripts import chromium
from tests.browser.hand import Hand

PATIENCE_MS = int(environ.get("PATIENCE_MS", "60000"))  # a busy machine is slow, not wrong
expect.set_options(timeout=PATIENCE_MS)


@contextmanager
def serving(folder, source):
    """A shop of its own with all that another database holds, served; gives its address."""
    conn = db.connect(folder / "jolvek.db")
    source.backup(conn)
    conn.close()
    with served(Settings(folder, "demo", demo.DEALER, demo=True)) as root:
        yield root


@pytest.fixture(scope="session")
def browser_type_launch_args():
    path = chromium.path()
    if not path:
        pytest.fail(
            "The browser tests need Chromium: apt-get install chromium-headless-shell (or set"
            " CHROMIUM to a browser's path)"
        )
    return {"executable_path": path, "args": chromium.ARGS}


@pytest.fixture(scope="session")
def browser_context_args():
    return {
        "viewport": {"width": 1280, "height": 800},
        "reduced_motion": "reduce",
        # what the worker keeps would stand between the tests and the server
        "service_workers": "block",
    }


@pytest.fixture(scope="session")
def data(tmp_path_factory):
    """The folder that `server` keeps its data in."""
    return tmp_path_factory.mktemp("data")


@pytest.fixture(scope="session")
def server(data):
    with served(shop(data)) as root:
        yield root


@pytest.fixture
def hand(page, server, data):
    """An advisor at the counter, who can also lay an enquiry there."""
    conn = db.connect(data / "jolvek.db")
    yield Hand(page, server, conn)
    conn.close()


@pytest.fixture(scope="session")
def fitted_server(tmp_path_factory, pinned):
    """The same where two setups are pinned at each enquiry, the first in hand."""
    folder: Path = tmp_path_factory.mktemp("fitted")
    copyfile(pinned.execute("PRAGMA database_list").fetchone()["file"], folder / "jolvek.db")
    with served(Settings(folder, "demo", demo.DEALER, demo=True)) as root:
        yield root


@pytest.fixture(scope="session")
def one_context(browser, browser_context_args):
    """One for all tests of a worker, so that styles and scripts are fetched and read once."""
    made = browser.new_context(**browser_context_args)
    made.set_default_timeout(PATIENCE_MS)
    yield made
    made.close()


@pytest.fixture(scope="session")
def one_page(one_context):
    """A tab for all tests of a worker that need one alone: a new one takes as long as a page."""
    return one_context.new_page()


@pytest.fixture
def context(one_context, one_page):
    yield one_context
    one_context.set_offline(False)
    for left in one_context.pages:
        if left is not one_page:
            left.close()
    one_context.clear_cookies()


@pytest.fixture
def page(context, one_page, server):
    heard: list[str] = []

    def hear(said):
        text = said.text if hasattr(said, "text") else str(said)
        if "registration blocked by Playwright" not in text:
            heard.append(text)

    for kind in ("console", "pageerror"):
        one_page.on(kind, hear)
    yield one_page
    for kind in ("console", "pageerror"):
        one_page.remove_listener(kind, hear)
    one_page.unroute_all()
    # what a page sends as it is left would come back with a session for the next test
    context.set_offline(True)
    one_page.goto("about:blank")
    context.set_offline(False)
    one_page.set_viewport_size({"width": 1280, "height": 800})
    one_page.emulate_media(color_scheme="light", reduced_motion="reduce")
    unexpected = [text for text in heard if "422" not in text]
    assert unexpected == []
