"""What the parts of a fit read of the whole, which `Fitted` gives."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Protocol

from jolvek.core.electric.bank import Bank
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.electric.netlist import Netlist, Plan
from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.site import Bay
from jolvek.core.fit.as_set import AsSet
from jolvek.core.fit.fit_facts import Hung
from jolvek.core.fit.leg import Leg
from jolvek.core.fit.trim import Attitude, Weight, Yaw
from jolvek.core.hydro.resistance import Resistance
from jolvek.core.predict.performance import Performance
from jolvek.core.predict.setup import Setup
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from jolvek.core.products.shelf import Item
from jolvek.core.rules.facts import PairFacts
from jolvek.core.rules.findings import Finding


@dataclass(frozen=True)
class Stowed:
    """So many packs in one bay."""

    bay: Bay
    packs: int


class Fit(Protocol):
    """The facts of one setup fitted to a boat; each is worked out once."""

    @property
    def need(self) -> Need: ...

    @property
    def motor(self) -> Item[Motor]: ...

    @property
    def battery(self) -> Item[Battery]: ...

    @property
    def mount(self) -> Item[Mount]: ...

    @property
    def charger(self) -> Item[Charger] | None: ...

    @property
    def shaft_m(self) -> float | None: ...

    @property
    def gauge(self) -> str: ...

    @property
    def plan(self) -> Plan: ...

    @property
    def fitting(self) -> AsSet: ...

    @property
    def table(self) -> Resistance | None: ...

    @property
    def fetch_m(self) -> float: ...

    @property
    def bank(self) -> Bank: ...

    @property
    def setup(self) -> Setup: ...

    @property
    def performance(self) -> Performance: ...

    @property
    def hung(self) -> Hung: ...

    @property
    def pair(self) -> PairFacts: ...

    @property
    def displacement_kg(self) -> float: ...

    @property
    def clips_on(self) -> bool: ...

    @property
    def stowed(self) -> tuple[list[Stowed], Finding | None]: ...

    @property
    def weights(self) -> list[Weight]: ...

    @property
    def attitude(self) -> Attitude: ...

    @property
    def leg(self) -> Leg | None: ...

    @property
    def transom_draught_m(self) -> float: ...

    @property
    def yaw(self) -> Yaw | None: ...

    @property
    def carried(self) -> bool: ...

    @property
    def run_m(self) -> float: ...

    @property
    def solar_w(self) -> float: ...

    @property
    def netlist(self) -> Netlist: ...

    @property
    def charge_h(self) -> float | None: ...

    @property
    def lift_kg(self) -> float: ...

    def rejoined(self, **packs: int) -> Fit: ...
