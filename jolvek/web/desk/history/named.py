"""An enquiry's fields as readers know them: labels, and values in their words and units."""

from __future__ import annotations

from functools import cache
from typing import Any

from jolvek.core.base.messages import msg
from jolvek.core.enquiry.site import Site
from jolvek.core.hydro.families import FAMILIES
from jolvek.core.hydro.hull import FACTORS, Hull, Load
from jolvek.core.products.boat_model import FIN_BOXES
from jolvek.core.products.mounting import PLACES
from jolvek.web.kit import display
from jolvek.web.kit.display import money
from jolvek.web.kit.language import counted_text, tr
from jolvek.web.stations.boat.fields import FIELDS
from jolvek.web.stations.boat.form import BoatForm
from jolvek.web.stations.waters.form import (
    AGAINST_WORDS,
    DAY_FIELDS,
    SCHOOL_WORDS,
    WISH_WORDS,
    DayForm,
)

RECORDS = {Hull: "hull", Load: "load", Site: "site"}
TEXTS = "title customer phone mail address model note storage water".split()
OF_BOAT = {
    "hull": "family bottom".split(),
    "site": (
        "construction chambers fin_box remote_steering petrol_aboard rudder_lifts registration"
        " places"
    ).split(),
}
OF_DAY = (
    "reserve_school against electric_only shore_power sky date hands_free budgets speed distance"
    " charge standby"
).split()
STORED = {"speed": "speed_m_s", "distance": "distance_m", "charge": "charge_h"}
STORED |= {"standby": "standby_s"}
QUANTITIES = {"day.speed_m_s": "speed", "day.distance_m": "distance", "day.charge_h": "hours"}
QUANTITIES |= {"day.standby_s": "duration"}
OTHERS = {
    "load.seat_kg": msg("People, from the helm"),
    "site.bays": msg("Battery bays"),
    "day.legs": msg("Legs"),
    "hull.tried_on": msg("Tried on"),
    "hull.trial_shape": msg("Form of the curve from the trial"),
    "hull.trial_spread": msg("Doubt after the trial"),
    **{f"hull.{key}": msg("What the trial found") for key in FACTORS},
}
WORDS: dict[str, dict[str, str]] = {
    "hull.family": {f.id: f.name for f in FAMILIES.values()},
    "site.fin_box": {key: name for key, (name, *_) in FIN_BOXES.items()},
    "site.places": {key: name.split(" ", 1)[-1] for key, name in PLACES.items()},
    "day.against": AGAINST_WORDS,
    "day.reserve_school": SCHOOL_WORDS,
}


def _label(form: type, name: str) -> str:
    return str(getattr(form, name).args[0])


@cache
def _labels() -> dict[str, str]:
    named = {f"{RECORDS[record]}.{key}": label for record, key, _, label, *_ in FIELDS}
    named |= {f"day.{key}": label for key, _, label, *_ in DAY_FIELDS}
    named |= {key: _label(BoatForm, key) for key in TEXTS}
    named |= {f"{of}.{x}": _label(BoatForm, x) for of, names in OF_BOAT.items() for x in names}
    named |= {f"day.{STORED.get(x, x)}": _label(DayForm, x) for x in OF_DAY}
    return named | {f"weights.{key}": label for key, label in WISH_WORDS.items()} | OTHERS


@cache
def _quantities() -> dict[str, str]:
    found = {f"{RECORDS[record]}.{key}": quantity for record, key, _, _, quantity, *_ in FIELDS}
    return found | {f"day.{key}": quantity for key, _, _, quantity, _ in DAY_FIELDS} | QUANTITIES


def field_name(key: str) -> str:
    """The label of a field of an enquiry, by its stored key, or by its last part."""
    labels = _labels()
    return tr(labels.get(key) or next((x for k, x in labels.items() if k.endswith(f".{key}")), "–"))


def field_text(key: str, value: Any) -> str:
    """A stored value as its readers write it."""
    if value in (None, "", []):
        return "–"
    if isinstance(value, bool):
        return tr("yes") if value else tr("no")
    if isinstance(value, list):
        return _listed(key, value)
    quantity = _quantities().get(key, "")
    u = display.current()
    if quantity == "hours":
        return str(u.full(3600 * value, "duration"))
    if quantity == "money":
        return money(value)
    if quantity and not isinstance(value, str):
        return str(u.full(value, quantity))
    if isinstance(value, float):
        return f"{value:g}"
    return tr(WORDS.get(key, {}).get(value, str(value)))


def _listed(key: str, value: list[Any]) -> str:
    if isinstance(value[0], dict):
        return counted_text("%(n)s row", "%(n)s rows", len(value))
    if key == "load.seat_kg":
        return ", ".join(str(display.current().full(x, "mass")) for x in value)
    if key == "day.budgets":
        return ", ".join(money(x) for x in value)
    return ", ".join(tr(WORDS.get(key, {}).get(x, str(x))) for x in value)
