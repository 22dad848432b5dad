"""One thing otherwise: what follows for a setup, and what a rejected product would then do."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from jolvek.core.base.messages import msg
from jolvek.core.enquiry.need import Day, Need
from jolvek.core.job.changes import changes
from jolvek.core.job.job_setup import JobSetup
from jolvek.core.job.what_ifs import AGED, HEAVIER_KG, MORE_WIND_M_S, longer_shaft_m, what_if
from jolvek.core.match.matching import match
from jolvek.core.match.ranking import ranked
from jolvek.core.products.shelf import Item, Shelf
from jolvek.web.kit.display import Units, money
from jolvek.web.kit.followed import Strip, strip
from jolvek.web.kit.language import tr
from jolvek.web.kit.matches import row
from jolvek.web.kit.rates import price_name, shop_rates

TRIALS = {
    "too-slow": "slower",
    "too-slow-all": "slower",
    "too-short": "nearer",
    "day-energy": "nearer",
    "shaft-short": "shaft",
}
WHAT_IFS = {
    "slower": msg("10 % less speed"),
    "shaft": msg("a longer shaft"),
    "nearer": msg("10 % less distance"),
}
LESS = 0.9
CASES = {
    "person": msg("One more person"),
    "heavier": msg("%(kg)s heavier"),
    "shaft": msg("With a shaft of %(shafts)s mm"),
    "weed": msg("Weed on the bottom"),
    "aged": msg("The battery %(aged)s aged"),
    "wind": msg("%(wind)s more wind against"),
    "all": msg("Heavier, weed, aged and wind together"),
}


def scenarios(job: JobSetup, u: Units) -> list[tuple[str, Strip]]:
    """Each case in words with what followed for the setup."""
    out = []
    for how, name in CASES.items():
        other = what_if(job, how)
        if other == job:
            continue
        title = tr(
            name,
            kg=u.full(HEAVIER_KG, "mass"),
            shafts=f"{1000 * (other.fitted.shaft_m or 0.0):.0f}",
            aged=u.full(AGED, "share"),
            wind=u.full(MORE_WIND_M_S, "speed"),
        )
        out.append((title, strip(changes(job, other), u)))
    return out


def changed(need: Need, shelf: Shelf, kind: str, item: Item[Any], how: str, u: Units) -> str:
    """The sentence for one what-if, worked out by matching the product alone against the changed
    enquiry.
    """
    day = need.day
    if how == "shaft":
        item = _longer(item)
        text = tr("With a shaft of %(shafts)s mm", shafts=f"{1000 * item.shafts_m[0]:.0f}")
    elif how == "slower":
        day = _slower(day)
        text = tr("At %(speed)s", speed=u.full(day.speed_m_s, "speed"))
    else:
        day = _nearer(day)
        text = tr("For %(distance)s", distance=u.full(day.distance_m, "distance"))
    found = match(replace(need, day=day), _alone(shelf, kind, item), rates=shop_rates())
    if found.field.does_day.any():
        r = row(found, ranked(found, 1)[0])
        return tr(
            "%(text)s it manages the day: %(title)s with %(bank_text)s, %(range)s, %(price)s"
            " %(which)s.",
            text=text,
            title=r.motor.title,
            bank_text=r.bank_text,
            range=u.full(r.range_m, "distance"),
            price=money(r.price),
            which=price_name(short=True),
        )
    reasons = found.motor_reasons if kind == "motors" else found.battery_reasons
    why = u.rendered(next(iter(reasons.values()))).text if reasons else ""
    return tr("%(text)s still not. %(why)s", text=text, why=why).strip()


def _longer(item: Item[Any]) -> Item[Any]:
    longest = max((*item.shafts_m, item.spec.shaft_length_m or 0), default=0.0)
    return replace(item, shafts_m=(longer_shaft_m(item, longest),))


def _slower(day: Day) -> Day:
    legs = tuple(replace(leg, speed_m_s=LESS * leg.speed_m_s) for leg in day.legs)
    return replace(day, speed_m_s=LESS * day.speed_m_s, legs=legs)


def _nearer(day: Day) -> Day:
    legs = tuple(
        leg if leg.distance_m is None else replace(leg, distance_m=LESS * leg.distance_m)
        for leg in day.legs
    )
    return replace(day, distance_m=LESS * day.distance_m, legs=legs)


def _alone(shelf: Shelf, kind: str, item: Item[Any]) -> Shelf:
    """The shelf with one product of its kind only, and its own packs where it has some."""
    alone = replace(shelf, **{kind: (item,)})
    if kind == "motors" and item.pack_ids:
        packs = tuple(b for b in shelf.batteries if b.id in item.pack_ids)
        return replace(alone, batteries=packs)
    return alone
