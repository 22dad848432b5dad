"""The Boat station's form: hull, load, transom, plate, places, bays and words, and its way to a
need and back.
"""

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
    validators,
)
from wtforms.fields.choices import SelectChoice

from jolvek.core.enquiry.site import Bay, default_places
from jolvek.core.hydro.hull import BOTTOMS, Hull, Load
from jolvek.core.hydro.water import Water
from jolvek.core.products.mounting import PLACES
from jolvek.formats.enquiry_file import Enquiry
from jolvek.web.forms.fields import ChecksField, FamilyField, QuantityField

BAYS = (1, 2, 3)
STORAGE = ("", "trailer", "car roof", "car boot", "davit", "mooring or berth", "carried")
_HULL = {
    "length": "length_m",
    "beam": "beam_m",
    "mass": "mass_kg",
    "waterline_length": "waterline_length_m",
    "waterline_beam": "waterline_beam_m",
    "bodies": "bodies",
    "body_beam": "body_beam_m",
    "body_spacing": "body_spacing_m",
    "chine_beam": "chine_beam_m",
    "deadrise": "deadrise_deg",
    "transom_height": "transom_height_m",
    "max_power": "max_power_w",
}
_SITE = {
    "transom_thickness": "transom_thickness_m",
    "transom_width": "transom_width_m",
    "rake": "rake_deg",
    "rudder": "rudder_chord_m",
    "room_ahead": "room_ahead_m",
    "max_motor": "max_motor_kg",
    "max_load": "max_load_kg",
    "max_people": "max_people",
    "approval_power": "approval_power_w",
    "approval_thrust": "approval_thrust_n",
    "approval_from": "approval_from_year",
    "approval_to": "approval_to_year",
    "model_year": "model_year",
}
_BAY = {
    "length": "length_m",
    "width": "width_m",
    "height": "height_m",
    "max": "max_kg",
    "ahead": "ahead_m",
    "off": "off_m",
    "above": "above_m",
    "lid_length": "lid_length_m",
    "lid_width": "lid_width_m",
}
_WHOLE = ("bodies", "max_people", "approval_from", "approval_to", "model_year")


class BoatForm(FlaskForm):
    """Boat, load and site of one enquiry."""

    title = StringField("Title", [validators.Length(max=120)])
    customer = StringField("Customer", [validators.Length(max=120)])
    model = StringField("Make and model", [validators.Length(max=120)])
    note = TextAreaField("Note", [validators.Length(max=4000)])
    storage = SelectField(
        "Kept and carried", choices=[SelectChoice(s, s or "not said") for s in STORAGE], default=""
    )
    family = FamilyField("Kind of boat")
    length = QuantityField("Length overall", "length", 1.5, 15, True)
    beam = QuantityField("Beam overall", "length", 0.3, 8, True)
    mass = QuantityField(
        "Light mass", "mass", 3, 30000, True, "without people, gear, motor, battery"
    )
    waterline_length = QuantityField("Waterline length", "length", 0.8, 15)
    waterline_beam = QuantityField("Waterline beam", "length", 0.15, 8)
    bodies = QuantityField("Hulls or tubes", "count", 1, 3)
    body_beam = QuantityField("Beam of one hull or tube", "length", 0.08, 8)
    body_spacing = QuantityField("Hulls apart", "length", 0.1, 8, hint="centre to centre")
    chine_beam = QuantityField("Beam over the chines", "length", 0.2, 8)
    deadrise = QuantityField("Deadrise", "angle", 0, 35)
    transom_height = QuantityField(
        "Transom height", "length", 0.1, 1.5, hint="motor's seat to hull bottom, along the rake"
    )
    transom_thickness = QuantityField("Thickness", "length", 0.005, 0.3)
    transom_width = QuantityField("Flat width", "length", 0.1, 4)
    rake = QuantityField("Rake", "angle", -20, 45, hint="top aft; 12° is usual")
    rudder = QuantityField(
        "Rudder blade", "length", 0.02, 1.5, hint="hinge to trailing edge; empty: none in the way"
    )
    room_ahead = QuantityField(
        "Room ahead", "length", 0, 3, hint="motor's seat to knee, well or bulkhead"
    )
    remote_steering = BooleanField("remote steering")
    max_power = QuantityField("Power", "power", 50, 1e6)
    max_motor = QuantityField("Motor mass", "mass", 1, 500)
    max_load = QuantityField("Load", "mass", 10, 30000, hint="people, gear, motor, battery")
    max_people = QuantityField("Persons", "count", 1, 60)
    approval_power = QuantityField("Approved power", "power", 50, 1e6)
    approval_thrust = QuantityField("Approved thrust", "thrust", 10, 1e5)
    approval_from = QuantityField("From model year", "count", 1900, 2200)
    approval_to = QuantityField("To model year", "count", 1900, 2200)
    model_year = QuantityField("This hull's year", "count", 1900, 2200)
    bottom = RadioField("Bottom", choices=[SelectChoice(b, b) for b in BOTTOMS], default="clean")
    places = ChecksField(
        "Mounting places", choices=[SelectChoice(k, v.split(" ", 1)[-1]) for k, v in PLACES.items()]
    )
    people = QuantityField("People", "count", 0, 60, True)
    people_kg = QuantityField("People together", "mass", 0, 6000, hint="80 kg each if left empty")
    seats = StringField("Or each, from the helm", [validators.Length(max=200)])
    gear = QuantityField("Gear", "mass", 0, 20000)
    water = RadioField(
        "Water",
        choices=[SelectChoice("salt", "salt"), SelectChoice("fresh", "fresh")],
        default="salt",
    )
    changed = HiddenField()


for _i in BAYS:
    setattr(
        BoatForm,
        f"bay{_i}_name",
        StringField("Bay" if _i == 1 else "Another bay", [validators.Length(max=80)]),
    )
    for _name, _label, _q, _low, _high in (
        ("length", "Length", "length", 0.05, 5),
        ("width", "Width", "length", 0.05, 5),
        ("height", "Height", "length", 0.05, 3),
        ("max", "Carries", "mass", 1, 5000),
        ("ahead", "Ahead of stern", "length", -1, 15),
        ("off", "To starboard", "length", -4, 4),
        ("above", "Floor above keel", "length", 0, 3),
        ("lid_length", "Lid length", "length", 0.02, 5),
        ("lid_width", "Lid width", "length", 0.02, 5),
    ):
        setattr(BoatForm, f"bay{_i}_{_name}", QuantityField(_label, _q, _low, _high))
    setattr(BoatForm, f"bay{_i}_closed", BooleanField("closed, no ventilation"))


def read_seats(text: str | None) -> tuple[float, ...]:
    """Masses of single people out of "90, 60 kg, 11 st"; raises ValueError naming what cannot be
    read.
    """
    from jolvek.core.base import units
    from jolvek.core.base.errors import JolvekError
    from jolvek.web.view import display

    out = []
    for part in (text or "").replace(";", ",").split(","):
        if part.strip():
            try:
                kg = units.parse(part, "mass", display.current()["mass"])
            except JolvekError as error:
                raise ValueError(str(error)) from None
            if not 0 <= kg <= 250:
                raise ValueError(f"read “{part.strip()}”; allowed is 0 to 250 kg for one person")
            out.append(kg)
    return tuple(out)


def enquiry_from(form: BoatForm, before: Enquiry) -> Enquiry:
    """The enquiry in a valid form; the day and what the form does not hold stay as before. Raises
    ValueRefused, ValueError.
    """
    d = {name: field.data for name, field in form._fields.items()}
    d |= {name: int(d[name]) for name in _WHOLE if d[name] is not None}
    same = before.need.hull if before.need.hull.family == d["family"] else None
    trial = {k: getattr(same, k) for k in ("friction_factor", "wave_factor")} if same else {}
    hull = Hull(
        d["family"],
        **{attr: d[name] for name, attr in _HULL.items()},
        bottom=d["bottom"] or "clean",
        **trial,
    )
    load = Load(
        int(d["people"]),
        d["people_kg"],
        d["gear"] or 0.0,
        read_seats(d["seats"])[: int(d["people"])],
    )
    site = replace(
        before.need.site,
        places=tuple(d["places"] or default_places(d["family"])),
        bays=tuple(_bays(d)),
        remote_steering=bool(d["remote_steering"]),
        **{attr: d[name] for name, attr in _SITE.items() if name != "rake"},
        rake_deg=12.0 if d["rake"] is None else d["rake"],
    )
    need = replace(before.need, hull=hull, load=load, site=site, water=Water(d["water"] or "salt"))
    return replace(
        before,
        need=need,
        **{k: (d[k] or "").strip() for k in ("title", "customer", "model", "note", "storage")},
    )


def _bays(d: dict[str, Any]) -> list[Bay]:
    out = []
    for i in BAYS:
        values = {attr: d[f"bay{i}_{name}"] for name, attr in _BAY.items()}
        if values["length_m"] and values["width_m"] and values["height_m"]:
            values |= {
                "off_m": values["off_m"] or 0.0,
                "above_m": 0.05 if values["above_m"] is None else values["above_m"],
            }
            out.append(
                Bay(
                    name=d[f"bay{i}_name"] or f"bay {i}",
                    ventilated=not d[f"bay{i}_closed"],
                    **values,
                )
            )
    return out


def values_of(enquiry: Enquiry) -> dict[str, Any]:
    """The form's values for an enquiry."""
    need = enquiry.need
    out: dict[str, Any] = {
        k: getattr(enquiry, k) for k in ("title", "customer", "model", "note", "storage")
    }
    out |= {name: getattr(need.hull, attr) for name, attr in _HULL.items()} | {
        name: getattr(need.site, attr) for name, attr in _SITE.items()
    }
    out |= {
        "family": need.hull.family,
        "bottom": need.hull.bottom,
        "places": list(need.site.places),
        "people": need.load.people,
        "people_kg": need.load.people_kg,
        "gear": need.load.gear_kg,
        "water": need.water.kind,
        "remote_steering": need.site.remote_steering,
        "seats": ", ".join(f"{kg:g}" for kg in need.load.seat_kg),
    }
    for i, bay in zip(BAYS, need.site.bays, strict=False):
        out |= {f"bay{i}_{name}": getattr(bay, attr) for name, attr in _BAY.items()}
        out |= {f"bay{i}_name": bay.name, f"bay{i}_closed": not bay.ventilated}
    return out
