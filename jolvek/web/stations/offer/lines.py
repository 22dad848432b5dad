"""The lines of an offer and their sums: priced by the shop's rates, and told in words."""

from __future__ import annotations

from collections.abc import Callable, Collection, Iterable, Mapping
from dataclasses import asdict, replace
from decimal import Decimal
from typing import Any

from jolvek.core.base.messages import msg
from jolvek.core.base.money import major, minor
from jolvek.core.deal.lines import Line, Sums, Terms, sums
from jolvek.store.offers import Event
from jolvek.store.setups import KIND_OF_PART
from jolvek.store.shop import Shop
from jolvek.store.stock import Stock
from jolvek.web.kit.display import amount_of
from jolvek.web.kit.language import tr
from jolvek.web.kit.rates import digits_of, tax_of
from jolvek.web.kit.worked import Worked
from jolvek.web.stations.offer import form as draft_form
from jolvek.web.stations.offer.form import Draft

AFTER_A_LOOK = msg("after a look")
_WORDS = (msg("Delivery"), msg("Commissioning on the water"), msg("Training of the customer"))
SERVICES = dict(zip(draft_form.SERVICES, _WORDS, strict=True))  # a setting of the shop: its line
StockOf = Callable[[str, str], Stock]


def priced_services(shop: Shop) -> dict[str, int]:
    """What the shop asks for delivery, commissioning and training, where it has a price."""
    digits = digits_of(shop.currency)
    found = {key: minor(getattr(shop, key), digits) for key in SERVICES}
    return {key: price for key, price in found.items() if price}


def lines(w: Worked, draft: Draft, shop: Shop, stock_of: StockOf | None = None) -> list[Line]:
    """All lines of one setup with services and those of one's own, each with its own discount;
    with `stock_of`, what the shop paid.
    """
    out = list(w.job.bill)
    if stock_of is not None:
        items = [*w.pinned.parts, *w.pinned.extras]
        paid = [
            0 if x.item.own else stock_of(KIND_OF_PART[x.kind], x.item.id).buying_minor
            for x in items
        ]
        bought = [replace(x, buying_minor=p) for x, p in zip(out, paid, strict=False)]
        out = bought + out[len(bought) :]
    services = priced_services(shop)
    out += [
        Line("free", SERVICES[key], Decimal(1), services[key], tax=tax_of(shop))
        for key in SERVICES
        if key in draft.services and key in services
    ]
    out += draft.free_lines(digits_of(shop.currency))
    return [_less(x, draft.line_discounts) for x in out]


def _less(x: Line, discounts: Mapping[str, float]) -> Line:
    off = discounts.get(x.text)
    return x if off is None else replace(x, discount=Decimal(str(off)))


def line_plain(x: Line, currency: str) -> dict[str, Any]:
    """A line without what the shop paid."""
    digits = digits_of(currency)
    plain = {k: v for k, v in asdict(x).items() if k != "buying_minor"}
    later = AFTER_A_LOOK if x.kind in ("wiring", "labour") else tr("included")
    return {
        **{k: str(v) if isinstance(v, Decimal) else v for k, v in plain.items()},
        "amount_minor": x.amount,
        "each": amount_of(major(x.price_minor, digits), currency) if x.price_minor else later,
        "amount": amount_of(major(x.amount, digits), currency) if x.price_minor else "",
    }


def sums_plain(s: Sums, currency: str) -> dict[str, Any]:
    """The sums as minor units and in words, without the margin."""
    digits = digits_of(currency)

    def msg(amount: int) -> str:
        return amount_of(major(amount, digits), currency)

    out: dict[str, Any] = {
        k: {"minor": getattr(s, k), "text": msg(getattr(s, k))}
        for k in ("lines", "off", "net", "tax", "total", "deposit")
    }
    out["rates"] = [
        {
            "rate": f"{r.rate.normalize():f}",
            "net": msg(r.net),
            "tax": msg(r.tax),
            "tax_minor": r.tax,
        }
        for r in s.rates
    ]
    out["instalments"] = [msg(x) for x in s.instalments]
    return out


def agreed_plain(terms: Terms) -> dict[str, Any]:
    """The terms, so that a frozen offer can be summed again with other add-ons."""
    return {k: str(v) if isinstance(v, Decimal) else v for k, v in asdict(terms).items()}


def with_add_ons(told: Mapping[str, Any], letter: str, ticked: Collection[str]) -> dict[str, Any]:
    """The sums of one alternative of a frozen offer with the add-ons that a customer ticks; as they
    stood where the offer is of a time that did not keep its terms.
    """
    x = next(a for a in told["alternatives"] if a["letter"] == letter)
    if "agreed" not in told:
        return dict(x["sums"])
    agreed = told["agreed"]
    terms = Terms(
        agreed["tax_included"],
        Decimal(agreed["discount"]),
        Decimal(agreed["deposit"]),
        agreed["instalments"],
    )
    again = [
        Line(
            y["kind"],
            y["text"],
            Decimal(y["quantity"]),
            y["price_minor"],
            y["unit"],
            Decimal(y["discount"]),
            tax=Decimal(y["tax"]),
            optional=y["optional"],
            ticked=y["text"] in ticked,
        )
        for y in x["lines"]
    ]
    return sums_plain(sums(again, terms), told["currency"])


def totals(told: Mapping[str, Any], events: Iterable[Event]) -> dict[int, str]:
    """What a customer accepted comes to with the add-ons that were ticked, by event."""
    return {
        e.id: with_add_ons(told, e.letter, e.ticked)["total"]["text"]
        for e in events
        if e.kind == "accepted"
    }


def grouped(x: Mapping[str, Any], currency: str) -> list[dict[str, Any]]:
    """The lines of one alternative of a frozen offer as a customer reads them: cables, fuses and
    hours are one row, and stand in it.
    """
    rows: list[dict[str, Any]] = []
    small = [y for y in x["lines"] if y["kind"] in ("wiring", "labour")]
    for y in x["lines"]:
        if y not in small:
            rows.append({**y, "inside": []})
        elif y is small[0]:
            amount = sum(z["amount_minor"] for z in small)
            told = amount_of(major(amount, digits_of(currency)), currency) if amount else y["each"]
            rows.append(_as_one(small, told))
    return rows


def _as_one(small: list[dict[str, Any]], amount: str) -> dict[str, Any]:
    hours = any(z["kind"] == "labour" for z in small)
    text = tr("Cables, fuses and fitting") if hours else tr("Cables and fuses")
    one = {"text": text, "quantity": "1", "unit": "", "each": "", "amount": amount}
    return {**one, "discount": "0", "optional": False, "ticked": True, "inside": small}


HEADS = {
    "go": msg("Before you go"),
    "electrics": msg("Electrics"),
    "charging": msg("Charging"),
}
SERIOUS = ("danger", "warning", "caution")


def to_know(told: Mapping[str, Any]) -> list[tuple[str, list[dict[str, Any]]]]:
    """The cautions of all alternatives of a frozen offer under their heads, the most serious first,
    each once, with its letters where it is not of all of them.
    """
    found: dict[str, dict[str, Any]] = {}
    letters = [x["letter"] for x in told["alternatives"]]
    acks = {a["text"]: a for a in told["acknowledged"] if a.get("who")}
    for x in told["alternatives"]:
        for f in x["findings"]:
            text = f"{f['text']} {f['cure']}"
            one = {"about": f.get("about", "go"), "signal": f.get("signal") or f["level"]}
            one |= {"text": text, "read": acks.get(f["text"], {}), "of": []}
            found.setdefault(text, one)["of"].append(x["letter"])
    rank = {signal: i for i, signal in enumerate(SERIOUS)}
    kept = sorted(found.values(), key=lambda y: rank.get(y["signal"], len(SERIOUS)))
    for y in kept:
        y["of"] = [] if len(set(y["of"])) == len(letters) else sorted(set(y["of"]))
    heads = ((tr(name), [y for y in kept if y["about"] == key]) for key, name in HEADS.items())
    return [(name, group) for name, group in heads if group]


def seen(told: Mapping[str, Any]) -> dict[str, Any]:
    """What a frozen offer shows besides itself: its rows by letter, and its cautions."""
    rows = {x["letter"]: grouped(x, told["currency"]) for x in told["alternatives"]}
    return {"rows": rows, "known": to_know(told)}
