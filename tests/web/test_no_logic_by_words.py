"""No logic depends on a translated word: the same is done and counted in every language."""

import re

import pytest

from jolvek.store import service_faults
from tests.web.steps import Forms


@pytest.fixture
def desk(client, conn, working):
    working.backup(conn)
    return client


def first_setups(client, query):
    html = client.get(f"/enquiry/4/shortlist?{query}").text
    return [f["fields"]["motor"] for f in Forms(html).forms if f["action"].endswith("/pin")]


def facets(client):
    html = client.get("/enquiry/4/shortlist").text
    return {
        name: re.findall(r'<option value="([^"]+)"', options)
        for name, options in re.findall(r'<select class="input" name="(\w+)">(.*?)</select>', html)
    }


def test_a_facet_narrows_to_the_same_in_german(desk, conn):
    english = facets(desk)
    found = {(k, v): first_setups(desk, f"{k}={v}") for k, vs in english.items() for v in vs[:2]}
    conn.execute("UPDATE person SET language = 'de'")
    assert 'lang="de"' in desk.get("/").text
    german = facets(desk)
    assert german == english
    for (key, value), setups in found.items():
        assert first_setups(desk, f"{key}={value}") == setups, (key, value)


def test_the_fleet_counts_faults_without_a_part_in_german(desk, conn):
    boats = [r["id"] for r in conn.execute("SELECT id FROM enquiry WHERE stage = 'delivered'")]
    rows = ("slow", "seen", "open", "2026-11-26T09:00:00", "x", "", "", "", "", "", 1.0, "")
    for why in ("one", "two", "three"):
        for number in boats:
            f = service_faults.ServiceFault(0, rows[0], why, *rows[2:])
            service_faults.add(conn, number, f)
    counts = {}
    for language in ("en", "de"):
        conn.execute("UPDATE person SET language = ?", (language,))
        html = desk.get("/care/fleet").text
        counts[language] = re.search(r"<li>([^<]*): (\d+)</li>", html).groups()
    assert counts == {"en": ("part not given", counts["de"][1]), "de": counts["de"]}
    assert counts["de"][0] != "part not given" and int(counts["de"][1]) >= 3
