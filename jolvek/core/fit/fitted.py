"""A whole setup fitted to a boat: motor on its shaft and mount, bank in its bays, charger, wiring;
judged by the rule book.
"""

from __future__ import annotations

from collections.abc import Callable
from dataclasses import dataclass, field, replace
from functools import cached_property

import numpy as np

from jolvek.core.base.messages import msg
from jolvek.core.electric import charging
from jolvek.core.electric.bank import Bank
from jolvek.core.electric.bank_facts import bank_facts, own_suits
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.charging import Charger
from jolvek.core.electric.chemistry import end_soc
from jolvek.core.electric.netlist import Netlist, Plan
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.fit import controls, hung_leg, route, wired
from jolvek.core.fit.as_set import AS_PLANNED, AsSet
from jolvek.core.fit.fit import Stowed
from jolvek.core.fit.fit_facts import Hung, one_hung
from jolvek.core.fit.hanging import motor_above_m, motor_ahead_m
from jolvek.core.fit.inspected import inspected, precautions
from jolvek.core.fit.judged import (
    electrics,
    hard,
    in_the_water,
    not_given,
    on_the_boat,
    plates,
    wishes,
)
from jolvek.core.fit.leg import Leg, trim_pin
from jolvek.core.fit.stowage import CLIPPED_ABOVE_M, bank_weights, bays_for, stow
from jolvek.core.fit.trim import Attitude, Weight, Yaw, attitude, crew
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.resistance import Resistance
from jolvek.core.predict import limits
from jolvek.core.predict.doubt import Doubt, doubt
from jolvek.core.predict.evaluate import evaluate, evaluated
from jolvek.core.predict.performance import Performance
from jolvek.core.predict.setup import Setup, raised
from jolvek.core.products.motor import Motor
from jolvek.core.products.mounting import Mount
from jolvek.core.products.pair_facts import motor_facts, pair_facts
from jolvek.core.products.shelf import Item, joins, sample
from jolvek.core.rules.facts import PairFacts
from jolvek.core.rules.findings import Finding, ordered


@dataclass(frozen=True)
class Fitted:
    """One setup on one enquiry's boat. `gauge` is voltage, monitor, or empty where nobody said."""

    need: Need
    motor: Item[Motor]
    battery: Item[Battery]
    mount: Item[Mount]
    charger: Item[Charger] | None = None
    series: int = 1
    parallel: int = 1
    shaft_m: float | None = None
    gauge: str = ""
    plan: Plan = field(default_factory=Plan)
    fitting: AsSet = AS_PLANNED
    table: Resistance | None = None
    ageing: float = 0.0
    drag_factor: float = 1.0
    fetch_m: float = 0.0  # open water upwind that raises waves; 0: sheltered
    depth_m: float | None = None
    tow_length_m: float | None = None

    @cached_property
    def bank(self) -> Bank:
        """The bank."""
        return Bank(
            self.battery.spec, self.series, self.parallel, self.ageing, self.need.day.temperature_c
        )

    def rejoined(self, **packs: int) -> Fitted:
        """The same with its packs joined otherwise: `series`, `parallel`."""
        return replace(self, **{key: int(n) for key, n in packs.items()})  # type: ignore[arg-type]

    @cached_property
    def setup(self) -> Setup:
        """What the prediction needs."""
        day = self.need.day
        return Setup(
            self.need.hull,
            self.need.load,
            replace(self.motor.spec, shaft_length_m=self.shaft_m),
            self.bank,
            self.need.water,
            day.wind_m_s,
            current_m_s=day.current_m_s,
            reserve=day.kept_share,
            mount_kg=self.mount.spec.mass_kg,
            keep_s=day.keep_s,
            drag_factor=self.drag_factor,
            **raised(day.wind_m_s, self.fetch_m),
            depth_m=self.depth_m,
            tow_length_m=self.tow_length_m,
            start_charge=day.start_charge,
        )

    @cached_property
    def performance(self) -> Performance:
        """Its figures."""
        return evaluated(self.setup) if self.table is None else evaluate(self.setup, self.table)

    @cached_property
    def doubt(self) -> Doubt:
        """How far its figures may be off."""
        return doubt(self.performance)

    @cached_property
    def hung(self) -> Hung:
        """What mount and boat ask of the motor."""
        return one_hung(self.motor, self.shaft_m, self.need.water.density_kg_m3)

    @cached_property
    def own_pack(self) -> bool:
        """Whether the motor may be joined to this battery as far as clip-on batteries go."""
        return joins(self.motor, self.battery, self.bank.packs)

    @cached_property
    def pair(self) -> PairFacts:
        """What motor and bank ask of each other."""
        one = np.ones(1, dtype=int)
        kept = self.need.day.kept_share
        own = own_suits([self.battery.spec], self.series * one, self.need.day.own_charger_v)
        charged = own | (self.charger is not None)
        layout = (self.series * one, self.parallel * one)
        packs = bank_facts([self.battery.spec], *layout, kept, charged)
        takes = np.array([[self.own_pack]])
        return pair_facts(motor_facts([self.motor.spec]), packs, takes)

    @cached_property
    def displacement_kg(self) -> float:
        """All that floats: hull, people, gear, motor, mount, bank."""
        boat = self.need.hull.mass_kg + self.need.load.total_kg
        return boat + float(self.hung.motor_kg[0]) + self.mount.spec.mass_kg + self.bank.mass_kg

    @cached_property
    def hard_findings(self) -> list[Finding]:
        """What the hard rules say; without working the setup out."""
        return hard(self)

    @cached_property
    def clips_on(self) -> bool:
        """Whether the battery rides on the motor; an extension lead takes it off."""
        return self.battery.id in self.motor.pack_ids and self.fitting.lead_m is None

    @cached_property
    def stowed(self) -> tuple[list[Stowed], Finding | None]:
        """Where the packs go, or why they do not."""
        return (
            ([], None)
            if self.clips_on
            else stow(bays_for(self), self.battery.spec, self.bank.packs)
        )

    @cached_property
    def weights(self) -> list[Weight]:
        """People, gear, motor with mount, and packs, where they sit or were put."""
        return self.fitting.weights(self.planned_weights)

    @property
    def pin(self) -> int:
        """The trim pin's hole from the transom, as set or by the rake."""
        return self.fitting.pin or trim_pin(self.need.site.rake_deg)

    @cached_property
    def planned_weights(self) -> list[Weight]:
        """The same before anything was moved."""
        hull, mount = self.need.hull, self.mount.spec
        ahead = motor_ahead_m(self.need, mount)
        hung = Weight(
            msg("motor"),
            self.motor.spec.weight_kg + mount.mass_kg,
            ahead,
            mount.offset_m,
            motor_above_m(self.need, mount),
        )
        out = [*crew(hull, self.need.load), hung]
        if self.clips_on:
            above = hung.above_m + CLIPPED_ABOVE_M
            return [*out, Weight(msg("battery"), self.bank.mass_kg, ahead, mount.offset_m, above)]
        return out + bank_weights(hull, self.battery.spec, self.bank.packs, self.stowed[0])

    @cached_property
    def attitude(self) -> Attitude:
        """How she lies."""
        return attitude(self.need.hull, self.weights, self.need.water, self.fitting.hull_aft_m)

    @cached_property
    def leg(self) -> Leg | None:
        """The leg in the water; None for adjustable shafts and motors that are not hung on a
        transom.
        """
        return hung_leg.on_transom(self)

    @property
    def transom_draught_m(self) -> float:
        """Water over the lower edge of what the motor hangs on."""
        return hung_leg.under_m(self)

    @cached_property
    def yaw(self) -> Yaw | None:
        """What an off-centre thrust does, where the boat and not the motor steers."""
        return controls.side_pull(self)

    @cached_property
    def carried(self) -> bool:
        """Whether the kit is carried aboard, with nothing wired in."""
        return route.carried(self)

    @property
    def run_m(self) -> float:
        """One way from bank to motor: as measured, or by where both are."""
        measured = self.fitting.lead_m or self.fitting.run_m
        return measured or route.route_m(self.weights)

    @property
    def solar_w(self) -> float:
        """Rated W of the panels aboard that count: those of the setup, or those the day asks."""
        return self.plan.solar_w or self.need.day.solar_w

    @cached_property
    def netlist(self) -> Netlist:
        """The wiring."""
        return wired.netlist(self)

    @cached_property
    def charge_h(self) -> float | None:
        """Hours from the reserve to full; None without a charger that matches."""
        if self.charger is None:
            return None
        start = end_soc(self.bank.chem, self.need.day.reserve)
        hours = charging.together_h(self.bank, [self.charger.spec], start)
        return hours if hours < float("inf") else None

    @property
    def kept(self) -> float:
        """Share of the charge that really stays: the reserve, or the half that lead stops at."""
        return max(self.need.day.kept_share, 1 - self.bank.chem.usable)

    @cached_property
    def lift_kg(self) -> float:
        """Heaviest single lift: motor or one pack."""
        return max(self.motor.spec.weight_kg, self.battery.spec.weight_kg)

    @cached_property
    def precautions(self) -> list[Finding]:
        """What goes with every job of this kind."""
        return precautions(self)

    @cached_property
    def findings(self) -> list[Finding]:
        """Everything the rule book says, worst first, each rule once."""
        checks: tuple[Callable[[Fitted], list[Finding]], ...] = (
            plates,
            on_the_boat,
            not_given,
            in_the_water,
            wishes,
            electrics,
            inspected,
            controls.steered,
        )
        found = [
            *self.hard_findings,
            *limits.check_performance(
                self.performance,
                self.gauge or ("monitor" if self.battery.spec.monitor else ""),
                self.own_pack,
            ),
            *(f for check in checks for f in check(self)),
        ]
        return ordered(list({f.rule: f for f in reversed(found)}.values())[::-1])


def sample_fitted(day: Day | None = None, transom_height_m: float = 0.36) -> Fitted:
    """The sample shelf's products on a 3.2 m dinghy for two, for examples.

    >>> sample_fitted().bank.nominal_v
    25.6
    """
    hull = Hull("rigid_dinghy", 3.2, 1.45, 65, transom_height_m=transom_height_m)
    shelf, need = sample(), Need(hull, Load(2), day=day or Day())
    parts = shelf.motors[0], shelf.batteries[0], shelf.mounts[0], shelf.chargers[0]
    return Fitted(need, *parts, shaft_m=0.381)
