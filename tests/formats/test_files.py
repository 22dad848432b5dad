"""jolvek-setup, -shelf and -enquiry: read, answered, written back, and refused in one sentence."""

import json
import subprocess
import sys

import pytest
from click.testing import CliRunner

from jolvek.cli import main
from jolvek.core.base.errors import JolvekError
from jolvek.formats import enquiry_file, schema, setup_file, shelf_file

GOOD = {
    "hull": {"family": "inflatable_soft", "length_m": 2.9, "beam_m": 1.5, "mass_kg": 30},
    "load": {"people": 2, "people_kg": 155, "gear_kg": 5},
    "motor": {"input_power_w": 1100, "voltage_v": 24},
    "battery": {"chemistry": "lfp", "nominal_voltage_v": 25.6, "capacity_ah": 50},
    "bank": {"series": 1, "parallel": 1},
    "ask": {"powers_w": [1100, 300, 99000], "speeds_m_s": [1.5, 30]},
}
KEYS = {
    "points",
    "top_speed_m_s",
    "hull_speed_m_s",
    "knee",
    "planes",
    "planing_power_w",
    "planing_band_w",
    "trim_deg",
    "draught_aft_m",
    "static_thrust_n",
    "displacement_kg",
    "draught_m",
    "band",
    "findings",
    "assumed",
}


def predict(data):
    return CliRunner().invoke(
        main, ["predict", "-"], input=data if isinstance(data, str) else json.dumps(data)
    )


def test_the_answer_has_exactly_the_keys_of_the_format_in_the_asked_order():
    answer = json.loads(predict(GOOD).output)
    assert set(answer) == KEYS
    assert [p["power_w"] for p in answer["points"][:2]] == [1100, 300]
    assert answer["points"][3]["speed_m_s"] == 1.5
    assert answer["points"][4]["power_w"] is None and answer["points"][4]["reason"]
    figures = {"power_w", "speed_m_s", "current_a", "runtime_s", "range_m"}
    assert set(answer["points"][0]) == figures | {"speed_band_m_s", "range_band_m"}
    assert set(answer["points"][3]) == figures | {"power_band_w", "range_band_m"}
    for point in answer["points"][:4]:
        for key in ("speed_m_s", "power_w", "range_m"):
            low, high = point.get(key.replace("_m", "_band_m").replace("_w", "_band_w"), (0, 1e9))
            assert point[key] is None or low < point[key] < high
    assert all(set(f) == {"rule", "level", "text", "cure", "source"} for f in answer["findings"])


def test_what_nobody_gave_is_listed_as_assumed():
    names = {a["name"] for a in json.loads(predict(GOOD).output)["assumed"]}
    assert {
        "hull.waterline_length_m",
        "motor.mass_kg",
        "motor.propeller_diameter_m",
        "battery.mass_kg",
        "reserve",
        "water",
    } <= names
    given = {**GOOD, "reserve": 0.3, "water": "fresh"}
    assert not {"reserve", "water"} & {
        a["name"] for a in json.loads(predict(given).output)["assumed"]
    }


def change(path, value):
    data = json.loads(json.dumps(GOOD))
    target = data
    *way, last = path.split(".")
    for key in way:
        target = target[key]
    target[last] = value
    return data


@pytest.mark.parametrize(
    ("data", "says"),
    [
        (change("hull.length_m", "abc"), "hull.length_m: read 'abc'"),
        (change("hull.mass_kg", -5), "hull.mass_kg: read -5"),
        (change("hull.length_m", 400), "hull.length_m: read 400"),
        (change("hull.family", "barge"), "hull.family: read 'barge', allowed is one of kayak"),
        (change("motor.colour", "red"), "motor.colour"),
        (change("battery.chemistry", "lead"), "battery.chemistry"),
        (change("bank.series", 1.5), "bank.series"),
        (change("motor.input_power_w", None), "motor.input_power_w"),
        (change("ask.speeds_m_s", [-1]), "ask.speeds_m_s.0"),
        ({}, "hull"),
        ("[1, 2", "line 1"),
        ("null", "file"),
        ("", "file"),
        ('{"hull": NaN}', "NaN"),
        (change("reserve", 2), "reserve"),
        (change("water", "brackish"), "water"),
        (change("motor.peak_power_w", 500), "motor.peak_power_w"),
        (change("hull.beam_m", 5), "hull.beam_m"),
    ],
)
def test_bad_input_ends_with_2_and_one_line_that_names_the_key(data, says):
    result = predict(data)
    assert result.exit_code == 2
    assert (
        result.stderr.count("\n") == 1
        and says in result.stderr
        and "Traceback" not in result.stderr
    )


def test_the_command_works_as_a_process_and_a_missing_file_is_said():
    run = subprocess.run(
        [sys.executable, "-m", "jolvek", "predict", "no-such-file.json"],
        capture_output=True,
        text=True,
    )
    assert (
        run.returncode == 2 and "no-such-file.json" in run.stderr and "Traceback" not in run.stderr
    )


@pytest.mark.parametrize("name", schema.NAMES)
def test_schemas_are_printed_and_valid(name):
    from jsonschema import Draft202012Validator

    printed = json.loads(CliRunner().invoke(main, ["schema", name]).output)
    Draft202012Validator.check_schema(printed)
    assert printed["title"] == f"jolvek-{name}"


def test_the_shelf_comes_back_unchanged(shelf):
    assert shelf_file.read(json.dumps(shelf_file.write(shelf))) == shelf


@pytest.mark.parametrize("which", range(6))
def test_enquiries_come_back_unchanged(enquiries, which):
    assert enquiry_file.read(json.dumps(enquiry_file.write(enquiries[which]))) == enquiries[which]


def test_an_id_used_twice_on_a_shelf_is_refused(shelf):
    data = shelf_file.write(shelf)
    data["chargers"].append(data["chargers"][0])
    with pytest.raises(JolvekError, match="used once only"):
        shelf_file.read(json.dumps(data))


def test_match_works_on_files_alone(tmp_path, enquiries, shelf):
    (tmp_path / "e.json").write_text(json.dumps(enquiry_file.write(enquiries[1])))
    (tmp_path / "s.json").write_text(json.dumps(shelf_file.write(shelf)))
    result = CliRunner().invoke(
        main, ["match", str(tmp_path / "e.json"), "--shelf", str(tmp_path / "s.json")]
    )
    answer = json.loads(result.output)
    assert (
        answer["do_the_day"] > 10
        and answer["setups"][0]["does_day"]
        and answer["picks"][0]["pick"] == "cheapest"
    )
    assert {r["id"] for r in answer["rejected"]["motors"]} >= {"ovrek-o30"}


def test_match_on_an_empty_shelf_says_so(tmp_path, enquiries):
    (tmp_path / "e.json").write_text(json.dumps(enquiry_file.write(enquiries[1])))
    (tmp_path / "s.json").write_text('{"format": "jolvek-shelf", "version": 1}')
    answer = json.loads(
        CliRunner()
        .invoke(main, ["match", str(tmp_path / "e.json"), "--shelf", str(tmp_path / "s.json")])
        .output
    )
    assert answer["setups"] == [] and "no motor" in answer["says"]


def test_the_demo_has_what_it_promises(shelf, enquiries):
    powers = [m.spec.input_power_w for m in shelf.motors]
    assert len(powers) >= 14 and min(powers) == 250 and max(powers) == 12000
    assert {m.spec.voltage_v for m in shelf.motors} == {12, 24, 36, 48}
    assert len(shelf.batteries) >= 14 and len(shelf.mounts) >= 10 and len(shelf.chargers) >= 8
    assert {e.need.hull.family for e in enquiries} == {
        "kayak",
        "inflatable_air",
        "flat_bottom",
        "sailing_dinghy",
        "pontoon",
        "rib",
    }


def test_an_asked_question_without_a_battery_still_has_speeds():
    data = {k: v for k, v in GOOD.items() if k not in ("battery", "bank")}
    answer = setup_file.answer(setup_file.read(json.dumps(data)))
    assert answer["points"][0]["speed_m_s"] > 1.8 and answer["points"][0]["runtime_s"] is None


def test_predict_takes_places_waves_shallows_and_a_wind_from_the_side():
    def told(**more):
        data = json.loads(json.dumps(GOOD))
        load = more.pop("load", None)
        data |= more
        data["load"] |= load or {}
        return setup_file.answer(setup_file.read(json.dumps(data)))

    plain = told(wind_m_s=6.0)
    beam = told(wind_m_s=6.0, wind_from_deg=90.0)
    assert beam["top_speed_m_s"] > plain["top_speed_m_s"]
    for change in ({"wave_height_m": 0.3}, {"depth_m": 0.8}):
        assert told(**change)["top_speed_m_s"] < told()["top_speed_m_s"]
    aft, fore = (
        told(load={"people": 0, "people_kg": 0, "gear_kg": 150, "places": [p]})
        for p in ({"mass_kg": 150, "ahead_m": 0.4}, {"mass_kg": 150, "ahead_m": 1.6})
    )
    assert aft["trim_deg"] > fore["trim_deg"] and aft["draught_aft_m"] > fore["draught_aft_m"]
    with pytest.raises(JolvekError, match="load.places"):
        told(load={"people_kg": 150, "places": [{"mass_kg": 400, "ahead_m": 1.0}]})
    wide, narrow = (told(confidence=c)["points"][0]["speed_band_m_s"] for c in (0.95, 0.5))
    assert wide[0] < narrow[0] < narrow[1] < wide[1]


def test_near_the_hump_she_planes_openly_and_a_pole_drags():
    data = json.loads(json.dumps(GOOD))
    data["hull"] = {"family": "rigid_dinghy", "length_m": 2.9, "beam_m": 1.45, "mass_kg": 55}
    data["load"] = {"people": 2, "people_kg": 150}
    words = []
    for watts in (1500, 4700, 9000):
        data["motor"] = {"input_power_w": watts, "mass_kg": 35}
        data.pop("battery", None), data.pop("bank", None)
        words.append(setup_file.answer(setup_file.read(json.dumps(data)))["planes"])
    assert words == [False, "open", True]
