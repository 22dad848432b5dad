"""The handover: steps by two people, each act once; serial numbers; faults; the signed record; and
the trial that stands on it and changes every page.
"""

import io
import re
import time
from dataclasses import replace
from datetime import UTC, date, datetime, timedelta

import pytest
from icalendar import Calendar
from pypdf import PdfReader

from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.fit.handover_owner import papers
from jolvek.core.hydro.hull import UNTRIED
from jolvek.core.predict.measured import SOFT
from jolvek.formats.nmea import Reading, Stream, sentence
from jolvek.standins.instrument import FileInstrument, Hidden, Server, sentences, simulate
from jolvek.store import enquiries, handovers, owners, trials
from jolvek.store.shop import Shop
from jolvek.web.kit.dates import day
from jolvek.web.stations.handover.record import warranty_end
from jolvek.web.stations.trial.live import LIVES, Live, _read_all
from tests.web.steps import picture

HERE, TRIAL = "/enquiry/5/handover", "/enquiry/5/trial"
AFAR = {"Accept": "application/json"}


@pytest.fixture
def shop(client, pinned_conn):
    client.post("/play", data={"role": "advisor"})
    return client


@pytest.fixture
def pinned_conn(conn, pinned):
    pinned.backup(conn)
    return conn


def keys(page):
    return re.findall(r'name="step"\s+value="([^"]+)"', page)


def all_done(client):
    for key in keys(client.get(HERE).text):
        client.post(f"{HERE}/step", data={"step": key, "state": "done"})


def all_numbered(client):
    for i, what in enumerate(re.findall(r'name="what"\s+value="([^"]+)"', client.get(HERE).text)):
        if what not in ("key", "magnet"):
            client.post(f"{HERE}/serial", data={"what": what, "number": f"S{i:03d}"})


def test_each_step_says_who_and_when_and_an_act_counts_once(shop, conn):
    page = shop.get(HERE).text
    assert "Warning:" in page and "Kill cord off" in page
    act = {"step": "unpack", "state": "done", "op": "phone-1-0001", "at": "2026-11-26T08:00:00Z"}
    for _ in range(3):
        result = shop.post(f"{HERE}/step", data=act, headers=AFAR)
        assert result.status_code == 200 and result.json["kept"]
    assert conn.execute("SELECT count(*) FROM handover_act").fetchone()[0] == 1
    kept = handovers.acts(conn, 5)["unpack"]
    assert kept.who == "Eskil Holmgard" and kept.at.startswith("2026-11-26T08:00")
    shop.post("/play", data={"role": "rigger"})
    late = {"step": "unpack", "state": "open", "op": "phone-2-0001", "at": "2026-11-26T07:00:00Z"}
    shop.post(f"{HERE}/step", data=late, headers=AFAR)  # done before, sent after
    assert handovers.acts(conn, 5)["unpack"].state == "done"
    later = (datetime.now(UTC) + timedelta(days=3)).isoformat()
    future = {"step": "serials", "state": "done", "op": "phone-2-0002", "at": later}
    shop.post(f"{HERE}/step", data=future, headers=AFAR)
    assert handovers.acts(conn, 5)["serials"].at < (datetime.now(UTC)).isoformat()


def test_the_headline_names_the_next_step_and_finished_groups_fold(shop):
    def opened():
        page = shop.get(HERE).text
        headline = re.search(r"Next: <strong>([^<]+)</strong>", page).group(1)
        group = r'<details class="step-group"\s+(open)?[^>]*>.*?<h2>([^<]+)'
        groups = re.findall(group, page, re.S)
        return headline, [name for is_open, name in groups if is_open]

    assert opened() == ("Unpack and compare with the order", ["Unpack"])
    for key in ("unpack", "serials"):
        shop.post(f"{HERE}/step", data={"step": key, "state": "done"})
    assert opened() == ("Charge the battery fully", ["Charge"])
    all_done(shop)
    page = shop.get(HERE).text
    assert re.search(r"All <strong>\d+ steps</strong> of setup A are\s+done", page)
    assert "step-group" in page and "Done, next" not in page


def test_only_a_lithium_battery_is_reported_to_the_insurer():
    by_chemistry = {}
    for chemistry in ("lfp", "gel"):
        fitted = sample_fitted()
        spec = replace(fitted.battery.spec, chemistry=chemistry)
        with_it = replace(fitted, battery=replace(fitted.battery, spec=spec))
        by_chemistry[chemistry] = {s.key: s.details for s in papers(with_it)}["insurer"]
    assert by_chemistry == {
        "lfp": "About the motor and the lithium battery.",
        "gel": "About the motor.",
    }


def test_the_paper_shows_the_photos_of_the_steps(shop, conn):
    shot = {"step": "hang", "state": "done", "photo": (picture((80, 60)), "hang.png")}
    shop.post(f"{HERE}/step", data=shot, content_type="multipart/form-data")
    for key in keys(shop.get(HERE).text):
        if key != "hang":
            shop.post(f"{HERE}/step", data={"step": key, "state": "done"})
    all_numbered(shop)
    assert shop.post(f"{HERE}/sign", data={"name": "Runa Vik"}).status_code == 303
    paper = PdfReader(io.BytesIO(handovers.pdf(conn, 5)))
    assert any(image.image.size == (80, 60) for page in paper.pages for image in page.images)


def test_not_needed_says_why_and_a_photo_stays_with_its_step(shop, conn):
    bare = {"step": "insurer", "state": "not_needed", "op": "phone-1-0003"}
    refused = shop.post(f"{HERE}/step", data=bare, headers=AFAR)
    assert refused.status_code == 422 and "why it is not needed" in refused.json["why"]
    plain = shop.post(f"{HERE}/step", data=bare)
    assert plain.status_code == 422 and "why it is not needed" in plain.text
    shop.post(f"{HERE}/step", data=bare | {"note": "the club insures"})
    assert "the club insures" in shop.get(HERE).text
    shot = {"step": "hang", "state": "done", "photo": (picture((80, 60)), "hang.png")}
    shop.post(f"{HERE}/step", data=shot, content_type="multipart/form-data")
    name = handovers.acts(conn, 5)["hang"].photo
    assert shop.get(f"{HERE}/photo/{name}").mimetype == "image/jpeg"
    assert shop.get(f"/enquiry/2/handover/photo/{name}").status_code == 404
    for bad in ({"state": "lost"}, {"op": "x"}, {"step": "y" * 90}):
        result = shop.post(f"{HERE}/step", data={"step": "hang", "state": "done"} | bad)
        assert result.status_code == 422


def test_a_serial_number_belongs_to_one_piece(shop, conn):
    form = {"what": "motor", "number": " A-1 "}
    assert shop.post(f"{HERE}/serial", data=form).status_code == 303
    assert handovers.serials(conn, 5)["motor"].number == "A-1"
    other = shop.post("/enquiry/2/handover/serial", data=form | {"number": "A-1"})
    assert other.status_code == 422 and "is the motor of" in other.text
    packs = [w for w in re.findall(r'value="(pack \d+)"', shop.get(HERE).text)]
    shop.post(f"{HERE}/serial", data={"what": packs[0], "number": "P-1"})
    twice = shop.post(f"{HERE}/serial", data={"what": packs[-1], "number": "P-1"})
    assert len(packs) == 1 or (twice.status_code == 422 and "of this boat already" in twice.text)
    assert shop.post(f"{HERE}/serial", data={"what": "motor", "number": ""}).status_code == 422
    assert shop.post(f"{HERE}/serial", data={"what": "anchor", "number": "1"}).status_code == 404
    end = warranty_end(Shop(), date.today())
    assert handovers.serials(conn, 5)["motor"].warranty_to == end
    assert f"warranty to {day(end)}" in shop.get(HERE).text
    (event,) = Calendar.from_ical(shop.get(f"{HERE}/record.ics").data).walk("VEVENT")
    assert event["dtstart"].dt == date.today() + timedelta(days=14)
    assert "A-1" in event["description"]


@pytest.mark.parametrize(
    ("on", "months", "end"),
    [((2028, 2, 29), 12, "2029-02-28"), ((2026, 8, 31), 6, "2027-02-28"), ((2026, 1, 5), 0, "")],
)
def test_a_warranty_ends_on_a_day_that_there_is(on, months, end):
    assert warranty_end(Shop(warranty_months=months), date(*on)) == end


def test_a_fault_is_closed_or_accepted_by_name_before_she_is_signed(shop, conn):
    shop.post(f"{HERE}/fault", data={"kind": "vibrates"})
    shop.post(f"{HERE}/fault", data={"kind": "vibrates"})
    (fault,) = handovers.faults(conn, 5)
    page = shop.get(HERE).text
    assert "Switch off, magnet out" in page and "another propeller" in page
    all_done(shop)
    all_numbered(shop)
    refused = shop.post(f"{HERE}/sign", data={"name": "Runa Vik"})
    assert refused.status_code == 422 and "A fault is open: It vibrates" in refused.text
    bare = shop.post(f"{HERE}/fault", data={"fault": fault.id, "state": "closed"})
    assert bare.status_code == 422 and "a word what was done" in bare.text
    shop.post(f"{HERE}/fault", data={"fault": fault.id, "state": "accepted", "cure": "spare comes"})
    assert handovers.faults(conn, 5)[0].done_by == "Eskil Holmgard"
    assert shop.post(f"{HERE}/sign", data={"name": "Runa Vik"}).status_code == 303


def test_a_signed_handover_is_frozen_as_paper_and_record(shop, conn):
    refused = shop.post(f"{HERE}/sign", data={"name": "Runa"})
    assert "steps are open" in refused.text and "No serial number yet" in refused.text
    all_done(shop)
    all_numbered(shop)
    for w, v in ((300, 1.7), (700, 2.2)):
        shop.post(f"{TRIAL}/run", data={"power": f"{w} W", "speed": f"{v} m/s"})
    assert "signature" in shop.post(f"{HERE}/sign", data={"name": " "}).text
    strokes = {"name": "Runa Vik", "signature": "1,1 200,90"}
    assert shop.post(f"{HERE}/sign", data=strokes).status_code == 303
    result, paper = handovers.signed(conn, 5), handovers.pdf(conn, 5)
    assert enquiries.get(conn, 5).stage == "delivered"
    text = " ".join(" ".join(p.extract_text() for p in PdfReader(io.BytesIO(paper)).pages).split())
    for part in ("Runa Vik", "S000", "Eskil Holmgard", "promise against measured", "Kill cord"):
        assert part in text
    assert PdfReader(io.BytesIO(paper)).trailer["/Root"]["/MarkInfo"]["/Marked"]
    again = shop.post(f"{HERE}/step", data={"step": "unpack", "state": "open"}, headers=AFAR)
    assert again.status_code == 422 and "The handover is signed" in again.json["why"]
    shop.post(f"{HERE}/serial", data={"what": "motor", "number": "Z"})
    assert shop.post(f"{HERE}/sign", data=strokes).status_code == 422
    assert handovers.signed(conn, 5) == result == shop.get(f"{HERE}/record.json").json
    assert shop.get(f"{HERE}/record.pdf").data == paper
    assert result["format"] == "jolvek-handover" and result["trial"]["rows"]
    assert shop.get("/enquiry/2/handover/record.pdf").status_code == 404


def test_the_signed_paper_speaks_the_customers_language_and_the_shop_its_own(shop, conn):
    owners.set_language(conn, 5, "nl")
    conn.commit()
    all_done(shop)
    all_numbered(shop)
    signed = shop.post(f"{HERE}/sign", data={"name": "Runa Vik", "signature": "1,1 200,90"})
    assert signed.status_code == 303, signed.text
    reader = PdfReader(io.BytesIO(handovers.pdf(conn, 5)))
    text = " ".join(" ".join(p.extract_text() for p in reader.pages).split())
    assert reader.trailer["/Root"]["/Lang"] == "nl"
    assert "Overdracht" in text and "Handover" not in text
    assert '<html lang="en"' in shop.get(HERE).text


def test_a_trial_is_typed_fitted_used_by_every_page_and_taken_back(shop, conn):
    before = shop.get("/enquiry/5/side-by-side").text
    for power, speed, heading in (
        ("400 W", "2.6 kn", "out"),
        ("400 W", "3.0 kn", "back"),
        ("1000 W", "3.9 kn", "out"),
    ):
        data = {"power": power, "speed": speed, "heading": heading}
        assert shop.post(f"{TRIAL}/run", data=data).status_code == 303
    page = shop.get(TRIAL).text
    assert "left out: one way only" in page and "than promised" in page
    assert "of 1 point" in page and "was taken out" in page
    shop.post(f"{TRIAL}/use")
    hull = enquiries.get(conn, 5).need.hull
    assert hull.tried_on == date.today().isoformat() and len(hull.trial_spread) == 529
    assert hull.friction_factor != 1.0
    assert shop.get("/enquiry/5/side-by-side").text != before
    text = f"tried on the water, {day(date.today())}"
    for station in ("boat", "offer", "side-by-side", "day-out"):
        assert text in shop.get(f"/enquiry/5/{station}").text.replace("Tried", "tried"), station
    form = shop.get("/enquiry/5/boat")
    assert form.status_code == 200
    factors = trials.latest(conn, 5).factors
    assert factors["friction_factor"] == pytest.approx(hull.friction_factor)
    shop.post(f"{TRIAL}/use", data={"undo": "1"})
    hull = enquiries.get(conn, 5).need.hull
    assert all(getattr(hull, k) == v for k, v in UNTRIED.items())
    assert trials.latest(conn, 5).factors is None
    run = trials.runs(conn, trials.latest(conn, 5).id)[0].id
    shop.post(f"{TRIAL}/drop", data={"run": run})
    assert len(trials.runs(conn, trials.latest(conn, 5).id)) == 2
    rows = shop.get(f"{TRIAL}/runs.csv").text.splitlines()
    assert len(rows) == 3 and "one way only" in rows[1]
    shop.post(f"{TRIAL}/begin")
    assert "no run counts yet" in shop.get(TRIAL).text
    assert shop.post(f"{TRIAL}/use").status_code == 422


BAD_RUNS = [
    ({"power": "", "speed": "3 kn"}, "needed"),
    ({"power": "lots", "speed": "3 kn"}, "lots"),
    ({"power": "500 W", "speed": "900 kn"}, "allowed is"),
    ({"power": "500 W", "speed": "3 kn", "heading": "up"}, "one of"),
]


@pytest.mark.parametrize(("data", "told"), BAD_RUNS)
def test_a_refused_run_is_told_and_kept_typed(shop, conn, data, told):
    answer = shop.post(f"{TRIAL}/run", data=data)
    assert answer.status_code == 422 and told in answer.text
    assert trials.latest(conn, 5) is None


def test_how_she_was_counts_and_what_was_seen_becomes_a_fault(shop, conn):
    how = {"people": "1", "people_kg": "80", "start_charge": "90 %", "end_charge": "40 %"}
    shop.post(f"{TRIAL}/how", data=how | {"used_wh": "500", "seen": ["crooked"], "drop_v": "9"})
    page = shop.get(TRIAL).text
    assert "The boat runs crooked" in page and "the cables drop 9.0 V" in page
    shop.post(f"{TRIAL}/run", data={"power": "400 W", "speed": "3 kn"})
    assert "the display counted 500 Wh" in shop.get(TRIAL).text
    shop.post(f"{TRIAL}/suspected", data={"kind": "crooked", "why": "seen"})
    assert handovers.faults(conn, 5)[0].kind == "crooked"
    assert shop.post(f"{TRIAL}/suspected", data={"kind": "sinks"}).status_code == 404
    bad = shop.post(f"{TRIAL}/how", data={"people": "many"})
    assert bad.status_code == 422 and "many" in bad.text


def test_runs_come_from_logs_and_tracks(shop, conn):
    rows = [f"{t},{4.0 if t < 60 else 5.0},{40 if t < 60 else 220},{500}" for t in range(120)]
    log = "t,sog,cog,watts\n" + "\n".join(rows)
    data = {"file": (io.BytesIO(log.encode()), "log.csv"), "unit": "kn"}
    answer = shop.post(f"{TRIAL}/file", data=data, content_type="multipart/form-data")
    assert answer.status_code == 303
    kept = trials.runs(conn, trials.latest(conn, 5).id)
    assert [(k.run.heading, k.source) for k in kept] == [("out", "file"), ("back", "file")]
    rows = b"".join(sentences(*row) for row in simulate(SOFT, Hidden(), (500.0,)))
    data = {"file": (io.BytesIO(rows), "kept.nmea")}
    shop.post(f"{TRIAL}/file", data=data, content_type="multipart/form-data")
    read = trials.runs(conn, trials.latest(conn, 5).id)[2:]
    assert [(k.run.heading, round(k.run.power_w, -2)) for k in read] == [
        ("out", 500),
        ("back", 500),
    ]
    for name, content, result in (
        ("x.nmea", b"$GPRMC,1*00", "no sentence tells a speed; 1 could"),
        ("x.csv", b"a,b\n1,2\n", "no column for"),
        ("x.gpx", b"<gpx", "not a GPX"),
        ("", b"", "choose a CSV"),
    ):
        data = {"file": (io.BytesIO(content), name)}
        bad = shop.post(f"{TRIAL}/file", data=data, content_type="multipart/form-data")
        assert bad.status_code == 422 and result in bad.text


def listened(live, conn, instrument):
    _read_all(live, instrument, Stream(), conn, time.monotonic())


def instrument_of(setup, hidden, steps_w):
    rows = (sentences(*row) for row in simulate(setup, hidden, steps_w))
    return FileInstrument(b"".join(rows))


def test_a_live_trial_takes_what_is_steady_and_keeps_it(shop, conn):
    shop.post(f"{TRIAL}/begin")
    trial = trials.latest(conn, 5)
    setup = SOFT
    live = Live(trial.id, "file")
    listened(live, conn, instrument_of(setup, Hidden(), (300.0, 700.0)))
    kept = [k.run for k in trials.runs(conn, trial.id)]
    assert [(round(r.power_w, -2), r.heading) for r in kept] == [
        (300, "out"),
        (300, "back"),
        (700, "out"),
        (700, "back"),
    ]
    assert live.taken == kept and live.wanted == "" and live.bad == 0
    assert len(trials.samples(conn, trial.id)) > 200
    wh = trials.energy_wh(conn, trial.id)
    assert wh == pytest.approx(130 * (300 + 700) / 3600, rel=0.1)  # 65 s a run, both ways
    shop.post(f"{TRIAL}/how", data={"start_charge": "90 %", "end_charge": "60 %"})
    assert f"the instrument counted {wh:.0f} Wh" in shop.get(TRIAL).text
    page = shop.get(TRIAL).text
    assert "2 of 2 points" in page or "of 2 points" in page
    half = Live(trial.id, "again", taken=kept[:1])
    assert half.wanted == "back"
    listened(half, conn, instrument_of(setup, Hidden(), (300.0,)))
    assert len(half.taken) == 2  # what was taken is not taken twice


def test_a_run_that_was_taken_away_is_taken_and_kept_again(shop, conn):
    """The simulated instrument's clock begins anew each time one listens."""
    shop.post(f"{TRIAL}/begin")
    trial, boat = trials.latest(conn, 5), instrument_of(SOFT, Hidden(), (300.0,))
    listened(Live(trial.id, "first"), conn, boat)
    wh = trials.energy_wh(conn, trial.id)
    first = trials.runs(conn, trial.id)
    shop.post(f"{TRIAL}/drop", data={"run": first[0].id})
    again = Live(trial.id, "again", taken=[first[1].run], _day_s=1000.0)
    listened(again, conn, boat)
    kept = [k.run.heading for k in trials.runs(conn, trial.id)]
    assert sorted(kept) == ["back", "out"] and len(again.taken) == 2
    assert trials.energy_wh(conn, trial.id) == pytest.approx(2 * wh, rel=0.02)


def test_an_instrument_that_says_nothing_good_is_told(conn, shop):
    shop.post(f"{TRIAL}/begin")
    live = Live(trials.latest(conn, 5).id, "bad")
    bad = FileInstrument(b"$GPRMC,1*00\r\n" * 5 + sentence("IIVTG,,T,,M,,N,,K,A").encode())
    listened(live, conn, bad)
    assert live.bad == 5 and live.last is None and live.taken == []
    for address in ("8.8.8.8:80", "nowhere", "127.0.0.1:99999", "no.such.host.invalid:1"):
        answer = shop.post(f"{TRIAL}/live", data={"address": address})
        assert answer.status_code == 422 and "allowed is host:port" in answer.text


def test_the_page_follows_an_instrument_over_tcp(shop, conn):
    server = Server(SOFT, Hidden(), (400.0,), faster=2000)
    try:
        shop.post(f"{TRIAL}/live", data={"address": f"127.0.0.1:{server.port}"})
        for _ in range(100):
            page = shop.get(f"{TRIAL}/live").text
            if "2 runs in all" in page:
                break
            time.sleep(0.1)
        assert "2 runs in all" in page and "Steady for 20 s" in page
        trial = trials.latest(conn, 5)
        assert [k.source for k in trials.runs(conn, trial.id)] == ["live", "live"]
        shop.post(f"{TRIAL}/live", data={"stop": "1"})
        assert LIVES.get(trial.id) is None and "Stop listening" not in shop.get(TRIAL).text
    finally:
        server.close()


def test_the_clock_of_an_instrument_may_pass_midnight():
    live = Live(1, "x")
    for day_s in (86_398.0, 86_399.0, 0.0, 1.0):
        live.read(Reading(2.0, 10.0, 500.0, time_s=day_s), lambda: 0.0)
    assert [s.t_s for s in live._window] == [86_398.0, 86_399.0, 86_400.0, 86_401.0]


def test_a_run_taken_off_where_no_trial_was_begun_changes_nothing(shop, conn):
    assert shop.post("/enquiry/5/trial/drop", data={"run": "3"}).status_code == 303
    assert trials.runs(conn, trials.latest(conn, 5).id) == []
