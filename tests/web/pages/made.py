"""Setups of the demo as pages get them, and the units that pages are read in."""

from functools import cache

from jolvek import demo
from jolvek.core.job.job_setup import JobSetup
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import ranked
from jolvek.core.match.whole import fitted_of
from jolvek.store.setups import Bought, Pinned
from jolvek.web.kit.display import Units
from jolvek.web.kit.matches import Answer
from jolvek.web.kit.worked import Worked

SHELF = demo.shelf()
ENQUIRIES = demo.enquiries()
METRIC = Units(
    {"speed": "km/h", "distance": "km", "power": "kW", "mass": "kg", "length": "m", "thrust": "N"}
)
AT_SEA = Units(
    {"speed": "kn", "distance": "nm", "power": "W", "mass": "kg", "length": "m", "thrust": "N"}
)
IMPERIAL = Units(
    {"speed": "mph", "distance": "mi", "power": "hp", "mass": "lb", "length": "ft", "thrust": "lbf"}
)
ALL = {"metric": METRIC, "at sea": AT_SEA, "imperial": IMPERIAL}


@cache
def found(which):
    return match(ENQUIRIES[which].need, SHELF)


def answer(which):
    return Answer(found(which), SHELF)


@cache
def worked(which, place=0):
    """The setup at a place of the ranked list, as if it were pinned."""
    m = found(which)
    f = fitted_of(m, ranked(m)[place])
    kinds = {"motor": f.motor, "battery": f.battery, "mount": f.mount, "charger": f.charger}
    parts = tuple(
        Bought(kind, item, f.bank.packs if kind == "battery" else 1, item.price)
        for kind, item in kinds.items()
        if item
    )
    letter = "AB"[place]
    layout = (f.series, f.parallel)
    return Worked(
        Pinned(place + 1, which + 1, letter, *layout, f.shaft_m, True, parts),
        JobSetup(letter, f, parts),
    )
