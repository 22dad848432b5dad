"""jolvek-cost: what electric and petrol cost over the years, as JSON in and out."""

from __future__ import annotations

from typing import Any

from jolvek.core.deal.cost import Case, Electric, OtherAssets, Petrol, cost
from jolvek.formats import schema


def read(text: str | bytes) -> Case:
    """A case from JSON text; raises ValueRefused or UnreadableFile with one sentence."""
    data = schema.loads(text)
    schema.check_schema(data, "cost")
    petrol = {
        **data["petrol"],
        "also": tuple(OtherAssets(**x) for x in data["petrol"].get("also", ())),
    }
    known = {k: data[k] for k in ("years", "hours_per_year", "discount_rate") if k in data}
    return Case(electric=Electric(**data["electric"]), petrol=Petrol(**petrol), **known)


def answer(case: Case) -> dict[str, Any]:
    """The rows (year 0 is the purchase), break-even, when the battery is bought again, money an
    hour.
    """
    found = cost(case)
    pairs = enumerate(zip(found.electric, found.petrol, strict=True))
    return {
        "rows": [
            {"year": year, "electric": round(a, 2), "petrol": round(b, 2)} for year, (a, b) in pairs
        ],
        "break_even_year": _rounded(found.break_even_year, 3),
        "battery_replaced_in": list(found.battery_replaced_in),
        "per_hour": {
            "electric": _rounded(found.electric_per_hour, 4),
            "petrol": _rounded(found.petrol_per_hour, 4),
        },
    }


def _rounded(value: float | None, digits: int) -> float | None:
    return None if value is None else round(value, digits)
