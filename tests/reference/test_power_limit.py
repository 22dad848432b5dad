"""Power of a boat without a plate against the table and formulas of 33 CFR 183.53 (typed from
memory).
"""

import pytest

from jolvek.core.base.units import FOOT_M
from jolvek.core.hydro.hull import Hull
from jolvek.core.predict.power_limit import applies, factor, most_hp

FT = FOOT_M


@pytest.mark.parametrize(
    ("product", "hp", "flat_hp"),
    [
        (35, 3, 3),
        (36, 5, 3),
        (39, 5, 3),
        (40, 7.5, 5),
        (42, 7.5, 5),
        (43, 10, 7.5),
        (45, 10, 7.5),
        (46, 15, 10),
        (52, 15, 10),
    ],
)
def test_small_factors_by_the_table(product, hp, flat_hp):
    length, width = 10 * FT, product / 10 * FT
    assert factor(length, width) == product
    assert (most_hp(length, width), most_hp(length, width, flat_bottom=True)) == (hp, flat_hp)


@pytest.mark.parametrize(
    ("product", "plain", "flat", "remote"),
    [
        pytest.param(60, 25, 15, 30, id="0.8·60−25 = 23 → 25; 0.5·60−15 = 15; 2·60−90 = 30"),
        pytest.param(75, 35, 25, 60, id="0.8·75−25 = 35; 0.5·75−15 = 22.5 → 25; 2·75−90 = 60"),
        pytest.param(
            53, 20, 15, 20, id="0.8·53−25 = 17.4 → 20; 0.5·53−15 = 11.5 → 15; 2·53−90 = 16 → 20"
        ),
    ],
)
def test_large_factors_by_the_formulas_raised_to_the_next_five(product, plain, flat, remote):
    length, width = 15 * FT, product / 15 * FT
    assert most_hp(length, width) == plain
    assert most_hp(length, width, flat_bottom=True) == flat
    assert most_hp(length, width, remote_steering=True, transom_height_m=0.508) == remote
    assert most_hp(length, width, remote_steering=True, transom_height_m=0.40) == plain


def test_the_formula_is_not_for_inflatables_canoes_sail_or_long_boats():
    assert applies(Hull("skiff", 4.3, 1.35, 75)) and not applies(Hull("flat_bottom", 6.2, 1.9, 300))
    assert not any(
        applies(Hull(f, 4.0, 1.4, 60))
        for f in ("inflatable_air", "canoe", "kayak", "sailing_dinghy")
    )
