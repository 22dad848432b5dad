"""The acts of the shop over the demo's database, without a page."""

from __future__ import annotations

import pytest

from jolvek.core.fit.as_set import AsSet
from jolvek.shop import By
from jolvek.store import enquiries, setups


@pytest.fixture
def by():
    return By("Tove", "2026-11-03T09:00:00+00:00")


@pytest.fixture
def fitted(conn, pinned):
    """Each enquiry of the demo with two setups, the first in hand."""
    pinned.backup(conn)
    return conn


@pytest.fixture
def touched(fitted):
    """Whether an enquiry was marked as changed at a time."""

    def ask(number, at):
        row = fitted.execute("SELECT touched_at FROM enquiry WHERE id = ?", (number,)).fetchone()
        return row[0] == at

    return ask


@pytest.fixture
def items(fitted):
    """The products of enquiry 2's first setup."""
    return {p.kind: p.item for p in setups.of_enquiry(fitted, 2)[0].parts}


@pytest.fixture
def need(fitted):
    return enquiries.get(fitted, 2).need


PLANNED = AsSet()
