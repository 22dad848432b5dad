"""Day out and Fitting: pages, drawings measured against their scale, wiring, the sheet as PDF, ways
in and out of files.
"""

import io
import json
import re

import gpxpy
import pytest
from geographiclib.geodesic import Geodesic

from jolvek.formats import gpx_file
from jolvek.store import enquiries as store
from jolvek.store import setups
from jolvek.web.kit.worked import work_out

TRACK = """<?xml version="1.0"?>
<gpx version="1.1" creator="t" xmlns="http://www.topografix.com/GPX/1/1"><trk><trkseg>
{}</trkseg></trk></gpx>"""


def track(points):
    return TRACK.format("".join(f'<trkpt lat="{a}" lon="{b}"/>' for a, b in points)).encode()


def scale_of(text, kind):
    svg = re.search(rf'<svg [^>]*class="drawing {kind}"[^>]*>', text)[0]
    return {k: float(v) for k, v in re.findall(r'data-([\w-]+)="([\d.]+)"', svg)}


def test_before_a_setup_is_pinned_the_stations_say_the_next_step(client):
    assert "pin a setup to take it out" in client.get("/enquiry/2/day-out").text
    assert "pin a setup to fit it" in client.get("/enquiry/2/fitting").text


def test_the_afternoon_wind_is_answered_with_its_reason(fitted):
    text = fitted.get("/enquiry/3/day-out?wind=15&from=9:30").text
    assert (
        re.search(r"below the reserve|not get home", text)
        and "As planned the boat comes home with" in text
        and "the wind takes" in text
    )


def test_a_faster_leg_costs_charge_and_can_be_kept(fitted, conn):
    left = [
        float(
            re.search(
                r"with <strong>(?:<span[^>]*>)?(\d+)",
                fitted.get(f"/enquiry/3/day-out?v1={v}&v2={v}").text,
            )[1]
        )
        for v in ("3", "4.2")
    ]
    assert left[1] < left[0]
    fitted.post("/enquiry/3/day-out/keep", data={"v1": "3", "v2": "3.5"})
    assert [round(leg.speed_m_s / 0.514444, 1) for leg in store.get(conn, 3).need.day.legs] == [
        3.0,
        3.5,
    ]


@pytest.mark.parametrize(
    ("query", "says"),
    [("wind=strong", "read “strong”"), ("from=26:00", "read"), ("arrive=never", "read “never”")],
)
def test_a_wrong_switch_is_422(fitted, query, says):
    assert fitted.get(f"/enquiry/2/day-out?{query}").status_code == 422


def test_a_track_becomes_legs_by_geodesic_and_comes_out_again(fitted, conn):
    points = [(55.0, 10.0), (55.005, 10.001), (55.01, 10.0), (55.01, 10.02), (55.0, 10.02)]
    assert (
        fitted.post(
            "/enquiry/3/day-out/way", data={"file": (io.BytesIO(track(points)), "t.gpx")}
        ).status_code
        == 303
    )
    legs = store.get(conn, 3).need.day.legs
    whole = sum(
        Geodesic.WGS84.Inverse(*a, *b)["s12"] for a, b in zip(points, points[1:], strict=False)
    )  # geographiclib
    assert (
        sum(leg.distance_m for leg in legs) == pytest.approx(whole, rel=1e-9)
        and 3 <= len(legs) <= 4
    )
    route = gpxpy.parse(fitted.get("/enquiry/3/way.gpx").text).routes[0]  # read back by gpxpy
    assert [(p.latitude, p.longitude) for p in route.points][-1] == points[-1]
    line = json.loads(fitted.get("/enquiry/3/way.geojson").text)["features"][0]["geometry"][
        "coordinates"
    ]
    assert line[0] == [10.0, 55.0] and len(line) == len(legs) + 1
    assert fitted.get("/enquiry/2/way.gpx").status_code == 404


@pytest.mark.parametrize(
    "content",
    [
        b"",
        b"<gpx/>",
        b"not xml",
        track([(55.0, 10.0)]),
        track([(55.0, 10.0), (55.0, 10.0)]),
        b'<!DOCTYPE x [<!ENTITY a "b">]><gpx/>',
    ],
    ids=["empty", "no way", "text", "one point", "no length", "entities"],
)
def test_a_file_without_a_way_is_refused_at_its_field(fitted, content):
    answer = fitted.post("/enquiry/2/day-out/way", data={"file": (io.BytesIO(content), "t.gpx")})
    assert answer.status_code == 422 and 'id="file-error"' in answer.text


def test_a_long_track_is_simplified_to_a_dozen_legs_without_losing_its_length():
    from math import cos, sin

    points = [(55 + 0.02 * sin(i / 9), 10 + 0.03 * cos(i / 14) + i * 1e-5) for i in range(900)]
    way = gpx_file.read(track(points), 1.8)
    whole = sum(gpx_file.distance_m(a, b) for a, b in zip(points, points[1:], strict=False))
    assert len(way.legs) == 12 and sum(leg.distance_m for leg in way.legs) == pytest.approx(whole)


def test_the_day_comes_as_csv(fitted, conn):
    rows = fitted.get("/enquiry/2/day-out.csv").text.splitlines()
    assert rows[0].startswith("t_s,soc,power_w") and len(rows) > 60
    metres = sum(leg.metres for leg in store.get(conn, 2).need.day.trip)
    assert float(rows[-1].split(",")[6]) == pytest.approx(metres, rel=1e-3)


@pytest.mark.parametrize("number", range(1, 7))
def test_the_leg_is_drawn_to_scale(fitted, conn, number):
    """A 381 mm shaft is 381 mm by the scale bar, and the waterline lies at the computed draught."""
    text = fitted.get(f"/enquiry/{number}/fitting").text
    svg = text.split('class="drawing leg-view"')[1].split("</svg>")[0]
    d = scale_of(text, "leg-view")
    bar = re.search(r'v-5v10v-5h([\d.]+)v-5v10" class="scalebar" data-mm="250"', svg)
    mm = float(bar[1]) / 250
    w = work_out(store.get(conn, number).need, setups.of_enquiry(conn, number)[0])
    if w.pinned.shaft_m:
        seat = float(re.search(r'y="([\d.]+)"[^>]*class="shaft"', svg)[1]) + 1
        plate = re.search(r'd="M[\d.]+ ([\d.]+)L[^"]*L[\d.]+ ([\d.]+)Z" class="plate"', svg)
        middle = (float(plate[1]) + float(plate[2])) / 2
        assert (middle - seat) / mm == pytest.approx(1000 * w.pinned.shaft_m, abs=1.0)
        assert d["shaft"] / mm == pytest.approx(1000 * w.pinned.shaft_m, abs=0.5)
    assert (d["bottom-y"] - d["water-y"]) / mm == pytest.approx(
        1000 * w.fitted.transom_draught_m, abs=1.0
    )
    boat = scale_of(text, "weights-view")
    assert (boat["keel-y"] - boat["water-y"]) / boat["scale"] == pytest.approx(
        w.fitted.attitude.draught_m, abs=0.002
    )


def test_moving_the_battery_trims_her(fitted):
    def trim(place):
        text = fitted.get(f"/enquiry/2/fitting?w-battery={place}").text
        found = re.search(r"<dt>Trim</dt><dd>(?:level, )?([\d.]+)° (by the \w+)", text)
        return float(found[1]) * (1 if found[2] == "by the stern" else -1)

    assert trim("0.2") > trim("1.2") > trim("2.5")


def test_shaft_lengths_say_what_they_do(fitted):
    text = fitted.get("/enquiry/3/fitting?shaft=0.508").text
    assert "508 mm: deep" in text and "381 mm: just long enough" in text


def test_twelve_volts_by_both_schools(fitted):
    pin_two_in_series = fitted.get(
        "/enquiry/2/fitting?tab=wiring&load=3&hours=5&school=end+taps"
    ).text
    assert (
        "15.0 Ah" in pin_two_in_series
        and "a converter or its own battery" in pin_two_in_series.replace("\n", " ")
    )
    assert "converter" in fitted.get("/enquiry/2/fitting?tab=wiring&load=3&school=converter").text


def test_every_cable_of_the_netlist_is_drawn_and_listed(fitted, conn):
    text = fitted.get("/enquiry/5/fitting?tab=wiring&load=3").text
    drawn, listed = (
        re.findall(r'data-wire="(W\d+)"', text),
        re.findall(r'<th scope="row">(W\d+) ', text),
    )
    assert drawn == listed and len(drawn) > 6


def test_all_mounts_stand_side_by_side_with_the_reasons_against_the_impossible(fitted, shelf):
    text = fitted.get("/enquiry/4/fitting?tab=mounts").text
    assert (
        all(m.name in text.replace("&#39;", "'") for m in shelf.mounts)
        and "this boat has" in text
        and "a diver" in text
    )


@pytest.mark.parametrize("number", (2, 5))
def test_the_sheet_comes_as_a_pdf_with_its_fonts(fitted, number):
    answer = fitted.get(f"/enquiry/{number}/fitting/sheet.pdf")
    assert answer.status_code == 200 and answer.data[:5] == b"%PDF-" and len(answer.data) > 15_000
    assert b"FontFile" in answer.data or b"ObjStm" in answer.data


def test_where_the_pdf_libraries_are_missing_the_page_says_what_to_install(fitted, monkeypatch):
    import builtins

    real = builtins.__import__

    def missing(name, *args, **kwargs):
        if name == "weasyprint":
            raise OSError("cannot load library 'libpango-1.0-0'")
        return real(name, *args, **kwargs)

    monkeypatch.setattr(builtins, "__import__", missing)
    answer = fitted.get("/enquiry/2/fitting/sheet.pdf")
    assert answer.status_code == 503 and "apt-get install libpango" in answer.text


def test_the_day_ends_at_the_quay_and_not_twice_at_home(fitted):
    text = fitted.get("/enquiry/3/day-out").text
    assert "back at the quay" in text and not re.search(r"<td[^>]*>\s*home, below", text)


def test_the_day_says_how_it_differs_from_the_plan_and_what_brings_her_home(fitted):
    """A voyage that is worked out anew at the speed of the cure ends with the reserve."""
    page = fitted.get("/enquiry/3/day-out?wind=15&from=9:30").text
    said = re.search(r'class="plan-diff".*?</p>', page, re.S)[0]
    assert re.search(r"\d+ points less charge at home", said)
    speed = float(re.search(r"no more than ([\d.]+)\s*kn all the way", said)[1])
    slow = f"v1={speed - 0.1:.1f}&v2={speed - 0.1:.1f}"
    slower = fitted.get(f"/enquiry/3/day-out?wind=15&from=9:30&{slow}").text
    assert "Cure:" not in slower, slower[slower.index("plan-diff") :][:400]
    assert "plan-diff" not in fitted.get("/enquiry/2/day-out").text
    assert "of wind a boat of this length stays in" in page


def test_the_jobs_line_says_boat_setup_price_and_what_is_against_it(fitted):
    line = re.search(r'id="job-line".*?</summary>', fitted.get("/enquiry/5/waters").text, re.S)[0]
    assert re.search(r'data-figure="A.price.fitted">[^<]*\d', line)
    assert "against it" in line and "aboard" in line and "Saved" in line


@pytest.mark.parametrize("station", ["side-by-side", "day-out", "fitting", "offer"])
def test_a_station_without_a_setup_takes_the_first_pick_by_one_press(client, conn, station):
    page = client.get(f"/enquiry/2/{station}").text
    form = re.search(r'action="(/enquiry/2/take-first)".*?name="then" value="(\w+)"', page, re.S)
    answer = client.post(form[1], data={"then": form[2]})
    assert answer.status_code == 303 and answer.location.endswith(f"/enquiry/2/{station}")
    assert [p.chosen for p in setups.of_enquiry(conn, 2)] == [True]
    first = client.get("/enquiry/2/shortlist").text
    title = setups.of_enquiry(conn, 2)[0].part("motor").item.title
    assert title in first[first.index('id="list"') :][:6000]
