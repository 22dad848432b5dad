"""jolvek-enquiry: a whole enquiry as JSON, for hand-over and for matching on files alone."""

from __future__ import annotations

from dataclasses import asdict, dataclass
from typing import Any

from jolvek.core.enquiry.need import DEFAULT_WEIGHTS, Day, Leg, Need
from jolvek.core.enquiry.site import Bay, Site, default_places
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.water import Water
from jolvek.formats import schema


@dataclass(frozen=True)
class Enquiry:
    """Who asks, under which title, and the need."""

    need: Need
    customer: str = ""
    title: str = ""
    note: str = ""
    model: str = ""
    storage: str = ""


def read(text: str | bytes) -> Enquiry:
    """An enquiry from JSON text; raises ValueRefused or UnreadableFile with one sentence."""
    data = schema.loads(text)
    schema.check(data, "enquiry")
    return from_dict(data)


def from_dict(data: dict[str, Any]) -> Enquiry:
    """The enquiry in checked data."""
    hull = Hull(**data["hull"])
    site = dict(data.get("site", {}))
    site["places"] = tuple(site.get("places", default_places(hull.family)))
    site["bays"] = tuple(Bay(**bay) for bay in site.get("bays", ()))
    load = {**data["load"], "seat_kg": tuple(data["load"].get("seat_kg", ()))}
    day = dict(data.get("day", {}))
    day["legs"] = tuple(Leg(**leg) for leg in day.get("legs", ()))
    need = Need(
        hull,
        Load(**load),
        Site(**site),
        Water(data.get("water", "salt")),
        Day(**day),
        tuple({**DEFAULT_WEIGHTS, **data.get("weights", {})}.items()),
    )
    return Enquiry(
        need, *(data.get(k, "") for k in ("customer", "title", "note", "model", "storage"))
    )


def write(enquiry: Enquiry) -> dict[str, Any]:
    """The plain data of the format, values not given left out."""
    need = enquiry.need
    hull = {
        k: v
        for k, v in asdict(need.hull).items()
        if v is not None and k not in ("friction_factor", "wave_factor")
    }
    site = {k: v for k, v in asdict(need.site).items() if v not in (None, (), []) and k != "notes"}
    site["places"] = list(site.get("places", ()))
    if need.site.bays:
        site["bays"] = [
            {k: v for k, v in asdict(bay).items() if v is not None} for bay in need.site.bays
        ]
    load = {k: v for k, v in asdict(need.load).items() if v not in (None, ())}
    day = {k: v for k, v in asdict(need.day).items() if v not in (None, ())}
    if need.day.legs:
        day["legs"] = [
            {k: v for k, v in asdict(leg).items() if v not in (None, "")} for leg in need.day.legs
        ]
    words = {k: getattr(enquiry, k) for k in ("model", "storage") if getattr(enquiry, k)}
    return {
        "format": "jolvek-enquiry",
        "version": 1,
        "customer": enquiry.customer,
        "title": enquiry.title,
        "note": enquiry.note,
        **words,
        "hull": hull,
        "load": {k: list(v) if isinstance(v, tuple) else v for k, v in load.items()},
        "water": need.water.kind,
        "site": site,
        "day": day,
        "weights": dict(need.weights),
    }
