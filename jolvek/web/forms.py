"""Forms: fields that read figures as people type them, and the enquiry form built from them."""

from __future__ import annotations

from dataclasses import replace
from typing import Any

from flask_wtf import FlaskForm
from wtforms import Field, HiddenField, RadioField, SelectMultipleField, StringField, TextAreaField, validators
from wtforms.fields.choices import SelectChoice
from wtforms.widgets import CheckboxInput, ListWidget, TextInput

from jolvek.core import units
from jolvek.core.errors import JolvekError, ValueRefused
from jolvek.core.families import FAMILIES
from jolvek.core.hull import BOTTOMS, Hull, Load
from jolvek.core.mounting import PLACES, Bay, Site, default_places
from jolvek.core.need import Day, Need
from jolvek.core.water import Water
from jolvek.web import shown


class QuantityField(Field):
    """A figure with a unit; `data` is SI. What was typed stays in the field when it cannot be read."""

    widget = TextInput()

    def __init__(self, label: str, quantity: str, low: float, high: float, needed: bool = False, hint: str = "",
                 **kwargs: Any) -> None:
        super().__init__(label, **kwargs)
        self.quantity, self.low, self.high, self.needed, self.hint = quantity, low, high, needed, hint
        self.typed: str | None = None

    @property
    def unit(self) -> str:
        """The unit shown behind the field."""
        return shown.current()[self.quantity]

    def _value(self) -> str:
        if self.typed is not None:
            return self.typed
        return shown.current().entry(self.data, self.quantity)

    def process_formdata(self, valuelist: list[str]) -> None:
        """Read the typed text into SI, or refuse it with what was read and what is allowed."""
        if not valuelist:
            self.data = None
            return
        self.typed, self.data = valuelist[0], None
        text = valuelist[0].strip()
        if not text:
            if self.needed:
                raise ValueError(f"needed: type a {self.quantity}, for example {units.EXAMPLES[self.quantity]}")
            return
        choice = shown.current()
        try:
            value = units.parse(text, self.quantity, choice[self.quantity])
        except JolvekError as error:
            raise ValueError(str(error)) from None
        if not self.low <= value <= self.high:
            low, high = choice.full(self.low, self.quantity), choice.full(self.high, self.quantity)
            raise ValueError(f"read “{text}”; allowed is {low} to {high}")
        if self.quantity == "count" and value != int(value):
            raise ValueError(f"read “{text}”; a whole number is needed")
        self.data = value

    def pre_validate(self, form: Any) -> None:
        """A needed field that was not sent at all is refused too."""
        if self.needed and self.data is None and not self.process_errors:
            raise validators.StopValidation(f"needed: type a {self.quantity}, for example {units.EXAMPLES[self.quantity]}")


class FamilyField(RadioField):
    """The kind of hull, by silhouette; an unknown one is named."""

    def __init__(self, label: str, **kwargs: Any) -> None:
        super().__init__(label, choices=[SelectChoice(f.id, f.name) for f in FAMILIES.values()], validate_choice=False, **kwargs)

    def pre_validate(self, form: Any) -> None:
        """Refuse what is not a family."""
        if self.data in (None, "", "None"):
            raise validators.StopValidation("choose the kind of boat")
        if self.data not in FAMILIES:
            raise validators.StopValidation(f"read “{self.data}”; allowed is one of the boats shown")


class ChecksField(SelectMultipleField):
    """Several choices as check boxes."""

    widget = ListWidget(prefix_label=False)
    option_widget = CheckboxInput()


class QuickForm(FlaskForm):
    """Quick start: five entries, one answer."""

    family = FamilyField("Boat", default="inflatable_air")
    length = QuantityField("Length", "length", 1.5, 15, True, default=2.9)
    people = QuantityField("People", "count", 0, 60, True, default=2)
    speed = QuantityField("Wanted speed", "speed", 0.3, 20, True, default=3.5 * units.KNOT_M_S)
    distance = QuantityField("Distance, there and back", "distance", 50, 500e3, True, default=5 * units.NAUTICAL_MILE_M)


class EnquiryForm(FlaskForm):
    """Boat, load, site and day of one enquiry."""

    title = StringField("Title", [validators.Length(max=120)])
    customer = StringField("Customer", [validators.Length(max=120)])
    note = TextAreaField("Note", [validators.Length(max=4000)])
    family = FamilyField("Kind of boat")
    length = QuantityField("Length overall", "length", 1.5, 15, True)
    beam = QuantityField("Beam overall", "length", .3, 8, True)
    mass = QuantityField("Light mass", "mass", 3, 30000, True, "without people, gear, motor, battery")
    waterline_length = QuantityField("Waterline length", "length", .8, 15)
    waterline_beam = QuantityField("Waterline beam", "length", .15, 8)
    body_beam = QuantityField("Beam of one hull or tube", "length", .08, 8)
    bodies = QuantityField("Hulls or tubes", "count", 1, 3)
    transom_height = QuantityField("Transom height", "length", .1, 1.5, hint="motor's seat to hull bottom, along the rake")
    transom_thickness = QuantityField("Transom thickness", "length", .005, .3)
    max_power = QuantityField("Plate: power", "power", 50, 1e6)
    max_motor = QuantityField("Plate: motor mass", "mass", 1, 500)
    max_load = QuantityField("Plate: load", "mass", 10, 30000, hint="people, gear, motor, battery")
    approval_power = QuantityField("Maker's approval: power", "power", 50, 1e6)
    approval_thrust = QuantityField("Maker's approval: thrust", "thrust", 10, 1e5)
    bottom = RadioField("Bottom", choices=[SelectChoice(b, b) for b in BOTTOMS], default="clean")
    places = ChecksField("Mounting places", choices=[SelectChoice(k, v.split(" ", 1)[-1]) for k, v in PLACES.items()])
    people = QuantityField("People", "count", 0, 60, True)
    people_kg = QuantityField("People together", "mass", 0, 6000, hint="80 kg each if left empty")
    gear = QuantityField("Gear", "mass", 0, 20000)
    water = RadioField("Water", choices=[SelectChoice("salt", "salt"), SelectChoice("fresh", "fresh")], default="salt")
    bay1_name = StringField("Bay", [validators.Length(max=80)])
    bay1_length = QuantityField("Length", "length", .05, 5)
    bay1_width = QuantityField("Width", "length", .05, 5)
    bay1_height = QuantityField("Height", "length", .05, 3)
    bay1_max = QuantityField("Carries", "mass", 1, 5000)
    bay2_name = StringField("Second bay", [validators.Length(max=80)])
    bay2_length = QuantityField("Length", "length", .05, 5)
    bay2_width = QuantityField("Width", "length", .05, 5)
    bay2_height = QuantityField("Height", "length", .05, 3)
    bay2_max = QuantityField("Carries", "mass", 1, 5000)
    speed = QuantityField("Wanted speed", "speed", .3, 20, True)
    distance = QuantityField("Distance, there and back", "distance", 50, 500e3, True)
    wind = QuantityField("Wind against", "speed", -30, 30)
    current = QuantityField("Current against", "speed", -6, 6)
    reserve = QuantityField("Reserve", "share", 0, .9)
    charge = QuantityField("Hours to charge", "duration", 1800, 240 * 3600)
    lift = QuantityField("Heaviest lift", "mass", 1, 500)
    changed = HiddenField()


_KEY_FIELDS = {"length_m": "length", "beam_m": "beam", "mass_kg": "mass", "waterline_length_m": "waterline_length",
               "waterline_beam_m": "waterline_beam", "body_beam_m": "body_beam", "bodies": "bodies", "family": "family",
               "transom_height_m": "transom_height", "max_power_w": "max_power", "people": "people", "people_kg": "people_kg",
               "speed_m_s": "speed", "distance_m": "distance", "reserve": "reserve", "wind_m_s": "wind",
               "current_m_s": "current", "body_spacing_m": "body_beam"}


def refuse_at_field(form: FlaskForm, error: ValueRefused) -> None:
    """Put a core refusal at the field it speaks of."""
    name = _KEY_FIELDS.get(error.key.split(".")[-1], "")
    field = form[name] if name in form else form["length"]
    if isinstance(field, QuantityField) and isinstance(error.read, int | float) and field.quantity == "length":
        text = f"read “{field.typed or field._value()}”; allowed is {error.allowed.replace(' for', ' m for')}"
        text = text if " m for" in text else text + " m"
    else:
        text = f"read “{getattr(field, 'typed', None) or error.read}”; allowed is {error.allowed}"
    field.errors = [*field.errors, text]


def need_from(form: EnquiryForm, before: Need | None = None) -> Need:
    """The need in a valid form; what the form does not hold stays as before. Raises ValueRefused."""
    d = {name: field.data for name, field in form._fields.items()}
    old_hull = before.hull if before and before.hull.family == d["family"] else None
    hull = Hull(d["family"], d["length"], d["beam"], d["mass"], d["waterline_length"], d["waterline_beam"],
                int(d["bodies"]) if d["bodies"] else None, old_hull.body_spacing_m if old_hull else None, d["body_beam"],
                old_hull.chine_beam_m if old_hull else None, old_hull.deadrise_deg if old_hull else None,
                d["transom_height"], d["max_power"], d["bottom"] or "clean",
                old_hull.friction_factor if old_hull else 1.0, old_hull.wave_factor if old_hull else 1.0)
    load = Load(int(d["people"]), d["people_kg"], d["gear"] or 0.0)
    bays = []
    for i in ("bay1", "bay2"):
        sizes = (d[f"{i}_length"], d[f"{i}_width"], d[f"{i}_height"])
        if all(sizes):
            old = before.site.bays[int(i[3]) - 1] if before and len(before.site.bays) >= int(i[3]) else None
            bays.append(Bay(d[f"{i}_name"] or f"bay {i[3]}", *sizes, d[f"{i}_max"], old.ahead_m if old else None,
                            old.ventilated if old else True))
    site = replace(before.site if before else Site(), places=tuple(d["places"] or default_places(d["family"])), bays=tuple(bays),
                   transom_thickness_m=d["transom_thickness"], max_motor_kg=d["max_motor"], max_load_kg=d["max_load"],
                   approval_power_w=d["approval_power"], approval_thrust_n=d["approval_thrust"])
    day = replace(before.day if before else Day(), speed_m_s=d["speed"], distance_m=d["distance"], wind_m_s=d["wind"] or 0.0,
                  current_m_s=d["current"] or 0.0, reserve=.2 if d["reserve"] is None else d["reserve"],
                  charge_h=(d["charge"] or 36000) / 3600, max_lift_kg=d["lift"])
    weights = {"weights": before.weights} if before else {}
    return Need(hull, load, site, Water(d["water"] or "salt"), day, **weights)


def values_of(need: Need) -> dict[str, Any]:
    """The form's values for a need."""
    h, s, day = need.hull, need.site, need.day
    out: dict[str, Any] = {
        "family": h.family, "length": h.length_m, "beam": h.beam_m, "mass": h.mass_kg, "waterline_length": h.waterline_length_m,
        "waterline_beam": h.waterline_beam_m, "body_beam": h.body_beam_m, "bodies": h.bodies,
        "transom_height": h.transom_height_m, "transom_thickness": s.transom_thickness_m, "max_power": h.max_power_w,
        "max_motor": s.max_motor_kg, "max_load": s.max_load_kg, "approval_power": s.approval_power_w,
        "approval_thrust": s.approval_thrust_n, "bottom": h.bottom, "places": list(s.places), "people": need.load.people,
        "people_kg": need.load.people_kg, "gear": need.load.gear_kg, "water": need.water.kind, "speed": day.speed_m_s,
        "distance": day.distance_m, "wind": day.wind_m_s, "current": day.current_m_s, "reserve": day.reserve,
        "charge": day.charge_h * 3600, "lift": day.max_lift_kg,
    }
    for i, bay in enumerate(s.bays[:2], 1):
        out |= {f"bay{i}_name": bay.name, f"bay{i}_length": bay.length_m, f"bay{i}_width": bay.width_m,
                f"bay{i}_height": bay.height_m, f"bay{i}_max": bay.max_kg}
    return out
