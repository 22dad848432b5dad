"""Aftercare of one boat: care, log, battery, faults, parts, owners; all through the app's pages."""

import io
import json
import re
from datetime import date, timedelta

import pytest
from icalendar import Calendar

from jolvek.core.electric.chemistry import temperature_factor
from jolvek.store import care, enquiries, handovers, own_gear, service_faults, setups, spares
from jolvek.store.handovers import Serial
from jolvek.web.kit.dates import day

HERE = "/enquiry/5/aftercare"


@pytest.fixture
def shop(client, conn, pinned):
    pinned.backup(conn)
    client.post("/play", data={"role": "advisor"})
    return client


def ago(days):
    return (date.today() - timedelta(days=days)).isoformat()


def log(shop, **form):
    return shop.post(f"{HERE}/log/trip", data={"hours": "5 h", **form})


def fitted(conn):
    from jolvek.web.kit.worked import work_out

    e = enquiries.get(conn, 5)
    return work_out(e.need, next(p for p in setups.of_enquiry(conn, 5) if p.chosen)).fitted


def test_trips_make_care_due_and_what_is_done_is_due_no_more(shop, conn):
    assert "not in service yet" in shop.get(HERE).text
    for i in range(12):
        assert log(shop, on_day=ago(60 - i), energy_wh="400", note="reeds").status_code == 303
    page = shop.get(HERE).text
    assert "60 h in all" in page and "Propeller off" in page and "60 of 50 h" in page
    assert "Magnet or kill cord out" in page and "common practice, no source" in page
    for _ in range(2):  # as from two tabs
        shop.post(f"{HERE}/done", data={"step": "shaft"})
    assert "0 of 50 h" in shop.get(HERE).text and len(care.acts(conn, 5)["shaft"]) == 1
    late = shop.post(f"{HERE}/done", data={"step": "shaft", "on_day": ago(-3)})
    assert late.status_code == 422 and "a day that has been" in late.text
    assert shop.post(f"{HERE}/done", data={"step": "paint"}).status_code == 404
    trip = care.trips(conn, 5)[0].id
    shop.post(f"{HERE}/log/drop", data={"trip": trip})
    assert len(care.trips(conn, 5)) == 11
    events = Calendar.from_ical(shop.get(f"{HERE}/due.ics").data).walk("VEVENT")
    uids = [e["uid"] for e in events]
    assert events and len(set(uids)) == len(uids)


BAD = [
    ({"hours": ""}, "needed"),
    ({"hours": "long"}, "long"),
    ({"hours": "2 h", "on_day": "soon"}, "a day as"),
    ({"hours": "2 h", "on_day": "2199-01-01"}, "a day that has been"),
    ({"hours": "2 h", "charge_from": "40 %", "charge_to": "90 %"}, "at most the 40 %"),
    ({"hours": "2 h", "energy_wh": "much"}, "much"),
    ({"hours": "2 h", "temperature_c": "90"}, "-20"),
]


@pytest.mark.parametrize(("form", "told"), BAD)
def test_a_refused_trip_is_told_and_what_was_typed_stays(shop, conn, form, told):
    answer = shop.post(f"{HERE}/log/trip", data=form | {"note": "with the dog"})
    assert answer.status_code == 422 and told in answer.text and "with the dog" in answer.text
    assert care.trips(conn, 5) == []


def test_the_battery_tells_its_age_and_what_the_day_will_leave(shop, conn):
    full = fitted(conn).bank.energy_wh
    for i in range(10):
        more = {"energy_wh": f"{0.85 * 0.5 * full:.0f}", "on_day": ago(700 - 60 * i)}
        log(shop, hours="3 h", charge_from="90 %", charge_to="40 %", **more)
    page = shop.get(HERE).text
    assert "from 10 uses" in page and "10 × 40 to 60 %" in page
    assert "planned day should end" in page and "Power against plan" in page
    share = int(page.split("The battery holds <strong>")[1].split(" %")[0])
    assert 82 <= share <= 90
    assert page.count('class="point"') == 10 and "worn out" in page
    assert re.search(r"down to 80 % in about 20\d\d \(20\d\d to 20\d\d\)|at the soonest", page)


def test_bars_of_the_log_name_the_days_they_show(shop):
    """As many of the last trips as there is room for, on a wide screen and on a phone."""
    for i in range(30):
        log(shop, on_day=ago(90 - 3 * i), hours="3 h" if i == 29 else "1 h 30 min")
    for narrow, bars in (("0", 16), ("1", 13)):
        shop.set_cookie("narrow", narrow)
        chart = shop.get(HERE).text.split("trips-chart")[1].split("</svg>")[0]
        heights = [float(x) for x in re.findall(r'height="([\d.]+)"[^>]*trip-bar', chart)]
        assert len(heights) == bars
        assert max(heights) == pytest.approx(2 * min(heights), rel=0.01)
        ends = re.findall(r'class="tick"[^>]*>(\d+ \w+ \d{4})<', chart)
        assert sorted(ends) == sorted((day(ago(3)), day(ago(3 * bars))))


def test_cold_trips_are_told_from_an_aged_battery(shop, conn):
    bank = fitted(conn).bank
    held = float(temperature_factor(bank.battery.chem, -5.0))
    assert held < 0.95
    for i in range(10):
        more = {"energy_wh": f"{held * 0.5 * bank.energy_wh:.0f}", "on_day": ago(300 - 20 * i)}
        log(shop, charge_from="90 %", charge_to="40 %", temperature_c="-5", **more)
    share = int(shop.get(HERE).text.split("The battery holds <strong>")[1].split(" %")[0])
    assert share >= 97


def test_a_battery_is_new_again_when_all_its_packs_are(shop, conn):
    packs = fitted(conn).bank.packs
    full = fitted(conn).bank.energy_wh
    for i in range(6):
        more = {"energy_wh": f"{0.4 * full:.0f}", "on_day": ago(900 - 30 * i)}
        log(shop, charge_from="90 %", charge_to="40 %", **more)
    assert "from 6 uses" in shop.get(HERE).text
    for i in range(1, packs + 1):
        form = {"what": f"pack {i}", "part_why": "worn", "part_day": ago(100)}
        shop.post(f"{HERE}/parts/part", data=form)
    assert "from 0 uses" in shop.get(HERE).text


def test_charges_at_the_wall_tell_of_the_battery_too(shop, conn):
    bank = fitted(conn).bank
    full = bank.energy_wh
    wall = 0.5 * full / 0.88 / bank.chem.charge_efficiency
    for i in range(8):
        form = {"plug_day": ago(300 - 30 * i), "wall_wh": f"{wall:.0f}", "plug_from": "40 %"}
        assert shop.post(f"{HERE}/log/charge", data=form | {"plug_to": "90 %"}).status_code == 303
    log(shop, on_day=ago(310))
    page = shop.get(HERE).text
    share = int(page.split("The battery holds <strong>")[1].split(" %")[0])
    assert "from 8 uses" in page and 96 <= share <= 103
    bad = shop.post(f"{HERE}/log/charge", data={"plug_from": "90 %", "plug_to": "40 %"})
    assert bad.status_code == 422 and "at least the 90 %" in bad.text
    assert "needed" in shop.post(f"{HERE}/log/charge", data={}).text


def test_a_log_is_read_from_files_and_a_file_read_twice_counts_once(shop, conn):
    def send(content, name, day=""):
        form = {"file": (io.BytesIO(content), name), "file_day": day}
        return shop.post(f"{HERE}/log/file", data=form, follow_redirects=True)

    table = b"Day;Hours;Wh;Before;After;Note\n2026-06-01;2,5;900;95 %;40;x\n2026-06-02;1;;;;\n"
    assert "2 trips read" in send(table, "log.csv").text
    assert "0 trips read from log.csv, 2 were known" in send(table, "log.csv").text
    first = care.trips(conn, 5)[-1]
    assert (first.hours, first.energy_wh, first.charge_from, first.charge_to) == (
        2.5,
        900,
        0.95,
        0.4,
    )
    points = "".join(
        f'<trkpt lat="{60 + 0.001 * i}" lon="5"><time>2026-06-03T10:{i:02d}:00Z</time></trkpt>'
        for i in range(31)
    )
    gpx = f'<gpx version="1.1"><trk><trkseg>{points}</trkseg></trk></gpx>'.encode()
    assert "1 trip read" in send(gpx, "way.gpx").text
    (way,) = [t for t in care.trips(conn, 5) if t.on_day == "2026-06-03"]
    assert way.hours == pytest.approx(0.5, abs=0.05)
    rows = "".join(f"{60 * i},4.0,500\n" for i in range(61))
    assert "1 trip read" in send(f"time,speed,power\n{rows}".encode(), "run.csv", "2026-06-04").text
    (run,) = [t for t in care.trips(conn, 5) if t.on_day == "2026-06-04"]
    assert (run.hours, run.energy_wh) == (1.0, 500.0)
    out = json.loads(shop.get(f"{HERE}/log/log.json").data)
    assert out["format"] == "jolvek-log" and len(out["trips"]) == 4
    log(shop, on_day="2026-06-05")
    out = json.loads(shop.get(f"{HERE}/log/log.json").data)
    assert (
        "0 trips read from log.json, 5 were known"
        in send(json.dumps(out).encode(), "log.json").text
    )
    for content, name, result in (
        (b"day,hours\n2026-06-01,long\n", "a.csv", "line 2"),
        (b"day,hours\n2199-06-01,1\n", "a.csv", "a day that has been"),
        (b"{}", "a.json", "format"),
        (b"\xff\xfe\x00", "a.gpx", "not a GPX"),
        (b"", "", "choose a CSV"),
    ):
        answer = send(content, name)
        assert answer.status_code == 422 and result in answer.text


def test_faults_have_causes_are_settled_and_the_log_suspects_more_power(shop, conn):
    for i in range(5):
        log(shop, on_day=ago(50 - i), hours="1 h", energy_wh="9000")
    assert "more power (median) than worked out" in shop.get(HERE).text
    assert "choose what is seen" in shop.post(f"{HERE}/parts/fault", data={}).text
    bare = shop.post(f"{HERE}/parts/fault", data={"kind": "other"})
    assert bare.status_code == 422 and "a word what is wrong" in bare.text
    shop.post(f"{HERE}/parts/fault", data={"kind": "hot", "part": "motor", "why": "plug brown"})
    (f,) = service_faults.of_enquiry(conn, 5)
    assert (f.part, f.hours, f.product_id) == ("motor", 5.0, fitted(conn).motor.id)
    page = shop.get(HERE).text
    assert "hot joints burn boats" in page and "plug brown" in page
    assert handovers.faults(conn, 5) == []  # the handover has its own
    no = shop.post(f"{HERE}/parts/fault", data={"fault": f.id, "state": "closed"})
    assert no.status_code == 422 and "what was done" in no.text
    shop.post(f"{HERE}/parts/fault", data={"fault": f.id, "state": "closed", "cure": "new plug"})
    assert service_faults.of_enquiry(conn, 5)[0].state == "closed"


def test_a_part_replaced_has_its_verdict_and_its_number_takes_the_old_ones_place(shop, conn):
    f = fitted(conn)
    until = ago(-300)
    old = Serial(0, "motor", f.motor.title, f.motor.id, "TM-1", until, who="x", at="2026")
    handovers.add_serial(conn, 5, old)
    form = {"what": "motor", "new_number": "TM-2", "part_why": "seal"}
    done = shop.post(f"{HERE}/parts/part", data=form, follow_redirects=True).text
    assert f"Under warranty to {day(until)}" in done and "Local law" in done
    assert handovers.serials(conn, 5)["motor"].number == "TM-2"
    assert handovers.serials(conn, 5)["motor"].warranty_to == until
    shop.post(f"{HERE}/parts/part", data=form | {"new_number": "TM-3", "damage": "1", "cost": "80"})
    last = spares.swaps(conn, 5)[0]
    assert "Damage from without" in last.verdict and last.cost == 80 and last.old_number == "TM-2"
    assert shop.post(f"{HERE}/parts/part", data={"what": "mast"}).status_code == 422
    assert shop.post(f"{HERE}/parts/part", data={"what": "motor"}).status_code == 422


def test_a_spare_is_due_on_its_day_and_renewed(shop, conn):
    log(shop, on_day=ago(10))
    form = {"what": "Flares", "good_to": ago(1)}
    shop.post(f"{HERE}/parts/spare", data=form)
    page = shop.get(HERE).text
    due = r"Flares: replace.*?<p class=\"due-day\">[^<]+<span class=\"hint\">due</span>"
    assert re.search(due, page, re.S) and "Its new date" in page
    (kept,) = spares.of_enquiry(conn, 5)
    shop.post(f"{HERE}/parts/spare", data={"spare": kept.id, "good_to": ago(-900)})
    assert not re.search(due, shop.get(HERE).text, re.S)
    assert shop.post(f"{HERE}/parts/spare", data={"what": "Flares"}).status_code == 422
    nameless = shop.post(f"{HERE}/parts/spare", data={"good_to": ago(-9), "what": " "})
    assert nameless.status_code == 422 and "what it is" in nameless.text
    shop.post(f"{HERE}/parts/spare", data={"spare": kept.id, "off": "1"})
    assert spares.of_enquiry(conn, 5) == []


def test_a_new_battery_is_quoted_and_never_joined_to_an_old_one(shop, conn):
    log(shop, on_day=ago(900))
    refused = shop.post(f"{HERE}/owner/battery", data={"how": "join"})
    assert refused.status_code == 422 and "years old" in refused.text
    result = shop.post(f"{HERE}/owner/battery", data={"how": "new"})
    number = int(re.search(r"/enquiry/(\d+)/", result.location)[1])
    assert [k.gear.kind for k in own_gear.of_enquiry(conn, number)][0] == "motors"
    new, old = enquiries.get(conn, number), enquiries.get(conn, 5)
    assert new.need == old.need and new.title.endswith("new battery")
    assert shop.get(result.location).status_code == 200
