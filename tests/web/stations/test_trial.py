"""The sea trial of a setup: typed, from logs and tracks, from an instrument; what it changes."""

import io
import time
from datetime import date

import pytest

from jolvek.core.hydro.hull import UNTRIED
from jolvek.core.predict.measured import SOFT
from jolvek.formats.nmea import Reading, Stream, sentence
from jolvek.standins.instrument import FileInstrument, Hidden, Server, sentences, simulate
from jolvek.store import enquiries, handovers, trials
from jolvek.web.kit.dates import day
from jolvek.web.stations.trial.live import LIVES, Live, _read_all

HERE, TRIAL = "/enquiry/5/handover", "/enquiry/5/trial"


@pytest.fixture
def shop(client, pinned_conn):
    client.post("/play", data={"role": "advisor"})
    return client


@pytest.fixture
def pinned_conn(conn, pinned):
    pinned.backup(conn)
    return conn


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
