"""Several boats in one job, boats out of the catalogue, hire, add-ons that fit, and claims on the
offer.
"""

import re

import pytest

from jolvek.store import enquiries, jobs, setups
from tests.web.steps import Forms, boat_form, pin


def bare(page):
    return re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", page.text))


def one_more(client, number=1):
    return int(re.search(r"\d+", client.post(f"/enquiry/{number}/boats/add").location)[0])


def test_a_boat_is_added_to_the_job_changed_and_compared(client, conn):
    pin(client, 1)
    client.post("/enquiry/1/choose", data={"letter": "A"})
    number = one_more(client)
    assert [b.id for b in jobs.boats(conn, 1)] == [1, number]
    assert jobs.boats(conn, number) == jobs.boats(conn, 1)
    client.post(f"/enquiry/{number}/boat", data=boat_form(client, number) | {"gear": "30 kg"})
    assert enquiries.get(conn, 1).need.load.gear_kg != 30  # each keeps its own
    result = bare(client.get(f"/enquiry/{number}/boats"))
    assert "2 boats in this job" in result and "none pinned yet" in result
    assert client.post(f"/enquiry/{number}/boats/take", data={"other": 1}).status_code == 303
    mine, theirs = (setups.of_enquiry(conn, n)[0].part("motor") for n in (1, number))
    assert mine.item.id == theirs.item.id
    assert 'aria-label="Boats of this job"' in client.get("/enquiry/1/boat").text
    assert "none pinned yet" not in bare(client.get("/enquiry/1/boats"))


def test_an_adjustable_motor_is_set_anew_for_each_boat_of_the_job(client):
    found = Forms(client.get("/enquiry/1/shortlist").text).forms
    fields = [f["fields"] for f in found if f["action"].endswith("/pin")]
    k7 = next(f for f in fields if f["motor"] == "sievring-k7")
    client.post("/enquiry/1/pin", data={k: v for k, v in k7.items() if k != "csrf_token"})
    client.post("/enquiry/1/choose", data={"letter": "A"})
    number = one_more(client)
    deeper = boat_form(client, number) | {"transom_height": "0.45"}
    client.post(f"/enquiry/{number}/boat", data=deeper)
    client.post(f"/enquiry/{number}/boats/take", data={"other": 1})
    poles = re.findall(r"pole set to\s+([\d.]+)", bare(client.get(f"/enquiry/{number}/boats")))
    assert len(poles) == 2 and float(poles[1]) > float(poles[0])


def test_a_boat_leaves_its_job_and_the_next_one_leads(client, conn):
    numbers = [one_more(client), one_more(client)]
    client.post("/enquiry/1/boats/part")
    assert jobs.boats(conn, 1) == []
    assert [b.id for b in jobs.boats(conn, numbers[0])] == numbers
    for _ in range(jobs.MOST_BOATS - 2):
        one_more(client, numbers[0])
    refused = client.post(f"/enquiry/{numbers[0]}/boats/add")
    assert refused.status_code == 422 and "at most 8 boats" in refused.text


@pytest.mark.parametrize("other", ["2", "banana", "1"])
def test_a_setup_is_taken_from_a_boat_of_the_same_job_alone(client, other):
    assert client.post("/enquiry/1/boats/take", data={"other": other}).status_code == 404


def test_a_boat_without_a_setup_has_none_to_give(client):
    answer = client.post("/enquiry/1/boats/take", data={"other": one_more(client)})
    assert answer.status_code == 422 and "no current setup" in answer.text


def test_a_model_that_is_typed_is_offered_and_taken_with_its_year(client, conn):
    typed = boat_form(client, 1) | {"model": "Merle Angler 375", "model_year": "2016"}
    saved = client.post("/enquiry/1/boat", data=typed, headers={"HX-Request": "true"}).text
    assert "stands in the catalogue" in saved and "Take its sizes and plate" in saved
    assert '<option value="Merle Angler 375">' in client.get("/enquiry/1/boat").text
    client.post("/enquiry/1/boat/model", data={"model": "Merle Angler 375"})
    site = enquiries.get(conn, 1).need.site
    assert (site.places, site.fin_box, site.approval_to_year) == (("rail",), "side", 2018)
    assert "stands in the catalogue" not in client.get("/enquiry/1/boat").text
    refused = client.post("/enquiry/1/boat/model", data={"model": "Nobody's"})
    assert refused.status_code == 422 and "no such boat in the catalogue" in refused.text


def test_all_that_is_asked_of_a_boat_comes_back(client, conn):
    asked = {"rudder": "0.2", "rudder_depth": "0.45", "helm": "1.2", "canopy": "1.5"}
    asked |= {"hull_slope": "4", "fin_box": "long", "chambers": "air floor", "registration": "y"}
    form = boat_form(client, 1) | asked
    form.pop("rudder_lifts")
    client.post("/enquiry/1/boat", data=form)
    need = enquiries.get(conn, 1).need
    site = need.site
    assert (site.rudder_depth_m, site.helm_ahead_m, need.hull.canopy_m2) == (0.45, 1.2, 1.5)
    assert (site.hull_slope_deg, site.fin_box, site.chambers) == (4.0, "long", "air floor")
    assert site.registration and not site.rudder_lifts and boat_form(client, 1)["helm"] == "1.2"
    for name, wrong in (("fin_box", "tall"), ("canopy", "wide"), ("hull_slope", "60")):
        page = client.post("/enquiry/1/boat", data=boat_form(client, 1) | {name: wrong})
        assert page.status_code == 422, name


def test_a_hire_boats_season_is_told_and_too_many_runs_are_a_caution(fitted):
    form = boat_form(fitted, 2, "waters") | {"runs": "2", "days": "100"}
    assert "A season takes" not in bare(fitted.get("/enquiry/2/waters"))
    fitted.post("/enquiry/2/waters", data=form)
    result = bare(fitted.get("/enquiry/2/waters"))
    assert "2 are needed between charges. A season takes" in result and "cycles" in result
    assert "2 runs on one charge take" in result and "The day takes" not in result
    assert "This is run 2 of 2 on one charge" in bare(fitted.get("/enquiry/2/day-out"))
    assert "does 1 of the 2 runs on one charge" in bare(
        fitted.get("/enquiry/2/side-by-side?by=day")
    )
    assert "This is run 2 of 2 on one charge" in bare(fitted.get("/enquiry/2/offer"))
    fitted.post("/enquiry/2/waters", data=form | {"start_charge": "80"})
    assert 'value="80"' in fitted.get("/enquiry/2/waters").text
    out = fitted.get("/enquiry/2/day-out")
    assert "the earlier ones leave" in bare(out) and 'placeholder="80"' in out.text
    fitted.post("/enquiry/2/waters", data=form | {"start_charge": "80", "runs": "1"})
    assert "The boat sets out with 80 % of the charge" in bare(fitted.get("/enquiry/2/day-out"))
    fitted.post("/enquiry/2/waters", data=form | {"runs": "40"})
    assert "are needed between charges" in bare(fitted.get("/enquiry/2/waters"))
    refused = fitted.post("/enquiry/2/waters", data=form | {"runs": "many"})
    assert refused.status_code == 422 and "read “many”" in refused.text


def test_waiting_out_there_is_kept_and_costs_what_else_is_on(client, conn):
    form = boat_form(client, 1, "waters") | {"hotel": "60"}
    client.post("/enquiry/1/waters", data=form)
    before = client.get("/enquiry/1/waters").text
    client.post("/enquiry/1/waters", data=form | {"standby": "3 h"})
    day = enquiries.get(conn, 1).need.day
    assert day.standby_s == 10800 == day.trip[0].hold_s
    assert client.get("/enquiry/1/waters").text != before
    client.post("/enquiry/1/waters", data=form | {"standby": ""})
    assert enquiries.get(conn, 1).need.day.standby_s == 0


def test_an_add_on_that_does_not_go_says_why_and_is_refused(fitted, conn):
    page = fitted.get("/enquiry/2/side-by-side").text
    result = re.findall(r'<option value="([^"]+)"\s+disabled>([^<]+)<', page)
    wrong = next(x for x, words in result if "made for other motors" in words)
    answer = fitted.post("/enquiry/2/extra", data={"letter": "A", "product": wrong})
    assert answer.status_code == 422 and "made for other motors" in answer.text
    right = re.search(r'aria-label="Add-on for A">\s*<option value="([^"]+)"\s*>', page)[1]
    assert fitted.post("/enquiry/2/extra", data={"letter": "A", "product": right}).location
    assert [x.item.id for x in setups.of_enquiry(conn, 2)[0].extras] == [right]


def test_what_the_makers_say_goes_on_the_offer_and_off_again(fitted):
    assert "what the makers say" not in fitted.get("/enquiry/2/offer").text
    assert fitted.post("/enquiry/2/offer/claims").status_code == 303
    assert "A: what the makers say, and what holds" in fitted.get("/enquiry/2/offer").text
    fitted.post("/enquiry/2/offer/claims")
    assert "what the makers say" not in fitted.get("/enquiry/2/offer").text


def test_a_time_at_half_power_is_held_against_the_energy_it_takes(client):
    page = bare(client.get("/catalogue/motors/item/ovrek-p45"))
    assert "80 min at half power take at least 300 Wh" in page


def test_the_full_table_tells_warranty_water_display_and_box(fitted):
    page = bare(fitted.get("/enquiry/2/side-by-side"))
    for name in ("warranty", "water protection (IP)", "its display tells", "in the box"):
        assert name in page


def test_how_she_is_worked_is_kept_and_told_on_every_tab(fitted, conn):
    form = {"setup": "A", "throttle": "cable", "cable": "2.5 m", "tab": "drawing"}
    assert fitted.post("/enquiry/5/fitting", data=form).status_code == 303
    kept = setups.of_enquiry(conn, 5)[0].fitting
    assert (kept.throttle, kept.throttle_m, kept.locked) == ("cable", 2.5, False)
    assert "Nobody said where the boat is steered from" in bare(fitted.get("/enquiry/5/fitting"))
    fitted.post("/enquiry/5/boat", data=boat_form(fitted, 5) | {"helm": "3.5"})
    result = bare(fitted.get("/enquiry/5/fitting"))
    assert "Throttle’s cable" in result and "2.5 m were set" in result
    assert "throttle cable" in bare(fitted.get("/enquiry/5/fitting?tab=sheet"))
    wrong = fitted.post("/enquiry/5/fitting", data=form | {"cable": "long"})
    assert wrong.status_code == 422 and "read “long”" in wrong.text
    assert setups.of_enquiry(conn, 5)[0].fitting.throttle_m == 2.5
    refused = fitted.post("/enquiry/5/fitting", data=form | {"throttle": "string"})
    assert refused.status_code == 422


def test_the_bank_goes_to_the_bay_that_is_chosen_and_back(fitted, conn):
    last = enquiries.get(conn, 5).need.site.bays[-1].name
    form = {"setup": "A", "throttle": "", "bay": last, "tab": "drawing"}
    fitted.post("/enquiry/5/fitting", data=form)
    assert setups.of_enquiry(conn, 5)[0].fitting.bay == last
    page = fitted.get("/enquiry/5/fitting").text
    assert re.search(rf'<option value="{last}"\s+selected', page)
    fitted.post("/enquiry/5/fitting", data=form | {"bay": ""})
    assert setups.of_enquiry(conn, 5)[0].fitting.bay == ""
    assert fitted.post("/enquiry/5/fitting", data=form | {"bay": "attic"}).status_code == 422


CLICKS_BEFORE = 6  # to an offer, after four figures were typed, in 0.5


def followed(client, address, link):
    """The address that a page's link or form of those words leads to; there must be one."""
    html = client.get(address).text
    found = re.search(rf'(?:href|action)="([^"]*{link}[^"]*)"', html)
    assert found, (address, link)
    return found[1].replace("&amp;", "&").split("#")[0]


@pytest.mark.parametrize("number", range(1, 7))
def test_every_demo_enquiry_is_an_offer_and_a_sheet_in_fewer_clicks(client, number):
    at = followed(client, "/", f"/enquiry/{number}/")
    way = [at] if "/shortlist" in at else [at, followed(client, at, "/shortlist")]
    way.append(followed(client, way[-1], f"/enquiry/{number}/pin"))
    pin(client, number)
    offered = followed(client, way[-2], f"/enquiry/{number}/choose")  # on the boat card
    sheet = followed(client, followed(client, way[-2], "/fitting"), "tab=sheet")
    text = client.get(sheet).text
    assert "data-print" in text and "Not ready" not in text
    assert len([*way, "fitting", "sheet", "print"]) <= CLICKS_BEFORE
    chosen = client.post(offered, data={"letter": "A", "then": "offer"}).location
    assert chosen.endswith("/offer") and "data-print" in client.get(chosen).text
    assert len([*way, "offer", "print"]) < CLICKS_BEFORE


def test_what_is_set_on_fitting_stands_on_the_offer(fitted, conn):
    form = {"setup": "A", "throttle": "cable", "cable": "4 m", "tab": "drawing"}
    fitted.post("/enquiry/5/fitting", data=form)
    assert "throttle cable (4.0 m)" in bare(fitted.get("/enquiry/5/offer"))


def test_an_extension_lead_is_the_run_and_unticks_nothing(fitted, conn):
    clips = next(
        (n for n in range(1, 7) for p in setups.of_enquiry(conn, n) if on_its_motor(p)), None
    )
    assert clips is not None
    letter = next(p.letter for p in setups.of_enquiry(conn, clips) if on_its_motor(p))
    address = f"/enquiry/{clips}/fitting"
    form = {"setup": letter, "throttle": "", "lead": "3 m", "tab": "drawing"}
    fitted.post(address, data=form)
    page = bare(fitted.get(f"{address}?tab=wiring&setup={letter}"))
    assert "By an extension lead of 3 m" in page and "Bank to motor, one way" not in page
    plan = {"setup": letter, "take": "diagonal", "school": "converter", "engine": "1"}
    fitted.post(address, data=plan)
    fitted.post(address, data={k: v for k, v in plan.items() if k != "engine"})
    kept = next(p for p in setups.of_enquiry(conn, clips) if p.letter == letter).fitting
    assert (kept.lead_m, kept.run_m, kept.engine_space) == (3.0, None, False)


def on_its_motor(p):
    return p.part("battery").item.id in p.part("motor").item.pack_ids


BY_HAND_BEFORE = 14  # to an offer in 0.5


@pytest.mark.parametrize("number", [2, 5])
def test_a_setup_by_hand_is_an_offer_in_fewer_clicks(client, conn, number):
    way = [followed(client, "/", f"/enquiry/{number}/")]
    if "/shortlist" not in way[0]:
        way.append(followed(client, way[0], "/shortlist"))
    way.append(followed(client, way[-1], "/by-hand"))
    pin(client, number)  # what is pinned by hand below is what the list would pin
    parts = {p.kind: p.item.id for p in setups.of_enquiry(conn, number)[0].parts}
    first = setups.of_enquiry(conn, number)[0]
    bank = f"{parts['battery']}|{first.series}|{first.parallel}"
    chosen = {"motor": parts["motor"], "bank": bank, "mount": parts["mount"]}
    chosen |= {"charger": parts["charger"]}
    query = "&".join(f"{k}={v}" for k, v in chosen.items())
    asked = way[-1].split("?")[0]
    assert followed(client, f"{asked}?{query}", f"/enquiry/{number}/pin")
    assert client.post(f"/enquiry/{number}/pin", data=chosen).status_code == 303
    offered = followed(client, asked, f"/enquiry/{number}/choose")  # on the boat card
    assert client.post(offered, data={"letter": "B", "then": "offer"}).location.endswith("/offer")
    assert len(way) + 2 * len(chosen) + len(["pin", "offer"]) < BY_HAND_BEFORE
