"""Seventy sweeps over ten kinds of boat: each figure changes without a step and in the way that
every boatman knows (heavier, windier, shallower is slower; more power is faster).
"""

from dataclasses import replace

import numpy as np
import pytest

from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor

BOATS = [
    (Hull("kayak", 3.7, 0.78, 34), Load(1), 400),
    (Hull("canoe", 4.8, 0.92, 32), Load(2), 500),
    (Hull("sailing_dinghy", 4.3, 1.65, 130), Load(2), 1000),
    (Hull("rigid_dinghy", 3.2, 1.45, 65), Load(2), 5000),
    (Hull("inflatable_air", 2.9, 1.55, 38), Load(2), 4000),
    (Hull("rib", 3.6, 1.75, 110), Load(2), 9000),
    (Hull("flat_bottom", 4.3, 1.6, 130), Load(2), 3000),
    (Hull("cabin", 6.5, 2.3, 1400), Load(4), 4000),
    (Hull("keelboat", 7.5, 2.5, 2400), Load(3), 3000),
    (Hull("multihull", 6.7, 4.2, 750), Load(2), 1500),
]
STEPS = 9


def lighter(s, x):
    return replace(s, hull=replace(s.hull, mass_kg=s.hull.mass_kg * (1.5 - 0.5 * x)))


def longer(s, x):
    of = s.hull
    return replace(s, hull=replace(of, waterline_length_m=of.waterline_m * (0.9 + 0.1 * x)))


def narrower(s, x):
    wide = s.hull.body_waterline_beam_m * (1.0 - 0.12 * x)
    key = "body_beam_m" if s.hull.body_count > 1 else "waterline_beam_m"
    return replace(s, hull=replace(s.hull, **{key: wide}))


def less_people(s, x):
    return replace(s, load=replace(s.load, people_kg=80.0 * s.load.people * (1.6 - 0.6 * x)))


def more_power(s, x):
    watts = (0.4 + 0.6 * x) * s.motor.input_power_w
    return replace(s, motor=replace(s.motor, input_power_w=watts))


SWEEPS = {  # the way to more speed; how much of a step back is no fault (a beam changes waves too)
    "mass": (lighter, 0.002),
    "length": (longer, 0.004),
    "beam": (narrower, 0.03),
    "people": (less_people, 0.002),
    "wind": (lambda s, x: replace(s, wind_m_s=10.0 * (1 - x)), 0.002),
    "waves": (lambda s, x: replace(s, wave_height_m=0.4 * (1 - x)), 0.002),
    "depth": (lambda s, x: replace(s, depth_m=1.5 * 8.0**x), 0.002),
    "power": (more_power, 0.002),
}


@pytest.mark.parametrize("boat", BOATS, ids=lambda b: b[0].family)
@pytest.mark.parametrize("sweep", SWEEPS)
def test_speed_changes_without_a_step_and_the_right_way(sweep, boat):
    made, back = SWEEPS[sweep]
    hull, load, watts = boat
    sized = Motor(watts, mass_kg=20, propeller_diameter_m=0.28, propeller_pitch_m=0.25)
    before = Setup(hull, load, replace(sized, propeller_rpm=2600))
    below = 0.45 if hull.fam.planes else 0.9  # of the power: clear of the hump, which is a step
    speeds = []
    for x in np.linspace(0.0, 1.0, STEPS):
        p = evaluate(made(before, float(x)))
        speeds.append(
            float(p.speed_at_w(below * p.power_limit_w * (0.3 if hull.fam.planes else 1)))
        )
    change = np.diff(np.log(speeds))
    assert change.min() > -back, speeds
    assert np.abs(np.diff(change)).max() < 0.08, speeds
