"""What must hold for any boat: more power is never slower, heavier never faster, more capacity
never shorter.
"""

from dataclasses import replace

import numpy as np
import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from jolvek.core.electric.bank import Bank, runtime_s
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.chemistry import CHEMISTRIES
from jolvek.core.enquiry.sizing import typical_hull
from jolvek.core.hydro.families import FAMILIES
from jolvek.core.hydro.hull import Load
from jolvek.core.hydro.resistance import table, total_n
from jolvek.core.hydro.water import Water
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.limits import check_performance
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor
from jolvek.core.rules.findings import LEVELS
from jolvek.core.rules.rulebook import RULES

families = st.sampled_from(sorted(FAMILIES))
few = settings(max_examples=25, deadline=None)


def boat(family_id, share=0.5):
    fam = FAMILIES[family_id]
    return typical_hull(
        family_id, fam.length_min_m + share * (min(fam.length_max_m, 9) - fam.length_min_m)
    )[0]


@few
@given(families, st.floats(0.1, 0.9), st.floats(150, 9000), st.floats(-8, 12))
def test_more_power_is_never_slower(family_id, share, power, wind):
    setup = Setup(boat(family_id, share), Load(2), Motor(power), wind_m_s=wind)
    speeds = evaluate(setup).curve(40)["speed_m_s"]
    assert (np.diff(speeds) >= -1e-9).all()


@few
@given(families, st.floats(0.1, 0.9), st.floats(200, 3000), st.floats(1, 200))
def test_heavier_is_never_faster_in_displacement(family_id, share, power, extra):
    hull = boat(family_id, share)
    light, heavy = (evaluate(Setup(hull, Load(1, 80, gear), Motor(power))) for gear in (0.0, extra))
    if heavy.top_speed_m_s < heavy.resistance.planing_speed_m_s(heavy.displacement_kg, 1.0):
        assert heavy.top_speed_m_s <= light.top_speed_m_s * (1 + 1e-6)


@few
@given(
    st.sampled_from(sorted(CHEMISTRIES)),
    st.floats(20, 200),
    st.floats(1.05, 3),
    st.floats(100, 1000),
    st.floats(0, 0.6),
)
def test_more_capacity_never_runs_shorter(chem, ah, factor, power, reserve):
    small, large = (
        float(runtime_s(Bank(Battery(chem, 24, c)), power, reserve)) for c in (ah, ah * factor)
    )
    assert large >= small * (1 - 1e-9)


@few
@given(st.floats(40, 200), st.floats(1.1, 3))
def test_more_capacity_shortens_the_range_by_no_more_than_its_weight_explains(ah, factor):
    hull = boat("kayak")
    small, large = (
        Setup(
            hull,
            Load(1, 85),
            Motor(500, voltage_v=12),
            Bank(Battery("agm", 12, c, mass_kg=c / 3.4)),
        )
        for c in (ah, ah * factor)
    )
    as_heavy = replace(small, load=Load(1, 85, large.bank.mass_kg - small.bank.mass_kg))
    assert evaluate(large).at_speed(1.2).range_m >= evaluate(as_heavy).at_speed(1.2).range_m * 0.999


@few
@given(families, st.floats(100, 12000), st.integers(0, 12), st.floats(0, 3000))
def test_every_finding_has_a_cure_and_a_source_and_no_figure_is_absurd(
    family_id, power, people, gear
):
    p = evaluate(
        Setup(
            boat(family_id),
            Load(people, None, gear),
            Motor(power, voltage_v=48),
            Bank(Battery("lfp", 51.2, 100)),
        )
    )
    assert p.top_speed_m_s > 0 and np.isfinite(p.power_w).all() and p.static_thrust_n > 0
    for finding in check_performance(p):
        assert finding.text and finding.cure and finding.source and finding.level in LEVELS


@pytest.mark.parametrize("rule", RULES.values(), ids=lambda r: r.id)
def test_every_rule_has_level_cure_and_source(rule):
    assert rule.level in LEVELS and rule.sentence.endswith(".") and rule.cure and rule.source


@few
@given(
    st.sampled_from([f.id for f in FAMILIES.values() if f.planes]),
    st.floats(0.2, 0.8),
    st.floats(60, 400),
)
def test_the_join_of_displacement_and_planing_has_no_step_in_slope(family_id, share, load_kg):
    """d ln R/d ln V never changes by as much as 1 within a per cent of speed."""
    hull = boat(family_id, share)
    t = table(hull, Water(), hull.mass_kg + load_kg, Load(1, 80))
    speed = np.geomspace(0.3, 5.0, 480) * t.planing_speed_m_s(hull.mass_kg + load_kg, 1.0)
    slope = np.gradient(np.log(total_n(t, speed, hull.mass_kg + load_kg)), np.log(speed))
    window = int(np.ceil(0.01 / np.log(speed[1] / speed[0])))
    assert np.abs(slope[window:] - slope[:-window]).max() < 1.0
