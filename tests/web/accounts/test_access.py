"""Every address × role × method: the table is whole, and the guard holds to it."""

import pytest

from jolvek.store import people
from jolvek.web.kit import pages
from jolvek.web.kit.pages import KEYED, OPEN

ARGS = {
    "enquiry_id": 9_999,  # there is none: who may is told so, at once
    "kind": "motors",
    "form": "csv",
    "rest": "motors",
    "filename": "none.css",
    "token": "none",
    "letter": "A",
    "name": "none.zip",
    "photo_id": 9_999,
    "offer_id": 9_999,
    "product_id": "none",
    "batch_id": 9_999,
    "number": 9_999,
}
LEAVES = {"account.leave", "account.leave_all", "account.password", "account.factor"}


def cells(app):
    """(endpoint, method, address) of all there is."""
    with app.test_request_context():
        for rule in app.url_map.iter_rules():
            _, address = rule.build({k: ARGS[k] for k in rule.arguments}) or ("", "")
            for method in sorted(rule.methods - {"OPTIONS", "HEAD"}):
                yield rule.endpoint, method, address


def test_the_table_names_every_address_and_nothing_else(app):
    assert {rule.endpoint for rule in app.url_map.iter_rules()} == set(pages.every())
    assert set(pages.every().values()) == {OPEN, KEYED, *people.ROLES}


def test_nobody_comes_in_without_a_sign_in(shop):
    client = shop.test_client()
    for endpoint, method, address in cells(shop):
        answer = client.open(address, method=method)
        if pages.access_to(endpoint) == KEYED:
            assert answer.status_code == 401 and "key" in answer.json["error"]
            continue
        if pages.access_to(endpoint) == OPEN:
            assert answer.status_code not in (401, 403), endpoint
        elif method == "GET":
            assert answer.status_code == 302, endpoint
            assert answer.location.startswith("/sign-in?back=/"), endpoint
        else:
            assert answer.status_code == 401, endpoint
        by_htmx = client.open(address, method=method, headers={"HX-Request": "true"})
        if pages.access_to(endpoint) != OPEN:
            assert by_htmx.status_code == 401  # the page asks in place


@pytest.mark.parametrize("role", people.ROLES)
def test_each_role_may_what_the_table_says_and_no_more(enter, shop, role):
    client, rank = enter(role), people.ROLES.index(role)
    for endpoint, method, address in cells(shop):
        if endpoint in LEAVES or pages.access_to(endpoint) in (OPEN, KEYED):
            continue
        answer = client.open(address, method=method)
        allowed = rank >= people.ROLES.index(pages.access_to(endpoint))
        assert (answer.status_code != 403) == allowed, (endpoint, answer.status_code)
        assert answer.status_code not in (401, 500), endpoint
        if not allowed:
            assert f"You are signed in as {role}" in answer.text


def test_every_change_without_a_token_is_refused(shop):
    shop.config["WTF_CSRF_ENABLED"] = True
    shop.config["SETTINGS"] = shop.config["SETTINGS"].__class__(
        shop.config["SETTINGS"].data_dir, "x", demo=True
    )
    tried = 0
    for endpoint, method, address in cells(shop):
        if method == "GET" or pages.access_to(endpoint) == KEYED:
            continue
        client = shop.test_client()
        client.get("/")  # as the demo's advisor
        client.post("/play", data={"role": "owner"})
        answer = client.open(address, method=method)
        tried += 1
        assert answer.status_code in (400, 403), endpoint
        assert answer.status_code == 403 or "load the page again" in answer.text, endpoint
    assert tried > 40
