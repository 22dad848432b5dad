"""Steady stretches of a track, runs both ways, logs and tracks of files; the plan; the family."""

import math
from dataclasses import replace

import numpy as np
import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.fit.fitted import sample_fitted
from jolvek.core.fit.handover import pieces, steps
from jolvek.core.hydro.hull import Hull
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.measured import SOFT
from jolvek.core.trial.diagnosis import FAULTS, suspect
from jolvek.core.trial.family import learn, taught
from jolvek.core.trial.fitting import fit
from jolvek.core.trial.plan import plan, waits_for
from jolvek.core.trial.runs import Run
from jolvek.core.trial.segments import Sample, runs_of, steady, stretches
from jolvek.formats import log_file
from jolvek.standins.instrument import Hidden, simulate


def track(*legs):
    """Samples of (seconds, speed, course, power) one after the other."""
    out, t = [], 0
    for seconds, speed, course, power in legs:
        for _ in range(seconds):
            out.append(Sample(float(t), speed, course, power))
            t += 1
    return out


def test_what_is_not_steady_makes_no_run():
    assert stretches(track((15, 2.0, 0.0, 500.0))) == []
    rising = [Sample(float(t), 1.0 + t / 40, 0.0, 500.0) for t in range(60)]
    assert stretches(rising) == []
    swinging = [Sample(float(t), 2.0, float(t * 6 % 360), 500.0) for t in range(60)]
    assert stretches(swinging) == []
    surging = [Sample(float(t), 2.0, 0.0, 500.0 if t % 2 else 300.0) for t in range(60)]
    assert stretches(surging) == []
    assert steady([]) is None


def test_out_back_and_across():
    found = runs_of(
        stretches(track((40, 2.0, 355.0, 500.0), (40, 1.6, 178.0, 500.0), (40, 1.9, 90.0, 500.0)))
    )
    assert [(r.heading, round(r.speed_m_s, 1)) for r in found] == [("out", 2.0), ("back", 1.6)]
    bare = stretches(track((40, 2.0, None, None)))
    assert runs_of(bare) == [] and runs_of(bare, [300.0])[0].power_w == 300.0


def test_powers_are_typed_for_all_for_each_or_for_each_two():
    found = stretches(track(*((40, v, c, None) for v in (2.0, 3.0) for c in (0.0, 180.0))))
    assert [r.power_w for r in runs_of(found, [300, 600])] == [300, 300, 600, 600]
    assert [r.power_w for r in runs_of(found, [1, 2, 3, 4])] == [1, 2, 3, 4]
    assert [r.power_w for r in runs_of(found, [500])] == [500] * 4
    with pytest.raises(ValueRefused, match="1, 4 or 2: there are 4 steady stretches"):
        runs_of(found, [1, 2, 3])


def test_the_simulated_boat_is_found_again():
    rows = list(simulate(SOFT, Hidden(1.2, 1.1, 0.95), (300.0, 600.0, 1100.0)))
    runs = runs_of(stretches([Sample(*row) for row in rows]))
    powers = sorted({round(r.power_w, -2) for r in runs})
    assert powers == [300, 600, 1100] and {r.heading for r in runs} == {"out", "back"}
    f = fit(SOFT, runs)
    hull = Hull(**{**vars(SOFT.hull), "friction_factor": 1.2, "wave_factor": 1.1})
    true = evaluate(SOFT.__class__(**{**vars(SOFT), "hull": hull}))
    assert f.points and abs(f.points[0].current_m_s) == pytest.approx(0.25, abs=0.05)
    assert f.hull.friction_factor > 1.02 and true.top_speed_m_s > 0


def test_a_log_finds_its_columns_or_says_what_there_is():
    rows = "Time;SOG (kn);W\n" + "".join(f"{i};4,0;500\n" for i in range(60))
    with pytest.raises(log_file.LogRefused, match="no column for speed; there are"):
        log_file.samples(rows.encode(), {}, "kn")
    found = log_file.samples(rows.encode(), {"speed": "SOG (kn)"}, "kn")
    assert len(found) == 60 and found[0].power_w == 500
    assert len(stretches(found)) == 1
    with pytest.raises(log_file.LogRefused, match="allowed is one of"):
        log_file.samples(rows.encode(), {"speed": "fast"}, "kn")
    for bad in (b"\xff\xfe\x00", b"a,b\n", b"t,speed\nx,y\n"):
        with pytest.raises(log_file.LogRefused):
            log_file.samples(bad, {}, "kn")
    stamped = b"time,speed\n2026-07-01T10:00:00,3.6\n2026-07-01T10:00:01,3.6\n"
    assert [s.t_s for s in log_file.samples(stamped, {}, "km/h")] == [0.0, 1.0]


def test_a_track_is_read_into_speeds():
    step = math.degrees(2.0 / 6_371_000)
    points = "".join(
        f'<trkpt lat="{53 + i * step:.9f}" lon="5"><time>2026-07-01T10:{i // 60:02d}:{i % 60:02d}Z'
        "</time></trkpt>"
        for i in range(90)
    )
    gpx = '<gpx version="1.1" creator="x"><trk><trkseg>' + points + "</trkseg></trk></gpx>"
    found = log_file.track(gpx.encode())
    runs = runs_of(stretches(found), [400.0])
    assert runs and runs[0].speed_m_s == pytest.approx(2.0, rel=0.01)
    for bad in (b"<gpx", b"<gpx/>", b"\xff"):
        with pytest.raises(log_file.LogRefused):
            log_file.track(bad)


def test_the_plan_stays_out_of_the_shallows_and_the_wind():
    found = plan(evaluate(SOFT))
    assert [s.low_m_s < s.speed_m_s < s.high_m_s for s in found] == [True] * 4
    for s in found:
        assert s.speed_m_s / math.sqrt(9.81 * s.depth_m) <= 0.61
        assert not fit(SOFT, [Run(s.power_w, s.speed_m_s, depth_m=s.depth_m + 0.1)]).run_fits[0].why
    assert waits_for(1.0) == "" and "too much" in waits_for(9.0)


def test_faults_are_suspected_by_what_is_seen_and_measured():
    assert [x.fault.key for x in suspect(None, ["crooked", "air"])] == ["crooked", "air"]
    low = suspect(None, most_w=700, rated_w=1000)
    assert low[0].fault.key == "power_low" and "700 of 1000 W" in low[0].why
    assert suspect(None, most_w=950, rated_w=1000) == []
    drop = suspect(None, drop_v=1.2, drop_worked_v=0.4)
    assert drop[0].fault.key == "power_low" and "0.4 V were worked out" in drop[0].why
    assert suspect(None, drop_v=0.5, drop_worked_v=0.4) == []
    for f in FAULTS.values():
        assert f.causes and f.told_by and all(c.check and c.cure for c in f.causes)


def test_the_list_is_of_this_setup():
    f = sample_fitted()
    keys = [s.key for s in steps(f)]
    assert len(set(keys)) == len(keys) and "charge" in keys and "cord" in keys
    assert keys.index("serials") < keys.index("mount") < keys.index("propeller")
    hazards = {s.key for s in steps(f) if s.hazard}
    assert {"charge", "propeller", "packs", "cord"} <= hazards
    assert [p.what for p in pieces(f)][:1] == ["motor"]
    soft = replace(f, need=replace(f.need, hull=Hull("inflatable_soft", 2.9, 1.5, 32)))
    soft_keys = [s.key for s in steps(soft)]
    assert soft_keys.index("inflate") < soft_keys.index("hang") and "inflate" not in keys


def test_over_sixty_volts_is_danger_and_for_an_electrician():
    f = sample_fitted()
    one_v = f.bank.nominal_v / f.series
    for series, word in ((1, "warning"), (1 + int(60 / one_v), "danger")):
        high = replace(f, series=series)
        live = {s.key: s for s in steps(high) if s.key in ("packs", "polarity")}
        assert {s.signal for s in live.values()} == {word}, high.bank.nominal_v
        assert ("electrician" in live["packs"].hazard) == (high.bank.nominal_v > 60)


def test_a_family_learns_and_one_odd_boat_weighs_little():
    chance = np.random.default_rng(2)
    own = (0.05, 0.08, 0.08, 0.04)
    true = np.array([0.15, 0.0, 0.0, -0.05])
    boats = [(tuple(true + 0.05 * chance.standard_normal(4)), own) for _ in range(12)]
    x = learn("rib", boats)
    assert x.mean[0] == pytest.approx(0.17, abs=0.05) and x.sigma[0] < 0.12
    odd = learn("rib", [*boats, ((-1.5, 0.0, 0.0, 0.0), own)])
    assert abs(odd.mean[0] - x.mean[0]) < 0.05
    assert learn("rib", boats[:1]).mean[0] < 0.8 * x.mean[0] + 0.1
    few = learn("rib", boats[:2])
    hull = Hull("rib", 3.8, 1.8, 130)
    assert taught(hull, few) == hull  # two are no family
    wise = taught(hull, x)
    assert wise.friction_factor > 1.1 and "12 trials of its kind" in wise.tried_on
    assert taught(Hull("kayak", 3.7, 0.78, 34), x).tried_on == ""
    tried = Hull("rib", 3.8, 1.8, 130, friction_factor=0.9, tried_on="2026-07-01")
    assert taught(tried, x) == tried
    with pytest.raises(ValueRefused):
        Hull("rib", 3.8, 1.8, 130, trial_spread=(1.0, 2.0))
