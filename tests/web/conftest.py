"""A shop with its people, where nobody is signed in."""

from dataclasses import replace

import pytest
from argon2 import PasswordHasher

from jolvek.store import people
from jolvek.web.kit.accounts import passwords

WORD = "mussel lantern gravel forty"
AT = "2026-11-26T08:00:00+00:00"


@pytest.fixture(scope="session", autouse=True)
def quick_hashes():
    """Hashes that cost less than a guesser's: each of many tests signs in."""
    with pytest.MonkeyPatch.context() as m:
        m.setattr(passwords, "_HASHER", PasswordHasher(time_cost=1, memory_cost=1024))
        yield


@pytest.fixture(scope="session")
def hashed(quick_hashes):
    return passwords.kept(WORD, "anyone", "shop")


@pytest.fixture
def shop(app, conn, hashed):
    """The app without the demo's open door; one person for each role, signed in by their role."""
    app.config["WTF_CSRF_ENABLED"] = False
    app.config["SETTINGS"] = replace(app.config["SETTINGS"], demo=False)
    for role in people.ROLES:
        number = people.add(conn, role, f"The {role}", role, AT)
        people.set_password(conn, number, hashed)
    return app


@pytest.fixture
def enter(shop):
    """A client signed in by a name."""

    def signed_in(name, word=WORD, **more):
        client = shop.test_client()
        client.answer = client.post("/sign-in", data={"name": name, "password": word, **more})
        return client

    return signed_in
