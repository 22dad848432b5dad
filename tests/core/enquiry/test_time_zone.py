"""The clock of a place against the sun: it stands highest where geometry puts it."""

import numpy as np
import pytest

from jolvek.core.enquiry.need import Day
from jolvek.core.enquiry.sun import sun_of
from jolvek.core.enquiry.time_zone import offset_h, zone_at


# the sun stands highest at 12 h − longitude/15 + zone − equation of time (−4 min on 1 July, −3 min
# on 1 January): geometry
@pytest.mark.parametrize(
    ("place", "date", "highest_h"),
    [
        ((43.5, -3.8), "2026-07-01", 12 + 3.8 / 15 + 2 + 4 / 60),
        ((43.5, -3.8), "2026-01-01", 12 + 3.8 / 15 + 1 + 3 / 60),
        ((57.7, 11.9), "2026-07-01", 12 - 11.9 / 15 + 2 + 4 / 60),
        ((57.7, 11.9), "2026-01-01", 12 - 11.9 / 15 + 1 + 3 / 60),
    ],
)
def test_the_sun_stands_highest_by_the_clock_of_the_place(place, date, highest_h):
    sun = sun_of(Day(solar_w=300.0, latitude_deg=place[0], longitude_deg=place[1], date=date))
    middle = np.sum(sun.hour * sun.power_w) / np.sum(sun.power_w)
    assert middle == pytest.approx(highest_h, abs=0.1)


@pytest.mark.parametrize(
    ("place", "zone"),
    [
        ((38.7, -9.2), "Europe/Lisbon"),
        ((42.2, -8.7), "Europe/Madrid"),
        ((48.4, -4.5), "Europe/Paris"),
        ((50.4, -4.1), "Europe/London"),
        ((53.3, -6.2), "Europe/Dublin"),
        ((60.2, 24.9), "Europe/Helsinki"),
        ((37.9, 23.7), "Europe/Athens"),
        ((59.3, 18.0), "Europe/Berlin"),
        ((45.4, 12.3), "Europe/Berlin"),
        ((41.5, -71.3), "America/New_York"),
        ((-36.8, 174.8), "Pacific/Auckland"),
        ((10.0, -150.0), None),
    ],
)
def test_harbours_lie_in_their_zone(place, zone):
    assert zone_at(*place) == zone


def test_summer_time_turns_with_the_year_south_of_the_line_too():
    assert offset_h(-36.8, 174.8, "2026-01-10") == 13.0
    assert offset_h(-36.8, 174.8, "2026-07-10") == 12.0
    assert offset_h(36.0, -25.0, "no day") == -2.0
