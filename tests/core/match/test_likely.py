"""How likely a candidate does the day: against the single setup, and with more in hand."""

from dataclasses import replace

import numpy as np
import pytest

from jolvek.core.job.job_setup import of_fitted
from jolvek.core.match.likely import likely
from jolvek.core.match.matching import match
from jolvek.core.match.whole import fitted_of


@pytest.mark.parametrize("which", range(6))
def test_the_shortlist_and_one_setup_alone_tell_about_the_same_chance(enquiries, shelf, which):
    m = match(enquiries[which].need, shelf)
    rows = np.linspace(0, m.field.price.size - 1, 8).astype(int)
    for i, result in zip(rows, likely(m, rows), strict=True):
        able = np.isfinite(m.field.day_wh[i])
        alone = of_fitted(fitted_of(m, int(i))).day.chance if able else 0.0
        assert abs(float(result) - alone) < 0.2 or (result - 0.5) * (alone - 0.5) > 0


def test_what_does_the_day_is_at_least_even_and_what_cannot_is_not(enquiries, shelf):
    m = match(enquiries[1].need, shelf)
    chances = likely(m, np.arange(m.field.price.size))
    by_power = m.field.does_day
    assert by_power.any() and chances[by_power].min() >= 0.45
    assert chances[~np.isfinite(m.field.day_wh)].max(initial=0.0) < 0.5


def test_a_shorter_day_is_never_less_likely(enquiries, shelf):
    need = enquiries[1].need
    short = replace(need, day=replace(need.day, distance_m=0.5 * need.day.distance_m))
    far, near = (match(n, shelf) for n in (need, short))
    assert far.field.price.size == near.field.price.size
    rows = np.arange(0, far.field.price.size, 29)
    assert (likely(near, rows) >= likely(far, rows) - 1e-9).all()
