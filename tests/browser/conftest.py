"""Headless Chromium against the real server over a temporary demo database; every test asserts a
silent console.
"""

from __future__ import annotations

from pathlib import Path
from shutil import copyfile

import pytest
from playwright.sync_api import expect

from jolvek import demo
from jolvek.web.demo_shop import served, shop
from jolvek.web.settings import Settings
from scripts import chromium

expect.set_options(timeout=60_000)  # a busy machine is slow, not wrong


@pytest.fixture(scope="session")
def browser_type_launch_args():
    path = chromium.path()
    if not path:
        pytest.fail(
            "The browser tests need Chromium: apt-get install chromium (or set CHROMIUM to its"
            " path)"
        )
    return {"executable_path": path, "args": chromium.ARGS}


@pytest.fixture(scope="session")
def browser_context_args():
    return {"viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce"}


@pytest.fixture(scope="session")
def server(tmp_path_factory):
    with served(shop(tmp_path_factory.mktemp("data"))) as root:
        yield root


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
    made.set_default_timeout(60_000)
    yield made
    made.close()


@pytest.fixture
def context(one_context):
    yield one_context
    one_context.set_offline(False)
    for left in one_context.pages:
        left.close()
    one_context.clear_cookies()


@pytest.fixture
def page(context, server):
    opened = context.new_page()
    heard: list[str] = []
    opened.on("console", lambda message: heard.append(message.text))
    opened.on("pageerror", lambda error: heard.append(str(error)))
    yield opened
    unexpected = [text for text in heard if "422" not in text]
    assert unexpected == []
