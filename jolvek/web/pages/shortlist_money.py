"""What the Shortlist says of money: steps, the customer's budgets, a house battery."""

from __future__ import annotations

from jolvek.core.match.budgets import house_battery, what_budgets_buy
from jolvek.core.match.matching import Match
from jolvek.web.view.display import Units, energy, money
from jolvek.web.view.matches import Answer, row


def steps_told(match: Answer, u: Units) -> tuple[tuple[str, str], ...]:
    """What the next step of money buys; empty where there is but one."""
    out = []
    for step in match.steps:
        r = row(match.match, step.index)
        out.append(
            (
                money(step.budget),
                f"{u.full(step.range_m, 'distance')} at the wanted speed, top"
                f" {u.full(step.top_speed_m_s, 'speed')}: {r.motor.title}, {r.bank_text}",
            )
        )
    return tuple(out) if len(out) > 1 else ()


def budgets_told(match: Answer, u: Units) -> tuple[tuple[str, str], ...]:
    """What each of the customer's budgets buys, the kit by its parts."""
    out = []
    for b in what_budgets_buy(match.match, match.match.need.day.budgets):
        if b.index is None:
            out.append((money(b.budget), "buys no setup that reaches the wanted speed."))
            continue
        r = row(match.match, b.index)
        packs = r.series * r.parallel
        parts = [("motor", r.motor.price), ("bank", packs * r.battery.price)]
        parts += [("mount", r.mount.price)] if r.mount.price else []
        parts += [("charger", r.charger.price)] if r.charger else []
        kit = ", ".join(f"{name} {money(price)}" for name, price in parts)
        day = "does the day" if b.does_day else "does not do the day"
        far = f"{day}, {u.full(r.range_m, 'distance')} at the wanted speed"
        bought = f"{r.motor.title}, {r.bank_text}: {far}; {money(r.price)} ({kit})"
        out.append((money(b.budget), bought))
    return tuple(out)


def house_told(match: Match) -> str:
    """The battery for lights and fridge, beside every kit; empty where nothing is asked of it."""
    found = house_battery(match.need.day, match.shelf.batteries)
    if found is None:
        return ""
    count = f"{found.packs} × " if found.packs > 1 else ""
    return (
        f"House battery for {energy(found.needed_wh)} of other loads, not in the kits:"
        f" {count}{found.battery.title}, {money(found.price)}."
    )
