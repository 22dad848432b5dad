"""What each of some budgets buys: the whole kit, and a house battery as a thing of its own."""

from __future__ import annotations

from collections.abc import Sequence
from dataclasses import dataclass

import numpy as np

from jolvek.core.electric.battery import Battery
from jolvek.core.enquiry.need import Day
from jolvek.core.match.matching import Match
from jolvek.core.match.ranking import score
from jolvek.core.match.sensible import sensible
from jolvek.core.products.shelf import Item

HOUSE_V = (11.0, 14.0)  # nominal, of a battery that feeds 12 V things
MOST_HOUSE_PACKS = 4


@dataclass(frozen=True)
class Buys:
    """What one budget buys: the setup that stands first by the weights among those that do the day,
    else the one that goes farthest at the wanted speed; None: not one setup.
    """

    budget: float
    index: int | None
    does_day: bool


def what_budgets_buy(match: Match, budgets: Sequence[float]) -> list[Buys]:
    """The setups that budgets buy, in their order; each budget is for motor, mount, bank and
    charger together. They keep the limits of the picks: nobody is told to put a bank of half the
    boat's weight on it, or one that does not fill in time.

    >>> from jolvek.core.hydro.hull import Hull, Load
    >>> from jolvek.core.match.matching import match as run
    >>> from jolvek.core.enquiry.need import Need
    >>> from jolvek.core.products.shelf import sample
    >>> m = run(Need(Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=.36), Load(2)), sample())
    >>> [b.index is not None for b in what_budgets_buy(m, (500.0, 2500.0))]
    [False, True]
    """
    f, marks = match.field, score(match)
    out = []
    for budget in budgets:
        within = f.price <= budget
        does = sensible(match, within & f.does_day)
        able = sensible(match, within & ~np.isnan(f.power_at_wish_w))
        if does.size:
            out.append(Buys(budget, int(does[np.argmax(marks[does])]), True))
        elif able.size:
            out.append(Buys(budget, int(able[np.argmax(f.range_m[able])]), False))
        else:
            out.append(Buys(budget, None, False))
    return out


@dataclass(frozen=True)
class HouseBattery:
    """A battery for lights, fridge and instruments: packs side by side, Wh that the day takes."""

    battery: Item[Battery]
    packs: int
    needed_wh: float

    @property
    def price(self) -> float:
        """All packs."""
        return self.packs * self.battery.price


def house_battery(day: Day, batteries: Sequence[Item[Battery]]) -> HouseBattery | None:
    """The cheapest 12 V battery that feeds the other loads of a day, within what its chemistry may
    give; None where nothing is asked of it, or nothing gives it.

    >>> from jolvek.core.products.shelf import sample
    >>> house_battery(Day(hotel_w=0.0), sample().batteries) is None
    True
    """
    needed = day.hotel_w * sum(leg.seconds + leg.hold_s for leg in day.trip) / 3600
    if needed <= 0:
        return None
    found = []
    for item in batteries:
        spec = item.spec
        bought = not item.own and not item.clip_on  # what he has is what drives her
        if HOUSE_V[0] <= spec.nominal_voltage_v <= HOUSE_V[1] and bought:
            packs = int(np.ceil(needed / (spec.energy_wh * spec.chem.usable)))
            if packs <= MOST_HOUSE_PACKS:
                found.append(HouseBattery(item, packs, needed))
    return min(found, key=lambda h: h.price, default=None)
