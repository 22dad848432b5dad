"""Keel boats, paddled hulls, pontoons and capacity against published figures and the trade."""

import numpy as np
import pytest

from jolvek.core.base.units import HORSEPOWER_W, KNOT_M_S
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.keel_series import residuary_share
from jolvek.core.hydro.open_water import DRIVE_EFFICIENCY
from jolvek.core.hydro.resistance import parts, table, total_n
from jolvek.core.hydro.water import Water
from jolvek.core.predict.capacity import most_load_kg, most_people, without_plate
from jolvek.core.predict.doubt import doubt
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor

# the first hull of the systematic series (Gerritsma, Onnink and Versluis 1981, from memory):
# residuary resistance over displacement in thousandths, by Froude number
FIRST_HULL = {0.30: 3.76, 0.325: 4.99, 0.35: 7.16, 0.375: 11.93, 0.40: 20.11, 0.45: 49.49}


@pytest.mark.parametrize(("froude", "share"), FIRST_HULL.items())
def test_the_keel_series_gives_what_its_first_hull_showed(froude, share):
    slender, beam, beam_draught = 4.78, 1 / 3.17, 3.99
    volume = slender**-3  # of a hull a metre long
    midship = volume / (beam * beam / beam_draught) / 0.568
    plane = volume ** (2 / 3) / (0.68 * beam)
    found = residuary_share(
        np.array([froude]), 0.523, 0.568, plane, beam, beam_draught, midship, slender
    )
    assert 1000 * found[0, 0] == pytest.approx(share, rel=0.17)


def test_a_keel_boat_goes_as_the_series_and_the_open_water_curve_say():
    """A kilowatt moves 7.5 m and 2.7 t at 3.4 to 4.5 kn; the propeller turns 0.35 to 0.55 of the
    battery's power into way: common practice, no source.
    """
    p = evaluate(
        Setup(Hull("keelboat", 7.5, 2.5, 2400), Load(2, 160, 100), Motor(1000, mass_kg=18))
    )
    v = float(p.speed_at_w(1000))
    assert 3.4 < v / KNOT_M_S < 4.5
    assert 0.35 < float(p.efficiency(v)) < 0.55


@pytest.mark.parametrize(("knots", "newtons"), [(2, 4.4), (3, 9.8), (4, 19.5), (4.5, 27)])
def test_a_sea_kayak_drags_as_magazines_towed_it(knots, newtons):
    """5.2 m, 0.53 m on the waterline, 113 kg: from memory, about ± 10 %."""
    hull = Hull("kayak", 5.2, 0.56, 25, waterline_length_m=4.85, waterline_beam_m=0.53)
    t = table(hull, Water("fresh"), 113.0, Load(1))
    assert float(total_n(t, knots * KNOT_M_S, 113.0)) == pytest.approx(newtons, rel=0.15)


def pontoon(hp, mass_kg, **hull):
    watts = hp * HORSEPOWER_W / DRIVE_EFFICIENCY
    boat = Hull("pontoon", 6.1, 2.5, 850, **hull)
    return evaluate(
        Setup(boat, Load(4, 300, 50), Motor(watts, mass_kg=mass_kg), water=Water("fresh"))
    )


def test_a_pontoon_boat_runs_as_owners_say():
    """Four aboard 6.1 m: 9 to 10 kn with 25 hp, 5 to 6.5 kn with 9.9 hp (from memory)."""
    large, small = pontoon(25, 75), pontoon(9.9, 45)
    assert 8.3 < large.top_speed_m_s / KNOT_M_S < 10.3
    assert 5.0 < small.top_speed_m_s / KNOT_M_S < 6.8
    low, high = (float(x) / KNOT_M_S for x in doubt(small).speed_band_m_s(small.power_limit_w))
    assert low < 5.75 < high


def test_a_canopy_stands_in_the_wind():
    against = [
        evaluate(
            Setup(
                Hull("pontoon", 6.1, 2.5, 850, canopy_m2=m2),
                Load(2, 160),
                Motor(2000, mass_kg=30),
                wind_m_s=8.0,
            )
        ).top_speed_m_s
        for m2 in (None, 6.0, 12.0)
    ]
    assert against[0] > against[1] * 1.01 > against[2] * 1.02


def test_moulded_paddled_hulls_are_smooth_and_painted_ones_rough():
    kayak, launch = Hull("kayak", 4.5, 0.6, 25), Hull("cabin", 4.5, 1.6, 300)
    assert kayak.fam.roughness < 0.0002 < launch.fam.roughness
    split = parts(table(kayak, Water(), 110.0, Load(1)), 1.5, 110.0)
    assert float(split.friction_n) > 0.75 * float(split.total_n)


# what plates of such boats say: common practice, no source
@pytest.mark.parametrize(
    ("boat", "people", "low_kg", "high_kg"),
    [
        (Hull("rigid_dinghy", 2.9, 1.45, 55), 3, 180, 330),
        (Hull("rib", 3.4, 1.7, 80), 4, 450, 750),
        (Hull("inflatable_air", 2.9, 1.55, 38), 3, 380, 560),
        (Hull("kayak", 3.7, 0.78, 34), 1, 130, 200),
        (Hull("board", 3.3, 0.82, 14), 1, 90, 150),
        (Hull("pontoon", 6.1, 2.5, 850), 10, 800, 1200),
        (Hull("flat_bottom", 4.3, 1.6, 130), 4, 300, 600),
    ],
    ids=lambda x: getattr(x, "family", None),
)
def test_a_boat_without_a_plate_is_made_for_what_plates_of_her_kind_say(
    boat, people, low_kg, high_kg
):
    assert abs(most_people(boat) - people) <= 1
    assert low_kg < most_load_kg(boat, 3000.0) < high_kg


def test_twelve_kilowatts_on_a_small_rib_without_a_plate_are_told():
    rib = Hull("rib", 3.0, 1.6, 70)
    told = {f.rule for f in without_plate(rib, Load(1), 12000.0, 150.0)}
    assert told == {"formula-power"}
    plated = Hull("rib", 3.0, 1.6, 70, max_power_w=15000)
    assert without_plate(plated, Load(1), 12000.0, 150.0) == []
