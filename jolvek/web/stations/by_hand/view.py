"""What a setup put together by hand does, and what is to be said of it."""

from __future__ import annotations

from dataclasses import dataclass, replace
from typing import Any

from jolvek.core.electric.bank import Bank, layout, rating
from jolvek.core.electric.charging import matches
from jolvek.core.enquiry.need import Need
from jolvek.core.fit.fitted import Fitted
from jolvek.core.job.job_setup import of_fitted
from jolvek.core.match.hand_options import BankOption, bank_options, mount_options
from jolvek.core.products.shelf import Item, Shelf
from jolvek.core.rules.findings import Finding
from jolvek.store.setups import MOST_PACKS_A_SIDE
from jolvek.web.kit.display import Units, long_hours, money
from jolvek.web.kit.language import shown, tr
from jolvek.web.kit.rates import shop_rates


@dataclass(frozen=True)
class ByHandPage:
    """The answer and the findings."""

    answer: str
    findings: list[Finding]


def by_hand_page(f: Fitted, u: Units) -> ByHandPage:
    """One setup judged as a pinned one is."""
    p, job = f.performance, replace(of_fitted(f), rates=shop_rates())
    at = p.at_speed(min(f.need.day.speed_m_s, p.top_speed_m_s))
    runs = at.reason
    if at.runtime_s is not None and at.range_m is not None:
        runs = f"*{u.full(at.range_m, 'distance')}*"
    time = (
        tr(" for *%(runtime)s*", runtime=long_hours(at.runtime_s))
        if at.runtime_s is not None
        else ""
    )
    return ByHandPage(
        tr(
            "%(title)s with %(bank)s: *%(speed)s*%(time)s, %(runs)s; top %(top_speed)s. "
            "*%(parts)s* parts only, *%(fitted)s* fitted.",
            title=f.motor.title,
            bank=layout(f.bank),
            speed=u.full(at.speed_m_s, "speed"),
            time=time,
            runs=runs,
            top_speed=u.full(p.top_speed_m_s, "speed"),
            parts=money(job.parts_price),
            fitted=money(job.fitted_price),
        ),
        job.findings,
    )


@dataclass(frozen=True)
class Choice:
    """One thing to choose: its value, words, and whether it is chosen."""

    value: str
    words: str
    chosen: bool


@dataclass(frozen=True)
class Choices:
    """What may be chosen, by part: what goes with the motor, and what does not with the reason."""

    motors: tuple[Choice, ...]
    banks: tuple[Choice, ...]
    banks_not: tuple[Choice, ...]
    mounts: tuple[Choice, ...]
    mounts_not: tuple[Choice, ...]
    chargers: tuple[Choice, ...]
    chargers_not: tuple[Choice, ...]
    shafts: tuple[Choice, ...]


def split_bank(asked: dict[str, str]) -> dict[str, str]:
    """What is asked, the bank's value taken apart into battery and packs.

    >>> split_bank({"bank": "b50|2|1"})
    {'battery': 'b50', 'series': '2', 'parallel': '1'}
    """
    out = {k: v for k, v in asked.items() if k != "bank"}
    if asked.get("bank"):
        battery, series, parallel = (*asked["bank"].split("|"), "1", "1")[:3]
        out |= {"battery": battery, "series": series, "parallel": parallel}
    return out


def choices(need: Need, shelf: Shelf, asked: dict[str, str], u: Units) -> Choices:
    """The parts to choose from for the motor that is chosen, or all of them."""
    motor = _of(shelf.motors, asked.get("motor"))
    at = "|".join((asked.get("battery", ""), asked.get("series", "1"), asked.get("parallel", "1")))
    banks: list[BankOption] = [BankOption(b, 1, 1) for b in shelf.batteries]
    mounts = [(m, "") for m in shelf.mounts]
    shafts: tuple[float, ...] = ()
    if motor is not None and shelf.mounts and shelf.batteries:
        mount = _of(shelf.mounts, asked.get("mount")) or shelf.mounts[0]
        banks = bank_options(need, motor, mount, shelf.batteries, shelf.chargers)
        shafts = motor.shafts_m
        shaft = next((s for s in shafts if f"{s:g}" == asked.get("shaft_m")), None)
        shaft = shaft or (shafts[0] if shafts else None)
        found = mount_options(need, motor, shaft, shelf.mounts)
        mounts = [(o.item, u.rendered(o.why).text if o.why else "") for o in found]
    whys = [u.rendered(b.why).text if b.why else "" for b in banks]
    rows = [(_bank(b, at, why), why) for b, why in zip(banks, whys, strict=True)]
    asked_one = _asked_bank(shelf, asked)  # what is judged stands chosen, offered or not
    unlisted = [] if any(c.chosen for c, _ in rows) else [b for b in (asked_one,) if b]
    hung = [(_item(m, asked.get("mount"), why), why) for m, why in mounts]
    return Choices(
        tuple(_item(m, asked.get("motor")) for m in shelf.motors),
        tuple(c for c, why in rows if not why),
        (*(c for c, why in rows if why), *(_bank(b, at, "") for b in unlisted)),
        tuple(c for c, why in hung if not why),
        tuple(c for c, why in hung if why),
        *_chargers(shelf, asked),
        tuple(
            Choice(f"{s:g}", str(u.full(s, "length", 3)), f"{s:g}" == asked.get("shaft_m"))
            for s in shafts
        ),
    )


def _chargers(shelf: Shelf, asked: dict[str, str]) -> tuple[tuple[Choice, ...], tuple[Choice, ...]]:
    """Those that serve the bank that is chosen, and those that do not."""
    chosen_one = _asked_bank(shelf, asked)
    bank = None
    if chosen_one:
        bank = Bank(chosen_one.item.spec, chosen_one.series, chosen_one.parallel)
    serves = [c for c in shelf.chargers if bank is None or matches(bank, c.spec)]
    served = {id(c) for c in serves}
    rest = [c for c in shelf.chargers if id(c) not in served]
    chosen = asked.get("charger")
    return tuple(_item(c, chosen) for c in serves), tuple(_item(c, chosen) for c in rest)


def _asked_bank(shelf: Shelf, asked: dict[str, str]) -> BankOption | None:
    """The bank that is asked for, whether it goes or not; a pack where its number is none."""
    battery, packs = _of(shelf.batteries, asked.get("battery")), []
    for key in ("series", "parallel"):
        text = asked.get(key, "1")
        given = int(text) if text.isdecimal() and len(text) < 4 else 0
        packs.append(given if 0 < given <= MOST_PACKS_A_SIDE else 1)
    return BankOption(battery, packs[0], packs[1]) if battery else None


def _of(items: tuple[Item[Any], ...], wanted: str | None) -> Item[Any] | None:
    return next((x for x in items if x.id == wanted), None)


def _item(item: Item[Any], chosen: str | None, why: str = "") -> Choice:
    words = f"{item.title}, {money(item.price)}" + (f": {why}" if why else "")
    return Choice(item.id, words, item.id == chosen)


def _bank(o: BankOption, at: str, why: str) -> Choice:
    bank, packs = Bank(o.item.spec, o.series, o.parallel), o.series * o.parallel
    how = f"{packs} × " if packs > 1 else ""
    label = shown(rating(bank.nominal_v, bank.capacity_ah))
    words = f"{how}{o.item.title}: {label}, {money(o.price)}"
    value = f"{o.item.id}|{o.series}|{o.parallel}"
    return Choice(value, words + (f": {why}" if why else ""), value == at)
