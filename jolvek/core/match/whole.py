"""A candidate of a match as the whole setup that the rule book judges."""

from __future__ import annotations

import math

from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.fit.fitted import Fitted
from jolvek.core.match.matching import Match
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from jolvek.core.products.shelf import Item

Parts = tuple[Item[Motor], Item[Battery], Item[Mount], Item[Charger] | None, int, int, float | None]


def parts_of(match: Match, index: int) -> Parts:
    """Motor, battery, mount, charger, packs in series, strings in parallel, shaft in m.

    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> parts_of(match(need, sample()), 0)[4:]
    (1, 1, 0.381)
    """
    f, d, s, shelf = match.field, match.drives, match.supplies, match.shelf
    drive, supply = int(f.drive[index]), int(f.supply[index])
    charger, shaft = int(s.charger[supply]), float(d.shaft_m[drive])
    return (
        shelf.motors[d.motor[drive]],
        shelf.batteries[s.battery[supply]],
        shelf.mounts[d.mount[drive]],
        shelf.chargers[charger] if charger >= 0 else None,
        int(s.series[supply]),
        int(s.parallel[supply]),
        None if math.isnan(shaft) else shaft,
    )


def fitted_of(match: Match, index: int) -> Fitted:
    """The setup at an index of the field, fitted to the boat.

    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match
    >>> from jolvek.core.products.shelf import sample
    >>> need = Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2))
    >>> fitted_of(match(need, sample()), 0).bank.nominal_v
    25.6
    """
    return Fitted(match.need, *parts_of(match, index))
