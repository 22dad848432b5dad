"""Faults planted in boats that are a little other than promised: the right cause comes first, and
healthy boats, of other physics too, raise no alarm.
"""

from dataclasses import replace

import numpy as np
import pytest

from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.hydro.open_water import rev_at_power, run
from jolvek.core.predict.doubt import doubt
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor
from jolvek.core.trial.causes import CAUSES, explain, planted
from jolvek.core.trial.other_physics import other_boat, other_runs
from jolvek.core.trial.runs import Run, sort
from jolvek.core.trial.shaft_and_volts import expected_rpm, expected_v
from jolvek.core.trial.study import BOATS, STEPS

LARGEST = {"fouled": 1.1, "heavy": 0.45, "propeller": 0.6, "power": 0.45, "trim": 2.0}
LARGEST |= {"instrument": 0.16, "wind": 4.0}
BY_VOLTS = {"battery"}  # no speed tells of it
STATED = {"propeller_diameter_m": 0.27, "propeller_pitch_m": 0.17, "propeller_rpm": 2200}
PACKS = Bank(Battery("lfp", 25.6, 100), 1, 2)


def believed(i):
    hull, load, watts = BOATS[i]
    return Setup(hull, load, Motor(watts)), watts


def measured(p, key, amount, watts, chance):
    """Runs both ways; a speedometer that is off, and power that is lost, are not in the curve."""
    out, current = [], 0.2 * chance.standard_normal()
    for step in STEPS:
        lost = amount if key == "power" and step == 1.0 else 0.0
        speed = float(p.speed_at_w(step * watts * np.exp(-lost)))
        speed *= np.exp(-amount) if key == "instrument" else 1.0
        for heading, sign in (("out", 1), ("back", -1)):
            seen = (speed + sign * current) * np.exp(0.012 * chance.standard_normal())
            out.append(Run(step * watts, max(seen, 0.06), heading))
    return out


def found(key, amount, i, chance):
    setup, watts = believed(i)
    d = doubt(evaluate(setup))
    worse = d if key in ("power", "instrument") else planted(d, key, amount)
    other = np.exp(0.08 * chance.standard_normal())
    p = worse.performance
    p = replace(p, power_w=p.power_w * other, power_from_rest_w=p.power_from_rest_w * other)
    return explain(sort(measured(p, key, amount, watts, chance)).points, d, watts)


def test_the_right_cause_comes_first_in_four_of_five_of_the_largest_faults():
    chance = np.random.default_rng(3)
    right = {
        key: [found(key, LARGEST[key], i, chance).causes[0].cause.key == key for i in range(5)]
        for key in LARGEST
    }
    assert set(right) | BY_VOLTS == {c.key for c in CAUSES}
    assert np.mean(list(right.values())) >= 0.8, right
    weak = ("trim", "instrument")  # squat and a wrong speedometer look like others
    assert all(np.mean(found) >= 0.6 for key, found in right.items() if key not in weak), right


def with_shaft_and_volts(key, amount, i, chance):
    """What is found where rev/min and volts were read too, on a motor whose propeller is stated."""
    hull, load, watts = BOATS[i]
    setup = Setup(hull, load, Motor(watts, **STATED), PACKS)
    d = doubt(evaluate(setup))
    by_speed = key in ("fouled", "heavy", "propeller", "wind")
    p = planted(d, key, amount).performance if by_speed else d.performance
    runs = []
    for r in measured(p, key, amount, watts, chance):
        shown = float(p.speed_at_w(r.power_w)) * (np.exp(-amount) if key == "instrument" else 1)
        real = shown * (np.exp(amount) if key == "instrument" else 1)
        lost = amount if key == "power" and r.power_w == watts else 0.0
        rpm = expected_rpm(d.performance, real, r.power_w * np.exp(-lost))
        rpm *= np.exp(0.45 * amount * (key == "propeller") + 0.02 * chance.standard_normal())
        sag = amount * r.power_w / watts if key == "battery" else 0.0
        volts = expected_v(PACKS, r.power_w) - 25.6 * (sag + 0.01 * chance.standard_normal())
        runs.append(replace(r, rpm=rpm, volts_v=volts))
    return explain(sort(runs).points, d, watts)


def test_shaft_speed_tells_a_propeller_from_a_foul_bottom_and_volts_tell_worn_packs():
    chance = np.random.default_rng(7)
    sizes = {"propeller": 0.5, "fouled": 1.1, "battery": 0.2, "power": 0.45}
    for key, amount in sizes.items():
        first = [with_shaft_and_volts(key, amount, i, chance).causes[0].cause.key for i in range(5)]
        assert first.count(key) >= 4, (key, first)


def test_no_volts_no_word_of_worn_packs():
    e = found("power", 0.45, 1, np.random.default_rng(2))
    assert "battery" not in {x.cause.key for x in e.causes}


def test_a_propeller_turns_as_speed_and_power_make_it_turn():
    """The same point by thrust (B-series) and by power."""
    setup = Setup(BOATS[1][0], BOATS[1][1], Motor(1000, **STATED))
    p = evaluate(setup)
    v = float(p.speed_at_w(800.0))
    by_thrust = run(float(p.drag_at_n(v)), v, 0.27, 0.17)
    by_power = 60 * rev_at_power(float(by_thrust.shaft_power_w), v, 0.27, 0.17)
    assert by_power == pytest.approx(60 * float(by_thrust.rev_s), rel=2e-3)
    assert expected_rpm(p, v, 800.0) == pytest.approx(by_power, rel=0.15)


def test_a_larger_fault_is_surer_and_the_words_say_so():
    chance = np.random.default_rng(1)
    sizes = [found("power", a, 1, chance) for a in (0.05, 0.25, 0.45)]
    assert [e.wrong for e in sizes] == [False, True, True]
    assert sizes[0].healthy > sizes[1].healthy > sizes[2].healthy
    first = sizes[2].causes[0]
    assert first.word == "very likely" and first.amount == pytest.approx(0.45, abs=0.15)
    assert sum(x.chance for x in sizes[2].causes) + sizes[2].healthy == pytest.approx(1.0)


def test_healthy_boats_of_other_physics_raise_no_alarm():
    chance = np.random.default_rng(5)
    alarms = []
    for i in range(40):
        setup, watts = believed(i % len(BOATS))
        runs = other_runs(other_boat(setup, chance), watts, 5, chance)
        alarms.append(explain(sort(runs).points, doubt(evaluate(setup)), watts).wrong)
    assert np.mean(alarms) <= 0.05


def test_the_next_run_is_one_that_tells_the_two_apart():
    """Power lost at full throttle and anything else differ most near full throttle."""
    e = found("power", 0.3, 1, np.random.default_rng(2))
    assert e.causes[0].cause.key == "power" and e.next_w >= 750.0


def test_a_boat_that_is_faster_than_promised_has_no_fault():
    setup, watts = believed(1)
    d = doubt(evaluate(setup))
    runs = measured(d.performance, "", 0.0, watts, np.random.default_rng(1))
    fast = [replace(r, speed_m_s=1.12 * r.speed_m_s) for r in runs]
    assert not explain(sort(fast).points, d, watts).wrong
