"""The Boat station's form: hull, load, transom, plate, places and words. Bays are in bay_rows."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from flask_wtf import FlaskForm
from wtforms import (
    BooleanField,
    HiddenField,
    RadioField,
    SelectField,
    StringField,
    TextAreaField,
    ValidationError,
    validators,
)
from wtforms.fields.choices import SelectChoice

from jolvek.core.base import typed_figures
from jolvek.core.base.errors import JolvekError
from jolvek.core.base.messages import msg
from jolvek.core.enquiry.enquiry import WORDS, Enquiry
from jolvek.core.enquiry.site import Site, default_places
from jolvek.core.hydro.fouling import BOTTOMS
from jolvek.core.hydro.hull import UNTRIED, Hull, Load
from jolvek.core.hydro.water import Water
from jolvek.core.products.boat_model import CHAMBERS, CONSTRUCTIONS, FIN_BOXES
from jolvek.core.products.mounting import PLACES
from jolvek.web.kit import display
from jolvek.web.kit.fields.fields import ChecksField, FamilyField, QuantityField, allowed
from jolvek.web.kit.language import tr
from jolvek.web.stations.boat.bays import add_bay_fields, bay_values, bays_from
from jolvek.web.stations.boat.fields import FIELDS

STORAGE = (
    "",
    "trailer",
    msg("car roof"),
    msg("car boot"),
    "davit",
    msg("mooring or berth"),
    "carried",
)
MOST_KG = allowed(Load, "seat_kg")[1]

_SLOTS = {key: name for key, (name, *_) in FIN_BOXES.items()}


class BoatForm(FlaskForm):
    """Boat, load and site of one enquiry."""

    title = StringField(msg("Title"), [validators.Length(max=Enquiry.TEXTS["title"])])
    customer = StringField(msg("Customer"), [validators.Length(max=Enquiry.TEXTS["customer"])])
    phone = StringField(msg("Telephone"), [validators.Length(max=Enquiry.TEXTS["phone"])])
    mail = StringField(msg("Mail"), [validators.Length(max=Enquiry.TEXTS["mail"])])
    address = StringField(msg("Address"), [validators.Length(max=Enquiry.TEXTS["address"])])
    model = StringField(msg("Make and model"), [validators.Length(max=Enquiry.TEXTS["model"])])
    note = TextAreaField(msg("Note"), [validators.Length(max=Enquiry.TEXTS["note"])])
    storage = SelectField(
        msg("Kept and carried"),
        choices=[SelectChoice(s, s or msg("not said")) for s in STORAGE],
        default="",
        validate_choice=False,
    )
    construction = SelectField(
        msg("Built of"),
        choices=[SelectChoice(s, s or msg("not said")) for s in CONSTRUCTIONS],
        default="",
    )
    chambers = SelectField(
        msg("Inflatable floor"),
        choices=[SelectChoice(s, s or msg("not said")) for s in CHAMBERS],
        default="",
    )
    fin_box = SelectField(
        msg("Fin box"),
        choices=[SelectChoice(k, name) for k, name in {"": msg("not said"), **_SLOTS}.items()],
        default="",
    )
    family = FamilyField(msg("Kind of boat"))
    bottom = RadioField(
        msg("Bottom"), choices=[SelectChoice(b, b) for b in BOTTOMS], default="clean"
    )
    remote_steering = BooleanField(msg("remote steering"))
    petrol_aboard = BooleanField(msg("petrol aboard"))
    rudder_lifts = BooleanField(msg("rudder blade swings up"))
    registration = BooleanField(msg("registration needed here"))
    places = ChecksField(
        msg("Mounting places"),
        choices=[SelectChoice(k, v.split(" ", 1)[-1]) for k, v in PLACES.items()],
    )
    seats = StringField(msg("Or each, from the helm"), [validators.Length(max=200)])
    water = RadioField(
        msg("Water"),
        choices=[SelectChoice("salt", "salt"), SelectChoice("fresh", "fresh")],
        default="salt",
    )
    changed = HiddenField()
    page = HiddenField()

    def validate_seats(self, field: StringField) -> None:
        """Refuse what is no list of people's masses."""
        try:
            read_seats(field.data)
        except ValueError as error:
            raise ValidationError(str(error)) from None


_TICKS = ("remote_steering", "petrol_aboard", "rudder_lifts", "registration")
_PICKS = ("construction", "chambers", "fin_box")
_WHOLE = ("bodies", "max_people", "approval_from", "approval_to", "model_year", "people")
_HULL = {name: key for record, key, name, *_ in FIELDS if record is Hull}
_SITE = {name: key for record, key, name, *_ in FIELDS if record is Site}
for _record, _key, _name, _label, _quantity, _needed, _hint in FIELDS:
    _low, _high = allowed(_record, _key)
    setattr(BoatForm, _name, QuantityField(_label, _quantity, _low, _high, _needed, _hint))
add_bay_fields(BoatForm)


def read_seats(text: str | None) -> tuple[float, ...]:
    """Masses of single people out of "90, 60 kg, 11 st"; raises ValueError naming what cannot be
    read.
    """
    out = []
    for part in (text or "").replace(";", ",").split(","):
        if part.strip():
            try:
                kg = typed_figures.parse(part, "mass", display.current()["mass"])
            except JolvekError as error:
                raise ValueError(str(error)) from None
            if not 0 <= kg <= MOST_KG:
                raise ValueError(
                    tr(
                        "read “%(strip)s”; allowed is 0 to %(most)s kg for one person",
                        strip=part.strip(),
                        most=f"{MOST_KG:g}",
                    )
                )
            out.append(kg)
    return tuple(out)


def enquiry_from(form: BoatForm, before: Enquiry) -> Enquiry:
    """The enquiry in a form; the day and what the form does not hold stay as before. Raises
    ValueRefused.
    """
    d = {name: field.data for name, field in form._fields.items()}
    d |= {name: int(d[name]) for name in _WHOLE if d[name] is not None}
    same = before.need.hull if before.need.hull.family == d["family"] else None
    trial = {k: getattr(same, k) for k in UNTRIED} if same else {}
    sizes = {attr: d[name] for name, attr in _HULL.items()}
    hull = Hull(d["family"], **sizes, bottom=d["bottom"] or "clean", **trial)
    load = Load(
        d["people"], d["people_kg"], d["gear"] or 0.0, read_seats(d["seats"])[: d["people"]]
    )
    limits: dict[str, Any] = {attr: d[name] for name, attr in _SITE.items()}
    limits |= {k: bool(d[k]) for k in _TICKS} | {k: d[k] or "" for k in _PICKS}
    site = Site(
        places=tuple(d["places"] or default_places(d["family"])),
        bays=bays_from(form, before.need.site.bays),
        **{k: v for k, v in limits.items() if v is not None},
    )
    need = replace(before.need, hull=hull, load=load, site=site, water=Water(d["water"] or "salt"))
    return replace(before, need=need, **{k: (d[k] or "").strip() for k in WORDS})


def values_of(enquiry: Enquiry) -> dict[str, Any]:
    """The form's values for an enquiry."""
    need = enquiry.need
    out: dict[str, Any] = {k: getattr(enquiry, k) for k in WORDS}
    out |= {name: getattr(need.hull, attr) for name, attr in _HULL.items()}
    out |= {name: getattr(need.site, attr) for name, attr in _SITE.items()}
    out |= {
        "family": need.hull.family,
        "bottom": need.hull.bottom,
        "places": list(need.site.places),
        "people": need.load.people,
        "people_kg": need.load.people_kg,
        "gear": need.load.gear_kg,
        "water": need.water.kind,
        **{k: getattr(need.site, k) for k in (*_TICKS, *_PICKS)},
        "seats": ", ".join(f"{kg:g}" for kg in need.load.seat_kg),
    }
    return out | bay_values(need.site.bays)
