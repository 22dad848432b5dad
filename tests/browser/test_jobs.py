"""Each kind of boat of the trade from first call to rigger's sheet, by mouse on a desk and by
keyboard on a phone: what a practitioner would say of it is said.
"""

import re
from dataclasses import replace

from playwright.sync_api import expect

from jolvek import demo
from jolvek.core.enquiry.need import Day, Leg, Need
from jolvek.core.enquiry.site import Bay, Site
from jolvek.core.hydro.hull import Hull, Load
from jolvek.store import enquiries, jobs

DEMO = [e.need for e in demo.enquiries()]
TANK = (Bay("tank well", 0.6, 0.4, 0.3, 15, 0.6),)
KAYAK = Need(
    Hull("kayak", 3.8, 0.78, 30),
    Load(1),
    Site(("rail", "stern_deck", "fin_box"), TANK),
    day=Day(1.8, 6000),
)


def test_a_kayak_with_three_mounts_from_the_catalogues_sizes(hand):
    hand.begin(KAYAK)
    hand.type("Make and model", "Merle Angler 375")
    hand.page.get_by_role("button", name="Take its sizes and plate").click()
    expect(hand.page.get_by_label("Length overall")).to_have_value("3.75")
    hand.station("3", "shortlist")
    hand.pin("Minnow 7" if hand.page.get_by_text("Minnow 7").count() else "Sievring")
    hand.station("6", "fitting")
    hand.narrow()
    hand.tab("All mounts")
    hand.says("Side bar", "paddling room", "Stern plate", "pedals", "Fin-box", "fin")
    hand.looked_at()
    hand.sheet()
    assert "rudder holds the boat" not in hand.page.locator("main").inner_text()  # there is none


def test_a_board_takes_the_adapter_of_its_slot_and_a_motor_that_stays_down(hand):
    site = Site(("fin_box",), (Bay("deck bag", 0.5, 0.35, 0.3, 16, 1.4),))
    hand.begin(Need(Hull("board", 3.4, 0.82, 11), Load(1), site, day=Day(1.3, 3000)))
    slot = hand.page.get_by_label("Fin box", exact=True)
    with hand.page.expect_response(lambda r: r.request.method == "POST"):
        slot.select_option(label="short slot, 20 cm by 10 mm")
    hand.station("3", "shortlist")
    expect(hand.page.locator("#list")).not_to_contain_text("long foot")
    setup = hand.pin()
    assert setup.part("mount").item.id == "sievring-fin" and setup.shaft_m is None
    hand.station("6", "fitting")
    hand.narrow()
    hand.says("below the hull", "fixed: lift the stern")
    main = hand.page.locator("main")
    expect(main).not_to_contain_text("Pole below its clamp")
    expect(main).not_to_contain_text("shallow drive")
    hand.looked_at()
    hand.sheet()


def test_a_pole_motor_is_told_where_it_does_not_hold_against_the_current(hand):
    hand.begin(replace(KAYAK, day=Day(1.6, 4000)))
    hand.station("2", "waters")
    hand.type("Current against", "1.6 kn")
    hand.station("3", "shortlist")
    hand.pin("Ovrek Reed 25")
    hand.station("4", "side-by-side")
    hand.says("Against the current", "does not hold")
    hand.narrow()
    hand.looked_at()


def test_one_adjustable_motor_is_set_for_each_of_two_boats(hand):
    hand.begin(KAYAK, "Two kayaks")
    hand.station("3", "shortlist")
    hand.pin("Sievring Otter")
    hand.go("boats")
    hand.page.get_by_role("button", name="Add a boat like this one").click()
    second = jobs.boats(hand.conn, hand.number)[1].id
    hand.type("Transom height", "0.5")
    hand.narrow()
    hand.page.locator("#job-bar > summary").press("Enter")
    hand.page.get_by_role("link", name="compare").press("Enter")
    hand.page.get_by_role("button", name="Pin its setup here").press("Enter")
    expect(hand.page.get_by_role("status").first).to_contain_text("Pinned here as A")
    poles = re.findall(r"pole set to\s+([\d.]+)", hand.page.locator("main").inner_text())
    assert (
        len(set(poles)) == 2 and enquiries.get(hand.conn, second).need.hull.transom_height_m == 0.5
    )
    hand.fits()
    hand.looked_at()


def test_a_sailing_dinghys_motor_is_locked_beside_her_rudder_and_her_battery_is_under_the_thwart(
    hand,
):
    bays = (Bay("under the thwart", 0.7, 0.4, 0.25, 30, 2.2), Bay("locker", 0.7, 0.4, 0.3, 30, 0.4))
    site = Site(("transom",), bays)
    hand.begin(Need(Hull("sailing_dinghy", 4.9, 1.8, 170), Load(2), site, day=Day(1.8, 8000)))
    hand.type("Rudder blade", "20 cm")
    hand.type("Rudder below", "45 cm")
    hand.station("3", "shortlist")
    assert hand.pin().part("mount").item.spec.kind == "offset_bracket"
    hand.station("6", "fitting")
    expect(hand.page.locator(".rudder-sweep")).to_have_count(2)  # its blade down and up
    expect(hand.page.locator(".rudder-blade")).to_have_count(1)
    hand.narrow()
    locked = hand.page.get_by_label("motor locked straight, the rudder steers")
    with hand.page.expect_response(lambda r: r.request.method == "POST" and r.ok):
        locked.press("Space")
    with hand.page.expect_response(lambda r: r.request.method == "POST" and r.ok):
        hand.page.get_by_label("Bank’s bay").select_option("locker")
    kept = hand.setup.fitting
    assert kept.locked and kept.bay == "locker"
    hand.sheet()
    hand.says("Lock the motor straight; the rudder steers", "in locker")


def test_a_keel_boats_pod_is_told_its_wedge_and_its_cables(hand):
    hull = Hull("keelboat", 7.2, 2.4, 1600, keel_draught_m=1.2)
    site = Site(("hull_bottom",), (Bay("engine box", 1.0, 0.6, 0.5, 120, 1.5),))
    hand.begin(Need(hull, Load(3), site, day=Day(2.0, 8000)))
    hand.says("1.20 m")
    hand.type("Bottom's slope", "5")
    hand.type("Helm", "1 m")
    hand.station("3", "shortlist")
    assert hand.pin("Pellorin D").part("mount").item.spec.kind in ("pod", "cassette")
    hand.station("6", "fitting")
    hand.narrow()
    field = hand.page.get_by_label("Controller, ahead of the stern")
    with hand.page.expect_response(lambda r: r.request.method == "POST" and r.ok):
        field.fill("1.6 m")
        field.press("Tab")
    hand.says("Throttle’s cable", "Phase cables, each")
    if hand.setup.part("mount").item.spec.kind == "pod":
        hand.says("Wedge of the pod", "5°")
    expect(hand.page.locator("main")).not_to_contain_text("shallow drive")
    hand.looked_at()
    hand.sheet()
    hand.says("three phase cables of")


def test_a_tender_charges_from_a_station_on_the_dock_by_the_month(hand):
    hand.begin(replace(DEMO[1], day=replace(DEMO[1].day, shore_power=False)))
    hand.station("3", "shortlist")
    hand.pin()
    hand.station("2", "waters")
    hand.page.get_by_text("Sun: place and date").click()
    hand.type("Panels on the dock", "300 W")
    hand.type("Battery on the dock, Wh", "1200")
    hand.says("No shore power", where="#charging")
    expect(hand.page.locator("#charging")).to_contain_text(re.compile("Jul"))
    hand.narrow()
    hand.looked_at()


def test_a_planing_dinghys_bow_locker_is_too_small_by_so_much(hand):
    hull = Hull("rigid_dinghy", 3.6, 1.6, 95, transom_height_m=0.38)
    locker = (Bay("bow locker", 0.3, 0.22, 0.2, 20, 3.0),)
    hand.begin(Need(hull, Load(2), Site(("transom",), locker), day=Day(6.5, 9000)))
    hand.says("Planes from about")
    hand.looked_at()
    hand.station("3", "shortlist")
    hand.says("bow locker")
    hand.narrow()


def test_an_inflatable_with_panels_comes_home_in_a_rising_wind_and_stays_ashore_in_a_gale(hand):
    hand.begin(replace(DEMO[1], day=replace(DEMO[1].day, solar_w=100.0)))
    hand.station("3", "shortlist")
    hand.pin()
    hand.station("5", "day-out")
    hand.says("Home at", where="#day")
    hand.narrow()
    hand.page.locator("#from").fill("10:00")
    hand.page.locator("#wind").focus()
    hand.page.keyboard.press("End")
    expect(hand.page.locator("#day .answer")).to_contain_text("stays ashore")
    hand.looked_at()


def test_a_cabin_boats_cheap_24_v_kit_is_told_what_its_amps_ask_for(hand):
    site = Site(("transom",), (Bay("locker", 1.0, 0.6, 0.4, 90, 0.8),), transom_thickness_m=0.04)
    hull = Hull("cabin", 5.6, 2.1, 700, transom_height_m=0.40)
    hand.begin(Need(hull, Load(2), site, day=Day(2.2, 12_000)))
    hand.go("shortlist?w_price=5&w_range=0&w_light=0&volt=24+V")
    assert hand.pin().part("motor").item.spec.voltage_v == 24
    hand.station("6", "fitting")
    hand.narrow()
    hand.tab("Wiring")
    hand.says("mm²", "Fuse each string at its pole")
    hand.looked_at()
    hand.sheet()


def test_a_pontoons_charger_has_an_output_for_each_of_four_packs(hand):
    four = next(c for c in demo.shelf().chargers if c.spec.outputs == 4)
    need = replace(DEMO[4], day=replace(DEMO[4].day, budget=None, speed_m_s=1.6, distance_m=6000))
    hand.begin(need)
    hand.go("by-hand")
    hand.page.locator("#motor").select_option("ovrek-o30")
    hand.page.locator("#battery").select_option("grautt-a100|4|1")
    hand.page.locator("#mount").select_option("hakebrook-pontoon")
    expect(hand.page.locator("#judged .answer")).to_contain_text("nm")
    hand.page.locator("#charger").select_option(four.id)
    expect(hand.page.locator("#judged .answer")).to_contain_text("nm")
    hand.page.get_by_role("button", name="Pin it").click()
    hand.station("6", "fitting")
    hand.narrow()
    hand.tab("Wiring")
    hand.says("charge dotted")
    expect(hand.page.locator(".wire.is-charge")).not_to_have_count(0)


def test_a_skiff_goes_out_fishes_and_comes_back(hand):
    hull = Hull("skiff", 4.6, 1.7, 190, transom_height_m=0.40)
    hand.begin(Need(hull, Load(2), Site(("transom",)), day=Day(2.4, 8000)))
    hand.station("2", "waters")
    hand.type("Waits out there", "1 h")
    legs = (Leg("fish", 0.8, None, 5400.0),)
    hand.page.get_by_role("button", name="Make legs: there and back").click()
    expect(hand.page.locator("#figures tbody tr")).to_have_count(2)
    with hand.conn:
        day = hand.need.day.legs
        enquiries.change(
            hand.conn,
            hand.number,
            lambda e: replace(
                e, need=replace(e.need, day=e.need.day.with_legs((day[0], *legs, day[1])))
            ),
            "2026-11-26T09:30:00",
        )
    hand.go("waters")
    hand.says("decides", where="#figures")
    expect(hand.page.locator("#figures .answer")).not_to_contain_text("Fish decides")
    hand.station("3", "shortlist")
    hand.pin()
    hand.narrow()
    hand.station("5", "day-out")
    hand.says("fish", "Home at")
    hand.fits()


def test_a_trimarans_main_hull_carries_91_per_cent(hand):
    hull = Hull("multihull", 6.7, 4.8, 600, bodies=3)
    hand.begin(Need(hull, Load(2), Site(("transom",)), day=Day(2.2, 10_000)))
    hand.page.get_by_text(re.compile("Measured waterline, hulls")).click()
    hand.type("Both amas carry", "9 %")
    assert hand.need.hull.body_shares[1][2] == 0.91
    hand.station("3", "shortlist")
    hand.pin()
    hand.narrow()
    hand.station("7", "offer")
    hand.page.get_by_role("button", name=re.compile("^Offer setup")).press("Enter")
    hand.says("On the water")
    hand.looked_at()


def test_a_jon_boats_own_pack_is_used_with_an_adapter_and_costs_nothing(hand):
    hull = Hull("flat_bottom", 4.0, 1.4, 110, transom_height_m=0.38)
    hand.begin(Need(hull, Load(2), Site(("transom",)), day=Day(1.6, 5000)))
    hand.page.get_by_role("link", name="Customer’s own gear").click()
    hand.page.get_by_text("Add a battery").click()
    for name, text in (("name", "house pack"), ("volts", "25.6"), ("ah", "100"), ("amps", "150")):
        hand.page.locator(f"#batteries-{name}").fill(text)
    hand.page.get_by_role("button", name="Save this battery").press("Enter")
    hand.says("house pack")
    hand.go("shortlist?w_price=5&w_light=0&w_range=0")
    hand.pin("house pack")
    hand.station("6", "fitting")
    hand.narrow()
    hand.tab("Sheet")
    hand.says("adapter lead", "a fuse of")
    hand.station("7", "offer")
    hand.page.get_by_role("button", name=re.compile("^Offer setup")).press("Enter")
    hand.says("there already")


def test_a_hire_fleets_runs_a_charge_and_season_are_told(hand):
    hand.begin(replace(DEMO[1], day=replace(DEMO[1].day, charges_per_day=2, charge_h=3.0)))
    hand.station("3", "shortlist")
    hand.pin()
    hand.station("2", "waters")
    hand.type("Runs a day", "8")
    hand.type("Days a season", "120")
    hand.says("4 are needed between charges", "A season takes", where="#season")
    hand.narrow()
    hand.type("Runs a day", "40")
    hand.says("are needed between charges", where="#charging")
