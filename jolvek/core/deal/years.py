"""What the years' cost of a setup takes for granted: the customer's own days, prices, ages, and the
petrol outboard that does the same work. Every assumption has its label, and may be put otherwise.
"""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass, field, fields, replace
from typing import Any, ClassVar

from jolvek.core.base import checked
from jolvek.core.base.messages import msg
from jolvek.core.day.summed import run_day
from jolvek.core.deal.cost import Case, Electric, OtherAssets, Petrol
from jolvek.core.electric.charging import CHARGER_EFFICIENCY
from jolvek.core.electric.chemistry import cycle_life
from jolvek.core.fit.fitted import Fitted

# Petrol outboards as they are sold, kW at the propeller shaft; common practice, no source
OUTBOARDS_KW = (1.8, 2.9, 3.7, 4.4, 5.9, 7.3, 11.0, 14.7, 18.4, 22.1, 29.4, 36.8, 44.1, 58.8, 73.6)
SHAFT_SHARE = 0.85  # of the battery's power that comes to a propeller shaft; Jolvek's own
TO_SPARE = 1.2  # of the power that a petrol outboard has over what is asked; common practice
FUEL_KG_PER_KWH = 0.40  # at the shaft at full load, small four-strokes 0.35 to 0.45; from memory
IDLE_SHARE = 0.12  # of the full load's fuel that turning over takes (Willans' line); from memory
PETROL_KG_PER_L, OIL_SHARE = 0.745, 0.01
OUTBOARD_BASE, OUTBOARD_PER_KW = 600.0, 200.0  # a price in euros; a guess, to be put otherwise
STARTER_FROM_KW = 9.0  # from which petrol has a starter battery; common practice, no source
TROLLING_LIFE, LEAD_LIFE = 10.0, 5.0  # years; common practice, no source
PRIVATE_OUTINGS, MOST_DEPTH = 30.0, 1.0


def _of(label: str, unit: str, default: float, low: float, high: float) -> Any:
    return field(default=default, metadata={"label": label, "unit": unit, "low": low, "high": high})


@dataclass(frozen=True)
class Assumed:
    """All assumptions; money in the shop's currency, rates in %. `grant` comes off the purchase;
    resale is left out at 0.
    """

    years: float = _of("Years", "", 10, 1, 40)
    outings: float = _of("Days like this a year", "", PRIVATE_OUTINGS, 0, 366)
    discount_rate: float = _of("Discount rate", "%", 0, 0, 100)
    kwh_price: float = _of("Electricity, a kWh", "money", 0.30, 0, 100)
    charger_efficiency: float = _of("Charger’s efficiency", "%", 100 * CHARGER_EFFICIENCY, 30, 100)
    battery_price: float = _of("Battery, bought again", "money", 0, 0, 1e7)
    service: float = _of("Service of the electric motor, a year", "money", 60, 0, 1e6)
    hour_service: float = _of("Seals and wear of the electric motor, an hour", "money", 0, 0, 1e4)
    grant: float = _of("Grant", "money", 0, 0, 1e7)
    resale: float = _of("Resale of the electric setup", "money", 0, 0, 1e7)
    petrol_purchase: float = _of("Petrol outboard", "money", 0, 0, 1e7)
    litres_per_hour: float = _of("Petrol, litres an hour", "l", 0, 0, 200)
    litre_price: float = _of("Petrol, a litre", "money", 1.90, 0, 100)
    petrol_service: float = _of("Service and laying up of petrol, a year", "money", 180, 0, 1e6)
    petrol_hour_service: float = _of("Oil and wear of petrol, an hour", "money", 0, 0, 1e4)
    starter_battery: float = _of("Starter battery of petrol", "money", 0, 0, 1e7)
    trolling_motor: float = _of("Trolling motor that this saves", "money", 0, 0, 1e7)
    trolling_battery: float = _of("Battery of the trolling motor", "money", 0, 0, 1e7)
    petrol_resale: float = _of("Resale of the petrol outboard", "money", 0, 0, 1e7)

    RANGES: ClassVar[checked.Ranges] = {}

    def __post_init__(self) -> None:
        checked.check(self, "years")


Assumed.RANGES = {f.name: (f.metadata["low"], f.metadata["high"]) for f in fields(Assumed)}


@dataclass(frozen=True)
class Use:
    """How a day like the customer's uses the setup: h and Wh of all its runs, how deep a charge
    goes (share of the rated charge), W at the mean and at the most.
    """

    hours: float
    energy_wh: float
    depth: float
    mean_w: float
    top_w: float


def use(f: Fitted) -> Use:
    """From the day's sums; a day that cannot be done counts as far as one charge goes.

    >>> from jolvek.core.enquiry.need import Day
    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> u = use(sample_fitted(Day(1.5, 4000)))
    >>> 0.1 < u.depth < 0.5, round(u.mean_w * u.hours) == round(u.energy_wh)
    (True, True)
    """
    run, day = run_day(f), f.need.day
    most_wh = f.bank.energy_wh * (1 - f.kept)
    charge_wh = min(run.energy_wh * day.runs_a_charge, most_wh)
    runs = min(charge_wh / max(run.energy_wh, 1e-9) * day.charges_per_day, day.runs_per_day)
    wh, hours = run.energy_wh * runs, run.hours * runs
    depth = min(charge_wh / max(f.bank.energy_wh, 1e-9), MOST_DEPTH)
    fastest = min(max(leg.speed_m_s for leg in day.trip), f.performance.top_speed_m_s)
    top = f.performance.at_speed(fastest).power_w or 0.0
    return Use(hours, wh, depth, wh / hours if hours > 0 else 0.0, top)


def outboard_kw(shaft_kw: float) -> float:
    """The petrol outboard that has that much to give with some to spare; the largest at the most.

    >>> outboard_kw(0.4), outboard_kw(4.0), outboard_kw(500)
    (1.8, 5.9, 73.6)
    """
    asked = shaft_kw * TO_SPARE
    return next((kw for kw in OUTBOARDS_KW if kw >= asked), OUTBOARDS_KW[-1])


def litres_per_hour(rated_kw: float, shaft_kw: float) -> float:
    """Petrol and oil at a load, l/h, by Willans' line: what turning over takes, and the rest by the
    load. At full load 0.40 kg/kWh.

    >>> round(litres_per_hour(4.4, 4.4), 2), round(litres_per_hour(4.4, 0.8), 2)
    (2.39, 0.67)
    """
    full = rated_kw * FUEL_KG_PER_KWH
    load = min(shaft_kw / rated_kw, 1.0) if rated_kw > 0 else 0.0
    kg = full * (IDLE_SHARE + (1 - IDLE_SHARE) * load)
    return kg / PETROL_KG_PER_L * (1 + OIL_SHARE)


def assumed(f: Fitted, battery_price: float, prices: Mapping[str, float]) -> Assumed:
    """What is taken where nobody says otherwise; `prices` are the shop's own, by field.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> a = assumed(sample_fitted(), 900.0, {"kwh_price": 0.25})
    >>> a.kwh_price, a.battery_price, a.petrol_purchase, a.starter_battery
    (0.25, 900.0, 960.0, 0.0)
    """
    u, day = use(f), f.need.day
    kw = outboard_kw(u.top_w * SHAFT_SHARE / 1000)
    hired = day.runs_per_day > 1
    return Assumed(
        **prices,
        outings=float(day.days_a_season or PRIVATE_OUTINGS),
        battery_price=battery_price,
        hour_service=0.5 if hired else 0.0,
        petrol_hour_service=1.5 if hired else 0.0,
        petrol_purchase=OUTBOARD_BASE + OUTBOARD_PER_KW * kw,
        litres_per_hour=round(litres_per_hour(kw, u.mean_w * SHAFT_SHARE / 1000), 2),
        starter_battery=90.0 if kw >= STARTER_FROM_KW else 0.0,
    )


def case_of(f: Fitted, purchase: float, a: Assumed) -> Case:
    """The case of a setup bought at that price; its battery wears by the depth really used.

    >>> from jolvek.core.fit.fitted import sample_fitted
    >>> f = sample_fitted()
    >>> c = case_of(f, 3000.0, assumed(f, 900.0, {}))
    >>> c.electric.usable == round(use(f).depth, 9), c.petrol.purchase > 0
    (True, True)
    """
    u = use(f)
    hours, depth = u.hours * a.outings, max(round(u.depth, 9), 0.05)
    chem = f.battery.spec.chem
    electric = Electric(
        max(purchase - a.grant, 0.0),
        u.mean_w,
        a.kwh_price,
        a.battery_price,
        max(f.bank.energy_wh / 1000, 1e-6),
        float(cycle_life(chem, depth)),
        calendar_life_years=chem.calendar_years,
        charger_efficiency=a.charger_efficiency / 100,
        usable=depth,
        service_per_year=a.service + a.hour_service * hours,
        resale=a.resale,
    )
    lasting = (
        (msg("starter battery"), a.starter_battery, LEAD_LIFE),
        (msg("trolling motor"), a.trolling_motor, TROLLING_LIFE),
        (msg("battery of the trolling motor"), a.trolling_battery, LEAD_LIFE),
    )
    also = tuple(OtherAssets(*x) for x in lasting if x[1])
    service = a.petrol_service + a.petrol_hour_service * hours
    bought = (a.petrol_purchase, a.litres_per_hour, a.litre_price)
    petrol = Petrol(*bought, service, also, a.petrol_resale)
    return Case(int(a.years), hours, electric, petrol, a.discount_rate / 100)


def otherwise(a: Assumed, changed: Mapping[str, float]) -> Assumed:
    """With what the shop put otherwise; raises ValueRefused by name.

    >>> otherwise(Assumed(), {"years": 5}).years
    5
    """
    return replace(a, **changed)
