"""Pages' records are made within a request, for the shop's currency."""

import pytest


@pytest.fixture(autouse=True)
def in_a_request(one_app):
    with one_app.test_request_context():
        yield
