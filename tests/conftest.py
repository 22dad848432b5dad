"""Fixtures: the demo data over a temporary database, and the app over it."""

from __future__ import annotations

import re
from pathlib import Path

import pytest

from jolvek import demo
from jolvek.store import db
from jolvek.web import create_app
from jolvek.web.settings import Settings


@pytest.fixture(scope="session")
def shelf():
    return demo.shelf()


@pytest.fixture(scope="session")
def enquiries():
    return demo.enquiries()


@pytest.fixture
def conn(tmp_path: Path):
    c = db.connect(tmp_path / "jolvek.db")
    db.migrate(c)
    demo.fill(c)
    yield c
    c.close()


@pytest.fixture
def app(tmp_path: Path, conn):
    app = create_app(Settings(tmp_path, "test-secret", demo.DEALER, demo=True))
    app.config["TESTING"] = True
    app.config["PROPAGATE_EXCEPTIONS"] = False
    return app


@pytest.fixture
def client(app):
    """A client without CSRF, for the pages' logic; tests/web/test_safety.py keeps it on."""
    app.config["WTF_CSRF_ENABLED"] = False
    opened = app.test_client()
    opened.response_wrapper = type("Squeezed", (Squeezed, opened.response_wrapper), {})
    return opened


class Squeezed:
    """An answer whose HTML is read without the white space beside its tags."""

    @property
    def text(self):
        text = self.get_data(as_text=True)
        if self.mimetype != "text/html":
            return text
        return re.sub(r"\s*\n\s*", " ", re.sub(r"\s*\n\s*(?=<)|(?<=>)\s*\n\s*", "", text))
