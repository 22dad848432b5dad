"""What is set on Fitting stays with the setup, on every page and after taking it off and back."""

import re

import pytest

from jolvek.core.fit.as_set import AS_PLANNED
from jolvek.store import setups
from tests.web.steps import Forms, pin


def of(conn, number=2):
    return setups.of_enquiry(conn, number)[0]


def keep(client, number=2, **data):
    return client.post(f"/enquiry/{number}/fitting", data=data)


def test_a_battery_moved_is_moved_on_every_page(fitted, conn):
    before = fitted.get("/enquiry/2/fitting").text
    assert "before the move" not in before
    assert keep(fitted, **{"w-battery": "2.10"}).status_code == 303
    assert of(conn).fitting.places == (("battery", 2.1),)
    after = fitted.get("/enquiry/2/fitting").text
    assert "before the move" in after and 'value="2.10"' in after
    trim = re.search(r"<dt>Trim</dt>\s*<dd>(.*?)</dd>", after, re.S)
    assert trim is None or trim[1] not in before


def test_back_as_planned_is_for_one_thing_alone(fitted, conn):
    keep(fitted, **{"w-battery": "2.10", "w-person-1": "0.60", "run": "3.5 m"})
    keep(fitted, back="w-battery")
    kept = of(conn).fitting
    assert kept.places == (("person 1", 0.6),) and kept.run_m == 3.5
    html = fitted.get("/enquiry/2/fitting").text
    assert html.count(">as planned<") == 1


def test_a_slider_that_stands_as_planned_keeps_nothing(fitted, conn):
    forms = Forms(fitted.get("/enquiry/2/fitting").text)
    fields = forms.by_id["fit-form"]["fields"]
    fields.pop("csrf_token", None)
    assert keep(fitted, **fields).status_code == 303
    assert of(conn).fitting == AS_PLANNED


@pytest.mark.parametrize(
    ("data", "told"),
    [
        ({"w-battery": "bow"}, "bow"),
        ({"w-battery": "44"}, "44"),
        ({"run": "banana"}, "banana"),
        ({"pin": "9"}, "9"),
        ({"shaft": "0.4"}, "0.4"),
        ({"school": "hope"}, "hope"),
    ],
)
def test_a_refused_field_is_told_and_the_rest_is_kept(fitted, conn, data, told):
    answer = keep(fitted, **{"w-person-1": "0.60"} | data)
    assert answer.status_code == 422 and f"read “{told}”" in answer.text
    assert of(conn).fitting.places == (("person 1", 0.6),)


def test_the_wiring_stays_and_the_sheet_and_the_address_can_try_another(fitted, conn):
    form = {"tab": "wiring", "run": "4 m", "take": "bars", "load": "5", "hours": "3"}
    keep(fitted, **form, school="converter", engine="1")
    kept = of(conn).fitting
    assert (kept.run_m, kept.take_off, kept.load_a, kept.load_h) == (4.0, "bars", 5.0, 3.0)
    assert kept.engine_space
    html = fitted.get("/enquiry/2/fitting?tab=wiring").text
    assert 'value="4 m"' in html and re.search(r'name="engine"\s+value="1"\s+checked', html)
    assert 'value="6 m"' in fitted.get("/enquiry/2/fitting?tab=wiring&run=6 m").text
    keep(fitted, **form, school="converter")  # a box that is not ticked is not sent
    assert not of(conn).fitting.engine_space and of(conn).fitting.run_m == 4.0


def test_a_setup_taken_off_comes_back_as_it_was_fitted(fitted, conn):
    keep(fitted, **{"w-battery": "2.10", "run": "3.5 m"})
    kept, letter = of(conn).fitting, of(conn).letter
    page = fitted.post("/enquiry/2/unpin", data={"letter": letter}, follow_redirects=True).text
    undo = next(
        f for f in Forms(page).forms if f["action"].endswith("/pin") and "fitting" in f["fields"]
    )
    undo["fields"].pop("csrf_token", None)
    fitted.post("/enquiry/2/pin", data=undo["fields"])
    back = next(p for p in setups.of_enquiry(conn, 2) if p.letter == letter)
    assert back.fitting == kept


def test_a_fitting_that_cannot_be_read_leaves_the_setup_to_be_taken_off(fitted, conn):
    text = '{"format": "jolvek-fitting", "version": 1, "value": {"run_m": 99}}'
    with conn:
        conn.execute("UPDATE setup SET fitting = :t WHERE id = :id", {"t": text, "id": of(conn).id})
    result = fitted.get("/enquiry/2/side-by-side")
    assert result.status_code == 200 and "fitting.run_m" in result.text


def test_a_pole_is_set_by_hand_and_goes_back(fitted, conn):
    number = next(n for n in range(1, 7) if of(conn, n).shaft_m is None)
    usual = fitted.get(f"/enquiry/{number}/fitting").text
    assert "Pole below its clamp" in usual and ">as planned<" not in usual
    keep(fitted, number, pole="0.700")
    assert of(conn, number).fitting.pole_m == 0.7
    assert "on a shaft of 700 mm" in fitted.get(f"/enquiry/{number}/fitting").text
    keep(fitted, number, back="pole")
    assert of(conn, number).fitting == AS_PLANNED


def shown(client, tab="drawing", form="fit-form"):
    """What a tab opened now would send."""
    fields = Forms(client.get(f"/enquiry/2/fitting?tab={tab}").text).by_id[form]["fields"]
    return {k: v for k, v in fields.items() if k != "csrf_token"}


def test_two_tabs_keep_what_each_of_them_moved(fitted, conn):
    mine, theirs = shown(fitted), shown(fitted)
    keep(fitted, **mine | {"w-battery": "2.10"})
    keep(fitted, **theirs | {"w-person-1": "0.60"})
    assert dict(of(conn).fitting.places) == {"battery": 2.1, "person 1": 0.6}
    wires, others = shown(fitted, "wiring", "wiring-form"), shown(fitted, "wiring", "wiring-form")
    keep(fitted, **wires | {"run": "4 m", "engine": "1"})
    answer = fitted.post(
        "/enquiry/2/fitting", data=others | {"load": "5"}, headers={"HX-Request": "true"}
    ).text
    kept = of(conn).fitting
    assert (kept.run_m, kept.load_a, kept.engine_space) == (4.0, 5.0, True)
    assert dict(kept.places) == {"battery": 2.1, "person 1": 0.6}
    assert Forms(answer).by_id["wiring-form"]["fields"]["run"] == "4 m"  # as it now is
    keep(fitted, **shown(fitted), back="w-battery")
    assert of(conn).fitting.places == (("person 1", 0.6),)


def test_a_form_keeps_with_the_setup_it_was_filled_for(fitted, conn):
    mine = shown(fitted)
    pin(fitted, 2, 1)
    other = next(p.letter for p in setups.of_enquiry(conn, 2) if p.letter != mine["setup"])
    fitted.post("/enquiry/2/choose", data={"letter": other})
    keep(fitted, **mine | {"w-battery": "2.10"})
    kept = {p.letter: p.fitting.places for p in setups.of_enquiry(conn, 2)}
    assert kept[mine["setup"]] == (("battery", 2.1),) and kept[other] == ()
    fitted.post("/enquiry/2/unpin", data={"letter": mine["setup"]})
    assert keep(fitted, **mine).status_code == 404


@pytest.mark.parametrize("seen", ["{", "[1]", '{"shaft_m": 1}', "[" * 9000, '{"fitting": 3}'])
def test_a_form_that_does_not_say_what_it_showed_is_told_so(fitted, conn, seen):
    answer = keep(fitted, **{"seen": seen, "w-person-1": "0.60"})
    assert answer.status_code == 422 and "load the page again" in answer.text
    assert of(conn).fitting.places == (("person 1", 0.6),)


def test_opening_and_keeping_in_feet_sets_nothing(fitted, conn):
    fitted.post("/units", data={"length": "ft"})
    wires = shown(fitted, "wiring", "wiring-form")
    assert wires["run"] == ""  # nobody measured it
    keep(fitted, **wires)
    keep(fitted, **shown(fitted))
    assert of(conn).fitting == AS_PLANNED
