"""Every page by client: it opens, and units follow the user."""

import re

import pytest

OTHERS = (
    "/",
    "/rules",
    "/rules/predictions",
    "/patterns",
    "/find",
    "/find?q=kayak",
    "/catalogue/",
    "/catalogue/batteries",
    "/catalogue/mounts",
    "/catalogue/chargers",
    "/catalogue/panels",
    "/catalogue/propellers",
    "/catalogue/accessories",
    "/catalogue/motors/new",
    "/catalogue/import",
    "/catalogue/export.json",
    "/catalogue/motors/export.csv",
    "/catalogue/motors/compare",
)


@pytest.mark.parametrize("path", OTHERS)
def test_every_page_beside_the_enquiries_opens(client, path):
    assert client.get(path).status_code == 200


def test_units_are_the_users_choice(client):
    client.post(
        "/units",
        data={
            "speed": "km/h",
            "length": "ft",
            "mass": "lb",
            "power": "hp",
            "distance": "km",
            "back": "/rules",
        },
    )
    text = client.get("/enquiry/2/boat").text
    assert (
        "9 ft 6" in text
        and "lb" in text
        and re.search(r"Speed\s*<br><span>km/h", text)
        and 'value="6.5"' in client.get("/enquiry/2/waters").text
    )


def test_units_never_send_one_away(client):
    assert client.post("/units", data={"back": "https://example.org/x"}).location == "/"
    assert client.post("/units", data={"back": "//example.org"}).location == "/"
    assert client.post("/units", data={"back": "/\\\\example.org"}).location == "/"
    assert client.post("/units", data={"back": "//[broken"}).location == "/"
    assert client.post("/units", data={"back": "/catalogue/?q=a"}).location == "/catalogue/?q=a"


@pytest.mark.parametrize(
    "path", ["/nothing", "/enquiry/999/boat", "/enquiry/999/offer", "/enquiry/abc/boat"]
)
def test_what_is_not_there_is_said_without_a_trace(client, path):
    answer = client.get(path)
    assert answer.status_code == 404 and "nothing at this address" in answer.text


@pytest.mark.parametrize(
    ("path", "numbers"),
    [("trial", 12), ("offer", 40), ("aftercare", 3), ("boat", 10)],
)
def test_a_phone_shows_its_number_keys_where_a_number_is_meant(fitted, path, numbers):
    page = fitted.get(f"/enquiry/2/{path}").text
    modes = re.findall(r'inputmode="(\w+)"', page)
    assert sum(x in ("decimal", "numeric") for x in modes) >= numbers
    if path == "boat":  # a length is typed as 12'6", which needs letters and marks
        assert re.search(r'id="length"[^>]*inputmode="text"', page)
