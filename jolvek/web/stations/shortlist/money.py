"""What the Shortlist says of money: steps, the customer's budgets, a house battery."""

from __future__ import annotations

from jolvek.core.match.budgets import house_battery, what_budgets_buy
from jolvek.core.match.matching import Match
from jolvek.web.kit.display import Units, energy, money
from jolvek.web.kit.language import tr
from jolvek.web.kit.matches import Answer, row


def steps_text(match: Answer, u: Units) -> tuple[tuple[str, str], ...]:
    """What the next step of money buys; empty where there is but one."""
    out = []
    for step in match.steps:
        r = row(match.match, step.index)
        out.append(
            (
                money(step.budget),
                tr(
                    "%(range)s at the wanted speed, top %(top_speed)s: %(title)s, %(bank_text)s",
                    range=u.full(step.range_m, "distance"),
                    top_speed=u.full(step.top_speed_m_s, "speed"),
                    title=r.motor.title,
                    bank_text=r.bank_text,
                ),
            )
        )
    return tuple(out) if len(out) > 1 else ()


def budgets_text(match: Answer, u: Units) -> tuple[tuple[str, str], ...]:
    """What each of the customer's budgets buys, the kit by its parts."""
    out = []
    for b in what_budgets_buy(match.match, match.match.need.day.budgets):
        if b.index is None:
            out.append(
                (
                    money(b.budget),
                    tr("buys no setup that reaches the wanted speed and suits the boat."),
                )
            )
            continue
        r = row(match.match, b.index)
        packs = r.series * r.parallel
        parts = [("motor", r.motor.price), ("bank", packs * r.battery.price)]
        parts += [("mount", r.mount.price)] if r.mount.price else []
        parts += [("charger", r.charger.price)] if r.charger else []
        work = r.price - r.parts_price
        parts += [(tr("cables and work"), work)] if work else []
        kit = ", ".join(f"{name} {money(price)}" for name, price in parts)
        day = tr("manages the day") if b.does_day else tr("does not manage the day")
        far = tr(
            "%(day)s, %(range)s at the wanted speed", day=day, range=u.full(r.range_m, "distance")
        )
        bought = f"{r.motor.title}, {r.bank_text}: {far}; {money(r.price)} ({kit})"
        out.append((money(b.budget), bought))
    return tuple(out)


def house_text(match: Match) -> str:
    """The battery for lights and fridge, beside every kit; empty where nothing is asked of it."""
    found = house_battery(match.need.day, match.shelf.batteries)
    if found is None:
        return ""
    count = f"{found.packs} × " if found.packs > 1 else ""
    return tr(
        "House battery for %(needed)s of other loads, not in the kits: %(count)s%(title)s, "
        "%(price)s.",
        needed=energy(found.needed_wh),
        count=count,
        title=found.battery.title,
        price=money(found.price),
    )
