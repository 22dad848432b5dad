"""A fault that an owner reports stands on top of Counter and In service until it is closed."""

import re

import pytest

from jolvek.store import service_faults
from jolvek.web.kit.accounts import links

NUMBER = 14


@pytest.fixture
def desk(client, conn, working):
    working.backup(conn)
    return client


def told(client, app, kind):
    with app.test_request_context():
        way = f"/b/{links.token('boat', NUMBER)}"
    data = {"kind": kind, "why": f"seen {kind}"}
    assert client.post(f"{way}/fault", data=data).status_code == 303
    return client.get(way).text


def test_it_is_told_by_hazard_on_top_until_it_is_closed_by_name(desk, app, conn):
    told(desk, app, "slow")
    owners_page = told(desk, app, "hot")
    assert "Stop using it" in owners_page and "Nothing is due" not in owners_page
    assert "Do not use the boat" in owners_page
    for path in ("/", "/care"):
        main = desk.get(path).text.split("<main")[1]
        words = [m[1] for m in re.finditer(r"<strong>(Danger|Warning|Caution):</strong>", main)]
        assert words[:2] == ["Danger", "Caution"]
        assert main.index("seen hot") < main.index("seen slow")
    found = {x.kind: x.id for x in service_faults.reported(conn, "owner")}
    done = {"fault": found["hot"], "state": "closed", "cure": "joint made anew"}
    desk.post(f"/enquiry/{NUMBER}/aftercare/parts/fault", data=done)
    assert "seen hot" not in desk.get("/").text and "seen slow" in desk.get("/").text
