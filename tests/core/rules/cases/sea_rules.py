"""Cases of core/rules/sea_rules.py."""

from dataclasses import replace

from jolvek.core.day.seas import seas
from jolvek.core.enquiry.need import Day
from jolvek.core.fit.fitted import sample_fitted
from tests.core.rules.cases.made import ids

BOAT = sample_fitted(Day(1.5, 4000))  # 3.2 m: 6.57 m/s of wind and 0.32 m of waves at most
TRIP = BOAT.need.day.trip


def told(wind=0.0, speed=1.5, **fitted):
    legs = tuple(replace(leg, speed_m_s=speed) for leg in TRIP)
    return ids(seas(replace(BOAT, **fitted), legs, wind).findings)


CASES = {
    "wind-limit": (lambda w: told(w), (0.0, 6.56), (6.6, 15.4)),
    "waves-limit": (lambda fetch: told(10.0, fetch_m=fetch), (0.0, 1700.0), (2100.0, 50_000.0)),
    "drift": (lambda v: told(6.0, v), (1.5, 3.0), (0.4,)),
    "shallow": (lambda m: told(depth_m=m), (None, 1.0, 0.6), (0.45, 0.3)),
}
