"""What the Offer shows: parts with prices, what to expect on the water, the cautions."""

from __future__ import annotations

from collections.abc import Iterable
from dataclasses import dataclass
from datetime import date, timedelta
from typing import Any

from jolvek.core.base.units import hours as clock
from jolvek.core.fit import controls
from jolvek.core.fit.checklist import CLIP_ON_H, WIRING_H
from jolvek.core.predict.claims import check_claims
from jolvek.core.predict.performance import Point
from jolvek.core.rules.findings import Finding
from jolvek.store.setups import Bought
from jolvek.web import data
from jolvek.web.view.display import Units, long_date, long_hours, money
from jolvek.web.view.worked import Worked

VALID_DAYS = 30


@dataclass(frozen=True)
class Part:
    """One line of the offer: title, what it is, number, price each and together."""

    title: str
    what: str
    number: int
    each: str
    together: str


@dataclass(frozen=True)
class Expected:
    """One way of running: its name, and figures with what they may be between."""

    name: str
    figures: tuple[str, ...]


@dataclass(frozen=True)
class OfferPage:
    """The whole offer in shown units."""

    letter: str
    dates: tuple[str, str]
    answer: str
    parts: tuple[Part, ...]
    extras: tuple[Part, ...]
    essentials: str
    total: str
    fitting: str
    tax: str
    expected: tuple[Expected, ...]
    basis: str
    claims: tuple[tuple[str, str], ...]
    findings: list[Finding]


AS_ASKED = "as asked"


def offer_page(w: Worked, today: date, u: Units) -> OfferPage:
    """The offer of one setup."""
    p, pinned = w.performance, w.pinned
    at, half = w.wish_or_top, p.at_speed(float(p.speed_at_w(0.5 * p.power_limit_w)))
    wanted = "the wanted speed"
    if w.fitted.need.day.speed_m_s > p.top_speed_m_s:
        wanted = f"the most there is; {u.full(w.fitted.need.day.speed_m_s, 'speed')} was wanted"
    ways = (
        (wanted, at, w.wish_or_top_m_s < p.top_speed_m_s),
        ("half power", half, False),
        ("full power", p.at_speed(p.top_speed_m_s), False),
    )
    return OfferPage(
        w.letter,
        (long_date(today), long_date(today + timedelta(days=VALID_DAYS))),
        answer(w, at, u),
        tuple(_part(x, _what(x, w, u)) for x in pinned.parts),
        tuple(_part(x, _add_on(x.item.spec)) for x in pinned.extras),
        money(pinned.price),
        money(pinned.price + pinned.extras_price),
        _fitting(w),
        tax_told(),
        tuple(expected(name, x, w, u, asked) for name, x, asked in ways if x.power_w is not None),
        _basis(w, u),
        _claims(w),
        w.findings,
    )


def _fitting(w: Worked) -> str:
    """What fitting takes, and what is set on it beside the parts."""
    worked = controls.parts(w.fitted)
    more = ", ".join(f"{what} ({many})" for what, many in worked)
    hours = f"Fitting takes about {w.fitted.mount.spec.hours:g} h for the mount"
    return f"{hours}{_labour(w)}" + (f" With it: {more}." if more else "")


def _labour(w: Worked) -> str:
    """What the hours cost at the shop's rates; after a look where it has none."""
    shop, wires = data.shop(), CLIP_ON_H if w.fitted.clips_on else WIRING_H
    if not shop.fitting_rate and not shop.wiring_rate:
        return "; labour, cables and fuses are priced after the boat has been seen."
    price = w.fitted.mount.spec.hours * shop.fitting_rate + wires * shop.wiring_rate
    wiring = f" and {wires:g} h for the wiring"
    return (
        f"{wiring}: about {money(round(price, 2))} of labour besides the parts; cables and fuses"
        " are priced after the boat has been seen."
    )


def tax_told() -> str:
    """What the prices hold of tax, as the shop has it."""
    shop = data.shop()
    if not shop.tax_rates:
        return ""
    rate = f"{shop.tax_rates[0]:g} %"
    return f"Prices include {rate} tax." if shop.tax_included else f"Tax of {rate} is added."


def _claims(w: Worked) -> tuple[tuple[str, str], ...]:
    """What the makers of motor and battery say, and what is held of it; nothing unless it is asked
    for.
    """
    if not w.fitted.fitting.claims:
        return ()
    told = [c for x in (w.fitted.motor, w.fitted.battery) for c in check_claims(x)]
    return tuple((c.about.capitalize(), c.says) for c in told if c.about != "missing data")


def answer(w: Worked, at: Point, u: Units) -> str:
    """What the customer gets, in one sentence; `*words*` are the ones to stress."""
    if at.power_w is None or at.runtime_s is None or at.range_m is None:
        return f"She makes *{u.full(at.speed_m_s, 'speed')}*: {at.reason}."
    return (
        f"At {u.full(at.power_w, 'power')} she makes *{u.full(at.speed_m_s, 'speed')}* for"
        f" *{long_hours(at.runtime_s)}* and goes *{u.full(at.range_m, 'distance')}*, with"
        f" {w.kept_text} kept."
    )


def expected(name: str, at: Point, w: Worked, u: Units, asked: bool = False) -> Expected:
    """One way of running with what it may be between: at a power the speed, and range by it; at a
    speed that is asked the range by what it may take.
    """
    d, power, speed = w.fitted.doubt, at.power_w or 0.0, at.speed_m_s or 0.0

    def between(ends: Iterable[Any], quantity: str) -> str:
        return " – ".join(u.number(float(x), quantity) for x in ends)

    ways = d.range_band_m(speed) if asked else d.way_band_m(power)
    return Expected(
        f"{name}, {u.full(at.power_w, 'power')}",
        (
            u.number(at.speed_m_s, "speed"),
            AS_ASKED if asked else between(d.speed_band_m_s(power), "speed"),
            clock(at.runtime_s),
            u.number(at.range_m, "distance"),
            between(ways, "distance") if at.range_m is not None else "–",
        ),
    )


def _part(x: Bought, what: str) -> Part:
    free = "there already" if x.item.own else "included"
    each = money(x.price) if x.price else free
    together = money(x.quantity * x.price) if x.price else free
    return Part(x.item.title, what, x.quantity, each, together)


def _what(x: Bought, w: Worked, u: Units) -> str:
    s = x.item.spec
    if x.kind == "motor":
        volts = f" at {s.voltage_v:g} V" if s.voltage_v else ""
        shaft = f", shaft {1000 * w.pinned.shaft_m:.0f} mm" if w.pinned.shaft_m else ""
        return f"{u.full(s.input_power_w, 'power')}{volts}{shaft}, {u.full(s.weight_kg, 'mass')}"
    if x.kind == "battery":
        mass = u.full(s.weight_kg, "mass")
        return f"{w.bank_text}, {s.chem.name.lower()}, {mass} each"
    if x.kind == "mount":
        return f"{s.general.name}{': ' + ', '.join(s.parts) if s.parts else ''}"
    several = f", {s.outputs} outputs" if s.outputs > 1 else ""
    return f"{s.voltage_v:g} V, {s.current_a:g} A{several}"


def _add_on(spec: Any) -> str:
    text = getattr(spec, "text", "")
    return f"add-on: {text}" if text else "add-on"


def _basis(w: Worked, u: Units) -> str:
    day = w.fitted.need.day
    out = f"Loaded to {u.full(w.performance.displacement_kg, 'mass', 0)}"
    if day.wind_m_s:
        way = "against" if day.wind_m_s > 0 else "behind"
        out += f", {u.full(abs(day.wind_m_s), 'speed')} of wind {way}"
    if day.current_m_s:
        way = "against" if day.current_m_s > 0 else "with her"
        out += f", {u.full(abs(day.current_m_s), 'speed')} of current {way}"
    out += (
        ". Worked out, not yet tried on the water; waves, a foul bottom and more load cost speed."
    )
    if w.charge_h:
        out += f" Charging back to full takes about {long_hours(w.charge_h * 3600)}."
    return out
