"""A voyage: the day run in time steps, with its events and its energy sums."""

from __future__ import annotations

from dataclasses import dataclass

import numpy as np
from numpy.typing import NDArray

from jolvek.core.base.arrays import Array
from jolvek.core.enquiry.need import Leg
from jolvek.core.fit.fitted import Fitted


@dataclass(frozen=True)
class Event:
    """Something that happens: s since setting out, its kind, and a short word."""

    t_s: float
    kind: str  # leg | hold | warning | reserve | cut-back | swap | empty | no-way | home
    text: str
    soc: float


@dataclass(frozen=True)
class Voyage:
    """The whole day in arrays over time (N,), its events, and how it ends."""

    fitted: Fitted
    legs: tuple[Leg, ...]
    t_s: Array
    soc: Array  # of the bank in use
    power_w: Array  # motor and loads
    sun_w: Array
    speed_m_s: Array
    ground_m_s: Array
    distance_m: Array
    leg: NDArray[np.intp]
    events: tuple[Event, ...]
    home: bool  # all legs done, with the reserve kept
    done: bool  # all legs done
    balance: float  # energy that does not add up, share
    energy_wh: float  # used by motor and loads, from the battery and straight from the sun
    stored_wh: float  # put into the battery by the sun
    battery_wh: float  # given by the battery

    @property
    def sun_wh(self) -> float:
        """Given by the sun: used at once, or put into the battery."""
        return self.energy_wh - self.battery_wh + self.stored_wh

    @property
    def left(self) -> float:
        """Charge at the end."""
        return float(self.soc[-1])

    @property
    def hours(self) -> float:
        """How long it took."""
        return float(self.t_s[-1]) / 3600

    def first(self, kind: str) -> Event | None:
        """The first event of a kind."""
        return next((e for e in self.events if e.kind == kind), None)
