"""Headless Chromium against the real server over a temporary demo database; every test asserts a silent console."""

from __future__ import annotations

import os
import shutil
import threading

import pytest
from waitress import create_server

from jolvek import demo
from jolvek.store import db
from jolvek.web import create_app
from jolvek.web.settings import Settings


@pytest.fixture(scope="session")
def browser_type_launch_args():
    path = os.environ.get("CHROMIUM") or shutil.which("chromium") or shutil.which("chromium-browser")
    if not path:
        pytest.fail("The browser tests need Chromium: apt-get install chromium (or set CHROMIUM to its path)")
    return {"executable_path": path, "args": ["--no-sandbox", "--disable-gpu", "--disable-quic", "--no-first-run",
                                              "--disable-background-networking", "--disable-component-update", "--disable-sync"]}


@pytest.fixture(scope="session")
def browser_context_args():
    return {"viewport": {"width": 1280, "height": 800}, "reduced_motion": "reduce"}


@pytest.fixture(scope="session")
def server(tmp_path_factory):
    settings = Settings(tmp_path_factory.mktemp("data"), "browser-secret", demo.DEALER, demo=True)
    conn = db.connect(settings.database)
    db.migrate(conn)
    demo.fill(conn)
    conn.close()
    running = create_server(create_app(settings), host="127.0.0.1", port=0, threads=4)
    threading.Thread(target=running.run, daemon=True).start()
    yield f"http://127.0.0.1:{running.effective_port}"
    running.close()


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
