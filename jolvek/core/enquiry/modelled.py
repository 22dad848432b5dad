"""A boat as her model on the shelf says: sizes, plate and approval taken into an enquiry."""

from __future__ import annotations

from dataclasses import fields, replace
from typing import Any

from jolvek.core.base.errors import ValueRefused
from jolvek.core.enquiry.need import Need
from jolvek.core.enquiry.site import Site
from jolvek.core.hydro.hull import Hull
from jolvek.core.products.boat_model import LIMITS, BoatModel

OF_ITS_OWN = ("name", "from_year", "to_year", "family")


def as_model(need: Need, model: BoatModel) -> Need:
    """The need with what the model states; what it does not say stays, but plate and approval are
    the model's alone, and of another kind of boat nothing of the old hull stays.

    >>> from jolvek.core.hydro.hull import Load
    >>> new = BoatModel("kayak", 3.75, 0.84, 36, from_year=2019, approval_power_w=750.0)
    >>> need = as_model(Need(Hull("kayak", 3.7, 0.78, 34), Load(1)), new)
    >>> need.hull.mass_kg, need.site.approval_power_w, need.site.approval_from_year
    (36, 750.0, 2019)
    """
    stated = {f.name: getattr(model, f.name) for f in fields(model) if f.name not in OF_ITS_OWN}
    stated = {k: v for k, v in stated.items() if v not in (None, "", ())}
    limits: dict[str, Any] = {k: getattr(model, k) for k in LIMITS}
    limits |= {"approval_from_year": model.from_year, "approval_to_year": model.to_year}
    same = need.hull if need.hull.family == model.family else None
    hull_of, site_of = (_of(record, stated) for record in (Hull, Site))
    hull_of["max_power_w"] = model.max_power_w
    return replace(
        need,
        hull=_hull(same, model.family, hull_of),
        site=replace(need.site, **{**site_of, **limits}),
    )


def _hull(same: Hull | None, family: str, stated: dict[str, Any]) -> Hull:
    """The hull as stated, with what was measured of the same one where that still can be."""
    if same is None:
        return Hull(family, **stated)
    try:
        return replace(same, **stated)
    except ValueRefused:  # a waterline longer than the model, and the like
        return Hull(family, **stated, bottom=same.bottom, months_afloat=same.months_afloat)


def _of(record: type, stated: dict[str, Any]) -> dict[str, Any]:
    names = {f.name for f in fields(record)}
    return {k: v for k, v in stated.items() if k in names}


def differs(need: Need, model: BoatModel) -> bool:
    """Whether the boat is not yet as her model says.

    >>> from jolvek.core.hydro.hull import Load
    >>> need, model = Need(Hull("kayak", 3.7, 0.78, 34), Load(1)), BoatModel("kayak", 3.7, 0.8, 34)
    >>> differs(need, model), differs(as_model(need, model), model)
    (True, False)
    """
    return as_model(need, model) != need
