"""Sun by pvlib: the height of the sun by spherical trigonometry, and facts of the trade (common
practice, no source).
"""

import numpy as np
import pytest

from jolvek.core.base.errors import ValueRefused
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.predict.evaluate import evaluate
from jolvek.core.predict.setup import Setup
from jolvek.core.predict.solar import (
    CLOUDS,
    Panels,
    clear_sky_w_m2,
    sun_neutral_speed_m_s,
    sunshine,
)
from jolvek.core.products.motor import Motor


@pytest.mark.parametrize(
    ("latitude", "date", "declination", "within"),
    [
        (55, "2026-06-21", 23.44, 0.12),
        (0, "2026-03-20", 0.0, 0.12),
        (55, "2026-12-21", -23.44, 0.3),
    ],
)
def test_noon_irradiance_follows_the_height_of_the_sun(latitude, date, declination, within):
    """sin h = cos(φ − δ) at noon; a clear sky gives roughly 1098·sin h·e^(−0.057/sin h) W/m²
    (Haurwitz 1945; coarse at low sun).
    """
    _, sun = clear_sky_w_m2(latitude, 0.0, date)
    height = np.cos(np.radians(latitude - declination))
    assert sun.max() == pytest.approx(1098 * height * np.exp(-0.057 / height), rel=within)


def test_noon_is_at_the_longitude_of_the_clock():
    for offset, longitude in ((0, 0.0), (1, 15.0), (-5, -75.0)):
        hour, sun = clear_sky_w_m2(40.0, longitude, "2026-04-15", offset)
        assert hour[sun.argmax()] == pytest.approx(12.0, abs=0.3)


# common practice, no source
def test_five_hundred_watts_of_panels_carry_a_cruise_of_three_hundred_in_full_sun():
    assert sunshine(Panels(500, "clear"), 45.0, 10.0, "2026-07-01", 1).noon_w == pytest.approx(
        350, abs=60
    )


# 300 W → 3.45 kn measured, common practice
def test_the_light_multihull_goes_over_three_knots_on_the_sun_alone():
    boat = evaluate(
        Setup(
            Hull("multihull", 6.7, 4.2, 750),
            Load(2, 160, 20),
            Motor(1500, propeller_diameter_m=0.26, mass_kg=15),
        )
    )
    assert sun_neutral_speed_m_s(boat, 300.0) / 0.514444 == pytest.approx(3.45, rel=0.12)
    assert sun_neutral_speed_m_s(boat, 300.0, 320.0) == 0.0


def test_clouds_panels_and_controller_scale_the_yield():
    clear, dull = (
        sunshine(Panels(400, sky), 50.0, 8.0, "2026-08-01", 1) for sky in ("clear", "overcast")
    )
    assert dull.energy_wh == pytest.approx(clear.energy_wh * CLOUDS["overcast"])
    assert sunshine(
        Panels(400, "clear", 0.8), 50.0, 8.0, "2026-08-01", 1
    ).energy_wh == pytest.approx(clear.energy_wh * 0.8 / 0.95)


@pytest.mark.parametrize(("place", "date"), [((91, 0), "2026-01-01"), ((50, 0), "midsummer")])
def test_a_place_or_date_that_is_none_is_refused(place, date):
    with pytest.raises(ValueRefused):
        clear_sky_w_m2(*place, date)
