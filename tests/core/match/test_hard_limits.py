"""Matching holds each hard limit at its figure, and counts a day's energy as a single bank does."""

from dataclasses import replace

import numpy as np
import pytest

from jolvek.core.electric.bank import Bank, runtime_s
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.match.matching import match
from jolvek.core.match.motors import motors
from jolvek.core.products.shelf import sample

NEED = Need(
    Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=0.36), Load(2), day=Day(1.5, 4000.0)
)


def with_spec(kind, **changes):
    """The sample shelf with its one product of a kind changed."""
    shelf = sample()
    (item,) = getattr(shelf, kind)
    return replace(shelf, **{kind: (replace(item, spec=replace(item.spec, **changes)),)})


THRUST_N = float(motors(sample(), NEED.water.density_kg_m3).thrust_n[0])


@pytest.mark.parametrize(
    ("kind", "key", "allowed", "refused"),
    [
        ("mounts", "max_thrust_n", THRUST_N + 1, THRUST_N - 1),
        ("mounts", "max_motor_kg", 14.0, 13.9),
        ("batteries", "full_voltage_v", 29.2, 29.3),  # the motor takes 1.22 × 24 V, as stated
    ],
)
def test_a_hard_limit_holds_at_its_figure(kind, key, allowed, refused):
    assert match(NEED, with_spec(kind, **{key: allowed})).field.price.size
    assert not match(NEED, with_spec(kind, **{key: refused})).field.price.size


def test_what_is_left_after_the_day_is_what_a_single_bank_has_left():
    m = match(NEED, sample())
    able = np.flatnonzero(np.isfinite(m.field.day_wh))
    assert able.size
    for i in able:
        k = int(m.field.supply[i])
        battery = m.shelf.batteries[m.supplies.battery[k]].spec
        bank = Bank(battery, int(m.supplies.series[k]), int(m.supplies.parallel[k]))
        hours = 4000.0 / 1.5 / 3600
        mean_w = float(m.field.day_wh[i]) / hours
        lasts_h = float(runtime_s(bank, mean_w, NEED.day.kept_share)) / 3600
        left = mean_w * (lasts_h - hours - NEED.day.keep_s / 3600)
        assert m.field.spare_wh[i] == pytest.approx(left, rel=0.01, abs=1.0)
