"""Fixtures: the demo data over a temporary database, and the app over it."""

from __future__ import annotations

import re
from dataclasses import replace
from pathlib import Path
from shutil import copyfile

import pytest
from flask import Flask
from jinja2 import BytecodeCache

from jolvek import demo
from jolvek.demo import at_work
from jolvek.store import db
from jolvek.web import create_app
from jolvek.web.kit.accounts import guessing
from jolvek.web.kit.accounts.limits import limiter
from jolvek.web.settings import Settings
from tests.web.steps import pin


class Compiled(BytecodeCache):
    """Templates compiled once a worker: each test makes its own app."""

    def __init__(self):
        self.kept = {}

    def load_bytecode(self, bucket):
        if bucket.key in self.kept:
            bucket.bytecode_from_string(self.kept[bucket.key])

    def dump_bytecode(self, bucket):
        self.kept[bucket.key] = bucket.bytecode_to_string()


Flask.jinja_options = {"bytecode_cache": Compiled()}


@pytest.fixture(scope="session", autouse=True)
def no_disk():
    """Commits wait for no disk: nothing is lost here but a test."""
    with pytest.MonkeyPatch.context() as m:
        m.setattr(db, "SYNC", "OFF")
        yield


@pytest.fixture(scope="session")
def shelf():
    return demo.shelf()


@pytest.fixture(scope="session")
def enquiries():
    return demo.enquiries()


@pytest.fixture(scope="session")
def filled(tmp_path_factory):
    """A database with the demo data, made once and copied for each test."""
    path = tmp_path_factory.mktemp("filled") / "jolvek.db"
    c = db.connect(path)
    db.migrate(c)
    demo.fill(c)
    c.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    c.close()
    return path


@pytest.fixture
def conn(tmp_path: Path, filled: Path):
    c = db.connect(copyfile(filled, tmp_path / "jolvek.db"))
    yield c
    c.close()


@pytest.fixture(scope="session")
def one_app(tmp_path_factory):
    """Made once a worker: its pages are bound once, its settings are each test's own."""
    return create_app(
        Settings(tmp_path_factory.mktemp("none"), "test-secret", demo.DEALER, demo=True)
    )


@pytest.fixture
def app(tmp_path: Path, conn, one_app):
    asked = dict(one_app.config)
    own = replace(asked["SETTINGS"], data_dir=tmp_path)
    one_app.config.update(SETTINGS=own, TESTING=True, PROPAGATE_EXCEPTIONS=False)
    limiter.reset()
    guessing.forget_all()
    yield one_app
    one_app.config.clear()
    one_app.config.update(asked)


@pytest.fixture
def client(app):
    """A client without CSRF, for the pages' logic; tests/web/test_safety.py keeps it on."""
    app.config["WTF_CSRF_ENABLED"] = False
    opened = app.test_client()
    opened.response_wrapper = type("Squeezed", (Squeezed, opened.response_wrapper), {})
    return opened


@pytest.fixture(scope="session")
def pinned(tmp_path_factory, filled: Path):
    """The same with two setups pinned, the first in hand, at each of the six enquiries."""
    folder = tmp_path_factory.mktemp("pinned")
    copyfile(filled, folder / "jolvek.db")
    app = create_app(Settings(folder, "test-secret", demo.DEALER, demo=True))
    app.config["WTF_CSRF_ENABLED"] = False
    client = app.test_client()
    for number in range(1, 7):
        pin(client, number)
        pin(client, number, 2)
        client.post(f"/enquiry/{number}/choose", data={"letter": "A"})
    c = db.connect(folder / "jolvek.db")
    c.execute("PRAGMA wal_checkpoint(TRUNCATE)")
    yield c
    c.close()


@pytest.fixture(scope="session")
def working(tmp_path_factory, filled: Path):
    """The demo's dealer at work: jobs at every stage, boats in their second season."""
    path = tmp_path_factory.mktemp("working") / "jolvek.db"
    copyfile(filled, path)
    c = db.connect(path)
    at_work.add(c)
    yield c
    c.close()


@pytest.fixture
def fitted(client, conn, pinned):
    """A client of the app where each enquiry has a setup in hand."""
    pinned.backup(conn)
    return client


class Squeezed:
    """An answer whose HTML is read without the white space beside its tags."""

    @property
    def text(self):
        text = self.get_data(as_text=True)
        if self.mimetype != "text/html":
            return text
        return re.sub(r"\s*\n\s*", " ", re.sub(r"\s*\n\s*(?=<)|(?<=>)\s*\n\s*", "", text))
