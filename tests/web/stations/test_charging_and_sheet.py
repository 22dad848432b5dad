"""Charging as a plan on Waters and Day out, every finding on Fitting, and a sheet that is not
ready.
"""

import html
import re
from dataclasses import replace

import pytest

from jolvek.core.fit.rule_reach import can_speak
from jolvek.core.rules.rulebook import ELECTRIC, RULES
from jolvek.store import enquiries, setups
from jolvek.store import shelf as shelf_store
from jolvek.web.kit.worked import work_out
from tests.web.steps import boat_form, pin

NUMBER = 5


@pytest.fixture
def fitted(client):
    pin(client, NUMBER)
    client.post(f"/enquiry/{NUMBER}/choose", data={"letter": "A"})
    return client


def changed(conn, **day):
    def make(e):
        return replace(e, need=replace(e.need, day=replace(e.need.day, **day)))

    enquiries.change(conn, NUMBER, make, "2026")


def sited(conn, **site):
    def make(e):
        return replace(e, need=replace(e.need, site=replace(e.need.site, **site)))

    enquiries.change(conn, NUMBER, make, "2026")


def plain(answer):
    return html.unescape(re.sub(r"<[^>]+>", "", answer.text)).replace("\u202f", " ")


def worked(conn):
    need = enquiries.get(conn, NUMBER).need
    return work_out(need, setups.of_enquiry(conn, NUMBER)[0])


def test_what_is_typed_of_the_quay_and_the_dock_is_kept(client, conn):
    form = boat_form(client, NUMBER, "waters")
    form |= {"shore_limit": "2300 W", "charges": "2", "dock_solar": "1.2 kW"}
    form |= {"dock_battery": "5000", "own_charger": "58.4"}
    assert client.post(f"/enquiry/{NUMBER}/waters", data=form).status_code == 303
    day = enquiries.get(conn, NUMBER).need.day
    assert (day.shore_limit_w, day.charges_per_day, day.dock_solar_w) == (2300.0, 2, 1200.0)
    assert (day.dock_battery_wh, day.own_charger_v) == (5000.0, 58.4)
    again = boat_form(client, NUMBER, "waters")
    assert again["charges"] == "2" and again["own_charger"] == "58.4"


@pytest.mark.parametrize(
    ("field", "value"),
    [("shore_limit", "20 W"), ("charges", "0"), ("charges", "1.5"), ("own_charger", "lots")],
)
def test_what_cannot_be_is_refused_at_its_field(client, field, value):
    form = {**boat_form(client, NUMBER, "waters"), field: value}
    answer = client.post(f"/enquiry/{NUMBER}/waters", data=form)
    assert answer.status_code == 422 and f'name="{field}" value="{value}"' in answer.text


@pytest.mark.parametrize("station", ["waters", "day-out"])
def test_the_plan_stands_on_waters_and_on_day_out(fitted, conn, station):
    changed(conn, dock_solar_w=1200.0, dock_battery_wh=5000.0, solar_w=400.0, shore_limit_w=500.0)
    text = plain(fitted.get(f"/enquiry/{NUMBER}/{station}"))
    assert "From shore a charge takes" in text and "held back by the quay" in text
    assert "The panels aboard give" in text and "December" in text and "Charges a day" in text


def test_without_a_setup_in_hand_there_is_no_plan(client):
    assert "a charge takes" not in plain(client.get(f"/enquiry/{NUMBER}/waters"))


def test_without_shore_power_it_is_said(fitted, conn):
    changed(conn, shore_power=False)
    text = plain(fitted.get(f"/enquiry/{NUMBER}/day-out"))
    assert "No shore power" in text and "Reserve to full" not in text


def test_she_sets_out_with_the_charge_that_is_typed(fitted):
    text = plain(fitted.get(f"/enquiry/{NUMBER}/day-out?charge=98"))
    full = plain(fitted.get(f"/enquiry/{NUMBER}/day-out"))
    left = [int(re.search(r"with (\d+)\s*% of the charge", t)[1]) for t in (text, full)]
    assert left[1] - left[0] == pytest.approx(2, abs=1)
    refused = fitted.get(f"/enquiry/{NUMBER}/day-out?charge=200")
    assert refused.status_code == 422 and "allowed is" in plain(refused)


def test_every_finding_stands_on_one_tab_of_fitting_and_all_on_the_sheet(fitted, conn):
    changed(conn, temperature_c=36.0, max_lift_kg=5.0, charge_h=1.0)
    sited(conn, petrol_aboard=True)
    w = worked(conn)
    assert {f.level for f in w.findings} >= {"caution", "note"} and len(w.findings) > 8
    tabs = {
        tab: fitted.get(f"/enquiry/{NUMBER}/fitting?tab={tab}").text
        for tab in ("drawing", "wiring")
    }
    for f in w.findings:
        tab = "wiring" if RULES[f.rule].topic in ELECTRIC else "drawing"
        assert f"#{f.rule}" in tabs[tab], f.rule
    for f in w.fitted.precautions:
        assert f"#{f.rule}" in tabs["wiring"], f.rule
    sheet = plain(fitted.get(f"/enquiry/{NUMBER}/fitting?tab=sheet"))
    for f in (*w.findings, *w.fitted.precautions):
        assert RULES[f.rule].cure[:20].split("{")[0] in sheet, f.rule


def test_a_sheet_with_a_stop_is_not_ready_on_screen_and_on_paper(fitted, conn, monkeypatch):
    page = f"/enquiry/{NUMBER}/fitting"
    assert "Not ready" not in plain(fitted.get(f"{page}?tab=sheet"))
    sited(conn, max_people=1)
    text = plain(fitted.get(f"{page}?tab=sheet"))
    assert "Not ready." in text and "the plate allows 1" in text
    top = text.index("Not ready: do not begin")
    assert top < text.index("the plate allows 1", top) < text.index("Order of work")
    printed = []

    class Paper:
        def __init__(self, string, **_more):
            printed.append(string)

        def write_pdf(self, **_more):
            return b"%PDF-"

    monkeypatch.setattr("weasyprint.HTML", Paper)
    assert fitted.get(f"{page}/sheet.pdf").status_code == 200
    assert "<h1>Not ready: Fitting sheet" in printed[0] and "the plate allows 1" in printed[0]


def test_a_gauge_among_the_add_ons_counts_and_draws_its_shunt(fitted, conn):
    def rules():
        return {f.rule for f in worked(conn).findings}

    page = f"/enquiry/{NUMBER}/fitting?tab=wiring"
    before = fitted.get(page).text
    fitted.post(f"/enquiry/{NUMBER}/extra", data={"letter": "A", "product": "lodvern-gauge"})
    assert "gauge-lithium" in rules() and "gauge-missing" not in rules()
    fitted.post(f"/enquiry/{NUMBER}/extra", data={"letter": "A", "product": "lodvern-shunt"})
    assert not rules() & {"gauge-lithium", "gauge-missing"}
    assert "shunt" in fitted.get(page).text and "minus bar" in before


def test_panels_among_the_add_ons_are_drawn_with_their_chain(fitted, conn, shelf):
    panel = shelf.panels[0]
    assert "sun controller" not in fitted.get(f"/enquiry/{NUMBER}/fitting?tab=wiring").text
    fitted.post(f"/enquiry/{NUMBER}/extra", data={"letter": "A", "product": panel.id})
    assert worked(conn).fitted.plan.solar_w == panel.spec.rated_w
    text = fitted.get(f"/enquiry/{NUMBER}/fitting?tab=wiring").text
    assert "sun controller" in text and "fuse-panel" in text and "fuse-sun" in text
    parts = plain(fitted.get(f"/enquiry/{NUMBER}/fitting?tab=sheet"))
    assert "controller, sun controller" in parts


def offered(conn, controller):
    shelf_store.change(conn, [("controllers", controller)], "edit", "2026")


def test_a_sun_controller_among_the_add_ons_is_judged_drawn_and_counted(fitted, conn, shelf):
    def add(product):
        fitted.post(f"/enquiry/{NUMBER}/extra", data={"letter": "A", "product": product.id})
        f = worked(conn).fitted
        return {x.rule for x in [*f.findings, *f.precautions] if x.rule.startswith("sun-")}, f

    low = replace(shelf.controllers[0].spec, bank_max_v=12.0, output_a=1.0, chemistries=("agm",))
    offered(conn, replace(shelf.controllers[0], spec=low))
    assert add(shelf.panels[2])[0] == {"sun-controller-none"}
    found, f = add(shelf.controllers[0])
    assert {"sun-bank", "sun-chemistry", "sun-amps"} <= found
    assert pytest.approx(f.bank.nominal_v) == f.plan.solar_w < shelf.panels[2].spec.rated_w
    text = fitted.get(f"/enquiry/{NUMBER}/fitting?tab=wiring").text
    assert shelf.controllers[0].spec.name in text or shelf.controllers[0].name in text
    assert "Take a sun controller for this voltage." in text


def test_a_spare_of_a_wired_bank_is_refused_in_words(fitted):
    text = plain(fitted.get(f"/enquiry/{NUMBER}/day-out?spare=1"))
    assert "No spare: this bank is wired in" in text


def test_the_rule_book_tells_examples_and_what_can_speak_here(client, shelf):
    text = plain(client.get("/rules"))
    here, total = map(int, re.search(r"(\d+) of (\d+)\s+can\s+speak", text).groups())
    assert "{" not in text and total == len(RULES)
    assert here == sum(can_speak(rule, shelf) for rule in RULES) < total


def test_panels_asked_for_and_added_count_once_and_no_more_than_the_controller_passes(
    fitted, conn, shelf
):
    """What Waters asks for is what the add-ons are; the larger counts, through the controller."""
    small = shelf.controllers[0]
    small = replace(small, spec=replace(small.spec, output_a=2.0))
    offered(conn, small)
    changed(conn, solar_w=500.0)
    assert worked(conn).fitted.solar_w == 500
    for product in (shelf.panels[0], small):
        fitted.post(f"/enquiry/{NUMBER}/extra", data={"letter": "A", "product": product.id})
    w = worked(conn)
    assert w.fitted.solar_w == pytest.approx(2.0 * w.fitted.bank.nominal_v)
    result = next(x for x in w.fitted.findings if x.rule == "sun-amps")
    assert dict(result.values)["watts"] == 500
