"""The draft of an offer: which setups, discount, deposit, lines of one's own; typed and read."""

from __future__ import annotations

from collections.abc import Iterable, Mapping
from dataclasses import dataclass, field
from decimal import Decimal
from typing import Any

from jolvek.core.base import typed_figures
from jolvek.core.base.errors import JolvekError, ValueRefused
from jolvek.core.base.messages import msg
from jolvek.core.base.money import minor
from jolvek.core.deal.lines import Line, Terms
from jolvek.core.deal.years import Assumed
from jolvek.store.shop import Shop
from jolvek.web.kit.language import tr

MOST_LETTERS, FREE_ROWS = 3, 6
USUAL_DAYS = 30
FIGURES = {  # name: label, lowest, highest
    "discount": (msg("Overall discount, %"), 0, 100),
    "deposit": (msg("Deposit, %"), 0, 100),
    "instalments": (msg("Instalments of the rest"), 1, 60),
    "valid_days": (msg("Valid for, days"), 1, 365),
}
FREE_KEYS = ("text", "quantity", "price", "discount", "tax")
LINE, YEARS = "off_", "y_"  # before the names of entries: discount of a line, an assumption
SERVICES = ("delivery", "commissioning", "training")


@dataclass
class Draft:
    """What the next offer is to be; `acknowledged` has who ticked a caution, and when, by key;
    `line_discounts` % by the words of a line, `assumed` what the shop puts otherwise of the years.
    """

    letters: list[str] = field(default_factory=list)
    discount: float = 0.0
    deposit: float = 0.0
    instalments: int = 1
    valid_days: int = USUAL_DAYS
    free: list[dict[str, str]] = field(default_factory=list)
    services: list[str] = field(default_factory=list)
    line_discounts: dict[str, float] = field(default_factory=dict)
    years_shown: bool = True
    assumed: dict[str, float] = field(default_factory=dict)
    acknowledged: dict[str, dict[str, str]] = field(default_factory=dict)

    def terms(self, shop: Shop) -> Terms:
        """As the sums take it."""
        figures = (Decimal(str(self.discount)), Decimal(str(self.deposit)))
        return Terms(shop.tax_included, *figures, self.instalments)

    def free_lines(self, digits: int) -> list[Line]:
        """The lines of one's own."""
        return [free_line(row, digits) for row in self.free]


def draft_of(data: Mapping[str, Any], shop: Shop) -> Draft:
    """The draft as kept; what cannot be used of it falls away."""
    known = {k: v for k, v in data.items() if k in Draft.__dataclass_fields__}
    try:
        made = Draft(**{"deposit": shop.deposit, **known})
        made.terms(shop)
        made.free_lines(2)
        Assumed(**made.assumed)
        _percents(made.line_discounts)
        return made
    except (JolvekError, TypeError, ValueError, ArithmeticError, AttributeError):
        return Draft(deposit=shop.deposit)


def _percents(found: Mapping[str, float]) -> None:
    for text, percent in found.items():
        if not 0 <= percent <= 100:
            raise ValueRefused(text, percent, "0 to 100")


def free_line(row: Mapping[str, str], digits: int) -> Line:
    """A line of one's own; raises JolvekError naming what cannot be read."""
    quantity = Decimal(str(typed_figures.parse(row.get("quantity") or "1", "number", "")))
    price = minor(typed_figures.parse(row.get("price") or "0", "money", ""), digits)
    tax = Decimal(str(typed_figures.parse(row.get("tax") or "0", "number", "")))
    off = Decimal(str(typed_figures.parse(row.get("discount") or "0", "number", "")))
    return Line("free", row.get("text", ""), quantity, price, discount=off, tax=tax)


LABELS = {
    **{key: label for key, (label, *_) in FIGURES.items()},
    **{f"letter_{x}": msg("Setup %(letter)s", letter=x) for x in "ABCDE"},
    **{f"service_{key}": msg("Services") for key in SERVICES},
    "years_shown": msg("The years’ cost"),
    "language": msg("Language"),
}


def values(draft: Draft, lines: Iterable[str], language: str) -> dict[str, Any]:
    """What the form of a draft is filled with; `lines` are those that may be discounted."""
    rows = [*draft.free, *({} for _ in range(FREE_ROWS))][:FREE_ROWS]
    off, put = draft.line_discounts, draft.assumed
    return {
        **{f"letter_{x}": x for x in draft.letters},
        **{f"service_{key}": key in draft.services for key in SERVICES},
        "years_shown": draft.years_shown,
        "language": language,
        **{name: f"{getattr(draft, name):g}" for name in FIGURES},
        **{f"free{i}_{k}": row.get(k, "") for i, row in enumerate(rows) for k in FREE_KEYS},
        **{LINE + x: f"{off[x]:g}" if x in off else "" for x in lines},
        **{YEARS + x: f"{put[x]:g}" if x in put else "" for x in Assumed.RANGES},
    }


def read(
    form: Mapping[str, str], letters: list[str], before: Draft, shop: Shop, digits: int
) -> tuple[Draft, dict[str, str]]:
    """The draft in a form; what is refused stays as before and is told by its entry."""
    refused: dict[str, str] = {}
    chosen = [x for x in letters if x and x in (form.get(f"letter_{x}") or "")]
    if len(chosen) > MOST_LETTERS:
        refused["letters"] = tr(
            "at most %(most_letters)s setups on one offer", most_letters=MOST_LETTERS
        )
        chosen = before.letters
    out = Draft(chosen, acknowledged=before.acknowledged, years_shown="years_shown" in form)
    out.services = [key for key in SERVICES if form.get(f"service_{key}")]
    for name, (_, low, high) in FIGURES.items():
        empty = getattr(Draft(), name)
        value = _figure(form, name, (low, high), empty, getattr(before, name), refused)
        setattr(out, name, int(value) if name in ("instalments", "valid_days") else float(value))
    for key in form:
        if key.startswith(LINE):
            text = key.removeprefix(LINE)
            was = before.line_discounts.get(text, 0.0)
            if off := _figure(form, key, (0, 100), 0.0, was, refused):
                out.line_discounts[text] = off
    for name, allowed in Assumed.RANGES.items():
        kept = before.assumed.get(name)
        put = _figure(form, YEARS + name, allowed, None, kept, refused)
        if put is not None:
            out.assumed[name] = put
    _free(form, out, refused, digits)
    return out, refused


def _figure(
    form: Mapping[str, str],
    key: str,
    allowed: tuple[float, float],
    empty: Any,
    before: Any,
    refused: dict[str, str],
) -> Any:
    """A figure as typed; what an empty entry means, or what stood before where it is refused."""
    text = (form.get(key) or "").strip()
    if not text:
        return empty
    low, high = allowed
    try:
        value = typed_figures.parse(text, "number", "")
        if not low <= value <= high:
            raise ValueRefused(key, text, f"{low:g} to {high:g}")
    except ValueRefused as error:
        refused[key] = tr(
            "read “%(text)s”; allowed is %(allowed)s", text=text[:40], allowed=error.allowed
        )
        return before
    except JolvekError as error:
        refused[key] = str(error)
        return before
    return value


def _free(form: Mapping[str, str], out: Draft, refused: dict[str, str], digits: int) -> None:
    for i in range(FREE_ROWS):
        row = {k: (form.get(f"free{i}_{k}") or "").strip() for k in FREE_KEYS}
        if not row["text"]:
            continue
        try:
            free_line(row, digits)
            out.free.append(row)
        except ValueRefused as error:
            refused[f"free{i}_text"] = tr(
                "read %(read)s; allowed is %(allowed)s",
                read=f"{error.read:.40}",
                allowed=error.allowed,
            )
        except (JolvekError, ArithmeticError) as error:
            refused[f"free{i}_text"] = str(error)
