"""Each kind of boat of the trade from first call to rigger's sheet, as an advisor would: what
a practitioner would say of it is said.
"""

import re
from dataclasses import replace

import pytest

from jolvek import demo
from jolvek.core.enquiry.need import Day, Leg, Need
from jolvek.core.enquiry.site import Bay, Site
from jolvek.core.hydro.hull import Hull, Load
from jolvek.store import enquiries as store
from jolvek.store import setups
from tests.web.steps import Forms

SHELF = demo.shelf()


@pytest.fixture
def job(client, conn):
    """Keeps a need as an enquiry; gives what a page of it says, and pins the named motor."""

    class Job:
        number = 0

        def begin(self, need, title="A job"):
            first = demo.enquiries()[0]
            with conn:
                made = replace(first, title=title, need=need)
                self.number = store.add(conn, made, "2026-11-26T09:00:00")
            return self

        def page(self, path, **data):
            there = f"/enquiry/{self.number}/{path}"
            answer = client.post(there, data=data) if data else client.get(there)
            assert answer.status_code in (200, 303), (path, answer.status_code)
            return answer.text

        def says(self, path):
            return re.sub(r"\s+", " ", re.sub(r"<[^>]+>", " ", self.page(path)))

        def pin(self, motor="", query=""):
            forms = Forms(self.page(f"shortlist?{query}")).forms
            fields = [f["fields"] for f in forms if f["action"].endswith("/pin")]
            mine = next(f for f in fields if motor in f["motor"])
            mine.pop("csrf_token", None)
            self.page("pin", **mine)
            setup = setups.of_enquiry(conn, self.number)[-1]
            self.page("choose", letter=setup.letter)
            return setup

        def sheet(self):
            text = self.says("fitting?tab=sheet")
            assert "Unpack, compare with the parts list" in text and "Not ready" not in text
            return text

    return Job()


def kayak(**site):
    places = ("rail", "stern_deck", "fin_box")
    bay = (Bay("tank well", 0.6, 0.4, 0.3, 15, 0.6),)
    return Need(
        Hull("kayak", 3.8, 0.78, 30), Load(1), Site(places, bay, **site), day=Day(1.8, 6000)
    )


def test_a_kayak_is_told_of_three_mounts_and_what_each_takes(job):
    job.begin(kayak()).pin("sievring-k7")
    mounts = job.says("fitting?tab=mounts")
    for name, takes in (
        ("Side bar", "paddling room"),
        ("Stern plate", "pedals"),
        ("Fin-box", "fin"),
    ):
        assert name in mounts and takes in mounts
    fitting = job.says("fitting")
    assert "Pull to one side" not in fitting or "paddle" in fitting
    assert "the rudder holds her" not in fitting  # there is none
    job.sheet()


def test_a_board_with_a_fin_box_takes_a_fin_motor_that_stays_down(job):
    bay = (Bay("deck bag", 0.5, 0.35, 0.3, 16, 1.4),)
    board = Need(Hull("board", 3.4, 0.82, 11), Load(1), Site(("fin_box",), bay), day=Day(1.3, 3000))
    setup = job.begin(board).pin("sievring-f4")
    assert setup.part("mount").item.spec.kind == "fin_box" and setup.shaft_m is None
    fitting = job.says("fitting")
    assert "below the hull" in fitting and "fixed: lift the stern" in fitting
    assert "shallow drive" not in fitting and "Pole below its clamp" not in fitting
    assert "fixed" in job.says("side-by-side")
    job.sheet()


def test_a_pole_motor_against_the_current_is_told_where_it_does_not_hold(job):
    need = replace(kayak(), day=Day(1.6, 4000, current_m_s=0.8))
    job.begin(need).pin("ovrek-p25")
    table = job.says("side-by-side")
    assert "Against the current" in table and "does not hold" in table


def test_a_sailing_dinghys_rudder_keeps_motors_off_its_sweep_and_her_battery_goes_to_its_thwart(
    job,
):
    bays = (Bay("under the thwart", 0.7, 0.4, 0.25, 30, 2.2),)
    site = Site(("transom",), bays, rudder_chord_m=0.2)
    need = Need(Hull("sailing_dinghy", 4.9, 1.8, 170), Load(2), site, day=Day(1.8, 8000))
    setup = job.begin(need).pin()
    assert setup.part("mount").item.spec.kind == "offset_bracket"
    assert "rudder" in job.says("shortlist")
    assert "battery" in job.says("fitting") and "2.20" in job.page("fitting")
    job.sheet()


def test_a_keel_boat_with_a_pod_is_told_of_its_wedge_and_of_the_keel(job):
    hull = Hull("keelboat", 7.2, 2.4, 1600, keel_draught_m=1.2)
    site = Site(("hull_bottom",), (Bay("engine box", 1.0, 0.6, 0.5, 120, 1.5),))
    need = Need(hull, Load(3), site, day=Day(2.0, 8000))
    setup = job.begin(need).pin("pellorin-d")
    assert setup.part("mount").item.spec.kind == "pod"
    fitting = job.says("fitting")
    assert "Wedge of the pod" in fitting and "fixed below the hull" in fitting
    assert "1.20 m" in job.says("boat")
    assert "shallow" not in fitting
    job.sheet()


def test_a_tender_charged_from_a_station_on_the_dock_is_planned_by_the_month(job):
    need = demo.enquiries()[1].need
    day = replace(need.day, shore_power=False, dock_solar_w=300.0, dock_battery_wh=1200.0)
    job.begin(replace(need, day=day)).pin()
    waters = job.says("waters")
    assert "No shore power" in waters and re.search(r"\bJul\w*\b", waters)


def test_a_planing_dinghy_whose_bow_locker_is_too_small_is_told_by_how_much(job):
    hull = Hull("rigid_dinghy", 3.6, 1.6, 95, transom_height_m=0.38)
    locker = (Bay("bow locker", 0.3, 0.22, 0.2, 20, 3.0),)
    job.begin(Need(hull, Load(2), Site(("transom",), locker), day=Day(6.5, 9000)))
    reasons = job.says("shortlist")
    assert "bow locker" in reasons and "planes" in job.says("boat").lower()


def test_an_inflatable_with_panels_comes_home_in_a_breeze_and_stays_ashore_in_a_gale(job):
    need = demo.enquiries()[1].need
    job.begin(replace(need, day=replace(need.day, solar_w=100.0))).pin()
    assert "Home at" in job.says("day-out")
    assert "stays ashore" in job.says("day-out?wind=30&from=10:00&fetch=2")


def test_a_cabin_boat_with_a_cheap_24_v_kit_is_told_what_its_amps_ask_for(job):
    site = Site(("transom",), (Bay("locker", 1.0, 0.6, 0.4, 90, 0.8),), transom_thickness_m=0.04)
    need = Need(
        Hull("cabin", 5.6, 2.1, 700, transom_height_m=0.40), Load(2), site, day=Day(2.2, 12_000)
    )
    setup = job.begin(need).pin(query="w_price=5&w_range=0&w_light=0&volt=24+V")
    assert setup.part("motor").item.spec.voltage_v == 24
    wiring = job.says("fitting?tab=wiring")
    assert "mm²" in wiring and "Fuse each string at its pole" in wiring
    job.sheet()


def test_a_pontoon_with_separate_chargers_draws_one_lead_a_pack(job):
    need = demo.enquiries()[4].need
    job.begin(need)
    page = job.page("shortlist")
    four = next((c for c in SHELF.chargers if c.spec.outputs >= 3), None)
    assert four is not None and "does the day" in page
    job.pin()
    assert "charge dotted" in job.says("fitting?tab=wiring")


def test_a_skiff_fishes_out_holds_and_comes_back(job):
    legs = (
        Leg("out", 2.4, 4000.0),
        Leg("fish", 0.8, None, 5400.0, hold_s=3600.0),
        Leg("back", 2.2, 4000.0, current_m_s=0.3),
    )
    hull = Hull("skiff", 4.6, 1.7, 190, transom_height_m=0.40)
    need = Need(hull, Load(2), Site(("transom",)), day=Day(2.4, 9000).with_legs(legs))
    job.begin(need).pin()
    day = job.says("day-out")
    assert all(name in day for name in ("out", "fish", "back")) and "Home at" in day
    waters = job.says("waters")
    assert "decides" in waters and "Fish decides" not in waters  # a crawl never rules the choice


def test_a_trimaran_floats_on_her_main_hull(job):
    hull = Hull("multihull", 6.7, 4.8, 600, bodies=3, ama_share=0.09)
    need = Need(hull, Load(2), Site(("transom",)), day=Day(2.2, 10_000))
    job.begin(need).pin()
    assert float(hull.body_shares[1][2]) == pytest.approx(0.91)
    assert "Home at" in job.says("day-out")


def test_a_jon_boats_own_pack_is_used_and_not_charged_for(job, client):
    hull = Hull("flat_bottom", 4.0, 1.4, 110, transom_height_m=0.38)
    need = Need(hull, Load(2), Site(("transom",)), day=Day(1.6, 5000))
    job.begin(need)
    job.page("own", kind="batteries", name="house pack", volts="25.6", ah="100", amps="150")
    forms = Forms(job.page("shortlist?w_price=5&w_light=0&w_range=0")).forms
    fields = [f["fields"] for f in forms if f["action"].endswith("/pin")]
    mine = next(f for f in fields if f["battery"].startswith("own-gear-"))
    mine.pop("csrf_token", None)
    job.page("pin", **mine)
    job.page("choose", letter="A")
    assert "there already" in job.says("offer")


def test_a_hire_boats_second_charge_of_the_day_is_asked_about(job):
    need = demo.enquiries()[1].need
    day = replace(need.day, charges_per_day=3, charge_h=2.0)
    job.begin(replace(need, day=day)).pin()
    assert re.search(r"charge takes|charges a day|3 charges", job.says("waters"))


def test_two_hundred_quick_presses_of_keep_never_clash_with_the_pages_own_saving(client, conn):
    form = Forms(client.get("/enquiry/2/boat").text).by_id["station-form"]["fields"]
    form.pop("csrf_token", None)
    for i in range(10):
        typed = form | {"gear": f"{20 + i} kg"}
        saved = client.post("/enquiry/2/boat", data=typed, headers={"HX-Request": "true"})
        assert saved.status_code == 200
        for press in range(20):  # pressed before the answer was there
            pressed = client.post("/enquiry/2/boat", data=form | {"gear": f"{20 + i + press} kg"})
            assert pressed.status_code == 303, (i, press)
    assert store.get(conn, 2).need.load.gear_kg == 20 + 9 + 19
