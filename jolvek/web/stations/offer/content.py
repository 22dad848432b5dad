"""What an offer says, as one plain record that is frozen when it is sent: jolvek-offer."""

from __future__ import annotations

import re
from datetime import date, timedelta
from itertools import chain, repeat
from typing import Any

from jolvek.core.base.messages import msg
from jolvek.core.base.money import major
from jolvek.core.deal.lines import sums
from jolvek.core.enquiry.need import Need
from jolvek.core.job.figures import figure
from jolvek.core.rules.findings import Finding
from jolvek.core.rules.readers import for_customer, part_of
from jolvek.core.rules.rulebook import RULES
from jolvek.store.enquiries import Stored
from jolvek.store.shop import Shop
from jolvek.web.kit import language
from jolvek.web.kit.dates import long_date
from jolvek.web.kit.display import Units, amount_of
from jolvek.web.kit.figures import fig
from jolvek.web.kit.language import tr
from jolvek.web.kit.rates import digits_of
from jolvek.web.kit.worked import Worked
from jolvek.web.stations.day_out.text import day_text, sentence, setting_out
from jolvek.web.stations.offer import for_customer as customers
from jolvek.web.stations.offer.for_customer import plain
from jolvek.web.stations.offer.form import Draft
from jolvek.web.stations.offer.lines import agreed_plain, line_plain, lines, sums_plain
from jolvek.web.stations.offer.setups import offer_page
from jolvek.web.stations.offer.years import years

SHOP = ("name", "address", "phone", "mail", "tax_number", "bank")
CUSTOMER = ("customer", "address", "phone", "mail")
FORMAT, VERSION = "jolvek-offer", 1


def cautions(worked: list[Worked]) -> list[tuple[str, list[str], Finding]]:
    """What must be acknowledged before it is sent: each once, with the setups that it is of. It is
    known by its setups and its own words, so that another is read anew.
    """
    found: dict[str, tuple[list[str], Finding]] = {}
    for w in worked:
        for f in w.findings:
            if f.level == "caution":
                found.setdefault(f"{f.rule}: {f.text}", ([], f))[0].append(w.letter)
    return [(f"{''.join(x)}: {key}", x, f) for key, (x, f) in found.items()]


def content(
    stored: Stored,
    worked: list[Worked],
    draft: Draft,
    shop: Shop,
    u: Units,
    today: date,
    whole: bool = False,
) -> dict[str, Any]:
    """The offer but its number; `whole` with what the customer's page turns about besides."""
    valid = today + timedelta(days=draft.valid_days)
    made = [alternative(w, draft, shop, u) for w in worked]
    record = {
        "format": FORMAT,
        "version": VERSION,
        "language": language.current(),
        "date": today.isoformat(),
        "valid_to": valid.isoformat(),
        "dates_told": [long_date(today), long_date(valid)],
        "currency": shop.currency,
        "units": {k: u[k] for k in ("speed", "distance")},
        "tax_included": shop.tax_included,
        "agreed": agreed_plain(draft.terms(shop)),
        "rounding": tr("each line, then each rate's sum and its tax, halves away from zero"),
        "shop": {k: getattr(shop, k) for k in SHOP},
        "customer": {k: getattr(stored.enquiry, k) for k in CUSTOMER},
        "title": stored.title,
        "boat": _boat(stored.need, u),
        "alternatives": [
            {**x, **(customers.turned(w, u) if whole else {})}
            for x, w in zip(made, worked, strict=True)
        ],
        "beside": customers.beside(worked, [x["sums"]["total"]["text"] for x in made], u),
        "differences": differences(worked, draft, shop, u),
        "acknowledged": [
            {"text": u.rendered(f).text, "letters": letters, **draft.acknowledged.get(key, {})}
            for key, letters, f in cautions(worked)
        ],
        "opening": shop.opening,
        "closing": shop.closing,
        "terms": shop.terms,
    }
    frozen: dict[str, Any] = language.resolved(record)
    return frozen


def _boat(need: Need, u: Units) -> str:
    return tr(
        "%(name)s, %(length)s, %(people)s aboard",
        name=need.hull.fam.name,
        length=u.full(need.hull.length_m, "length"),
        people=need.load.people,
    )


def alternative(w: Worked, draft: Draft, shop: Shop, u: Units) -> dict[str, Any]:
    """One setup: what it is, does and costs."""
    page, found = offer_page(w, u), lines(w, draft, shop)
    summed = sums(found, draft.terms(shop))
    total = major(summed.total, digits_of(shop.currency))
    return {
        "letter": w.letter,
        "title": f"{w.fitted.motor.title}, {w.bank_text}, {w.fitted.mount.name}",
        "answer": customers.headline(w, u),
        "figures": customers.first_figures(w, u),
        **customers.pictures(w),
        "made_of": w.pinned.key,
        "facts": facts(w),
        "short_of": short_of(w, u),
        "expected": [[x.name, *x.figures] for x in page.expected],
        "basis": page.basis,
        "claims": [list(x) for x in page.claims],
        "findings": [
            {
                "about": part_of(RULES[f.rule].topic),
                **{k: getattr(u.rendered(f), k) for k in ("level", "signal", "text", "cure")},
            }
            for f in w.findings
            if for_customer(f.rule)
        ],
        "lines": [
            {**line_plain(x, shop.currency), "what": what}
            for x, what in zip(found, chain(customers.described(w), repeat("")), strict=False)
        ],
        "later": any(not x.price_minor and x.kind in ("wiring", "labour") for x in found),
        "sums": sums_plain(summed, shop.currency),
        "years": years(w, shop, draft.assumed, total) if draft.years_shown else None,
        **day(w, u),
    }


FACTS = ("wish.speed", "wish.time", "wish.range", "top", "day.left", "day.end", "mass", "lift")


def facts(w: Worked) -> dict[str, list[Any]]:
    """The figures that a revision is held against: value, quantity, decimals."""
    found = ((key, figure(w.job, key)) for key in FACTS)
    return {key: [f.value, f.quantity, f.decimals] for key, f in found}


def short_of(w: Worked, u: Units) -> str:
    """What of the wish is out of reach; never silence."""
    wish, top = w.fitted.need.day.speed_m_s, w.performance.top_speed_m_s
    if wish <= top * (1 + 1e-6):
        return ""
    return tr(
        "%(wish)s was requested; this setup reaches %(top)s.",
        wish=u.full(wish, "speed"),
        top=u.full(top, "speed"),
    )


def day(w: Worked, u: Units) -> dict[str, Any]:
    """The customer's own day: how sure, what is left, and where she turns back."""
    out, start = w.job.day, w.fitted.need.day.start_h
    return {
        "verdict": fig(w.job, "day.likely", u),
        "day": plain(f"{setting_out(out)} {sentence(out.voyage, start, u, w.letter)}".strip()),
        "between": plain(day_text(out, w.letter)),
        "turn": tr(
            "Last point from which the boat gets home: %(distance)s.",
            distance=fig(w.job, "day.turn", u),
        ),
    }


def differences(worked: list[Worked], draft: Draft, shop: Shop, u: Units) -> list[str]:
    """What sets the alternatives apart, against the first."""
    if len(worked) < 2:
        return []
    first, result = worked[0], []
    terms = draft.terms(shop)
    price = sums(lines(first, draft, shop), terms).total
    for w in worked[1:]:
        more = sums(lines(w, draft, shop), terms).total - price
        kg = w.parts_kg - first.parts_kg
        fast = w.performance.top_speed_m_s - first.performance.top_speed_m_s
        price_apart = amount_of(major(abs(more), digits_of(shop.currency)), shop.currency)
        fast_apart, kg_apart = (
            u.full(abs(x), quantity) for x, quantity in ((fast, "speed"), (kg, "mass"))
        )
        parts = [
            _apart(price_apart, more, msg("%(by)s dearer"), msg("%(by)s cheaper")),
            _apart(kg_apart, kg, msg("%(by)s heavier"), msg("%(by)s lighter")),
            _apart(fast_apart, fast, msg("%(by)s faster"), msg("%(by)s slower")),
        ]
        result.append(
            tr(
                "%(letter)s against %(letter2)s: %(parts)s.",
                letter=w.letter,
                letter2=first.letter,
                parts=", ".join(x for x in parts if x),
            )
        )
    return result


def _apart(by: str, value: float, more: str, less: str) -> str:
    """By how much one is apart; nothing where the figure reads nought."""
    nought = not re.search("[1-9]", by)
    return "" if nought else tr(str(more if value > 0 else less), by=by)
