"""Waves, wind, shallows, a tow, streams and legs by style: limits of the formulas and facts of the
trade.
"""

from dataclasses import replace

import numpy as np
import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.base.units import KNOT_M_S
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.resistance import table, total_n
from jolvek.core.hydro.seaway import added_in_waves_n, drift_deg, shallow_loss, wave_height_m
from jolvek.core.hydro.water import Water
from jolvek.core.predict.doubt import doubt
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup, raised
from jolvek.core.predict.streams import against_streams
from jolvek.core.products.motor import Motor

TENDER = Setup(
    Hull("inflatable_soft", 2.9, 1.5, 32),
    Load(2, 150),
    Motor(1100),
    Bank(Battery("lfp", 25.6, 50)),
)


@pytest.mark.parametrize(
    ("wind", "fetch", "height"),
    [
        pytest.param(10.0, 10_000.0, 0.63, id="nomogram of the manual, from memory"),
        pytest.param(15.0, 50_000.0, 1.8, id="nomogram of the manual, from memory, 50 km"),
    ],
)
def test_waves_as_the_nomogram_has_them(wind, fetch, height):
    assert float(wave_height_m(wind, fetch)) == pytest.approx(height, rel=0.15)


def test_waves_grow_with_wind_and_fetch_up_to_the_open_sea():
    fetch = np.geomspace(100, 1e7, 40)
    for wind in (4.0, 8.0, 16.0):
        h = wave_height_m(wind, fetch)
        assert (np.diff(h) > 0).all() and h[-1] < 0.283 * wind**2 / 9.80665 * 1.001


def test_head_seas_cost_most_and_following_seas_next_to_nothing():
    n = added_in_waves_n(TENDER.hull, 0.3, [0, 45, 90, 180, -180, 315])
    assert n[0] > n[1] > n[2] > n[3] and n[3] == n[4] and n[5] == n[1]
    assert float(added_in_waves_n(TENDER.hull, 0.6, 0.0)) == pytest.approx(4 * n[0])
    assert (
        raised(6.0, 1000.0)["wave_from_deg"] == 0 and raised(-6.0, 1000.0)["wave_from_deg"] == 180
    )


def test_deep_water_is_deep_and_shallows_slow_her():
    """Lackenby 1963: no loss where the wave does not feel the bottom."""
    assert float(shallow_loss(1.5, 0.15, 50.0)) == pytest.approx(0.0, abs=1e-6)
    depths = [evaluate(replace(TENDER, depth_m=h)).at_speed(1.4).power_w for h in (0.6, 1.0, 3.0)]
    deep = evaluate(TENDER).at_speed(1.4).power_w
    assert depths[0] > depths[1] > depths[2] >= deep and depths[2] == pytest.approx(deep, rel=0.02)
    critical = np.sqrt(9.80665 * 0.5)
    assert float(shallow_loss(critical, 0.15, 0.5)) > 0.12


def test_waves_and_a_tow_cost_speed_and_both_are_in_the_power():
    calm = evaluate(TENDER)
    for change in ({"wave_height_m": 0.3}, {"tow_length_m": 2.4}):
        other = evaluate(replace(TENDER, **change))
        assert other.top_speed_m_s < 0.97 * calm.top_speed_m_s
        assert other.at_speed(1.2).power_w > 1.1 * calm.at_speed(1.2).power_w
    with pytest.raises(ValueRefused, match="wave_height_m"):
        replace(TENDER, wave_height_m=60.0)
    with pytest.raises(ValueRefused, match="tow_length_m"):
        replace(TENDER, tow_length_m=0.1)


def test_waves_widen_the_doubt_of_what_a_speed_takes():
    """The wave formula was made for ships: two fifths of it are open."""
    calm, rough = (evaluate(replace(TENDER, wave_height_m=h)) for h in (0.0, 0.4))
    assert float(doubt(rough).sigma_at(1.0)) > 1.1 * float(doubt(calm).sigma_at(1.0))
    slopes = doubt(rough).slopes
    shares = [slopes[k] for k in ("friction", "waves", "transom", "planing", "air", "leg", "seas")]
    assert np.allclose(np.sum(shares, axis=0), doubt(rough).steep, rtol=0.02)


def test_leeway_grows_as_she_slows_and_a_keel_holds_her():
    angles = drift_deg(TENDER.hull, 0.1, 60.0, [0.4, 0.8, 1.6, 3.0])
    assert (np.diff(angles) < 0).all() and angles[0] > 40 > 15 > angles[-1]
    keel = Hull("keelboat", 7.5, 2.5, 2400)
    assert float(drift_deg(keel, 0.45, 60.0, 1.6)) < float(drift_deg(TENDER.hull, 0.1, 60.0, 1.6))


def test_streams_are_what_is_left_over_ground_and_what_does_not_hold_is_told():
    p = evaluate(TENDER)
    rows = against_streams(p, 300.0)
    assert [round(r.stream_m_s / KNOT_M_S, 1) for r in rows] == [0, 0.5, 1, 1.5, 2, 2.5, 3]
    for row in rows:
        for held in row.settings:
            expected = float(p.speed_at_w(held.power_w)) - row.stream_m_s
            assert held.ground_m_s == pytest.approx(expected)
            assert held.holds == (expected > 0.05)
    assert rows[-1].settings[0].holds and not rows[-1].settings[2].holds
    holds = [r.hold_w for r in rows]
    assert holds == sorted(holds) and holds[0] == 0.0
    assert rows[4].hold_w == pytest.approx(p.at_speed(2 * KNOT_M_S).power_w)


@pytest.mark.parametrize("style", ["outboard", "pole", "fin", "pod"])
def test_a_watt_more_never_changes_her_speed_by_half_a_per_cent(style):
    kayak = Setup(Hull("kayak", 3.7, 0.78, 34), Load(1, 85), Motor(1000, style=style))
    for watts in (499, 999, 1999, 2000, 3999):
        a, b = (
            float(evaluate(replace(kayak, motor=Motor(w, style=style, mass_kg=14))).speed_at_w(200))
            for w in (watts, watts + 1)
        )
        assert abs(b / a - 1) < 0.005


def test_a_pole_drags_more_than_a_fin():
    drags = {s: Motor(500, style=s).leg_area_m2 for s in ("outboard", "pole", "fin", "pod")}
    assert drags["pole"] > 2 * drags["fin"] and drags["outboard"] > drags["fin"]
    assert Motor(500).leg_area_m2 == drags["outboard"]


def test_on_the_plane_most_of_the_leg_is_out_of_the_water():
    """Gearcase and skeg stay in: two fifths of the drag; all of it at displacement speeds."""
    rib = Hull("rib", 3.6, 1.75, 110)
    t = table(rib, Water(), 300.0)
    for speed, share in ((1.5, 1.0), (9.0, 0.4)):
        extra = float(total_n(t, speed, 300.0, 0.0, 0.004) - total_n(t, speed, 300.0))
        assert extra == pytest.approx(share * 0.5 * 1026 * 0.004 * speed**2, rel=2e-3)


@pytest.mark.parametrize(
    ("hull", "watts"),
    [
        (Hull("rigid_dinghy", 2.9, 1.45, 55), 4500),
        (Hull("rib", 3.4, 1.6, 90), 6000),
        (Hull("rigid_dinghy", 3.2, 1.5, 60), 9000),
    ],
)
def test_no_boat_is_faster_in_two_metres_of_water_than_in_deep(hull, watts):
    """Planing dinghies were, by up to a third: past her hump a higher speed drags less."""
    dinghy = Setup(hull, Load(2, 160), Motor(watts))
    deep = evaluate(dinghy).top_speed_m_s
    for depth in (1.0, 2.0, 4.0):  # half a per cent: each has its own grid of speeds
        assert evaluate(replace(dinghy, depth_m=depth)).top_speed_m_s <= 1.005 * deep
