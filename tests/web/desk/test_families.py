"""Families learn from trials: seen, chosen, left out, exchanged; untried boats go by it."""

import io
import json

import pytest

from jolvek.store import enquiries, trials

OFF = {
    "friction_factor": 1.25,
    "wave_factor": 1.1,
    "planing_factor": 1.0,
    "efficiency_factor": 0.95,
    "sigma": {"friction": 0.06, "waves": 0.1, "planing": 0.1, "efficiency": 0.05},
}


@pytest.fixture
def owner(client, conn, pinned):
    pinned.backup(conn)
    client.post("/play", data={"role": "owner"})
    return client


def tried(conn, number, family, factors=OFF):
    trial = trials.begin(conn, number, "A", family, "x", "2026")
    trials.keep_factors(conn, trial, factors)
    return trial


def test_untried_boats_go_by_their_family_once_the_shop_chooses_it(owner, conn):
    family = enquiries.get(conn, 5).need.hull.family
    mine = [tried(conn, n, family) for n in (1, 2, 3)]
    page = owner.get("/families").text
    assert "3 trials" in page and "Go by it" in page
    before = owner.get("/enquiry/5/side-by-side").text
    owner.post("/families", data={"family": family, "do": "use"})
    after = owner.get("/enquiry/5/side-by-side").text
    text = "going by 3 trials of its kind"
    assert text in after and text not in before
    assert text in owner.get("/enquiry/5/shortlist").text.replace("Not yet", "not yet")
    assert enquiries.get(conn, 5).need.hull.friction_factor == 1.0  # the boat herself is untried
    owner.post("/families", data={"trial": f"own-{mine[0]}", "do": "leave"})
    assert "Too few" in owner.get("/families").text
    assert text not in owner.get("/enquiry/5/side-by-side").text
    owner.post("/families", data={"trial": f"own-{mine[0]}", "do": "take"})
    assert text in owner.get("/enquiry/5/offer").text
    owner.post("/families", data={"family": family, "do": "not"})
    assert text not in owner.get("/enquiry/5/side-by-side").text


def take(client, content):
    data = {"file": (io.BytesIO(content), "t.json")}
    result = client.post("/families/take", data=data, content_type="multipart/form-data")
    return client.get(result.headers["Location"]).text


def test_trials_go_to_other_shops_without_names_and_come_in_once(owner, conn):
    tried(conn, 2, "rib")
    out = owner.get("/families/trials.json")
    assert [x["family"] for x in out.json["trials"]] == ["rib"]
    for name in (enquiries.get(conn, 2).title, enquiries.get(conn, 2).customer):
        assert not name or name not in out.text
    assert "1 new trials" in take(owner, out.data)
    assert "0 new trials" in take(owner, out.data)
    assert "2 trials" in owner.get("/families").text
    good = out.json
    for bad in (
        b"not json",
        b"[]",
        json.dumps(good | {"trials": 3}).encode(),
        json.dumps(good | {"trials": [{"family": "boat"}]}).encode(),
        json.dumps(good | {"trials": [good["trials"][0] | {"wave_factor": 99}]}).encode(),
        json.dumps(good | {"trials": [good["trials"][0] | {"sigma": {}}]}).encode(),
    ):
        assert "Not taken" in take(owner, bad)
    assert "choose a file" in owner.post("/families/take", follow_redirects=True).text
