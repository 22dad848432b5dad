"""The enquiry: who asks, under which title, and the need; as a record and as plain data."""

from __future__ import annotations

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any, ClassVar

from jolvek.core.base import checked
from jolvek.core.base.plain import mended, plain
from jolvek.core.enquiry.need import DEFAULT_WEIGHTS, Day, Leg, Need
from jolvek.core.enquiry.site import Bay, Site, default_places
from jolvek.core.hydro.families import FAMILIES
from jolvek.core.hydro.hull import Hull, Load
from jolvek.core.hydro.water import Water

WORDS = ("customer", "phone", "mail", "address", "title", "note", "model", "storage")


@dataclass(frozen=True)
class Enquiry:
    """Who asks, under which title, and the need."""

    TEXTS: ClassVar[checked.Counts] = {
        "customer": 200,
        "phone": 60,
        "mail": 120,
        "address": 400,
        "title": 200,
        "note": 4000,
        "model": 200,
        "storage": 200,
    }

    need: Need
    customer: str = ""
    title: str = ""
    note: str = ""
    model: str = ""
    storage: str = ""
    phone: str = ""
    mail: str = ""
    address: str = ""

    def __post_init__(self) -> None:
        checked.check(self, "enquiry")


def as_plain(enquiry: Enquiry) -> dict[str, Any]:
    """The enquiry as plain data: words, hull, load, water, site, day, weights.

    >>> e = Enquiry(Need(Hull("kayak", 3.7, .78, 34), Load(1)), "A")
    >>> from_plain(as_plain(e)) == e
    True
    """
    need = enquiry.need
    return {
        **{k: getattr(enquiry, k) for k in WORDS},
        "hull": plain(need.hull),
        "load": plain(need.load),
        "water": need.water.kind,
        "site": {"places": [], **plain(need.site)},
        "day": plain(need.day),
        "weights": dict(need.weights),
    }


def from_plain(data: Mapping[str, Any]) -> Enquiry:
    """The enquiry in plain data; raises ValueRefused.

    >>> from_plain({"hull": {"family": "kayak", "length_m": 3.7, "beam_m": .78, "mass_kg": 34},
    ...             "load": {"people": 1}}).need.site.places
    ('fin_box', 'rail', 'stern_deck')
    """
    data = as_now(data)
    hull, day = Hull(**data["hull"]), data.get("day", {})
    need = Need(
        hull,
        Load(**_tuples(data["load"])),
        _site(data.get("site", {}), hull.family),
        Water(data.get("water", "salt")),
        Day(**{**_tuples(day), "legs": _all(Leg, day, "legs")}),
        _weights(data),
    )
    return Enquiry(need, **{k: data.get(k, "") for k in WORDS})


def as_now(data: Mapping[str, Any]) -> Mapping[str, Any]:
    """Plain data as version 0.6 wrote them, in today's places: the canopy stands with the hull.

    >>> as_now({"hull": {}, "site": {"canopy_m2": 2.0}})
    {'hull': {'canopy_m2': 2.0}, 'site': {}}
    """
    site = data.get("site")
    if not isinstance(site, Mapping) or "canopy_m2" not in site:
        return data
    hull = {"canopy_m2": site["canopy_m2"], **data["hull"]}
    return {**data, "hull": hull, "site": {k: v for k, v in site.items() if k != "canopy_m2"}}


def _site(data: Mapping[str, Any], family: str) -> Site:
    places = tuple(data.get("places", default_places(family)))
    return Site(**{**data, "places": places, "bays": _all(Bay, data, "bays")})


def _all(kind: type, data: Mapping[str, Any], key: str) -> tuple[Any, ...]:
    return tuple(kind(**row) for row in data.get(key, ()))


def _tuples(data: Mapping[str, Any]) -> dict[str, Any]:
    return {k: tuple(v) if isinstance(v, list) else v for k, v in data.items()}


def _weights(data: Mapping[str, Any]) -> tuple[tuple[str, float], ...]:
    return tuple({**DEFAULT_WEIGHTS, **data.get("weights", {})}.items())


def read_mended(data: Mapping[str, Any]) -> tuple[Enquiry, tuple[str, ...]]:
    """The enquiry in plain data, each field that it may not hold replaced by what is usual, and
    what was said against it: what an older or a stricter version kept stays readable for ever.

    >>> hull = {"family": "kayak", "length_m": 3.7, "beam_m": .78, "mass_kg": 34}
    >>> day = {"date": "2026-02-30"}
    >>> read_mended({"hull": hull, "load": {"people": 1}, "day": day})[0].need.day.date
    '2026-07-01'
    """
    rows: list[str] = []

    def make(kind: Any, values: Mapping[str, Any], fallback: Mapping[str, Any]) -> Any:
        record, problems = mended(kind, _tuples(values), fallback)
        rows.extend(problems)
        return record

    hull = make(Hull, data["hull"], _usual_hull(data["hull"]))
    site, day = dict(data.get("site", {})), dict(data.get("day", {}))
    room = {"name": "bay", "length_m": 0.3, "width_m": 0.3, "height_m": 0.3}
    site["bays"] = tuple(make(Bay, bay, room) for bay in site.get("bays", ()))
    site["places"] = tuple(site.get("places", default_places(hull.family)))
    leg = {"name": "", "speed_m_s": 1.8, "distance_m": 0.0}
    day["legs"] = tuple(make(Leg, x, leg) for x in day.get("legs", ()))
    usual = {"places": default_places(hull.family)}
    need = make(
        Need,
        {
            "hull": hull,
            "load": make(Load, data["load"], {}),
            "site": make(Site, site, usual),
            "water": make(Water, {"kind": data.get("water", "salt")}, {"kind": "salt"}),
            "day": make(Day, day, {}),
            "weights": _weights(data),
        },
        {"weights": tuple(DEFAULT_WEIGHTS.items())},
    )
    words = {k: data.get(k, "") for k in WORDS}
    return make(Enquiry, {"need": need, **words}, dict.fromkeys(WORDS, "")), tuple(rows)


def _usual_hull(values: Mapping[str, Any]) -> dict[str, Any]:
    fam = FAMILIES.get(values.get("family", ""), FAMILIES["rigid_dinghy"])
    return {
        "family": fam.id,
        "length_m": fam.typical_length_m,
        "beam_m": fam.typical_beam_m,
        "mass_kg": fam.typical_mass_kg,
    }
