"""The years' cost on an offer: what it rests on, a table by year, a picture, and the answer."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import fields
from decimal import Decimal
from math import ceil
from typing import Any

from jolvek.core.base.errors import JolvekError
from jolvek.core.deal.cost import Cost, cost
from jolvek.core.deal.years import Assumed, assumed, case_of, otherwise, use
from jolvek.store.shop import Shop
from jolvek.web.kit.display import amount_of, counted, long_hours, money_of
from jolvek.web.kit.drawings.years_chart import years_chart
from jolvek.web.kit.language import decimal, tr
from jolvek.web.kit.worked import Worked

ALIKE = 0.03  # of the cost: less is no difference over years of guesses; Jolvek's own
LEFT_OUT = {"grant", "resale", "petrol_resale", "starter_battery", "trolling_motor"}
LEFT_OUT |= {"trolling_battery", "hour_service", "petrol_hour_service"}
LABELS = {f.name: f.metadata for f in fields(Assumed)}


def assumed_of(w: Worked, shop: Shop, changed: Mapping[str, float]) -> Assumed:
    """What is assumed of one setup, with what the shop put otherwise."""
    battery = next((x for x in w.pinned.parts if x.kind == "battery"), None)
    price = battery.price * battery.quantity if battery and not battery.item.own else 0.0
    prices = {"kwh_price": shop.kwh_price, "litre_price": shop.litre_price}
    return otherwise(assumed(w.fitted, price, prices), changed)


def years(
    w: Worked, shop: Shop, changed: Mapping[str, float], total: Decimal
) -> dict[str, Any] | None:
    """The years' cost of one setup bought for so much; None where it cannot be reckoned."""
    try:
        a = assumed_of(w, shop, changed)
        case = case_of(w.fitted, float(total), a)
    except JolvekError:
        return None
    c = cost(case)

    def told(x: float) -> str:
        return money_of(round(x), shop.currency)

    u = use(w.fitted)
    life = case.electric.battery_life_years(case.hours_per_year)
    worn = tr("by age") if life >= case.electric.calendar_life_years else tr("by cycles")
    return {
        "answer": answer(c, shop.currency),
        "used": tr(
            "%(outings)s a year of %(hours)s under way; each charge goes %(depth)s %% deep. The "
            "battery lasts about %(life)s, %(worn)s.",
            outings=counted(round(a.outings), "day"),
            hours=long_hours(u.hours * 3600),
            depth=f"{100 * u.depth:.0f}",
            life=counted(round(life), "year"),
            worn=worn,
        ),
        "rows": [
            [str(i), told(x), told(y)]
            for i, (x, y) in enumerate(zip(c.electric, c.petrol, strict=True))
        ],
        "assumptions": [[label_of(k), shown(k, getattr(a, k), shop)] for k in printed(a)],
        "hour": [
            "" if x is None else amount_of(Decimal(str(round(x, 2))), shop.currency)
            for x in (c.electric_per_hour, c.petrol_per_hour)
        ],
        "drawing": str(years_chart(c, shop.currency)),
    }


def answer(c: Cost, currency: str) -> str:
    """What it comes to, in a sentence."""
    n = len(c.electric) - 1
    ours, theirs = (money_of(round(x, -1), currency) for x in (c.electric[-1], c.petrol[-1]))
    values = {"n": counted(n, "year"), "ours": ours, "theirs": theirs}
    if abs(c.electric[-1] - c.petrol[-1]) <= ALIKE * c.petrol[-1]:
        return tr(
            "Over %(n)s both cost about the same: %(ours)s with this setup, %(theirs)s with"
            " petrol.",
            **values,
        )
    if c.break_even_year is None:
        return tr(
            "Over %(n)s: %(ours)s with this setup, %(theirs)s with petrol; it does not become"
            " cheaper in that time.",
            **values,
        )
    if c.break_even_year <= 0:
        return tr(
            "Over %(n)s: %(ours)s with this setup, %(theirs)s with petrol; it is cheaper from the"
            " first day.",
            **values,
        )
    return tr(
        "Over %(n)s: %(ours)s with this setup, %(theirs)s with petrol; it is cheaper from year"
        " %(year)s on.",
        year=ceil(c.break_even_year),
        **values,
    )


def label_of(key: str) -> str:
    """What an assumption is called."""
    result: str = LABELS[key]["label"]
    return tr(result)


def printed(a: Assumed) -> list[str]:
    """The assumptions that are told: those left out at nothing are not."""
    return [f.name for f in fields(a) if getattr(a, f.name) or f.name not in LEFT_OUT]


def shown(key: str, value: float, shop: Shop) -> str:
    """One assumption with its unit."""
    unit = LABELS[key]["unit"]
    if unit == "money":
        return amount_of(Decimal(str(round(value, 2))), shop.currency)
    return f"{decimal(f'{value:g}')} {unit}".strip()
