"""Headless Chromium against the real server over a temporary demo database; every test asserts a
silent console.
"""

from __future__ import annotations

import pytest

from jolvek.web.demo_shop import served, shop
from scripts import chromium


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


@pytest.fixture
def page(context, server):
    context.set_default_timeout(8000)
    opened = context.new_page()
    heard: list[str] = []
    opened.on("console", lambda message: heard.append(message.text))
    opened.on("pageerror", lambda error: heard.append(str(error)))
    yield opened
    unexpected = [text for text in heard if "422" not in text]
    assert unexpected == []
