"""Trials: runs are paired and judged, one point is safe, three are enough, and the band is kept."""

import itertools
import json
from dataclasses import asdict, replace

import numpy as np
import pytest
from click.testing import CliRunner

from jolvek.cli import main
from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.units import KNOT_M_S
from jolvek.core.hydro.hull import UNKNOWNS
from jolvek.core.hydro.resistance import remembered_table
from jolvek.core.match.matching import match
from jolvek.core.predict.doubt import doubt
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.measured import SOFT, TRIMARAN
from jolvek.core.predict.priors import PRIORS
from jolvek.core.trial.fitting import fit, speed_at, untried
from jolvek.core.trial.other_physics import tried_otherwise
from jolvek.core.trial.runs import Run, sort
from jolvek.core.trial.study import BOATS, hidden, study

# Speeds of a 6.7 m multihull on the water; common practice, no source (see predict.measured)
POINTS = [(300, 3.45), (500, 4.0), (1000, 5.0), (1500, 5.2)]
MEASURED = [Run(w, kn * KNOT_M_S) for w, kn in POINTS]


def motor(watts):
    return replace(SOFT.motor, input_power_w=watts)


def test_the_unknowns_are_those_of_the_doubt():
    assert tuple(PRIORS) == UNKNOWNS


def test_pairs_take_the_current_out_and_what_does_not_belong_is_named():
    runs = [
        Run(500, 2.4, "out"),
        Run(520, 1.6, "back"),
        Run(900, 2.6, "out"),
        Run(1000, 2.5, gained_m_s=0.3),
        Run(1000, 2.5, wind_m_s=12),
        Run(1000, 2.5, depth_m=1.0),
        Run(1000, 2.5, gained_m_s=-0.3),
        Run(1000, 2.5, wind_m_s=3, depth_m=9),
    ]
    found = sort(runs)
    assert found.points[0].speed_m_s == pytest.approx(2.0)
    assert found.points[0].current_m_s == pytest.approx(-0.4)
    assert found.points[0].power_w == pytest.approx((500 * 520) ** 0.5)
    assert [found.left_out[i] for i in (2, 3, 4, 5, 6)] == [
        "one way only: the current is not known",
        "still accelerating",
        "gusts",
        "shallow water",
        "slowing down",
    ]
    assert 7 not in found.left_out and len(found.points) == 2


def test_unlike_powers_and_streams_beyond_belief_make_no_pair():
    assert sort([Run(500, 2.0, "out"), Run(700, 2.0, "back")]).points == ()
    assert sort([Run(500, 4.0, "out"), Run(500, 0.5, "back")]).points == ()
    near = sort([Run(500, 2.0, "out"), Run(555, 2.0, "back"), Run(505, 2.2, "back")])
    assert near.points[0].runs == (0, 2)


def test_one_point_moves_the_curve_towards_it_not_onto_it():
    p, slow = evaluate(SOFT), Run(800, 0.85 * float(evaluate(SOFT).speed_at_w(800)))
    f = fit(SOFT, [slow])
    after = speed_at(doubt(evaluate(replace(SOFT, hull=f.hull))), 800)
    assert slow.speed_m_s < after < float(p.speed_at_w(800))
    assert f.after < f.before
    assert untried(f.hull) == SOFT.hull


@pytest.mark.parametrize("count", [2, 3])
def test_the_multihulls_points_from_any_two_or_three_others(count):
    """Within 5.6 % of speed; but the point at 1500 W, which from those below it comes 7 to 8 % too
    fast: from 1000 to 1500 W she gained 4 % of speed, which no factor on her waves explains.
    """
    for chosen in itertools.combinations(range(4), count):
        f = fit(TRIMARAN, [MEASURED[i] for i in chosen])
        d = doubt(evaluate(replace(TRIMARAN, hull=f.hull)))
        for i in set(range(4)) - set(chosen):
            watts, knots = POINTS[i]
            error = speed_at(d, watts) / (knots * KNOT_M_S) - 1
            assert abs(error) < (0.082 if watts == 1500 else 0.057), (chosen, watts, error)


def test_three_pairs_predict_a_fourth_within_four_percent():
    chance, worst = np.random.default_rng(5), 0.0
    for hull, load, watts in BOATS[:5]:
        believed = replace(SOFT, hull=hull, load=load, motor=motor(watts))
        true = evaluate(hidden(believed, chance))
        runs = [
            Run(s * watts, float(true.speed_at_w(s * watts)) + sign * 0.2, heading)
            for s in (0.25, 0.5, 1.0)
            for heading, sign in (("out", 1), ("back", -1))
        ]
        f = fit(believed, runs)
        tried = evaluate(replace(believed, hull=f.hull))
        off = float(tried.speed_at_w(0.75 * watts) / true.speed_at_w(0.75 * watts)) - 1
        worst = max(worst, abs(off))
    assert worst < 0.04


def test_a_point_that_does_not_belong_is_left_out_and_said():
    p = evaluate(TRIMARAN)
    runs = [Run(w, 0.96 * float(p.speed_at_w(w))) for w in (200, 400, 600, 800)]
    runs[2] = replace(runs[2], speed_m_s=0.7 * float(p.speed_at_w(600)))
    f = fit(TRIMARAN, runs)
    assert [t.used for t in f.run_fits] == [True, True, False, True]
    assert "of speed off the others" in f.run_fits[2].why
    with pytest.raises(ValueRefused, match="none of which belongs"):
        fit(TRIMARAN, [Run(500, 2.0, "out")])


def test_a_planing_boat_is_tried_on_both_sides_of_her_hump():
    hull, load, watts = BOATS[5]
    believed = replace(SOFT, hull=hull, load=load, motor=motor(watts))
    true = evaluate(replace(believed, hull=replace(hull, planing_factor=1.15)))
    v = np.array([2.0, 0.85 * true.top_speed_m_s, true.top_speed_m_s])
    runs = [Run(float(np.interp(x, true.speed_m_s, true.power_w)), float(x)) for x in v]
    f = fit(believed, runs)
    assert 1.05 < f.hull.planing_factor * f.hull.friction_factor / f.hull.efficiency_factor < 1.3


def test_every_page_and_the_shortlist_use_the_tried_boat():
    from jolvek import demo

    need = demo.enquiries()[1].need
    shelf = demo.shelf()
    top = np.nanmedian(match(need, shelf).field.top_speed_m_s)
    for change in ({"friction_factor": 1.5}, {"wave_factor": 1.5}, {"efficiency_factor": 0.75}):
        tried = replace(need, hull=replace(need.hull, **change))
        assert np.nanmedian(match(tried, shelf).field.top_speed_m_s) < 0.99 * top, change


def test_the_band_holds_and_shrinks_in_the_study():
    rows = {r.points: r for r in study(12, seed=4, points=(0, 3))}
    assert rows[3].median < 0.5 * rows[0].median
    assert rows[3].median < 0.03 and rows[3].most < 0.05
    assert 0.6 < rows[3].covered <= 1.0
    assert rows[3].worse <= 0.12


def test_the_command_says_all_and_refuses_in_one_line(tmp_path):
    setup = {
        "format": "jolvek-setup",
        "version": 1,
        "hull": {k: getattr(TRIMARAN.hull, k) for k in ("family", "length_m", "beam_m", "mass_kg")}
        | {"bodies": 3, "body_beam_m": 0.55},
        "load": {"people": 2, "people_kg": 160, "gear_kg": 20},
        "motor": {"input_power_w": 1500, "propeller_diameter_m": 0.26, "mass_kg": 15},
    }
    runs = [{"power_w": w, "speed_m_s": kn * KNOT_M_S} for w, kn in POINTS[:3]]
    case = {
        "format": "jolvek-trial",
        "version": 1,
        "setup": setup,
        "runs": runs,
        "ask": {"powers_w": [800]},
        "seen": ["vibrates"],
    }
    path = tmp_path / "trial.json"
    path.write_text(json.dumps(case))
    result = json.loads(CliRunner().invoke(main, ["trial", str(path)]).output)
    assert result["band"] < result["band_before"] and len(result["residuals"]) == 3
    assert result["points"][0]["speed_m_s"] != result["before"][0]["speed_m_s"]
    assert [x["key"] for x in result["findings"]] == ["vibrates"] and result["findings"][0][
        "hazard"
    ]
    keys = ("friction_factor", "wave_factor", "planing_factor", "efficiency_factor")
    fitted = {k: result["fit"][k] for k in keys} | {
        "trial_spread": result["spread"],
        "trial_shape": result["shape"],
    }
    path.write_text(json.dumps(setup | {"fit": fitted, "ask": {"powers_w": [800]}}))
    again = json.loads(CliRunner().invoke(main, ["predict", str(path)]).output)
    assert again["points"][0]["speed_m_s"] == pytest.approx(result["points"][0]["speed_m_s"], 1e-4)
    path.write_text(json.dumps(case | {"runs": [{"power_w": 0, "speed_m_s": 2}]}))
    bad = CliRunner().invoke(main, ["trial", str(path)])
    assert bad.exit_code == 2 and "power_w" in bad.output and bad.output.count("\n") == 1
    assert asdict(MEASURED[0])["heading"] == ""


def test_bands_hold_for_boats_of_other_physics_and_one_point_is_worth_having():
    """Wanted: 75 to 85 % of bands at each number of points; `jolvek bench` draws more boats."""
    rows = {r.points: r for r in tried_otherwise(60, seed=6, points=(0, 1, 3))}
    assert all(0.68 <= r.covered <= 0.88 for r in rows.values())
    assert rows[1].median <= 0.03 and rows[3].median <= 0.02 < rows[0].median


def test_a_run_in_wind_and_in_the_shallows_is_given_back_what_they_took():
    table = remembered_table(SOFT.hull, SOFT.water, SOFT.displacement_kg, SOFT.load)
    at = [float(evaluate(replace(SOFT, wind_m_s=w), table).speed_at_w(700)) for w in (6, -6, 0)]
    windy = [Run(700, v, h, wind_m_s=6.0) for v, h in zip(at, ("out", "back"), strict=False)]
    lost = fit(SOFT, [replace(r, wind_m_s=None) for r in windy])
    given = fit(SOFT, windy)
    assert lost.points[0].speed_m_s < 0.985 * at[2]
    assert given.points[0].speed_m_s == pytest.approx(at[2], rel=1e-3)
    assert given.points[0].noise > lost.points[0].noise
    shoal = float(evaluate(replace(SOFT, depth_m=1.2), table).speed_at_w(700))
    found = fit(SOFT, [Run(700, shoal, depth_m=1.2)])
    assert shoal < at[2] and found.points[0].speed_m_s == pytest.approx(at[2], rel=1e-3)


def test_pairs_that_scatter_count_less():
    slow = [Run(500, 1.9, "out"), Run(500, 1.5, "back")]
    steady = [*slow, Run(900, 2.4, "out"), Run(900, 2.0, "back")]
    wild = [*slow, Run(900, 2.2, "out"), Run(900, 2.2, "back")]
    assert max(p.noise for p in sort(wild).points) > 1.5 * max(p.noise for p in sort(steady).points)
