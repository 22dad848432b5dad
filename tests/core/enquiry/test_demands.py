"""Days made of legs: the sum of their parts, the same as the plain day, and matched as such."""

from dataclasses import replace

import numpy as np
import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.day.summed import run_day
from jolvek.core.enquiry.demands import demands, hardest, over_limit
from jolvek.core.enquiry.need import Day, Leg
from jolvek.core.enquiry.sizing import size
from jolvek.core.fit.fitted import Fitted
from jolvek.core.match.matching import match
from jolvek.core.predict.claims import check_claims
from jolvek.core.products.shelf import sample


def with_day(need, day):
    return replace(need, day=day)


@pytest.mark.parametrize("which", range(6))
def test_one_leg_is_the_plain_day(enquiries, shelf, which):
    need = enquiries[which].need
    same = with_day(need, need.day.with_legs(need.day.trip))
    a, b = match(need, shelf), match(same, shelf)
    assert (
        a.field.does_day == b.field.does_day
    ).all() and a.field.power_at_wish_w == pytest.approx(b.field.power_at_wish_w, nan_ok=True)
    assert size(need).energy_wh == pytest.approx(size(same).energy_wh)


def test_the_day_of_all_candidates_is_that_of_single_ones(enquiries, shelf):
    legs = (
        Leg("out", 1.5, 3000.0, None, -0.2, 0.0, hold_s=900.0),
        Leg("home", 1.7, 3000.0, None, 0.3, 5.0),
    )
    need = with_day(enquiries[1].need, replace(enquiries[1].need.day, hotel_w=15.0).with_legs(legs))
    m = match(need, shelf)
    for i in np.nonzero(np.isfinite(m.field.day_wh))[0][:: max(1, m.field.price.size // 12)]:
        d, s = int(m.field.drive[i]), int(m.field.supply[i])
        shaft = float(m.drives.shaft_m[d])
        f = Fitted(
            need,
            shelf.motors[m.drives.motor[d]],
            shelf.batteries[m.supplies.battery[s]],
            shelf.mounts[m.drives.mount[d]],
            None,
            int(m.supplies.series[s]),
            parallel=int(m.supplies.parallel[s]),
            shaft_m=None if np.isnan(shaft) else shaft,
        )
        run = run_day(f)
        assert m.field.day_wh[i] == pytest.approx(run.energy_wh, rel=0.02)
        if run.as_wished and abs(m.field.spare_wh[i]) > 0.03 * f.bank.energy_wh:
            assert bool(m.field.spare_wh[i] > 0) == run.home


def test_there_and_back_in_a_stream_takes_more_than_in_still_water(enquiries):
    day = enquiries[1].need.day
    still = day.with_legs((Leg("out", 1.6, 4000.0), Leg("home", 1.6, 4000.0)))
    stream = day.with_legs(
        (Leg("out", 1.6, 4000.0, None, -0.6), Leg("home", 1.6, 4000.0, None, 0.6))
    )
    energy = [
        sum(r.energy_wh for r in demands(with_day(enquiries[1].need, d))) for d in (still, stream)
    ]
    assert energy[1] > 1.1 * energy[0]


def test_a_current_as_fast_as_the_boat_decides_and_stops_the_day(enquiries, shelf):
    need = with_day(
        enquiries[1].need,
        enquiries[1].need.day.with_legs(
            (Leg("out", 1.6, 2000.0), Leg("race", 1.6, 2000.0, None, 1.7))
        ),
    )
    rows = demands(need)
    assert hardest(rows).leg.name == "race" and not hardest(rows).possible and size(need).no_way
    assert not match(need, shelf).field.does_day.any()


def test_a_leg_needs_a_distance_or_a_time():
    with pytest.raises(ValueRefused, match="a distance or a time"):
        Leg("nowhere", 1.5)
    assert (
        Leg("an hour", 1.5, None, 3600.0, 0.5).metres == 3600.0
        and Leg("x", 1.5, 100.0).back.current_m_s == 0
    )


def test_speed_limits_are_over_ground():
    day = Day(speed_limit_m_s=1.5).with_legs(
        (Leg("with", 1.4, 100.0, None, -0.3), Leg("against", 1.7, 100.0, None, 0.3))
    )
    assert [leg.name for leg in over_limit(day)] == ["with"]


def test_a_cold_day_and_an_hour_kept_leave_fewer_setups(enquiries, shelf):
    need = enquiries[1].need
    plain, cold, hour = (
        int(match(with_day(need, d), shelf).field.does_day.sum())
        for d in (
            need.day,
            replace(need.day, temperature_c=-10.0),
            replace(need.day, reserve_school="hour", reserve=0.0),
        )
    )
    assert cold < plain and hour < plain


@pytest.mark.parametrize(
    ("change", "about", "level"),
    [
        ({"static_thrust_n": 900.0}, "static thrust", "block"),
        ({"static_thrust_n": 370.0}, "static thrust", "fine"),
    ],
)
def test_thrust_claims(change, about, level):
    item = sample().motors[0]
    found = {
        c.about: c.level for c in check_claims(replace(item, spec=replace(item.spec, **change)))
    }
    assert found[about] == level


@pytest.mark.parametrize(
    ("change", "about", "level"),
    [
        ({"claimed_hp": 5.0}, "horsepower", "caution"),
        ({"claimed_hp": 1.6}, "horsepower", "fine"),
        ({"claimed_speed_m_s": 6.0}, "top speed", "caution"),
        ({"claimed_runtime_s": 3600.0}, "time at full power", "note"),
    ],
)
def test_catalogue_claims(
    change, about, level
):  # 1200 W sold as five "horsepower" are 1.6 hp, common practice, no source
    assert {c.about: c.level for c in check_claims(replace(sample().motors[0], **change))}[
        about
    ] == level


def test_battery_claims():
    item = sample().batteries[0]
    assert {c.about: c.level for c in check_claims(replace(item, claimed_energy_wh=1600.0))}[
        "energy"
    ] == "caution"
    assert {
        c.about: c.level for c in check_claims(replace(item, spec=replace(item.spec, mass_kg=4.0)))
    }["weight"] == "caution"
