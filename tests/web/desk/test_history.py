"""History and the note of another window speak the reader's words and units, never keys or SI."""

import re
from dataclasses import fields, replace

import pytest

from jolvek.core.enquiry.enquiry import Enquiry, as_plain
from jolvek.core.enquiry.need import Day, Leg
from jolvek.core.enquiry.site import Site
from jolvek.core.hydro.hull import Hull, Load
from jolvek.store import enquiries, versions
from jolvek.web.desk.history.named import field_name, field_text
from tests.web.steps import boat_form

HERE = "/enquiry/2/history"
RAW = re.compile(r"\b\w+_(?:kg|m_s|m|w|n|h|s|c|deg|v|wh)\b|\b(?:m s|people kg|speed m)\b")


def test_what_was_changed_stands_in_words_and_units_and_what_followed_at_the_setup(fitted, conn):
    fitted.post("/units", data={"speed": "km/h", "mass": "lb"})
    fitted.post("/enquiry/2/waters", data=boat_form(fitted, 2, "waters") | {"speed": "7.4"})
    fitted.post("/enquiry/2/boat", data=boat_form(fitted, 2, "boat") | {"gear": "120"})
    page = fitted.get(HERE).text
    assert re.search(r"Wanted speed: \d[\d.]*.km/h → 7\.4.km/h", page), page
    assert re.search(r"Gear: [\d.]+.lb → 120.lb", page), page
    assert not RAW.search(re.sub(r"<[^>]+>", " ", page))
    newest = versions.of_enquiry(conn, 2)[0]
    text = fitted.get(f"{HERE}?of={newest.id}").text
    assert "For setup A:" in text and re.search(r"Range at the wanted speed.*?→", text)
    assert fitted.get(f"{HERE}?of=999999").status_code == 200


@pytest.mark.parametrize("language", ["en", "de"])
def test_every_field_of_an_enquiry_has_a_label_and_a_text(app, client, conn, language):
    e = enquiries.get(conn, 5).enquiry
    legs = (Leg("out", 2.0, 4000.0), Leg("home", 2.0, 4000.0))
    day = replace(e.need.day, legs=legs, budgets=(700.0, 1400.0), standby_s=600.0)
    load = replace(e.need.load, seat_kg=(80.0, 60.0))
    plain = as_plain(replace(e, need=replace(e.need, day=day, load=load)))
    records = {"hull": Hull, "load": Load, "site": Site, "day": Day}
    with app.test_request_context(headers={"Cookie": f"language={language}"}):
        for part, record in records.items():
            for field in fields(record):
                result = field_text(f"{part}.{field.name}", plain[part].get(field.name))
                assert field_name(f"{part}.{field.name}") not in ("", "–"), field.name
                assert result and not RAW.search(result), (field.name, result)
        for key in Enquiry.TEXTS:
            assert field_name(key)
        assert field_text("day.charge_h", 10.0).startswith("10")
        assert "2" in field_text("day.legs", plain["day"]["legs"])
