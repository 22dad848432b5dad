"""One setup of a job worked out whole: what it does, its day, its findings, its bill."""

from __future__ import annotations

from dataclasses import dataclass, replace
from functools import cached_property
from typing import Any

from jolvek.core.base.messages import msg
from jolvek.core.base.money import major
from jolvek.core.day.charging_plan import ChargingPlan, charging_plan
from jolvek.core.day.outing import Outing, outing
from jolvek.core.day.season import Season, season
from jolvek.core.day.summed import DayRun, kept_at_end
from jolvek.core.deal.lines import Line
from jolvek.core.deal.quote import Priced, lines_of
from jolvek.core.electric.battery import Battery
from jolvek.core.electric.netlist import Plan
from jolvek.core.electric.sun_chain import SunChain
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.as_set import AS_PLANNED, AsSet
from jolvek.core.fit.fitted import Fitted
from jolvek.core.job.parts import Bought, sun_of_parts, total
from jolvek.core.predict.performance import Performance, Point
from jolvek.core.predict.streams import settings_w
from jolvek.core.products.rates import Rates
from jolvek.core.products.shelf import Item
from jolvek.core.rules.findings import Finding, find, ordered, worst


@dataclass(frozen=True)
class JobSetup:
    """One setup of a job. All that any page, paper, file or command tells of it is read here."""

    letter: str
    fitted: Fitted
    parts: tuple[Bought, ...] = ()
    extras: tuple[Bought, ...] = ()
    rates: Rates = Rates()

    @property
    def need(self) -> Need:
        """The enquiry that it is for."""
        return self.fitted.need

    @property
    def performance(self) -> Performance:
        """Its speeds, powers, times and ranges."""
        return self.fitted.performance

    @property
    def wish_or_top_m_s(self) -> float:
        """The wanted speed, or the top speed where that is less."""
        return min(self.need.day.speed_m_s, self.performance.top_speed_m_s)

    @cached_property
    def wish_or_top(self) -> Point:
        """At the wanted speed, or at the top speed where that is less."""
        return self.performance.at_speed(self.wish_or_top_m_s)

    @cached_property
    def settings(self) -> tuple[Point, Point, Point]:
        """At full, half and the lowest power."""
        full, half, lowest = (self.performance.at_power(w) for w in settings_w(self.performance))
        return full, half, lowest

    @cached_property
    def day(self) -> Outing:
        """The customer's day as planned, by its legs in steps."""
        return outing({self.letter: self.fitted}, self.letter)

    @cached_property
    def run(self) -> DayRun:
        """That day in sums: hours, energy, charge left, and whether it is done."""
        v, top = self.day.planned, self.performance.top_speed_m_s
        fastest = max(leg.speed_m_s for leg in v.legs)
        makes_way = v.first("no-way") is None and not self.need.day_blocked
        return DayRun(
            v.hours,
            v.energy_wh,
            v.left if makes_way else 0.0,
            fastest <= top * (1 + 1e-6),
            v.home,
            self.need.day.runs_a_charge,
            makes_way=makes_way,
        )

    @cached_property
    def charging(self) -> ChargingPlan:
        """How the bank is filled between outings."""
        return charging_plan(self.fitted, self.fitted.solar_w)

    @cached_property
    def season(self) -> Season | None:
        """A hire boat's season; None where nobody says how many days."""
        return season(self.fitted)

    @cached_property
    def findings(self) -> list[Finding]:
        """Everything that is found of it, worst first, each rule once: the boat, its fit, the day,
        wind and waves, charging, electrics.
        """
        found = [
            *self.fitted.findings,
            *self._reach(),
            *self._day_findings(),
            *self.day.seas.findings,
            *self.charging.findings,
            *(self.season.findings if self.season else ()),
        ]
        return ordered(list({f.rule: f for f in reversed(found)}.values())[::-1])

    def _reach(self) -> list[Finding]:
        """A cable among the add-ons that does not reach from the battery to the motor."""
        cables = [
            x.item.spec.cable_m
            for x in self.extras
            if getattr(x.item.spec, "kind", "") == "cable" and x.item.spec.cable_m is not None
        ]
        run, longest = self.fitted.run_m, max(cables, default=None)
        if longest is None or self.fitted.clips_on or longest >= run - 1e-9:
            return []
        return [find("cable-short", run, longest)]

    def _day_findings(self) -> list[Finding]:
        v, need = self.day.planned, self.need
        if need.day_blocked or v.home:
            return []
        if not v.done:
            stop = v.first("no-way") or v.first("empty")
            gone = float(v.distance_m[-1])
            missing = max(sum(leg.metres for leg in v.legs) - gone, 0.0)
            return [find("day-ends-early", missing, 0.0, why=stop.text if stop else "")]
        return [find("below-reserve", 100 * v.left, 100 * kept_at_end(self.fitted))]

    @property
    def level(self) -> str:
        """The worst level among its findings: block, caution, note or fine."""
        return worst(self.findings)

    @property
    def blocked(self) -> bool:
        """Whether it cannot be offered."""
        return self.level == "block"

    @property
    def mass_kg(self) -> float:
        """Motor, mount and bank together."""
        s = self.performance.setup
        return s.motor.weight_kg + s.mount_kg + (s.bank.mass_kg if s.bank else 0.0)

    @cached_property
    def bill(self) -> tuple[Line, ...]:
        """Every line of the setup: parts, add-ons, cables, lugs, fuses, switches, hours."""
        return tuple(
            lines_of(self.fitted, [*_priced(self.parts), *_extras(self.extras)], self.rates)
        )

    @property
    def parts_price(self) -> float:
        """Parts only: motor, mount, batteries, charger; what the customer has costs nothing."""
        return total(self.parts)

    @property
    def extras_price(self) -> float:
        """All add-ons."""
        return total(self.extras)

    @cached_property
    def fitted_price(self) -> float:
        """Fitted: parts, cables, fuses and hours, before add-ons, discounts and further lines."""
        minor = sum(x.amount for x in self.bill if x.kind != "addon")
        return float(major(minor, self.rates.digits))

    @property
    def ranking_price(self) -> float:
        """The one that the shop goes by when it ranks and holds a setup against a budget."""
        return self.fitted_price if self.rates.ranks_fitted else self.parts_price


def _priced(parts: tuple[Bought, ...]) -> list[Priced]:
    there = "%(title)s, there already"
    return [
        Priced(msg(there, title=x.item.title) if x.item.own else x.item.title, x.quantity, x.asked)
        for x in parts
    ]


def _extras(extras: tuple[Bought, ...]) -> list[Priced]:
    return [Priced(x.item.title, x.quantity, x.price, True) for x in extras]


def sun_chain(need: Need, extras: tuple[Bought, ...]) -> SunChain:
    """The panels and the sun controller among a setup's add-ons; volts known where they agree. The
    panels that the day asks for are those that are added: the larger of both counts.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> sun_chain(sample_fitted().need, ()).rated_w
    0.0
    """
    many, added, controller, volts = sun_of_parts(extras)
    opened, working = volts.pop() if len(volts) == 1 else (None, None)
    return SunChain(many, opened, working, controller, max(need.day.solar_w, added))


def gauge_of(extras: tuple[Bought, ...]) -> str:
    """What the add-ons show of the charge: monitor, voltage, or empty.

    >>> gauge_of(())
    ''
    """
    measured = {getattr(x.item.spec, "measures", "") for x in extras}
    return "monitor" if "charge" in measured else "voltage" if "voltage" in measured else ""


def job_setup(
    need: Need,
    letter: str,
    parts: tuple[Bought, ...],
    extras: tuple[Bought, ...] = (),
    layout: tuple[int, int] = (1, 1),
    shaft_m: float | None = None,
    fitting: AsSet = AS_PLANNED,
    rates: Rates | None = None,
) -> JobSetup:
    """A setup of bought parts on the boat of a need; `layout` is packs in series and in parallel.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> from jolvek.core.products.shelf import sample
    >>> s = sample()
    >>> named = (("motor", s.motors), ("battery", s.batteries), ("mount", s.mounts))
    >>> bought = tuple(Bought(kind, items[0], 1, items[0].price) for kind, items in named)
    >>> made = job_setup(sample_fitted().need, "A", bought, shaft_m=0.381)
    >>> made.parts_price, made.day.likely
    (1800.0, 'likely')
    """
    item: dict[str, Item[Any]] = {x.kind: x.item for x in parts}
    battery: Item[Battery] = item["battery"]
    chain = sun_chain(need, extras)
    sun_w = chain.counted_w(layout[0] * battery.spec.nominal_voltage_v)
    fitted = Fitted(
        need,
        item["motor"],
        battery,
        item["mount"],
        item.get("charger"),
        *layout,
        shaft_m,
        gauge_of(extras),
        fitting.plan(Plan(solar_w=sun_w, sun=chain)),
        fitting,
    )
    return JobSetup(letter, fitted, parts, extras, rates or Rates())


def of_fitted(fitted: Fitted, letter: str = "A") -> JobSetup:
    """A setup that was never pinned, at today's prices, with nothing of the shop's rates.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> of_fitted(sample_fitted()).parts_price
    2000.0
    """
    parts: list[tuple[str, Item[Any], int]] = [("motor", fitted.motor, 1)]
    parts += [("battery", fitted.battery, fitted.bank.packs), ("mount", fitted.mount, 1)]
    parts += [("charger", fitted.charger, 1)] if fitted.charger else []
    return JobSetup(letter, fitted, tuple(Bought(k, x, n, x.price) for k, x, n in parts))


def on_another_day(setup: JobSetup, need: Need) -> JobSetup:
    """The same setup with another need.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> s = of_fitted(sample_fitted())
    >>> on_another_day(s, s.need) == s
    True
    """
    return replace(setup, fitted=replace(setup.fitted, need=need))
