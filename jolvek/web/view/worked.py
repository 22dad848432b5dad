"""One pinned setup worked out for its enquiry; no HTML here."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property

from jolvek.core.day.summed import DayRun, run_day
from jolvek.core.electric.bank import layout
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.netlist import Plan
from jolvek.core.electric.sun_chain import SunChain
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fitted import Fitted
from jolvek.core.predict.performance import Performance, Point
from jolvek.core.products.shelf import Item
from jolvek.core.rules.findings import Finding, worst
from jolvek.store.setups import Pinned
from jolvek.web.view import language
from jolvek.web.view.language import tr


@dataclass(frozen=True)
class Worked:
    """One pinned setup worked out for its enquiry."""

    pinned: Pinned
    fitted: Fitted

    @property
    def letter(self) -> str:
        """Its letter."""
        return self.pinned.letter

    @property
    def performance(self) -> Performance:
        """Its figures."""
        return self.fitted.performance

    @cached_property
    def wish_or_top(self) -> Point:
        """At the wanted speed, or at the top speed where that is less."""
        return self.performance.at_speed(self.wish_or_top_m_s)

    @property
    def wish_or_top_m_s(self) -> float:
        """The wanted speed, or the top speed where that is less."""
        return min(self.fitted.need.day.speed_m_s, self.performance.top_speed_m_s)

    @cached_property
    def day(self) -> DayRun:
        """The customer's day, summed."""
        return run_day(self.fitted)

    @property
    def findings(self) -> list[Finding]:
        """What the rule book says, worst first."""
        return self.fitted.findings

    @property
    def charge_h(self) -> float | None:
        """Hours from the reserve to full."""
        return self.fitted.charge_h

    @property
    def bank_text(self) -> str:
        """The bank in words."""
        return str(language.shown(layout(self.fitted.bank)))

    @property
    def level(self) -> str:
        """Worst level of its findings."""
        return worst(self.findings)

    @property
    def lift_kg(self) -> float:
        """Heaviest single lift."""
        return self.fitted.lift_kg

    @property
    def parts_kg(self) -> float:
        """Motor, mount and bank."""
        s = self.performance.setup
        return s.motor.weight_kg + s.mount_kg + (s.bank.mass_kg if s.bank else 0.0)

    @property
    def solar_w(self) -> float:
        """Rated W of the panels that count."""
        return self.fitted.plan.solar_w

    @property
    def kept_short(self) -> str:
        """The same as it stands in a table."""
        share = f"{100 * self.fitted.kept:.0f} %"
        if not self.fitted.need.day.keep_s:
            return share
        hour = tr("an hour's running")
        return f"{hour}, {share}" if self.fitted.kept else hour

    @property
    def kept_text(self) -> str:
        """What stays when she stops: of the charge (half for lead, whatever was asked), or time."""
        share = tr("%(kept)s %% of the charge", kept=f"{100 * self.fitted.kept:.0f}")
        if not self.fitted.need.day.keep_s:
            return share
        return (
            tr("an hour's running and %(share)s", share=share)
            if self.fitted.kept
            else tr("an hour's running")
        )

    @property
    def blocked(self) -> bool:
        """Whether it cannot be offered."""
        return self.level == "block"


def _gauge(pinned: Pinned) -> str:
    """What the add-ons show of the charge: monitor, voltage, or empty."""
    measured = {getattr(p.item.spec, "measures", "") for p in pinned.extras}
    return "monitor" if "charge" in measured else "voltage" if "voltage" in measured else ""


def sun_chain(need: Need, pinned: Pinned) -> SunChain:
    """The panels and the sun controller among a setup's add-ons; volts known where they agree. The
    panels that the day asks for are those that are added: the larger of both counts.
    """
    panels = [p for p in pinned.extras if p.kind == "panel"]
    controller = next((p.item.spec for p in pinned.extras if p.kind == "controller"), None)
    volts = {(p.item.spec.open_v, p.item.spec.working_v) for p in panels}
    opened, working = volts.pop() if len(volts) == 1 else (None, None)
    added = float(sum(p.quantity * p.item.spec.rated_w for p in panels))
    rated = max(need.day.solar_w, added)
    return SunChain(sum(p.quantity for p in panels), opened, working, controller, rated)


def _plan(need: Need, pinned: Pinned, battery: Item[Battery]) -> Plan:
    chain = sun_chain(need, pinned)
    volts = pinned.series * battery.spec.nominal_voltage_v
    return pinned.fitting.plan(Plan(solar_w=chain.counted_w(volts), sun=chain))


def work_out(need: Need, pinned: Pinned) -> Worked:
    """Performance and findings of one pinned setup on one boat."""
    item = {p.kind: p.item for p in pinned.parts}
    return Worked(
        pinned,
        Fitted(
            need,
            item["motor"],
            item["battery"],
            item["mount"],
            item.get("charger"),
            pinned.series,
            pinned.parallel,
            pinned.shaft_m,
            _gauge(pinned),
            _plan(need, pinned, item["battery"]),
            pinned.fitting,
        ),
    )
